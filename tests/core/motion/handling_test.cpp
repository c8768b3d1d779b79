// SPDX-License-Identifier: MIT
// Figures and motion against closed forms that are written out here, at every tick rate.
#include "lagniappe/handling.h"

#include <catch2/catch.hpp>

#include "lagniappe/profile_fields.h"
#include "lagniappe/run.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

CharacterState on_ground(const Profile& profile, const World& world) {
  return start_state(profile, Home{}, world);
}

InputFrame holding(Action action) {
  InputFrame frame;
  frame.held.set(action, true);
  return frame;
}

// Presses at the first tick and holds until `released`.
auto jump_until(double released) {
  return [released](double t) {
    InputFrame frame = t < released - 1e-9 ? holding(Action::Jump) : InputFrame{};
    frame.pressed.set(Action::Jump, t == 0.0);
    return frame;
  };
}

struct Flown {
  double apex = 0.0, apex_time = 0.0, airtime = 0.0, landing_speed = 0.0;
};

// Drives a jump and reads the apex off the states: highest point of the parabola through the tick around it.
Flown flown(const Profile& profile, int hz, double released) {
  const TriangleWorld world = Scene().floor().world();
  Flown f;
  double before = 0.0;
  bool done = false;
  int n = 0;
  run(on_ground(profile, world), profile, world, hz, 3.0, jump_until(released), [&](const CharacterState& s) {
    ++n;
    const double v = s.velocity_C.y;
    if (!done && s.foot_C.y > f.apex) f.apex = s.foot_C.y, f.apex_time = double(n) / hz;
    if (!done && !s.grounded()) f.landing_speed = -v;
    if (!done && s.grounded() && before > 0.0) done = true, f.airtime = double(n) / hz;
    before = s.foot_C.y;
  });
  return f;
}

Profile springy() {
  Profile p;
  p.jump.height = 1.7;
  p.jump.fall_factor = 1.6;
  p.jump.apex_speed = 1.5;
  p.jump.apex_factor = 0.4;
  p.jump.lowest_share = 0.3;
  return p;
}

}  // namespace

TEST_CASE("Arcs have the apex, the times and the landing that are written out here") {
  const Profile p = springy();
  const double g = p.gravity, h = p.jump.height, s = p.jump.apex_speed, k = p.jump.apex_factor,
               f = p.jump.fall_factor;
  const double hang = s * s / (2 * g * k), v = std::sqrt(2 * g * (h - hang) + s * s);
  const double up = (v - s) / g + s / (g * k);
  const double fall_from = h - hang;  // Where it falls at s.
  const double landing = std::sqrt(s * s + 2 * g * f * fall_from);
  const JumpArc arc = jump_arc(p);
  CHECK(arc.take_off == Approx(v));
  CHECK(arc.height == Approx(h));
  CHECK(arc.time_to_apex == Approx(up));
  CHECK(arc.apex_time == Approx(2 * s / (g * k)));
  CHECK(arc.landing_speed == Approx(landing));
  CHECK(arc.airtime == Approx(up + s / (g * k) + (landing - s) / (g * f)));
  CHECK(jump_height_at(p, 0, 0.5 * (v - s) / g) ==
        Approx(v * 0.5 * (v - s) / g - 0.125 * (v - s) * (v - s) / g));

  const JumpArc cut = jump_arc(p, 0, 0.0);
  CHECK(cut.height == Approx(0.3 * h));
  CHECK(cut.time_to_apex == Approx(2 * 0.3 * h / v));
  CHECK(cut.landing_speed == Approx(std::sqrt(2 * g * f * 0.3 * h)));
  CHECK(cut.apex_time == 0.0);

  Profile low = p;  // All of it hangs.
  low.jump.height = 0.5 * hang;
  CHECK(jump_arc(low).height == Approx(low.jump.height));
  CHECK(jump_arc(low).take_off == Approx(std::sqrt(2 * g * k * low.jump.height)));
  Profile capped = p;
  capped.terminal_speed = 3.0;
  CHECK(jump_arc(capped).landing_speed == Approx(3.0));
  Profile weightless = p;
  weightless.gravity = 0.0;
  CHECK(jump_arc(weightless).height == 0.0);
}

