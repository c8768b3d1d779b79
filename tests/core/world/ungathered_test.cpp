// SPDX-License-Identifier: MIT
// A game's world that cannot tell what is near answers each question by itself: the drive is the same to the
// bit.
#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

class Ungathered final : public World {
 public:
  explicit Ungathered(const World& whole) : whole_(whole) {}
  std::optional<WorldHit> sweep(const Segment& axis, double radius, const Vec3& motion_C,
                                const Moment& moment) const override {
    return whole_.sweep(axis, radius, motion_C, moment);
  }
  std::size_t contacts(const Segment& axis, double radius, std::span<WorldContact> out,
                       const Moment& moment) const override {
    return whole_.contacts(axis, radius, out, moment);
  }
  std::optional<WorldRayHit> cast_ray(const Vec3& origin_C, const Vec3& motion_C,
                                      const Moment& moment) const override {
    return whole_.cast_ray(origin_C, motion_C, moment);
  }
  Box limits() const override { return whole_.limits(); }
  Vec3 wind() const override { return whole_.wind(); }
  std::string_view piece_name(PieceId piece) const override { return whole_.piece_name(piece); }
  bool has_movers() const override { return whole_.has_movers(); }
  const PieceMotion* motion_of(PieceId piece) const override { return whole_.motion_of(piece); }
  std::optional<WorldPush> first_push(const Segment& axis, double radius, double from_time, double to_time,
                                      PieceId carrier) const override {
    return whole_.first_push(axis, radius, from_time, to_time, carrier);
  }

 private:
  const World& whole_;
};

}  // namespace

TEST_CASE("On a world that does not gather, every drive over the demo course is the same to the bit") {
  const auto course = read_course(LAGNIAPPE_SOURCE_DIR "/courses/tidewheel.course.json");
  REQUIRE(course);
  const TriangleWorld ours = build_world(*course);
  const Ungathered theirs(ours);
  const Profile profile;
  for (std::size_t m = 0; m < course->marks.size(); ++m) {
    const int hz = tick_rates()[m % tick_rates().size()];
    Random random(40 + m);
    CharacterState a = start_state(profile, home_of(course->marks[m]), ours);
    CharacterState b = start_state(profile, home_of(course->marks[m]), theirs);
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
