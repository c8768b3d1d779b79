// SPDX-License-Identifier: MIT
// Faces in the order of a bounding tree, and the ways to walk through them.
#pragma once

#include "lagniappe/world.h"
#include "world/bounding_tree.h"

namespace lagniappe {

class FaceTree {
 public:
  explicit FaceTree(std::vector<WorldFace> faces);

  const std::vector<WorldFace>& faces() const { return faces_; }
  const Box& box() const { return box_; }
  std::size_t memory_bytes() const { return tree_.memory_bytes() + faces_.size() * sizeof(WorldFace); }

  // Calls `each(face)` for at least every face whose box overlaps `region`.
  template <typename Each>
  void each_in(const Box& region, const Each& each) const {
    tree_.walk([&](const BoundingTree::Node& n) { return n.overlaps(region) ? 0.0 : -1.0; }, [] { return 0.0; },
               [&](std::uint32_t first, std::uint32_t count) {
                 for (std::uint32_t i = first; i < first + count; ++i) each(faces_[i]);
               });
  }

  // Offers the query, nearest first, every face that the box `start` may meet on its way along `motion_C`.
  template <typename Query>
  void ask_along(Query& query, const Box& start, const Vec3& motion_C) const {
    const MovingBox moving(start, motion_C);
    tree_.walk([&](const BoundingTree::Node& n) { return moving.enter(n); }, [&] { return query.bound(); },
               [&](std::uint32_t first, std::uint32_t count) {
                 for (std::uint32_t i = first; i < first + count; ++i) query.offer(faces_[i]);
               });
  }

 private:
  std::vector<WorldFace> faces_;
  BoundingTree tree_;
  Box box_;
};

}  // namespace lagniappe
