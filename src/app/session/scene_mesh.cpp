// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/scene_mesh.h"

#include <array>
#include <map>
#include <unordered_map>

namespace lagniappe::app {
namespace {

const double kCreaseCosine = std::cos(radians(20.0));
constexpr double kWeld = 1e-4;  // m; corners this near are one, for finding shared edges.

// Corners of one piece by place, so that triangles that only touch share them.
class Welder {
 public:
  std::uint32_t corner(const Vec3& p) {
    const std::array<long long, 3> key = {std::llround(p.x / kWeld), std::llround(p.y / kWeld),
                                          std::llround(p.z / kWeld)};
    return corners_.try_emplace(key, static_cast<std::uint32_t>(corners_.size())).first->second;
  }

 private:
  struct Mix {
    std::size_t operator()(const std::array<long long, 3>& key) const {
      std::uint64_t h = 0;
      for (const long long k : key) h = (h ^ static_cast<std::uint64_t>(k)) * 0x9E3779B97F4A7C15ull;
      return h ^ (h >> 29);
    }
  };
  std::unordered_map<std::array<long long, 3>, std::uint32_t, Mix> corners_;
};

struct Edge {
  Vec3 a, b, normal;
  bool crease = true;  // Until a neighbour is found that lies flat to it.
};

class CreaseFinder {
 public:
  void add(const Triangle& t, const Vec3& normal) {
    const Vec3 v[] = {t.v0_C, t.v1_C, t.v2_C};
    const std::uint32_t c[] = {welder_.corner(v[0]), welder_.corner(v[1]), welder_.corner(v[2])};
    for (int i = 0; i < 3; ++i) {
      const int j = (i + 1) % 3;
      const std::uint64_t key = (std::uint64_t{std::min(c[i], c[j])} << 32) | std::max(c[i], c[j]);
      const auto [found, fresh] = edges_.try_emplace(key, Edge{v[i], v[j], normal});
      if (!fresh && std::abs(dot(found->second.normal, normal)) > kCreaseCosine) found->second.crease = false;
    }
  }
  template <typename Each>
  void each_crease(Each each) const {
    for (const auto& [key, edge] : edges_) {
      if (edge.crease) each(edge);
    }
  }

 private:
  Welder welder_;
  std::unordered_map<std::uint64_t, Edge> edges_;
};

void put(float (&out)[3], const Vec3& v) {
  for (int i = 0; i < 3; ++i) out[i] = static_cast<float>(v[i]);
}
void put(float (&out)[4], const QColor& c) {
  out[0] = c.redF();
  out[1] = c.greenF();
  out[2] = c.blueF();
  out[3] = c.alphaF();
}

const QColor kCreaseColour(0x20, 0x30, 0x3A, 130), kGridColour(0x20, 0x30, 0x3A, 52),
    kStrongGridColour(0x20, 0x30, 0x3A, 88);
constexpr double kGridFacesUp = 0.6;   // Cosine to up of what carries metre lines.
constexpr double kGridLift = 0.004;    // m above the face.
constexpr double kGridArea = 0.5;      // m2; smaller faces are read by their edges.
constexpr double kPlainArea = 2000.0;  // m2; larger faces only get the strong lines, of 5 m.
constexpr std::size_t kMostGridTriangles = 200000;

void put_line(std::vector<LineVertex>& out, const Vec3& a, const Vec3& b, const QColor& colour) {
  for (const Vec3& p : {a, b}) {
    LineVertex& v = out.emplace_back();
    put(v.position, p);
    put(v.colour, colour);
  }
}

// Adds the lines in which the planes x = 0, 1, 2 ... (or z) cut the triangle.
void add_grid_lines(SceneMesh& mesh, const Triangle& t, const Vec3& normal, bool only_strong, int axis) {
  const Vec3 v[] = {t.v0_C, t.v1_C, t.v2_C};
  const Box box = bounds(t);
  for (double at = std::ceil(box.low_C[axis]); at <= box.high_C[axis]; at += 1.0) {
    std::vector<Vec3> cuts;
    for (int i = 0; i < 3; ++i) {
      const Vec3 &a = v[i], &b = v[(i + 1) % 3];
      if ((a[axis] < at) != (b[axis] < at))
        cuts.push_back(a + (b - a) * ((at - a[axis]) / (b[axis] - a[axis])));
    }
    if (cuts.size() != 2) continue;
    const Vec3 lift = normal * kGridLift - mesh.origin_C;
    const bool strong = std::remainder(at, 5.0) == 0.0;
    if (only_strong && !strong) continue;
    put_line(strong ? mesh.strong_grid : mesh.grid, cuts[0] + lift, cuts[1] + lift,
             strong ? kStrongGridColour : kGridColour);
  }
}

}  // namespace

QColor surface_colour(const std::string& surface) {
  static const std::map<std::string, QColor> known = {
      {"stone", {0xCF, 0xC5, 0xB6}}, {"mud", {0xC4, 0xB8, 0xA2}},    {"grass", {0xAE, 0xB6, 0x94}},
      {"brick", {0xC4, 0xA0, 0x8C}}, {"wood", {0xC8, 0xB0, 0x8A}},   {"iron", {0x93, 0xA0, 0x9F}},
      {"slate", {0x93, 0x9B, 0xA2}}, {"silt", {0xB9, 0xAE, 0x93}},   {"ivy", {0x8E, 0xA3, 0x7D}},
      {"oil", {0x6E, 0x6A, 0x70}},   {"thorns", {0x8A, 0x7F, 0x62}}, {"slime", {0x9D, 0xAE, 0x8E}},
      {"rungs", {0xA8, 0x9C, 0x86}},
  };
  const auto found = known.find(surface);
  return found != known.end() ? found->second : QColor(0xCB, 0xBF, 0xAF);
}

namespace {

class SceneBuilder {
 public:
  SceneBuilder(const Course& course, const TriangleWorld& world) : course_(course), world_(world) {
    Box box;
    for (std::size_t i = 0; i < world.triangle_count(); ++i) {
      if (!moves(i)) box.join(bounds(world.triangle(i)));
    }
    if (!box.empty()) mesh_.origin_C = box.centre();
    mesh_.triangles.reserve(3 * world.triangle_count());
  }