TEST_CASE("Simulated jumps reach their apex within 1 mm at every tick rate, whole or cut") {
  const Profile p = springy();
  for (const int hz : tick_rates()) {
    for (const double released : {10.0, 0.0, 0.05, 0.1, 0.2}) {
      INFO(hz << " ticks/s, let go after " << released);
      // A release acts from the tick that begins at or after it.
      const double acts = std::ceil(released * hz - 1e-6) / hz;
      const JumpArc arc = jump_arc(p, 0, released < 5.0 ? acts : -1.0);
      const TriangleWorld world = Scene().floor().world();
      double error = 0.0, highest = 0.0;
      int n = 0;
      run(on_ground(p, world), p, world, hz, arc.airtime - 1.0 / hz, jump_until(released),
          [&](const CharacterState& s) {
            const double t = ++n / double(hz);
            error =
                std::max(error, std::abs(s.foot_C.y - jump_height_at(p, 0, t, released < 5.0 ? acts : -1.0)));
            highest = std::max(highest, s.foot_C.y);
          });
      CHECK(error < 1e-9);
      // The apex between two ticks: at most what gravity does in half a tick below it.
      CHECK(highest <= arc.height + 1e-9);
      CHECK(highest >= arc.height - 0.5 * p.gravity * 3.0 * 0.25 / (double(hz) * hz) - 1e-9);
      const Flown f = flown(p, hz, released);
      CHECK(f.apex_time == Approx(arc.time_to_apex).margin(1.01 / hz));
      CHECK(f.airtime == Approx(arc.airtime).margin(1.01 / hz));
    }
  }
}

TEST_CASE("Every air jump is as high as it is set, at every tick rate, from a rise or a fall") {
  Profile p = springy();
  p.jump.air_jumps = 3;
  p.jump.air_jump_height = {{{{1.0, 1.1}, {2.0, 0.6}}}, 2};
  const TriangleWorld world = Scene().world();
  for (const int hz : tick_rates()) {
    for (const double from_speed : {3.0, -0.2, -20.0}) {
      INFO(hz << " ticks/s, rising at " << from_speed);
      CharacterState state = standing_at(p, {0, 0, 0});
      state.first_jump_used = true;
      state.velocity_C.y = from_speed;
      for (const double height : {1.1, 0.6, 0.6}) {
        const double from = state.foot_C.y;
        double error = 0.0;
        int n = 0;
        const int jump = state.air_jumps_used + 1;
        state = run(state, p, world, hz, 0.8, jump_until(5.0), [&](const CharacterState& s) {
          error = std::max(error, std::abs(s.foot_C.y - from - jump_height_at(p, jump, ++n / double(hz))));
        });
        CHECK(error < 1e-9);
        CHECK(jump_arc(p, jump).height == Approx(height));
      }
      CHECK(state.air_jumps_used == 3);
    }
  }
}

TEST_CASE("Pushes follow their closed forms at every tick rate, and so do their figures") {
  using Model = Response::Model;
  const double V = 4.4;
  const TriangleWorld world = Scene().floor().world();
  for (const Model model : {Model::Instant, Model::Steady, Model::Exponential, Model::Smooth}) {
    Profile p;
    p.ground.speed = V;
    p.ground.response = {model, 11.0, 17.0, 0.21, 0.13, 23.0, 0.09};
    const Response& r = p.ground.response;
    const auto going = [&](double t) {
      switch (model) {
        case Model::Instant:
          return V;
        case Model::Steady:
          return std::min(11.0 * t, V);
        case Model::Exponential:
          return V * (1.0 - std::exp(-t / 0.21));
        case Model::Smooth:
          break;
      }
      return V * (1.0 - (1.0 + 2.0 * t / 0.21) * std::exp(-2.0 * t / 0.21));
    };
    const PushCurve push(r, V, 1.0);
    for (const int hz : tick_rates()) {
      INFO(int(model) << " at " << hz << " ticks/s");
      int n = 0;
      double error = 0.0, way_error = 0.0;
      run(
          on_ground(p, world), p, world, hz, 2.0,
          [](double t) { return lagniappe::test::push(0, t < 1.0 - 1e-9 ? 1 : 0); },
          [&](const CharacterState& s) {
            const double t = ++n / double(hz);
            if (t <= 1.0) error = std::max(error, std::abs(-s.velocity_C.z - going(t)));
            error = std::max(error, std::abs(-s.velocity_C.z - push.speed_at(t)));
            way_error = std::max(way_error, std::abs(-s.foot_C.z - push.way_at(t)));
          });
      CHECK(error < 1e-6);
      CHECK(way_error < 1e-6);
    }
    if (model == Model::Instant) continue;
    CHECK(going(push.time_to_90()) == Approx(0.9 * V));
    const PushCurve full(r, V, 30.0);
    CHECK(full.speed_at(30.0 + push.stop_time()) == Approx(0.02 * V));
    CHECK(full.way_at(90.0) - full.way_at(30.0) == Approx(push.stopping_distance()).margin(1e-6));
    CHECK(PushCurve(with_time_to_90(r, V, 0.33), V, 1.0).time_to_90() == Approx(0.33));
    CHECK(PushCurve(with_stopping_distance(r, V, 0.5), V, 1.0).stopping_distance() == Approx(0.5));

    // Turning round, in the core: back and forth at full speed.
    CharacterState state =
        run(on_ground(p, world), p, world, 240, 6.0, [](double) { return lagniappe::test::push(0, 1); });
    int ticks = 0;
    while (state.velocity_C.z < 0.0) {
      state = step(state, lagniappe::test::push(0, -1), p, world, 1.0 / 240.0);
      ++ticks;
    }
    CHECK(ticks / 240.0 == Approx(push.turn_time()).margin(1.01 / 240.0));
  }
}

