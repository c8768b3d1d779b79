// SPDX-License-Identifier: MIT
// What commands that drive a script have in common.
#pragma once

#include <CLI/CLI.hpp>
#include <string>
#include <vector>

#include "lagniappe/files.h"

namespace lagniappe::cli {

// Every state is kept until the run is done: about 1 GB.
inline constexpr double kMostTicks = 2e6;

struct Script {
  std::string course, profile, inputs;
  int hz = 60;
  double seconds = -1.0;  // Negative: not given.
};
void add_script_options(CLI::App& command, Script& script);

struct Loaded {
  Course course;
  Profile profile;
  InputScript inputs;
};
Result<Loaded> load(const Script& script);

// Returns how long to drive: what is given, or some time beyond the last change of input.
double seconds_of(const Script& script, const InputScript& inputs);

// Returns the script as a take that is not run yet, beginning at the course's start.
Take take_of(const Script& script, Loaded loaded, const TriangleWorld& world, double seconds);

// Prints the refusal and returns the exit code.
int fail(const Error& error);

}  // namespace lagniappe::cli
