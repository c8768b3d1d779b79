// SPDX-License-Identifier: MIT
// What bears, what carries and what pushes, among pieces that move: each story was a fault once.
#include <catch2/catch.hpp>
#include <set>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

const auto kNothing = [](double) { return InputFrame{}; };

Piece block(const char* id, const Vec3& size, const Vec3& at, const Vec3& turn_deg = Vec3(0.0)) {
  const Vec3 turn(radians(turn_deg.x), radians(turn_deg.y), radians(turn_deg.z));
  return {id, at, turn, "", shape::Block{size}};
}

// Moves on and on at an even velocity.
Piece moving(Piece piece, const Vec3& velocity, double yaw_rate = 0.0) {
  PieceMotion motion;
  motion.keys = {{0.0}, {1.0, velocity * 60.0, Vec3(yaw_rate * 60.0, 0, 0)}};
  motion.period = 60.0;
  piece.motion = motion;
  return piece;
}

// Follows keys (share of `period`, place) once.
Piece keyed(Piece piece, double period, std::vector<PieceMotion::Key> keys) {
  PieceMotion motion;
  motion.keys = std::move(keys);
  motion.period = period;
  piece.motion = motion;
  return piece;
}

TriangleWorld world_of(std::vector<Piece> pieces, std::vector<NamedSurface> surfaces = {}) {
  Course course;
  course.pieces = std::move(pieces);
  course.surfaces = std::move(surfaces);
  course.limits = Box{Vec3(-1e5), Vec3(1e5)};
  return build_world(course);
}

const Piece kFloor = block("floor", {200, 1, 200}, {0, -1, 0});

CharacterState at(const TriangleWorld& world, const Profile& profile, const Vec3& foot, double yaw = 0.0) {
  return start_state(profile, {foot, Quat(1, 0, 0, 0), yaw}, world);
}

}  // namespace

TEST_CASE("Who jumps on a lift that goes down evenly lands on it again, as high over it as anywhere") {
  const Profile profile;
  for (const double v : {0.3, 0.9, 2.2, 6.0}) {
    for (const int hz : tick_rates()) {
      INFO("down at " << v << " m/s, " << hz << " ticks/s");
      const TriangleWorld world = world_of({moving(block("lift", {6, 0.4, 6}, {0, -0.4, 0}), {0, -v, 0})});
      CharacterState state = at(world, profile, Vec3(0.0));
      REQUIRE(state.grounded());
      double highest = 0.0, air = 0.0;
      state = run(
          state, profile, world, hz, 3.0,
          [&](double t) { return std::abs(t - 0.5) < 0.5 / hz ? press(Action::Jump) : InputFrame{}; },
          [&](const CharacterState& s) {
            highest = std::max(highest, s.foot_C.y + v * s.time);
            air += s.grounded() ? 0.0 : 1.0 / hz;
          });
      CHECK(state.grounded());
      CHECK(state.foot_C.y + v * state.time == Approx(0.0).margin(1e-4));
      // The apex falls between ticks.
      const double half_tick_drop = 0.125 * profile.gravity / hz / hz;
      CHECK(highest == Approx(profile.jump.height).margin(half_tick_drop + 1e-3));
      CHECK(air == Approx(2.0 * std::sqrt(2.0 * profile.jump.height / profile.gravity)).margin(2.0 / hz));
    }
  }
}

TEST_CASE("One lands on a ramp that recedes, and on the side of a plate that sinks") {
  const Profile profile;
  for (const int hz : tick_rates()) {
    for (const double v : {0.0, 0.5, 1.7}) {
      INFO("recedes at " << v << " m/s, " << hz << " ticks/s");
      const double h = 6.0 * std::tan(radians(30.0));
      Piece ramp{"ramp", {0, -h, 0}, Vec3(0.0), "", shape::Ramp{{8, h, 6}}};
      const TriangleWorld world = world_of({moving(ramp, {0, 0, -v})});
      int grounded = 0;
      run(at(world, profile, {0, 0.5, -1}), profile, world, hz, 1.2, kNothing,
          [&](const CharacterState& s) { grounded += s.grounded(); });
      CHECK(grounded > 0.4 * hz);
    }
  }
}