TEST_CASE("Gathered speed grows by the second, stops at its highest, and is lost after its grace") {
  for (const Response::Model model : {Response::Model::Instant, Response::Model::Steady,
                                      Response::Model::Exponential, Response::Model::Smooth}) {
    Profile p;
    p.ground.gather = {2.5, 2.0, 7.0, 0.2};
    p.ground.response.model = model;
    const TriangleWorld world = Scene().floor().world();
    std::optional<Vec3> end;
    for (const int hz : tick_rates()) {
      INFO(int(model) << " at " << hz << " ticks/s");
      int n = 0;
      const CharacterState state = run(
          on_ground(p, world), p, world, hz, 3.0, [](double) { return push(0, 1); },
          [&](const CharacterState& s) {
            const double t = ++n / double(hz);
            const double gathered = std::min(2.0 + 2.5 * t, 7.0);
            CHECK(2.0 + s.gathered == Approx(gathered).margin(1e-9));
            CHECK(gathered_speed(p.ground.gather, t) == Approx(gathered));
            if (model == Response::Model::Instant) CHECK(-s.velocity_C.z == Approx(gathered).margin(1e-9));
          });
      if (!end) end = state.foot_C;
      CHECK(length(state.foot_C - *end) < 1e-6);
      CHECK(-state.foot_C.z == Approx(walking_push(p, 9.0).way_at(3.0)).margin(1e-6));
      CHECK(-state.velocity_C.z == Approx(walking_push(p, 9.0).speed_at(3.0)).margin(1e-6));

      // A short letting go is forgiven, a long one is not.
      const auto after = [&](double pause) {
        return run(state, p, world, hz, pause + 0.1, [&](double t) { return push(0, t < pause ? 0 : 1); })
            .gathered;
      };
      CHECK(after(0.15) == Approx(5.0));
      CHECK(after(0.30) < 0.6);
    }
  }
  Profile ramp;  // v' = (a + b t - v) / T from rest: v = a + b t - b T - (a - b T) e^(-t / T).
  ramp.ground.gather = {2.5, 2.0, 7.0, 0.2};
  ramp.ground.response = {Response::Model::Exponential, 0, 0, 0.3, 0.3, 0, 0.3};
  CHECK(walking_push(ramp, 9.0).speed_at(1.5) ==
        Approx(2.0 + 2.5 * 1.5 - 2.5 * 0.3 - (2.0 - 2.5 * 0.3) * std::exp(-1.5 / 0.3)));
  ramp.ground.response = {Response::Model::Steady, 8.0, 8.0, 0, 0, 8.0, 0};
  CHECK(walking_push(ramp, 9.0).speed_at(0.3) == Approx(8.0 * 0.3));  // 8 t until 2 + 2.5 t at t = 4 / 11,
  CHECK(walking_push(ramp, 9.0).speed_at(1.0) == Approx(2.0 + 2.5));  // then with it.

  Profile p;  // A sprint is never slower than its own speed.
  p.ground.gather = {2.0, 2.0, 9.0, 0.2};
  InputFrame sprint = push(0, 1);
  sprint.held.set(Action::Sprint, true);
  const TriangleWorld world = Scene().floor().world();
  for (const int hz : tick_rates()) {
    CharacterState s = run(on_ground(p, world), p, world, hz, 1.5, [&](double) { return sprint; });
    CHECK(-s.velocity_C.z == Approx(p.ground.sprint_speed).margin(1e-5));
    s = run(s, p, world, hz, 4.5, [&](double) { return sprint; });
    CHECK(-s.velocity_C.z == Approx(9.0).margin(1e-5));
  }
}

