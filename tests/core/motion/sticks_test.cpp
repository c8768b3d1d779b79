// SPDX-License-Identifier: MIT
// Sticks and looks act at the instants in which they move, within a tick too.
#include <catch2/catch.hpp>

#include "lagniappe/drive.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

constexpr double kSeconds = 3.0;
constexpr int kReference = 480;

// Keys that go down and up at odd instants: a stick that is out or not, in eight directions; now and then a
// turning stick, or a look that is set.
InputScript odd_script(std::uint64_t seed, bool turns) {
  Random random(seed);
  InputScript script;
  for (double at = 0.0137; at < kSeconds - 0.3; at += random.between(0.06, 0.4)) {
    InputChange change;
    change.at = at;
    change.move = Vec2(random.below(3) - 1, random.below(3) - 1);
    if (turns && random.below(3) == 0) change.turn = Vec2(random.between(-3.5, 3.5), 0.0);
    if (turns && random.below(5) == 0) change.look = Vec2(random.between(-3.0, 3.0), 0.1);
    script.changes.push_back(change);
  }
  return script;
}

// Where the foot is after each quarter of a second.
std::vector<Vec3> way(const std::vector<InputFrame>& inputs, int hz, const Profile& profile,
                      const World& world) {
  std::vector<Vec3> feet;
  CharacterState state = start_state(profile, Home{}, world);
  for (std::size_t i = 0; i < inputs.size(); ++i) {
    state = step(state, inputs[i], profile, world, 1.0 / hz);
    if ((i + 1) % std::size_t(hz / 4) == 0) feet.push_back(state.foot_C);
  }
  return feet;
}

double farthest(const std::vector<Vec3>& a, const std::vector<Vec3>& b) {
  REQUIRE(a.size() == b.size());
  double apart = 0.0;
  for (std::size_t i = 0; i < a.size(); ++i) apart = std::max(apart, length(a[i] - b[i]));
  return apart;
}

using By = Response::Model;
constexpr std::array kModels = {By::Instant, By::Steady, By::Exponential, By::Smooth};

}  // namespace

TEST_CASE("A key that goes down at an odd instant gives the way of its speed times its time") {
  // Instant response: the way is a sum that anyone can do. x is right, -z forward.
  const TriangleWorld world = Scene().floor().world();
  Profile profile;
  profile.ground.response.model = By::Instant;
  for (std::uint64_t seed = 1; seed <= 10; ++seed) {
    const InputScript script = odd_script(seed, false);
    Vec3 expected(0.0);
    for (std::size_t i = 0; i < script.changes.size(); ++i) {
      const double until = i + 1 < script.changes.size() ? script.changes[i + 1].at : kSeconds;
      const Vec2 move = *script.changes[i].move;
      const double size = std::max(glm::length(move), 1.0);
      expected += Vec3(move.x, 0.0, -move.y) / size * profile.ground.speed * (until - script.changes[i].at);
    }
    for (const int hz : {12, 20, 24, 60, 144, 240}) {
      INFO("seed " << seed << ", " << hz << " ticks/s");
      const std::vector<Vec3> feet = way(frames_of(script, hz, kSeconds), hz, profile, world);
      CHECK(length(feet.back() - expected) < 1e-6);
    }
  }
}

TEST_CASE(
    "Sticks that move and turn at odd instants give the same way at any tick rate, however one responds") {
  const TriangleWorld world = Scene().floor().world();
  for (const By model : kModels) {
    Profile profile;
    profile.ground.response.model = model;
    for (std::uint64_t seed = 1; seed <= 6; ++seed) {
      const InputScript script = odd_script(seed, true);
      const auto reference = way(frames_of(script, kReference, kSeconds), kReference, profile, world);
      for (const int hz : {12, 20, 24, 60, 144, 240}) {
        INFO("model " << int(model) << ", seed " << seed << ", " << hz << " ticks/s");
        // A steady one pursues what turns: that has no closed form.
        CHECK(farthest(way(frames_of(script, hz, kSeconds), hz, profile, world), reference) <
              (model == By::Steady ? 3e-3 : 3e-4));
      }
    }
  }
}

