// SPDX-License-Identifier: MIT
// Slopes that are walked, slopes that are not, and what happens between them. Closed forms are the oracle.
#include <catch2/catch.hpp>

#include "motion/ground.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// A long slope through the origin that rises towards -Z, `angle_deg` steep, 1 m thick.
Scene slope(double angle_deg) {
  const double a = radians(angle_deg);
  Scene scene;
  scene.block(Vec3(0, -std::cos(a), -std::sin(a)), {200, 1, 400}, {0, angle_deg, 0});
  return scene;
}

// Where a capsule's foot is that rests on that slope over the point `along` m up it.
Vec3 resting(const Profile& profile, double angle_deg, double along, double right = 0.0) {
  const double a = radians(angle_deg);
  return Vec3(right, along * std::sin(a) + profile.capsule.radius * (1.0 / std::cos(a) - 1.0),
              -along * std::cos(a));
}

CharacterState on_slope(const TriangleWorld& world, const Profile& profile, double angle_deg, double yaw,
                        double along = 0.0, const Frame& frame = frames()[0]) {
  const Vec3 foot = resting(profile, angle_deg, along) + Vec3(0, 1e-5, 0);
  const CharacterState state = start_state(profile, {frame.point(foot), frame.rotation_CE, yaw}, world);
  return state;
}

const auto kForward = [](double) { return push(0, 1); };
const auto kNothing = [](double) { return InputFrame{}; };

// Instant responses: what is left is geometry.
Profile instant() {
  Profile profile;
  profile.ground.response.model = Response::Model::Instant;
  return profile;
}

}  // namespace

TEST_CASE("Uphill, downhill and across, the speed along the surface is the profile's, or the level one") {
  for (const auto measure : {Profile::Ground::SpeedOnSlopes::Along, Profile::Ground::SpeedOnSlopes::Level}) {
    Profile profile = instant();
    profile.ground.speed_on_slopes = measure;
    for (const double angle : {0.0, 15.0, 30.0, 44.0}) {
      for (const Frame* frame : {&frames()[0], &frames()[1], &frames()[4]}) {
        const TriangleWorld world = slope(angle).world(*frame);
        for (const int hz : tick_rates()) {
          for (const double yaw_deg : {0.0, 180.0, 90.0, 40.0, -150.0}) {
            INFO(angle << " degrees, yaw " << yaw_deg << ", " << hz << " ticks/s, " << frame->name);
            CharacterState state = on_slope(world, profile, angle, radians(yaw_deg), 0.0, *frame);
            REQUIRE(state.grounded());
            const Vec3 before = state.foot_C;
            bool left = false;
            state = run(state, profile, world, hz, 2.0, kForward,
                        [&](const CharacterState& s) { left = left || !s.grounded(); });
            const Vec3 way = state.foot_C - before;
            const double measured = measure == Profile::Ground::SpeedOnSlopes::Along
                                        ? length(way)
                                        : length(across(way, state.up_C()));
            CHECK(measured == Approx(2.0 * profile.ground.speed).margin(1e-4));
            CHECK_FALSE(left);
          }
        }
      }
    }
  }
}

TEST_CASE("The slope's share of speed follows the curve over the slope in the direction of travel") {
  Profile profile = instant();
  profile.ground.slope_speed = {{{{-40.0, 1.25}, {0.0, 1.0}, {40.0, 0.6}}}, 3};
  const double angle = 30.0;
  const TriangleWorld world = slope(angle).world();
  for (const double yaw_deg : {0.0, 180.0, 90.0, 60.0}) {
    CharacterState state = on_slope(world, profile, angle, radians(yaw_deg));
    const Vec3 before = state.foot_C;
    state = run(state, profile, world, 60, 1.0, kForward);
    const double travelled_slope = degrees(std::atan(std::tan(radians(angle)) * std::cos(radians(yaw_deg))));
    INFO(yaw_deg);
    CHECK(length(state.foot_C - before) ==
          Approx(profile.ground.speed * profile.ground.slope_speed.at(travelled_slope)).margin(1e-4));
  }
}

