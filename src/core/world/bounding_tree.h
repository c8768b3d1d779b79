// SPDX-License-Identifier: MIT
// A binary tree of boxes over triangles, built top-down by the surface area heuristic.
//
// Invariants:
// 1. Boxes are single precision, rounded outwards: they contain their triangles' double-precision coordinates.
// 2. Children lie side by side, after their parent; node 0 is the root.
// 3. No leaf is deeper than kMostDepth, so a walk's stack of that size never overflows.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <vector>

#include "lagniappe/shapes.h"

namespace lagniappe {

class BoundingTree {
 public:
  struct Node {
    std::array<float, 3> low;
    std::uint32_t first;  // Leaf: position of its first item; else: its first child's node.
    std::array<float, 3> high;
    std::uint32_t count;  // Items of a leaf; 0 in an inner node.

    bool overlaps(const Box& box) const {
      for (int i = 0; i < 3; ++i) {
        if (box.low_C[i] > high[i] || box.high_C[i] < low[i]) return false;
      }
      return true;
    }
  };
  static_assert(sizeof(Node) == 32);

  static constexpr int kMostDepth = 60;
  static constexpr std::uint32_t kLeafSize = 4;

  // Builds over `boxes`. Afterwards items() holds their numbers in the order that leaves refer to.
  explicit BoundingTree(const std::vector<Box>& boxes);

  const std::vector<std::uint32_t>& items() const { return items_; }
  std::size_t memory_bytes() const { return nodes_.size() * sizeof(Node); }

  // Visits the leaves whose boxes pass, nearer first.
  // `enter(node) -> double`: where a node begins to matter (a fraction or a squared distance), negative to skip
  // it. `bound() -> double`: nodes that begin beyond it are skipped; it may shrink during the walk.
  // `leaf(first, count)`: positions in items().
  template <typename Enter, typename Bound, typename Leaf>
  void walk(const Enter& enter, const Bound& bound, const Leaf& leaf) const {
    if (nodes_.empty() || enter(nodes_[0]) < 0.0) return;
    struct Waiting {
      std::uint32_t node;
      double begin;
    };
    std::array<Waiting, kMostDepth + 2> stack;
    int waiting = 0;
    stack[waiting++] = {0, 0.0};
    while (waiting > 0) {
      const Waiting top = stack[--waiting];
      if (top.begin > bound()) continue;
      const Node& node = nodes_[top.node];
      if (node.count > 0) {
        leaf(node.first, node.count);
        continue;
      }
      Waiting near = {node.first, enter(nodes_[node.first])};
      Waiting far = {node.first + 1, enter(nodes_[node.first + 1])};
      if (far.begin < near.begin) std::swap(near, far);
      if (far.begin >= 0.0) stack[waiting++] = far;
      if (near.begin >= 0.0) stack[waiting++] = near;
    }
  }

 private:
  std::vector<Node> nodes_;
  std::vector<std::uint32_t> items_;
};

// Where a box moving along a line enters a tree node. Division by a zero motion is avoided by a huge inverse: 0
// times it stays 0, everything else lands far outside [0, 1].
class MovingBox {
 public:
  MovingBox(const Box& start, const Vec3& motion) : centre_(start.centre()), half_(0.5 * start.size()) {
    for (int i = 0; i < 3; ++i) inverse_[i] = std::abs(motion[i]) > 1e-300 ? 1.0 / motion[i] : 1e300;
  }

  // As a fraction of the motion; negative if it never does.
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

}  // namespace lagniappe
