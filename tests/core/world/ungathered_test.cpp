// SPDX-License-Identifier: MIT
// A game's world that cannot tell what is near answers each question by itself: the drive is the same to the
// bit.
#include <catch2/catch.hpp>

#include "support/forwarding_world.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

TEST_CASE("On a world that does not gather, every drive over the demo course is the same to the bit") {
  const auto course = read_course(LAGNIAPPE_SOURCE_DIR "/courses/tidewheel.course.json");
  REQUIRE(course);
  const TriangleWorld ours = build_world(*course);
  const ForwardingWorld theirs(ours);
  const Profile profile;
  for (std::size_t m = 0; m < course->marks.size(); ++m) {
    const int hz = tick_rates()[m % tick_rates().size()];
    Random random(40 + m);
    CharacterState a = start_state(profile, home_of(*course, course->marks[m]), ours);
    CharacterState b = start_state(profile, home_of(*course, course->marks[m]), theirs);
    InputFrame input;
    long apart = 0;
    for (int tick = 0; tick < 6 * hz; ++tick) {
      if (random.below(hz) < 2) input = push(random.between(-1, 1), random.between(-1, 1));
      input.pressed = {};
      input.pressed.set(Action::Jump, random.below(hz) == 0);
      input.pressed.set(Action::Lie, random.below(4 * hz) == 0);
      a = step(a, input, profile, ours, 1.0 / hz);
      b = step(b, input, profile, theirs, 1.0 / hz);
      apart += a.foot_C != b.foot_C || a.velocity_C != b.velocity_C || a.state != b.state;
    }
    INFO(course->marks[m].id << ", " << hz << " ticks/s");
    CHECK(apart == 0);
  }
}

namespace {

// As a game's physics has it: where things are now, and were a moment ago.
class OnlyNow final : public ForwardingWorld {
 public:
  OnlyNow(const World& whole, const double& from, const double& to)
      : ForwardingWorld(whole), from_(from), to_(to) {}
  bool knows_ahead() const override { return false; }
  RigidPose piece_frame(PieceId piece, double time) const override {
    check(time);
    return ForwardingWorld::piece_frame(piece, time);
  }
  RigidVelocity piece_velocity(PieceId piece, double time) const override {
    check(time);
    return ForwardingWorld::piece_velocity(piece, time);
  }

 private:
  void check(double time) const {
    if (time < from_ - 1e-3 || time > to_ + 1e-12)
      FAIL("asked about " << time << " s in " << from_ << " to " << to_);
  }
  const double &from_, &to_;
};

}  // namespace

TEST_CASE("A world that knows only now is asked about nothing else, and carries all the same") {
  // A lift that sinks, then drops from under the feet at twice gravity.
  Course course;
  Piece lift;
  lift.id = "lift";
  lift.shape = shape::Block{{3, 0.5, 3}};
  lift.at_C = Vec3(0, 9.5, 0);
  PieceMotion motion;
  motion.keys = {{0.0, Vec3(0.0), Vec3(0.0), PieceMotion::Ease::Even},
                 {0.5, Vec3(0.5, -1, 0), Vec3(0.4, 0, 0), PieceMotion::Ease::Speeding},
                 {1.0, Vec3(0.5, -9, 0)}};
  motion.period = 4.0;
  motion.repeat = PieceMotion::Repeat::BackAndForth;
  lift.motion = motion;
  course.pieces = {lift};
  course.marks = {{"start", Vec3(0, 10, 0), 0.0}};
  const TriangleWorld ours = build_world(course);
  const Profile profile;
  for (const int hz : {20, 60, 240}) {
    double from = 0.0, to = 0.0;
    const OnlyNow theirs(ours, from, to);
    CharacterState a = start_state(profile, home_of(course, course.marks[0]), ours), b = a;
    bool flew_a = false, flew_b = false;
    for (int tick = 0; tick < 3 * hz / 2; ++tick) {
      from = b.time, to = from + 1.0 / hz;
      a = step(a, push(0, 0), profile, ours, 1.0 / hz);
      b = step(b, push(0, 0), profile, theirs, 1.0 / hz);
      if (tick < hz) CHECK(length(a.foot_C - b.foot_C) < 1e-9);
      flew_a = flew_a || !a.grounded(), flew_b = flew_b || !b.grounded();
    }
    INFO(hz << " ticks/s");
    CHECK(flew_a == flew_b);
    CHECK(length(a.foot_C - b.foot_C) < 0.05);
  }
}