TEST_CASE("Standing on a walkable slope for a minute nobody creeps") {
  const Profile profile;
  for (const double angle : {5.0, 30.0, 45.9}) {
    for (const Frame& frame : frames()) {
      const TriangleWorld world = slope(angle).world(frame);
      CharacterState state = on_slope(world, profile, angle, 0.0, 0.0, frame);
      state = run(state, profile, world, 60, 0.5, kNothing);
      const Vec3 before = state.foot_C;
      int odd = 0;
      state = run(state, profile, world, 60, 60.0, kNothing,
                  [&](const CharacterState& s) { odd += !s.grounded() || s.state != StateId::Stand; });
      INFO(angle << " degrees, " << frame.name);
      CHECK(length(state.foot_C - before) < 1e-9);
      CHECK(odd == 0);
    }
  }
}

TEST_CASE("From flat to slope and back there is no hop and no loss of speed") {
  const Profile profile = instant();
  for (const double angle : {10.0, 30.0, 44.0}) {
    // Up a ramp of 4 m depth, over a plateau, and down the other side.
    const double height = 4.0 * std::tan(radians(angle));
    const TriangleWorld world = Scene()
                                    .floor()
                                    .ramp({0, 0, -4}, {10, height, 4})
                                    .block({0, 0, -8}, {10, height, 4})
                                    .ramp({0, 0, -12}, {10, height, 4}, {180, 0, 0})
                                    .world();
    for (const int hz : tick_rates()) {
      CharacterState state = start_state(profile, {Vec3(0.0), Quat(1, 0, 0, 0), 0.0}, world);
      int airborne = 0;
      double slowest = 1e9, path = 0.0;
      Vec3 last = state.foot_C;
      const double seconds = std::ceil((4.0 + 8.0 / std::cos(radians(angle)) + 6.0) / profile.ground.speed);
      state = run(state, profile, world, hz, seconds, kForward, [&](const CharacterState& s) {
        airborne += !s.grounded();
        slowest = std::min(slowest, length(s.velocity_C));
        path += length(s.foot_C - last);
        last = s.foot_C;
      });
      INFO(angle << " degrees, " << hz << " ticks/s");
      CHECK(airborne == 0);
      CHECK(slowest > 0.9999 * profile.ground.speed);
      // Four corners, each cut by less than half a tick's way, and the two crests rounded by the capsule.
      CHECK(path == Approx(seconds * profile.ground.speed).margin(4 * 0.5 * profile.ground.speed / hz + 0.05));
      CHECK(state.foot_C.y == Approx(0.0).margin(1e-6));
    }
  }
}

TEST_CASE("On too steep a slope the skid gains g (sin - friction cos), to the closed form") {
  Profile profile;
  for (const double friction : {0.0, 0.2, 0.6}) {
    profile.skid.friction = friction;
    for (const double angle : {50.0, 60.0, 70.0}) {
      for (const Frame* frame : {&frames()[0], &frames()[1], &frames()[4]}) {
        const TriangleWorld world = slope(angle).world(*frame);
        for (const int hz : tick_rates()) {
          INFO(angle << " degrees, friction " << friction << ", " << hz << " ticks/s, " << frame->name);
          CharacterState state = on_slope(world, profile, angle, 0.0, 40.0, *frame);
          REQUIRE(state.ground.verdict == Verdict::None);
          state.ground.verdict = Verdict::Steep;  // Resting: no fall before the skid.
          state.ground.normal_C = frame->vector(Vec3(0, std::cos(radians(angle)), std::sin(radians(angle))));
          state.state = StateId::Skid;
          const Vec3 before = state.foot_C;
          bool lost = false;
          state = run(state, profile, world, hz, 1.0, kNothing, [&](const CharacterState& s) {
            lost = lost || s.ground.verdict != Verdict::Steep || s.state != StateId::Skid;
          });
          const double gain =
              profile.gravity * (std::sin(radians(angle)) - friction * std::cos(radians(angle)));
          CHECK_FALSE(lost);
          CHECK(length(state.velocity_C) == Approx(gain).epsilon(1e-6));
          CHECK(length(state.foot_C - before) == Approx(0.5 * gain).epsilon(1e-4));
        }
      }
    }
  }
}

