// SPDX-License-Identifier: MIT
#include "world/bounding_tree.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace lagniappe {
namespace {

constexpr int kBins = 16;
// Items that fit the lanes of one node need no tree among them.
constexpr std::uint32_t kLeafSize = BoundingTree::kLanes;

float rounded_down(double x) {
  const float f = static_cast<float>(x);
  return f <= x ? f : std::nextafter(f, -std::numeric_limits<float>::infinity());
}
float rounded_up(double x) {
  const float f = static_cast<float>(x);
  return f >= x ? f : std::nextafter(f, std::numeric_limits<float>::infinity());
}

double half_area(const Box& b) {
  if (b.empty()) return 0.0;
  const Vec3 s = b.size();
  return s.x * s.y + s.y * s.z + s.z * s.x;
}

// The tree as it is built: binary, collapsed afterwards.
struct Binary {
  Box box;
  std::uint32_t first;  // Leaf: position of its first item; else: its first child; the second lies beside it.
  std::uint32_t count;  // Items of a leaf; 0 in an inner node.
};

struct Split {
  double cost = std::numeric_limits<double>::infinity();
  int axis = -1;
  int bin = 0;  // Items in bins up to and including this one go left.
};

struct Bins {
  std::array<Box, kBins> box{};
  std::array<std::uint32_t, kBins> count{};
};

class Build {
 public:
  Build(const std::vector<Box>& boxes, std::vector<std::uint32_t>& items, std::vector<Binary>& nodes)
      : boxes_(boxes), items_(items), nodes_(nodes) {}

  void run() {
    items_.resize(boxes_.size());
    std::iota(items_.begin(), items_.end(), 0u);
    if (boxes_.empty()) return;
    nodes_.reserve(boxes_.size());
    nodes_.emplace_back();
    std::vector<Range> waiting = {{0, 0, static_cast<std::uint32_t>(boxes_.size()), 0}};
    while (!waiting.empty()) {
      const Range range = waiting.back();
      waiting.pop_back();
      build(range, waiting);
    }
  }

 private:
  struct Range {
    std::uint32_t node, begin, end;
    int depth;
    std::uint32_t count() const { return end - begin; }
  };

  void build(const Range& range, std::vector<Range>& waiting) {
    Box box, centres;
    for (std::uint32_t i = range.begin; i < range.end; ++i) {
      box.join(boxes_[items_[i]]);
      centres.join(boxes_[items_[i]].centre());
    }
    nodes_[range.node].box = box;
    const std::uint32_t middle = range.count() <= kLeafSize ? range.begin : divide(range, centres);
    if (middle == range.begin) {
      nodes_[range.node].first = range.begin;
      nodes_[range.node].count = range.count();
      return;
    }
    const auto child = static_cast<std::uint32_t>(nodes_.size());
    nodes_[range.node].first = child;
    nodes_[range.node].count = 0;
    nodes_.resize(nodes_.size() + 2);
    waiting.push_back({child, range.begin, middle, range.depth + 1});
    waiting.push_back({child + 1, middle, range.end, range.depth + 1});
  }

  // Orders the range in two parts and returns where the second begins. Halves it by count where no plane helps,
  // and where lopsided splits have used up the depth that halving still needs.
  std::uint32_t divide(const Range& range, const Box& centres) {
    const bool depth_left = range.depth < BoundingTree::kMostDepth - 32;
    const Split split = depth_left ? best_split(range, centres) : Split{};
    const auto first = items_.begin() + range.begin, last = items_.begin() + range.end;
    if (split.axis >= 0) {
      const auto middle = std::partition(
          first, last, [&](std::uint32_t item) { return bin_of(item, centres, split.axis) <= split.bin; });
      return static_cast<std::uint32_t>(middle - items_.begin());
    }
    return halve(range, centres);
  }

  std::uint32_t halve(const Range& range, const Box& centres) {
    const Vec3 size = centres.size();
    const int axis = size.x >= size.y && size.x >= size.z ? 0 : (size.y >= size.z ? 1 : 2);
    const std::uint32_t middle = range.begin + range.count() / 2;
    std::nth_element(items_.begin() + range.begin, items_.begin() + middle, items_.begin() + range.end,
                     [&](std::uint32_t a, std::uint32_t b) {
                       const double x = boxes_[a].centre()[axis], y = boxes_[b].centre()[axis];
                       return x < y || (x == y && a < b);
                     });
    return middle;
  }

  int bin_of(std::uint32_t item, const Box& centres, int axis) const {
    const double share = (boxes_[item].centre()[axis] - centres.low_C[axis]) / centres.size()[axis];
    return std::clamp(static_cast<int>(share * kBins), 0, kBins - 1);
  }

