// SPDX-License-Identifier: MIT
// What states cost:
//   guard        one guard of the built-in table, or of its kind, worked out on a walking character
//   guard_in_lua the same guard when it has to run in Lua, and an action of one line
//   tick         a walking tick: with no table to speak of, with the built-in one, and in a state that a script
//   moves
// Each guard is checked to come to what is expected.
#include <benchmark/benchmark.h>

#include "lagniappe/lagniappe.h"
#include "places.h"
#include "states/guards.h"

namespace {

using namespace lagniappe;
using namespace lagniappe::bench;

struct Scene {
  Course course = demo_course();
  TriangleWorld world = build_world(course);
  Home home = start_home(course);
};
const Scene& scene() {
  static const Scene kScene;
  return kScene;
}

InputFrame walking() {
  InputFrame input;
  input.move = Vec2(0.2, 0.9);
  input.held.set(Action::Sprint, true);
  return input;
}

struct Asked {
  const char* guard;
  bool holds;
};
constexpr Asked kPlain[] = {{"intent > 0.02", true},
                            {"not grounded and rise_speed > 0", false},
                            {"not crouch.held and intent > 0.02 and sprint.held", true},
                            {"grounded and skid_over and crouch.held", false},
                            {"ground_speed < 1.2 or state_time > 1.5", true},
                            {"memory.fuel + dt > 0.5 * slope", true}};
constexpr Asked kInLua[] = {{"math.abs(intent_right) < 0.5 and grounded", true},
                            {"({1, 2})[1] == 1 and intent > 0.02", true}};
constexpr Asked kLooking[] = {{"can_stand", true}, {"drop_ahead < 1", true}};

// Of the tables above one after another, so that their order in the names stays.
Asked asked(std::int64_t n) {
  constexpr auto plain = std::int64_t(std::size(kPlain)), lua = std::int64_t(std::size(kInLua));
  return n < plain ? kPlain[n] : n < plain + lua ? kInLua[n - plain] : kLooking[n - plain - lua];
}

void guard_bench(benchmark::State& state) {
  const Asked a = asked(state.range(0));
  const auto scripts = std::make_shared<ScriptSet>();
  scripts->memory = {"fuel"};
  const auto guard = Guard::make(a.guard, "bench", scripts);
  const Profile profile;
  CharacterState character = start_state(profile, scene().home, scene().world);
  character.memory[0] = 1.0f;
  const InputFrame input = walking();
  const SignalView view{character, character, input, profile, scene().world, 1.0 / 60.0, {0.0}};
  std::string error;
  bool right = true;
  for (auto _ : state) {
    const bool holds = (*guard)->holds(view, error);
    benchmark::DoNotOptimize(holds);
    right = right && holds == a.holds;
  }
  if (!right || !error.empty()) state.SkipWithError("the guard does not come to what it should");
  state.SetLabel(a.guard);
}

enum Table : int { None = 0, BuiltIn = 1, Scripted = 2 };

Profile with_table(int which) {
  Profile profile;
  if (which == BuiltIn) return profile;
  StateTable table;
  StateSpec state;
  state.name = "Walk";
  if (which == Scripted) {
    state.behaviour = Behaviour::Script;
    state.script =
        "if intent > 0.5 then steer(intent_forward, intent_right * 0.9) end\nmemory.fuel = memory.fuel + dt";
    table.memory = {"fuel"};
  }
  table.states = {state};
  profile.states = StateChart::make(table).value();
  return profile;
}

void tick_bench(benchmark::State& state) {
  const Profile profile = with_table(int(state.range(0)));
  const CharacterState start = start_state(profile, scene().home, scene().world);
  CharacterState character = start;
  InputFrame input = walking();
  std::size_t ticks = 0, grounded = 0;
  for (auto _ : state) {
    if (++ticks % 120 == 0) character = start;  // Up and down the open quay, not into its corners.
    input.held.set(Action::Sprint, ticks % 60 < 30);
    character = step(character, input, profile, scene().world, 1.0 / 60.0);
    grounded += character.grounded();
  }
  if (state.iterations() > 1000 && grounded < ticks / 2)
    state.SkipWithError("it was hardly ever on the ground");
  state.SetLabel(state.range(0) == None      ? "a table of one state"
                 : state.range(0) == BuiltIn ? "built-in"
                                             : "script");
}

}  // namespace

BENCHMARK(guard_bench)->Name("guard")->DenseRange(0, std::size(kPlain) - 1);
BENCHMARK(guard_bench)
    ->Name("guard_in_lua")
    ->DenseRange(std::size(kPlain), std::size(kPlain) + std::size(kInLua) - 1);
BENCHMARK(guard_bench)
    ->Name("guard_that_looks_around")
    ->DenseRange(std::size(kPlain) + std::size(kInLua),
                 std::size(kPlain) + std::size(kInLua) + std::size(kLooking) - 1);
BENCHMARK(tick_bench)->Name("tick_by_table")->DenseRange(None, Scripted);
