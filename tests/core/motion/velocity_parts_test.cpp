// SPDX-License-Identifier: MIT
// Where a velocity comes from: what the ledger says changed it is what changed it.
#include <catch2/catch.hpp>

#include "lagniappe/handling.h"
#include "support/scenes.h"
#include "support/velocity_sum.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

const std::string kSource = LAGNIAPPE_SOURCE_DIR;
constexpr double kGravity = 20.0;

// A level floor of some grip, in wind, its top at y = 0.
TriangleWorld floor_of(double grip, const Vec3& wind_C = Vec3(0.0), std::optional<PieceMotion> motion = {}) {
  Course course;
  course.surfaces = {{"of the floor", {}}};
  course.surfaces.front().surface.friction = grip;
  course.marks = {{"start"}};
  Piece floor;
  floor.id = "floor";
  floor.shape = shape::Block{{200.0, 1.0, 200.0}};
  floor.at_C = Vec3(0.0, -1.0, 0.0);
  floor.surface = "of the floor";
  floor.motion = motion;
  course.pieces = {floor};
  course.wind_C = wind_C;
  return build_world(course);
}

struct Told {
  CharacterState before, after;
  Ledger ledger;

  Vec3 by(std::string_view cause) const {
    for (const VelocityPart& part : velocity_parts(ledger))
      if (part.cause == cause) return part.change_C;
    return Vec3(0.0);
  }
};

Told told(const CharacterState& before, const InputFrame& input, const Profile& profile, const World& world,
          int hz) {
  Told t{before, before, {}};
  t.after = step(before, input, profile, world, 1.0 / hz, &t.ledger);
  must_sum_to_the_change(t.ledger, before, t.after);
  return t;
}

Profile plain() {
  Profile p;
  p.gravity = kGravity;
  p.jump.apex_speed = 0.0;
  p.jump.fall_factor = 1.0;
  p.ground.response.model = Response::Model::Steady;
  p.ground.response.acceleration = p.ground.response.deceleration = 10.0;
  p.air.wind_time = 0.5;
  return p;
}

CharacterState standing(const Profile& p, const World& world) { return start_state(p, Home{}, world); }

const InputFrame kNothing;

}  // namespace

TEST_CASE("In free fall gravity alone changes the velocity, and a rise is told how far it still goes") {
  const Profile p = plain();
  const TriangleWorld world = floor_of(1.0);
  CharacterState rising = start_state(p, {Vec3(0.0, 5.0, 0.0)}, world);
  rising.velocity_C = Vec3(0.0, 6.0, 0.0);
  const Told t = told(rising, kNothing, p, world, 50);
  CHECK(t.by("gravity").y == Approx(-kGravity / 50.0));
  CHECK(velocity_parts(t.ledger).size() == 1);
  const auto& gravity = std::get<entry::Gravity>(
      *std::find_if(t.ledger.entries.begin(), t.ledger.entries.end(),
                    [](const LedgerEntry& e) { return std::holds_alternative<entry::Gravity>(e); }));
  CHECK(gravity.gravity == Approx(kGravity));
  CHECK(gravity.apex == Approx(6.0 * 6.0 / (2.0 * kGravity)));
  CHECK(gravity.terminal_speed == Approx(p.terminal_speed));
}

TEST_CASE("The apex that is told is where the rise ends, whatever hangs, is cut or falls faster") {
  Profile p = plain();
  p.jump.apex_speed = 2.0;
  p.jump.apex_factor = 0.4;
  p.jump.fall_factor = 1.7;
  p.jump.lowest_share = 0.3;
  for (const bool cut : {false, true}) {
    const Pull pull = pull_on(p, 0, cut);
    // Against the flight itself, in steps too short to matter.
    double speed = 7.0, height = 0.0;
    CHECK(gravity_at(pull, speed) == Approx(cut ? kGravity * cut_factor(p, 0) : kGravity));
    while (speed > 0.0) {
      const Risen on = rise_for(pull, speed, 1e-5);
      height += on.height;
      speed = on.speed;
    }
    CHECK(height_to_apex(pull, 7.0) == Approx(height).margin(1e-6));
    CHECK(height_to_apex(pull, -1.0) == 0.0);
  }
}

TEST_CASE("Poor grip is told as what it keeps back of the response") {
  const Profile p = plain();
  for (const double grip : {1.0, 0.25}) {
    const TriangleWorld world = floor_of(grip);
    const Told t = told(standing(p, world), push(0.0, 1.0), p, world, 50);
    CHECK(t.by("intent").z == Approx(-10.0 / 50.0));
    CHECK(t.by("grip").z == Approx((1.0 - grip) * 10.0 / 50.0).margin(1e-12));
    CHECK(t.after.velocity_C.z == Approx(-grip * 10.0 / 50.0));
  }
}

