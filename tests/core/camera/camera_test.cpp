// SPDX-License-Identifier: MIT
// The camera by itself, as a game would use it: on any world, with any up.
#include "lagniappe/camera.h"

#include <catch2/catch.hpp>

#include "lagniappe/turns.h"

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

namespace {

// Where a point is in the picture: to the right and up of its middle, and how far away. By projection alone.
struct Seen {
  double right, up, away;
};
Seen seen_by(const Eye& eye, const Vec3& at_C) {
  const Vec3 to = at_C - eye.at_C;
  const double away = dot(to, eye.forward_C);
  return {dot(to, eye.right_C()) / away, dot(to, eye.up_C) / away, away};
}

// What a stick does in the picture, for a body with this up at a place: the place moved by a little that way.
// From below only for a picture that stands upright.
void check_stick(const Eye& eye, const Vec3& at_C, const Vec3& up_C, bool upright) {
  const StickAxes axes = stick_axes(eye, up_C);
  constexpr double kLittle = 1e-6;
  const auto moved = [&](const Vec3& way) {
    const Seen here = seen_by(eye, at_C), there = seen_by(eye, at_C + way * kLittle);
    return Vec3(there.right - here.right, there.up - here.up, (there.away - here.away) / here.away) / kLittle;
  };
  CHECK(std::abs(dot(axes.right_C, up_C)) < 1e-9);
  CHECK(std::abs(dot(axes.away_C, up_C)) < 1e-9);
  CHECK(std::abs(dot(axes.right_C, axes.away_C)) < 1e-9);
  CHECK(length(axes.right_C) == Approx(1.0));
  const Vec3 right = moved(axes.right_C), away = moved(axes.away_C);
  const double above = -dot(eye.forward_C, up_C);
  if (above > 0.02 || upright) CHECK(right.x > 0.0);
  if (above > 0.02) CHECK(away.y > 0.0);
  // Away from the eye; at the pole, where nothing is further, that is the picture's top.
  if (upright && std::abs(above) < 0.999) CHECK(away.z > 0.0);
}

constexpr std::array kKinds = {CameraKind::FirstPerson, CameraKind::Behind, CameraKind::Chase,
                               CameraKind::Carried,     CameraKind::Top,    CameraKind::Side,
                               CameraKind::Overview};

}  // namespace

TEST_CASE("To the right is to the right and up is away, for any eye, rolled too, and any ground") {
  Random random(91);
  for (int i = 0; i < 20000; ++i) {
    INFO("eye " << i);
    const Vec3 up = random.direction(), at = random.point(5.0), forward = random.direction();
    const bool upright = i % 2 == 0;
    const Vec3 top = across(up, forward);
    if (length(top) < 1e-3) continue;
    const double roll = upright ? 0.0 : random.between(-kPi, kPi);
    check_stick({at - forward * 7.0, forward, glm::angleAxis(roll, forward) * glm::normalize(top)}, at, up,
                upright);
  }
}

TEST_CASE("The stick's way goes on evenly as the eye goes round and rolls, but for straight from below") {
  Random random(94);
  for (int i = 0; i < 5000; ++i) {
    const Vec3 forward = random.direction();
    const Eye eye{Vec3(0.0), forward, glm::normalize(across(random.direction(), forward))};
    const Vec3 up = random.direction();
    if (dot(up, forward) > 0.98) continue;
    const Quat little = glm::angleAxis(1e-7, random.direction());
    const StickAxes a = stick_axes(eye, up),
                    b = stick_axes({eye.at_C, little * eye.forward_C, little * eye.up_C}, up);
    CHECK(length(a.right_C - b.right_C) < 1e-5);
    CHECK(length(a.away_C - b.away_C) < 1e-5);
  }
}

