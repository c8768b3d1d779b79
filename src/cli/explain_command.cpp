// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "results.h"
#include "script.h"

namespace lagniappe::cli {
namespace {

struct Options {
  Script script;
  std::string take;
  std::int64_t tick = 1;
  std::int64_t count = 1;
};

int tell(const Options& options, const Take& take, const TriangleWorld& world) {
  const std::optional<Run> run = run_take(take, world);
  const auto ticks = static_cast<std::int64_t>(run->ticks());
  if (options.tick > ticks)
    return fail({options.take.empty() ? options.script.inputs : options.take,
                 fmt::format("tick {}", options.tick), fmt::format("the run has {} ticks", ticks)});
  for (std::int64_t tick = options.tick; tick < options.tick + options.count && tick <= ticks; ++tick)
    print_tick(*run, take, world, static_cast<std::size_t>(tick));
  return kFine;
}

int explain_take(const Options& options) {
  const auto take = read_take(options.take);
  if (!take) return fail(take.error());
  return tell(options, *take, build_world(*take->course));
}

int explain(const Options& options) {
  if (!options.take.empty()) return explain_take(options);
  if (options.script.course.empty() || options.script.profile.empty() || options.script.inputs.empty()) {
    fmt::print(stderr, "There must be a take, or --course, --profile and --inputs.\n");
    return kWrongUsage;
  }
  auto loaded = load(options.script);
  if (!loaded) return fail(loaded.error());
  const int hz = options.script.hz;
  const std::int64_t last = options.tick + options.count - 1;
  if (last > std::int64_t(kMostTicks)) {
    fmt::print(stderr, "A run has at most {} ticks.\n", kMostTicks);
    return kWrongUsage;
  }
  const TriangleWorld world = build_world(loaded->course);
  const Take take = take_of(options.script, std::move(*loaded), world, static_cast<double>(last) / hz);
  return tell(options, take, world);
}

}  // namespace

Command add_explain(CLI::App& app) {
  CLI::App* command = app.add_subcommand("explain", "Say in sentences what the solver did in a tick, and why");
  auto o = std::make_shared<Options>();
  command->add_option("take", o->take,
                      "A take (*.take); else a run is made of --course, --profile and --inputs");
  add_script_options(*command, o->script, false);
  command->add_option("--tick", o->tick, "The tick to explain; the first is 1")
      ->required()
      ->check(CLI::Range(std::int64_t{1}, std::int64_t{2'000'000}));
  command->add_option("--count", o->count, "How many ticks from there")
      ->check(CLI::Range(std::int64_t{1}, std::int64_t{10'000}))
      ->capture_default_str();
  command->footer(
      "Example:\n"
      "  lagniappe-cli explain --course courses/tidewheel.course.json --profile profiles/warden.profile.json "
      "\\\n"
      "      --inputs takes/stairs.inputs.json --tick 190 --count 3\n"
      "  lagniappe-cli explain run.take --tick 190\n\n"
      "Lines with ! are what was asked for or tried and did not happen.\n"
      "Exit code: 0 if it ran, 2 on bad input (one line says which file, where, and what is wrong), 64 on "
      "wrong usage.");
  return {command, [o] { return explain(*o); }};
}

}  // namespace lagniappe::cli