TEST_CASE("A take goes the same way at any other rate, though its keys go down within those ticks") {
  // 60 ticks/s, whole ticks: at 20, 24, 36 a key goes down within a tick. A mean push for that tick would start
  // a steady response by up to a tick too soon, and the dead zone would take too much of it.
  const TriangleWorld world = Scene().floor().world();
  for (const By model : kModels) {
    Profile profile;
    profile.ground.response.model = model;
    for (std::uint64_t seed = 1; seed <= 6; ++seed) {
      std::vector<InputFrame> inputs;
      Random random(seed);
      InputFrame now;
      for (int i = 0; i < int(60 * kSeconds); ++i) {
        if (random.below(15) == 0) now.move = Vec2(random.below(3) - 1, random.below(3) - 1);
        inputs.push_back(now);
      }
      const auto reference = way(inputs_at_rate(inputs, 60, kReference), kReference, profile, world);
      for (const int hz : {12, 20, 24, 36, 60, 144, 240}) {
        INFO("model " << int(model) << ", seed " << seed << ", " << hz << " ticks/s");
        CHECK(farthest(way(inputs_at_rate(inputs, 60, hz), hz, profile, world), reference) < 1e-4);
        // There and back again nothing is lost.
        const auto back = inputs_at_rate(inputs_at_rate(inputs, 60, kReference), kReference, 60);
        for (std::size_t i = 0; i < inputs.size(); ++i) REQUIRE(back[i].move == inputs[i].move);
      }
    }
  }
}

TEST_CASE("A pad that tells 120 times a second where its stick is goes the same way at 20 ticks/s as at 480") {
  const TriangleWorld world = Scene().floor().world();
  for (const By model : kModels) {
    Profile profile;
    profile.ground.response.model = model;
    std::vector<InputFrame> inputs;
    Random random(7);
    Vec2 stick(0.0), goal(0.0);
    for (int i = 0; i < int(kReference * kSeconds); ++i) {
      InputFrame input;
      // From one place to another within some 60 ms.
      if (i % 60 == 0)
        goal = random.below(4) == 0 ? Vec2(0.0) : Vec2(random.between(-1, 1), random.between(-1, 1));
      if (i % 4 == 0) stick += (goal - stick) * 0.4;
      input.move = stick;
      inputs.push_back(input);
    }
    const auto reference = way(inputs, kReference, profile, world);
    for (const int hz : {20, 24, 60, 144}) {
      INFO("model " << int(model) << ", " << hz << " ticks/s");
      CHECK(farthest(way(inputs_at_rate(inputs, kReference, hz), hz, profile, world), reference) < 1e-4);
    }
  }
}

TEST_CASE("A stick that moves oftener than a tick can hold keeps its mean, and the greatest of its moves") {
  for (std::uint64_t seed = 1; seed <= 200; ++seed) {
    Random random(seed);
    std::vector<SticksUntil> parts;
    Vec2 moved(0.0), turned(0.0);
    double since = 0.0;
    const int count = 1 + random.below(20), leap = random.below(count);
    for (int i = 0; i < count; ++i) {
      // Slowly out to the right, and once far forward.
      const SticksUntil part{{0.03 * i, i >= leap ? 1.0 : 0.0}, {0.01 * i, 0.0}, float(i + 1) / float(count)};
      moved += part.move * (double(part.until) - since);
      turned += part.turn_rate * (double(part.until) - since);
      since = part.until;
      parts.push_back(part);
    }
    InputFrame frame;
    set_sticks(parts, frame);
    Vec2 kept(0.0);
    int leaps = 0, kept_parts = 0;
    for (double share = 0.0; share < 1.0; ++kept_parts) {
      const SticksUntil now = sticks_at(frame, share);
      kept += now.move * (double(now.until) - share);
      REQUIRE(double(now.until) > share);
      share = now.until;
      if (leap > 0 && share == double(float(leap) / float(count))) ++leaps;
      CHECK((now.move.y == Approx(0.0).margin(1e-9) || now.move.y == Approx(1.0)));
    }
    INFO("seed " << seed << ", " << count << " parts");
    CHECK(kept_parts == std::min(count, kMostEarlierSticks + 1));
    CHECK(length(kept - moved) < 1e-6);
    CHECK(leaps == (leap > 0 ? 1 : 0));
    CHECK(length(turned_until(frame, 1.0, 0.05) - turned * 0.05) < 1e-7);
  }
}

