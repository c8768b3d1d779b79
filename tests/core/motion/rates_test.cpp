// SPDX-License-Identifier: MIT
// The same inputs on a common grid of 12 to the second give the same way at every tick rate: what happens
// within a tick happens at its instant.
#include <catch2/catch.hpp>
#include <cstdio>
#include <cstdlib>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

constexpr int kGrid = 12, kReference = 480;

struct Walk {
  const char* name;
  Scene scene;
  Vec3 foot;
  double yaw;  // Degrees.
  double seconds;
  std::function<InputFrame(int)> input;  // For each twelfth of a second.
  std::function<void(Profile&)> values = {};
};

Scene floor() { return std::move(Scene().floor()); }
InputFrame sprinting(double right, double forward) {
  InputFrame frame = push(right, forward);
  frame.held.set(Action::Sprint, true);
  return frame;
}
InputFrame jumping(InputFrame frame, bool now) {
  frame.held.set(Action::Jump, now);
  frame.pressed.set(Action::Jump, now);
  return frame;
}
// A round wall about the origin, of flat faces of 8 degrees each, seen from within or from outside.
Scene round_wall(double radius, bool from_within) {
  Scene scene = floor();
  constexpr double kThick = 0.4, kFace = 8.0;
  const double middle = radius + (from_within ? 0.5 : -0.5) * kThick;
  const double wide = 2.0 * (radius + kThick) * std::tan(radians(0.5 * kFace));
  for (double at = 0.0; at < 360.0; at += kFace) {
    const double turn = radians(at);
    scene.block({middle * std::sin(turn), 0, middle * std::cos(turn)}, {wide, 3, kThick}, {at, 0, 0});
  }
  return scene;
}
InputFrame turning(InputFrame frame, double degrees_per_second) {
  frame.turn_rate = Vec2(radians(degrees_per_second), 0.0);
  return frame;
}
InputFrame crouching(InputFrame frame, bool held) {
  frame.held.set(Action::Crouch, held);
  return frame;
}

