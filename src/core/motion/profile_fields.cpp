// SPDX-License-Identifier: MIT
#include "lagniappe/profile_fields.h"

#include <array>

namespace lagniappe {
namespace {

#define AT(member) [](Profile& p) -> double& { return p.member; }

constexpr ProfileField kFields[] = {
    {"", "gravity", Unit::MetresPerSecond2, 0.0, 1000.0, AT(gravity)},
    {"", "terminal_speed", Unit::MetresPerSecond, 0.1, 1000.0, AT(terminal_speed)},
    {"capsule", "radius", Unit::Metres, 0.01, 100.0, AT(capsule.radius)},
    {"capsule", "height", Unit::Metres, 0.02, 200.0, AT(capsule.height)},
    {"capsule", "eye_height", Unit::Metres, 0.0, 200.0, AT(capsule.eye_height)},
    {"capsule", "margin", Unit::Metres, 1e-5, 50.0, AT(capsule.margin)},
    {"capsule", "longest_push_out", Unit::Metres, 0.0, 100.0, AT(capsule.longest_push_out)},
    {"ground", "speed", Unit::MetresPerSecond, 0.0, 1000.0, AT(ground.speed)},
    {"ground", "sprint_speed", Unit::MetresPerSecond, 0.0, 1000.0, AT(ground.sprint_speed)},
    {"ground", "steepest_walkable", Unit::Degrees, 0.0, 89.0, AT(ground.steepest_walkable)},
    {"ground", "highest_step", Unit::Metres, 0.0, 100.0, AT(ground.highest_step)},
    {"ground", "shortest_tread", Unit::Metres, 0.0, 100.0, AT(ground.shortest_tread)},
    {"ground", "snap_distance", Unit::Metres, 0.0, 100.0, AT(ground.snap_distance)},
    {"ground", "longest_overhang", Unit::Metres, 0.0, 100.0, AT(ground.longest_overhang)},
    {"ground", "crest_angle", Unit::Degrees, 0.0, 180.0, AT(ground.crest_angle)},
    {"ground", "crest_speed", Unit::MetresPerSecond, 0.0, 1000.0, AT(ground.crest_speed)},
    {"ground", "turn_rate", Unit::DegreesPerSecond, 0.0, 1e5, AT(ground.turn_rate)},
    {"ground/response", "acceleration", Unit::MetresPerSecond2, 0.0, 1e5, AT(ground.response.acceleration)},
    {"ground/response", "deceleration", Unit::MetresPerSecond2, 0.0, 1e5, AT(ground.response.deceleration)},
    {"ground/response", "time", Unit::Seconds, 0.0, 60.0, AT(ground.response.time)},
    {"ground/response", "stop_time", Unit::Seconds, 0.0, 60.0, AT(ground.response.stop_time)},
    {"ground/response", "turn_acceleration", Unit::MetresPerSecond2, 0.0, 1e5,
     AT(ground.response.turn_acceleration)},
    {"ground/response", "turn_time", Unit::Seconds, 0.0, 60.0, AT(ground.response.turn_time)},
    {"air", "speed", Unit::MetresPerSecond, 0.0, 1000.0, AT(air.speed)},
    {"air", "highest_step", Unit::Metres, 0.0, 100.0, AT(air.highest_step)},
    {"air/response", "acceleration", Unit::MetresPerSecond2, 0.0, 1e5, AT(air.response.acceleration)},
    {"air/response", "deceleration", Unit::MetresPerSecond2, 0.0, 1e5, AT(air.response.deceleration)},
    {"air/response", "time", Unit::Seconds, 0.0, 60.0, AT(air.response.time)},
    {"air/response", "stop_time", Unit::Seconds, 0.0, 60.0, AT(air.response.stop_time)},
    {"air/response", "turn_acceleration", Unit::MetresPerSecond2, 0.0, 1e5, AT(air.response.turn_acceleration)},
    {"air/response", "turn_time", Unit::Seconds, 0.0, 60.0, AT(air.response.turn_time)},
    {"jump", "height", Unit::Metres, 0.0, 100.0, AT(jump.height)},
    {"jump", "coyote_time", Unit::Seconds, 0.0, 60.0, AT(jump.coyote_time)},
    {"jump", "buffer", Unit::Seconds, 0.0, 60.0, AT(jump.buffer)},
    {"skid", "friction", Unit::Share, 0.0, 10.0, AT(skid.friction)},
    {"skid", "steering_speed", Unit::MetresPerSecond, 0.0, 1000.0, AT(skid.steering_speed)},
    {"skid", "steering_time", Unit::Seconds, 0.0, 60.0, AT(skid.steering_time)},
    {"skid", "run_out_time", Unit::Seconds, 0.0, 60.0, AT(skid.run_out_time)},
    {"skid", "lowest_speed", Unit::MetresPerSecond, 0.0, 1000.0, AT(skid.lowest_speed)},
    {"fly", "speed", Unit::MetresPerSecond, 0.0, 1000.0, AT(fly.speed)},
    {"fly", "sprint_speed", Unit::MetresPerSecond, 0.0, 1000.0, AT(fly.sprint_speed)},
    {"fly", "time", Unit::Seconds, 0.0, 60.0, AT(fly.time)},
    {"look", "mouse_yaw", Unit::Degrees, -100.0, 100.0, AT(look.mouse_yaw)},
    {"look", "mouse_pitch", Unit::Degrees, -100.0, 100.0, AT(look.mouse_pitch)},
    {"look", "stick_yaw", Unit::DegreesPerSecond, -1e4, 1e4, AT(look.stick_yaw)},
    {"look", "stick_pitch", Unit::DegreesPerSecond, -1e4, 1e4, AT(look.stick_pitch)},
    {"look", "lowest_pitch", Unit::Degrees, -90.0, 0.0, AT(look.lowest_pitch)},
    {"look", "highest_pitch", Unit::Degrees, 0.0, 90.0, AT(look.highest_pitch)},
    {"look", "dead_zone", Unit::Share, 0.0, 0.9, AT(look.dead_zone)},
    {"smoothing", "time", Unit::Seconds, 0.0, 60.0, AT(smoothing.time)},
    {"smoothing", "largest", Unit::Metres, 0.0, 100.0, AT(smoothing.largest)},
};

#undef AT

constexpr ProfileCurve kCurves[] = {
    {"ground", "slope_speed", -90.0, 90.0, 0.0, 10.0,
     [](Profile& p) -> Curve& { return p.ground.slope_speed; }},
    {"walls", "kept", 0.0, 90.0, 0.0, 1.0, [](Profile& p) -> Curve& { return p.walls.kept; }},
};

constexpr std::string_view kSpeedsOnSlopes[] = {"along", "level"};
constexpr std::string_view kInherits[] = {"all", "horizontal", "none"};
constexpr std::string_view kModels[] = {"instant", "steady", "exponential", "smooth"};

#define CHOICE(section, key, words, member)                                              \
  {                                                                                      \
    section, key, words, [](const Profile& p) { return static_cast<int>(p.member); },    \
        [](Profile& p, int value) { p.member = static_cast<decltype(p.member)>(value); } \
  }

constexpr ProfileChoice kChoices[] = {
    CHOICE("ground", "speed_on_slopes", kSpeedsOnSlopes, ground.speed_on_slopes),
    CHOICE("ground/response", "model", kModels, ground.response.model),
    CHOICE("air/response", "model", kModels, air.response.model),
    CHOICE("jump", "from_skid", {}, jump.from_skid),
    CHOICE("jump", "inherits", kInherits, jump.inherits),
};

#undef CHOICE

}  // namespace

std::span<const ProfileField> profile_fields() { return kFields; }
std::span<const ProfileCurve> profile_curves() { return kCurves; }
std::span<const ProfileChoice> profile_choices() { return kChoices; }

}  // namespace lagniappe