TEST_CASE("Straight from above the top of the picture is away; straight from below its foot, as just beside") {
  for (const double from : {1.0, -1.0}) {
    for (const double yaw : {0.0, 1.0, 2.5, -2.0}) {
      const Vec3 top(-std::sin(yaw), 0.0, -std::cos(yaw));
      const Eye pole{{0, 5.0 * from, 0}, {0, -from, 0}, top};
      const StickAxes at_pole = stick_axes(pole, {0, 1, 0});
      CHECK(length(at_pole.away_C - top * from) < 1e-12);
      // Tilted off it a little, either way: the same.
      for (const double off : {1e-9, 1e-4, -1e-9, -1e-4, 0.2, -0.2}) {
        const Quat turn = glm::angleAxis(off, pole.right_C());
        const Eye beside{pole.at_C, turn * pole.forward_C, turn * pole.up_C};
        const StickAxes axes = stick_axes(beside, {0, 1, 0});
        CHECK(length(axes.away_C - at_pole.away_C) < 1e-9);
        CHECK(length(axes.right_C - at_pole.right_C) < 1e-9);
      }
    }
  }
}

TEST_CASE("All the way round a ball, with every camera, one walks where the stick points in the picture") {
  const TriangleWorld world = std::move(Scene().block({0, -900, 0}, {1, 1, 1})).world();
  const Profile profile;
  Random random(92);
  for (const CameraKind kind : kKinds) {
    FollowCamera camera;
    camera.kind = kind;
    camera.stands_C = {9, 14, 11};
    Vec3 up(0, 1, 0);
    Quat frame(1, 0, 0, 0);
    double yaw = 0.4;
    for (int i = 0; i < 600; ++i) {
      const Vec3 foot = up * 3.0;
      camera = step_camera(camera, standing(foot, frame, {yaw, -0.3}), profile, world, {}, 1.0 / 60);
      const double angle = random.between(-kPi, kPi);
      const Vec2 stick(std::cos(angle), std::sin(angle)), moved = stick_in_view(camera.eye, frame, yaw, stick);
      INFO(kCameraNames[static_cast<std::size_t>(kind)] << ", step " << i);
      CHECK(glm::length(moved) == Approx(1.0));
      // As the tick makes a direction of it.
      const double s = std::sin(yaw), c = std::cos(yaw);
      const Vec3 way = frame * (Vec3(c, 0, -s) * moved.x + Vec3(-s, 0, -c) * moved.y);
      const StickAxes axes = stick_axes(camera.eye, up);
      CHECK(length(way - (axes.right_C * stick.x + axes.away_C * stick.y)) < 1e-9);
      // Where the stick moved within a tick, all of its places are meant as they are seen.
      InputFrame input;
      input.move = stick;
      input.earlier[0] = {-stick, Vec2(0.0), 0.3f};
      sticks_in_view(camera.eye, frame, yaw, input);
      CHECK(length(input.move - moved) < 1e-12);
      CHECK(length(sticks_at(input, 0.1).move + moved) < 1e-9);
      const bool upright = std::abs(dot(camera.eye.right_C(), up)) < 1e-9;
      if (kind != CameraKind::FirstPerson) check_stick(camera.eye, foot, up, upright);
      // A step along a great circle, with the frame carried.
      const Vec3 there = glm::normalize(up + (i < 300 ? way : frame * Vec3(0.3, 0, -1)) * 0.03);
      frame = glm::normalize(smallest_turn(up, there) * frame);
      up = there;
      yaw = wrap_angle(yaw + 0.01);
    }
  }
}

TEST_CASE("Carried cameras come back as they were round a great circle, and the same way back from anywhere") {
  const TriangleWorld world = std::move(Scene().block({0, -900, 0}, {1, 1, 1})).world();
  const Profile profile;
  for (const CameraKind kind : {CameraKind::Carried, CameraKind::Top, CameraKind::Side}) {
    FollowCamera camera;
    camera.kind = kind;
    const auto at = [&](const Vec3& up) {
      camera = step_camera(camera, standing(up * 3.0, smallest_turn({0, 1, 0}, up), {}), profile, world, {},
                           1.0 / 60);
    };
    at({0, 1, 0});
    const Eye first = camera.eye;
    for (int i = 1; i <= 360; ++i) at({std::sin(radians(i)), std::cos(radians(i)), 0.0});
    CHECK(length(camera.eye.forward_C - first.forward_C) < 1e-9);
    CHECK(length(camera.eye.up_C - first.up_C) < 1e-9);
    // Out and back along a crooked way.
    std::vector<Vec3> way;
    Random random(93);
    for (int i = 0; i < 40; ++i) way.push_back(random.direction());
    way.front() = {0, 1, 0};
    for (const Vec3& up : way) at(up);
    for (auto up = way.rbegin(); up != way.rend(); ++up) at(*up);
    CHECK(length(camera.eye.forward_C - first.forward_C) < 1e-9);
  }
}