// Walks towards -z. Starts that differ by `offset`, so that events fall anywhere in a tick.
std::vector<Walk> walks(double offset) {
  const double z = offset;
  const auto ahead = [](int) { return push(0.0, 1.0); };
  const auto sprint = [](int) { return sprinting(0.0, 1.0); };
  const auto aslant = [](int) { return push(0.35, 0.7); };
  const auto jump_at = [](int tick, InputFrame frame) {
    return [=](int i) { return jumping(frame, i == tick); };
  };
  const auto stop_at = [](int tick, InputFrame frame) {
    return [=](int i) { return i < tick ? frame : push(0.0, 0.0); };
  };
  std::vector<Walk> all;
  const auto add = [&](Walk walk) { all.push_back(std::move(walk)); };
  add({"off a ledge", std::move(floor().block({0, 0, 0}, {8, 3, 8})), {0, 3, z}, 0, 2.5, ahead});
  add({"off a ledge, sprint", std::move(floor().block({0, 0, 0}, {8, 3, 12})), {0, 3, z}, 0, 2.5, sprint});
  add({"off a ledge, slow", std::move(floor().block({0, 0, 0}, {8, 3, 2})), {0, 3, z}, 0, 3.0, [](int) {
         return push(0.0, 0.3);
       }});
  add({"off a ledge, aslant", std::move(floor().block({0, 0, 0}, {8, 3, 8})), {0, 3, z}, 0, 2.5, aslant});
  add({"off a turned ledge, stop",
       std::move(floor().block({0, 0, 0}, {8, 2, 8}, {33, 0, 0})),
       {0, 2, z},
       0,
       3.0,
       stop_at(14, sprinting(0.1, 1.0))});
  add({"off the end of a ramp", std::move(floor().ramp({0, 0, -4}, {4, 2.3094, 4})), {0, 0, z}, 0, 3.0, ahead});
  add({"off the end of a ramp, sprint",
       std::move(floor().ramp({0, 0, -4}, {4, 2.3094, 4})),
       {0, 0, z + 1},
       0,
       3.0,
       sprint});
  add({"over a crest",
       std::move(floor().ramp({0, 0, -4}, {4, 2.3094, 4}).block({0, 0, -9}, {4, 2.3094, 6})),
       {0, 0, z},
       0,
       3.0,
       ahead});
  add({"down a ramp",
       std::move(floor().block({0, 0, 2}, {4, 2.3094, 4}).ramp({0, 0, -2}, {4, 2.3094, 4}, {180, 0, 0})),
       {0, 2.3094, 2 + z},
       0,
       3.0,
       ahead});
  add({"down a ramp, sprint",
       std::move(floor().block({0, 0, 2}, {4, 2.3094, 4}).ramp({0, 0, -2}, {4, 2.3094, 4}, {180, 0, 0})),
       {0, 2.3094, 2 + z},
       0,
       3.0,
       sprint,
       [](Profile& p) { p.ground.crest_angle = radians(20.0); }});
  add({"onto a box by a jump",
       std::move(floor().block({0, 0, -3}, {4, 0.8, 2})),
       {0, 0, z},
       0,
       2.5,
       jump_at(5, push(0.0, 1.0))});
  add({"over a box by a jump",
       std::move(floor().block({0, 0, -3.5}, {4, 0.5, 1})),
       {0, 0, z},
       0,
       2.5,
       jump_at(5, sprinting(0.2, 1.0))});
  add({"jump and stop", floor(), {0, 0, z}, 0, 2.0, [](int i) {
         return jumping(i < 9 ? push(0.0, 1.0) : push(0.0, 0.0), i == 4);
       }});
  add({"jump onto a ramp",
       std::move(floor().ramp({0, 0, -5}, {4, 2.3094, 4})),
       {0, 0, z},
       0,
       2.5,
       jump_at(7, push(0.0, 1.0))});
  add({"jump down a ramp",
       std::move(floor().block({0, 0, 2}, {4, 2.3094, 4}).ramp({0, 0, -2}, {4, 2.3094, 4}, {180, 0, 0})),
       {0, 2.3094, 2 + z},
       0,
       2.5,
       jump_at(6, push(0.0, 1.0))});
  add({"jump under a roof",
       std::move(floor().block({0, 2.2, -4}, {4, 0.3, 6})),
       {0, 0, z},
       0,
       2.5,
       jump_at(9, push(0.0, 1.0))});
  add({"up stairs", std::move(floor().stairs({0, 0, -4}, 3, 0.18, 0.28, 12)), {0, 0, z}, 0, 3.0, ahead});
  add({"up stairs, sprint",
       std::move(floor().stairs({0, 0, -4}, 3, 0.18, 0.28, 12)),
       {0, 0, z},
       0,
       3.0,
       sprint});
  add({"up steep stairs", std::move(floor().stairs({0, 0, -4}, 3, 0.32, 0.3, 8)), {0, 0, z}, 0, 3.0, sprint});
  add({"up stairs, aslant",
       std::move(floor().stairs({0, 0, -4}, 9, 0.18, 0.28, 12)),
       {0, 0, z},
       0,
       3.0,
       aslant});
  add({"down stairs",
       std::move(floor().stairs({0, 0, -4}, 3, 0.18, 0.28, 12).block({0, 0, -8.7}, {3, 2.16, 6})),
       {0, 2.16, -8 + z},
       180,
       3.0,
       ahead});
  add({"down stairs, sprint",
       std::move(floor().stairs({0, 0, -4}, 3, 0.18, 0.28, 12).block({0, 0, -8.7}, {3, 2.16, 6})),
       {0, 2.16, -8 + z},
       180,
       3.0,
       sprint});
  add({"over a cliff, skid, run-out",
       std::move(floor().block({0, 0, 2}, {6, 4, 4}).ramp({0, 0, -1.6784}, {6, 4, 3.3568}, {180, 0, 0})),
       {0, 4, 1 + z},
       0,
       3.5,
       ahead});
  add({"over a cliff, skid, stop",
       std::move(floor().block({0, 0, 2}, {6, 4, 4}).ramp({0, 0, -1.6784}, {6, 4, 3.3568}, {180, 0, 0})),
       {0, 4, 1 + z},
       0,
       3.5,
       stop_at(10, push(0.3, 0.8))});
  add({"jump into a cliff, skid",
       std::move(floor().block({0, 0, 2}, {6, 4, 4}).ramp({0, 0, -1.6784}, {6, 4, 3.3568}, {180, 0, 0})),
       {0, 0, -7 + z},
       180,
       3.0,
       jump_at(6, push(0.0, 1.0))});
  add({"drops that are followed and not",
       std::move(Scene()
                     .block({0, 0, 0}, {6, 2, 4})
                     .block({0, 0, -3}, {6, 1.66, 2})
                     .block({0, 0, -5}, {6, 1.30, 2})
                     .floor()),
       {0, 2, z},
       0,
       3.0,
       ahead});
  add({"out from under a roof",
       std::move(floor().block({0, 1.3, -1}, {4, 0.3, 3})),
       {0, 0, z},
       0,
       3.0,
       [](int i) { return crouching(push(0.0, 1.0), i < 8); }});
  add({"over kerbs and a gap",
       std::move(Scene()
                     .block({0, -3, 2}, {6, 3, 6})
                     .block({0, -3, -2.1}, {6, 3.2, 1.4})
                     .block({0, -3, -4.2}, {6, 2.9, 1.6})
                     .block({0, -6, 0}, {60, 3, 60})),
       {0, 0, 1 + z},
       0,
       3.0,
       sprint});
  add({"into a wall and along",
       std::move(floor().block({0, 0, -3}, {12, 3, 0.4}, {25, 0, 0})),
       {0, 0, z},
       0,
       2.5,
       sprint});
  add({"into a wall while gathering speed, and along",
       std::move(floor().block({0, 0, -3}, {12, 3, 0.4}, {25, 0, 0})),
       {0, 0, z},
       0,
       1.2,
       ahead,
       [](Profile& p) {
         p.ground.gather.growth = 12.0;
         p.ground.gather.lowest = 1.0;
         p.ground.gather.highest = 12.0;
       }});
  return all;
}

