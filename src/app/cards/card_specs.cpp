// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/card_specs.h"

#include <algorithm>
#include <set>

#include "lagniappe/profile_fields.h"

namespace lagniappe::app {
namespace {

template <auto make>
std::unique_ptr<CardDrawing> plain(const JumpLocks&) {
  return make();
}

std::unique_ptr<CardDrawing> slope_curve(const JumpLocks&) { return curve_editor("ground.slope_speed"); }
std::unique_ptr<CardDrawing> wall_curve(const JumpLocks&) { return curve_editor("walls.kept"); }

// "ground" of "ground.response.time"; empty for "gravity".
std::string_view section_of(std::string_view path) {
  return path.find('.') == std::string_view::npos ? std::string_view() : path.substr(0, path.find('.'));
}

// What no card names stands at the end of the first that has a value of its section, else of the last card: so
// that a new row of the core's tables can be seen and set at once.
std::vector<CardSpec> with_the_rest(std::vector<CardSpec> specs) {
  std::set<std::string> named;
  for (const CardSpec& spec : specs) named.insert(spec.paths.begin(), spec.paths.end());
  const auto add = [&](const auto& row) {
    const std::string path = path_of(row.section, row.key);
    if (named.contains(path)) return;
    const auto has_its_section = [&](const CardSpec& spec) {
      return std::any_of(spec.paths.begin(), spec.paths.end(),
                         [&](const std::string& other) { return section_of(other) == section_of(path); });
    };
    const auto at = std::find_if(specs.begin(), specs.end(), has_its_section);
    (at == specs.end() ? specs.back() : *at).paths.push_back(path);
  };
  for (const ProfileField& field : profile_fields()) add(field);
  for (const ProfileChoice& choice : profile_choices()) add(choice);
  return specs;
}

std::vector<CardSpec> named_cards() {
  return {
      {"body",
       "Body",
       "body",
       {plain<body_drawing>},
       {"capsule.height", "capsule.radius", "capsule.eye_height", "capsule.centre_of_mass", "capsule.margin",
        "capsule.longest_push_out", "upright.turn_rate", "upright.time", "float.thrust", "float.speed",
        "stances.crouched_height", "stances.lying_length", "stances.crouch_time", "stances.lie_time",
        "stances.in_air"}},
      {"walk",
       "Walk",
       "walk",
       {plain<walk_drawing>},
       {"ground.speed", "ground.sprint_speed", "ground.response.model", "ground.response.acceleration",
        "ground.response.deceleration", "ground.response.turn_acceleration", "ground.response.time",
        "ground.response.stop_time", "ground.response.turn_time", "ground.facing", "ground.turn_rate",
        "ground.gather.growth", "ground.gather.lowest", "ground.gather.highest", "ground.gather.grace",
        "ground.gather.least"}},
      {"jump",
       "Jump",
       "jump",
       {jump_drawing},
       {"jump.height", "gravity", "jump.fall_factor", "jump.apex_speed", "jump.apex_factor",
        "jump.lowest_share", "terminal_speed", "jump.coyote_time", "jump.buffer", "jump.air_jumps",
        "jump.edge_uses_first", "jump.held_repeats", "jump.from_skid", "jump.remember_on_skid",
        "jump.from_wall", "jump.wall_push", "jump.inherits", "jump.head_bump"}},
      {"air",
       "Air",
       "air",
       {plain<air_drawing>},
       {"air.speed", "air.over_run_up", "air.response.model", "air.response.acceleration",
        "air.response.deceleration", "air.response.turn_acceleration", "air.response.time",
        "air.response.stop_time", "air.response.turn_time", "air.wind_share", "air.wind_time",
        "air.highest_step"}},
      {"slopes",
       "Slopes",
       "slopes",
       {plain<slope_drawing>, slope_curve},
       {"ground.steepest_walkable", "ground.speed_on_slopes", "ground.landing", "skid.friction",
        "skid.steering_speed", "skid.steering_time", "skid.run_out_time", "skid.lowest_speed"}},
      {"steps",
       "Steps & snapping",
       "steps",
       {plain<step_drawing>},
       {"ground.highest_step", "ground.shortest_tread", "ground.snap_distance", "ground.longest_overhang",
        "ground.crest_angle", "ground.crest_speed", "smoothing.time", "smoothing.largest"}},
      {"ledges",
       "Ledges",
       "ledges",
       {plain<ledge_drawing>},
       {"ledge.guard", "ledge.least_reach", "ledge.deepest_drop", "ledge.reach_time"}},
      {"hang",
       "Hang",
       "hang",
       {plain<hang_drawing>, plain<heights_drawing>},
       {"hang.catch", "hang.lowest", "hang.highest", "hang.reach", "hang.hands", "hang.facing", "hang.rising",
        "hang.shortest_shelf", "hang.steepest_shelf", "hang.speed", "hang.catch_time", "hang.pause"}},
      {"climb",
       "Climb",
       "climb",
       {plain<climb_drawing>},
       {"climb.grip", "climb.axes", "climb.up_speed", "climb.down_speed", "climb.side_speed", "climb.reach",
        "climb.gap", "climb.hands", "climb.most_back", "climb.most_over", "climb.turn_rate", "climb.take_time",
        "climb.pause"}},
      {"mantle",
       "Mantle",
       "mantle",
       {plain<mantle_drawing>},
       {"mantle.start", "mantle.lowest", "mantle.highest", "mantle.reach", "mantle.longest_vault",
        "mantle.deepest_landing", "mantle.time_per_metre", "mantle.least_time", "mantle.kept_speed"}},
      {"walls", "Walls", "walls", {wall_curve}, {"walls.steepest_skid", "walls.ceiling_from", "walls.strike"}},
      {"look",
       "Look & camera",
       "look",
       {plain<stick_drawing>, plain<camera_drawing>},
       {"look.mouse_yaw", "look.mouse_pitch", "look.stick_yaw", "look.stick_pitch", "look.invert_yaw",
        "look.invert_pitch", "look.lowest_pitch", "look.highest_pitch", "look.dead_zone", "look.stick_power",
        "camera.kind", "camera.overview_turns", "camera.distance", "camera.shoulder", "camera.lag",
        "camera.pull_in_radius", "camera.field_of_view", "camera.widening", "camera.widening_speed"}},
      {"flight", "Free flight", "", {}, {"fly.speed", "fly.sprint_speed", "fly.time"}},
      {"gait",
       "Gait",
       "",
       {},
       {"gait.walking_stride", "gait.walking_speed", "gait.running_stride", "gait.running_speed", "gait.lean",
        "gait.landing_speed"}},
  };
}

bool applies_to_response(const std::string& key, Response::Model model) {
  const bool acceleration = key.find("acceleration") != std::string::npos || key == "deceleration";
  if (model == Response::Model::Instant) return false;
  return acceleration == (model == Response::Model::Steady);
}

}  // namespace

std::span<const CardSpec> card_specs() {
  static const std::vector<CardSpec> specs = with_the_rest(named_cards());
  return specs;
}

const CardSpec* card_of(const std::string& path) {
  const std::string like = path == "ground.slope_speed"     ? "ground.steepest_walkable"
                           : path == "jump.air_jump_height" ? "jump.air_jumps"
                                                            : path;
  for (const CardSpec& spec : card_specs()) {
    if (std::find(spec.paths.begin(), spec.paths.end(), like) != spec.paths.end()) return &spec;
    if (path == "walls.kept" && spec.id == std::string_view("walls")) return &spec;
  }
  return nullptr;
}

bool applies(const std::string& path, const Profile& p) {
  for (const auto& [section, response] :
       {std::pair<std::string, const Response&>{"ground.response.", p.ground.response},
        std::pair<std::string, const Response&>{"air.response.", p.air.response}}) {
    if (path.starts_with(section) && path != section + "model")
      return applies_to_response(path.substr(section.size()), response.model);
  }
  if (path == "ground.speed") return p.ground.gather.growth <= 0.0;
  if (path.starts_with("ground.gather.")) return path.ends_with("growth") || p.ground.gather.growth > 0.0;
  if (path == "jump.apex_factor") return p.jump.apex_speed > 0.0;
  if (path == "jump.wall_push") return p.jump.from_wall;
  if (path == "jump.remember_on_skid") return !p.jump.from_skid;
  if (path == "camera.widening_speed") return p.camera.widening > 0.0;
  return true;
}

}  // namespace lagniappe::app
