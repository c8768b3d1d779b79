// SPDX-License-Identifier: MIT
#include <catch2/catch.hpp>
#include <cstring>
#include <nlohmann/json.hpp>
#include <set>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

template <typename Entry>
std::vector<Entry> entries_of(const Ledger& ledger) {
  std::vector<Entry> found;
  for (const LedgerEntry& e : ledger.entries) {
    if (const auto* entry = std::get_if<Entry>(&e)) found.push_back(*entry);
  }
  return found;
}

}  // namespace

TEST_CASE("The ledger says why a step was refused, with the numbers") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().block({0, 0, -2.5}, {4, 0.36, 4}).world();
  CharacterState state =
      run(standing_at(profile, {0, 0, 0}), profile, world, 60, 0.5, [](double) { return push(0, 1); });
  Ledger ledger;
  step(state, push(0, 1), profile, world, 1.0 / 60, &ledger);
  const auto steps = entries_of<entry::Step>(ledger);
  REQUIRE(steps.size() == 1);
  CHECK(steps[0].outcome == entry::Step::Outcome::TooHigh);
  CHECK(steps[0].highest == 0.34);
  CHECK(world.piece_name(steps[0].piece) == "piece 1");
}

TEST_CASE("A ledger changes nothing of the step") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().stairs({0, 0, -3}, 3, 0.18, 0.28, 6).world();
  CharacterState with = standing_at(profile, {0, 0, 0}), without = with;
  for (int i = 0; i < 300; ++i) {
    Ledger ledger;
    const InputFrame input = i % 70 == 0 ? press(Action::Jump) : push(0.1, 1);
    with = step(with, input, profile, world, 1.0 / 60, &ledger);
    without = step(without, input, profile, world, 1.0 / 60);
    CHECK(ledger.entries.size() >= 2);
    CHECK(with.foot_C == without.foot_C);
    CHECK(with.velocity_C == without.velocity_C);
  }
}

