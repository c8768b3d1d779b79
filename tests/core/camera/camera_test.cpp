// SPDX-License-Identifier: MIT
// The camera by itself, as a game would use it: on any world, with any up.
#include "lagniappe/camera.h"

#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

CameraSubject standing(const Vec3& foot_C, const Quat& frame_CB, const Vec2& look, double speed = 0.0) {
  Pose pose{};
  pose.foot_C = foot_C;
  pose.frame_CB = frame_CB;
  pose.capsule_height = Profile{}.capsule.height;
  return {pose, look, speed};
}

}  // namespace

TEST_CASE("Lag, field and going out again are the same at every draw rate") {
  const TriangleWorld world = std::move(Scene().floor()).world();
  Profile profile;
  profile.camera.lag = 0.15;
  profile.camera.widening = radians(12.0);
  const auto after_a_second = [&](int rate) {
    FollowCamera camera = step_camera({}, standing(Vec3(0.0), Quat(1, 0, 0, 0), {}), profile, world, {}, 0.0);
    // Moved two metres at once, and looked at for a second: what is left of the lag is exp(-1 / 0.15).
    for (int i = 0; i < rate; ++i)
      camera =
          step_camera(camera, standing({2, 0, 0}, Quat(1, 0, 0, 0), {}, 8.0), profile, world, {}, 1.0 / rate);
    return camera;
  };
  const FollowCamera slow = after_a_second(24), quick = after_a_second(240);
  CHECK(length(slow.followed_C - quick.followed_C) < 1e-9);
  CHECK(slow.field == Approx(quick.field).epsilon(1e-9));
  CHECK(2.0 - slow.followed_C.x == Approx(2.0 * std::exp(-1.0 / 0.15)));
  CHECK(slow.field == Approx(profile.camera.field_of_view + radians(12.0) * (1.0 - std::exp(-4.0))));
}

TEST_CASE("The camera is the same turned with the course, whichever way up") {
  for (const Frame& frame : frames()) {
    const TriangleWorld world = Scene().floor().block({0, 0, 2.5}, {100, 6, 1}).world(frame);
    Profile profile;
    profile.camera.shoulder = 0.4;
    const Quat turn = frame.rotation_CE;
    const FollowCamera camera =
        step_camera({}, standing(frame.point(Vec3(0.0)), turn, {0.3, -0.2}), profile, world, {}, 1.0 / 60);
    const TriangleWorld plain = Scene().floor().block({0, 0, 2.5}, {100, 6, 1}).world();
    const FollowCamera as_built =
        step_camera({}, standing(Vec3(0.0), Quat(1, 0, 0, 0), {0.3, -0.2}), profile, plain, {}, 1.0 / 60);
    CHECK(length(camera.eye.at_C - frame.point(as_built.eye.at_C)) < 1e-6);
    CHECK(length(camera.eye.up_C - turn * as_built.eye.up_C) < 1e-9);
    // Pulled in by the wall behind.
    CHECK(as_built.distance < 2.5);
  }
}

TEST_CASE("Who is put somewhere else takes the camera along, and what is right behind is never entered") {
  const TriangleWorld world = Scene().floor().block({0, 0, 1.2}, {100, 6, 1}).world();
  Profile profile;
  profile.camera.lag = 0.3;
  FollowCamera camera = step_camera({}, standing(Vec3(0.0), Quat(1, 0, 0, 0), {}), profile, world, {}, 0.0);
  const double near = camera.distance;
  CHECK(near < 0.7 - profile.camera.pull_in_radius + 1e-6);
  camera = step_camera(camera, standing({0, 0, -40}, Quat(1, 0, 0, 0), {}), profile, world, {}, 1.0 / 60);
  CHECK(camera.followed_C.z == Approx(-40.0));
  // Out again, smoothly.
  CHECK(camera.distance > near);
  CHECK(camera.distance < profile.camera.distance);
}