TEST_CASE("A skid is steered a little across the slope and cannot be jumped off unless the profile says so") {
  Profile profile;
  const TriangleWorld world = slope(55.0).world();
  for (const bool allowed : {false, true}) {
    profile.jump.from_skid = allowed;
    CharacterState state = on_slope(world, profile, 55.0, 0.0, 60.0);
    state = run(state, profile, world, 60, 0.5, kNothing);
    REQUIRE(state.state == StateId::Skid);
    const CharacterState steered = run(state, profile, world, 60, 1.5, [](double) { return push(1, 0); });
    CHECK(steered.velocity_C.x == Approx(profile.skid.steering_speed).epsilon(0.02));
    CHECK(steered.state == StateId::Skid);
    const CharacterState jumped = step(state, press(Action::Jump), profile, world, 1.0 / 60);
    CHECK((jumped.state == StateId::Rise) == allowed);
    CHECK((jumped.velocity_C.y > 0.0) == allowed);
  }
}

TEST_CASE("A slope that is too steep is climbed neither by walking nor by jumping at it, whatever is tried") {
  Profile profile;
  profile.jump.air_jumps = 1;
  for (const double angle : {48.0, 55.0, 65.0, 80.0}) {
    for (const int hz : {30, 60, 144, 240}) {
      INFO(angle << " degrees, " << hz << " ticks/s");
      const TriangleWorld world =
          Scene().floor().ramp({0, 0, -10}, {40, 18.0 * std::tan(radians(angle)), 18.0}).world();
      CharacterState state = start_state(profile, {Vec3(0.0, 0, 2.0), Quat(1, 0, 0, 0), 0.0}, world);
      double highest = 0.0;
      Random random(9);
      run(
          state, profile, world, hz, 20.0,
          [&](double) {
            InputFrame input = push(random.between(-0.5, 0.5), 1);
            input.held.set(Action::Sprint, true);
            input.pressed.set(Action::Jump, random.below(6) == 0);
            return input;
          },
          [&](const CharacterState& s) { highest = std::max(highest, s.foot_C.y); });
      // As high as a jump from the floor and one in the air, and no more.
      CHECK(highest < 2.0 * profile.jump.height + 0.05);
    }
  }
}

TEST_CASE("Below a skid the speed runs out gradually instead of stopping dead, the same at any tick rate") {
  const Profile profile;
  const TriangleWorld world =
      Scene().floor().ramp({0, 0, -6}, {20, 10.0 * std::tan(radians(55.0)), 10.0}).world();
  std::vector<double> runs;
  for (const int hz : {30, 60, 144, 240}) {
    INFO(hz << " ticks/s");
    CharacterState state = start_state(profile, {Vec3(0, 5.6, -4.9), Quat(1, 0, 0, 0), kPi}, world);
    double at_foot = 0.0, worst_drop = 0.0, last_speed = 0.0;
    const CharacterState end = run(state, profile, world, hz, 6.0, kNothing, [&](const CharacterState& s) {
      const double speed = length(s.velocity_C);
      if (s.grounded() && at_foot == 0.0) at_foot = speed;
      // While it runs out, what is lost per tick is what the time constant says.
      if (s.grounded() && s.state == StateId::Skid && last_speed > 0.0)
        worst_drop = std::max(worst_drop, 1.0 - speed / last_speed);
      last_speed = s.grounded() ? speed : 0.0;
    });
    CHECK(at_foot > 5.0);
    CHECK(worst_drop < 1.0 - std::exp(-1.0 / (hz * profile.skid.run_out_time)) + 1e-6);
    CHECK(end.state == StateId::Stand);
    CHECK(end.foot_C.z > 1.5);
    runs.push_back(end.foot_C.z);
  }
  for (const double run : runs) CHECK(run == Approx(runs.back()).margin(1e-3));
}

