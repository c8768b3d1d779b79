// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "lagniappe/compare.h"
#include "lagniappe/profile_fields.h"
#include "results.h"
#include "script.h"

namespace lagniappe::cli {
namespace {

struct Options {
  std::string take, profile, course;
  int hz = 0;  // 0: the take's.
  std::vector<std::string> set;
  Outputs outputs;
};

Result<Profile> profile_of(const Options& options, const Take& take) {
  Result<Profile> profile =
      options.profile.empty() ? Result<Profile>(take.profile) : read_profile(options.profile);
  if (!profile) return profile;
  return with_values(*profile, options.set);
}

Result<std::shared_ptr<const Course>> course_of(const Options& options, const Take& take) {
  if (options.course.empty()) return take.course;
  auto course = read_course(options.course);
  if (!course) return refuse(course.error());
  return std::make_shared<const Course>(std::move(*course));
}

void print_changes(const Take& before, const Take& after) {
  fmt::print("take              {}\n", before.about.name.empty() ? "without a name" : before.about.name);
  for (const ProfileDifference& d : differences(before.profile, after.profile))
    fmt::print("changed           {} {} -> {} {}\n", d.path, d.from, d.to, d.unit);
  if (before.tick_rate != after.tick_rate)
    fmt::print("changed           {} -> {} ticks per second\n", before.tick_rate, after.tick_rate);
  if (before.course_identity != after.course_identity)
    fmt::print("changed           course {} -> {}\n", before.course->name, after.course->name);
}

// Nothing was changed: it must be the same to the bit, or something is not deterministic.
int print_identity(const Run& run, const Take& take) {
  const auto difference = first_difference(run, take);
  if (!take.is_hashed()) {
    fmt::print("identical         cannot be said: the take holds no hashes\n");
  } else if (difference) {
    fmt::print("identical         no: tick {} is the first that differs from the recording\n", *difference);
  } else {
    fmt::print("identical         yes, in all {} ticks\n", run.ticks());
  }
  return kFine;
}

int retake(const Options& options) {
  const auto take = read_take(options.take);
  if (!take) return fail(take.error());
  if (options.hz > 0 && take->seconds() * options.hz > double(kMostTicks))
    return fail({options.take, "the whole take",
                 fmt::format("a run has at most {} ticks; {} s at {} ticks per second are more", kMostTicks,
                             take->seconds(), options.hz)});
  const auto profile = profile_of(options, *take);
  if (!profile) return fail(profile.error());
  const auto course = course_of(options, *take);
  if (!course) return fail(course.error());
  const TriangleWorld old_world = build_world(*take->course), new_world = build_world(**course);
  const Take other = retake_of(*take, *profile, *course, identity_of(new_world), new_world,
                               options.hz > 0 ? options.hz : take->tick_rate);
  const std::optional<Run> before = run_take(*take, old_world), after = run_take(other, new_world);
  if (const auto written = write_outputs(options.outputs, *after, other, new_world); !written)
    return fail(written.error());
  print_changes(*take, other);
  print_summary(*after, other.profile);
  print_findings(*after, other, new_world);
  const bool unchanged = other.profile_identity == take->profile_identity &&
                         other.tick_rate == take->tick_rate && other.course_identity == take->course_identity;
  if (unchanged) return print_identity(*before, *take);
  print_comparison({*before, *take, old_world}, {*after, other, new_world});
  return kFine;
}

}  // namespace

Command add_retake(CLI::App& app) {
  CLI::App* command = app.add_subcommand("retake", "Run the inputs of a take again, with other values");
  auto o = std::make_shared<Options>();
  command->add_option("TAKE", o->take, "Take (*.take)")->required();
  command->add_option("--profile", o->profile, "Profile to run through; the take's own if not given");
  command->add_option("--course", o->course, "Course or model to run on; the take's own if not given");
  command->add_option("--hz", o->hz, "Tick rate; the take's own if not given")->check(CLI::Range(10, 480));
  add_set_option(*command, o->set);
  add_output_options(*command, o->outputs);
  command->footer(
      "Examples:\n"
      "  lagniappe-cli retake stairs.take\n"
      "  lagniappe-cli retake stairs.take --set ground.highest_step=0.2 --set jump.height=1.5 --trace "
      "lower.csv\n\n"
      "With nothing changed it says whether the run is identical to the recording, to the bit.\n"
      "Exit code: 0 if it ran, 2 on bad input (one line says which file, where, and what is wrong), 64 on "
      "wrong usage.");
  return {command, [o] { return retake(*o); }};
}

}  // namespace lagniappe::cli
