// SPDX-License-Identifier: MIT
// The derived figures, group by group, each with the formula it is had by.
#include <fmt/format.h>

#include <algorithm>

#include "lagniappe/handling.h"

namespace lagniappe {
namespace {

class Figures {
 public:
  explicit Figures(int tick_rate) : tick_rate_(tick_rate) {}

  void begin(std::string group) { group_ = std::move(group); }
  void add(const std::string& key, double value, const char* unit, const char* formula) {
    list_.push_back({group_, key, unit, formula, value});
  }
  // A span of time also in ticks: how many of them it covers.
  void add_ticks(const std::string& key, double seconds, const char* formula) {
    add(key, std::floor(seconds * tick_rate_ + 1e-9) + (seconds > 0.0 ? 1.0 : 0.0), "ticks", formula);
  }
  std::vector<Figure> take() { return std::move(list_); }

 private:
  int tick_rate_;
  std::string group_;
  std::vector<Figure> list_;
};

void add_body(Figures& f, const Profile& p) {
  f.begin("body");
  f.add("core_radius", p.capsule.radius - p.capsule.margin, "m", "radius - margin");
  f.add("narrowest_gap", 2.0 * p.capsule.radius, "m", "2 radius");
  f.add("lowest_opening", p.capsule.height, "m", "height");
}

void add_walk(Figures& f, const Profile& p) {
  const PushCurve walk(p.ground.response, walking_speed(p), 1.0),
      sprint(p.ground.response, p.ground.sprint_speed, 1.0);
  f.begin("walk");
  f.add("walking_speed", walking_speed(p), "m/s",
        "ground.speed, or ground.gather.highest where its growth is above 0");
  f.add("time_to_90_percent", walk.time_to_90(), "s",
        "steady: 0.9 speed / acceleration; exponential: time ln 10; smooth: 1.9449 time");
  f.add("stop_time", walk.stop_time(), "s",
        "until 2 % are left; steady: 0.98 speed / deceleration; exponential: stop_time ln 50; smooth: 2.9170 "
        "stop_time");
  f.add("stopping_distance", walk.stopping_distance(), "m",
        "steady: speed^2 / (2 deceleration); else speed stop_time");
  f.add("sprint_stopping_distance", sprint.stopping_distance(), "m", "as stopping_distance, at sprint_speed");
  f.add("time_to_turn_round", walk.turn_time(), "s",
        "full speed to a stand while pushing back; steady: speed / turn_acceleration; exponential: turn_time "
        "ln 2; smooth: 0.8392 turn_time");
  f.add("half_turn", p.ground.turn_rate > 0.0 ? kPi / p.ground.turn_rate : 0.0, "s", "180 / turn_rate");
  const auto& gather = p.ground.gather;
  if (gather.growth > 0.0)
    f.add("gather_time", (gather.highest - gather.lowest) / gather.growth, "s", "(highest - lowest) / growth");
}

void add_jump(Figures& f, const Profile& p) {
  const JumpArc arc = jump_arc(p);
  f.begin("jump");
  f.add("take_off_speed", arc.take_off, "m/s",
        "v = sqrt(2 g (h - c) + s^2), g gravity, h height, s apex_speed, k apex_factor, c = s^2 / (2 g k); "
        "without hang sqrt(2 g h); where h < c sqrt(2 g k h)");
  f.add("time_to_apex", arc.time_to_apex, "s", "(v - s) / g + s / (g k); without hang v / g");
  f.add("airtime", arc.airtime, "s",
        "time_to_apex, then the fall from the height: sqrt(2 h / (g fall_factor)) without hang and below "
        "terminal_speed");
  f.add("distance", arc.airtime * walking_speed(p), "m", "airtime walking_speed");
  f.add("sprint_distance", arc.airtime * p.ground.sprint_speed, "m", "airtime ground.sprint_speed");
  f.add("landing_speed", arc.landing_speed, "m/s",
        "sqrt(2 h g fall_factor) without hang, at most terminal_speed");
  if (arc.apex_time > 0.0) f.add("apex_time", arc.apex_time, "s", "2 s / (g k)");
  f.add("lowest_height", p.jump.height * p.jump.lowest_share, "m",
        "height lowest_share, let go at once: gravity times v^2 / (2 g lowest_height) until the apex");
  for (int k = 1; k <= std::min(p.jump.air_jumps, 3); ++k) {
    f.add(fmt::format("air_jump_{}_height", k), jump_height(p, k), "m",
          "air_jump_height at its number, else height");
    f.add(fmt::format("air_jump_{}_speed", k), take_off_speed(p, jump_height(p, k)), "m/s",
          "as take_off_speed; replaces the rise speed");
  }
  f.add("coyote_distance", p.jump.coyote_time * walking_speed(p), "m", "coyote_time walking_speed");
  f.add_ticks("coyote_ticks", p.jump.coyote_time, "ticks that begin in it");
  f.add("buffer_distance", p.jump.buffer * walking_speed(p), "m", "buffer walking_speed");
  f.add_ticks("buffer_ticks", p.jump.buffer, "ticks that begin in it");
}

void add_air(Figures& f, const Profile& p) {
  const PushCurve air(p.air.response, p.air.speed, 1.0);
  f.begin("air");
  f.add("time_to_90_percent", air.time_to_90(), "s", "as on the ground, with air.response and air.speed");
  const double standing = std::min(p.air.speed, p.air.over_run_up);
  const double airtime = jump_arc(p).airtime;
  f.add("standing_speed", standing, "m/s", "min(air.speed, over_run_up)");
  f.add("standing_distance", PushCurve(p.air.response, standing, airtime).way_at(airtime), "m",
        "way of a push held through a jump from a stand");
}

void add_slopes(Figures& f, const Profile& p) {
  const double steepest = p.ground.steepest_walkable;
  f.begin("slopes");
  f.add("steepest_grade", 100.0 * std::tan(steepest), "%", "100 tan(steepest_walkable)");
  f.add("skid_acceleration", skid_acceleration(p, steepest), "m/s2",
        "gravity (sin a - friction cos a) at a = steepest_walkable");
  f.add("skid_holds_below", degrees(std::atan(p.skid.friction)), "deg", "atan(friction)");
  f.add("run_out_distance", run_out_distance(p, 2.0 * walking_speed(p)), "m",
        "run_out_time (v - lowest_speed) from v = 2 walking_speed");
}

void add_steps(Figures& f, const Profile& p) {
  f.begin("steps");
  f.add("steepest_stairs",
        p.ground.shortest_tread > 0.0 ? degrees(std::atan2(p.ground.highest_step, p.ground.shortest_tread))
                                      : 90.0,
        "deg", "atan(highest_step / shortest_tread)");
  f.add("step_share_of_height", 100.0 * p.ground.highest_step / p.capsule.height, "%",
        "100 highest_step / height");
  f.add("smoothed_until", 3.0 * p.smoothing.time, "s", "3 smoothing.time: 5 % of a step are left");
}

// Near a rim the way that is left decays with reach_time, so the speed does.
void add_ledges(Figures& f, const Profile& p) {
  constexpr double kThere = 0.002;
  const double time = p.ledge.reach_time, speed = walking_speed(p), left = speed * time;
  f.begin("ledges");
  f.add("slows_from", p.ledge.least_reach + left, "m", "least_reach + reach_time walking_speed");
  f.add("stands_after", left > kThere ? time * std::log(left / kThere) : 0.0, "s",
        "reach_time ln(reach_time walking_speed / 2 mm), from where it slows");
  f.add("widest_gap_crossed", 2.0 * std::min(p.ground.longest_overhang, p.capsule.radius), "m",
        "2 min(longest_overhang, radius)");
}

// From beside the wall the foot goes up by the rim's height, and over by the body's width.
void add_mantle(Figures& f, const Profile& p) {
  const auto& m = p.mantle;
  const auto time = [&](double way) { return std::max(m.least_time, m.time_per_metre * way); };
  const double onto = 2.0 * p.capsule.radius;
  f.begin("mantle");
  f.add("highest_time", time(m.highest + onto), "s",
        "max(least_time, time_per_metre (highest + 2 radius)), from beside the wall");
  f.add("metre_time", time(1.0 + onto), "s", "max(least_time, time_per_metre (1 m + 2 radius))");
  f.add("unreached_above_step", std::max(m.lowest - p.ground.highest_step, 0.0), "m",
        "lowest - highest_step: rims in between are neither stepped onto nor mantled");
}

// A rim is caught at the latest where a jump turns; the body then hangs `hands` below it.
void add_hang(Figures& f, const Profile& p) {
  const auto& h = p.hang;
  f.begin("hang");
  f.add("highest_with_jump", h.highest + jump_height(p, 0), "m", "highest + jump height: over the ground");
  const double pull = std::hypot(h.reach, std::max(h.highest - h.hands, h.hands - h.lowest));
  f.add("longest_pull", pull, "m", "at most sqrt(reach^2 + max(highest - hands, hands - lowest)^2)");
  f.add("fastest_pull", h.catch_time > 0.0 ? pull / h.catch_time : 0.0, "m/s", "longest_pull / catch_time");
  f.add("head_under_rim", h.hands - p.capsule.height, "m", "hands - height");
}

void add_climb(Figures& f, const Profile& p) {
  const auto& c = p.climb;
  const auto over = [](double way, double speed) { return speed > 0.0 ? way / speed : 0.0; };
  f.begin("climb");
  f.add("metre_up", over(1.0, c.up_speed), "s", "1 m / up_speed");
  f.add("round_right_angle", over(0.5 * kPi * (p.capsule.radius + c.gap), c.side_speed), "s",
        "pi/2 (radius + gap) / side_speed: round an outer corner");
  f.add("highest_grip", c.hands + jump_height(p, 0), "m",
        "hands + jump height: the lowest end of a wall that is reached");
}

void add_walls(Figures& f, const Profile& p) {
  f.begin("walls");
  f.add("speed_along_at_30", walking_speed(p) * p.walls.kept.at(30.0), "m/s", "walking_speed kept(30)");
  f.add("speed_along_at_60", walking_speed(p) * p.walls.kept.at(60.0), "m/s", "walking_speed kept(60)");
}

void add_look(Figures& f, const Profile& p) {
  f.begin("look");
  const auto over = [](double way, double rate) { return rate != 0.0 ? way / std::abs(rate) : 0.0; };
  f.add("counts_for_full_turn", over(2.0 * kPi, p.look.mouse_yaw), "counts", "360 / mouse_yaw");
  f.add("stick_full_turn", over(2.0 * kPi, p.look.stick_yaw), "s", "360 / stick_yaw");
  f.add("field_at_sprint", degrees(field_of_view(p.camera, p.ground.sprint_speed)), "deg",
        "field_of_view + widening min(sprint_speed / widening_speed, 1)");
}

}  // namespace

double field_of_view(const Profile::Camera& camera, double speed) {
  return camera.field_of_view + camera.widening * std::clamp(speed / camera.widening_speed, 0.0, 1.0);
}

std::vector<Figure> figures_of(const Profile& profile, int tick_rate) {
  Figures figures(tick_rate);
  add_body(figures, profile);
  add_walk(figures, profile);
  add_jump(figures, profile);
  add_air(figures, profile);
  add_slopes(figures, profile);
  add_steps(figures, profile);
  add_ledges(figures, profile);
  add_hang(figures, profile);
  add_climb(figures, profile);
  add_mantle(figures, profile);
  add_walls(figures, profile);
  add_look(figures, profile);
  return figures.take();
}

}  // namespace lagniappe
