// SPDX-License-Identifier: MIT
// Random walks on hostile ground end free and finite.
#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// A driver that changes its mind now and then: any stick, any look, jumps, sprints.
class Wanderer {
 public:
  explicit Wanderer(std::uint64_t seed) : random_(seed) {}
  InputFrame next() {
    if (--left_ <= 0) {
      left_ = 1 + random_.below(120);
      input_ = push(random_.between(-1, 1), random_.between(-1, 1));
      input_.turn_rate = Vec2(random_.between(-4, 4), random_.between(-1, 1));
      input_.held.set(Action::Sprint, random_.below(2) == 0);
    }
    InputFrame now = input_;
    now.pressed.set(Action::Jump, random_.below(40) == 0);
    return now;
  }

 private:
  Random random_;
  InputFrame input_;
  int left_ = 0;
};

struct SoakResult {
  double worst_overlap = 0.0;
  int times_home = 0;
};

// Walks; looks at the overlap of every `stride`-th tick, which brute force could not do for all.
SoakResult soak_walk(const TriangleWorld& world, const Home& home, long ticks, int hz, std::uint64_t seed,
                     long stride) {
  const Profile profile;
  Wanderer wanderer(seed);
  CharacterState state = start_state(profile, home);
  SoakResult result;
  for (long i = 0; i < ticks; ++i) {
    const CharacterState before = state;
    state = step(before, wanderer.next(), profile, world, 1.0 / hz);
    if (!is_finite(state.foot_C) || !is_finite(state.velocity_C))
      FAIL("not finite at tick " << i << ", seed " << seed);
    const double overlap = i % stride == 0 ? deepest_overlap(state, profile, world) : 0.0;
    if (overlap > profile.capsule.margin && !state.crushed) {
      FAIL_CHECK("overlap " << overlap << " at tick " << i << ", seed " << seed << ", foot " << before.foot_C.x
                            << " " << before.foot_C.y << " " << before.foot_C.z);
      return result;
    }
    if (!state.crushed) result.worst_overlap = std::max(result.worst_overlap, overlap);
  }
  result.times_home = static_cast<int>(state.times_put_home);
  return result;
}

}  // namespace

TEST_CASE("A quarter of a million ticks on the demo course end with no overlap and no odd number", "[long]") {
  const auto course = read_course(LAGNIAPPE_SOURCE_DIR "/courses/tidewheel.course.json");
  REQUIRE(course);
  const TriangleWorld world = build_world(*course);
  double worst = 0.0;
  for (int part = 0; part < 5; ++part) {
    const int hz = tick_rates()[part];
    const Mark& mark = course->marks[static_cast<std::size_t>(part * 2) % course->marks.size()];
    const SoakResult r =
        soak_walk(world, {mark.at_C, Quat(1, 0, 0, 0), mark.facing}, 50000, hz, 100 + part, 17);
    worst = std::max(worst, r.worst_overlap);
  }
  // Turning pieces leave up to the margin for the next tick.
  CHECK(worst <= Profile{}.capsule.margin);
}

TEST_CASE("Random walks on triangle soups end with no overlap and no odd number", "[long]") {
  for (int scene = 0; scene < 12; ++scene) {
    Random random(1000 + scene);
    TriangleWorld::Builder builder;
    builder.begin_piece("soup");
    const bool dense = scene % 3 == 0;
    for (const Triangle& t : soup(random, dense ? 1500 : 300, 8.0, dense ? 0.8 : 3.0)) builder.add(t);
    builder.add({{-40, -9, -40}, {0, -9, 60}, {40, -9, -40}});
    const TriangleWorld world = builder.commit({Box{Vec3(-60), Vec3(60)}});
    const Home home{Vec3(0, 12, 0), scene % 2 == 0 ? Quat(1, 0, 0, 0) : random.rotation(), 0.0};
    INFO("scene " << scene);
    soak_walk(world, home, 84000, tick_rates()[scene % 5], 2000 + scene, 7);
  }
}
