// SPDX-License-Identifier: MIT
// What rims cost:
//   tick_mantle       a tick that asks whether one could mantle, and one on the way
//   tick_hold         a tick that hangs still and along a rim, and one that climbs still, up and along a wall
//   find_ledge        one question about a wall of 1.5 m, and about one that is too high
//   tick_at_rim       a tick on a roof: unguarded, guarded away from rims, along a rim, into a corner, and
//   where a hole's corner is rounded
#include <benchmark/benchmark.h>

#include "lagniappe/lagniappe.h"
#include "lagniappe/ledge.h"

namespace {

using namespace lagniappe;

TriangleWorld roof() {
  Course course;
  const auto block = [&](const char* id, const Vec3& at, const Vec3& size) {
    course.pieces.push_back({id, at, Vec3(0.0), "", shape::Block{size}});
  };
  block("floor", {0, -1, 0}, {60, 1, 60});
  block("north", {0, 0, -4}, {12, 1.5, 6});
  block("south", {0, 0, 4}, {12, 1.5, 6});
  block("west", {-3.5, 0, 0}, {5, 1.5, 2});
  block("east", {3.5, 0, 0}, {5, 1.5, 2});
  block("tower", {20, 0, 0}, {4, 6, 4});
  course.surfaces.push_back({"ivy", {.climbable = true}});
  course.pieces.push_back({"ivy", {-20, 0, 0}, Vec3(0.0), "ivy", shape::Block{{4, 6, 4}}});
  course.pieces.push_back({"ladder", {-28, 0, 2.0}, Vec3(0.0), "", shape::Ladder{0.5, 6.0, 0.3}});
  course.limits = Box{Vec3(-100.0), Vec3(100.0)};
  return build_world(course);
}
const TriangleWorld& world() {
  static const TriangleWorld kWorld = roof();
  return kWorld;
}

void find_ledge_bench(benchmark::State& state) {
  LedgeQuery query;
  query.up_C = Vec3(0, 1, 0);
  query.foot_C = state.range(0) != 0 ? Vec3(17.5, 0, 0) : Vec3(1, 0, 7.5);
  query.towards_C = state.range(0) != 0 ? Vec3(1, 0, 0) : Vec3(0, 0, -1);
  const bool found = find_ledge(world(), query).ledge.has_value();
  if (found != (state.range(0) == 0)) state.SkipWithError("not what was to be found");
  for (auto _ : state) benchmark::DoNotOptimize(find_ledge(world(), query));
}

struct Walk {
  const char* name;
  bool guarded;
  Vec3 from;
  Vec2 push;
};
constexpr Walk kWalks[] = {{"unguarded", false, {-3.5, 1.5, 5}, {0, 0.5}},
                           {"no rim near", true, {-3.5, 1.5, 5}, {0, 0.5}},
                           {"along a rim", true, {-5.75, 1.5, 6.5}, {-0.7, 0.7}},
                           {"into a corner", true, {-5.75, 1.5, 6.75}, {-0.7, -0.7}},
                           {"round a hole's corner", true, {-0.95, 1.5, 1.25}, {-0.5, 0.86}}};

// The same tick over and over: after so long that it walks.
void tick_bench(benchmark::State& state) {
  const Walk& walk = kWalks[state.range(0)];
  Profile profile;
  if (walk.guarded) profile.ledge.guard = Profile::Ledge::Guard::Walk;
  constexpr double kTick = 1.0 / 60.0;
  InputFrame input;
  CharacterState at = start_state(profile, {walk.from, Quat(1, 0, 0, 0), 0.0}, world());
  for (int i = 0; i < 12; ++i) {
    if (i == 6) input.move = walk.push;
    at = step(at, input, profile, world(), kTick);
  }
  for (auto _ : state) benchmark::DoNotOptimize(step(at, input, profile, world(), kTick));
  state.SetLabel(walk.name);
}

// Mantling: what asking costs in every tick, and being on the way.
struct Ask {
  const char* name;
  Values::Mantle::Start start;
  Vec3 from;
  Vec2 push;
  double yaw;
  bool holds;
};
constexpr Ask kAsks[] = {
    {"never", Values::Mantle::Start::Never, {1, 0, 20}, {0, 1}, 0.0, false},
    {"always, nothing near", Values::Mantle::Start::Always, {1, 0, 20}, {0, 1}, 0.0, false},
    {"against a wall, never", Values::Mantle::Start::Never, {17.65, 0, 0}, {1, 0}, 0.0, false},
    {"against a wall, by the stick, too high", Values::Mantle::Start::Stick, {17.65, 0, 0}, {1, 0}, 0.0, false},
    {"on the way", Values::Mantle::Start::Always, {1, 0, 7.4}, {0, 1}, 0.0, true}};

void mantle_bench(benchmark::State& state) {
  const Ask& ask = kAsks[state.range(0)];
  Profile profile;
  profile.mantle.start = ask.start;
  constexpr double kTick = 1.0 / 60.0;
  InputFrame input;
  input.move = ask.push;
  CharacterState at = start_state(profile, {ask.from, Quat(1, 0, 0, 0), ask.yaw}, world());
  for (int i = 0; i < 8; ++i) at = step(at, input, profile, world(), kTick);
  if (at.holding() != ask.holds) state.SkipWithError("not what was to be measured");
  for (auto _ : state) benchmark::DoNotOptimize(step(at, input, profile, world(), kTick));
  state.SetLabel(ask.name);
}

struct Holding {
  const char* name;
  Hold::Kind kind;
  Vec3 from;
  Vec2 push;
};
constexpr Vec3 kBelowRim{20, 4.2, 2.4}, kAtWall{-20, 2.5, 2.4}, kAtLadder{-28, 2.5, 2.4};
constexpr Holding kHoldings[] = {{"hangs", Hold::Kind::Hang, kBelowRim, {0, 0}},
                                 {"hangs, along", Hold::Kind::Hang, kBelowRim, {1, 0}},
                                 {"climbs, still", Hold::Kind::Climb, kAtWall, {0, 0}},
                                 {"climbs, up", Hold::Kind::Climb, kAtWall, {0, 1}},
                                 {"climbs, along", Hold::Kind::Climb, kAtWall, {1, 0}},
                                 {"on a ladder, still", Hold::Kind::Climb, kAtLadder, {0, 0}},
                                 {"on a ladder, up", Hold::Kind::Climb, kAtLadder, {0, 1}}};

void hold_bench(benchmark::State& state) {
  const Holding& holding = kHoldings[state.range(0)];
  Profile profile;
  profile.hang.grasps = Values::Hang::Catch::Falling;
  profile.climb.grip = Values::Climb::Grip::Always;
  constexpr double kTick = 1.0 / 60.0;
  CharacterState at = start_state(profile, {holding.from, Quat(1, 0, 0, 0), 0.0}, world());
  InputFrame input;
  for (int i = 0; i < 20; ++i) at = step(at, input, profile, world(), kTick);
  if (at.hold.kind != holding.kind) state.SkipWithError("not what was to be measured");
  input.move = holding.push;
  for (auto _ : state) benchmark::DoNotOptimize(step(at, input, profile, world(), kTick));
  state.SetLabel(holding.name);
}

BENCHMARK(hold_bench)->Name("tick_hold")->DenseRange(0, std::size(kHoldings) - 1);
BENCHMARK(mantle_bench)->Name("tick_mantle")->DenseRange(0, std::size(kAsks) - 1);
BENCHMARK(find_ledge_bench)->Name("find_ledge")->ArgName("too_high")->Arg(0)->Arg(1);
BENCHMARK(tick_bench)->Name("tick_at_rim")->DenseRange(0, std::size(kWalks) - 1);

}  // namespace
