// SPDX-License-Identifier: MIT
// The commands of lagniappe-cli. Each adds itself to the parser and returns what runs it: a function that gives
// the exit code.
#pragma once

#include <CLI/CLI.hpp>
#include <functional>

namespace lagniappe::cli {

inline constexpr int kFine = 0;
inline constexpr int kBadInput = 2;
inline constexpr int kWrongUsage = 64;

struct Command {
  CLI::App* parsed;
  std::function<int()> run;
};

Command add_drive(CLI::App& app);
Command add_check(CLI::App& app);
Command add_explain(CLI::App& app);
Command add_retake(CLI::App& app);
Command add_diff(CLI::App& app);
Command add_convert(CLI::App& app);
Command add_show(CLI::App& app);
Command add_states(CLI::App& app);
Command add_export(CLI::App& app);
Command add_timing(CLI::App& app);

}  // namespace lagniappe::cli
