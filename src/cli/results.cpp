// SPDX-License-Identifier: MIT
#include "results.h"

#include <fmt/format.h>

#include "lagniappe/remedy.h"
#include "lagniappe/states.h"

namespace lagniappe::cli {

std::string unit_of(const RunFigure& figure) {
  return figure.against.empty() ? std::string(figure.unit)
                                : fmt::format("{}, against the {}", figure.unit, figure.against);
}

void add_output_options(CLI::App& command, Outputs& outputs) {
  command.add_option("--trace", outputs.trace, "Write the state after every tick as CSV");
  command.add_option("--poses", outputs.poses, "Write the pose feed of every tick as CSV, for animation");
  command.add_option("--ledger", outputs.ledger, "Write what the solver did in every tick as JSON lines");
  command.add_option("--take", outputs.take, "Write the run as a take");
}

Result<void> write_outputs(const Outputs& outputs, const Run& run, Take take, const World& world) {
  Result<void> written;
  if (!outputs.trace.empty()) written = write_file(outputs.trace, trace_csv(run, take, world));
  if (written && !outputs.poses.empty()) written = write_file(outputs.poses, poses_csv(run, take.profile));
  if (written && !outputs.ledger.empty()) written = write_file(outputs.ledger, ledger_lines(run, take, world));
  if (!written || outputs.take.empty()) return written;
  keep_hashes(run, take);
  take.about.name = describe(run, world, take.profile);
  take.about.path = path_of(run);
  take.about.ticks = run.ticks();
  take.about.course = take.course->name;
  take.about.profile = take.profile.name;
  take.about.tick_rate = take.tick_rate;
  return write_file(outputs.take, take_bytes(take));
}

void print_summary(const Run& run, const Profile& profile) {
  const RunSummary summary = run.summarize();
  const Vec3& end = summary.end_C;
  for (const RunFigure& figure : run_figures()) {
    if (figure.name == "findings" || figure.name.starts_with("end "))
      continue;  // They have lines of their own.
    const std::string unit = unit_of(figure);
    fmt::print("{:<18}{:.{}f}{}{}\n", figure.name, figure.get(run, summary), figure.digits,
               unit.empty() ? "" : " ", unit);
  }
  fmt::print("ticks             {}\n", run.ticks());
  fmt::print("ticks per second  {}\n", run.tick_rate());
  fmt::print("end               {:.3f} {:.3f} {:.3f} m, {}\n", end.x, end.y, end.z,
             name_of(summary.end_state, profile));
  if (run.last().times_put_home > 0) fmt::print("put back to start {} times\n", run.last().times_put_home);
}

void print_findings(const Run& run, const Take& take, const World& world) {
  for (const Finding& finding : run.findings())
    fmt::print("finding           tick {}, {:.2f} s: {}\n", finding.first,
               static_cast<double>(finding.first) / run.tick_rate(),
               to_sentence(finding, world, take.profile, run.tick_rate()));
}

namespace {

// ", driven by Brass Pad", where the take knows it.
std::string driven_by(const Take& take, std::size_t tick) {
  std::string by;
  for (const DeviceUse& use : take.devices)
    if (use.from_tick < tick) by = fmt::format(", driven by {}", use.device);
  return by;
}

}  // namespace

void print_tick(const Run& run, const Take& take, const World& world, std::size_t tick) {
  const CharacterState &before = run.state(tick - 1), &after = run.state(tick);
  const auto underfoot = world.piece_name(after.ground.piece);
  fmt::print(
      "tick {}, {:.4f} s to {:.4f} s: {}, foot at {:.3f} {:.3f} {:.3f} m, {:.2f} m/s in the course{}{}\n",
      after.tick, before.time - take.start.time, after.time - take.start.time,
      name_of(after.state, take.profile), after.foot_C.x, after.foot_C.y, after.foot_C.z,
      length(after.velocity_C), underfoot.empty() ? "" : fmt::format(", on \u201c{}\u201d", underfoot),
      driven_by(take, tick));
  const Ledger ledger = ledger_of(run, take, world, tick);
  for (const LedgerEntry& entry : ledger.entries) {
    fmt::print("  {} {}\n", is_refusal(entry) ? '!' : '-', to_sentence(entry, world));
    const auto remedy =
        remedy_of(entry, before, take.inputs[tick - 1], take.profile, world, 1.0 / run.tick_rate());
    if (remedy) fmt::print("    {}: {}\n", remedy->path, to_sentence(*remedy));
  }
  fmt::print("  = {}\n", velocity_sentence(before.velocity_C, after.velocity_C, ledger));
}

}  // namespace lagniappe::cli
