// SPDX-License-Identifier: MIT
// What the values of a profile come to, in closed form: how high, how far, how soon. Nothing here steps; tests
// hold the figures against simulated runs.
//
// Units: m, m/s, m/s2, s, radians. Motion is over level ground without walls. Vectors of one dimension are
// plain numbers: along the push, or along up.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "lagniappe/profile.h"

namespace lagniappe {

// The speed that leaves the ground so that the apex is `height` higher under plain gravity: v = sqrt(2 g h).
double take_off_speed(double gravity, double height);

// The same for the profile, whose jumps may hang around the apex. With s the hang speed, k its factor of
// gravity, and c = s^2 / (2 g k) the height gained while hanging: v = sqrt(2 g (h - c) + s^2); v = sqrt(2 g k
// h) where h < c.
double take_off_speed(const Values& profile, double height);

// The height that a jump is set to: 0 is the first, k the k-th in the air.
double jump_height(const Values& profile, int jump);

// Gravity of a rise after the button was let go, as a share of gravity: v^2 / (2 g lowest), which takes a jump
// that is let go of at once to `lowest_share` of its height.
double cut_factor(const Values& profile, int jump);

// How gravity pulls at a character in the air: by a factor of gravity for each band of rise speed. A band holds
// for speeds above `above`; the last one, for the fall at terminal speed, pulls no more.
struct Pull {
  static constexpr int kMostBands = 5;
  struct Band {
    double above;    // m/s of rise.
    double gravity;  // m/s2.
  };
  std::array<Band, kMostBands> bands;
  int count = 0;
};
// `jump`: which one the flight is of, or -1 for none. `cut`: the button was let go.
Pull pull_on(const Values& profile, int jump, bool cut);

// Rise speed and height after `time` of such a pull, exactly.
struct Risen {
  double speed, height;
};
Risen rise_for(const Pull& pull, double speed, double time);
// Air that goes up or down pushes by its speed over the wind's time, in m/s2; who goes along with it, by what
// it is faster than he. Still air does nothing.
struct Draught {
  double speed = 0.0, time = 1.0;  // m/s upwards, s.

  double lag() const { return std::max(time, 1e-6); }
};
// The same in such air, exactly.
Risen rise_in(const Draught& draught, const Pull& pull, double speed, double time);

// m/s2 at a rise speed, and the m that a rise at `speed` will still go; infinite without gravity.
double gravity_at(const Pull& pull, double speed);
double height_to_apex(const Pull& pull, double speed);

// The flight of a jump from level ground, the speed along the ground kept.
struct JumpArc {
  double take_off;                // m/s.
  double height, time_to_apex;    // Of the foot above the take-off.
  double airtime, landing_speed;  // Back at the height of the take-off; m/s downwards.
  double apex_time;               // s of it at the hang's gravity.
};
// `released`: s after the take-off at which the button is let go; negative: never. `from`: m above the ground
// at which the jump begins.
JumpArc jump_arc(const Values& profile, int jump = 0, double released = -1.0, double from = 0.0);
// Height above the take-off `time` after it.
double jump_height_at(const Values& profile, int jump, double time, double released = -1.0);

// Of these four, any two make the other two: v = g t + s - s / k, and 2 g h = v^2 - s^2 + s^2 / k, with s and k
// as for take_off_speed(); v = g k t and h = v t / 2 where all of the jump hangs. Without hang v = g t, h = v t
// / 2.
enum class JumpValue : std::uint8_t { Height, TimeToApex, Gravity, TakeOff };
double jump_value(const Values& profile, JumpValue which);

// Returns the profile with the gravity and jump height that two of the values make; nothing where none do.
// REQUIRES: two different ones.
std::optional<Profile> with_jump(const Profile& profile, JumpValue first, double first_value, JumpValue second,
                                 double second_value);
// The same for an airtime over level ground, by the gravity at the same height, or by the height at the same
// gravity.
std::optional<Profile> with_airtime(const Profile& profile, double airtime, bool same_gravity);

// Speed over time of a push that is held for `push` seconds from a stand, and let go.
class PushCurve {
 public:
  // `target`: m/s at full push.
  PushCurve(const Response& response, double target, double push);

  double speed_at(double time) const;
  double way_at(double time) const;

  double time_to_90() const { return time_to_90_; }  // s; infinite where it is never reached.
  double stop_time() const { return stop_time_; }    // s after letting go at full speed until 2 % are left.
  double stopping_distance() const { return stopping_distance_; }  // m after letting go at full speed, to rest.
  double turn_time() const { return turn_time_; }  // s from full speed one way to a stand, pushing the other.

 private:
  friend PushCurve walking_push(const Values& profile, double push);
  struct Pushed;
  Pushed pushed_for(double time) const;

  Response response_;
  double target_, push_;
  double growth_ = 0.0, highest_ = 0.0;  // Of a target that grows.
  double time_to_90_, stop_time_, stopping_distance_, turn_time_;
};

// The push of a walk: towards ground.speed, or towards what is gathered.
PushCurve walking_push(const Values& profile, double push);

// The speed that a push held for long reaches on level ground without sprinting.
double walking_speed(const Values& profile);

// Returns the way from a foot's touch to its next at a speed along the ground.
double stride_length(const Values::Gait& gait, double speed);

// Returns the response whose time to 90 % (or stopping distance at `speed`) is what is asked, by changing the
// one value of its model that decides it. Instant responses stay as they are.
Response with_time_to_90(Response response, double speed, double time);
Response with_stopping_distance(Response response, double speed, double distance);

// Speed that has been gathered after `time` of push.
double gathered_speed(const Profile::Ground::Gather& gather, double time);

// A skid down a slope of `angle`: the acceleration along it (m/s2; not positive: it comes to rest), and the way
// on level ground until a skid of `speed` is over.
double skid_acceleration(const Values& profile, double angle);
double run_out_distance(const Values& profile, double speed);

// The field of view, in radians from bottom to top, at a speed.
double field_of_view(const Profile::Camera& camera, double speed);

// A derived figure with what it is had from.
struct Figure {
  std::string group;    // The card it belongs to: "jump", "walk", ...
  std::string key;      // "time_to_apex".
  std::string unit;     // "s"; empty for shares and counts.
  std::string formula;  // In the names of the values: "sqrt(2 gravity height)".
  double value;         // Angles in degrees. Infinite where it is never reached.
};
// All figures, at a tick rate where ticks are counted.
std::vector<Figure> figures_of(const Profile& profile, int tick_rate);

}  // namespace lagniappe
