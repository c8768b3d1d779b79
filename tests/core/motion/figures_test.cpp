// SPDX-License-Identifier: MIT
// The figures on the cards against runs of the solver, each measured as its name says.
#include <catch2/catch.hpp>

#include "lagniappe/handling.h"
#include "lagniappe/input_frame.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

constexpr int kRate = 240;
constexpr double kTick = 1.0 / kRate;

struct Figures {
  std::vector<Figure> list;
  double operator()(const std::string& group, const std::string& key) const {
    for (const Figure& f : list) {
      if (f.group == group && f.key == key) return f.value;
    }
    FAIL("no figure " << group << "." << key);
    return 0.0;
  }
};

// An even, a springy and a heavy one: one of each response model.
std::vector<Profile> profiles() {
  Profile springy, heavy;
  springy.ground.response = {Response::Model::Steady, 40.0, 55.0, 0, 0, 60.0, 0};
  springy.jump.height = 1.9;
  springy.jump.apex_speed = 1.4;
  springy.jump.apex_factor = 0.5;
  springy.jump.fall_factor = 1.3;
  springy.jump.lowest_share = 0.35;
  heavy.gravity = 26.0;
  heavy.ground.response = {Response::Model::Smooth, 0, 0, 0.28, 0.22, 0, 0.34};
  heavy.ground.turn_rate = radians(300.0);
  heavy.air.over_run_up = 1.2;
  return {Profile{}, springy, heavy};
}

InputFrame forward(bool sprint = false, bool jump = false) {
  InputFrame frame = push(0, 1);
  frame.held.set(Action::Sprint, sprint);
  frame.held.set(Action::Jump, true);
  frame.pressed.set(Action::Jump, jump);
  return frame;
}

// Where it stands at full speed along -Z.
CharacterState at_full_speed(const Profile& p, const World& world, bool sprint) {
  return run(start_state(p, Home{}, world), p, world, kRate, 4.0, [&](double) { return forward(sprint); });
}

struct Jumped {
  double way, airtime, apex, apex_time, landing_speed;
};

Jumped jumped(CharacterState s, const Profile& p, const World& world, const InputFrame& first,
              const InputFrame& then) {
  const Vec3 from = s.foot_C;
  Jumped j{};
  s = step(s, first, p, world, kTick);
  for (int ticks = 1; !s.grounded(); ++ticks) {
    if (s.foot_C.y - from.y > j.apex) j.apex = s.foot_C.y - from.y, j.apex_time = ticks * kTick;
    j.landing_speed = -s.velocity_C.y;
    s = step(s, then, p, world, kTick);
    j.way = from.z - s.foot_C.z;
    j.airtime = (ticks + 1) * kTick;
  }
  return j;
}

}  // namespace

TEST_CASE("Figures of walks are what runs measure") {
  const TriangleWorld world = Scene().floor().world();
  for (const Profile& p : profiles()) {
    const Figures figure{figures_of(p, kRate)};
    INFO("model " << int(p.ground.response.model));
    int ticks = 0;
    CharacterState s = start_state(p, Home{}, world);
    while (length(s.velocity_C) < 0.9 * p.ground.speed) s = step(s, push(0, 1), p, world, kTick), ++ticks;
    CHECK(figure("walk", "time_to_90_percent") == Approx(ticks * kTick).margin(1.01 * kTick));
    for (const bool sprint : {false, true}) {
      s = at_full_speed(p, world, sprint);
      CHECK(length(s.velocity_C) ==
            Approx(sprint ? p.ground.sprint_speed : figure("walk", "walking_speed")).epsilon(1e-4));
      const double from = s.foot_C.z, full = length(s.velocity_C);
      for (ticks = 0; length(s.velocity_C) > 0.02 * full; ++ticks) s = step(s, InputFrame{}, p, world, kTick);
      if (!sprint) CHECK(figure("walk", "stop_time") == Approx(ticks * kTick).margin(1.01 * kTick));
      s = run(s, p, world, kRate, 4.0, [](double) { return InputFrame{}; });
      CHECK(figure("walk", sprint ? "sprint_stopping_distance" : "stopping_distance") ==
            Approx(from - s.foot_C.z).margin(1e-3));
    }
    s = start_state(p, Home{}, world);
    for (ticks = 0; std::abs(wrap_angle(s.facing - kPi)) > 1e-6; ++ticks)
      s = step(s, push(0, -1), p, world, kTick);
    CHECK(figure("walk", "half_turn") == Approx(ticks * kTick).margin(1.01 * kTick));
  }
}

