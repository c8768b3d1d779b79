// SPDX-License-Identifier: MIT
// Steps up and down: a table of places, each walked at every tick rate, speed and angle, in turned worlds too.
#include <catch2/catch.hpp>
#include <optional>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

using Outcome = entry::Step::Outcome;

// A block with its front at z = -1, `rise` high; what is asked is whether it is climbed.
struct StepCase {
  const char* name;
  std::function<void(Scene&)> build;
  double top;                      // Height reached if it is climbed.
  std::optional<Outcome> refused;  // Why not, if it is not.
};

std::vector<StepCase> step_cases() {
  const auto flight = [](double rise) { return [rise](Scene& s) { s.block({0, 0, -4}, {40, rise, 6}); }; };
  return {
      {"a kerb of 10 cm", flight(0.10), 0.10, {}},
      {"the highest step", flight(0.34), 0.34, {}},
      {"2 cm too high", flight(0.36), 0.0, Outcome::TooHigh},
      {"a low wall", flight(1.0), 0.0, Outcome::TooHigh},
      {"a nosed tread",
       [](Scene& s) {
         s.block({0, 0, -4.03}, {40, 0.26, 6}).block({0, 0.26, -4}, {40, 0.04, 6});
       },
       0.30,
       {}},
      {"no head room over the step",
       [](Scene& s) {
         s.block({0, 0, -4}, {40, 0.2, 6}).block({0, 1.9, -4.0}, {40, 0.3, 6});
       },
       0.0, Outcome::NoHeadRoom},
      {"just enough head room",
       [](Scene& s) {
         s.block({0, 0, -4}, {40, 0.2, 6}).block({0, 2.01, -4.0}, {40, 0.3, 6});
       },
       0.20,
       {}},
      {"too steep on top",
       [](Scene& s) {
         s.ramp({0, 0, -1.54}, {40, 1.6, 1.0}).block({0, 0, -1.02}, {40, 0.2, 0.04});
       },
       0.0, Outcome::NotWalkable},
      {"a tread that is too short",
       [](Scene& s) {
         s.block({0, 0, -4}, {40, 0.2, 6}).block({0, 0.2, -4.05}, {40, 2.0, 6});
       },
       0.0, Outcome::TooHigh},
  };
}

struct Walked {
  CharacterState end;
  int airborne = 0;
  std::vector<Outcome> refusals;
};

Walked walk(const TriangleWorld& world, const Profile& profile, CharacterState state, int hz, double seconds,
            const InputFrame& input) {
  Walked walked;
  for (long i = 0; i < std::lround(seconds * hz); ++i) {
    Ledger ledger;
    state = step(state, input, profile, world, 1.0 / hz, &ledger);
    walked.airborne += !state.grounded();
    for (const LedgerEntry& e : ledger.entries) {
      const auto* tried = std::get_if<entry::Step>(&e);
      if (tried != nullptr && tried->outcome != Outcome::Taken) walked.refusals.push_back(tried->outcome);
    }
  }
  walked.end = state;
  return walked;
}

// Stands on the floor at `foot_E`, looking along `yaw`.
CharacterState on_floor(const TriangleWorld& world, const Profile& profile, const Vec3& foot_E, double yaw,
                        const Frame& frame) {
  return start_state(profile, {frame.point(foot_E), frame.rotation_CE, yaw}, world);
}

InputFrame towards(double push_yaw, double look_yaw, bool sprint) {
  InputFrame input = push(-std::sin(push_yaw - look_yaw), std::cos(push_yaw - look_yaw));
  input.held.set(Action::Sprint, sprint);
  return input;
}

}  // namespace

TEST_CASE("A step has one verdict, whatever the tick rate, the speed, the angle and the run-up") {
  const Profile profile;
  for (const StepCase& c : step_cases()) {
    for (const Frame* frame : {&frames()[0], &frames()[4]}) {
      Scene scene;
      scene.floor();
      c.build(scene);
      const TriangleWorld world = scene.world(*frame);
      for (const int hz : {30, 60, 144, 240}) {
        for (const bool sprint : {false, true}) {
          for (const double yaw_deg : {0.0, 35.0, -50.0}) {
            for (const double run_up : {0.0, 0.9}) {
              INFO(c.name << ", " << frame->name << ", " << hz << " ticks/s, sprint " << sprint << ", "
                          << yaw_deg << " degrees, run-up " << run_up);
              const double yaw = radians(yaw_deg);
              const Vec3 foot(0, 0, -1.0 + profile.capsule.radius + run_up * std::cos(yaw));
              const CharacterState start = on_floor(world, profile, foot, yaw, *frame);
              const Walked walked = walk(world, profile, start, hz, 0.9, towards(yaw, yaw, sprint));
              const Vec3 end_E = frame->back(walked.end.foot_C);
              if (c.refused) {
                CHECK(end_E.y < 0.02);
                CHECK(std::count(walked.refusals.begin(), walked.refusals.end(), *c.refused) > 0);
              } else {
                CHECK(end_E.z < -1.3);
                CHECK(end_E.y == Approx(c.top).margin(1e-4));
              }
              CHECK(walked.airborne == 0);
            }
          }
        }
      }
    }
  }
}

