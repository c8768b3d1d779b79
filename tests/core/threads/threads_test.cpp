// SPDX-License-Identifier: MIT
// step() may be called by any number of threads at once, on one world and one profile, with guards in Lua: the
// same drive on four threads comes to the same bits as alone. A program of its own, for the thread sanitizer.
#include <cstdio>
#include <thread>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

TriangleWorld place() {
  return Scene()
      .floor()
      .block({0, 0, -4}, {4, 0.3, 2})
      .block({2, 0, -7}, {3, 2, 0.5}, {20, 0, 4})
      .stairs({-4, 0, -5}, 2, 0.17, 0.3, 6)
      .ramp({5, 0, -5}, {3, 2, 4})
      .world();
}

// A table whose guards are too rich to be plain: every thread has a Lua of its own.
Profile with_lua() {
  Profile profile;
  StateTable table = built_in_states();
  for (TransitionSpec& row : table.transitions) row.guard = "(function() return " + row.guard + " end)()";
  auto chart = StateChart::make(table);
  if (chart) profile.states = *chart;
  return profile;
}

CharacterState drive(const Profile& profile, const World& world, std::uint64_t seed) {
  Random random(seed);
  CharacterState state = standing_at(profile, {0, 0.1, 0});
  InputFrame input;
  for (int tick = 0; tick < 1200; ++tick) {
    if (tick % 20 == 0) input.move = Vec2(random.between(-1, 1), random.between(-1, 1));
    input.pressed = {};
    if (random.below(40) == 0) input.pressed.set(Action::Jump, true);
    if (random.below(60) == 0) input.pressed.set(Action::Lie, true);
    Ledger ledger;
    state = step(state, input, profile, world, 1.0 / 60, &ledger);
  }
  return state;
}

}  // namespace

int main() {
  const TriangleWorld world = place();
  const Profile profile = with_lua();
  if (profile.states == nullptr) return std::puts("the table in Lua is no chart"), 1;
  constexpr int kThreads = 4;
  CharacterState alone[kThreads], together[kThreads];
  for (int i = 0; i < kThreads; ++i) alone[i] = drive(profile, world, 10 + i);
  std::thread threads[kThreads];
  for (int i = 0; i < kThreads; ++i)
    threads[i] = std::thread([&, i] { together[i] = drive(profile, world, 10 + i); });
  for (std::thread& t : threads) t.join();
  int differ = 0;
  for (int i = 0; i < kThreads; ++i) {
    const CharacterState &a = alone[i], &b = together[i];
    differ += a.foot_C != b.foot_C || a.velocity_C != b.velocity_C || a.state != b.state;
    differ += length(a.foot_C) < 1.0;  // It went somewhere.
  }
  std::printf("%d of %d threads came to something else\n", differ, kThreads);
  return differ == 0 ? 0 : 1;
}
