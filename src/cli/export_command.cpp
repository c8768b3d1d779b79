// SPDX-License-Identifier: MIT
#include <memory>

#include "commands.h"
#include "lagniappe/files.h"
#include "lagniappe/handling_files.h"
#include "script.h"

namespace lagniappe::cli {
namespace {

struct Options {
  std::string file, json, header, inputs;
  std::vector<std::string> set;
};

int write_inputs(const Options& o) {
  const auto take = read_take(o.file);
  if (!take) return fail(take.error());
  const std::string& name = take->about.name;
  const auto written = write_file(o.inputs, inputs_text(script_of(*take), name));
  return written ? kFine : fail(written.error());
}

int write_constants(const Options& o) {
  const auto profile = profile_with(o.file, o.set);
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
  CLI::App* command = app.add_subcommand(
      "export", "Write a profile's constants for a game without this core, or a take's inputs");
  auto o = std::make_shared<Options>();
  command->add_option("FILE", o->file, "Profile (*.profile.json), or with --inputs a take (*.take)")
      ->required();
  add_set_option(*command, o->set);
  auto* json = command->add_option("--json", o->json, "JSON file to write");
  auto* header = command->add_option("--header", o->header, "C++ header to write");
  auto* inputs = command->add_option("--inputs", o->inputs, "Inputs (*.inputs.json) to write of a take");
  inputs->excludes(json)->excludes(header);
  auto* which = command->add_option_group("what");
  which->add_options(json, header, inputs);
  which->require_option(1, 2);
  command->footer(
      "Example:\n"
      "  lagniappe-cli export profiles/warden.profile.json --header warden_handling.h\n"
      "  lagniappe-cli export ladder.take --inputs ladder.inputs.json\n\n"
      "Names carry units; derived figures stand beside the formulas that they are had by.\n"
      "Exit code: 0 if it was written, 2 on bad input, 64 on wrong usage.");
  return {command, [o] { return o->inputs.empty() ? write_constants(*o) : write_inputs(*o); }};
}

}  // namespace lagniappe::cli