TEST_CASE("Stepping does not depend on where one looks: sideways and backwards are as good as forwards") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().stairs({0, 0, -3}, 3, 0.18, 0.28, 10).world();
  for (const double look_deg : {0.0, 90.0, 180.0, -135.0}) {
    const double look = radians(look_deg);
    const CharacterState start = on_floor(world, profile, {0, 0, 0}, look, frames()[0]);
    const Walked walked = walk(world, profile, start, 60, 1.2, towards(0.0, look, false));
    INFO(look_deg);
    CHECK(walked.end.foot_C.y == Approx(1.8).margin(1e-4));
    CHECK(walked.airborne == 0);
  }
}

TEST_CASE("Up and down stairs the level speed is kept and the ground never left, at any tick rate") {
  const Profile profile;
  const int count = 12;
  const double run_m = 0.28;
  // Up on one side, a landing, and down the other.
  const TriangleWorld world = Scene()
                                  .floor()
                                  .stairs({0, 0, -3}, 3, 0.18, run_m, count)
                                  .block({0, 0, -3 - count * run_m / 2 - 1.0}, {3, 0.18 * count, 2.0})
                                  .block({0, 0, 0}, {0.01, 0.001, 0.01})
                                  .world();
  for (const int hz : {30, 60, 144, 240}) {
    for (const bool sprint : {false, true}) {
      INFO(hz << " ticks/s, sprint " << sprint);
      const double speed = sprint ? profile.ground.sprint_speed : profile.ground.speed;
      CharacterState state = on_floor(world, profile, {0, 0, 1.5}, 0.0, frames()[0]);
      const Walked up = walk(world, profile, state, hz, (1.5 + 5.5) / speed, towards(0.0, 0.0, sprint));
      CHECK(up.airborne == 0);
      CHECK(up.end.foot_C.y == Approx(0.18 * count).margin(1e-4));
      // As far as on the level: the way at full speed less what the response takes to get there.
      const double lag = speed * profile.ground.response.time;
      CHECK(up.end.foot_C.z == Approx(-5.5 + lag).margin(0.12));
      const Walked down = walk(world, profile, up.end, hz, 8.0 / speed, towards(kPi, 0.0, sprint));
      CHECK(down.airborne == 0);
      CHECK(down.end.foot_C.y == Approx(0.0).margin(1e-4));
    }
  }
}

TEST_CASE("Sloped treads and a kerb on a slope are stepped on like level ones") {
  const Profile profile;
  for (const int hz : {30, 60, 144, 240}) {
    INFO(hz << " ticks/s");
    Scene treads;
    treads.floor();
    for (int i = 0; i < 6; ++i) {
      treads.block({0, -0.2 + 0.17 * i, -1.5 - 0.3 * i}, {3, 0.37, 0.306}, {0, 4.0, 0});
    }
    treads.block({0, 0, -1.5 - 0.3 * 6 - 1.0}, {3, 1.03, 2.3});
    const TriangleWorld sloped = treads.world();
    const Walked up = walk(sloped, profile, on_floor(sloped, profile, {0, 0, 0}, 0.0, frames()[0]), hz, 1.2,
                           towards(0.0, 0.0, false));
    CHECK(up.end.foot_C.y == Approx(1.03).margin(2e-3));
    CHECK(up.airborne == 0);
  }
  // 0.30 m kerbs are below the limit on the flat; they are on a slope of 25 degrees too, either way.
  for (const double pitch : {25.0, -25.0}) {
    for (const double kerb : {0.30, 0.40}) {
      for (const int hz : {30, 60, 144, 240}) {
        INFO("slope " << pitch << ", kerb " << kerb << ", " << hz << " ticks/s");
        const double tilt = radians(pitch);
        const Vec3 normal(0, std::cos(tilt), std::sin(tilt)), along(0, std::sin(tilt), -std::cos(tilt));
        const auto laid = [&](double from, double height) { return along * from + normal * (height - 1.0); };
        // Upright front: the kerb is a block whose top is parallel to the slope, raised by `kerb` along up.
        Scene scene;
        scene.block(laid(0.0, 0.0), {20, 1, 40}, {0, pitch, 0});
        const double raised = kerb * std::cos(tilt);
        scene.block(laid(4.0, raised), {20, 1, 5}, {0, pitch, 0});
        const TriangleWorld world = scene.world();
        const Vec3 start =
            along * 0.5 + Vec3(0, profile.capsule.radius * (1.0 / std::cos(tilt) - 1.0) + 0.001, 0);
        CharacterState state = start_state(profile, {start, Quat(1, 0, 0, 0), 0.0});
        state = run(state, profile, world, hz, 0.2, [](double) { return InputFrame{}; });
        REQUIRE(state.grounded());
        const Walked walked = walk(world, profile, state, hz, 1.0, towards(0.0, 0.0, false));
        const double above = dot(walked.end.foot_C - start, normal);
        CHECK((above > 0.5 * kerb) == (kerb < profile.ground.highest_step));
        CHECK(walked.airborne == 0);
      }
    }
  }
}

