// SPDX-License-Identifier: MIT
#include "lagniappe/triangle_world.h"

#include <algorithm>
#include <cassert>

#include "geometry/closest.h"
#include "geometry/tolerances.h"
#include "world/bounding_tree.h"

namespace lagniappe {
namespace {

constexpr double kLimitsBeyondTriangles = 50.0;

// Where a box moving along a line enters a tree node. Division by a zero motion is avoided by a huge inverse: 0
// times it stays 0, everything else lands far outside [0, 1].
class MovingBox {
 public:
  MovingBox(const Box& start, const Vec3& motion) : centre_(start.centre()), half_(0.5 * start.size()) {
    for (int i = 0; i < 3; ++i) inverse_[i] = std::abs(motion[i]) > 1e-300 ? 1.0 / motion[i] : 1e300;
  }

  double enter(const BoundingTree::Node& node) const {
    double begin = 0.0, end = 1.0;
    for (int i = 0; i < 3; ++i) {
      const double a = (node.low[i] - half_[i] - centre_[i]) * inverse_[i];
      const double b = (node.high[i] + half_[i] - centre_[i]) * inverse_[i];
      begin = std::max(begin, std::min(a, b));
      end = std::min(end, std::max(a, b));
    }
    return begin <= end ? begin : -1.0;
  }

 private:
  Vec3 centre_, half_, inverse_;
};

bool overlaps(const Box& box, const BoundingTree::Node& node) {
  for (int i = 0; i < 3; ++i) {
    if (box.low_C[i] > node.high[i] || box.high_C[i] < node.low[i]) return false;
  }
  return true;
}

// The part of a sweep hit that ties are decided by: face, edge, vertex, then the lower triangle.
bool preferred(const WorldHit& a, const WorldHit& b) {
  if (a.hit.feature != b.hit.feature) return a.hit.feature < b.hit.feature;
  return a.triangle < b.triangle;
}

bool nearer(const WorldContact& a, const WorldContact& b) {
  if (a.closest.distance != b.closest.distance) return a.closest.distance < b.closest.distance;
  return a.triangle < b.triangle;
}

}  // namespace

struct TriangleWorld::Data {
  // Triangles in the tree's order, beside what queries want of them; `index` is the order of adding.
  struct Face {
    Triangle triangle;
    Vec3 normal_C;
    PieceId piece;
    std::uint32_t index;
  };
  BoundingTree tree;
  std::vector<Face> faces;
  std::vector<std::uint32_t> position;  // By the order of adding: where the face lies.
  std::vector<std::string> names;
  Box limits;

