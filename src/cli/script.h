// SPDX-License-Identifier: MIT
// What commands that drive a script have in common.
#pragma once

#include <CLI/CLI.hpp>
#include <string>
#include <vector>

#include "lagniappe/files.h"

namespace lagniappe::cli {

struct Script {
  std::string course, profile, inputs;
  std::vector<std::string> set;
  int hz = 60;
  double seconds = -1.0;   // Negative: not given.
  std::string from;        // A mark; empty: the course's start.
  std::vector<double> at;  // x, y, z and perhaps the yaw in degrees; empty: not given.
};
// `required`: without them the command has nothing to run.
void add_source_options(CLI::App& command, Script& script, bool required = true);  // All but the tick rate.
void add_script_options(CLI::App& command, Script& script, bool required = true);
void add_set_option(CLI::App& command, std::vector<std::string>& set);

// Returns a profile with every NAME=VALUE applied, in order.
Result<Profile> with_values(Profile profile, const std::vector<std::string>& assignments);
// The same from a file.
Result<Profile> profile_with(const std::string& path, const std::vector<std::string>& assignments);

struct Loaded {
  Course course;
  Profile profile;
  InputScript inputs;
  Home home;
};
Result<Loaded> load(const Script& script);

// Returns how long to drive: what is given, or some time beyond the last change of input.
double seconds_of(const Script& script, const InputScript& inputs);

// Returns the script as a take that is not run yet.
Take take_of(const Script& script, Loaded loaded, const TriangleWorld& world, double seconds);

// Prints the refusal and returns the exit code.
int fail(const Error& error);

}  // namespace lagniappe::cli