TEST_CASE("Ground holds against wind as its grip allows; what it does not hold blows one along") {
  const Profile p = plain();
  const double held = kGravity * p.air.wind_time;  // m/s, at full grip.
  struct Case {
    double wind, grip;
  };
  for (const auto& [wind, grip] : {Case{8.0, 1.0}, Case{9.99, 1.0}, Case{14.0, 1.0}, Case{8.0, 0.3}}) {
    const TriangleWorld world = floor_of(grip, Vec3(wind, 0.0, 0.0));
    const double blown = std::max(wind - grip * held, 0.0);
    for (const int hz : tick_rates()) {
      INFO("wind " << wind << ", grip " << grip << ", " << hz << " ticks/s");
      CharacterState s = standing(p, world);
      // What blows goes on blowing, against the response that wants to stand.
      for (int i = 0; i < 4 * hz; ++i) {
        const Told t = told(s, kNothing, p, world, hz);
        CHECK((t.by("wind").x > 0.0) == (blown > 0.0));
        CHECK(t.by("intent").x <= 0.0);
        s = t.after;
      }
      CHECK(s.velocity_C.x == Approx(blown).margin(1e-9));
      CHECK(s.grounded());
      // Who walks against it is as much slower.
      for (int i = 0; i < 6 * hz; ++i) s = told(s, push(-1.0, 0.0), p, world, hz).after;
      CHECK(s.velocity_C.x == Approx(blown - p.ground.speed).margin(1e-9));
    }
  }
}

TEST_CASE("A jump, what carries and what ends a fall are each told") {
  const Profile p = plain();
  PieceMotion lift;
  using Key = PieceMotion::Key;
  lift.keys = {Key{0.0, Vec3(0.0), Vec3(0.0), PieceMotion::Ease::Even},
               Key{1.0, Vec3(4.0, 8.0, 0.0), Vec3(0.0), PieceMotion::Ease::Even}};
  lift.repeat = PieceMotion::Repeat::BackAndForth;
  lift.period = 8.0;
  const TriangleWorld world = floor_of(1.0, Vec3(0.0), lift);
  const CharacterState standing_there = standing(p, world);
  const Told up = told(standing_there, press(Action::Jump), p, world, 60);
  CHECK(up.by("jump").y == Approx(take_off_speed(p, p.jump.height)));

  CharacterState s = up.after;
  bool fell = false;
  double fall = 0.0, taken = 0.0;
  for (int i = 0; i < 120 && !fell; ++i) {
    const Told t = told(s, kNothing, p, world, 60);
    fell = t.after.grounded();
    fall = dot(s.velocity_C, Vec3(0, 1, 0));
    taken = (t.by("ground") + t.by("contact")).y;
    s = t.after;
  }
  REQUIRE(fell);
  // From the fall to the lift's own rise of 2 m/s.
  CHECK(taken == Approx(2.0 - fall).margin(kGravity / 60.0));
  // Where the lift turns about, its carrying does it all.
  Vec3 carried(0.0);
  const double rose = s.velocity_C.y;
  for (int i = 0; i < 60 * 4; ++i) {
    const Told t = told(s, kNothing, p, world, 60);
    carried += t.by("carrier");
    s = t.after;
  }
  CHECK(rose == Approx(2.0));
  CHECK(s.velocity_C.y < 0.0);
}

TEST_CASE("Whatever is driven, in wind, on ice and by scripts, the causes sum to the change") {
  Random random(20261129);
  auto course = read_course(kSource + "/courses/tidewheel.course.json");
  REQUIRE(course);
  for (const char* name :
       {"warden", "wader", "heron", "ways/breath", "ways/dash", "ways/glide", "ways/wall-run"}) {
    auto profile = read_profile(kSource + "/profiles/" + name + ".profile.json");
    REQUIRE(profile);
    for (int walk = 0; walk < 6; ++walk) {
      course->wind_C = walk % 3 == 0 ? Vec3(0.0) : Vec3(random.between(-30, 30), 3.0, random.between(-30, 30));
      for (NamedSurface& named : course->surfaces)
        if (walk % 2 == 1) named.surface.friction = random.between(0.02, 1.0);
      profile->ground.response.model = static_cast<Response::Model>(random.below(4));
      profile->walls.strike = random.between(0.0, 1.0);
      const auto world = build_world(*course);
      const Mark& mark = course->marks[std::size_t(random.below(int(course->marks.size())))];
      const int hz = tick_rates()[std::size_t(random.below(int(tick_rates().size())))];
      INFO(name << " from " << mark.id << " at " << hz << " ticks/s");
      CharacterState s = start_state(*profile, {mark.at_C, Quat(1, 0, 0, 0), mark.facing}, world);
      InputFrame input;
      for (int i = 0; i < 8 * hz; ++i) {
        if (random.below(hz) < 3) {
          input.move = Vec2(random.between(-1, 1), random.between(-1, 1));
          input.turn_rate.x = random.between(-2, 2);
        }
        input.pressed = {};
        for (int action = 0; action < kActionCount - 1; ++action) {
          if (random.below(2 * hz) > 1) continue;
          const auto which = static_cast<Action>(action);
          input.pressed.set(which, !input.held.has(which));
          input.held.set(which, !input.held.has(which));
          input.pressed_at[std::size_t(action)] = static_cast<float>(random.between(0.0, 0.99));
        }
        s = told(s, input, *profile, world, hz).after;
      }
    }
  }
}