  Vec3 normal_towards(const Face& face, const Vec3& direction_C) const {
    return dot(face.normal_C, direction_C) >= 0.0 ? face.normal_C : -face.normal_C;
  }
};

PieceId TriangleWorld::Builder::begin_piece(std::string name) {
  names_.push_back(std::move(name));
  return static_cast<PieceId>(names_.size() - 1);
}

bool TriangleWorld::Builder::add(const Triangle& t) {
  assert(!names_.empty());
  if (!is_finite(t.v0_C) || !is_finite(t.v1_C) || !is_finite(t.v2_C)) return false;
  const double double_area = length(cross(t.v1_C - t.v0_C, t.v2_C - t.v0_C));
  if (!(double_area >= kLeastDoubleArea) || !std::isfinite(double_area)) return false;
  triangles_.push_back(t);
  pieces_.push_back(static_cast<PieceId>(names_.size() - 1));
  return true;
}

TriangleWorld TriangleWorld::Builder::commit(Options options) {
  std::vector<Box> boxes;
  boxes.reserve(triangles_.size());
  Box all;
  for (const Triangle& t : triangles_) {
    boxes.push_back(bounds(t));
    all.join(boxes.back());
  }
  if (options.limits.empty()) {
    if (all.empty()) all = Box{Vec3(0.0), Vec3(0.0)};
    options.limits = all.grown(kLimitsBeyondTriangles);
  }
  auto data = std::make_unique<Data>(Data{BoundingTree(boxes), {}, {}, std::move(names_), options.limits});
  data->faces.reserve(triangles_.size());
  data->position.resize(triangles_.size());
  for (const std::uint32_t item : data->tree.items()) {
    data->position[item] = static_cast<std::uint32_t>(data->faces.size());
    data->faces.push_back({triangles_[item], winding_normal(triangles_[item]), pieces_[item], item});
  }
  *this = Builder();
  return TriangleWorld(std::move(data));
}

TriangleWorld::TriangleWorld(std::unique_ptr<Data> data) : data_(std::move(data)) {}
TriangleWorld::TriangleWorld(TriangleWorld&&) noexcept = default;
TriangleWorld& TriangleWorld::operator=(TriangleWorld&&) noexcept = default;
TriangleWorld::~TriangleWorld() = default;

std::optional<WorldHit> TriangleWorld::sweep(const Segment& axis, double radius, const Vec3& motion) const {
  const MovingBox moving(bounds(axis).grown(radius + kTouch), motion);
  const double far = length(motion);
  const double tie = far > 0.0 ? kTouch / far : 0.0;
  std::optional<WorldHit> best;
  const auto bound = [&] { return best ? best->hit.fraction + tie : 1.0; };
  const auto leaf = [&](std::uint32_t first, std::uint32_t count) {
    for (std::uint32_t i = first; i < first + count; ++i) {
      const Data::Face& face = data_->faces[i];
      const auto fraction = sweep_fraction(axis, radius, motion, face.triangle);
      if (!fraction || *fraction > bound()) continue;
      const Closest c = closest(moved(axis, motion * *fraction), face.triangle);
      WorldHit candidate{{*fraction, c.on_triangle_C, c.normal_C, c.feature},
                         data_->normal_towards(face, c.normal_C),
                         face.piece,
                         face.index};
      if (!best || *fraction < best->hit.fraction - tie) {
        best = candidate;
      } else {
        const double least = std::min(*fraction, best->hit.fraction);
        if (preferred(candidate, *best)) best = candidate;
        best->hit.fraction = least;
      }
    }
  };
  data_->tree.walk([&](const BoundingTree::Node& n) { return moving.enter(n); }, bound, leaf);
  return best;
}

std::size_t TriangleWorld::contacts(const Segment& axis, double radius, std::span<WorldContact> out) const {
  const Box box = bounds(axis).grown(radius);
  std::size_t count = 0;
  const auto keep = [&](const WorldContact& contact) {
    if (count == out.size()) {
      if (count == 0 || !nearer(contact, out[count - 1])) return;
    } else {
      ++count;
    }
    std::size_t at = count - 1;
    for (; at > 0 && nearer(contact, out[at - 1]); --at) out[at] = out[at - 1];
    out[at] = contact;
  };
  const auto leaf = [&](std::uint32_t first, std::uint32_t n) {
    for (std::uint32_t i = first; i < first + n; ++i) {
      const Data::Face& face = data_->faces[i];
      if (!box.overlaps(bounds(face.triangle))) continue;
      const Closest c = closest(axis, face.triangle);
      if (c.distance <= radius) keep({c, data_->normal_towards(face, c.normal_C), face.piece, face.index});
    }
  };
  data_->tree.walk([&](const BoundingTree::Node& n) { return overlaps(box, n) ? 0.0 : -1.0; },
                   [] { return 0.0; }, leaf);
  return count;
}

std::optional<WorldRayHit> TriangleWorld::cast_ray(const Vec3& origin, const Vec3& motion) const {
  const MovingBox moving(Box{origin, origin}.grown(kTouch), motion);
  std::optional<WorldRayHit> best;
  std::uint32_t best_index = 0;
  const auto leaf = [&](std::uint32_t first, std::uint32_t count) {
    for (std::uint32_t i = first; i < first + count; ++i) {
      const Data::Face& face = data_->faces[i];
      const auto hit = lagniappe::cast_ray(origin, motion, face.triangle);
      if (!hit) continue;
      const bool tie = best && hit->fraction == best->hit.fraction && face.index < best_index;
      if (best && !tie && hit->fraction >= best->hit.fraction) continue;
      best = WorldRayHit{*hit, face.piece};
      best_index = face.index;
    }
  };
  data_->tree.walk([&](const BoundingTree::Node& n) { return moving.enter(n); },
                   [&] { return best ? best->hit.fraction : 1.0; }, leaf);
  return best;
}

Box TriangleWorld::limits() const { return data_->limits; }

std::string_view TriangleWorld::piece_name(PieceId piece) const {
  return piece < data_->names.size() ? std::string_view(data_->names[piece]) : std::string_view();
}

std::size_t TriangleWorld::triangle_count() const { return data_->faces.size(); }
std::size_t TriangleWorld::piece_count() const { return data_->names.size(); }

std::size_t TriangleWorld::memory_bytes() const {
  return data_->tree.memory_bytes() + data_->faces.size() * (sizeof(Data::Face) + 2 * sizeof(std::uint32_t));
}

const Triangle& TriangleWorld::triangle(std::size_t index) const {
  return data_->faces[data_->position[index]].triangle;
}

PieceId TriangleWorld::triangle_piece(std::size_t index) const {
  return data_->faces[data_->position[index]].piece;
}

}  // namespace lagniappe