  SceneMesh build() {
    for (std::size_t begin = 0; begin < world_.triangle_count();) {
      std::size_t end = begin;
      while (end < world_.triangle_count() && world_.triangle_piece(end) == world_.triangle_piece(begin)) ++end;
      moves(begin) ? add_mover(begin, end) : add_still(begin, end);
      begin = end;
    }
    return std::move(mesh_);
  }

 private:
  bool moves(std::size_t triangle) const {
    return world_.motion_of(world_.triangle_piece(triangle)) != nullptr;
  }

  // One piece's triangles and creases, moved by `shift`.
  void add_piece(std::size_t begin, std::size_t end, const Vec3& shift, std::vector<DrawVertex>& triangles,
                 std::vector<LineVertex>& creases) {
    CreaseFinder finder;
    const QColor colour = surface_colour(course_.pieces[world_.triangle_piece(begin)].surface);
    for (std::size_t i = begin; i < end; ++i) {
      const Triangle& t = world_.triangle(i);
      const Vec3 normal = normal_of(t);
      for (const Vec3& p : {t.v0_C, t.v1_C, t.v2_C}) {
        DrawVertex& v = triangles.emplace_back();
        put(v.position, p + shift);
        put(v.normal, normal);
        put(v.colour, colour);
      }
      finder.add(t, normal);
    }
    finder.each_crease(
        [&](const Edge& edge) { put_line(creases, edge.a + shift, edge.b + shift, kCreaseColour); });
  }

  void add_still(std::size_t begin, std::size_t end) {
    add_piece(begin, end, -mesh_.origin_C, mesh_.triangles, mesh_.creases);
    if (world_.triangle_count() > kMostGridTriangles) return;
    for (std::size_t i = begin; i < end; ++i) {
      const Triangle& t = world_.triangle(i);
      const Vec3 normal = normal_of(t);
      const double area = 0.5 * length(cross(t.v1_C - t.v0_C, t.v2_C - t.v0_C));
      if (std::abs(normal.y) <= kGridFacesUp || area <= kGridArea) continue;
      for (const int axis : {0, 2})
        add_grid_lines(mesh_, t, normal.y > 0.0 ? normal : -normal, area > kPlainArea, axis);
    }
  }

  void add_mover(std::size_t begin, std::size_t end) {
    const auto first = [](const auto& list) { return static_cast<int>(list.size()); };
    SceneMesh::Mover mover{
        world_.triangle_piece(begin), {first(mesh_.moving_triangles)}, {first(mesh_.moving_creases)}};
    add_piece(begin, end, Vec3(0.0), mesh_.moving_triangles, mesh_.moving_creases);
    mover.triangles.count = first(mesh_.moving_triangles) - mover.triangles.first;
    mover.creases.count = first(mesh_.moving_creases) - mover.creases.first;
    mesh_.movers.push_back(mover);
  }

  static Vec3 normal_of(const Triangle& t) {
    return unit_or(cross(t.v1_C - t.v0_C, t.v2_C - t.v0_C), Vec3(0, 1, 0));
  }

  const Course& course_;
  const TriangleWorld& world_;
  SceneMesh mesh_;
};

}  // namespace

SceneMesh scene_mesh(const Course& course, const TriangleWorld& world) {
  return SceneBuilder(course, world).build();
}

}  // namespace lagniappe::app
