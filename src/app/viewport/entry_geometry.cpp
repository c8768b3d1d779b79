// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/entry_geometry.h"

#include <algorithm>
#include <array>
#include <map>

namespace lagniappe::app {
namespace {

constexpr double kSamePoint = 1e-5;     // m.
constexpr double kSameNormal = 0.9999;  // Cosine.

using Key = std::array<long long, 3>;
Key key_of(const Vec3& p) {
  const auto at = [](double x) { return std::llround(x / kSamePoint); };
  return {at(p.x), at(p.y), at(p.z)};
}

}  // namespace

std::vector<Vec3> outline_of(const Place& place, PieceId id, double time) {
  if (id >= place.course.pieces.size()) return {};
  const Piece& piece = place.course.pieces[id];
  const PieceMotion* motion = place.world.motion_of(id);
  const std::vector<Triangle> triangles = motion != nullptr ? own_triangles_of(piece) : triangles_of(piece);
  struct Edge {
    Vec3 a, b, normal;
    bool flat;
  };
  std::map<std::pair<Key, Key>, Edge> edges;
  for (const Triangle& t : triangles) {
    const Vec3 normal = unit_or(cross(t.v1_C - t.v0_C, t.v2_C - t.v0_C), Vec3(0.0));
    const Vec3 corners[] = {t.v0_C, t.v1_C, t.v2_C};
    for (int i = 0; i < 3; ++i) {
      const Vec3 &a = corners[i], &b = corners[(i + 1) % 3];
      const auto [edge, is_new] =
          edges.try_emplace(std::minmax(key_of(a), key_of(b)), Edge{a, b, normal, false});
      if (!is_new && dot(edge->second.normal, normal) > kSameNormal) edge->second.flat = true;
    }
  }
  const RigidPose pose = motion != nullptr ? motion->pose_at(time) : RigidPose{};
  std::vector<Vec3> points;
  for (const auto& [key, edge] : edges) {
    if (edge.flat) continue;
    points.push_back(pose.point(edge.a));
    points.push_back(pose.point(edge.b));
  }
  return points;
}

}  // namespace lagniappe::app
