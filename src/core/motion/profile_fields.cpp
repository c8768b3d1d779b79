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
    {"ground", "speed", Unit::MetresPerSecond, 0.0, 1000.0, AT(ground.speed)},
    {"ground", "sprint_speed", Unit::MetresPerSecond, 0.0, 1000.0, AT(ground.sprint_speed)},
    {"ground", "steepest_walkable", Unit::Degrees, 0.0, 89.0, AT(ground.steepest_walkable)},
    {"ground", "highest_step", Unit::Metres, 0.0, 100.0, AT(ground.highest_step)},
    {"ground", "shortest_tread", Unit::Metres, 0.0, 100.0, AT(ground.shortest_tread)},
    {"ground", "snap_distance", Unit::Metres, 0.0, 100.0, AT(ground.snap_distance)},
    {"ground", "longest_overhang", Unit::Metres, 0.0, 100.0, AT(ground.longest_overhang)},
    {"ground", "turn_rate", Unit::DegreesPerSecond, 0.0, 1e5, AT(ground.turn_rate)},
    {"ground/response", "acceleration", Unit::MetresPerSecond2, 0.0, 1e5, AT(ground.response.acceleration)},
    {"ground/response", "deceleration", Unit::MetresPerSecond2, 0.0, 1e5, AT(ground.response.deceleration)},
    {"ground/response", "time", Unit::Seconds, 0.0, 60.0, AT(ground.response.time)},
    {"ground/response", "stop_time", Unit::Seconds, 0.0, 60.0, AT(ground.response.stop_time)},
    {"air", "speed", Unit::MetresPerSecond, 0.0, 1000.0, AT(air.speed)},
    {"air/response", "acceleration", Unit::MetresPerSecond2, 0.0, 1e5, AT(air.response.acceleration)},
    {"air/response", "deceleration", Unit::MetresPerSecond2, 0.0, 1e5, AT(air.response.deceleration)},
    {"air/response", "time", Unit::Seconds, 0.0, 60.0, AT(air.response.time)},
    {"air/response", "stop_time", Unit::Seconds, 0.0, 60.0, AT(air.response.stop_time)},
    {"jump", "height", Unit::Metres, 0.0, 100.0, AT(jump.height)},
    {"jump", "coyote_time", Unit::Seconds, 0.0, 60.0, AT(jump.coyote_time)},
    {"jump", "buffer", Unit::Seconds, 0.0, 60.0, AT(jump.buffer)},
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
};

#undef AT

}  // namespace

std::span<const ProfileField> profile_fields() { return kFields; }

}  // namespace lagniappe
