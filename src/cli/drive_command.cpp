// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <chrono>
#include <memory>

#include "commands.h"
#include "lagniappe/files.h"
#include "script.h"

namespace lagniappe::cli {
namespace {

struct Options {
  Script script;
  std::string trace, ledger, take;
  bool timing = false;
};

void append_ledger_line(const CharacterState& state, const Ledger& ledger, const World& world,
                        std::string& out) {
  out += fmt::format("{{\"tick\":{},\"entries\":[", state.tick);
  for (std::size_t i = 0; i < ledger.entries.size(); ++i) {
    if (i > 0) out += ',';
    out += to_json(ledger.entries[i], world);
  }
  out += "]}\n";
}

void print_summary(const DriveSummary& summary, int hz, const Loaded& loaded, const CharacterState& last) {
  fmt::print("course            {}\n", loaded.course.name);
  fmt::print("profile           {}\n", loaded.profile.name);
  fmt::print("distance          {:.3f} m\n", summary.distance);
  fmt::print("top speed         {:.3f} m/s\n", summary.top_speed);
  fmt::print("highest point     {:.4f} m\n", summary.highest_point);
  fmt::print("airtime           {:.3f} s\n", summary.airtime);
  fmt::print("ticks             {}\n", summary.ticks);
  fmt::print("ticks per second  {}\n", hz);
  fmt::print("end               {:.3f} {:.3f} {:.3f} m, {}\n", last.foot_C.x, last.foot_C.y, last.foot_C.z,
             name_of(last.state));
  if (last.times_put_home > 0) fmt::print("put back to start {} times\n", last.times_put_home);
  if (loaded.course.dropped_triangles > 0) {
    fmt::print("dropped           {} triangles without area or with bad numbers\n",
               loaded.course.dropped_triangles);
  }
}

// Writes what was asked for; nothing is written before all of the run is done.
Result<void> write_results(const Options& options, const std::string& ledger,
                           const std::vector<CharacterState>& states, const Take& take, const World& world) {
  Result<void> written;
  if (!options.trace.empty()) written = write_file(options.trace, trace_csv(states, world, options.script.hz));
  if (written && !options.ledger.empty()) written = write_file(options.ledger, ledger);
  if (written && !options.take.empty()) written = write_file(options.take, take_bytes(take));
  return written;
}

int run(const Options& options) {
  const auto loaded = load(options.script);
  if (!loaded) return fail(loaded.error());
  const int hz = options.script.hz;
  const double seconds = seconds_of(options.script, loaded->inputs);
  if (seconds * hz > kMostTicks) {
    fmt::print(stderr, "A run has at most {:.0f} ticks; {} s at {} ticks per second are more.\n", kMostTicks,
               seconds, hz);
    return kWrongUsage;
  }
  const TriangleWorld world = build_world(loaded->course);
  const std::vector<InputFrame> frames = frames_of(loaded->inputs, hz, seconds);
  std::vector<CharacterState> states = {start_state(loaded->profile, start_home(loaded->course), world)};
  states.reserve(frames.size() + 1);
  std::string ledger_lines;
  const auto observe = [&](const CharacterState& state, const Ledger* ledger) {
    states.push_back(state);
    if (ledger != nullptr) append_ledger_line(state, *ledger, world, ledger_lines);
  };
  const auto begin = std::chrono::steady_clock::now();
  drive(states.front(), frames, loaded->profile, world, hz, observe, !options.ledger.empty());
  const std::chrono::duration<double> took = std::chrono::steady_clock::now() - begin;

  const Take take{states.front(),
                  hz,
                  frames,
                  loaded->course.name,
                  loaded->profile.name,
                  identity_of(world),
                  identity_of(loaded->profile)};
  if (const auto written = write_results(options, ledger_lines, states, take, world); !written)
    return fail(written.error());
  print_summary(summarize(states, hz), hz, *loaded, states.back());
  if (options.timing)
    fmt::print("computed          {:.0f} ticks in a second\n",
               double(frames.size()) / std::max(took.count(), 1e-9));
  return kFine;
}

}  // namespace

Command add_drive(CLI::App& app) {
  CLI::App* command = app.add_subcommand("drive", "Drive a character over a course by a script of inputs");
  auto o = std::make_shared<Options>();
  add_script_options(*command, o->script);
  command->add_option("--trace", o->trace, "Write the state after every tick as CSV");
  command->add_option("--ledger", o->ledger, "Write what the solver did in every tick as JSON lines");
  command->add_option("--take", o->take, "Write the run as a take");
  command->add_flag("--timing", o->timing, "Also say how fast it was computed");
  command->footer(
      "Examples:\n"
      "  lagniappe-cli drive --course courses/tidewheel.course.json --profile profiles/warden.profile.json \\\n"
      "      --inputs takes/tour.inputs.json --trace tour.csv\n"
      "  lagniappe-cli drive --course level.glb --profile profiles/heron.profile.json \\\n"
      "      --inputs walk.inputs.json --hz 144 --seconds 10 --ledger why.jsonl\n\n"
      "Exit code: 0 if it ran, 2 on bad input (one line says which file, where, and what is wrong), 64 on "
      "wrong usage.");
  return {command, [o] { return run(*o); }};
}

}  // namespace lagniappe::cli
