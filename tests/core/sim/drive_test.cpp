// SPDX-License-Identifier: MIT
#include <catch2/catch.hpp>
#include <cstring>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

InputScript script() {
  InputChange go{0.10, Vec2(0, 1), {}, Vec2(1.0, 0.0), {}, {}}, jump{0.50, {}, Vec2(0.3, 0.0), {}, {}, {}},
      stop{0.55, Vec2(0.0), {}, {}, {}, {}};
  jump.press.set(Action::Jump, true);
  stop.release.set(Action::Jump, true);
  return {{go, jump, stop}};
}

}  // namespace

TEST_CASE("A change acts at its very instant, at any tick rate") {
  const InputScript changes = script();
  for (const int hz : {20, 60, 144, 240}) {
    INFO(hz);
    InputPlayer player(changes, hz);
    for (int k = 0; k < hz; ++k) {
      const InputFrame input = player.next();
      const double start = double(k) / hz;
      for (const double share : {0.05, 0.35, 0.65, 0.95}) {
        const double at = start + share / hz;
        CHECK(sticks_at(input, share).move == Vec2(0, at >= 0.10 && at < 0.55 ? 1 : 0));
        CHECK(sticks_at(input, share).turn_rate.x == (at >= 0.10 ? 1.0 : 0.0));
      }
      CHECK(input.pressed.has(Action::Jump) == (start >= 0.5 - 1e-9 && start - 1.0 / hz < 0.5 - 1e-9));
      const double end = start + 1.0 / hz;
      CHECK(input.held.has(Action::Jump) == (end > 0.5 + 1e-9 && end < 0.55 + 1e-9));
      if (input.pressed.has(Action::Jump))
        CHECK(input.pressed_at[0] == Approx((0.5 - start) * hz).margin(1e-6));
      CHECK(input.look.has_value() == input.pressed.has(Action::Jump));
      if (input.look) CHECK(input.look_at == input.pressed_at[0]);
    }
  }
}

TEST_CASE("A press and its release within one tick are not lost") {
  InputChange down{0.06, {}, {}, {}, {}, {}}, up{0.08, {}, {}, {}, {}, {}};
  down.press.set(Action::Jump, true);
  up.release.set(Action::Jump, true);
  const InputScript changes{{down, up}};
  InputPlayer player(changes, 10);
  const InputFrame input = player.next();
  CHECK(input.pressed.has(Action::Jump));
  CHECK_FALSE(input.held.has(Action::Jump));
  CHECK(input.pressed_at[0] == Approx(0.6));
  CHECK(input.released_at[0] == Approx(0.8));
  CHECK(player.next().pressed == Buttons{});
}

TEST_CASE("The same inputs give the same bits, also from a copy in the middle") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().stairs({0, 0, -3}, 3, 0.18, 0.28, 6).world();
  const InputScript changes = script();
  InputPlayer player(changes, 60);
  std::vector<InputFrame> inputs;
  for (int i = 0; i < 300; ++i) inputs.push_back(player.next());
  std::vector<CharacterState> first, second;
  drive(standing_at(profile, {0, 0, 0}), inputs, profile, world, 60,
        [&](const CharacterState& s, const Ledger*) { first.push_back(s); });
  const std::vector<InputFrame> rest(inputs.begin() + 150, inputs.end());
  drive(first[149], rest, profile, world, 60,
        [&](const CharacterState& s, const Ledger*) { second.push_back(s); });
  REQUIRE(second.size() == 150);
  for (int i = 0; i < 150; ++i) {
    CHECK(std::memcmp(&first[150 + i].foot_C, &second[i].foot_C, sizeof(Vec3)) == 0);
    CHECK(std::memcmp(&first[150 + i].velocity_C, &second[i].velocity_C, sizeof(Vec3)) == 0);
  }
}

TEST_CASE("Identities tell places and profiles apart and are stable") {
  const TriangleWorld a = Scene().floor().world(), b = Scene().floor().world(),
                      c = Scene().floor().block({0, 0, 5}, {1, 1, 1}).world();
  CHECK(identity_of(a) == identity_of(b));
  CHECK(identity_of(a) != identity_of(c));
  Profile profile;
  const std::uint64_t before = identity_of(profile);
  profile.name = "Other";
  CHECK(identity_of(profile) == before);
  for (const ProfileField& field : profile_fields()) {
    Profile changed;
    field.set(changed, field.get(changed) + (field.unit == Unit::Count ? 1.0 : 0.01));
    INFO(field.section << "/" << field.key);
    CHECK(identity_of(changed) != before);
  }
}