TEST_CASE(
    "A low box that slides past a standing character does not take him along, whichever piece comes first") {
  const Profile profile;
  for (const double height : {0.05, 0.1, 0.2, 0.29}) {
    for (const bool box_first : {false, true}) {
      for (const int hz : tick_rates()) {
        INFO(height << " m high, " << (box_first ? "box" : "floor") << " first, " << hz << " ticks/s");
        const Piece box = moving(block("box", {1, height, 20}, {0.82, 0, 5}), {-0.05, 0, -2});
        const TriangleWorld world =
            world_of(box_first ? std::vector<Piece>{box, kFloor} : std::vector<Piece>{kFloor, box});
        std::set<std::string> stood_on;
        const CharacterState end =
            run(at(world, profile, Vec3(0.0)), profile, world, hz, 3.0, kNothing,
                [&](const CharacterState& s) { stood_on.emplace(world.piece_name(s.ground.piece)); });
        CHECK(std::abs(end.foot_C.z) < 1e-3);
        CHECK(stood_on == std::set<std::string>{"floor"});
      }
    }
  }
}

TEST_CASE("On ice a kerb that is brushed lends no grip, and down a slope the top of a low wall is no floor") {
  Profile profile;
  profile.ground.highest_step = 0.2;
  const NamedSurface ice{"ice", {Surface::Walk::ByAngle, true, false, 0.05}};
  const auto coasted = [&](bool kerb) {
    Piece floor = kFloor;
    floor.surface = "ice";
    std::vector<Piece> pieces = {floor};
    if (kerb) pieces.push_back(block("kerb", {1, 0.25, 60}, {0.8, 0, -20}));
    const TriangleWorld world = world_of(pieces, {ice});
    const auto input = [](double t) { return t < 3.0 ? push(0.02, 1.0) : InputFrame{}; };
    const CharacterState slow = run(at(world, profile, Vec3(0.0)), profile, world, 60, 3.0, input);
    return length(run(slow, profile, world, 60, 3.0, kNothing).foot_C - slow.foot_C);
  };
  CHECK(coasted(true) == Approx(coasted(false)).epsilon(0.02));

  profile.ground.highest_step = 0.1;
  const double t = std::tan(radians(20.0)), y = 30.0 * t;
  Scene scene;
  scene.triangle({{-20, 0, 30}, {20, 0, 30}, {20, 60 * t, -30}})
      .triangle({{-20, 0, 30}, {20, 60 * t, -30}, {-20, 60 * t, -30}});
  scene.block({0.85, 0, 0}, {1, y + 0.2, 30});
  const TriangleWorld world = scene.world();
  for (const int hz : tick_rates()) {
    INFO(hz << " ticks/s");
    int airborne = 0;
    double over = 0.0;
    run(
        at(world, profile, {0, y + 0.2 * t, -0.2}), profile, world, hz, 1.0,
        [](double) { return push(0.15, -1.0); },
        [&](const CharacterState& s) {
          airborne += !s.grounded();
          over = std::max(over, s.foot_C.y - (30.0 - s.foot_C.z) * t);
        });
    CHECK(airborne == 0);
    CHECK(over < 0.03);
  }
}

TEST_CASE("Within a carriage of several pieces one stands still, however fast it goes") {
  const Profile profile;
  for (const int hz : {10, 20, 60, 144}) {
    for (const double v : {1.0, 8.0, 24.0}) {
      INFO(v << " m/s, " << hz << " ticks/s");
      const Vec3 velocity(0, 0, -v);
      const TriangleWorld world = world_of({kFloor, moving(block("car", {4, 0.2, 8}, {0, 1, 0}), velocity),
                                            moving(block("front", {4, 3, 0.1}, {0, 1.2, -0.37}), velocity),
                                            moving(block("pole", {0.2, 3, 0.2}, {0.2, 1.2, 0.43}), velocity),
                                            moving(block("roof", {4, 0.1, 8}, {0, 3.1, 0}), velocity)});
      const CharacterState end = run(at(world, profile, {0, 1.2, 0}), profile, world, hz, 3.0, kNothing);
      CHECK(length(end.foot_C - velocity * end.time - Vec3(0, 1.2, 0)) < 1e-9);
    }
  }
}