TEST_CASE("Nothing is gathered against a wall") {
  Profile p;
  p.ground.gather = {4.0, 2.0, 10.0, 0.2};
  const TriangleWorld world = Scene().floor().block({0, 0, -1}, {4, 3, 0.5}).world();
  const CharacterState s = run(on_ground(p, world), p, world, 60, 4.0, [](double) { return push(0, 1); });
  CHECK(s.gathered < 2.0);
}

TEST_CASE("Facing follows the push, the look, the look while pushed, or turns in place") {
  using Facing = Profile::Ground::Facing;
  const TriangleWorld world = Scene().floor().world();
  const auto end_of = [&](Facing facing, Vec2 move, int hz = 60, double seconds = 1.0) {
    Profile p;
    p.ground.facing = facing;
    p.ground.turn_rate = radians(120.0);
    return run(on_ground(p, world), p, world, hz, seconds, [&](double t) {
      InputFrame frame = push(move.x, move.y);
      if (t == 0.0) frame.look = Vec2(radians(40.0), 0.0);
      return frame;
    });
  };
  CHECK(end_of(Facing::Travel, {1, 0}).facing == Approx(radians(-50.0)));
  CHECK(end_of(Facing::View, {1, 0}).facing == Approx(radians(40.0)));
  CHECK(end_of(Facing::View, {0, 0}).facing == Approx(radians(40.0)));
  CHECK(end_of(Facing::Strafe, {0, 0}).facing == 0.0);
  CHECK(end_of(Facing::Strafe, {1, 0}).facing == Approx(radians(40.0)));

  const CharacterState turned = end_of(Facing::TurnInPlace, {0.5, 0});
  CHECK(length(turned.foot_C) == 0.0);
  const double share = shaped_stick(Vec2(0.5, 0), Profile{}.look.dead_zone).x;
  CHECK(turned.facing == Approx(-radians(120.0) * share));
  CHECK(turned.yaw == Approx(radians(40.0) - radians(120.0) * share));
  // Forward goes along the body, wherever the look is; arcs agree between tick rates to second order.
  CHECK(end_of(Facing::TurnInPlace, {0, 1}).foot_C.x == Approx(0.0).margin(1e-9));
  const Vec3 coarse = end_of(Facing::TurnInPlace, {0.4, 0.8}, 30, 2.0).foot_C,
             fine = end_of(Facing::TurnInPlace, {0.4, 0.8}, 240, 2.0).foot_C;
  CHECK(length(coarse - fine) < 0.01);
}

TEST_CASE("Steering in the air exceeds the run-up by no more than is set, and wind carries") {
  Profile p;
  p.air.speed = 6.0;
  p.air.over_run_up = 1.5;
  const TriangleWorld floor = Scene().floor().world();
  const auto in_air = [](double t) {
    InputFrame frame = push(0, t > 0.0 ? 1 : 0);
    frame.pressed.set(Action::Jump, t == 0.0);
    return frame;
  };
  CHECK(-run(on_ground(p, floor), p, floor, 60, 0.5, in_air).velocity_C.z == Approx(1.5));
  CharacterState running = run(on_ground(p, floor), p, floor, 60, 2.0, [](double) { return push(0, 1); });
  CHECK(-run(running, p, floor, 60, 0.5, in_air).velocity_C.z == Approx(p.ground.speed + 1.5));

  p.air.response = {Response::Model::Exponential, 0, 0, 0.5, 0.5, 0, 0.5};
  p.air.wind_share = 0.5;
  Course course;
  course.name = "Mast";
  course.marks = {{"start", Vec3(0.0), 0.0}};
  course.pieces = {{"mast", Vec3(0, -100, 0), Vec3(0.0), "", shape::Block{Vec3(1.0)}}};
  course.limits = {Vec3(-1e4), Vec3(1e4)};
  course.wind_C = Vec3(6.0, 2.0, 0.0);
  const TriangleWorld windy = build_world(course);
  for (const int hz : tick_rates()) {
    const CharacterState s =
        run(standing_at(p, {0, 50, 0}), p, windy, hz, 1.0, [](double) { return InputFrame{}; });
    CHECK(s.velocity_C.x == Approx(3.0 * (1.0 - std::exp(-2.0))));
    CHECK(s.foot_C.x == Approx(3.0 * (1.0 - 0.5 * (1.0 - std::exp(-2.0)))));
    CHECK(s.foot_C.y == Approx(50.0 - 0.5 * (p.gravity - 1.0 / p.air.wind_time)));
  }
}