// Along walls of many faces. Each is an event; so many at 12 ticks/s that they no longer fit into a tick. Over
// the edges of the outside one flies, and whether one comes down on this face or on the next is by millimetres.
std::vector<Walk> round_walks(double offset) {
  const double z = offset;
  std::vector<Walk> all;
  const auto add = [&](Walk walk) { all.push_back(std::move(walk)); };
  add({"along a round wall from outside", round_wall(3.0, false), {-3, 0, 3.2 + z}, 0, 3.0, [](int) {
         return push(0.8, 0.2);
       }});
  add({"along a round wall from within", round_wall(4.0, true), {0, 0, -2 + z}, 0, 3.0, [](int) {
         return sprinting(0.5, 0.8);
       }});
  add({"along a round wall, turning", round_wall(4.0, true), {0, 0, -2 + z}, 0, 3.0, [](int) {
         return turning(push(0.6, 0.8), -70.0);
       }});
  return all;
}

// Past the end of a wall and round it, kept to it by what is asked for into it.
std::vector<Walk> ends_of_walls(double offset) {
  const double z = offset;
  const auto ahead = [](int) { return push(0, 1); };
  const auto sprint = [](int) { return sprinting(0, 1); };
  const auto wall = [](double thick, Vec3 degrees) {
    return std::move(floor().block({0, 0, -3}, {3, 3, thick}, degrees));
  };
  const auto smooth = [](Profile& p) { p.ground.response.model = Response::Model::Smooth; };
  const auto at_once = [](Profile& p) { p.ground.response.model = Response::Model::Instant; };
  return {{"round a wall of 25 degrees", wall(0.4, {25, 0, 0}), {0, 0, z}, 0, 2.5, ahead},
          {"the same at a sprint", wall(0.4, {25, 0, 0}), {0, 0, z}, 0, 2.5, sprint},
          {"the same, smoothly", wall(0.4, {25, 0, 0}), {0, 0, z}, 0, 2.5, ahead, smooth},
          {"the same, at once", wall(0.4, {25, 0, 0}), {0, 0, z}, 0, 2.5, sprint, at_once},
          {"round a wall that leans", wall(0.4, {25, 15, 0}), {0, 0, z}, 0, 2.5, sprint},
          {"round a steep wall", wall(0.4, {60, 0, 0}), {0, 0, z}, 0, 2.5, ahead},
          {"round a thin wall", wall(0.05, {40, 0, 0}), {0, 0, z}, 0, 2.5, sprint},
          {"round a post",
           std::move(floor().block({0.2, 0, -3}, {0.3, 3, 0.3}, {20, 0, 0})),
           {0, 0, z},
           0,
           2.5,
           ahead}};
}

