// SPDX-License-Identifier: MIT
// Where each usual way to ask for ground goes wrong, in places whose truth is plain.
#include "lagniappe/ground_probes.h"

#include <catch2/catch.hpp>

#include "support/driven.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

const Profile kProfile;

std::vector<CharacterState> driven(const TriangleWorld& world, const Home& home, const InputFrame& input,
                                   double seconds, int hz = 60) {
  std::vector<CharacterState> states = {start_state(kProfile, home, world)};
  run(
      states.front(), kProfile, world, hz, seconds, [&](double) { return input; },
      [&](const CharacterState& s) { states.push_back(s); });
  return states;
}

ProbeAnswer ask(GroundProbe probe, const CharacterState& now, const TriangleWorld& world) {
  return ask_for_ground(probe, now, now, 1.0 / 60, kProfile, world);
}

std::array<ProbeLane, kGroundProbes> over(const std::vector<CharacterState>& states,
                                          const TriangleWorld& world) {
  return ask_over_run([&](std::size_t i) -> const CharacterState& { return states[i]; }, states.size(), 60,
                      kProfile, world);
}

const ProbeLane& lane(const std::array<ProbeLane, kGroundProbes>& lanes, GroundProbe probe) {
  return lanes[std::size_t(probe)];
}

}  // namespace

TEST_CASE(
    "On a floor, however it lies, all but those that ask the last move say ground, with distance and normal") {
  for (const Frame& frame : frames()) {
    const TriangleWorld world = Scene().floor().world(frame);
    CharacterState state = standing_at(kProfile, Vec3(0.0), 0.0, frame);
    for (std::size_t p = 0; p < kGroundProbes; ++p) {
      const auto probe = GroundProbe(p);
      const ProbeAnswer answer = ask(probe, state, world);
      INFO(frame.name << ", " << ground_probes()[p].name);
      if (probe == GroundProbe::LastNormal || probe == GroundProbe::Mover) continue;
      CHECK(answer.ground);
      CHECK(length(answer.normal_C - frame.vector({0, 1, 0})) < 1e-6);
      if (answer.distance) CHECK(*answer.distance == Approx(0.0).margin(1e-3));
      CHECK(length(answer.from_C - state.foot_C) < 2.0);
    }
    // Two metres up nothing does; half a metre up the long ray alone.
    CharacterState high = state;
    high.foot_C = frame.point({0, 2, 0});
    for (std::size_t p = 0; p < kGroundProbes; ++p) CHECK_FALSE(ask(GroundProbe(p), high, world).ground);
    high.foot_C = frame.point({0, 0.5, 0});
    for (std::size_t p = 0; p < kGroundProbes; ++p) {
      const ProbeAnswer answer = ask(GroundProbe(p), high, world);
      CHECK(answer.ground == (GroundProbe(p) == GroundProbe::LongRay));
      if (answer.ground) CHECK(*answer.distance == Approx(0.5).margin(1e-6));
    }
  }
}

TEST_CASE("A ray misses the ground where the middle is over an edge; a ball takes a wall for ground") {
  const TriangleWorld edge = Scene().block({0, -3, 0}, {2, 3, 2}).world();
  const CharacterState over = driven(edge, Home{{1.1, 0, 0}}, {}, 0.5).back();
  REQUIRE(over.grounded());
  CHECK_FALSE(ask(GroundProbe::ShortRay, over, edge).ground);
  CHECK_FALSE(ask(GroundProbe::CentreRay, over, edge).ground);
  CHECK(ask(GroundProbe::BallOverlap, over, edge).ground);
  const TriangleWorld wall = Scene().block({0.75, -5, 0}, {1, 10, 10}).world();
  CharacterState beside = standing_at(kProfile, Vec3(0.0));
  CHECK(ask(GroundProbe::BallOverlap, beside, wall).ground);
  CHECK_FALSE(ask(GroundProbe::ShortRay, beside, wall).ground);
  CHECK_FALSE(ask(GroundProbe::ContactNormals, beside, wall).ground);
}

TEST_CASE("Over a run: down stairs the short ray and the last normal flicker, the solver does not") {
  const TriangleWorld world = Scene().floor().stairs({0, 0, 0}, 4.0, 0.2, 0.3, 20).world();
  // Down them: they rise towards -Z.
  const auto states = driven(world, Home{{0, 4.0, -2.9}, Quat(1, 0, 0, 0), kPi}, push(0, 1), 2.0);
  for (std::size_t i = 1; i < states.size(); ++i) REQUIRE(states[i].grounded());
  const auto lanes = over(states, world);
  for (const ProbeLane& l : lanes) {
    CHECK(l.ground.size() == states.size());
    CHECK(l.seconds > 0.0);
    CHECK(l.flickers <= l.disagrees + states.size() / 2);
  }
  CHECK(lane(lanes, GroundProbe::LongRay).disagrees == 0);
  CHECK(lane(lanes, GroundProbe::LongRay).flickers == 0);
  CHECK(lane(lanes, GroundProbe::LastNormal).disagrees > 10);
  CHECK(lane(lanes, GroundProbe::ContactNormals).disagrees > 0);
}

TEST_CASE("In a jump the long ray says ground before and after, and the lanes count that") {
  const TriangleWorld world = Scene().floor().world();
  Driven d{Scene().floor().world()};
  d.go(0.2, {});
  std::vector<CharacterState> states = {d.state};
  d.tap(Action::Jump);
  states.push_back(d.state);
  for (int i = 0; i < 70; ++i) {
    d.go(1.0 / 60, {});
    states.push_back(d.state);
  }
  const auto lanes = over(states, world);
  std::size_t in_air = 0, below_a_metre = 0;
  for (std::size_t i = 1; i < states.size(); ++i) {
    if (states[i].grounded()) continue;
    ++in_air;
    below_a_metre += states[i].foot_C.y < 1.0;
  }
  REQUIRE(in_air > 20);
  CHECK(lane(lanes, GroundProbe::LongRay).disagrees == below_a_metre);
  CHECK(lane(lanes, GroundProbe::ContactNormals).disagrees == 0);
}

TEST_CASE("A short answer is a flicker only while the solver keeps to its own") {
  const TriangleWorld world = Scene().floor().world();
  std::vector<CharacterState> states(60, start_state(kProfile, Home{}, world));
  for (CharacterState& s : states) s.foot_C.y = 0.0;
  // For two ticks the body is where a short ray does not reach, and nobody noticed.
  states[30].foot_C.y = states[31].foot_C.y = 0.3;
  auto lanes = over(states, world);
  CHECK(lane(lanes, GroundProbe::ShortRay).flickers == 1);
  CHECK(lane(lanes, GroundProbe::ShortRay).disagrees == 2);
  for (const std::size_t i : {30, 31}) states[i].ground.verdict = Verdict::None;
  lanes = over(states, world);
  CHECK(lane(lanes, GroundProbe::ShortRay).flickers == 0);
  CHECK(lane(lanes, GroundProbe::ShortRay).disagrees == 0);
  // Given up, it asks no further.
  std::vector<CharacterState> many(9000, states.front());
  int asked = 0;
  ask_over_run([&](std::size_t i) -> const CharacterState& { return many[i]; }, many.size(), 60, kProfile,
               world, {}, [&] { return ++asked < 2; });
  CHECK(asked == 2);
}
