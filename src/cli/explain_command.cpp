// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "script.h"

namespace lagniappe::cli {
namespace {

struct Options {
  Script script;
  std::int64_t tick = 1;
  std::int64_t count = 1;
};

void print_tick(const CharacterState& before, const CharacterState& after, const Ledger& ledger,
                const World& world) {
  const auto underfoot = world.piece_name(after.ground.piece);
  fmt::print("tick {}, {:.4f} s to {:.4f} s: {}, foot at {:.3f} {:.3f} {:.3f} m, {:.2f} m/s{}\n", after.tick,
             before.time, after.time, name_of(after.state), after.foot_C.x, after.foot_C.y, after.foot_C.z,
             length(after.velocity_C), underfoot.empty() ? "" : fmt::format(", on \u201c{}\u201d", underfoot));
  for (const LedgerEntry& entry : ledger.entries)
    fmt::print("  {} {}\n", is_refusal(entry) ? '!' : '-', to_sentence(entry, world));
}

int run(const Options& options) {
  const auto loaded = load(options.script);
  if (!loaded) return fail(loaded.error());
  const int hz = options.script.hz;
  const std::int64_t last = options.tick + options.count - 1;
  if (static_cast<double>(last) > kMostTicks) {
    fmt::print(stderr, "A run has at most {:.0f} ticks.\n", kMostTicks);
    return kWrongUsage;
  }
  const TriangleWorld world = build_world(loaded->course);
  CharacterState state = start_state(loaded->profile, start_home(loaded->course), world);
  for (const InputFrame& input : frames_of(loaded->inputs, hz, static_cast<double>(last) / hz)) {
    const CharacterState before = state;
    Ledger ledger;
    const bool wanted = static_cast<std::int64_t>(before.tick) + 1 >= options.tick;
    state = step(before, input, loaded->profile, world, 1.0 / hz, wanted ? &ledger : nullptr);
    if (wanted) print_tick(before, state, ledger, world);
  }
  return kFine;
}

}  // namespace

Command add_explain(CLI::App& app) {
  CLI::App* command = app.add_subcommand("explain", "Say in sentences what the solver did in a tick, and why");
  auto o = std::make_shared<Options>();
  add_script_options(*command, o->script);
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
      "      --inputs takes/stairs.inputs.json --tick 190 --count 3\n\n"
      "Lines with ! are what was asked for or tried and did not happen.\n"
      "Exit code: 0 if it ran, 2 on bad input (one line says which file, where, and what is wrong), 64 on "
      "wrong usage.");
  return {command, [o] { return run(*o); }};
}

}  // namespace lagniappe::cli
