// SPDX-License-Identifier: MIT
#include "io/model_course.h"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <map>
#include <numeric>
#include <set>
#include <tuple>

#include "geometry/closest.h"
#include "io/model_readers.h"
#include "math/ascii.h"

namespace lagniappe {
namespace {

std::string lower_ending(const std::string& path) {
  return ascii::lower(std::filesystem::path(path).extension().string());
}

// Hands out names that are unlike all before, in the order of asking: "Post", "Post 2", "Post 3" ...
class UnusedIds {
 public:
  std::string next(std::string wanted) {
    if (wanted.empty()) wanted = "Part";
    int& n = next_number_[wanted];
    std::string id = n == 0 ? wanted : wanted + " " + std::to_string(n + 1);
    for (++n; !used_.insert(id).second; ++n) id = wanted + " " + std::to_string(n + 1);
    return id;
  }

 private:
  std::set<std::string> used_;
  std::map<std::string, int> next_number_;  // So that a forest of equal names is not counted through each time.
};

// Whether the default capsule stands free on `foot_C`.
bool stands_free(const World& world, const Profile& profile, const Vec3& foot_C) {
  const auto& capsule = profile.capsule;
  const Segment axis =
      capsule_axis(foot_C + Vec3(0.0, 0.01, 0.0), Vec3(0.0, 1.0, 0.0), capsule.radius, capsule.height);
  std::array<WorldContact, 1> contact;
  return world.contacts(axis, capsule.radius, contact) == 0;
}

// Numbers for vertices, equal where they lie at the same place.
std::vector<std::uint32_t> welded(const std::vector<Vec3>& vertices) {
  std::vector<std::uint32_t> order(vertices.size()), number(vertices.size());
  std::iota(order.begin(), order.end(), 0u);
  const auto key = [&](std::uint32_t i) { return std::tuple(vertices[i].x, vertices[i].y, vertices[i].z); };
  std::sort(order.begin(), order.end(), [&](auto a, auto b) { return key(a) < key(b); });
  for (std::size_t i = 0; i < order.size(); ++i) {
    const bool same = i > 0 && vertices[order[i]] == vertices[order[i - 1]];
    number[order[i]] = same ? number[order[i - 1]] : static_cast<std::uint32_t>(i);
  }
  return number;
}

// Whether a mesh encloses a solid: along every edge faces meet as often one way round as the other.
bool is_closed(const shape::Triangles& mesh) {
  const std::vector<std::uint32_t> number = welded(mesh.vertices);
  std::vector<std::tuple<std::uint32_t, std::uint32_t, int>> sides;
  sides.reserve(3 * mesh.triangles.size());
  for (const auto& t : mesh.triangles) {
    for (int i = 0; i < 3; ++i) {
      const std::uint32_t a = number[t[i]], b = number[t[(i + 1) % 3]];
      if (a != b) sides.emplace_back(std::min(a, b), std::max(a, b), a < b ? 1 : -1);
    }
  }
  std::sort(sides.begin(), sides.end());
  for (std::size_t i = 0; i < sides.size();) {
    int sum = 0;
    const auto& [a, b, first] = sides[i];
    for (; i < sides.size() && std::get<0>(sides[i]) == a && std::get<1>(sides[i]) == b; ++i)
      sum += std::get<2>(sides[i]);
    if (sum != 0) return false;
  }
  return !sides.empty();
}

// A model to look for a start on.
struct ModelGround {
  TriangleWorld world;
  Box box;
  std::vector<bool> closed;  // By piece.
};

// Whether a place is inside a closed solid: on the way up more of its faces are left through than are entered.
bool is_inside(const ModelGround& ground, const Vec3& place_C) {
  const double top = ground.box.high_C.y + 1.0;
  constexpr int kMostFaces = 1000;
  Vec3 from = place_C;
  int left = 0;
  for (int i = 0; i < kMostFaces && from.y < top; ++i) {
    const auto hit = ground.world.cast_ray(from, Vec3(0.0, top - from.y, 0.0));
    if (!hit) break;
    if (ground.closed[hit->piece])
      left += winding_normal(ground.world.triangle(hit->triangle)).y > 0.0 ? 1 : -1;
    from.y = hit->hit.point_C.y + 1e-6;
  }
  return left > 0;
}

// The lowest place in the column through (x, z) that can be stood on, not inside a closed solid.
std::optional<Vec3> lowest_stand(const ModelGround& ground, const Profile& profile, double x, double z) {
  const Box& box = ground.box;
  const TriangleWorld& world = ground.world;
  constexpr int kMostFloors = 64;
  const double bottom = box.low_C.y - 1.0;
  Vec3 from(x, box.high_C.y + 1.0, z);
  std::optional<Vec3> lowest;
  for (int floor = 0; floor < kMostFloors; ++floor) {
    const auto hit = world.cast_ray(from, Vec3(0.0, bottom - from.y, 0.0));
    if (!hit) break;
    // On a slope the capsule touches beside its lowest point; a little higher it is free.
    const double lift = profile.capsule.radius * (1.0 / std::max(hit->hit.normal_C.y, 0.1) - 1.0);
    const Vec3 foot = hit->hit.point_C + Vec3(0.0, lift, 0.0);
    const bool walks = hit->hit.normal_C.y >= std::cos(profile.ground.steepest_walkable);
    if (walks && stands_free(world, profile, foot) && !is_inside(ground, foot + Vec3(0.0, 0.01, 0.0)))
      lowest = foot;
    from.y = hit->hit.point_C.y - 1e-3;
  }
  return lowest;
}

// Looks along a square spiral of columns from the middle of the model outwards.
std::optional<Vec3> find_start(const ModelGround& ground) {
  constexpr int kRings = 40;
  const Profile profile;
  const Vec3 middle = ground.box.centre(), half = 0.5 * ground.box.size();
  for (int ring = 0; ring <= kRings; ++ring) {
    for (int i = -ring; i <= ring; ++i) {
      for (int j = -ring; j <= ring; ++j) {
        if (std::max(std::abs(i), std::abs(j)) != ring) continue;
        // Off the grid lines, where models like to have their edges.
        const double x = middle.x + half.x * (i + 0.013) / (kRings + 1),
                     z = middle.z + half.z * (j + 0.017) / (kRings + 1);
        if (const auto foot = lowest_stand(ground, profile, x, z)) return foot;
      }
    }
  }
  return std::nullopt;
}

}  // namespace

bool is_model_path(const std::string& path) {
  const std::string ending = lower_ending(path);
  return ending == ".glb" || ending == ".gltf" || ending == ".obj";
}

Result<shape::Triangles> joined(const Model& model, const std::string& path) {
  shape::Triangles all;
  for (const ModelPart& part : model.parts) {
    const auto base = static_cast<std::uint32_t>(all.vertices.size());
    all.vertices.insert(all.vertices.end(), part.mesh.vertices.begin(), part.mesh.vertices.end());
    for (const auto& [i, j, k] : part.mesh.triangles) all.triangles.push_back({base + i, base + j, base + k});
    std::vector<std::uint16_t> number = {0};  // In the whole, by that in the part.
    for (const auto& surface : part.mesh.surfaces)
      number.push_back(static_cast<std::uint16_t>(number_of(surface, all.surfaces)));
    if (all.surfaces.size() > kMostSurfaces)
      return refuse(
          {path, "the whole model", fmt::format("it is made of more than {} surfaces", kMostSurfaces)});
    for (const std::uint16_t surface : part.mesh.surface_of) all.surface_of.push_back(number[surface]);
    if (!all.surfaces.empty()) all.surface_of.resize(all.triangles.size(), 0);
  }
  return all;
}

Result<Course> course_of(const Model& model, const std::string& path) {
  Course course;
  course.name = plain_name(std::filesystem::path(path).stem().string());
  course.dropped_triangles = model.dropped;
  UnusedIds ids;
  Box box;
  for (const ModelPart& part : model.parts) {
    for (const Vec3& v : part.mesh.vertices) box.join(v);
    course.pieces.push_back({ids.next(part.name), Vec3(0.0), Vec3(0.0), "",
                             shape::Model{path, std::make_shared<const shape::Triangles>(part.mesh)}});
  }
  for (const ModelMark& node : model.nodes) {
    if (node.name == "start" && course.marks.empty()) course.marks.push_back({"start", node.at_C, node.facing});
  }
  if (course.marks.empty()) {
    ModelGround ground{build_world(course), box, {}};
    for (const ModelPart& part : model.parts) ground.closed.push_back(is_closed(part.mesh));
    const auto foot = find_start(ground);
    course.starts_in_flight = !foot;
    constexpr double kAbove = 2.0;  // m.
    course.marks.push_back(
        {"start", foot.value_or(Vec3(box.centre().x, box.high_C.y + kAbove, box.centre().z)), 0.0});
  }
  return course;
}

}  // namespace lagniappe
