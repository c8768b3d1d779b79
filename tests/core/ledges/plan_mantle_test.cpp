// SPDX-License-Identifier: MIT
// The way over a rim, against scenes whose heights are known, and against distances that are not the solver's.
#include <catch2/catch.hpp>
#include <cstdlib>

#include "ledges/plan_mantle.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

MantleQuery ahead_of(const Vec3& foot_C, const Vec3& up_C, const Vec3& towards_C) {
  MantleQuery query;
  query.ledge.foot_C = foot_C;
  query.ledge.up_C = up_C;
  query.ledge.towards_C = towards_C;
  return query;
}

// The deepest that a plan's body is in anything, all along it and standing (or crouched) at its end.
double deepest(const MantlePlan& plan, const Frame& frame, const TriangleWorld& world) {
  const Profile profile;
  CharacterState state = start_state(profile, {plan.from_C, frame.rotation_CE, 0.0});
  state.capsule_height = plan.least_height;
  const Vec3 up = frame.vector(Vec3(0, 1, 0));
  const Vec3 beside = plan.above_C - up * dot(plan.above_C - plan.from_C, up);
  const Vec3 corners[] = {plan.from_C, beside, plan.above_C, plan.over_C, plan.to_C};
  double most = 0.0;
  for (int i = 0; i <= 80; ++i) {
    const int leg = std::min(i / 20, 3);
    state.foot_C = corners[leg] + (corners[leg + 1] - corners[leg]) * (i / 20.0 - leg);
    most = std::max(most, deepest_overlap(state, profile, world));
  }
  state.capsule_height = plan.crouched ? 1.1 : 1.8;
  return std::max(most, deepest_overlap(state, profile, world));
}

}  // namespace

TEST_CASE("Onto a crate the way leads up, over and to where one stands, as high as the crate, in any frame") {
  for (const Frame& frame : frames()) {
    for (const double height : {0.45, 0.9, 1.4, 2.0, 2.29}) {
      INFO(frame.name << ", " << height);
      const TriangleWorld world = Scene().floor().block({0, 0, -2}, {4, height, 3}).world(frame);
      const Vec3 up = frame.vector(Vec3(0, 1, 0));
      const MantleAnswer answer =
          plan_mantle(world, ahead_of(frame.point(Vec3(0.2, 0, -0.1)), up, frame.vector(Vec3(0, 0, -1))));
      REQUIRE(answer.plan);
      CHECK(answer.plan->kind == MantlePlan::Kind::Mantle);
      CHECK(!answer.plan->crouched);
      const Vec3 end = frame.back(answer.plan->to_C);
      CHECK(end.y == Approx(height).margin(0.004));
      CHECK(end.z < -0.5 - 0.29);
      CHECK(end.x == Approx(0.2).margin(1e-6));
      CHECK(deepest(*answer.plan, frame, world) < 1e-6);
    }
  }
}

TEST_CASE("Under a low roof one comes out crouched, under a lower one not at all, and it is told") {
  const auto plan = [](double room) {
    const TriangleWorld world =
        Scene().floor().block({0, 0, -2}, {4, 1, 3}).block({0, 1 + room, -2}, {4, 0.3, 2.2}).world();
    return plan_mantle(world, ahead_of(Vec3(0.0), Vec3(0, 1, 0), Vec3(0, 0, -1)));
  };
  REQUIRE(plan(1.4).plan);
  CHECK(plan(1.4).plan->crouched);
  REQUIRE(plan(2.0).plan);
  CHECK(!plan(2.0).plan->crouched);
  CHECK(!plan(0.8).plan);
  CHECK(plan(0.8).fault == MantleFault::NoRoom);
  CHECK(plan(0.8).found == Approx(0.8).margin(0.02));  // The round of the head reaches a little higher.
}

TEST_CASE("What is thinner than is vaulted is gone over, to higher and lower ground behind") {
  for (const double thick : {0.05, 0.3, 0.55}) {
    for (const double behind : {-0.8, 0.0, 0.4}) {
      INFO(thick << " m thick, " << behind << " m behind");
      Scene scene;
      scene.block({0, -2, 2}, {6, 2, 5}).block({0, 0, -1 - 0.5 * thick}, {6, 0.9, thick});
      scene.block({0, behind - 2, -3 - thick}, {6, 2, 4});
      MantleQuery query = ahead_of({0, 0, -0.55}, Vec3(0, 1, 0), Vec3(0, 0, -1));
      query.longest_vault = 0.6;
      query.ledge.shortest_shelf = 0.02;
      const TriangleWorld world = scene.world();
      const MantleAnswer answer = plan_mantle(world, query);
      REQUIRE(answer.plan);
      CHECK(answer.plan->kind == MantlePlan::Kind::Vault);
      CHECK(answer.plan->to_C.y == Approx(behind).margin(0.004));
      CHECK(answer.plan->to_C.z < -1 - thick - 0.3);
      CHECK(deepest(*answer.plan, frames().front(), world) < 1e-6);
    }
  }
}

TEST_CASE("In random scenes no way leads through anything, nor ends in it") {
  int planned = 0;
  const char* more = std::getenv("LAGNIAPPE_SCENES");
  const std::uint64_t scenes = more != nullptr ? std::strtoull(more, nullptr, 10) : 2500;
  for (std::uint64_t seed = 0; seed < scenes; ++seed) {
    Random random(seed);
    Scene scene;
    scene.floor(10.0);
    for (int i = 0; i < 8; ++i)
      scene.block({random.between(-2, 2), random.between(-0.5, 1.5), random.between(-2.5, -0.4)},
                  {random.between(0.1, 2), random.between(0.1, 1.5), random.between(0.1, 2)},
                  {random.between(-180, 180), random.between(-20, 20), random.between(-20, 20)});
    const TriangleWorld world = scene.world();
    MantleQuery query = ahead_of({random.between(-1, 1), random.between(0, 0.3), random.between(-0.3, 0.3)},
                                 Vec3(0, 1, 0), Vec3(0, 0, -1));
    query.ledge.reach = 1.0;
    query.longest_vault = 0.6;
    std::array<WorldContact, 1> touched;
    const Vec3 foot = query.ledge.foot_C, up(0, 1, 0);
    if (world.contacts({foot + up * 0.3, foot + up * 1.5}, 0.2999, touched) > 0) continue;
    const MantleAnswer answer = plan_mantle(world, query);
    if (!answer.plan) {
      CHECK(answer.fault != MantleFault::None);
      continue;
    }
    ++planned;
    INFO("seed " << seed);
    CHECK(deepest(*answer.plan, frames().front(), world) < 0.002 + 1e-6);
  }
  CHECK(planned > 120);
}