TEST_CASE(
    "A groove of two steep faces bears: one stands in it and may jump out, and may not climb it where it is "
    "steep") {
  const Profile profile;
  for (const double tilt : {0.0, 30.0, 55.0}) {
    // Two faces of 60 degrees whose common edge rises towards -Z by `tilt`.
    const Quat turn = glm::angleAxis(radians(tilt), Vec3(1, 0, 0));
    TriangleWorld::Builder builder;
    builder.begin_piece("groove");
    for (const double side : {-1.0, 1.0}) {
      const Vec3 edge(0, 0, 1), out(side * 0.5, std::sqrt(3.0) / 2, 0);
      const auto at = [&](double along, double up_the_side) {
        return turn * (edge * along + out * up_the_side);
      };
      builder.add({at(-50, 0), at(50, 0), at(50, 30)});
      builder.add({at(-50, 0), at(50, 30), at(-50, 30)});
    }
    const TriangleWorld world = builder.commit();
    CharacterState state = start_state(profile, {turn * Vec3(0.1, 1.5, 0), Quat(1, 0, 0, 0), 0.0});
    state = run(state, profile, world, 60, 1.0, kNothing);
    INFO(tilt << " degrees");
    CHECK((state.state == StateId::Stand) == (tilt < 45.0));
    CHECK((state.state == StateId::Skid) == (tilt > 45.0));
    int changes = 0;
    CharacterState last = state;
    run(state, profile, world, 60, 2.0, kNothing, [&](const CharacterState& s) {
      changes += s.ground.verdict != last.ground.verdict;
      last = s;
    });
    CHECK(changes == 0);
    if (tilt < 45.0) CHECK(step(state, press(Action::Jump), profile, world, 1.0 / 60).velocity_C.y > 5.0);
  }
}

TEST_CASE("Across a slot between two edges one stands and may jump, beside a single edge one slips off") {
  const Profile profile;
  const auto after = [&](const TriangleWorld& world) {
    return run(start_state(profile, {Vec3(0, 0.2, 0), Quat(1, 0, 0, 0), 0.0}), profile, world, 60, 1.0,
               kNothing);
  };
  const TriangleWorld slot = Scene().block({-2.25, -4, 0}, {4, 4, 8}).block({2.25, -4, 0}, {4, 4, 8}).world();
  const CharacterState stands = after(slot);
  CHECK(stands.state == StateId::Stand);
  CHECK(stands.foot_C.y == Approx(-(0.3 - std::sqrt(0.09 - 0.0625))).margin(1e-4));
  CHECK(step(stands, press(Action::Jump), profile, slot, 1.0 / 60).velocity_C.y > 5.0);
  CHECK(after(Scene().block({-2.25, -4, 0}, {4, 4, 8}).world()).state == StateId::Fall);
}

TEST_CASE("Over a crest one is held up to the profile's angle and speed, and flies beyond it") {
  Profile profile = instant();
  // Flat, then falling away by 35 degrees.
  const TriangleWorld world =
      Scene().block({0, -1, 10}, {20, 1, 20}).ramp({0, -7.0, -5}, {20, 7.0, 10}, {180, 0, 0}).world();
  for (const double limit : {20.0, 50.0}) {
    for (const bool sprint : {false, true}) {
      for (const int hz : {30, 60, 144, 240}) {
        profile.ground.crest_angle = radians(limit);
        profile.ground.crest_speed = 5.0;  // Walking is 4 m/s, sprinting 6.5.
        CharacterState state = start_state(profile, {Vec3(0, 0, 3), Quat(1, 0, 0, 0), 0.0}, world);
        int airborne = 0;
        run(
            state, profile, world, hz, 1.2,
            [&](double) {
              InputFrame input = push(0, 1);
              input.held.set(Action::Sprint, sprint);
              return input;
            },
            [&](const CharacterState& s) { airborne += !s.grounded(); });
        INFO("limit " << limit << ", sprint " << sprint << ", " << hz << " ticks/s");
        CHECK((airborne > 0) == (sprint && limit < 35.0));
      }
    }
  }
}