TEST_CASE("About a turntable one walks as about ground at rest") {
  const Profile profile;
  for (const double rate_deg : {20.0, 90.0}) {
    for (const int hz : {30, 60, 144}) {
      INFO(rate_deg << " degrees/s, " << hz << " ticks/s");
      const double rate = radians(rate_deg);
      const Piece disc = block("disc", {30, 0.4, 30}, {0, -0.4, 0});
      const TriangleWorld still = world_of({disc}), turning = world_of({moving(disc, Vec3(0.0), rate)});
      // Outward, aside, and a halt.
      const auto input = [](double t) {
        return t < 1.0 ? push(0, 1) : t < 1.6 ? push(0.7, -0.2) : InputFrame{};
      };
      const CharacterState a = run(at(still, profile, {1, 0, 0}), profile, still, hz, 2.0, input);
      const CharacterState b = run(at(turning, profile, {1, 0, 0}), profile, turning, hz, 2.0, input);
      const Vec3 seen = glm::angleAxis(-rate * b.time, Vec3(0, 1, 0)) * b.foot_C;
      CHECK(length(seen - a.foot_C) < 1e-6);
    }
  }
}

TEST_CASE("Lying down on a turntable is lying down on a floor") {
  const Profile profile;
  for (const double rate_deg : {30.0, 140.0}) {
    const TriangleWorld world =
        world_of({moving(block("disc", {12, 0.4, 12}, {0, -0.4, 0}), Vec3(0.0), radians(rate_deg))});
    CharacterState state = at(world, profile, {2, 0, 0});
    double most = 0.0;
    state = run(
        state, profile, world, 60, 4.0, [](double t) { return t == 0.0 ? press(Action::Lie) : InputFrame{}; },
        [&](const CharacterState& s) {
          const Vec3 seen = glm::angleAxis(-radians(rate_deg) * s.time, Vec3(0, 1, 0)) * s.foot_C;
          most = std::max(most, length(seen - Vec3(2, 0, 0)));
        });
    CHECK(state.lying());
    CHECK(most < 1e-6);
  }
}

TEST_CASE(
    "A piece that falls away faster than one falls leaves its passenger in the air; a short drop does not") {
  const Profile profile;
  for (const int hz : tick_rates()) {
    INFO(hz << " ticks/s");
    const auto dropped = [&](double at_speed) {
      // At rest for a second, then down.
      return world_of(
          {keyed(block("plate", {4, 0.2, 4}, {0, 9.8, 0}), 3.0,
                 {{0.0}, {1.0 / 3.0}, {2.0 / 3.0, Vec3(0, -at_speed, 0)}, {1.0, Vec3(0, -at_speed, 0)}}),
           kFloor});
    };
    const TriangleWorld fast = dropped(9.0), slow = dropped(0.3);
    CharacterState state = run(at(fast, profile, {0, 10, 0}), profile, fast, hz, 1.0, kNothing);
    REQUIRE(state.grounded());
    state = run(state, profile, fast, hz, 0.5, kNothing);
    CHECK_FALSE(state.grounded());
    CHECK(state.foot_C.y == Approx(10.0 - 0.5 * profile.gravity * 0.25).margin(1e-6));
    int airborne = 0;
    run(at(slow, profile, {0, 10, 0}), profile, slow, hz, 1.9, kNothing,
        [&](const CharacterState& s) { airborne += !s.grounded(); });
    CHECK(airborne == 0);
  }
}

TEST_CASE("A lift that stops rising throws its passenger by what it gave him") {
  const Profile profile;
  for (const int hz : tick_rates()) {
    for (const double v : {3.0, 5.0}) {
      INFO("stops at " << v << " m/s, " << hz << " ticks/s");
      const TriangleWorld world = world_of({keyed(block("lift", {4, 0.2, 4}, {0, -0.2, 0}), 4.0,
                                                  {{0.0}, {0.25, Vec3(0, v, 0)}, {1.0, Vec3(0, v, 0)}})});
      double highest = 0.0;
      const CharacterState end = run(at(world, profile, Vec3(0.0)), profile, world, hz, 3.0, kNothing,
                                     [&](const CharacterState& s) { highest = std::max(highest, s.foot_C.y); });
      const double thrown = v * v / (2.0 * profile.gravity);
      CHECK(highest - v == Approx(thrown).margin(v / hz * 0.5 + 1e-3));
      CHECK(end.grounded());
    }
  }
}

