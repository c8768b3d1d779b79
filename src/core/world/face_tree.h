// SPDX-License-Identifier: MIT
// Faces in the order of a bounding tree, and the ways to walk through them.
#pragma once

#include <algorithm>
#include <cmath>

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
    tree_.each_in(region, [&](std::uint32_t position) { each(faces_[position]); });
  }

  // Offers the query every face that the box `start` may meet on its way along `motion_C`, as far as it
  // matters. A long way is gone in pieces, so that what is met early spares the rest; a face in two pieces is
  // offered twice.
  template <typename Query>
  void ask_along(Query& query, const Box& start, const Vec3& motion_C) const {
    const double piece = std::max(kShortestPiece, length(start.size()));
    const double pieces = std::clamp(std::ceil(length(motion_C) / piece), 1.0, kMostPieces);
    for (double i = 0.0; i < pieces && query.bound() >= i / pieces; i += 1.0) {
      Box box{start.low_C + motion_C * (i / pieces), start.high_C + motion_C * (i / pieces)};
      const Vec3 step = motion_C * (1.0 / pieces);
      box.join(Box{box.low_C + step, box.high_C + step});
      each_in(box, [&](const WorldFace& face) { query.offer(face); });
    }
  }

 private:
  static constexpr double kShortestPiece = 2.0, kMostPieces = 1000.0;  // m.

  std::vector<WorldFace> faces_;
  BoundingTree tree_;
  Box box_;
};

}  // namespace lagniappe
