// SPDX-License-Identifier: GPL-3.0-or-later
// What the tape needs of a recording, gathered so that drawing an hour costs no more than drawing a minute.
#pragma once

#include <map>
#include <vector>

#include "session/drive_session.h"

namespace lagniappe::app {

// Values over ticks, and the least and largest of every 8, 64, 512 … of them.
class MinMaxPyramid {
 public:
  struct Bounds {
    float low, high;
  };
  void add(float value);
  std::size_t size() const { return levels_.front().size(); }
  // Of values first to last, both included. REQUIRES: first <= last < size().
  Bounds bounds(std::size_t first, std::size_t last) const;

 private:
  static constexpr std::size_t kLevels = 9;          // 8^8 values are more than a day at any rate.
  std::array<std::vector<Bounds>, kLevels> levels_;  // Level 0 holds the values themselves.
};

class TapeIndex {
 public:
  static constexpr std::size_t kButtonKinds = kActionCount;

  struct StateStretch {
    StateId state;
    Stretch ticks;
  };

  struct ZoneStretch {
    ZoneId zone;
    Stretch ticks;
    int row;  // Below the others that last at the same time.
  };

  // Takes in the ticks that were recorded since; begins anew where it is another recording. Returns whether
  // anything changed.
  bool update(const Recording& recording, std::uint64_t revision);

  std::size_t ticks() const { return ticks_; }
  const std::vector<StateStretch>& states() const { return states_; }
  // By their first ticks.
  const std::vector<ZoneStretch>& zones() const { return zones_; }
  int zone_rows() const { return zone_rows_; }
  const std::vector<Stretch>& stretches(Event event) const { return events_[static_cast<std::size_t>(event)]; }
  const std::vector<Stretch>& held(Action action) const { return held_[static_cast<std::size_t>(action)]; }
  const std::vector<std::size_t>& presses(Action action) const {
    return presses_[static_cast<std::size_t>(action)];
  }

  // A signal's values. At most `most` new ones are computed in a call, so that a long take does not hold up the
  // window: ask again until size() is ticks() + 1.
  const MinMaxPyramid& values(const Signal& signal, const Recording& recording, std::size_t most = 20'000);

 private:
  void add_tick(const Recording& recording, std::size_t tick);
  void add_zones(const InZones& zones, std::size_t tick);

  std::uint64_t revision_ = 0;
  std::size_t ticks_ = 0;
  bool begun_ = false;
  std::vector<StateStretch> states_;
  std::vector<ZoneStretch> zones_;
  int zone_rows_ = 0;
  std::array<std::vector<Stretch>, kEventNames.size()> events_;
  std::array<std::vector<Stretch>, kButtonKinds> held_;
  std::array<std::vector<std::size_t>, kButtonKinds> presses_;
  std::map<std::string_view, MinMaxPyramid> values_;
};

// Returns the first stretch that ends at or after `tick`: where drawing from there on begins.
std::size_t first_from(const std::vector<Stretch>& stretches, std::size_t tick);

}  // namespace lagniappe::app