TEST_CASE("Steps down: off a kerb within reach one stays on the ground, off a ledge the fall begins level") {
  const Profile profile;
  for (const int hz : {30, 60, 144, 240}) {
    for (const double drop : {0.2, 0.34, 0.6, 2.0}) {
      for (const bool sprint : {false, true}) {
        INFO("drop " << drop << ", " << hz << " ticks/s, sprint " << sprint);
        const TriangleWorld world = Scene().floor().block({0, 0, 4}, {10, drop, 8}).world();
        CharacterState state = on_floor(world, profile, {0, drop, 6}, 0.0, frames()[0]);
        const double speed = sprint ? profile.ground.sprint_speed : profile.ground.speed;
        int airborne = 0;
        run(
            state, profile, world, hz, 2.2, [&](double) { return towards(0.0, 0.0, sprint); },
            [&](const CharacterState& s) {
              if (s.grounded()) return;
              ++airborne;
              if (airborne == 1) {
                // No kick: the level speed is kept, and the fall is not faster than one tick's gravity makes
                // it.
                CHECK(-s.velocity_C.z == Approx(speed).epsilon(1e-3));
                CHECK(s.velocity_C.y <= 1e-9);
                CHECK(s.velocity_C.y >= -profile.gravity / hz - 1e-9);
              }
            });
        CHECK((airborne == 0) == (drop <= profile.ground.snap_distance));
      }
    }
  }
}

TEST_CASE("In the air a step is taken only as far as the profile allows") {
  Profile profile;
  const TriangleWorld world = Scene().floor().block({0, 0, -3}, {10, 1.35, 4}).world();
  for (const double allowed : {0.0, 0.1, 0.3}) {
    for (const int hz : {30, 60, 144, 240}) {
      profile.air.highest_step = allowed;
      CharacterState state = on_floor(world, profile, {0, 0, 0}, 0.0, frames()[0]);
      bool stepped = false, stood = false;
      run(
          state, profile, world, hz, 2.0,
          [](double t) {
            InputFrame input = push(0, 1);
            input.pressed.set(Action::Jump, t == 0.0);
            return input;
          },
          [&](const CharacterState& s) {
            stepped = stepped || (s.stepped && s.foot_C.y > 0.5);
            stood = stood || (s.grounded() && s.foot_C.y > 1.3);
          });
      INFO("allowed " << allowed << ", " << hz << " ticks/s");
      // The jump of 1.2 m is 15 cm short of the ledge.
      CHECK(stepped == (allowed > 0.2));
      CHECK(stood == (allowed > 0.2));
    }
  }
}

TEST_CASE("The drawn body lags a step by no more than the step, and catches up the same at any tick rate") {
  Profile profile;
  const TriangleWorld world = Scene().floor().block({0, 0, -4}, {10, 0.3, 6}).world();
  for (const double largest : {0.4, 0.1}) {
    profile.smoothing.largest = largest;
    for (const int hz : {30, 60, 144, 240}) {
      CharacterState state = on_floor(world, profile, {0, 0, 0}, 0.0, frames()[0]);
      double deepest = 0.0;
      state = run(
          state, profile, world, hz, 0.6, [](double) { return push(0, 1); },
          [&](const CharacterState& s) { deepest = std::min(deepest, s.eye_offset); });
      INFO(hz << " ticks/s, at most " << largest);
      CHECK(deepest >= -std::min(0.3, largest));
      CHECK(deepest < -0.02);
      // From the last rise on nothing but decay is left.
      const double before = state.eye_offset;
      state = run(state, profile, world, hz, 0.5, [](double) { return InputFrame{}; });
      CHECK(state.eye_offset == Approx(before * std::exp(-0.5 / profile.smoothing.time)).margin(1e-9));
    }
  }
}
