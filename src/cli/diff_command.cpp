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

constexpr int kDifferent = 1;

struct Options {
  std::string first, second;
};

int diff(const Options& options) {
  const auto a = read_take(options.first);
  if (!a) return fail(a.error());
  const auto b = read_take(options.second);
  if (!b) return fail(b.error());
  const TriangleWorld world_a = build_world(*a->course), world_b = build_world(*b->course);
  const Compared first{*run_take(*a, world_a), *a, world_a}, second{*run_take(*b, world_b), *b, world_b};
  fmt::print("first             {}, {:.2f} s at {} ticks per second, profile {}\n", a->about.name, a->seconds(),
             a->tick_rate, a->profile.name);
  fmt::print("second            {}, {:.2f} s at {} ticks per second, profile {}\n", b->about.name, b->seconds(),
             b->tick_rate, b->profile.name);
  fmt::print("course            {}\n", a->course_identity == b->course_identity ? "the same" : "not the same");
  for (const ProfileDifference& d : differences(a->profile, b->profile))
    fmt::print("profile           {} {} -> {} {}\n", d.path, d.from, d.to, d.unit);
  return print_comparison(first, second) ? kFine : kDifferent;
}

}  // namespace

Command add_diff(CLI::App& app) {
  CLI::App* command = app.add_subcommand("diff", "Say where two takes part, and why");
  auto o = std::make_shared<Options>();
  command->add_option("TAKE_A", o->first, "The first take")->required();
  command->add_option("TAKE_B", o->second, "The second take")->required();
  command->footer(
      "Example:\n  lagniappe-cli diff before.take after.take\n\n"
      "Exit code: 0 if the runs are identical, 1 if they are not, 2 on bad input, 64 on wrong usage.");
  return {command, [o] { return diff(*o); }};
}

}  // namespace lagniappe::cli
