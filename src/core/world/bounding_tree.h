// SPDX-License-Identifier: MIT
// An eight-wide tree of boxes over items, built top-down by the surface area heuristic.
//
// Invariants:
// 1. Boxes are single precision, rounded outwards: they contain their items' double-precision boxes.
// 2. A lane holds a node, an item, or nothing (a box that overlaps none).
// 3. No node is deeper than kMostDepth, so a walk's stack never overflows.
#pragma once

#include <array>
#include <cstdint>
#include <vector>

#if defined(__SSE2__)
#include <emmintrin.h>
#endif

#include "lagniappe/shapes.h"

namespace lagniappe {

class BoundingTree {
 public:
  static constexpr int kLanes = 8;
  static constexpr int kMostDepth = 60;

  // Builds over `boxes`. Afterwards items() holds their numbers in the order of the tree: what is near lies
  // near.
  explicit BoundingTree(const std::vector<Box>& boxes);

  const std::vector<std::uint32_t>& items() const { return items_; }
  std::size_t memory_bytes() const { return nodes_.size() * sizeof(Node); }

  // Calls `each(position)` for at least every item whose box overlaps `region`; positions are those in items().
  template <typename Each>
  void each_in(const Box& region, const Each& each) const {
    if (nodes_.empty()) return;
    const Region wanted(region);
    std::array<std::uint32_t, kLanes*(kMostDepth + 1)> waiting;
    int count = 0;
    waiting[count++] = 0;
    while (count > 0) {
      const Node& node = nodes_[waiting[--count]];
      for (std::uint32_t lanes = wanted.overlapped(node); lanes != 0; lanes &= lanes - 1) {
        const std::uint32_t child = node.child[__builtin_ctz(lanes)];
        if (child & kItem) {
          each(child & ~kItem);
        } else {
          waiting[count++] = child;
        }
      }
    }
  }

 private:
  static constexpr std::uint32_t kItem = 0x80000000u;

  struct alignas(32) Node {
    std::array<std::array<float, kLanes>, 3> low, high;
    std::array<std::uint32_t, kLanes> child;  // An item's position with kItem set, else a node.
  };

  // A box to test eight others against; the same answers on every machine, as comparisons are exact.
  struct Region {
    explicit Region(const Box& box);
    std::uint32_t overlapped(const Node& node) const;
    std::array<float, 3> low, high;
  };

  struct Collapse;

  std::vector<Node> nodes_;
  std::vector<std::uint32_t> items_;
};

inline std::uint32_t BoundingTree::Region::overlapped(const Node& node) const {
#if defined(__SSE2__)
  std::uint32_t mask = 0;
  for (int half = 0; half < 2; ++half) {
    __m128 in = _mm_castsi128_ps(_mm_set1_epi32(-1));
    for (int axis = 0; axis < 3; ++axis) {
      const __m128 node_low = _mm_load_ps(node.low[axis].data() + 4 * half);
      const __m128 node_high = _mm_load_ps(node.high[axis].data() + 4 * half);
      in = _mm_and_ps(in, _mm_and_ps(_mm_cmple_ps(node_low, _mm_set1_ps(high[axis])),
                                     _mm_cmpge_ps(node_high, _mm_set1_ps(low[axis]))));
    }
    mask |= static_cast<std::uint32_t>(_mm_movemask_ps(in)) << (4 * half);
  }
  return mask;
#else
  std::uint32_t mask = 0;
  for (int lane = 0; lane < kLanes; ++lane) {
    bool in = true;
    for (int axis = 0; axis < 3; ++axis)
      in = in && node.low[axis][lane] <= high[axis] && node.high[axis][lane] >= low[axis];
    mask |= std::uint32_t{in} << lane;
  }
  return mask;
#endif
}

}  // namespace lagniappe
