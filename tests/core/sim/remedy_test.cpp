// SPDX-License-Identifier: MIT
// From a refusal to the value that refused: what is said to be enough is, on a run of its own, and a little
// less is not.
#include "lagniappe/remedy.h"

#include <catch2/catch.hpp>

#include "lagniappe/lagniappe.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

struct Refused {
  CharacterState before;
  InputFrame input;
  LedgerEntry entry;
};

// Drives until `wanted` stands in the ledger as a refusal.
template <typename Entry>
std::optional<Refused> drive_to(const World& world, const Profile& profile, const Vec3& at, InputFrame input,
                                int rate, int jump_at = -1) {
  CharacterState state = standing_at(profile, at);
  for (int tick = 0; tick < 4 * rate; ++tick) {
    input.pressed = {};
    if (tick == jump_at) input.pressed.set(Action::Jump, true);
    Ledger ledger;
    const CharacterState before = state;
    state = step(before, input, profile, world, 1.0 / rate, &ledger);
    for (const LedgerEntry& entry : ledger.entries)
      if (std::holds_alternative<Entry>(entry) && is_refusal(entry)) return Refused{before, input, entry};
  }
  return std::nullopt;
}

// Whether the tick refuses the same under another value.
bool refuses(const Refused& r, const Profile& profile, const World& world, int rate) {
  Ledger ledger;
  step(r.before, r.input, profile, world, 1.0 / rate, &ledger);
  return std::any_of(ledger.entries.begin(), ledger.entries.end(),
                     [&](const LedgerEntry& e) { return e.index() == r.entry.index() && is_refusal(e); });
}

Profile with(Profile profile, const char* path, double value) {
  find_field(path)->set_typed(profile, value);
  return profile;
}

InputFrame forward() { return push(0.0, 1.0); }

}  // namespace

TEST_CASE("A kerb that is too high: its own height would have been enough, at every tick rate") {
  for (const double kerb : {0.3607, 0.4419, 1.2003}) {
    const TriangleWorld world = Scene().floor().block({0, 0, -5}, {20, kerb, 4}).world();
    for (const int rate : {20, 60, 144, 240}) {
      const Profile profile;
      const auto refused = drive_to<entry::Step>(world, profile, Vec3(0.0), forward(), rate);
      REQUIRE(refused);
      const auto remedy =
          remedy_of(refused->entry, refused->before, refused->input, profile, world, 1.0 / rate);
      REQUIRE(remedy);
      CHECK(remedy->path == "ground.highest_step");
      CHECK_FALSE(remedy->state);
      REQUIRE(remedy->enough);
      CHECK(*remedy->enough >= kerb - 1e-6);
      CHECK(*remedy->enough < kerb + 2.1e-3);
      CHECK_FALSE(refuses(*refused, with(profile, "ground.highest_step", *remedy->enough), world, rate));
      CHECK(refuses(*refused, with(profile, "ground.highest_step", *remedy->enough - 2.1e-3), world, rate));
      // In whole millimetres, as one writes them in any locale.
      std::string digits = std::to_string(std::lround(*remedy->enough * 1000.0));
      digits.insert(0, std::max<std::size_t>(4, digits.size()) - digits.size(), '0');
      digits.insert(digits.size() - 3, 1, '.');
      CHECK(to_sentence(*remedy) == digits + " m would have been enough");
    }
  }
}

TEST_CASE("Also of who stands still against the kerb and pushes on") {
  const TriangleWorld world = Scene().floor().block({0, 0, -5}, {20, 0.36, 4}).world();
  const Profile profile;
  auto refused = drive_to<entry::Step>(world, profile, Vec3(0.0), forward(), 60);
  REQUIRE(refused);
  CharacterState state = refused->before;
  for (int tick = 0; tick < 30; ++tick) state = step(state, forward(), profile, world, 1.0 / 60);
  REQUIRE(length(state.velocity_C) < 0.01);
  const auto remedy = remedy_of(refused->entry, state, forward(), profile, world, 1.0 / 60);
  REQUIRE(remedy);
  REQUIRE(remedy->enough);
  CHECK(*remedy->enough == Approx(0.36).margin(2e-3));
}

TEST_CASE("Also where much too much would be refused again, as under a roof") {
  // Over the kerb there is room for who is lifted by 40 cm, and none for who is lifted by two metres.
  const TriangleWorld world =
      Scene().floor().block({0, 0, -5}, {20, 0.36, 4}).block({0, 2.6, -5}, {40, 0.3, 40}).world();
  const Profile profile;
  const auto refused = drive_to<entry::Step>(world, profile, Vec3(0.0), forward(), 60);
  REQUIRE(refused);
  const auto remedy = remedy_of(refused->entry, refused->before, refused->input, profile, world, 1.0 / 60);
  REQUIRE(remedy);
  REQUIRE(remedy->enough);
  CHECK(*remedy->enough == Approx(0.36).margin(2e-3));
}