TEST_CASE("The chase comes round behind the way travelled, the same at every draw rate") {
  const TriangleWorld world = std::move(Scene().floor()).world();
  const Profile profile;
  const auto after = [&](int rate, double seconds) {
    FollowCamera camera;
    camera.kind = CameraKind::Chase;
    Vec3 foot(0.0);
    camera = step_camera(camera, standing(foot, Quat(1, 0, 0, 0), {}), profile, world, {}, 0.0);
    for (int i = 0; i < std::lround(seconds * rate); ++i) {
      foot += Vec3(4.0 / rate, 0, 0);
      camera = step_camera(camera, standing(foot, Quat(1, 0, 0, 0), {}), profile, world, {}, 1.0 / rate);
    }
    return camera.carried_CF * Vec3(0, 0, -1);
  };
  const Vec3 slow = after(24, 1.0), quick = after(240, 1.0), still = after(60, 6.0);
  CHECK(length(slow - quick) < 1e-9);
  // A quarter turn at first, of which exp(-1 / chase_time) is left.
  const double left = 0.5 * kPi * std::exp(-1.0 / FollowCamera{}.chase_time);
  CHECK(std::asin(slow.x) == Approx(0.5 * kPi - left).margin(1e-9));
  CHECK(still.x == Approx(1.0).margin(1e-6));
}

TEST_CASE("Changing the camera keeps what is ahead ahead, and the turn of the picture is told") {
  const TriangleWorld world = std::move(Scene().floor()).world();
  const Profile profile;
  FollowCamera camera;
  const CameraSubject subject = standing(Vec3(0.0), Quat(1, 0, 0, 0), {radians(70.0), -0.2});
  camera = step_camera(camera, subject, profile, world, {}, 0.0);
  const StickAxes before = stick_axes(camera.eye, {0, 1, 0});
  for (const CameraKind kind : {CameraKind::Carried, CameraKind::Top, CameraKind::Chase}) {
    FollowCamera other = camera;
    change_kind(other, kind);
    other = step_camera(other, subject, profile, world, {}, 0.0);
    CHECK(length(stick_axes(other.eye, {0, 1, 0}).away_C - before.away_C) < 1e-9);
  }
  FollowCamera stands = camera;
  change_kind(stands, CameraKind::Overview);
  stands = step_camera(stands, subject, profile, world, {}, 0.0);
  CHECK(length(stands.eye.at_C - camera.eye.at_C) < 1e-12);
  // As the profile says, it turns to whom it follows or keeps its look.
  const CameraSubject gone = standing(Vec3(3.0, 0.0, -4.0), Quat(1, 0, 0, 0), {radians(70.0), -0.2});
  const FollowCamera follows = step_camera(stands, gone, profile, world, {}, 0.1);
  Profile still = profile;
  still.camera.overview_turns = false;
  const FollowCamera keeps = step_camera(stands, gone, still, world, {}, 0.1);
  CHECK(angle_between(follows.eye.forward_C, stands.eye.forward_C) > 0.1);
  CHECK(keeps.eye == stands.eye);
  const Eye turned{camera.eye.at_C, glm::angleAxis(0.3, camera.eye.up_C) * camera.eye.forward_C,
                   camera.eye.up_C};
  CHECK(view_turn_rate(camera.eye, turned, 0.1) == Approx(3.0));
  CHECK(view_turn_rate(camera.eye, camera.eye, 0.1) == Approx(0.0).margin(1e-12));
}
