// SPDX-License-Identifier: MIT
#include "world/bounding_tree.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace lagniappe {
namespace {

constexpr int kBins = 16;
// Cost of passing an inner node against that of one triangle; measured on the demo course, flat around 1.
constexpr double kNodeCost = 1.0;

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
  Build(const std::vector<Box>& boxes, std::vector<std::uint32_t>& items,
        std::vector<BoundingTree::Node>& nodes)
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
    set_box(range.node, box);
    const std::uint32_t middle =
        range.count() <= BoundingTree::kLeafSize ? range.begin : divide(range, box, centres);
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

  void set_box(std::uint32_t node, const Box& box) {
    for (int i = 0; i < 3; ++i) {
      nodes_[node].low[i] = rounded_down(box.low_C[i]);
      nodes_[node].high[i] = rounded_up(box.high_C[i]);
    }
  }

  // Orders the range in two parts and returns where the second begins. Halves it by count where no plane helps,
  // and where lopsided splits have used up the depth that halving still needs.
  std::uint32_t divide(const Range& range, const Box& box, const Box& centres) {
    const bool depth_left = range.depth < BoundingTree::kMostDepth - 32;
    const Split split = depth_left ? best_split(range, centres) : Split{};
    const double leaf_cost = half_area(box) * range.count();
    const bool small = range.count() <= 2 * BoundingTree::kLeafSize;
    if (split.axis >= 0 && small && split.cost + kNodeCost * half_area(box) >= leaf_cost) return range.begin;
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
  std::vector<BoundingTree::Node>& nodes_;
};

}  // namespace

BoundingTree::BoundingTree(const std::vector<Box>& boxes) { Build(boxes, items_, nodes_).run(); }

}  // namespace lagniappe