TEST_CASE("A wall is no step, whatever is allowed of a usual size") {
  const TriangleWorld world = Scene().floor().block({0, 0, -5}, {20, 220, 4}).world();
  const Profile profile;
  const auto refused = drive_to<entry::Step>(world, profile, Vec3(0.0), forward(), 60);
  REQUIRE(refused);
  const auto remedy = remedy_of(refused->entry, refused->before, refused->input, profile, world, 1.0 / 60);
  REQUIRE(remedy);
  CHECK_FALSE(remedy->enough);
  CHECK(to_sentence(*remedy) == "no value of it would have been enough here");
}

TEST_CASE("A jump that comes too late after the edge: the time that had passed would have been enough") {
  const TriangleWorld world = Scene().block({0, -1, 0}, {40, 1, 6}).world();
  Profile profile;
  profile.jump.coyote_time = 0.05;
  profile.jump.air_jumps = 0;
  for (const int rate : {30, 60, 144}) {
    std::optional<Refused> refused;
    for (int jump_at = rate / 2; !refused && jump_at < 2 * rate; ++jump_at)
      refused = drive_to<entry::JumpRefused>(world, profile, Vec3(0, 0, 0), forward(), rate, jump_at);
    REQUIRE(refused);
    const double since = std::get<entry::JumpRefused>(refused->entry).since_grounded;
    const auto remedy = remedy_of(refused->entry, refused->before, refused->input, profile, world, 1.0 / rate);
    REQUIRE(remedy);
    CHECK(remedy->path == "jump.coyote_time");
    REQUIRE(remedy->enough);
    CHECK(*remedy->enough == Approx(since).margin(1.1e-3));
  }
}

TEST_CASE("Where a state has a value of its own, it is that one that refused") {
  const TriangleWorld world = Scene().floor().block({0, 0, -5}, {20, 0.2, 4}).world();
  StateTable table = built_in_states();
  for (StateSpec& state : table.states) {
    Override own;
    own.path = "ground.highest_step";
    own.number = 0.1;
    if (state.name == "Walk") state.overrides.push_back(own);
  }
  Profile profile;
  profile.states = *StateChart::make(table);
  const auto refused = drive_to<entry::Step>(world, profile, Vec3(0.0), forward(), 60);
  REQUIRE(refused);
  const auto remedy = remedy_of(refused->entry, refused->before, refused->input, profile, world, 1.0 / 60);
  REQUIRE(remedy);
  REQUIRE(remedy->state);
  CHECK(chart_of(profile).name_of(*remedy->state) == "Walk");
  REQUIRE(remedy->enough);
  CHECK(*remedy->enough == Approx(0.2).margin(2e-3));
}

TEST_CASE("What is no refusal has nothing behind it") {
  const TriangleWorld world = Scene().floor().world();
  CHECK_FALSE(remedy_of(entry::Snap{0.1}, CharacterState{}, {}, Profile{}, world, 1.0 / 60));
  CHECK_FALSE(remedy_of(entry::Exhausted{3, 0.1}, CharacterState{}, {}, Profile{}, world, 1.0 / 60));
}

TEST_CASE("A rim that is too high, or too far: its own height or way would have been enough") {
  const Profile profile;
  const auto remedy_for = [&](const TriangleWorld& world) {
    const CharacterState state = start_state(profile, {}, world);
    Ledger ledger;
    step(state, press(Action::Climb), profile, world, 1.0 / 60, &ledger);
    const auto refused = std::find_if(ledger.entries.begin(), ledger.entries.end(), [](const LedgerEntry& e) {
      return std::holds_alternative<entry::MantleRefused>(e);
    });
    REQUIRE(refused != ledger.entries.end());
    return remedy_of(*refused, state, press(Action::Climb), profile, world, 1.0 / 60);
  };
  const auto high = remedy_for(Scene().floor().block({0, 0, -2.5}, {6, 2.41, 4}).world());
  REQUIRE(high);
  CHECK(high->path == "mantle.highest");
  REQUIRE(high->enough);
  CHECK(*high->enough == Approx(2.41).margin(0.002));
  const auto far = remedy_for(Scene().floor().block({0, 0, -3.0}, {6, 1.0, 4}).world());
  REQUIRE(far);
  CHECK(far->path == "mantle.reach");
  REQUIRE(far->enough);
  CHECK(*far->enough == Approx(0.7).margin(0.002));
}
