// SPDX-License-Identifier: MIT
#include "motion/ledge_guard.h"

#include <algorithm>
#include <span>

namespace lagniappe {
namespace {

constexpr double kLeastReach = 0.001;     // m; nearer a rim cannot be told from the drop.
constexpr double kLongestStretch = 0.02;  // m along a rim that bends.
constexpr double kLeastStretch = 0.1;     // Of a way: however fast, no more stretches than this allows.
constexpr std::size_t kMostHeld = 4;
constexpr int kMostTurns = 6;        // Rims found beside a way that others have turned.
constexpr double kCutOff = 1e-5;     // m that such a one may be nearer: nobody sees it.
constexpr double kInside = 0.01;     // m from a rim, on its ground.
constexpr double kFarthest = 10.0;   // m from which on nearness takes of the speed, at most.
constexpr double kRounding = 1e-9;   // m, and m/s.
constexpr double kLeastTold = 1e-3;  // m/s.

// A half plane: what goes against its normal by more than `room` is too much.
struct Bound {
  Vec3 normal_C;
  double room;  // m, or m/s; not negative.
};

class Bounds {
 public:
  void add(const Vec3& normal_C, double room) {
    if (count_ < kMost) bound_[count_++] = {normal_C, std::max(room, 0.0)};
  }

  // The vector across up that is nearest to `v_C` and within all bounds.
  Vec3 nearest(const Vec3& v_C) const {
    if (within_all(v_C)) return v_C;
    Vec3 best(0.0);
    double least = length_squared(v_C);
    const auto try_it = [&](const Vec3& candidate) {
      const double off = length_squared(candidate - v_C);
      if (off < least && within_all(candidate)) best = candidate, least = off;
    };
    for (int i = 0; i < count_; ++i) {
      const Bound& a = bound_[i];
      try_it(v_C - a.normal_C * (dot(v_C, a.normal_C) + a.room));
      for (int j = i + 1; j < count_; ++j) try_it(corner(a, bound_[j]));
    }
    return best;
  }

 private:
  static constexpr int kMost = 8 * static_cast<int>(kMostRims) + kMostPlanes;

  bool within_all(const Vec3& v_C) const {
    return std::all_of(bound_.begin(), bound_.begin() + count_,
                       [&](const Bound& bound) { return dot(v_C, bound.normal_C) >= -bound.room - kRounding; });
  }
  // Where two bounds meet; both normals lie across up.
  static Vec3 corner(const Bound& a, const Bound& b) {
    const double together = dot(a.normal_C, b.normal_C), apart = 1.0 - together * together;
    if (apart < 1e-12) return Vec3(0.0);
    const double p = (-a.room + b.room * together) / apart, q = (-b.room + a.room * together) / apart;
    return a.normal_C * p + b.normal_C * q;
  }

  std::array<Bound, kMost> bound_;
  int count_ = 0;
};

}  // namespace

LedgeGuard::LedgeGuard(const StepContext& context, const Body& body, const CharacterState& state)
    : context_(context), body_(body), bearing_C_(state.ground.point_C - state.foot_C), places_(1) {
  place_C_[0] = Vec3(0.0);
  if (!state.lying()) return;
  const Vec3 down = body.up_C * body.radius;
  place_C_[1] = body.low_C - down;
  place_C_[2] = body.high_C - down;
  places_ = 3;
}

// What bounds one way.
struct LedgeGuard::Keeping {
  SpeedOnSlopes measure;
  Vec3 foot_C, flat_C, ground_C;
  double seconds, least;
  double level = 1.0;                        // Of a flat way, what is seen of it from above.
  bool near = false;                         // Some rim is.
  std::optional<Rim> behind = std::nullopt;  // Already gone beyond.
  Bounds ways = {}, speeds = {};
  std::array<Rim, kMostHeld> held = {};
  std::size_t held_count = 0;

