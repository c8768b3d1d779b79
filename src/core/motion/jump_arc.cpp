// SPDX-License-Identifier: MIT
// Jumps in closed form.
#include "lagniappe/handling.h"

#include <algorithm>
#include <limits>

namespace lagniappe {
namespace {

constexpr double kInfinite = std::numeric_limits<double>::infinity();

bool slows_at_apex(const Values& profile) {
  return profile.jump.apex_speed > 0.0 && profile.jump.apex_factor < 1.0;
}

// A stretch of a flight under one gravity.
struct Leg {
  double time, speed, height;  // At its begin.
  double gravity;
  double duration;
};

struct Flight {
  static constexpr int kMost = 2 * Pull::kMostBands;
  std::array<Leg, kMost> legs;
  int count = 0;

  void add(const Pull& pull, Leg at, double duration) {
    for (int i = 0; i < pull.count && duration > 0.0; ++i) {
      const Pull::Band& band = pull.bands[i];
      if (at.speed <= band.above) continue;
      at.gravity = band.gravity;
      const double to_bound = band.gravity > 0.0 ? (at.speed - band.above) / band.gravity : kInfinite;
      at.duration = std::min(to_bound, duration);
      legs[count++] = at;
      if (at.duration == kInfinite) return;
      at = end_of(at);
      duration -= at.duration;
      if (to_bound <= at.duration) at.speed = band.above;
    }
  }
  static Leg end_of(const Leg& leg) {
    const double t = leg.duration;
    return {leg.time + t, leg.speed - leg.gravity * t, leg.height + leg.speed * t - 0.5 * leg.gravity * t * t,
            leg.gravity, t};
  }
  // The instant at which the speed is brought to 0.
  double apex_time() const {
    for (int i = 0; i < count; ++i) {
      if (legs[i].gravity > 0.0 && legs[i].speed <= legs[i].gravity * legs[i].duration)
        return legs[i].time + std::max(legs[i].speed, 0.0) / legs[i].gravity;
    }
    return kInfinite;
  }
  Risen at(double time) const {
    for (int i = 0; i < count; ++i) {
      Leg leg = legs[i];
      if (time > leg.time + leg.duration && i + 1 < count) continue;
      leg.duration = time - leg.time;
      leg = end_of(leg);
      return {leg.speed, leg.height};
    }
    return {0.0, 0.0};
  }
  // When it comes down to `height`, which is not above the apex.
  double down_at(double height) const {
    for (int i = 0; i < count; ++i) {
      const Leg& leg = legs[i];
      const double above = leg.height - height;
      if (leg.gravity <= 0.0) return leg.speed < 0.0 ? leg.time - above / leg.speed : kInfinite;
      const double time =
          (leg.speed + std::sqrt(std::max(leg.speed * leg.speed + 2.0 * leg.gravity * above, 0.0))) /
          leg.gravity;
      if (time <= leg.duration) return leg.time + time;
    }
    return kInfinite;
  }
};

Flight flight_of(const Values& profile, int jump, double released) {
  const double speed = take_off_speed(profile, jump_height(profile, jump));
  const bool cuts = released >= 0.0 && profile.jump.lowest_share < 1.0;
  Flight flight;
  flight.add(pull_on(profile, jump, false), {0.0, speed, 0.0, 0.0, 0.0}, cuts ? released : kInfinite);
  if (!cuts) return flight;
  Leg at = flight.count > 0 ? Flight::end_of(flight.legs[flight.count - 1]) : Leg{0.0, speed, 0.0, 0.0, 0.0};
  at.time = released;
  // Once it falls, letting go changes nothing.
  flight.add(pull_on(profile, jump, at.speed > 0.0), at, kInfinite);
  return flight;
}

}  // namespace

double take_off_speed(double gravity, double height) {
  return std::sqrt(2.0 * std::max(gravity, 0.0) * std::max(height, 0.0));
}

double take_off_speed(const Values& profile, double height) {
  if (!slows_at_apex(profile)) return take_off_speed(profile.gravity, height);
  const double apex = profile.jump.apex_speed, weak = profile.gravity * profile.jump.apex_factor;
  const double apex_height = weak > 0.0 ? apex * apex / (2.0 * weak) : kInfinite;
  if (height <= apex_height) return take_off_speed(weak, height);
  return std::sqrt(2.0 * profile.gravity * (height - apex_height) + apex * apex);
}

double jump_height(const Values& profile, int jump) {
  const Curve& heights = profile.jump.air_jump_height;
  return jump > 0 && heights.count > 0 ? heights.at(jump) : profile.jump.height;
}

double cut_factor(const Values& profile, int jump) {
  const double height = jump_height(profile, jump), speed = take_off_speed(profile, height);
  const double lowest = height * profile.jump.lowest_share;
  return lowest > 0.0 && profile.gravity > 0.0 ? speed * speed / (2.0 * profile.gravity * lowest) : 1.0;
}

Pull pull_on(const Values& profile, int jump, bool cut) {
  const double g = profile.gravity, terminal = -profile.terminal_speed;
  Pull pull;
  const auto add = [&](double above, double gravity) { pull.bands[pull.count++] = {above, gravity}; };
  if (jump >= 0 && cut) {
    add(0.0, g * cut_factor(profile, jump));
  } else if (jump >= 0 && slows_at_apex(profile)) {
    add(profile.jump.apex_speed, g);
    add(std::max(-profile.jump.apex_speed, terminal), g * profile.jump.apex_factor);
  } else if (profile.jump.fall_factor != 1.0) {
    add(0.0, g);
  }
  add(terminal, g * profile.jump.fall_factor);
  add(-kInfinite, 0.0);
  return pull;
}

Risen rise_for(const Pull& pull, double speed, double time) {
  double height = 0.0;
  for (int i = 0; i < pull.count; ++i) {
    const auto [above, gravity] = pull.bands[i];
    if (speed <= above) continue;
    const double to_bound = gravity > 0.0 ? (speed - above) / gravity : kInfinite;
    if (time <= to_bound) return {speed - gravity * time, height + speed * time - 0.5 * gravity * time * time};
    height += 0.5 * (speed + above) * to_bound;
    speed = above;
    time -= to_bound;
  }
  return {speed, height};
}

namespace {

// Just above and just below a rise speed.
struct Beside {
  double above, below;
};

// m/s2 upwards, by the air.
double pushed_by(const Draught& draught, double speed) {
  const double gone =
      draught.speed > 0.0 ? std::clamp(speed, 0.0, draught.speed) : std::clamp(speed, draught.speed, 0.0);
  return (draught.speed - gone) / draught.lag();
}

// Whether that becomes less on the way from a speed.
bool lets_up(const Draught& draught, double speed, bool rising) {
  const double along = draught.speed > 0.0 ? speed : -speed, whole = std::abs(draught.speed);
  const bool gains = rising == (draught.speed > 0.0);
  return gains ? along >= 0.0 && along < whole : along > 0.0 && along <= whole;
}

Beside acceleration_in(const Draught& draught, const Pull& pull, double speed) {
  Beside sum{0.0, 0.0};
  for (int i = pull.count - 1; i >= 0; --i) {
    if (speed >= pull.bands[i].above) sum.above = -pull.bands[i].gravity;
    if (speed > pull.bands[i].above) sum.below = -pull.bands[i].gravity;
  }
  const double push = pushed_by(draught, speed);
  return {sum.above + push, sum.below + push};
}

// The next speed at which it changes.
double next_bound(const Draught& draught, const Pull& pull, double speed, bool rising) {
  double next = rising ? kInfinite : -kInfinite;
  const auto offer = [&](double bound) {
    if (rising ? bound > speed && bound < next : bound < speed && bound > next) next = bound;
  };
  for (int i = 0; i < pull.count; ++i) offer(pull.bands[i].above);
  offer(draught.speed);
  offer(0.0);
  return next;
}

// (x - 1 + exp(-x)) / x^2, by its series where that is all rounding.
double second_share(double x) {
  constexpr double kSmall = 1e-2;
  if (x < kSmall) return 0.5 - x * (1.0 / 6.0 - x * (1.0 / 24.0 - x * (1.0 / 120.0 - x / 720.0)));
  return (x + std::expm1(-x)) / (x * x);
}

// A stretch under one gravity, in air that pushes or does not.
struct Stretch {
  double speed, growth;  // At its begin, m/s and m/s2.
  double lag;            // s; infinite without a push: then the growth is even.

