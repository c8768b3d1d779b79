// SPDX-License-Identifier: MIT
// The same inputs on a common grid of 12 to the second give the same way at every tick rate: what happens within
// a tick happens at its instant.
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
  add({"off a ledge, slow", std::move(floor().block({0, 0, 0}, {8, 3, 2})), {0, 3, z}, 0, 3.0,
       [](int) { return push(0.0, 0.3); }});
  add({"off a ledge, aslant", std::move(floor().block({0, 0, 0}, {8, 3, 8})), {0, 3, z}, 0, 2.5, aslant});
  add({"off a turned ledge, stop", std::move(floor().block({0, 0, 0}, {8, 2, 8}, {33, 0, 0})), {0, 2, z}, 0, 3.0,
       stop_at(14, sprinting(0.1, 1.0))});
  add({"off the end of a ramp", std::move(floor().ramp({0, 0, -4}, {4, 2.3094, 4})), {0, 0, z}, 0, 3.0, ahead});
  add({"off the end of a ramp, sprint", std::move(floor().ramp({0, 0, -4}, {4, 2.3094, 4})), {0, 0, z + 1}, 0, 3.0,
       sprint});
  add({"over a crest", std::move(floor().ramp({0, 0, -4}, {4, 2.3094, 4}).block({0, 0, -9}, {4, 2.3094, 6})),
       {0, 0, z}, 0, 3.0, ahead});
  add({"down a ramp", std::move(floor().block({0, 0, 2}, {4, 2.3094, 4}).ramp({0, 0, -2}, {4, 2.3094, 4}, {180, 0, 0})),
       {0, 2.3094, 2 + z}, 0, 3.0, ahead});
  add({"down a ramp, sprint",
       std::move(floor().block({0, 0, 2}, {4, 2.3094, 4}).ramp({0, 0, -2}, {4, 2.3094, 4}, {180, 0, 0})),
       {0, 2.3094, 2 + z}, 0, 3.0, sprint, [](Profile& p) { p.ground.crest_angle = radians(20.0); }});
  add({"onto a box by a jump", std::move(floor().block({0, 0, -3}, {4, 0.8, 2})), {0, 0, z}, 0, 2.5,
       jump_at(5, push(0.0, 1.0))});
  add({"over a box by a jump", std::move(floor().block({0, 0, -3.5}, {4, 0.5, 1})), {0, 0, z}, 0, 2.5,
       jump_at(5, sprinting(0.2, 1.0))});
  add({"jump and stop", floor(), {0, 0, z}, 0, 2.0,
       [](int i) { return jumping(i < 9 ? push(0.0, 1.0) : push(0.0, 0.0), i == 4); }});
  add({"jump onto a ramp", std::move(floor().ramp({0, 0, -5}, {4, 2.3094, 4})), {0, 0, z}, 0, 2.5,
       jump_at(7, push(0.0, 1.0))});
  add({"jump down a ramp", std::move(floor().block({0, 0, 2}, {4, 2.3094, 4}).ramp({0, 0, -2}, {4, 2.3094, 4}, {180, 0, 0})),
       {0, 2.3094, 2 + z}, 0, 2.5, jump_at(6, push(0.0, 1.0))});
  add({"jump under a roof", std::move(floor().block({0, 2.2, -4}, {4, 0.3, 6})), {0, 0, z}, 0, 2.5,
       jump_at(9, push(0.0, 1.0))});
  add({"up stairs", std::move(floor().stairs({0, 0, -4}, 3, 0.18, 0.28, 12)), {0, 0, z}, 0, 3.0, ahead});
  add({"up stairs, sprint", std::move(floor().stairs({0, 0, -4}, 3, 0.18, 0.28, 12)), {0, 0, z}, 0, 3.0, sprint});
  add({"up steep stairs", std::move(floor().stairs({0, 0, -4}, 3, 0.32, 0.3, 8)), {0, 0, z}, 0, 3.0, sprint});
  add({"up stairs, aslant", std::move(floor().stairs({0, 0, -4}, 9, 0.18, 0.28, 12)), {0, 0, z}, 0, 3.0, aslant});
  add({"down stairs", std::move(floor().stairs({0, 0, -4}, 3, 0.18, 0.28, 12).block({0, 0, -8.7}, {3, 2.16, 6})),
       {0, 2.16, -8 + z}, 180, 3.0, ahead});
  add({"down stairs, sprint", std::move(floor().stairs({0, 0, -4}, 3, 0.18, 0.28, 12).block({0, 0, -8.7}, {3, 2.16, 6})),
       {0, 2.16, -8 + z}, 180, 3.0, sprint});
  add({"over a cliff, skid, run-out",
       std::move(floor().block({0, 0, 2}, {6, 4, 4}).ramp({0, 0, -1.6784}, {6, 4, 3.3568}, {180, 0, 0})),
       {0, 4, 1 + z}, 0, 3.5, ahead});
  add({"over a cliff, skid, stop",
       std::move(floor().block({0, 0, 2}, {6, 4, 4}).ramp({0, 0, -1.6784}, {6, 4, 3.3568}, {180, 0, 0})),
       {0, 4, 1 + z}, 0, 3.5, stop_at(10, push(0.3, 0.8))});
  add({"jump into a cliff, skid",
       std::move(floor().block({0, 0, 2}, {6, 4, 4}).ramp({0, 0, -1.6784}, {6, 4, 3.3568}, {180, 0, 0})),
       {0, 0, -7 + z}, 180, 3.0, jump_at(6, push(0.0, 1.0))});
  add({"drops that are followed and not", std::move(Scene().block({0, 0, 0}, {6, 2, 4}).block({0, 0, -3}, {6, 1.66, 2})
        .block({0, 0, -5}, {6, 1.30, 2}).floor()), {0, 2, z}, 0, 3.0, ahead});
  add({"out from under a roof", std::move(floor().block({0, 1.3, -1}, {4, 0.3, 3})), {0, 0, z}, 0, 3.0,
       [](int i) { return crouching(push(0.0, 1.0), i < 8); }});
  add({"over kerbs and a gap", std::move(Scene().block({0, -3, 2}, {6, 3, 6}).block({0, -3, -2.1}, {6, 3.2, 1.4})
        .block({0, -3, -4.2}, {6, 2.9, 1.6}).block({0, -6, 0}, {60, 3, 60})), {0, 0, 1 + z}, 0, 3.0, sprint});
  add({"into a wall and along", std::move(floor().block({0, 0, -3}, {12, 3, 0.4}, {25, 0, 0})), {0, 0, z}, 0, 2.5,
       sprint});
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

}  // namespace