TEST_CASE("Every kind of entry becomes one JSON object with its kind") {
  const TriangleWorld world = Scene().floor().world();
  const std::vector<LedgerEntry> all = {
      entry::Reset{true},
      entry::Carry{0, Vec3(0, 0.02, 0), radians(1.5), false},
      entry::Push{0, Vec3(0.03, 0, 0), Vec3(0.0), Vec3(1, 0, 0), true},
      entry::PushOut{0.1, false, 0},
      entry::Intent{Vec3(1, 0, 0), 0.5},
      entry::StateChange{StateId::Walk, StateId::Fall},
      entry::Jump{entry::Jump::From::Ground, 0, 6.9, 1.2, 0.02, 0.0},
      entry::JumpRefused{entry::JumpRefused::Why::Skidding, 0.3, 0.1},
      entry::Sweep{Vec3(0.0), Vec3(1.0), 0.5, true, 0, Vec3(0.0), Vec3(0, 1, 0), Feature::Edge},
      entry::Slide{entry::Slide::Kind::Crease, Vec3(0.0), Vec3(0.0), 0.1, 0.9},
      entry::Step{entry::Step::Outcome::ShortTread, 0.2, 0.34, 0},
      entry::Probe{0.35, 0.1, true, Vec3(0.0), 0},
      entry::Judged{Verdict::Steep, radians(50.0), 0.1, 0},
      entry::Snap{0.05},
      entry::Crest{radians(70.0), radians(60.0), 6.0},
      entry::LeftGround{4.0, Vec3(0, 1, 0)},
      entry::JumpCut{4.0, 2.0},
      entry::HeadBump{3.0, 0.5},
      entry::StateLoop{StateId::Walk, StateId::Stand, built_in_chart(), 0},
      entry::ScriptFailed{"Walk to Glide:1: there is no signal 'wihs'"},
      entry::StanceWaits{entry::StanceWaits::Why::Ceiling, 1.8, 1.3, 0},
      entry::LieHeld{entry::LieHeld::Why::Drop},
      entry::RimHeld{Vec3(1, 0, 0), Vec3(0, 0, 1), 0.3, 0.25, 0.4, 0},
      entry::JumpWouldFall{Vec3(1, 0, 0), true, 6.0, 1.2, 0},
      entry::MantleBegun{Vec3(0, 1, 0), Vec3(0, 1, -1), 1.0, 0.6, false, true, 0},
      entry::MantleRefused{entry::MantleRefused::Why::TooHigh, 2.41, 2.3, Vec3(0, 2.41, 0), 0},
      entry::MantleBlocked{0.4, 0},
      entry::Caught{Vec3(0, 3, 0), Vec3(0, 1.1, 0.3), 2.1, 1.4, 0},
      entry::LetGo{entry::LetGo::Why::TooSteep, 0.8, 0.7, 0},
      entry::RimEnds{true, Vec3(0, 3, 0), 0},
      entry::Gripped{Vec3(0, 1, 0), Vec3(0, 0, 0.3), true, 0},
      entry::ClimbRefused{entry::ClimbRefused::Why::LeansOver, false, 0.8, 0.7, 0},
      entry::Exhausted{6, 0.05},
      entry::Instant{entry::Instant::Why::Contact, 0.004},
      entry::Landed{6.0, 4.0, 3.5},
      entry::Gravity{Vec3(0, -0.3, 0), 20.0, 50.0, 0.8},
      entry::Change{entry::Change::Why::Grip, Vec3(0.1, 0, 0)},
      entry::Pulled{Vec3(0, -9, 0), 0.1, {{{kBelowFields, 1.0}}}, 1},
      entry::Upright{0.2, 0.1, 0.1, true},
      entry::RunsOff{9.0, 8.9},
      entry::ZoneEntered{0},
      entry::ZoneLeft{0},
      entry::Thrown{0, Vec3(0.0), Vec3(0, 10, 0), Vec3(0, 2, -8), 3.0, 1.4, true, false},
      entry::ThrowWaits{0},
      entry::HomeMoved{0, Vec3(1, 0, 0)},
      entry::BarredFrom{0, StateId::Sprint, true, built_in_chart()}};
  REQUIRE(all.size() == std::variant_size_v<LedgerEntry>);
  std::set<std::string> kinds;
  for (const LedgerEntry& e : all) {
    const auto json = nlohmann::ordered_json::parse(to_json(e, world));
    CHECK(json.begin().key() == "kind");
    kinds.insert(json["kind"]);
    CHECK_FALSE(to_sentence(e, world).empty());
  }
  CHECK(kinds.size() == all.size());
  const auto verdict = nlohmann::json::parse(to_json(all[12], world));
  CHECK(verdict["angle_deg"].get<double>() == Approx(50.0));
  CHECK(verdict["ground"] == "steep");
  CHECK(verdict["piece"] == "piece 0");
  CHECK(to_sentence(entry::Step{entry::Step::Outcome::TooHigh, 0.36, 0.34, 0}, world) ==
        "step tried on \u201cpiece 0\u201d: rise 0.360 m > 0.340 m allowed, refused");
  CHECK(to_sentence(all[12], world) == "verdict: steep, 50.0\u00b0 on \u201cpiece 0\u201d");
  CHECK(is_refusal(all[10]));
  CHECK_FALSE(is_refusal(entry::Step{entry::Step::Outcome::Taken, 0.2, 0.34, 0}));
}

TEST_CASE("Every reason that refuses a jump is told in words of its own") {
  using Why = entry::JumpRefused::Why;
  const TriangleWorld world = Scene().floor().world();
  std::set<std::string> sentences, words;
  for (const Why why :
       {Why::NoGround, Why::AirJumpsUsed, Why::Skidding, Why::SameWall, Why::NoHeadRoom, Why::State}) {
    const entry::JumpRefused refused{why, 1e9, 0.12};
    sentences.insert(to_sentence(refused, world));
    words.insert(nlohmann::json::parse(to_json(refused, world))["why"]);
    CHECK(is_refusal(refused));
    CHECK_THAT(to_sentence(refused, world),
               Catch::StartsWith("jump refused: ") && Catch::EndsWith("remembered for 120 ms"));
  }
  CHECK(sentences.size() == 6);
  CHECK(words.size() == 6);
  CHECK(to_sentence(entry::JumpRefused{Why::NoGround, 0.2, 0.0}, world) ==
        "jump refused: the ground was left 200 ms ago, too long");
}
