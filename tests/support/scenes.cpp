// SPDX-License-Identifier: MIT
#include "support/scenes.h"

#include <cmath>

namespace lagniappe::test {

const std::vector<Frame>& frames() {
  static const std::vector<Frame> all = {
      {"identity", Quat(1, 0, 0, 0), Vec3(0.0)},
      {"far away", Quat(1, 0, 0, 0), Vec3(7013.7, -250.3, 4801.9)},
      {"quarter turn about X", glm::angleAxis(kPi / 2, Vec3(1, 0, 0)), Vec3(0.0)},
      {"upside down", glm::angleAxis(kPi, Vec3(0, 0, 1)), Vec3(3.0, 1.0, -2.0)},
      {"oddly turned", glm::angleAxis(1.234, glm::normalize(Vec3(0.3, -0.7, 0.5))), Vec3(-17.3, 41.1, 8.8)},
      {"nearly identity", glm::angleAxis(1e-7, glm::normalize(Vec3(1, 1, 1))), Vec3(0.0)},
  };
  return all;
}

Scene& Scene::piece(const Vec3& base_centre, const Vec3& turn_degrees, Shape shape) {
  const Vec3 turn(radians(turn_degrees.x), radians(turn_degrees.y), radians(turn_degrees.z));
  pieces_.push_back(triangles_of({"piece", base_centre, turn, "", std::move(shape)}));
  return *this;
}
Scene& Scene::block(const Vec3& base_centre, const Vec3& size, const Vec3& turn_degrees) {
  return piece(base_centre, turn_degrees, shape::Block{size});
}
Scene& Scene::ramp(const Vec3& base_centre, const Vec3& size, const Vec3& turn_degrees) {
  return piece(base_centre, turn_degrees, shape::Ramp{size});
}
Scene& Scene::stairs(const Vec3& base_centre, double width, double rise, double run, int count) {
  return piece(base_centre, Vec3(0.0), shape::Stairs{width, rise, run, count});
}
Scene& Scene::triangle(const Triangle& t) {
  pieces_.push_back({t});
  return *this;
}
Scene& Scene::floor(double half) { return block(Vec3(0.0, -1.0, 0.0), Vec3(2.0 * half, 1.0, 2.0 * half)); }

TriangleWorld Scene::world(const Frame& frame) const {
  TriangleWorld::Builder builder;
  for (const auto& triangles : pieces_) {
    builder.begin_piece("piece " + std::to_string(&triangles - pieces_.data()));
    for (const Triangle& t : triangles) builder.add(frame.triangle(t));
  }
  Box everywhere;
  everywhere.join(Vec3(-1e6));
  everywhere.join(Vec3(1e6));
  return builder.commit({everywhere});
}

std::vector<Triangle> soup(Random& random, int count, double reach, double size) {
  std::vector<Triangle> triangles;
  for (int i = 0; i < count; ++i) {
    const Vec3 at = random.point(reach);
    // One in four is a sliver, as real meshes have.
    const double thin = random.below(4) == 0 ? 0.01 : 1.0;
    triangles.push_back({at, at + random.direction() * size, at + random.direction() * (size * thin)});
  }
  return triangles;
}

CharacterState standing_at(const Profile& profile, const Vec3& foot_E, double yaw, const Frame& frame) {
  return start_state(profile, {frame.point(foot_E), frame.rotation_CE, yaw});
}

InputFrame push(double right, double forward) {
  InputFrame input;
  input.move = Vec2(right, forward);
  return input;
}

InputFrame press(Action action) {
  InputFrame input;
  input.pressed.set(action, true);
  input.held.set(action, true);
  return input;
}

CharacterState run(CharacterState state, const Profile& profile, const World& world, int hz, double seconds,
                   const std::function<InputFrame(double)>& input,
                   const std::function<void(const CharacterState&)>& see) {
  const long ticks = std::lround(seconds * hz);
  for (long i = 0; i < ticks; ++i) {
    state = step(state, input(static_cast<double>(i) / hz), profile, world, 1.0 / hz);
    if (see) see(state);
  }
  return state;
}

namespace {

// Distance from a point to a triangle by projection and clamping onto the three sides: slow, and unlike the
// solver's.
double point_distance(const Vec3& p, const Triangle& t) {
  const Vec3 n = glm::normalize(cross(t.v1_C - t.v0_C, t.v2_C - t.v0_C));
  const Vec3 q = p - n * dot(p - t.v0_C, n);
  const Vec3 corner[] = {t.v0_C, t.v1_C, t.v2_C};
  bool inside = true;
  double best = 1e300;
  for (int i = 0; i < 3; ++i) {
    const Vec3 a = corner[i], edge = corner[(i + 1) % 3] - a;
    inside = inside && dot(cross(edge, q - a), n) >= 0.0;
    const double s = std::clamp(dot(p - a, edge) / dot(edge, edge), 0.0, 1.0);
    best = std::min(best, length(p - (a + edge * s)));
  }
  return inside ? std::min(best, length(p - q)) : best;
}

}  // namespace

double deepest_overlap(const CharacterState& state, const Profile& profile, const TriangleWorld& world) {
  const Segment axis = capsule_axis(state, profile.capsule.radius);
  const Box near = bounds(axis).grown(profile.capsule.radius);
  double deepest = 0.0;
  std::vector<std::optional<RigidPose>> poses(world.piece_count());
  for (const PieceId piece : world.moving_pieces()) poses[piece] = world.motion_of(piece)->pose_at(state.time);
  for (std::size_t i = 0; i < world.triangle_count(); ++i) {
    Triangle t = world.triangle(i);
    if (const auto& moved = poses[world.triangle_piece(i)]) {
      const RigidPose& pose = *moved;
      t = {pose.point(t.v0_C), pose.point(t.v1_C), pose.point(t.v2_C)};
    }
    if (!near.overlaps(bounds(t))) continue;
    // The distance to a convex set is convex along the axis: a ternary search finds its least value.
    double low = 0.0, high = 1.0;
    const auto at = [&](double s) { return point_distance(axis.a_C + (axis.b_C - axis.a_C) * s, t); };
    for (int k = 0; k < 60; ++k) {
      const double third = (high - low) / 3.0;
      (at(low + third) < at(high - third) ? high : low) =
          at(low + third) < at(high - third) ? high - third : low + third;
    }
    deepest = std::max(deepest, profile.capsule.radius - at(0.5 * (low + high)));
  }
  return deepest;
}

}  // namespace lagniappe::test