TEST_CASE("Figures of jumps are what runs measure") {
  const TriangleWorld world = Scene().floor().world();
  for (const Profile& p : profiles()) {
    const Figures figure{figures_of(p, kRate)};
    INFO("height " << p.jump.height);
    for (const bool sprint : {false, true}) {
      const Jumped j =
          jumped(at_full_speed(p, world, sprint), p, world, forward(sprint, true), forward(sprint));
      const double speed = sprint ? p.ground.sprint_speed : p.ground.speed;
      CHECK(figure("jump", sprint ? "sprint_distance" : "distance") ==
            Approx(j.way).margin(1.5 * speed * kTick));
      CHECK(figure("jump", "airtime") == Approx(j.airtime).margin(1.01 * kTick));
      CHECK(figure("jump", "time_to_apex") == Approx(j.apex_time).margin(1.01 * kTick));
      CHECK(figure("jump", "landing_speed") ==
            Approx(j.landing_speed).margin(p.gravity * p.jump.fall_factor * 2.0 * kTick));
      CHECK(j.apex == Approx(p.jump.height).margin(1e-3));
    }
    const CharacterState still = start_state(p, Home{}, world);
    InputFrame tap;  // Down and up again within a tick.
    tap.pressed.set(Action::Jump, true);
    const Jumped tapped = jumped(still, p, world, tap, InputFrame{});
    CHECK(figure("jump", "lowest_height") == Approx(tapped.apex).margin(1e-3));
    const Jumped standing = jumped(still, p, world, forward(false, true), forward());
    CHECK(figure("air", "standing_distance") ==
          Approx(standing.way).margin(1.5 * figure("air", "standing_speed") * kTick));
  }
}

TEST_CASE("Figures of walls, gaps and the look are what runs measure") {
  Profile p;
  const Figures figure{figures_of(p, kRate)};
  for (const double approach : {30.0, 60.0}) {
    // A wall that is met at that angle, going along -Z.
    const TriangleWorld world = Scene().floor().block({0, 0, -3}, {60, 3, 1}, {90.0 - approach, 0, 0}).world();
    const CharacterState s =
        run(start_state(p, Home{}, world), p, world, kRate, 3.0, [](double) { return push(0, 1); });
    REQUIRE(s.wall_normal_C != Vec3(0.0));
    CHECK(length(s.velocity_C) ==
          Approx(figure("walls", approach < 45.0 ? "speed_along_at_30" : "speed_along_at_60")).epsilon(0.01));
  }
  const auto passes = [&](double gap, double opening) {
    const TriangleWorld world = Scene()
                                    .floor()
                                    .block({-5.0 - 0.5 * gap, 0, -2}, {10, 3, 1})
                                    .block({5.0 + 0.5 * gap, 0, -2}, {10, 3, 1})
                                    .block({0, opening, -2}, {4, 1, 1})
                                    .world();
    return run(start_state(p, Home{}, world), p, world, kRate, 2.0, [](double) {
             return push(0, 1);
           }).foot_C.z < -3.5;
  };
  const double gap = figure("body", "narrowest_gap"), opening = figure("body", "lowest_opening");
  CHECK(passes(gap + 0.01, opening + 0.01));
  CHECK_FALSE(passes(gap - 0.01, opening + 0.01));
  CHECK_FALSE(passes(gap + 0.01, opening - 0.01));

  CHECK(-mouse_look(p.look, Vec2(figure("look", "counts_for_full_turn"), 0)).x == Approx(2.0 * kPi));
  CHECK(-stick_turn_rate(p.look, Vec2(1, 0)).x * figure("look", "stick_full_turn") == Approx(2.0 * kPi));
}