TEST_CASE("What is turned up to an instant in a tick is what the character has turned by then") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().world();
  InputFrame input;
  input.look_delta = Vec2(0.2, 0.1);
  set_sticks(std::vector<SticksUntil>{{{0, 1}, {1.0, 0.0}, 0.25f}, {{1, 0}, {-2.0, 0.5}, 1.0f}}, input);
  CHECK(turned_until(input, 0.25, 0.1).x == Approx(0.05 + 0.025));
  CHECK(turned_until(input, 0.75, 0.1).x == Approx(0.15 + 0.025 - 0.1));
  const Vec2 all = turned_until(input, 1.0, 0.1);
  CHECK(turned_until(input, 1.0 + 1e-9, 0.1) == all);  // A blend that rounding leaves above 1.
  const CharacterState after = step(start_state(profile, Home{}, world), input, profile, world, 0.1);
  CHECK(after.yaw == Approx(all.x));
  CHECK(after.pitch == Approx(all.y));
  // A look that is set within the tick overrules what was turned before.
  input.look = Vec2(1.0, 0.0);
  input.look_at = 0.25f;
  const CharacterState set = step(start_state(profile, Home{}, world), input, profile, world, 0.1);
  CHECK(set.yaw == Approx(1.0 + all.x - turned_until(input, 0.25, 0.1).x));
}

TEST_CASE("The ledger tells when in a tick the stick moved, and says nothing where it did not") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().world();
  InputFrame input = push(0, 1);
  const auto told = [&] {
    Ledger ledger;
    step(start_state(profile, Home{}, world), input, profile, world, 0.05, &ledger);
    std::vector<double> at;
    for (const LedgerEntry& e : ledger.entries) {
      const auto* instant = std::get_if<entry::Instant>(&e);
      if (instant != nullptr && instant->why == entry::Instant::Why::Stick) at.push_back(instant->at);
    }
    return at;
  };
  CHECK(told().empty());
  input.earlier[0] = {Vec2(0.0), Vec2(0.0), 0.5f};
  REQUIRE(told().size() == 1);
  CHECK(told()[0] == Approx(0.025));
  input.earlier[0].move = input.move;  // Only the look stick moved.
  input.earlier[0].turn_rate = Vec2(1.0, 0.0);
  CHECK(told().empty());
}

TEST_CASE("Shares that make no sense do no harm") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().world();
  for (const float until : {-1.0f, 0.0f, 1.0f, 7.0f, std::numeric_limits<float>::quiet_NaN(),
                            std::numeric_limits<float>::infinity()}) {
    InputFrame odd = push(0, 1);
    odd.earlier[0] = {Vec2(1.0, 0.0), Vec2(3.0, 0.0), until};
    odd.look_at = until;
    CHECK(undivided_hash(step(start_state(profile, Home{}, world), odd, profile, world, 0.05)) ==
          undivided_hash(step(start_state(profile, Home{}, world), push(0, 1), profile, world, 0.05)));
  }
  InputFrame falling = push(0, 1);
  falling.earlier = {
      {{Vec2(1, 0), Vec2(0.0), 0.6f}, {Vec2(-1, 0), Vec2(0.0), 0.3f}, {Vec2(0, -1), Vec2(0.0), 0.9f}}};
  InputFrame meant = push(0, 1);
  meant.earlier = {{{Vec2(1, 0), Vec2(0.0), 0.6f}, {Vec2(0, -1), Vec2(0.0), 0.9f}}};
  const CharacterState a = step(start_state(profile, Home{}, world), falling, profile, world, 0.05),
                       b = step(start_state(profile, Home{}, world), meant, profile, world, 0.05);
  CHECK(length(a.foot_C - b.foot_C) < 1e-9);
}
