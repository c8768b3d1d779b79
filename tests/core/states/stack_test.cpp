// SPDX-License-Identifier: MIT
// What the public face promises of the stack that a tick needs.
#include <pthread.h>

#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

struct Drive {
  const TriangleWorld* world;
  Profile profile;
  CharacterState state;
};

void* drive(void* given) {
  auto& d = *static_cast<Drive*>(given);
  for (int i = 0; i < 600; ++i) {
    InputFrame input = push(std::sin(0.01 * i), std::cos(0.01 * i));
    input.pressed.set(Action::Jump, i % 50 == 0);
    d.state = step(d.state, input, d.profile, *d.world, 1.0 / 60);
  }
  return nullptr;
}

}  // namespace

#ifndef __SANITIZE_ADDRESS__  // Which keeps room around every variable.
TEST_CASE("A tick needs no more stack than is promised, where pieces move too") {
  const auto course = read_course(LAGNIAPPE_SOURCE_DIR "/courses/tidewheel.course.json");
  REQUIRE(course);
  const TriangleWorld world = build_world(*course);
  for (const Mark& mark : course->marks) {
    Drive d{&world, {}, start_state(Profile{}, home_of(*course, mark), world)};
    const double before = d.state.time;
    pthread_attr_t attributes;
    pthread_attr_init(&attributes);
    REQUIRE(pthread_attr_setstacksize(&attributes, 128 * 1024) == 0);
    pthread_t thread;
    REQUIRE(pthread_create(&thread, &attributes, drive, &d) == 0);
    pthread_join(thread, nullptr);
    pthread_attr_destroy(&attributes);
    CHECK(d.state.time > before + 9.9);
  }
}
#endif
