// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "lagniappe/scxml.h"
#include "script.h"

namespace lagniappe::cli {
namespace {

struct Options {
  std::string from, to, onto;
  bool recover = false;
};

Result<Take> read(const Options& options) {
  if (!options.recover) return read_take(options.from);
  auto recovered = recover_take(options.from);
  if (!recovered) return refuse(recovered.error());
  fmt::print("recovered         {} ticks, {:.2f} s{}\n", recovered->take.inputs.size(),
             recovered->take.seconds(), recovered->whole ? "; nothing is missing" : "");
  return std::move(recovered->take);
}

int convert_take(const Options& options) {
  const auto take = read(options);
  if (!take) return fail(take.error());
  const auto written =
      write_file(options.to, options.to.ends_with(".take") ? take_bytes(*take) : take_json(*take));
  return written ? kFine : fail(written.error());
}

int chart_to_scxml(const Options& options) {
  const auto profile = read_profile(options.from);
  if (!profile) return fail(profile.error());
  const auto written = write_file(options.to, scxml_text(chart_of(*profile).table(), profile->name));
  return written ? kFine : fail(written.error());
}

// A profile that has the chart as its table: another's values, or the default ones.
int scxml_to_profile(const Options& options) {
  const auto read = read_scxml(options.from);
  if (!read) return fail(read.error());
  auto profile = options.onto.empty() ? Result<Profile>(Profile{}) : read_profile(options.onto);
  if (!profile) return fail(profile.error());
  auto chart = StateChart::make(read->table);
  if (!chart) return fail(chart.error());
  if (options.onto.empty() && !read->name.empty()) profile->name = read->name;
  profile->states = *chart;
  const auto written =
      profile_text(*profile).and_then([&](const std::string& text) { return write_file(options.to, text); });
  for (const std::string& remark : read->remarks) fmt::print("remark            {}\n", remark);
  return written ? kFine : fail(written.error());
}

int convert(const Options& options) {
  if (options.from.ends_with(".scxml")) return scxml_to_profile(options);
  return options.to.ends_with(".scxml") ? chart_to_scxml(options) : convert_take(options);
}

}  // namespace

Command add_convert(CLI::App& app) {
  CLI::App* command = app.add_subcommand(
      "convert", "Turn a take into JSON and back, or a profile's table of states into SCXML and back");
  auto o = std::make_shared<Options>();
  command->add_option("FROM", o->from, "Take, as CBOR or JSON; profile; or chart (*.scxml)")->required();
  command->add_option("TO", o->to, "File to write: CBOR if it ends in .take, a chart if in .scxml, else JSON")
      ->required();
  command->add_flag("--recover", o->recover,
                    "Keep what can be read of a take that is damaged or cut off, or of a journal");
  command->add_option("--onto", o->onto, "Profile that a chart becomes the table of");
  command->footer(
      "Examples:\n"
      "  lagniappe-cli convert stairs.take stairs.json\n"
      "  lagniappe-cli convert --recover damaged.take rest.take\n"
      "  lagniappe-cli convert profiles/warden.profile.json warden.scxml\n"
      "  lagniappe-cli convert warden.scxml new.profile.json --onto profiles/warden.profile.json\n\n"
      "Exit code: 0 if it was written, 2 on bad input, 64 on wrong usage.");
  return {command, [o] { return convert(*o); }};
}

}  // namespace lagniappe::cli