// Onto blocks and against them by a jump: the foot grazes the rim, or the body is held off by the face until it
// is over the rim, round which it rolls. At the rise of a jump each lasts a part of a tick.
std::vector<Walk> jumps_at_blocks(double offset) {
  const auto smooth = [](Profile& p) {
    p.air.response.model = Response::Model::Smooth;
    p.air.response.time = 0.1;
  };
  std::vector<Walk> all;
  for (const double high : {0.35, 0.5, 0.8, 1.1}) {
    for (const double turned : {0.0, 35.0}) {
      for (const int tick : {3, 6}) {  // On the way to it; standing against it.
        const auto input = [=](int i) { return jumping(push(0, 1), i == tick); };
        const double a = radians(turned);
        const auto scene = [&] {
          const Vec3 base(-15.0 * std::sin(a), 0, -1.0 - 15.0 * std::cos(a));
          return std::move(floor().block(base, {30, high, 30}, {turned, 0, 0}));
        };
        all.push_back({"onto a block by a jump", scene(), {0.1, 0, offset}, 0, 2.0, input});
        all.push_back({"the same, smoothly", scene(), {0.1, 0, offset}, 0, 2.0, input, smooth});
      }
    }
  }
  return all;
}

// Along a wall in the air, pushed against it, and past its end.
std::vector<Walk> flights_along_walls(double offset) {
  std::vector<Walk> all;
  for (const double turned : {0.0, 20.0, -20.0}) {
    all.push_back({"past the end of a wall by a jump",
                   std::move(floor().block({-1.5, 0, -2}, {3, 3, 0.4}, {turned, 0, 0})),
                   {-1.0, 0, offset - 1.2},
                   0,
                   1.5,
                   [](int i) { return jumping(push(0.7, 0.7), i == 2); }});
    all.push_back({"past the lower end of a wall by a fall",
                   std::move(floor().block({0, 2.5, -2}, {6, 5, 0.4}, {turned, 0, 0})),
                   {0.3, 6, offset - 1.3},
                   0,
                   1.5,
                   [](int) { return push(0.2, 0.9); }});
  }
  return all;
}

// A jump off a wall, asked for before the wall is met or while it is pushed against.
std::vector<Walk> jumps_off_walls(double offset) {
  std::vector<Walk> all;
  for (const double turned : {0.0, 25.0}) {
    for (const int second : {4, 5}) {
      all.push_back({"off a wall by a jump",
                     std::move(floor().block({0, 0, -2.5}, {12, 8, 2}, {turned, 0, 0})),
                     {0, 0, offset},
                     0,
                     1.0,
                     [=](int i) { return jumping(push(0.2, 1), i == 2 || i == second); },
                     [](Profile& p) { p.jump.from_wall = true; }});
    }
  }
  return all;
}

std::vector<Vec3> feet(const Walk& walk, int hz) {
  Profile profile;
  if (walk.values) walk.values(profile);
  const TriangleWorld world = walk.scene.world();
  std::vector<Vec3> at;
  CharacterState state = start_state(profile, {walk.foot, Quat(1.0, 0.0, 0.0, 0.0), radians(walk.yaw)}, world);
  const int per_grid = hz / kGrid;
  for (int i = 0; i < static_cast<int>(walk.seconds * kGrid); ++i) {
    InputFrame input = walk.input(i);
    for (int k = 0; k < per_grid; ++k) {
      state = step(state, input, profile, world, 1.0 / hz);
      input.pressed = {};
    }
    at.push_back(state.foot_C);
  }
  return at;
}

double apart(const std::vector<Vec3>& a, const std::vector<Vec3>& b) {
  double most = 0.0;
  for (std::size_t i = 0; i < a.size(); ++i) most = std::max(most, length(a[i] - b[i]));
  return most;
}

