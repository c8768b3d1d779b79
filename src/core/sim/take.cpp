// SPDX-License-Identifier: MIT
#include "lagniappe/take.h"

#include <algorithm>
#include <cmath>

#include "motion/input_edges.h"

namespace lagniappe {
namespace {

// Ticks of two rates laid over each other. In units of 1 / (from * to) s, a tick of `from` is `to` long.
struct Overlap {
  std::int64_t from, to;

  std::int64_t begin_of_new(std::int64_t i) const { return i * from; }
  std::int64_t begin_of_old(std::int64_t i) const { return i * to; }
  // That instant of old tick `i`.
  double at(std::int64_t i, double share) const {
    return static_cast<double>(begin_of_old(i)) + share * static_cast<double>(to);
  }
};

// A new tick, [begin, end).
struct NewTick {
  double begin, end;
  // Shares are floats: what is so near to an end of the tick is there.
  double near() const { return 1e-5 * (end - begin); }

  bool has(double at) const { return at >= begin && at < end; }
  float share(double at) const { return static_cast<float>((at - begin) / (end - begin)); }
  // How much of [low, high) it has.
  double overlap(double low, double high) const {
    return std::max(std::min(end, high) - std::max(begin, low), 0.0);
  }
};

// What goes down and up in old tick `i`, as far as that is within the new one.
void join_buttons(Buttons before, const InputFrame& old, const Overlap& rates, std::int64_t i,
                  const NewTick& tick, InputFrame& frame) {
  const InputEdges edges(old, before);
  for (int k = 0; k < edges.count(); ++k) {
    const double at = rates.at(i, edges.share(k));
    if (!tick.has(at)) continue;
    const float share = tick.share(at);
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

// The sticks of old tick `i`, each until its share of the new one.
void join_sticks(const InputFrame& old, const Overlap& rates, std::int64_t i, const NewTick& tick,
                 std::vector<SticksUntil>& parts) {
  for (double share = 0.0; share < 1.0;) {
    SticksUntil sticks = sticks_at(old, share);
    share = sticks.until;
    const double until = rates.at(i, share);
    if (until <= tick.begin + tick.near()) continue;
    const bool to_the_end = until >= tick.end - tick.near();
    sticks.until = to_the_end ? 1.0f : tick.share(until);
    parts.push_back(sticks);
    if (to_the_end) return;
  }
}

// What is turned by hand, shared out by time, and looks that are set.
void join_looks(const InputFrame& old, const Overlap& rates, std::int64_t i, const NewTick& tick,
                InputFrame& frame) {
  const double begin = rates.at(i, 0.0), end = rates.at(i, 1.0), length = end - begin;
  const double set_at = rates.at(i, share_of(old.look_at));
  if (!old.look || !tick.has(set_at)) {
    frame.look_delta += old.look_delta * (tick.overlap(begin, end) / length);
    return;
  }
  // What was turned before is overruled.
  frame.look = old.look;
  frame.look_at = tick.share(set_at);
  frame.look_delta = old.look_delta * (tick.overlap(set_at, end) / length);
}

InputFrame joined(const std::vector<InputFrame>& inputs, const Overlap& rates, std::int64_t begin,
                  std::int64_t end, Buttons held_before) {
  const auto last_old = static_cast<std::int64_t>(inputs.size()) - 1;
  const NewTick tick{static_cast<double>(begin), static_cast<double>(end)};
  InputFrame frame;
  frame.held = held_before;
  std::vector<SticksUntil> parts;
  for (std::int64_t i = std::min(begin / rates.to, last_old); i <= last_old && rates.begin_of_old(i) < end;
       ++i) {
    const InputFrame& old = inputs[static_cast<std::size_t>(i)];
    join_sticks(old, rates, i, tick, parts);
    join_looks(old, rates, i, tick, frame);
    join_buttons(i > 0 ? inputs[static_cast<std::size_t>(i) - 1].held : Buttons{}, old, rates, i, tick, frame);
  }
  // The whole of a tick turns; what is turned after a look was set must all be there at its end.
  if (frame.look) *frame.look += frame.look_delta * static_cast<double>(frame.look_at);
  // Beyond the end of the old ticks the sticks stay.
  if (parts.empty()) parts.push_back(sticks_at(inputs.back(), 1.0));
  parts.back().until = 1.0f;
  set_sticks(parts, frame);
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
