// SPDX-License-Identifier: MIT
// Any profile inside the sane ranges, any inputs: on flat ground nothing shakes, sticks for ever or stops being
// a number.
#include <catch2/catch.hpp>

#include "lagniappe/profile_fields.h"
#include "lagniappe/run.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

Profile sane_profile(Random& random) {
  Profile p;
  for (const ProfileField& f : profile_fields()) {
    // At an end of the range as often as not: that is where things break.
    const int where = random.below(4);
    const double x = where == 0   ? f.sane_low
                     : where == 1 ? f.sane_high
                                  : random.between(f.sane_low, f.sane_high);
    f.set_typed(p, f.unit == Unit::Count ? std::floor(x) : x);
  }
  for (const ProfileChoice& c : profile_choices())
    c.set(p, random.below(c.words.empty() ? 2 : int(c.words.size())));
  auto& capsule = p.capsule;
  capsule.height = std::max(capsule.height, 2.0 * capsule.radius);
  capsule.eye_height = std::min(capsule.eye_height, capsule.height);
  capsule.centre_of_mass = std::min(capsule.centre_of_mass, capsule.height);
  p.ground.gather.highest = std::max(p.ground.gather.highest, p.ground.gather.lowest);
  p.jump.air_jump_height = {{{{1.0, random.between(0.1, 3.0)}, {2.0, random.between(0.1, 3.0)}}},
                            random.below(3)};
  return p;
}

std::vector<InputFrame> random_inputs(Random& random, int ticks) {
  std::vector<InputFrame> inputs;
  InputFrame frame;
  while (int(inputs.size()) < ticks) {
    frame.move = random.below(3) == 0 ? Vec2(0.0) : Vec2(random.between(-1, 1), random.between(-1, 1));
    frame.look_delta = Vec2(random.between(-0.05, 0.05), random.between(-0.05, 0.05));
    frame.held.set(Action::Sprint, random.below(2) == 0);
    const bool jump = random.below(3) == 0;
    for (int i = 1 + random.below(50); i > 0; --i) {
      frame.pressed.set(Action::Jump, jump && !frame.held.has(Action::Jump));
      frame.held.set(Action::Jump, jump);
      inputs.push_back(frame);
    }
  }
  return inputs;
}

}  // namespace

TEST_CASE("No sane profile shakes, sticks or leaves the numbers on flat ground, whatever is pressed",
          "[long]") {
  Random random(20260711);
  const TriangleWorld world = Scene().floor(400.0).world();
  for (int i = 0; i < 240; ++i) {
    Take take;
    take.profile = sane_profile(random);
    take.tick_rate = tick_rates()[std::size_t(i) % tick_rates().size()];
    take.start = start_state(take.profile, Home{}, world);
    take.inputs = random_inputs(random, take.tick_rate * 8);
    const auto run = run_take(take, world);
    INFO("profile " << i << " at " << take.tick_rate << " ticks/s");
    for (const Finding& f : run->findings()) {
      INFO(to_sentence(f, world, take.profile, take.tick_rate));
      CHECK(f.kind != Finding::Kind::Flicker);
      CHECK(f.kind != Finding::Kind::Stuck);
      CHECK(f.kind != Finding::Kind::DeepPushOut);
    }
    // No press is without an effect or a reason.
    for (std::size_t tick = 1; tick <= run->ticks(); ++tick) {
      if (!take.inputs[tick - 1].pressed.has(Action::Jump)) continue;
      CHECK((run->events(tick).has(Event::Jump) || run->events(tick).has(Event::JumpRefused)));
    }
    for (std::size_t tick = 0; tick <= run->ticks(); ++tick) {
      const CharacterState s = run->state(tick);
      REQUIRE(is_finite(s.foot_C));
      REQUIRE(is_finite(s.velocity_C));
      REQUIRE((std::isfinite(s.yaw) && std::isfinite(s.facing) && std::isfinite(s.gathered)));
      REQUIRE(s.foot_C.y > -1e-6);
    }
  }
}
