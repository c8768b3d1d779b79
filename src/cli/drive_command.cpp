// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <chrono>
#include <memory>

#include "commands.h"
#include "results.h"
#include "script.h"

namespace lagniappe::cli {
namespace {

struct Options {
  Script script;
  Outputs outputs;
  bool timing = false;
};

int run_script(const Options& options) {
  auto loaded = load(options.script);
  if (!loaded) return fail(loaded.error());
  const double seconds = seconds_of(options.script, loaded->inputs);
  if (seconds * options.script.hz > double(kMostTicks)) {
    fmt::print(stderr, "A run has at most {} ticks; {} s at {} ticks per second are more.\n", kMostTicks,
               seconds, options.script.hz);
    return kWrongUsage;
  }
  const std::size_t dropped = loaded->course.dropped_triangles;
  const TriangleWorld world = build_world(loaded->course);
  const Take take = take_of(options.script, std::move(*loaded), world, seconds);
  const auto begin = std::chrono::steady_clock::now();
  const std::optional<Run> run = run_take(take, world);
  const std::chrono::duration<double> took = std::chrono::steady_clock::now() - begin;
  if (const auto written = write_outputs(options.outputs, *run, take, world); !written)
    return fail(written.error());
  fmt::print("course            {}\n", take.course->name);
  fmt::print("profile           {}\n", take.profile.name);
  print_summary(*run, take.profile);
  print_findings(*run, take, world);
  if (dropped > 0) fmt::print("dropped           {} triangles without area or with bad numbers\n", dropped);
  if (options.timing)
    fmt::print("computed          {:.0f} ticks in a second\n",
               static_cast<double>(run->ticks()) / std::max(took.count(), 1e-9));
  return kFine;
}

}  // namespace

Command add_drive(CLI::App& app) {
  CLI::App* command = app.add_subcommand("drive", "Drive a character over a course by a script of inputs");
  auto o = std::make_shared<Options>();
  add_script_options(*command, o->script);
  add_output_options(*command, o->outputs);
  command->add_flag("--timing", o->timing, "Also say how fast it was computed");
  command->footer(
      "Examples:\n"
      "  lagniappe-cli drive --course courses/tidewheel.course.json --profile profiles/warden.profile.json \\\n"
      "      --inputs takes/tour.inputs.json --trace tour.csv\n"
      "  lagniappe-cli drive --course level.glb --profile profiles/heron.profile.json \\\n"
      "      --inputs walk.inputs.json --hz 144 --seconds 10 --ledger why.jsonl\n\n"
      "Exit code: 0 if it ran, 2 on bad input (one line says which file, where, and what is wrong), 64 on "
      "wrong usage.");
  return {command, [o] { return run_script(*o); }};
}

}  // namespace lagniappe::cli
