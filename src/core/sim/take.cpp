// SPDX-License-Identifier: MIT
#include "lagniappe/take.h"

#include <algorithm>
#include <cmath>

namespace lagniappe {
namespace {

// Ticks of two rates laid over each other. In units of 1 / (from * to) s, a tick of `from` is `to` long.
struct Overlap {
  std::int64_t from, to;

  std::int64_t begin_of_new(std::int64_t i) const { return i * from; }
  std::int64_t begin_of_old(std::int64_t i) const { return i * to; }
  // The share of old tick `i` that lies within [begin, end).
  double share(std::int64_t i, std::int64_t begin, std::int64_t end) const {
    const std::int64_t low = std::max(begin, begin_of_old(i)), high = std::min(end, begin_of_old(i + 1));
    return static_cast<double>(std::max<std::int64_t>(high - low, 0)) / static_cast<double>(to);
  }
};

// The new tick [begin, end): sticks as under way at its start, turns by their share, presses that begin in it.
InputFrame joined(const std::vector<InputFrame>& inputs, const Overlap& rates, std::int64_t begin,
                  std::int64_t end) {
  const auto last_old = static_cast<std::int64_t>(inputs.size()) - 1;
  const std::int64_t under_way = std::min(begin / rates.to, last_old);
  InputFrame frame = inputs[static_cast<std::size_t>(under_way)];
  frame.look_delta = Vec2(0.0);
  frame.look.reset();
  frame.pressed = {};
  for (std::int64_t i = under_way; i <= last_old && rates.begin_of_old(i) < end; ++i) {
    const InputFrame& old = inputs[static_cast<std::size_t>(i)];
    frame.look_delta += old.look_delta * rates.share(i, begin, end);
    if (rates.begin_of_old(i) < begin) continue;
    frame.pressed.bits |= old.pressed.bits;
    frame.held = old.held;
    if (!old.look) continue;
    // What was turned before is overruled.
    frame.look = old.look;
    frame.look_delta = old.look_delta * rates.share(i, begin, end);
  }
  return frame;
}

}  // namespace

std::vector<InputFrame> inputs_at_rate(const std::vector<InputFrame>& inputs, int from_rate, int to_rate) {
  if (from_rate == to_rate || inputs.empty()) return inputs;
  const Overlap rates{from_rate, to_rate};
  const auto count = static_cast<std::int64_t>(
      std::llround(static_cast<double>(inputs.size()) * to_rate / static_cast<double>(from_rate)));
  std::vector<InputFrame> frames;
  frames.reserve(static_cast<std::size_t>(count));
  for (std::int64_t i = 0; i < count; ++i)
    frames.push_back(joined(inputs, rates, rates.begin_of_new(i), rates.begin_of_new(i + 1)));
  return frames;
}

Take part_of(const Take& take, std::size_t first, std::size_t last, const CharacterState& start) {
  Take part = take;
  const auto at = [](auto& list, std::size_t i) { return list.begin() + static_cast<std::ptrdiff_t>(i); };
  part.start = start;
  part.inputs.assign(at(take.inputs, first), at(take.inputs, last));
  if (!take.hashes.empty()) part.hashes.assign(at(take.hashes, first), at(take.hashes, last));
  part.dropped.clear();
  for (DroppedTime drop : take.dropped) {
    if (drop.after_tick < first || drop.after_tick >= last) continue;
    drop.after_tick -= first;
    part.dropped.push_back(drop);
  }
  part.about.path.clear();
  part.about.ticks = last - first;
  return part;
}

}  // namespace lagniappe