  Split best_split(const Range& range, const Box& centres) const {
    Split best;
    for (int axis = 0; axis < 3; ++axis) {
      if (centres.size()[axis] <= 0.0) continue;
      Bins bins;
      for (std::uint32_t i = range.begin; i < range.end; ++i) {
        const int bin = bin_of(items_[i], centres, axis);
        bins.box[bin].join(boxes_[items_[i]]);
        ++bins.count[bin];
      }
      const Split split = cheapest(bins, axis);
      if (split.cost < best.cost) best = split;
    }
    return best;
  }

  static Split cheapest(const Bins& bins, int axis) {
    std::array<double, kBins> right_cost{};
    Box right;
    std::uint32_t right_count = 0;
    for (int i = kBins - 1; i > 0; --i) {
      right.join(bins.box[i]);
      right_count += bins.count[i];
      right_cost[i] = half_area(right) * right_count;
    }
    Split best;
    Box left;
    std::uint32_t left_count = 0;
    for (int i = 0; i + 1 < kBins; ++i) {
      left.join(bins.box[i]);
      left_count += bins.count[i];
      const double cost = half_area(left) * left_count + right_cost[i + 1];
      const bool divides = left_count > 0 && right_cost[i + 1] > 0.0;
      if (divides && cost < best.cost) best = {cost, axis, i};
    }
    return best;
  }

  const std::vector<Box>& boxes_;
  std::vector<std::uint32_t>& items_;
  std::vector<Binary>& nodes_;
};

}  // namespace

// Turns the binary tree into wide nodes: of a node's parts the one with the largest surface is opened until the
// lanes are full.
struct BoundingTree::Collapse {
  const std::vector<Binary>& binary;
  const std::vector<Box>& boxes;  // Of the items, by number.
  BoundingTree& tree;

  void run() {
    struct Waiting {
      std::uint32_t binary, wide;
    };
    tree.nodes_.push_back(empty_node());
    std::vector<Waiting> waiting = {{0, 0}};
    while (!waiting.empty()) {
      const Waiting next = waiting.back();
      waiting.pop_back();
      const Binary& from = binary[next.binary];
      if (from.count > 0) {
        put_items(next.wide, from);
        continue;
      }
      int lane = 0;
      for (const std::uint32_t part : parts_of(next.binary)) {
        const auto wide = static_cast<std::uint32_t>(tree.nodes_.size());
        tree.nodes_.push_back(empty_node());
        put_box(next.wide, lane, binary[part].box);
        tree.nodes_[next.wide].child[static_cast<std::size_t>(lane++)] = wide;
        waiting.push_back({part, wide});
      }
    }
  }

  static Node empty_node() {
    Node node;
    for (int axis = 0; axis < 3; ++axis) {
      node.low[axis].fill(std::numeric_limits<float>::infinity());
      node.high[axis].fill(-std::numeric_limits<float>::infinity());
    }
    node.child.fill(0);
    return node;
  }

  std::vector<std::uint32_t> parts_of(std::uint32_t node) const {
    std::vector<std::uint32_t> parts = {binary[node].first, binary[node].first + 1};
    while (parts.size() < kLanes) {
      std::size_t widest = parts.size();
      double area = -1.0;
      for (std::size_t i = 0; i < parts.size(); ++i) {
        const Binary& part = binary[parts[i]];
        if (part.count > 0 || half_area(part.box) <= area) continue;
        widest = i;
        area = half_area(part.box);
      }
      if (widest == parts.size()) break;
      const std::uint32_t first = binary[parts[widest]].first;
      parts[widest] = first;
      parts.push_back(first + 1);
    }
    return parts;
  }

  void put_items(std::uint32_t wide, const Binary& leaf) {
    for (std::uint32_t i = 0; i < leaf.count; ++i) {
      put_box(wide, static_cast<int>(i), boxes[tree.items_[leaf.first + i]]);
      tree.nodes_[wide].child[i] = (leaf.first + i) | kItem;
    }
  }

  void put_box(std::uint32_t wide, int lane, const Box& box) {
    for (int axis = 0; axis < 3; ++axis) {
      tree.nodes_[wide].low[axis][lane] = rounded_down(box.low_C[axis]);
      tree.nodes_[wide].high[axis][lane] = rounded_up(box.high_C[axis]);
    }
  }
};

// Rounded outwards by more than single precision's half unit: cheaper than the next number down or up, and
// asked for often.
BoundingTree::Region::Region(const Box& box) {
  constexpr float kUnit = 1.2e-7f, kLeast = 1e-30f;
  for (int axis = 0; axis < 3; ++axis) {
    const auto l = static_cast<float>(box.low_C[axis]), h = static_cast<float>(box.high_C[axis]);
    low[axis] = l - (std::abs(l) * kUnit + kLeast);
    high[axis] = h + (std::abs(h) * kUnit + kLeast);
  }
}

BoundingTree::BoundingTree(const std::vector<Box>& boxes) {
  if (boxes.empty()) return;
  std::vector<Binary> binary;
  Build(boxes, items_, binary).run();
  Collapse{binary, boxes, *this}.run();
}

}  // namespace lagniappe
