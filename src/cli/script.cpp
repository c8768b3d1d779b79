// SPDX-License-Identifier: MIT
#include "script.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>

#include "commands.h"

namespace lagniappe::cli {
void add_source_options(CLI::App& command, Script& script, bool required) {
  command.add_option("--course", script.course, "Course (*.course.json) or model (*.glb, *.gltf, *.obj)")
      ->required(required);
  command.add_option("--profile", script.profile, "Profile (*.profile.json)")->required(required);
  command.add_option("--inputs", script.inputs, "Inputs (*.inputs.json)")->required(required);
  auto* from = command.add_option("--from", script.from, "Mark to begin at; the course's start if not given");
  command
      .add_option("--at", script.at, "Place to begin at, X,Y,Z in metres or X,Y,Z,YAW with the yaw in degrees")
      ->delimiter(',')
      ->expected(3, 4)
      ->excludes(from);
  add_set_option(command, script.set);
  command
      .add_option("--seconds", script.seconds,
                  "Length of the run; 2 s beyond the last change of input if not given")
      ->check(CLI::Range(0.0, 86400.0));
}

void add_script_options(CLI::App& command, Script& script, bool required) {
  add_source_options(command, script, required);
  command.add_option("--hz", script.hz, "Tick rate in ticks per second")
      ->check(CLI::Range(10, 480))
      ->capture_default_str();
}

void add_set_option(CLI::App& command, std::vector<std::string>& set) {
  command.add_option("--set", set, "Change a value of the profile, as in ground.speed=5.2; may be repeated")
      ->allow_extra_args(false);
}

Result<Profile> with_values(Profile profile, const std::vector<std::string>& assignments) {
  for (const std::string& assignment : assignments) {
    auto changed = with_value(profile, assignment);
    if (!changed) return changed;
    profile = *changed;
  }
  return profile;
}

Result<Profile> profile_with(const std::string& path, const std::vector<std::string>& assignments) {
  const auto profile = read_profile(path);
  return profile ? with_values(*profile, assignments) : profile;
}

namespace {

std::string names_of(const std::vector<Mark>& marks) {
  std::string names;
  for (const Mark& mark : marks) names += (names.empty() ? "" : ", ") + mark.id;
  return names;
}

// Where a run begins.
Result<Home> home_in(const Script& script, const Course& course) {
  if (script.from.empty() && script.at.empty()) return start_home(course);
  if (!script.from.empty()) {
    const auto mark = std::find_if(course.marks.begin(), course.marks.end(),
                                   [&](const Mark& m) { return m.id == script.from; });
    if (mark != course.marks.end()) return home_of(course, *mark);
    return refuse(
        Error{script.course, "--from",
              fmt::format("there is no mark “{}”; there are: {}", script.from, names_of(course.marks))});
  }
  Mark at{"", {script.at[0], script.at[1], script.at[2]}, 0.0};
  if (script.at.size() == 4) at.facing = radians(script.at[3]);
  if (course.limits.contains(at.at_C)) return home_of(course, at);
  return refuse(Error{script.course, "--at", "this is outside of the course's limits"});
}

}  // namespace

Result<Loaded> load(const Script& script) {
  auto course = read_course(script.course);
  if (!course) return refuse(course.error());
  const auto home = home_in(script, *course);
  if (!home) return refuse(home.error());
  auto profile = profile_with(script.profile, script.set);
  if (!profile) return refuse(profile.error());
  auto inputs = read_inputs(script.inputs);
  if (!inputs) return refuse(inputs.error());
  return Loaded{std::move(*course), *profile, std::move(*inputs), *home};
}

Take take_of(const Script& script, Loaded loaded, const TriangleWorld& world, double seconds) {
  Take take;
  take.start = start_state(loaded.profile, loaded.home, world);
  take.tick_rate = script.hz;
  take.inputs = frames_of(loaded.inputs, script.hz, seconds);
  take.profile = loaded.profile;
  take.course_identity = identity_of(world);
  take.profile_identity = identity_of(loaded.profile);
  take.course_file = std::filesystem::absolute(script.course).string();
  take.profile_file = std::filesystem::absolute(script.profile).string();
  take.course = std::make_shared<const Course>(std::move(loaded.course));
  return take;
}

double seconds_of(const Script& script, const InputScript& inputs) {
  return script.seconds >= 0.0 ? script.seconds : inputs.end() + kSecondsAfterScript;
}

int fail(const Error& error) {
  fmt::print(stderr, "error: {}\n", error.sentence());
  return kBadInput;
}

}  // namespace lagniappe::cli
