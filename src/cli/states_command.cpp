// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "lagniappe/table_use.h"
#include "script.h"

namespace lagniappe::cli {
namespace {

struct Options {
  std::string profile, course;
  std::vector<std::string> takes, set;
  std::size_t ticks = 1'000'000;
  int hz = 60;
  std::uint64_t seed = 1;
};

void print_table(const StateChart& chart, const TableUse* use) {
  const StateTable& table = chart.table();
  fmt::print("states\n");
  for (std::size_t i = 0; i < chart.size(); ++i) {
    const StateChart::State& s = chart.state(StateId(i));
    fmt::print("  {:<16} {:<7} {:<9} {:<12}", table.states[i].name, facts_of(s.behaviour).name,
               kStanceNames[std::size_t(s.stance)], s.group);
    if (use != nullptr) fmt::print(" entered {:>7}, {:>9} ticks", use->entered[i], use->ticks_in[i]);
    fmt::print("\n");
  }
  fmt::print("\ntransitions, in the order of the table\n");
  for (std::size_t row = 0; row < table.transitions.size(); ++row) {
    const TransitionSpec& t = table.transitions[row];
    if (use != nullptr) fmt::print("  {:>8}x", use->rows[row].fired_in_all());
    fmt::print("  {:>4}  {:<28} {}{}{}\n", t.priority, transition_name(chart, row), t.guard,
               t.shortest_stay > 0.0 ? fmt::format("  (after {} s)", t.shortest_stay) : "",
               t.action.empty() ? "" : "  does " + t.action);
  }
}

void print_findings_of(const std::vector<TableFinding>& findings) {
  for (const TableFinding& f : findings) fmt::print("  {}\n", f.text);
  if (findings.empty()) fmt::print("  nothing to remark\n");
}

// What the takes and the random drive use of the table.
Result<TableUse> use_of_all(const Options& o, const Profile& profile) {
  TableUse use(chart_of(profile));
  for (const std::string& path : o.takes) {
    const auto take = read_take(path);
    if (!take) return refuse(take.error());
    const TriangleWorld world = build_world(*take->course);
    const Take again = retake_of(*take, profile, take->course, take->course_identity, world, take->tick_rate);
    use.add(use_of(*run_take(again, world), again, world));
  }
  if (o.course.empty()) return use;
  const auto course = read_course(o.course);
  if (!course) return refuse(course.error());
  use.add(drive_randomly(profile, homes_of(*course), build_world(*course), {o.ticks, o.hz, o.seed}));
  return use;
}

int states(const Options& o) {
  const auto profile = profile_with(o.profile, o.set);
  if (!profile) return fail(profile.error());
  const StateChart& chart = chart_of(*profile);
  const bool driven = !o.takes.empty() || !o.course.empty();
  const auto use = use_of_all(o, *profile);
  if (!use) return fail(use.error());
  print_table(chart, driven ? &*use : nullptr);
  fmt::print("\nthe table as it stands\n");
  print_findings_of(check_table(chart));
  if (!driven) return kFine;
  fmt::print("\nin {} ticks, {} changes of state\n", use->ticks, use->changes);
  print_findings_of(findings_of(*use, chart));
  return kFine;
}

}  // namespace

Command add_states(CLI::App& app) {
  CLI::App* command = app.add_subcommand(
      "states", "Show a profile's table of states, check it, and count what drives use of it");
  auto o = std::make_shared<Options>();
  command->add_option("PROFILE", o->profile, "Profile (*.profile.json)")->required();
  command->add_option("--course", o->course, "Drive randomly over this course, beginning at its marks");
  command->add_option("--take", o->takes, "Run this take's inputs through the table; may be given again");
  command->add_option("--ticks", o->ticks, "Length of the random drive")
      ->check(CLI::Range(1, 1'000'000'000))
      ->capture_default_str();
  command->add_option("--hz", o->hz, "Ticks per second of the random drive")
      ->check(CLI::Range(10, 480))
      ->capture_default_str();
  command->add_option("--seed", o->seed, "Another number: another drive")->capture_default_str();
  add_set_option(*command, o->set);
  command->footer(
      "Examples:\n"
      "  lagniappe-cli states profiles/warden.profile.json\n"
      "  lagniappe-cli states profiles/warden.profile.json --course courses/tidewheel.course.json\n\n"
      "Exit code: 0 if it was shown, 2 on bad input, 64 on wrong usage.");
  return {command, [o] { return states(*o); }};
}

}  // namespace lagniappe::cli