// Every walk from seven starts, against the reference: `allowed` in metres by the walk and the tick rate.
void compare_rates(const std::function<std::vector<Walk>(double)>& walks,
                   const std::function<double(std::size_t, int)>& allowed) {
  const bool tells = std::getenv("LAGNIAPPE_TELL_RATES") != nullptr;  // The table of docs/benchmarks.md.
  const std::vector<int> rates = {12, 24, 36, 60, 120, 240};
  std::vector<std::vector<Walk>> starts;
  for (int i = 0; i < 7; ++i) starts.push_back(walks(0.037 * i));
  for (std::size_t w = 0; w < starts[0].size(); ++w) {
    std::vector<double> worst(rates.size(), 0.0);
    for (const std::vector<Walk>& all : starts) {
      const std::vector<Vec3> reference = feet(all[w], kReference);
      for (std::size_t r = 0; r < rates.size(); ++r)
        worst[r] = std::max(worst[r], apart(feet(all[w], rates[r]), reference));
    }
    INFO(starts[0][w].name);
    if (tells) std::printf("%-34s", starts[0][w].name);
    for (std::size_t r = 0; r < rates.size(); ++r) {
      INFO(rates[r] << " ticks/s");
      CHECK(worst[r] < allowed(w, rates[r]));
      if (tells) std::printf(" %8.3f", worst[r] * 1000.0);
    }
    if (tells) std::printf(" mm\n");
  }
}

}  // namespace

TEST_CASE("The same inputs give the same way at every tick rate, whatever happens within a tick", "[long]") {
  constexpr double kSame = 1e-3, kCoarsely = 0.05;  // m; the second at 12 ticks/s.
  compare_rates(walks, [](std::size_t, int hz) { return hz < 24 ? kCoarsely : kSame; });
}

TEST_CASE("Along a round wall of flat faces one comes nearly as far at every tick rate", "[long]") {
  compare_rates(round_walks, [](std::size_t walk, int hz) {
    const bool outside = walk == 0;
    return !outside ? 0.003 : hz < 24 ? 0.2 : hz < 120 ? 0.08 : 0.01;
  });
}

TEST_CASE("A jump at a block, with its edge grazed or rolled over, is the same at every tick rate", "[long]") {
  compare_rates(jumps_at_blocks, [](std::size_t, int) { return 0.01; });
}

TEST_CASE("A wall is jumped off at the instant in which it is met, at any tick rate") {
  compare_rates(jumps_off_walls, [](std::size_t, int) { return 0.02; });
}

TEST_CASE("In the air along a wall and past its end the way is the same at every tick rate") {
  compare_rates(flights_along_walls, [](std::size_t, int hz) { return hz < 24 ? 0.02 : 0.015; });
}

TEST_CASE("Past the end of a wall and round it the way is nearly the same at every tick rate") {
  compare_rates(ends_of_walls, [](std::size_t, int hz) { return hz < 24 ? 0.02 : 0.012; });
}

TEST_CASE(
    "Turning while walking follows the same arc at every tick rate: by a rate, by a mouse, and in place") {
  using Facing = Profile::Ground::Facing;
  enum class By { Rate, Mouse, InPlace };
  for (const By by : {By::Rate, By::Mouse, By::InPlace}) {
    const auto walked = [&](int hz, double seconds, const std::function<void(const CharacterState&)>& see) {
      Profile profile;
      profile.ground.turn_rate = radians(90.0);
      profile.ground.facing = by == By::InPlace ? Facing::TurnInPlace : Facing::Travel;
      profile.look.dead_zone = 0.0;
      const TriangleWorld world = floor().world();
      return run(
          start_state(profile, Home{}, world), profile, world, hz, seconds,
          [&](double) {
            InputFrame input = push(by == By::InPlace ? -1.0 : 0.0, by == By::InPlace ? 1.0 : 0.8);
            if (by == By::InPlace) input.move = Vec2(-std::sqrt(0.5), std::sqrt(0.5));
            if (by == By::Rate) input.turn_rate = Vec2(radians(90.0), 0.0);
            if (by == By::Mouse) input.look_delta = Vec2(radians(90.0) / hz, 0.0);
            return input;
          },
          see);
    };
    std::map<long, Vec3> reference;  // By the 30th of a second.
    walked(480, 18.0, [&](const CharacterState& s) {
      if (s.tick % 16 == 0) reference[s.tick / 16] = s.foot_C;
    });
    double most = 0.0;
    walked(30, 18.0,
           [&](const CharacterState& s) { most = std::max(most, length(s.foot_C - reference.at(s.tick))); });
    INFO(int(by));
    CHECK(most < 1e-3);
    CHECK(most > 0.0);
  }
}