TEST_CASE("Surfaces decide beside the angle: always, never, no ground, and grip") {
  const Profile profile;
  const auto stand = [&](double angle_deg, const Surface& surface) {
    const double a = radians(angle_deg);
    TriangleWorld::Builder builder;
    builder.begin_piece("bank");
    const Vec3 along(0, std::sin(a), -std::cos(a)), side(1, 0, 0);
    builder.add({-side * 50.0 - along * 50.0, side * 50.0 - along * 50.0, side * 50.0 + along * 50.0}, surface);
    builder.add({-side * 50.0 - along * 50.0, side * 50.0 + along * 50.0, -side * 50.0 + along * 50.0},
                surface);
    const TriangleWorld world = builder.commit();
    return run(
        start_state(profile, {resting(profile, angle_deg, 0.0) + Vec3(0, 0.001, 0), Quat(1, 0, 0, 0), 0.0}),
        profile, world, 60, 0.4, kNothing);
  };
  using Walk = Surface::Walk;
  CHECK(stand(30, {}).state == StateId::Stand);
  CHECK(stand(60, {}).state == StateId::Skid);
  CHECK(stand(70, {Walk::Always, true, false, 1.0}).state == StateId::Stand);
  CHECK(stand(30, {Walk::Never, true, false, 1.0}).state == StateId::Skid);
  CHECK(stand(5, {Walk::ByAngle, false, false, 1.0}).state == StateId::Fall);
  // On the level one may shuffle off what may not be walked on.
  TriangleWorld::Builder slime;
  slime.begin_piece("slime");
  slime.add({{-50, 0, 50}, {50, 0, 50}, {0, 0, -90}}, {Walk::Never, true, false, 1.0});
  const TriangleWorld level = slime.commit();
  const CharacterState shuffles =
      run(start_state(profile, {Vec3(0.0), Quat(1, 0, 0, 0), 0.0}), profile, level, 60, 3.0, kForward);
  CHECK(shuffles.state == StateId::Skid);
  CHECK(-shuffles.velocity_C.z == Approx(profile.skid.steering_speed).epsilon(0.01));
  // tan 46 x 0.45 = tan 25.
  CHECK(stand(24.5, {Walk::ByAngle, true, false, 0.45}).state == StateId::Stand);
  CHECK(stand(26, {Walk::ByAngle, true, false, 0.45}).state == StateId::Skid);
}

TEST_CASE("On slippery ground speed changes slowly, and the set speed is reached all the same") {
  const Profile profile;
  std::vector<double> after_short;
  for (const double friction : {1.0, 0.3, 0.1}) {
    TriangleWorld::Builder builder;
    builder.begin_piece("ice");
    builder.add({{-500, 0, 500}, {500, 0, 500}, {0, 0, -900}}, {Surface::Walk::ByAngle, true, false, friction});
    const TriangleWorld world = builder.commit();
    CharacterState state = start_state(profile, {Vec3(0.0), Quat(1, 0, 0, 0), 0.0}, world);
    after_short.push_back(length(run(state, profile, world, 60, 0.1, kForward).velocity_C));
    state = run(state, profile, world, 60, 12.0, kForward);
    CHECK(length(state.velocity_C) == Approx(profile.ground.speed).epsilon(1e-3));
    // One time constant of the response, divided by the grip.
    CHECK(after_short.back() ==
          Approx(profile.ground.speed * (1.0 - std::exp(-0.1 * friction / profile.ground.response.time)))
              .epsilon(1e-3));
  }
}
