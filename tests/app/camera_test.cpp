// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/camera.h"

#include <catch2/catch.hpp>

#include "support/places.h"

using namespace lagniappe;
using namespace lagniappe::app;

namespace {

// A floor with a wall 2 m behind the start.
std::shared_ptr<const Place> room() {
  return test::floor_with({{"wall", {0, 0, 2.5}, Vec3(0.0), "", shape::Block{{100, 6, 1}}}});
}

}  // namespace

TEST_CASE("In third person the eye is pulled in by a wall at once and goes out again smoothly") {
  DriveSession session;
  session.set_place(room());
  Profile profile;
  profile.camera.distance = 5.0;
  session.set_profile(profile);
  Camera camera;
  Eye eye = camera.follow(session, 1.0 / 60);
  CHECK(eye.at_C.z <= 2.0 - Profile{}.camera.pull_in_radius + 1e-6);
  CHECK(eye.at_C.z > 1.0);
  // Turned round, nothing is behind.
  session.turn_by(Vec2(180.0 / 0.12, 0.0));
  double last = 0.0;
  for (int i = 0; i < 120; ++i) {
    eye = camera.follow(session, 1.0 / 60);
    const double out = length(Vec3(eye.at_C.x, 0, eye.at_C.z));
    CHECK(out >= last - 1e-9);
    if (i > 0) CHECK(out - last < 0.5);
    last = out;
  }
  CHECK(last == Approx(5.0).margin(0.01));
}

TEST_CASE("Whatever the look, the eye is never nearer to a wall than its ball") {
  DriveSession session;
  session.set_place(room());
  Profile profile;
  profile.camera.distance = 8.0;
  profile.camera.shoulder = 0.6;
  profile.camera.lag = 0.1;
  session.set_profile(profile);
  Camera camera;
  for (int i = 0; i < 400; ++i) {
    session.turn_by(Vec2(37.0, i % 2 == 0 ? 60.0 : -55.0));
    session.advance(1.0 / 60);
    const Eye eye = camera.follow(session, 1.0 / 60);
    std::array<WorldContact, 1> contact;
    CHECK(session.place()->world.contacts({eye.at_C, eye.at_C}, Profile{}.camera.pull_in_radius - 1e-6,
                                          contact) == 0);
    CHECK(dot(eye.forward_C, eye.up_C) == Approx(0.0).margin(1e-9));
  }
}

TEST_CASE("In first person the eye is at eye height and looks where the look goes, straight down too") {
  DriveSession session;
  session.set_place(room());
  Profile profile;
  profile.look.lowest_pitch = radians(-90.0);
  session.set_profile(profile);
  Camera camera;
  camera.mode = CameraMode::FirstPerson;
  CHECK(camera.follow(session, 0.0).at_C.y == Approx(profile.capsule.eye_height));
  session.turn_by(Vec2(0.0, 5000.0));
  const Eye down = camera.follow(session, 0.0);
  CHECK(down.forward_C.y == Approx(-1.0));
  CHECK(length(down.up_C) == Approx(1.0));
  CHECK(length(down.right_C() - Vec3(1, 0, 0)) < 1e-6);
}

TEST_CASE("The wheel changes the distance within its limits") {
  Camera camera;
  for (int i = 0; i < 100; ++i) camera.zoom(1.0);
  CHECK(camera.zoomed() == FollowCamera::kNearest);
  for (int i = 0; i < 100; ++i) camera.zoom(-1.0);
  CHECK(camera.zoomed() == FollowCamera::kFarthest);
}

TEST_CASE(
    "The eye stands over the shoulder, lags by its time constant at any draw rate, and sees more at speed") {
  for (const double frame : {1.0 / 30, 1.0 / 144}) {
    DriveSession session;
    session.set_place(test::floor_with({}));
    Profile profile;
    profile.camera.shoulder = 0.5;
    profile.camera.lag = 0.2;
    profile.camera.widening = radians(10.0);
    profile.camera.widening_speed = 2.0;
    session.set_profile(profile);
    Camera camera;
    for (double t = 0.0; t < 2.0; t += frame) session.advance(frame), camera.follow(session, frame);
    const Vec3 still = camera.follow(session, 0.0).at_C - session.pose().foot_C;
    CHECK(still.x == Approx(0.5).margin(1e-6));
    CHECK(still.z == Approx(profile.camera.distance).margin(1e-3));
    CHECK(degrees(camera.field(session)) == Approx(60.0));
    session.push(DriveSession::Push::Forward, true);
    Eye eye = camera.follow(session, 0.0);
    for (double t = 0.0; t < 3.0; t += frame) session.advance(frame), eye = camera.follow(session, frame);
    // Behind a head that walks on at 4 m/s, by that times the time constant; frames add half of one.
    CHECK(eye.at_C.z - session.pose().foot_C.z - still.z == Approx(0.8).margin(4.0 * frame));
    CHECK(degrees(camera.field(session)) == Approx(70.0));
  }
}

TEST_CASE("The free camera begins where the eye was") {
  Camera camera;
  const Eye from{{1, 2, 3}, glm::normalize(Vec3(1, -0.5, -2)), {0, 1, 0}};
  camera.place_free(from);
  CHECK(length(camera.free_eye().at_C - from.at_C) < 1e-12);
  CHECK(length(camera.free_eye().forward_C - from.forward_C) < 1e-9);
  camera.move_free(Vec3(0, 0, 2));
  CHECK(length(camera.free_eye().at_C - (from.at_C + from.forward_C * 2.0)) < 1e-9);
}

TEST_CASE("From every camera the keys lead where they point in the picture") {
  for (const CameraMode mode :
       {CameraMode::Chase, CameraMode::Carried, CameraMode::Overview, CameraMode::Top, CameraMode::Side}) {
    for (const auto& [push, right, away] :
         {std::tuple{DriveSession::Push::Right, 1.0, 0.0}, std::tuple{DriveSession::Push::Left, -1.0, 0.0},
          std::tuple{DriveSession::Push::Forward, 0.0, 1.0}, std::tuple{DriveSession::Push::Back, 0.0, -1.0}}) {
      DriveSession session;
      session.set_place(test::floor_with());
      session.turn_by(Vec2(400.0, 0.0));  // The look is elsewhere.
      Camera camera;
      camera.follow(session, 0.0);
      camera.change(mode);
      const Vec3 from = session.current().foot_C;
      const Eye begun = camera.follow(session, 1.0 / 60);
      session.push(push, true);
      for (int i = 0; i < 6; ++i) {
        session.see_by(camera.follow(session, 1.0 / 60));
        session.advance(1.0 / 60);
      }
      const Vec3 way = session.current().foot_C - from;
      const StickAxes axes = stick_axes(begun, session.current().up_C());
      INFO(int(mode) << " way " << way.x << " " << way.z);
      REQUIRE(length(way) > 0.02);
      CHECK(dot(way, axes.right_C * right + axes.away_C * away) > 0.97 * length(way));
    }
  }
}