TEST_CASE("Skids and run-outs are as their figures say") {
  Profile p;
  p.skid.lowest_speed = 1.0;
  const double angle = radians(55.0);
  CHECK(skid_acceleration(p, angle) == Approx(20.0 * (std::sin(angle) - 0.2 * std::cos(angle))));
  const TriangleWorld slope = Scene().ramp({0, 0, 0}, {10, 20.0 * std::tan(angle), 20}).world();
  CharacterState s = standing_at(p, {0, 12.0 * std::tan(angle) + 0.3, -2});
  s = run(s, p, slope, 240, 0.6, [](double) { return InputFrame{}; });
  REQUIRE(s.state == StateId::Skid);
  const double before = length(s.velocity_C);
  s = run(s, p, slope, 240, 0.3, [](double) { return InputFrame{}; });
  CHECK((length(s.velocity_C) - before) / 0.3 == Approx(skid_acceleration(p, angle)).epsilon(1e-6));

  const TriangleWorld floor = Scene().floor().world();
  CharacterState out = run(on_ground(p, floor), p, floor, 240, 0.2, [](double) { return InputFrame{}; });
  out.state = StateId::Skid;
  out.velocity_C = Vec3(6.0, 0, 0);
  const double from = out.foot_C.x;
  while (out.state == StateId::Skid) out = step(out, InputFrame{}, p, floor, 1.0 / 240.0);
  CHECK(out.foot_C.x - from == Approx(run_out_distance(p, 6.0)).margin(0.01));
}

TEST_CASE("Figures are finite where they can be, name their formula, and count ticks") {
  for (const int hz : {20, 60, 240}) {
    for (const Figure& f : figures_of(springy(), hz)) {
      INFO(f.group << "." << f.key);
      CHECK(std::isfinite(f.value));
      CHECK_FALSE(f.formula.empty());
    }
  }
  Profile p;
  p.ground.response.model = Response::Model::Steady;
  p.ground.response.deceleration = 0.0;
  const std::vector<Figure> list = figures_of(p, 60);
  const auto value = [&](const std::string& key) {
    return std::find_if(list.begin(), list.end(), [&](const Figure& f) { return f.key == key; })->value;
  };
  CHECK(std::isinf(value("stopping_distance")));
  CHECK(value("coyote_ticks") == 8.0);
  CHECK(value("counts_for_full_turn") == Approx(3000.0));
}

TEST_CASE("Any two of height, time, gravity and take-off speed make the other two") {
  Random random(3);
  for (int i = 0; i < 200; ++i) {
    Profile p;
    p.gravity = random.between(5.0, 50.0);
    p.jump.height = random.between(0.05, 4.0);
    p.jump.fall_factor = random.between(0.5, 2.0);
    if (i % 2 == 0) p.jump.apex_speed = random.between(0.1, 4.0), p.jump.apex_factor = random.between(0.1, 0.9);
    const auto value = [&](int n) { return jump_value(p, static_cast<JumpValue>(n)); };
    // The oracle is the arc itself: rises to its height in its time.
    CHECK(jump_height_at(p, 0, value(1)) == Approx(value(0)));
    for (int a = 0; a < 4; ++a) {
      for (int b = 0; b < 4; ++b) {
        if (a == b) continue;
        INFO(i << ": " << a << " and " << b);
        Profile other = p;
        other.gravity = 1.0;
        other.jump.height = 0.1;
        const auto made =
            with_jump(other, static_cast<JumpValue>(a), value(a), static_cast<JumpValue>(b), value(b));
        REQUIRE(made);
        CHECK(made->gravity == Approx(p.gravity).epsilon(1e-6));
        CHECK(made->jump.height == Approx(p.jump.height).epsilon(1e-6));
      }
    }
    for (const bool same_gravity : {false, true}) {
      const auto longer = with_airtime(p, 1.2 * jump_arc(p).airtime, same_gravity);
      REQUIRE(longer);
      CHECK(jump_arc(*longer).airtime == Approx(1.2 * jump_arc(p).airtime));
      CHECK((same_gravity ? longer->gravity == p.gravity : longer->jump.height == p.jump.height));
    }
  }
  CHECK_FALSE(with_jump(Profile{}, JumpValue::Height, -1.0, JumpValue::Gravity, 10.0));
}