TEST_CASE("Who is pushed up a slope or over a kerb goes along it, and is never inside anything") {
  const Profile profile;
  for (const int hz : tick_rates()) {
    for (const bool slope : {true, false}) {
      INFO((slope ? "slope, " : "kerb, ") << hz << " ticks/s");
      const Piece ahead = slope ? Piece{"ramp", {0, 0, -4}, Vec3(0.0), "", shape::Ramp{{8, 2.0, 5}}}
                                : block("kerb", {8, 0.25, 5}, {0, 0, -4});
      const Piece wall = moving(block("wall", {4, 2, 0.4}, {0, -0.0, 0.8}), {0, 0, -1});
      const TriangleWorld world = world_of({kFloor, ahead, wall});
      double deepest = 0.0;
      int airborne = 0;
      const CharacterState end =
          run(at(world, profile, Vec3(0.0)), profile, world, hz, 4.0, kNothing, [&](const CharacterState& s) {
            deepest = std::max(deepest, double(s.penetration));
            airborne += !s.grounded();
          });
      CHECK(deepest == 0.0);
      CHECK(airborne == 0);
      CHECK(end.foot_C.y > 0.2);
      CHECK(end.foot_C.z == Approx(0.8 - 0.2 - 4.0 - profile.capsule.radius).margin(2e-3));
    }
  }
}

TEST_CASE("How far a rotor sweeps a standing character does not go by the tick rate") {
  const Profile profile;
  const auto swept = [&](int hz) {
    const TriangleWorld world =
        world_of({kFloor, moving(block("blade", {10, 2, 0.2}, Vec3(0.0)), Vec3(0.0), radians(36.0))});
    const CharacterState end = run(at(world, profile, {1.5, 0, -1}), profile, world, hz, 6.0, kNothing);
    return length(end.foot_C);
  };
  const double reference = swept(480);
  CHECK(reference > 3.0);
  for (const int hz : {10, 24, 60, 240}) {
    INFO(hz << " ticks/s");
    CHECK(swept(hz) == Approx(reference).margin(hz >= 24 ? 0.002 : 0.01));
  }
}

TEST_CASE("A piece that strikes gives the share of its speed that the profile says") {
  for (const double share : {0.0, 0.5, 1.0}) {
    Profile profile;
    profile.walls.strike = share;
    profile.ground.response.model = Response::Model::Steady;
    profile.ground.response.deceleration = 0.0;  // Keeps what it is given.
    const TriangleWorld world =
        world_of({kFloor, keyed(block("ram", {2, 2, 1}, {0, 0, 2}), 8.0,
                                {{0.0}, {0.125, Vec3(0, 0, -3)}, {1.0, Vec3(0, 0, -3)}})});
    const CharacterState end = run(at(world, profile, Vec3(0.0)), profile, world, 60, 1.5, kNothing);
    CHECK(-end.velocity_C.z == Approx(3.0 * share).margin(1e-6));
  }
}

TEST_CASE("A roof that comes down makes who is too tall duck, and crushes who cannot") {
  const Profile profile;
  const auto pressed = [&](double to, int hz) {
    const TriangleWorld world = world_of({kFloor, keyed(block("roof", {4, 1, 4}, {0, 2.4, 0}), 6.0,
                                                        {{0.0}, {0.5, Vec3(0, to - 2.4, 0)}, {1.0}})});
    std::set<StateId> states;
    double deepest = 0.0;
    const CharacterState end =
        run(at(world, profile, Vec3(0.0)), profile, world, hz, 6.0, kNothing, [&](const CharacterState& s) {
          states.insert(s.state);
          deepest = std::max(deepest, double(s.penetration));
        });
    return std::tuple(states.count(StateId::Crouch) == 1, deepest, end.state);
  };
  for (const int hz : tick_rates()) {
    INFO(hz << " ticks/s");
    const auto [ducked, deep, end] = pressed(1.15, hz);
    CHECK(ducked);
    CHECK(deep < 0.06);
    CHECK(end == StateId::Stand);
    CHECK(std::get<1>(pressed(0.6, hz)) > 0.1);  // Too low even so: told by the depth.
  }
}

TEST_CASE("A step is taken only where the capsule can stand on it") {
  const Profile profile;
  for (const int hz : tick_rates()) {
    for (const double roof : {1.9, 2.0, 2.05, 2.15}) {
      INFO("roof at " << roof << " m, " << hz << " ticks/s");
      const TriangleWorld world =
          world_of({kFloor, block("step", {6, 0.3, 6}, {0, 0, -4}), block("roof", {6, 0.5, 6}, {0, roof, -4})});
      const CharacterState end =
          run(at(world, profile, Vec3(0.0)), profile, world, hz, 1.2, [](double) { return push(0, 1); });
      const bool fits = roof >= 0.3 + profile.capsule.height;
      CHECK(end.foot_C.y == Approx(fits ? 0.3 : 0.0).margin(1e-6));
      CHECK((end.foot_C.z < -1.5) == fits);
    }
  }
}

