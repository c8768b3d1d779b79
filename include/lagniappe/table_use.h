// SPDX-License-Identifier: MIT
// What of a table of states was used by takes and by random drives.
#pragma once

#include <span>

#include "lagniappe/run.h"
#include "lagniappe/table_check.h"

namespace lagniappe {

// A transition that was taken.
struct Firing {
  std::size_t tick;
  StateId from, to;
  std::optional<std::size_t> row;  // Nothing: a script failed, and the fallback was entered.
  bool operator==(const Firing&) const = default;
};

// Returns those of a run, in order, had by stepping the ticks again in which states changed. REQUIRES: the run
// is the take's over `world`.
std::vector<Firing> firings_of(const Run& run, const Take& take, const World& world, std::size_t first = 1);

// How often what of a table was used.
struct TableUse {
  struct Row {
    std::size_t asked = 0, held = 0;  // Ticks. A guard is asked where it could be taken, whatever others say.
    std::vector<std::size_t> fired;   // By the state that was left.
    std::size_t fired_in_all() const;
  };
  explicit TableUse(const StateChart& chart);
  void add(const TableUse& other);  // REQUIRES: of the same table.

  std::size_t ticks = 0, changes = 0, loops = 0, script_failures = 0;
  std::vector<std::size_t> ticks_in, entered;      // By state.
  std::vector<Row> rows;                           // By transition of the table.
  std::vector<std::vector<std::size_t>> flickers;  // [left][entered]: back within 0.2 s, without new input.
};

// Returns what of its profile's table a run used. Stops when `progress` says so, with what it has.
TableUse use_of(const Run& run, const Take& take, const World& world, const Progress& progress = {});

struct RandomDrive {
  std::size_t ticks = 1'000'000;
  int tick_rate = 60;
  std::uint64_t seed = 1;
};

// Drives with random sticks and buttons, beginning at one home after the other (see homes_of()). The same
// arguments give the same use. Stops when `progress` says so, with what it has. REQUIRES: there is a home.
TableUse drive_randomly(const Profile& profile, std::span<const Home> homes, const World& world,
                        const RandomDrive& drive, const Progress& progress = {});

// Returns what a use says about the table: never entered, never fired, guards that never or always held, pairs
// that flicker, loops.
std::vector<TableFinding> findings_of(const TableUse& use, const StateChart& chart);

}  // namespace lagniappe
