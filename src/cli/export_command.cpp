// SPDX-License-Identifier: MIT
#include <memory>

#include "commands.h"
#include "lagniappe/handling_files.h"
#include "script.h"

namespace lagniappe::cli {
namespace {

struct Options {
  std::string profile, json, header;
  std::vector<std::string> set;
};

int write_constants(const Options& o) {
  const auto profile = profile_with(o.profile, o.set);
  if (!profile) return fail(profile.error());
  const std::pair<std::string, std::string> files[] = {{o.json, constants_json(*profile)},
                                                       {o.header, constants_header(*profile)}};
  for (const auto& [path, text] : files) {
    if (path.empty()) continue;
    if (const auto written = write_file(path, text); !written) return fail(written.error());
  }
  return kFine;
}

}  // namespace

Command add_export(CLI::App& app) {
  CLI::App* command = app.add_subcommand("export", "Write a profile's constants for a game without this core");
  auto o = std::make_shared<Options>();
  command->add_option("PROFILE", o->profile, "Profile (*.profile.json)")->required();
  add_set_option(*command, o->set);
  auto* json = command->add_option("--json", o->json, "JSON file to write");
  auto* header = command->add_option("--header", o->header, "C++ header to write");
  auto* which = command->add_option_group("what");
  which->add_options(json, header);
  which->require_option(1, 2);
  command->footer(
      "Example:\n"
      "  lagniappe-cli export profiles/warden.profile.json --header warden_handling.h\n\n"
      "Names carry units; derived figures stand beside the formulas that they are had by.\n"
      "Exit code: 0 if it was written, 2 on bad input, 64 on wrong usage.");
  return {command, [o] { return write_constants(*o); }};
}

}  // namespace lagniappe::cli