  double until(double bound) const {
    if (!std::isfinite(lag)) return (bound - speed) / growth;
    const double left = (bound - speed) / (growth * lag);
    return left < 1.0 ? -lag * std::log1p(-left) : kInfinite;
  }
  Risen after(double time) const {
    if (!std::isfinite(lag)) return {speed + growth * time, speed * time + 0.5 * growth * time * time};
    const double come = -std::expm1(-time / lag);  // Share of the way to the end.
    return {speed + growth * lag * come, speed * time + growth * time * time * second_share(time / lag)};
  }
};

}  // namespace

Risen rise_in(const Draught& draught, const Pull& pull, double speed, double time) {
  if (draught.speed == 0.0) return rise_for(pull, speed, time);
  double height = 0.0;
  while (time > 0.0) {
    const auto [above, below] = acceleration_in(draught, pull, speed);
    // What would rise falls, and what would fall rises: it hovers.
    if (above <= 0.0 && below >= 0.0) return {speed, height + speed * time};
    const double growth = above > 0.0 ? above : below;
    const Stretch stretch{speed, growth, lets_up(draught, speed, growth > 0.0) ? draught.lag() : kInfinite};
    const double bound = next_bound(draught, pull, speed, growth > 0.0);
    const double to_bound = std::isfinite(bound) ? stretch.until(bound) : kInfinite;
    const Risen risen = stretch.after(std::min(time, to_bound));
    height += risen.height;
    if (time <= to_bound) return {risen.speed, height};
    speed = bound;
    time -= to_bound;
  }
  return {speed, height};
}

double gravity_at(const Pull& pull, double speed) {
  for (int i = 0; i < pull.count; ++i) {
    if (speed > pull.bands[i].above) return pull.bands[i].gravity;
  }
  return 0.0;
}

double height_to_apex(const Pull& pull, double speed) {
  double height = 0.0;
  for (int i = 0; i < pull.count && speed > 0.0; ++i) {
    const auto [above, gravity] = pull.bands[i];
    if (speed <= above) continue;
    if (gravity <= 0.0) return kInfinite;
    const double to = std::max(above, 0.0);
    height += 0.5 * (speed * speed - to * to) / gravity;
    speed = to;
  }
  return height;
}

JumpArc jump_arc(const Values& profile, int jump, double released, double from) {
  if (profile.gravity <= 0.0) return {};
  const Flight flight = flight_of(profile, jump, released);
  if (flight.count == 0) return {};
  JumpArc arc;
  arc.take_off = flight.legs[0].speed;
  arc.time_to_apex = flight.apex_time();
  arc.height = flight.at(arc.time_to_apex).height;
  arc.airtime = flight.down_at(-from);
  arc.landing_speed = -flight.at(arc.airtime).speed;
  arc.apex_time = 0.0;
  for (int i = 0; i < flight.count; ++i) {
    const Leg& leg = flight.legs[i];
    if (slows_at_apex(profile) && std::abs(leg.speed) <= profile.jump.apex_speed && leg.gravity > 0.0 &&
        leg.gravity == profile.gravity * profile.jump.apex_factor)
      arc.apex_time += std::max(std::min(leg.time + leg.duration, arc.airtime) - leg.time, 0.0);
  }
  return arc;
}

double jump_height_at(const Values& profile, int jump, double time, double released) {
  return profile.gravity > 0.0 ? flight_of(profile, jump, released).at(time).height : 0.0;
}

double jump_value(const Values& profile, JumpValue which) {
  switch (which) {
    case JumpValue::Height:
      return profile.jump.height;
    case JumpValue::Gravity:
      return profile.gravity;
    case JumpValue::TimeToApex:
      return jump_arc(profile).time_to_apex;
    case JumpValue::TakeOff:
      break;
  }
  return take_off_speed(profile, profile.jump.height);
}

namespace {

// Gravity, height, time and take-off speed as far as they are known.
struct Known {
  double value[4];
  bool has[4] = {};
  double operator[](JumpValue which) const { return value[static_cast<std::size_t>(which)]; }
  bool operator()(JumpValue which) const { return has[static_cast<std::size_t>(which)]; }
};

// Gravity of a jump that is faster than its apex speed, or of one that hangs from begin to end.
double gravity_from(const Known& known, double s, double k, bool all_hangs) {
  using enum JumpValue;
  const double h = known[Height], t = known[TimeToApex], v = known[TakeOff];
  if (known(Gravity)) return known[Gravity];
  if (all_hangs)
    return known(Height) && known(TimeToApex) ? 2.0 * h / (k * t * t)
           : known(Height)                    ? v * v / (2.0 * k * h)
                                              : v / (k * t);
  const double lag = s / k - s;  // What hanging takes off v = g t.
  if (!known(Height)) return (v + lag) / t;
  if (!known(TimeToApex)) return (v * v - s * s + s * s / k) / (2.0 * h);
  // (g t - lag)^2 - s^2 + s^2 / k = 2 g h.
  const double a = t * t, b = -2.0 * t * lag - 2.0 * h, c = lag * lag - s * s + s * s / k;
  const double root = b * b - 4.0 * a * c;
  return root >= 0.0 ? (-b + std::sqrt(root)) / (2.0 * a) : -1.0;
}

std::optional<Profile> made_of(const Profile& profile, const Known& known, bool all_hangs) {
  using enum JumpValue;
  const bool apex = slows_at_apex(profile);
  const double s = apex ? profile.jump.apex_speed : 0.0, k = apex ? profile.jump.apex_factor : 1.0;
  Profile made = profile;
  const double g = made.gravity = gravity_from(known, s, k, all_hangs);
  if (!(g > 0.0) || !std::isfinite(g)) return std::nullopt;
  const double v = known(TakeOff) ? known[TakeOff]
                   : known(TimeToApex)
                       ? (all_hangs ? g * k * known[TimeToApex] : g * known[TimeToApex] - s / k + s)
                       : take_off_speed(made, known[Height]);
  made.jump.height = known(Height) ? known[Height]
                     : all_hangs   ? v * v / (2.0 * g * k)
                                   : (v * v - s * s + s * s / k) / (2.0 * g);
  const bool fits = made.jump.height > 0.0 && (all_hangs ? v <= s * (1.0 + 1e-9) : v >= s * (1.0 - 1e-9));
  return fits ? std::optional(made) : std::nullopt;
}

}  // namespace

std::optional<Profile> with_jump(const Profile& profile, JumpValue first, double first_value, JumpValue second,
                                 double second_value) {
  if (!(first_value > 0.0) || !(second_value > 0.0)) return std::nullopt;
  Known known{};
  for (const auto& [which, value] : {std::pair{first, first_value}, std::pair{second, second_value}}) {
    known.value[static_cast<std::size_t>(which)] = value;
    known.has[static_cast<std::size_t>(which)] = true;
  }
  const auto fast = made_of(profile, known, false);
  return fast || !slows_at_apex(profile) ? fast : made_of(profile, known, true);
}

std::optional<Profile> with_airtime(const Profile& profile, double airtime, bool same_gravity) {
  if (!(airtime > 0.0) || profile.gravity <= 0.0 || profile.jump.height <= 0.0) return std::nullopt;
  // Airtime falls with gravity and grows with height; both within what profiles take.
  double low = 1e-3, high = same_gravity ? 100.0 : 1000.0;
  Profile made = profile;
  for (int halving = 0; halving < 60; ++halving) {
    const double middle = std::sqrt(low * high);
    (same_gravity ? made.jump.height : made.gravity) = middle;
    const bool too_long = jump_arc(made).airtime > airtime;
    (too_long == same_gravity ? high : low) = middle;
  }
  return made;
}

}  // namespace lagniappe
