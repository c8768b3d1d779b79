// SPDX-License-Identifier: GPL-3.0-or-later
#include "tape/tape_index.h"

#include <algorithm>

namespace lagniappe::app {
namespace {

constexpr std::size_t kFan = 8;

void extend(std::vector<Stretch>& stretches, std::size_t tick) {
  if (!stretches.empty() && stretches.back().last + 1 == tick) {
    stretches.back().last = tick;
  } else {
    stretches.push_back({tick, tick});
  }
}

}  // namespace

void MinMaxPyramid::add(float value) {
  std::size_t at = levels_.front().size();
  for (std::vector<Bounds>& level : levels_) {
    if (at == level.size()) level.push_back({value, value});
    level[at] = {std::min(level[at].low, value), std::max(level[at].high, value)};
    at /= kFan;
  }
}

MinMaxPyramid::Bounds MinMaxPyramid::bounds(std::size_t first, std::size_t last) const {
  Bounds all = levels_.front()[first];
  const auto take = [&](const Bounds& b) { all = {std::min(all.low, b.low), std::max(all.high, b.high)}; };
  // Single values up to whole blocks, blocks up to larger ones, and down again.
  std::size_t i = first, end = last + 1;
  for (std::size_t level = 0; i < end; ++level) {
    const std::vector<Bounds>& values = levels_[level];
    if (level + 1 == levels_.size()) {
      for (; i < end; ++i) take(values[i]);
      break;
    }
    for (; i < end && i % kFan != 0; ++i) take(values[i]);
    for (; i < end && end % kFan != 0; --end) take(values[end - 1]);
    i /= kFan;
    end /= kFan;
  }
  return all;
}

bool TapeIndex::update(const Recording& recording, std::uint64_t revision) {
  const bool other = !begun_ || revision != revision_ || recording.run.ticks() < ticks_;
  if (!other && recording.run.ticks() == ticks_) return false;
  if (other) {
    *this = {};
    begun_ = true;
    revision_ = revision;
    states_.push_back({recording.run.state(0).state, {0, 0}});
  }
  for (; ticks_ < recording.run.ticks();) add_tick(recording, ++ticks_);
  return true;
}

void TapeIndex::add_zones(const InZones& zones, std::size_t tick) {
  const auto lasts = [&](const ZoneStretch& s) { return s.ticks.last + 1 == tick; };
  std::uint32_t taken = 0;
  std::vector<ZoneId> begun;
  for (std::size_t i = 0; i < zones.count; ++i) {
    const auto same = std::find_if(zones_.rbegin(), zones_.rend(),
                                   [&](const ZoneStretch& s) { return s.zone == zones.id[i] && lasts(s); });
    if (same == zones_.rend()) {
      begun.push_back(zones.id[i]);
      continue;
    }
    same->ticks.last = tick;
    taken |= 1u << same->row;
  }
  for (const ZoneId zone : begun) {
    int row = 0;
    while ((taken >> row) & 1u) ++row;
    taken |= 1u << row;
    zones_.push_back({zone, {tick, tick}, row});
    zone_rows_ = std::max(zone_rows_, row + 1);
  }
}

void TapeIndex::add_tick(const Recording& recording, std::size_t tick) {
  const StateId state = recording.run.state(tick).state;
  if (states_.back().state == state) {
    states_.back().ticks.last = tick;
  } else {
    states_.push_back({state, {tick, tick}});
  }
  add_zones(recording.run.state(tick).zones, tick);
  const Events events = recording.run.events(tick);
  // What is passed within a tick has a row, too.
  if (events.has(Event::ZoneEntered)) zone_rows_ = std::max(zone_rows_, 1);
  for (std::size_t e = 0; e < events_.size(); ++e) {
    if (events.has(static_cast<Event>(e))) extend(events_[e], tick);
  }
  const InputFrame& input = recording.take.inputs[tick - 1];
  for (std::size_t a = 0; a < kButtonKinds; ++a) {
    if (input.held.has(static_cast<Action>(a))) extend(held_[a], tick);
    if (input.pressed.has(static_cast<Action>(a))) presses_[a].push_back(tick);
  }
}

const MinMaxPyramid& TapeIndex::values(const Signal& signal, const Recording& recording, std::size_t most) {
  MinMaxPyramid& values = values_[signal.key];
  const std::size_t end = std::min(ticks_ + 1, values.size() + most);
  for (std::size_t tick = values.size(); tick < end; ++tick)
    values.add(float(value_at(signal, recording.run, recording.take, recording.place->world, tick)));
  return values;
}

std::size_t first_from(const std::vector<Stretch>& stretches, std::size_t tick) {
  const auto found = std::lower_bound(stretches.begin(), stretches.end(), tick,
                                      [](const Stretch& s, std::size_t t) { return s.last < t; });
  return static_cast<std::size_t>(found - stretches.begin());
}

}  // namespace lagniappe::app
