// SPDX-License-Identifier: MIT
// What commands write and print about a run.
#pragma once

#include <CLI/CLI.hpp>
#include <string>

#include "lagniappe/files.h"
#include "lagniappe/run.h"

namespace lagniappe::cli {

// Files that a command can leave; empty: not wanted.
struct Outputs {
  std::string trace, poses, ledger, take;
};
void add_output_options(CLI::App& command, Outputs& outputs);

// Writes what was asked for; nothing is written before all of the run is done. The take is written with its
// hashes and a description, but without the time of day: equal calls write equal bytes.
Result<void> write_outputs(const Outputs& outputs, const Run& run, Take take, const World& world);

// "m/s, against the course".
std::string unit_of(const RunFigure& figure);

// What a run came to, as lines.
void print_summary(const Run& run, const Profile& profile);

// What the examination found, one line each.
void print_findings(const Run& run, const Take& take, const World& world);

// The ledger of a tick as sentences, indented.
void print_tick(const Run& run, const Take& take, const World& world, std::size_t tick);

// A run with what it ran on.
struct Compared {
  const Run run;
  const Take& take;
  const World& world;
};
// Prints where two runs part and why, and both summaries side by side; returns whether they are identical.
bool print_comparison(const Compared& first, const Compared& second);

}  // namespace lagniappe::cli