  Vec3 laid(const Vec3& way_C, const Vec3& up_C) const { return laid_on(way_C, ground_C, up_C, measure); }
};

// The rims that the way as it is asked for leads to.
void LedgeGuard::look_ahead(Keeping& keeping) const {
  const double way = length(keeping.flat_C) * keeping.level, soon = context_.profile.ledge.reach_time;
  const double left = soon > 0.0 ? std::exp(-keeping.seconds / soon) : 0.0, least = keeping.least;
  // From so far on its nearness takes of the speed.
  const double within = least + way + std::min(soon * way / keeping.seconds, kFarthest);
  const Vec3 ahead = unit_or(keeping.flat_C, Vec3(0.0)), bearing = keeping.foot_C + bearing_C_;
  for (int i = 0; i < places_; ++i) {
    std::array<Rim, kMostRims> rims;
    const std::size_t count =
        rims_ahead(context_, body_, keeping.foot_C + place_C_[i], ahead, within, bearing, rims);
    keeping.near = keeping.near || count > 0;
    if (count > 0 && rims[0].distance < 0.0) keeping.behind = rims[0];
    for (const Rim& rim : std::span(rims).first(count)) {
      const double over = std::max(rim.distance - least, 0.0), room = over * (1.0 - left);
      const double into = -dot(keeping.flat_C, rim.inward_C) * keeping.level;
      keeping.ways.add(rim.inward_C, room / keeping.level);
      keeping.speeds.add(rim.inward_C, soon > 0.0 ? over * left / soon / keeping.level : 0.0);
      if (into <= room + kRounding) continue;
      if (keeping.held_count < kMostHeld) keeping.held[keeping.held_count++] = rim;
      const double taken = (into - room) / keeping.seconds;
      if (taken > kLeastTold)
        context_.note(entry::RimHeld{rim.point_C, rim.inward_C, rim.distance, least, taken, rim.piece});
    }
  }
}

// What a way along others leads to.
LedgeGuard::Ahead LedgeGuard::look_along(const Vec3& rest_C, Keeping& keeping) const {
  const Vec3 ahead = unit_or(rest_C, Vec3(0.0));
  if (ahead == Vec3(0.0)) return Ahead::Clear;
  const Vec3 end = keeping.foot_C + keeping.laid(rest_C, body_.up_C);
  Ahead found = Ahead::Clear;
  for (int i = 0; i < places_; ++i) {
    const Vec3 place = end + place_C_[i];
    if (!is_on_ground(context_, body_, place)) return Ahead::Beyond;
    std::array<Rim, kMostRims> rims;
    const std::size_t count = rims_ahead(context_, body_, place, ahead, keeping.least, end + bearing_C_, rims);
    for (const Rim& rim : std::span(rims).first(count)) {
      const double into = -dot(rest_C, rim.inward_C) * keeping.level, over = rim.distance - keeping.least;
      if (over > -kCutOff || into <= kCutOff) continue;
      keeping.ways.add(rim.inward_C, (over + into) / keeping.level);
      keeping.speeds.add(rim.inward_C, 0.0);
      found = Ahead::Nearer;
    }
  }
  return found;
}

LedgeGuard::Left LedgeGuard::keep(const Vec3& foot_C, const Vec3& flat_C, const Vec3& velocity_C,
                                  const Vec3& ground_C, double seconds, const Planes& walls) const {
  if (flat_C == Vec3(0.0) || seconds <= 0.0) return {flat_C, velocity_C, 1.0};
  Keeping keeping{context_.profile.ground.speed_on_slopes,
                  foot_C,
                  flat_C,
                  ground_C,
                  seconds,
                  std::max(context_.profile.ledge.least_reach, kLeastReach)};
  keeping.level = length(body_.flat(keeping.laid(flat_C, body_.up_C))) / length(flat_C);
  look_ahead(keeping);
  if (!keeping.near) return {flat_C, velocity_C, 1.0};
  for (int i = 0; i < walls.count(); ++i) keeping.ways.add(walls.normal_C(i), 0.0);
  Vec3 rest = keeping.ways.nearest(flat_C);
  if (keeping.behind) return {borne_along(*keeping.behind, rest), keeping.speeds.nearest(velocity_C), 1.0};
  double share = 1.0;
  for (const Rim& rim : std::span(keeping.held).first(keeping.held_count))
    share = std::min(share, straight_share(rim, rest * keeping.level));
  // Other rims come near where these have turned the way to.
  for (int turn = 0; turn < kMostTurns; ++turn) {
    const Ahead ahead = look_along(rest * share, keeping);
    if (ahead == Ahead::Clear) break;
    if (ahead == Ahead::Beyond) share *= 0.5;
    rest = keeping.ways.nearest(flat_C);
  }
  return {rest, keeping.speeds.nearest(velocity_C), share};
}

// Hanging over a rim, one goes along it only where it bears there too; else back alone.
Vec3 LedgeGuard::borne_along(const Rim& rim, const Vec3& way_C) const {
  const Vec3 along = across(way_C, rim.inward_C);
  if (is_on_ground(context_, body_, rim.point_C + along + rim.inward_C * kInside)) return way_C;
  return rim.inward_C * std::max(dot(way_C, rim.inward_C), 0.0);
}

// Past the end of a rim another way is free.
double LedgeGuard::straight_share(const Rim& rim, const Vec3& way_C) const {
  const double size = length(way_C);
  if (size <= kLongestStretch) return 1.0;
  const double stretch = std::max(kLongestStretch / size, kLeastStretch);
  return rim.corner ? stretch : std::max(share_along_rim(context_, body_, rim, way_C), stretch);
}

}  // namespace lagniappe