TEST_CASE("The eye catches up with steps and snaps from their instants on, at any tick rate") {
  Scene down = floor();
  for (int i = 0; i < 12; ++i) down.block({0, 0, 4 - 0.28 * i}, {3, 0.18 * (12 - i), 0.28});
  struct Stairs {
    Scene scene;
    Vec3 from;
    bool sprint;
  };
  const Scene up = std::move(floor().stairs({0, 0, -4}, 3, 0.18, 0.28, 12));
  const Scene kerb = std::move(floor().block({0, 0, -3}, {4, 0.3, 2}));
  const std::vector<Stairs> all = {
      {up, {0, 0, 0}, false}, {up, {0, 0, 0}, true}, {kerb, {0, 0, 0}, false}, {down, {0, 2.16, 4}, false}};
  const Profile profile;
  for (std::size_t s = 0; s < all.size(); ++s) {
    const TriangleWorld world = all[s].scene.world();
    const auto eyes = [&](int hz, double offset) {
      std::vector<double> heights;
      const Home home{all[s].from + Vec3(0, 0, offset), Quat(1, 0, 0, 0), 0.0};
      run(
          start_state(profile, home, world), profile, world, hz, 3.0,
          [&](double) { return all[s].sprint ? sprinting(0, 1) : push(0, 1); },
          [&](const CharacterState& state) {
            if (state.tick % static_cast<unsigned>(hz / kGrid) == 0)
              heights.push_back(state.foot_C.y + state.eye_offset);
          });
      return heights;
    };
    for (const double offset : {0.0, 0.041, 0.123}) {
      const std::vector<double> reference = eyes(kReference, offset);
      double climbed = 0.0;
      for (const double height : reference) climbed = std::max(climbed, std::abs(height - reference.front()));
      CHECK(climbed > 0.25);
      for (const int hz : {24, 36, 60, 120, 240}) {
        const std::vector<double> at = eyes(hz, offset);
        REQUIRE(at.size() == reference.size());
        double apart = 0.0;
        for (std::size_t i = 0; i < at.size(); ++i) apart = std::max(apart, std::abs(at[i] - reference[i]));
        INFO(s << ", " << hz << " ticks/s, " << offset);
        CHECK(apart < 0.03 * std::pow(24.0 / hz, 1.5));
      }
    }
  }
}

TEST_CASE("Who turns at full speed in the air flies along a circle, at any tick rate") {
  const TriangleWorld world = floor().world();
  for (const double faster : {1.0, 1.5}) {  // Than steering alone reaches: a run-up is kept.
    for (const int hz : tick_rates()) {
      INFO(faster << " times the speed, " << hz << " ticks/s");
      Profile profile;
      const double speed = faster * profile.air.speed, turning = 1.0;  // rad/s, to the left.
      CharacterState state = start_state(profile, {{0, 30, 0}, Quat(1, 0, 0, 0), 0.0}, world);
      state.velocity_C = {0, 0, -speed};
      state.run_up_speed = speed;
      for (int i = 1; i <= hz; ++i) {
        InputFrame input = push(0, 1);
        input.turn_rate = Vec2(turning, 0.0);
        state = step(state, input, profile, world, 1.0 / hz);
        const double angle = turning * i / hz, radius = speed / turning;
        const Vec3 off(state.foot_C.x + radius * (1.0 - std::cos(angle)), 0.0,
                       state.foot_C.z + radius * std::sin(angle));
        REQUIRE(length(off) < 1e-6);
      }
    }
  }
}

TEST_CASE(
    "Who jumps from a sprint and turns faster than the response can follow goes the same way at every rate") {
  const TriangleWorld world = floor().world();
  using Model = Response::Model;
  for (const Model model : {Model::Instant, Model::Steady, Model::Exponential, Model::Smooth}) {
    for (const double turn : {60.0, -160.0, 250.0}) {  // Degrees a second; sprinting is 1.6 times air.speed.
      Profile profile;
      profile.air.response.model = model;
      const auto flown = [&](int hz) {
        CharacterState start = start_state(profile, {{0, 30, 0}, Quat(1, 0, 0, 0), 0.0}, world);
        start.velocity_C = {0, 0, -profile.ground.sprint_speed};
        start.run_up_speed = profile.ground.sprint_speed;
        return run(start, profile, world, hz, 1.0, [&](double) { return turning(push(0.2, 1), turn); });
      };
      const Vec3 reference = flown(kReference).foot_C;
      for (const int hz : {12, 20, 24, 36, 60, 120, 240}) {
        INFO(int(model) << ", " << turn << " degrees/s, " << hz << " ticks/s");
        // A steady response that cannot keep up pursues what it has nearly met: that is met in steps.
        CHECK(length(flown(hz).foot_C - reference) < (model == Model::Steady ? 0.02 : 0.002));
      }
    }
  }
}