TEST_CASE("What is no ground is slid off or gone over, and resting on it is found") {
  const Profile profile;
  const NamedSurface thorns{"thorns", {Surface::Walk::ByAngle, false, false, 1.0}};
  Piece bed = block("bed", {3, 0.4, 3}, {0, 0, 0});
  bed.surface = "thorns";
  const TriangleWorld island = world_of({kFloor, bed}, {thorns});
  const CharacterState off = run(at(island, profile, {0, 1.5, 0}), profile, island, 60, 6.0, kNothing);
  CHECK(off.grounded());
  CHECK(off.foot_C.y == Approx(0.0).margin(1e-6));

  Piece plate = block("plate", {6, 0.02, 0.8}, {0, 0, -3});
  plate.surface = "thorns";
  const TriangleWorld crossing = world_of({kFloor, plate}, {thorns});
  for (const int hz : tick_rates()) {
    INFO(hz << " ticks/s");
    const CharacterState over =
        run(at(crossing, profile, Vec3(0.0)), profile, crossing, hz, 2.0, [](double) { return push(0, 1); });
    CHECK(over.foot_C.z < -5.0);
    CHECK(over.grounded());
  }
}

TEST_CASE("On rungs near upright the level speed is no run") {
  Profile profile;
  profile.ground.speed_on_slopes = Profile::Ground::SpeedOnSlopes::Level;
  const NamedSurface rungs{"rungs", {Surface::Walk::Always, true, false, 1.0}};
  for (const double angle : {50.0, 60.0, 70.0, 74.0, 80.0, 85.0, 89.0}) {
    INFO(angle << " degrees");
    Piece ladder{"ladder", {0, 0, -4}, Vec3(0.0), "rungs", shape::Ramp{{8, 4.0 * std::tan(radians(angle)), 4}}};
    const TriangleWorld world = world_of({kFloor, ladder}, {rungs});
    double fastest = 0.0;
    run(
        at(world, profile, Vec3(0.0)), profile, world, 60, 2.0, [](double) { return push(0, 1); },
        [&](const CharacterState& s) { fastest = std::max(fastest, length(s.velocity_C)); });
    CHECK(fastest < 1.6 * profile.ground.speed);
  }
}

TEST_CASE("A start on a slope, a stair or a kerb's edge is on it, not in it") {
  const Profile profile;
  const double t = std::tan(radians(30.0));
  const TriangleWorld slope = world_of({{"ramp", {0, 0, 0}, Vec3(0.0), "", shape::Ramp{{8, 10 * t, 10}}}});
  const TriangleWorld stairs =
      world_of({{"stairs", {0, 0, 0}, Vec3(0.0), "", shape::Stairs{4, 0.17, 0.3, 10}}});
  for (const auto& [world, foot] :
       {std::pair(&slope, Vec3(0, 5 * t, 0)), std::pair(&stairs, Vec3(0, 0.85, 0.05))}) {
    CharacterState state = at(*world, profile, foot);
    CHECK(deepest_overlap(state, profile, *world) < profile.capsule.margin);
    CHECK(length(state.foot_C - foot) < 0.2);
    state = step(state, {}, profile, *world, 1.0 / 60);
    CHECK(state.penetration == 0.0f);
    CHECK(state.grounded());
  }
}

TEST_CASE("Straight into a wall one keeps what goes along it, whichever way the world is turned") {
  const Profile profile;
  std::vector<double> ways;
  for (const double yaw_deg : {0.0, 90.0, 180.0, 270.0, 33.0}) {
    for (const double aside : {0.0, 1e-4, -1e-4}) {
      const double yaw = radians(yaw_deg);
      const Quat turned = glm::angleAxis(yaw, Vec3(0, 1, 0));
      const TriangleWorld world =
          world_of({kFloor, block("wall", {100, 3, 1}, turned * Vec3(0, 0, -0.8), {yaw_deg, 0, 0})});
      const CharacterState end =
          run(at(world, profile, Vec3(0.0), yaw), profile, world, 60, 2.5, [&](double t) {
            InputFrame input = t < 1.0 ? push(1, 0) : push(aside, 1);
            input.held.set(Action::Sprint, t < 1.0);
            return input;
          });
      ways.push_back((glm::conjugate(turned) * end.foot_C).x);
    }
  }
  for (const double way : ways) CHECK(way == Approx(ways.front()).margin(2e-3));
}