TEST_CASE("the ledger of one walk", "[.one]") {
  const char* name = std::getenv("WALK");
  const int hz = std::atoi(std::getenv("HZ"));
  const int offset = std::atoi(std::getenv("OFFSET"));
  for (const Walk& walk : walks(0.037 * offset)) {
    if (std::string(walk.name) != name) continue;
    Profile profile;
    if (walk.values) walk.values(profile);
    const TriangleWorld world = walk.scene.world();
    CharacterState state = start_state(profile, {walk.foot, Quat(1.0, 0.0, 0.0, 0.0), radians(walk.yaw)}, world);
    for (int i = 0; i < static_cast<int>(walk.seconds * kGrid); ++i) {
      InputFrame input = walk.input(i);
      for (int k = 0; k < hz / kGrid; ++k) {
        Ledger ledger;
        state = step(state, input, profile, world, 1.0 / hz, &ledger);
        input.pressed = {};
        std::printf("%.4f foot %.4f %.4f %.4f v %.3f %.3f %.3f\n", state.time, state.foot_C.x, state.foot_C.y, state.foot_C.z,
                    state.velocity_C.x, state.velocity_C.y, state.velocity_C.z);
        for (const auto& e : ledger.entries) std::printf("      %s\n", to_sentence(e, world).c_str());
      }
    }
  }
  CHECK(true);
}

TEST_CASE("the same way at every rate: a table", "[.rates]") {
  const std::vector<int> rates = {12, 24, 36, 60, 120, 240};
  const int offsets = 7;
  std::vector<std::vector<Walk>> all;
  for (int i = 0; i < offsets; ++i) all.push_back(walks(0.037 * i));
  for (std::size_t w = 0; w < all[0].size(); ++w) {
    std::vector<double> worst(rates.size(), 0.0);
    for (int i = 0; i < offsets; ++i) {
      const std::vector<Vec3> reference = feet(all[i][w], kReference);
      for (std::size_t r = 0; r < rates.size(); ++r)
        worst[r] = std::max(worst[r], apart(feet(all[i][w], rates[r]), reference));
    }
    std::printf("%-34s", all[0][w].name);
    for (const double d : worst) std::printf(" %8.2f", d * 1000.0);
    std::printf("  mm\n");
  }
  CHECK(true);
}