TEST_CASE("Turning in the air is the same at every tick rate, by each way of responding") {
  const TriangleWorld world = floor().world();
  using Model = Response::Model;
  for (const Model model : {Model::Steady, Model::Exponential, Model::Smooth}) {
    Profile profile;
    profile.air.response.model = model;
    const auto flown = [&](int hz) {
      const CharacterState start = start_state(profile, {{0, 30, 0}, Quat(1, 0, 0, 0), 0.0}, world);
      return run(start, profile, world, hz, 1.0,
                 [](double t) { return turning(t < 0.5 ? push(0, 1) : push(0, -0.3), 60.0); });
    };
    const Vec3 reference = flown(kReference).foot_C;
    for (const int hz : {24, 36, 60, 120, 240}) {
      INFO(int(model) << ", " << hz << " ticks/s");
      CHECK(length(flown(hz).foot_C - reference) < 0.001);
    }
  }
}

TEST_CASE(
    "A press acts at its very instant: jumps, cut jumps, late and early ones are the same at every rate") {
  // Odd times; a tap that lies within one tick at 12 and 24 ticks/s; a press just before landing, and one just
  // after the edge.
  const auto at = [](double time, std::optional<Vec2> move, bool down, bool up) {
    InputChange change;
    change.at = time;
    change.move = move;
    change.press.set(Action::Jump, down);
    change.release.set(Action::Jump, up);
    return change;
  };
  InputScript script;
  script.changes = {at(0.0, Vec2(0.2, 1.0), false, false),
                    at(0.2137, {}, true, false),
                    at(0.2309, {}, false, true),
                    at(0.7731, {}, true, false),
                    at(0.9502, {}, false, true),
                    at(1.35, {}, true, false),
                    at(1.41, {}, false, true),
                    at(2.0, Vec2(0.0), false, false)};
  Profile profile;
  profile.jump.lowest_share = 0.3;
  profile.jump.air_jumps = 1;
  const TriangleWorld world = floor().block({0, 0, 0}, {8, 2, 14}).world();
  const auto ran = [&](int hz) {
    std::vector<Vec3> feet;
    InputPlayer player(script, hz);
    CharacterState state = start_state(profile, {Vec3(0, 2, 2), Quat(1, 0, 0, 0), 0.0}, world);
    std::size_t jumps = 0;
    for (int i = 0; i < 3 * hz; ++i) {
      Ledger ledger;
      state = step(state, player.next(), profile, world, 1.0 / hz, &ledger);
      for (const LedgerEntry& e : ledger.entries) jumps += std::holds_alternative<entry::Jump>(e);
      if ((i + 1) % (hz / kGrid) == 0) feet.push_back(state.foot_C);
    }
    CHECK(jumps == 3);
    return feet;
  };
  const std::vector<Vec3> reference = ran(kReference);
  for (const int hz : {12, 24, 36, 60, 120, 240}) {
    INFO(hz << " ticks/s");
    CHECK(apart(ran(hz), reference) < 1e-3);
  }
  // A take of one rate, run again at another, keeps the instants.
  InputPlayer player(script, 24);
  std::vector<InputFrame> inputs;
  for (int i = 0; i < 72; ++i) inputs.push_back(player.next());
  for (const int hz : {30, 60, 480}) {
    const std::vector<InputFrame> other = inputs_at_rate(inputs, 24, hz);
    InputPlayer direct(script, hz);
    for (const InputFrame& frame : other) {
      const InputFrame expected = direct.next();
      CHECK(frame.held == expected.held);
      CHECK(frame.pressed == expected.pressed);
      for (std::size_t i = 0; i < kActionCount; ++i)
        CHECK(frame.pressed_at[i] == Approx(expected.pressed_at[i]).margin(2e-5));
      CHECK(frame.released_at[0] == Approx(expected.released_at[0]).margin(2e-5));
    }
  }
}
