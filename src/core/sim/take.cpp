// SPDX-License-Identifier: MIT
#include "lagniappe/take.h"

#include <algorithm>
#include <cmath>

#include "motion/button_edges.h"

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

// What goes down and up in old tick `i`, as far as that is within [begin, end).
void join_buttons(Buttons before, const InputFrame& old, const Overlap& rates, std::int64_t i,
                  std::int64_t begin, std::int64_t end, InputFrame& frame) {
  const double length = static_cast<double>(end - begin);
  const ButtonEdges edges(old, before);
  for (int k = 0; k < edges.count(); ++k) {
    const double at =
        static_cast<double>(rates.begin_of_old(i)) + edges.share(k) * static_cast<double>(rates.to);
    if (at < static_cast<double>(begin) || at >= static_cast<double>(end)) continue;
    const auto share = static_cast<float>((at - static_cast<double>(begin)) / length);
    const Buttons pressed = edges.pressed_at(edges.share(k)), held = edges.held_at(edges.share(k));
    for (std::size_t a = 0; a < kActionCount; ++a) {
      const auto action = static_cast<Action>(a);
      if (pressed.has(action)) frame.pressed_at[a] = share;
      if ((frame.held.has(action) || pressed.has(action)) && !held.has(action)) frame.released_at[a] = share;
    }
    frame.pressed.bits |= pressed.bits;
    frame.held = held;
  }
}

// The new tick [begin, end): sticks and turns by their shares of it, so that a push that begins within it takes
// one as far; presses and releases at their instants.
InputFrame joined(const std::vector<InputFrame>& inputs, const Overlap& rates, std::int64_t begin,
                  std::int64_t end, Buttons held_before) {
  const auto last_old = static_cast<std::int64_t>(inputs.size()) - 1;
  const std::int64_t under_way = std::min(begin / rates.to, last_old);
  InputFrame frame = inputs[static_cast<std::size_t>(under_way)];
  frame.look_delta = frame.move = frame.turn_rate = Vec2(0.0);
  frame.look.reset();
  frame.pressed = {};
  frame.pressed_at = frame.released_at = {};
  frame.held = held_before;
  double covered = 0.0;  // Of ticks of the old rate; beyond their end there is nothing.
  for (std::int64_t i = under_way; i <= last_old && rates.begin_of_old(i) < end; ++i) {
    const InputFrame& old = inputs[static_cast<std::size_t>(i)];
    const double share = rates.share(i, begin, end);
    frame.look_delta += old.look_delta * share;
    frame.move += old.move * share;
    frame.turn_rate += old.turn_rate * share;
    covered += share;
    join_buttons(i > 0 ? inputs[static_cast<std::size_t>(i) - 1].held : Buttons{}, old, rates, i, begin, end,
                 frame);
    if (rates.begin_of_old(i) < begin || !old.look) continue;
    // What was turned before is overruled.
    frame.look = old.look;
    frame.look_delta = old.look_delta * share;
  }
  if (covered > 0.0) frame.move /= covered, frame.turn_rate /= covered;
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
    frames.push_back(joined(inputs, rates, rates.begin_of_new(i), rates.begin_of_new(i + 1),
                            frames.empty() ? Buttons{} : frames.back().held));
  return frames;
}

void note_device(std::vector<DeviceUse>& devices, std::uint64_t from_tick, const std::string& device) {
  if (!devices.empty() && devices.back().device == device) return;
  if (!devices.empty() && devices.back().from_tick == from_tick) devices.pop_back();
  // Without that one, what is before it may be the same again.
  if (devices.empty() || devices.back().device != device) devices.push_back({from_tick, device});
}

std::vector<std::string> names_of(const std::vector<DeviceUse>& devices) {
  std::vector<std::string> names;
  for (const DeviceUse& use : devices)
    if (std::find(names.begin(), names.end(), use.device) == names.end()) names.push_back(use.device);
  return names;
}

Take part_of(const Take& take, std::size_t first, std::size_t last, const CharacterState& start) {
  Take part = take;
  const auto at = [](auto& list, std::size_t i) { return list.begin() + static_cast<std::ptrdiff_t>(i); };
  part.start = start;
  part.inputs.assign(at(take.inputs, first), at(take.inputs, last));
  part.parts = take.parts;
  if (!take.hashes.empty()) part.hashes.assign(at(take.hashes, first), at(take.hashes, last));
  if (!take.undivided_hashes.empty())
    part.undivided_hashes.assign(at(take.undivided_hashes, first), at(take.undivided_hashes, last));
  part.dropped.clear();
  for (DroppedTime drop : take.dropped) {
    if (drop.after_tick < first || drop.after_tick >= last) continue;
    drop.after_tick -= first;
    part.dropped.push_back(drop);
  }
  part.devices.clear();
  for (const DeviceUse& use : take.devices)
    if (use.from_tick < last)
      note_device(part.devices, std::max<std::uint64_t>(use.from_tick, first) - first, use.device);
  part.about.devices = names_of(part.devices);
  part.about.path.clear();
  part.about.ticks = last - first;
  return part;
}

}  // namespace lagniappe
