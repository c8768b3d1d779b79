// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "script.h"

namespace lagniappe::cli {
namespace {

struct Options {
  std::string from, to;
  bool recover = false;
};

bool ends_with_take(const std::string& path) {
  return path.size() >= 5 && path.compare(path.size() - 5, 5, ".take") == 0;
}

Result<Take> read(const Options& options) {
  if (!options.recover) return read_take(options.from);
  auto recovered = recover_take(options.from);
  if (!recovered) return refuse(recovered.error());
  fmt::print("recovered         {} ticks, {:.2f} s{}\n", recovered->take.inputs.size(),
             recovered->take.seconds(), recovered->whole ? "; nothing is missing" : "");
  return std::move(recovered->take);
}

int convert(const Options& options) {
  const auto take = read(options);
  if (!take) return fail(take.error());
  const auto written =
      write_file(options.to, ends_with_take(options.to) ? take_bytes(*take) : take_json(*take));
  return written ? kFine : fail(written.error());
}

}  // namespace

Command add_convert(CLI::App& app) {
  CLI::App* command = app.add_subcommand("convert", "Turn a take into JSON, or JSON into a take");
  auto o = std::make_shared<Options>();
  command->add_option("FROM", o->from, "Take, as CBOR or JSON")->required();
  command->add_option("TO", o->to, "File to write: CBOR if it ends in .take, else JSON")->required();
  command->add_flag("--recover", o->recover,
                    "Keep what can be read of a take that is damaged or cut off, or of a journal");
  command->footer(
      "Examples:\n"
      "  lagniappe-cli convert stairs.take stairs.json\n"
      "  lagniappe-cli convert --recover damaged.take rest.take\n\n"
      "Exit code: 0 if it was written, 2 on bad input, 64 on wrong usage.");
  return {command, [o] { return convert(*o); }};
}

}  // namespace lagniappe::cli
