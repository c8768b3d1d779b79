// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "lagniappe/files.h"

namespace lagniappe::cli {
namespace {

int check(const std::vector<std::string>& files) {
  int code = kFine;
  for (const std::string& file : files) {
    const auto kind = check_file(file);
    if (kind) {
      fmt::print("{}: ok ({})\n", file, *kind);
    } else {
      fmt::print(stderr, "error: {}\n", kind.error().sentence());
      code = kBadInput;
    }
  }
  return code;
}

}  // namespace

Command add_check(CLI::App& app) {
  CLI::App* command =
      app.add_subcommand("check", "Say for each file whether it can be used: ok, or what is wrong and where");
  auto files = std::make_shared<std::vector<std::string>>();
  command->add_option("FILE", *files, "Courses, profiles, inputs, takes, models")->required();
  command->footer(
      "Example:\n  lagniappe-cli check courses/*.json profiles/*.json\n\nExit code: 0 if every file is fine, 2 "
      "if one is not, 64 on wrong usage.");
  return {command, [files] { return check(*files); }};
}

}  // namespace lagniappe::cli
