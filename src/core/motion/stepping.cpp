// SPDX-License-Identifier: MIT
#include "motion/stepping.h"

#include <algorithm>

#include "motion/contact_kind.h"
#include "motion/ground.h"
#include "motion/upright_way.h"

namespace lagniappe {
namespace {

using Outcome = entry::Step::Outcome;

// Share of the longest overhang that is certainly stood on.
constexpr double kSafeOverhang = 0.5;

// m in height by which two contacts may differ on one edge.
constexpr double kSameEdge = 1e-3;

// How little of a way may be left across a direction before walls have closed it.
constexpr double kLeastProgress = 0.05;

// The capsule lifted over the riser: what it can do from there.
struct Lifted {
  const StepContext& context;
  const Body& body;
  Vec3 foot_C;   // Raised.
  double raise;  // By how much.

  // How far the capsule gets along a unit vector across up, at most `most`, along walls that it meets aslant.
  double free_along(const Vec3& way_C, double most, const Body& shape) const {
    Planes walls;
    Vec3 foot = foot_C, along = way_C;
    double gone = 0.0;
    for (int round = 0; round < kMostPlanes; ++round) {
      const double left = most - gone, share = dot(along, way_C);
      if (left <= kTouch || share < kLeastProgress) return gone;
      const Vec3 motion = along * (left / share);
      const auto hit = shape.sweep(foot, motion);
      if (!hit) return most;
      foot += motion * hit->hit.fraction;
      gone += left * hit->hit.fraction;
      if (!walls.add(wall_on_ground(hit->hit.normal_C, body.up_C, body.up_C, -way_C))) return gone;
      along = unit_or(walls.clip(way_C).vector_C, Vec3(0.0));
    }
    return gone;
  }

  struct Forward {
    Vec3 way_C;
    double left;  // Share of what was wanted.
  };
  // Goes `forward_C` across up, along walls as long as nothing is gained along `in_C`.
  Forward gone_forward(const Vec3& forward_C, const Vec3& in_C, Planes walls) const {
    Vec3 foot = foot_C, rest = body.flat(walls.clip(forward_C).vector_C);
    double left = 1.0;
    for (int round = 0; round < kMostPlanes && length_squared(rest) > 0.0; ++round) {
      const auto hit = body.sweep(foot, rest);
      const double fraction = hit ? hit->hit.fraction : 1.0;
      foot += rest * fraction;
      left *= 1.0 - fraction;
      if (!hit || dot(foot - foot_C, in_C) > kTouch) break;
      if (!walls.add(wall_on_ground(hit->hit.normal_C, body.up_C, body.up_C, -unit_or(rest, body.up_C)))) break;
      rest = body.flat(walls.clip(rest * (1.0 - fraction)).vector_C);
    }
    return {foot - foot_C, left};
  }

  // Where the capsule rests after `forward_C`, at most `below` lower than it was before it was lifted.
  std::optional<Vec3> landing(const Vec3& forward_C, double below) const {
    const double most = raise + below + kGroundTouch;
    const UprightWay down = upright_way(context, body, foot_C + forward_C, -body.up_C, most);
    return down.gone < most ? std::optional(down.foot_C) : std::nullopt;
  }
};

struct Judgement {
  Outcome outcome;
  double rise;  // Above the ground line.
  PieceId piece;
  double lift = 0.0;  // m along up that the foot has to be lifted to stand there.
};

class Attempt {
 public:
  Attempt(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& flat_rest_C,
          const WorldHit& blocked, const StepLimits& limits)
      : context_(context),
        body_(body),
        foot_C_(foot_C),
        blocked_(blocked),
        limits_(limits),
        ahead_(length(flat_rest_C)),
        direction_C_(flat_rest_C / ahead_),
        in_C_(unit_or(-body.flat(blocked.hit.normal_C), direction_C_)),
        base_C_(base_of(body, foot_C, blocked)),
        touch_C_(body.flat(blocked.hit.point_C - base_C_)) {}

  std::optional<Stepped> make(const Planes& walls) const {
    const double touched_at = above_line(blocked_.hit.point_C);
    if (touched_at > limits_.highest + kGroundTouch) return refuse(Outcome::TooHigh, touched_at);
    if (rises_beyond()) return refuse(Outcome::TooHigh, explained_rise());

    // Judged straight into the riser, however slantwise the way goes: the riser lies under the round of the
    // capsule, whose centre has to come a tread further than to over it.
    const double wanted = std::max(dot(touch_C_, in_C_), 0.0) + context_.profile.ground.shortest_tread;
    const double lift = limits_.highest + std::max(line_rise(in_C_ * wanted), 0.0);
    const UprightWay up = upright_way(context_, body_, foot_C_, body_.up_C, lift);
    const Judgement judged = judge_tread(up.gone);
    Lifted lifted{context_, body_, up.foot_C, up.gone};
    double free = lifted.free_along(in_C_, wanted, body_);
    // Lifted all the way the head may meet a roof that it would pass under on the tread.
    if (free < wanted - kTouch && judged.outcome == Outcome::Taken && judged.lift + kGroundTouch < up.gone) {
      const double low = judged.lift + kGroundTouch;
      const Lifted lower{context_, body_, upright_way(context_, body_, foot_C_, body_.up_C, low).foot_C, low};
      const double lower_free = lower.free_along(in_C_, wanted, body_);
      if (lower_free > free) {
        lifted.foot_C = lower.foot_C;
        lifted.raise = low;
        free = lower_free;
      }
    }
    if (free < wanted - kTouch) {
      // What lets the feet onto the tread and not the head is no wall behind it: nobody could stand there.
      const bool head =
          judged.lift > up.gone || (!lies() && lifted.free_along(in_C_, wanted, feet()) >= wanted - kTouch);
      if (head) return refuse(Outcome::NoHeadRoom, touched_at);
      if (!clears(free)) return refuse(free <= kTouch ? Outcome::TooHigh : Outcome::ShortTread, touched_at);
    }
    if (judged.outcome != Outcome::Taken) return refuse(judged.outcome, judged.rise);

    const double over = dot(touch_C_, in_C_) - kSafeOverhang * context_.profile.ground.longest_overhang;
    const double slant = std::max(dot(direction_C_, in_C_), kSafeOverhang);
    // No further at once than to where the next riser may be.
    const double most = std::min(ahead_, std::max(wanted, body_.radius));
    const double ahead = limits_.in_air ? std::max(ahead_, over / slant) : most;
    const auto [forward, share_left] = lifted.gone_forward(direction_C_ * ahead, in_C_, walls);
    const double left = 1.0 - (1.0 - share_left) * std::min(ahead / ahead_, 1.0);
    if (dot(forward, in_C_) <= kTouch) return refuse(Outcome::NoGain, judged.rise);
    const auto landed = lifted.landing(forward, std::max(-line_rise(forward), 0.0));
    if (!landed) return refuse(Outcome::NoGain, judged.rise);
    const Touching touching(body_, *landed);
    const WorldContact* bearing = lowest_contact(context_, body_, touching);
    if (bearing == nullptr || !bears(bearing->surface, bearing_normal(context_, body_, *bearing)))
      return refuse(Outcome::NotWalkable, judged.rise);
    tell(*bearing, judged.piece);
    return Stepped{*landed, left};
  }

 private:
  std::optional<Stepped> refuse(Outcome outcome, double rise) const {
    context_.note(entry::Step{outcome, rise, limits_.highest, blocked_.piece});
    return std::nullopt;
  }

  // The riser itself, whatever of it was left to climb: from the edge that it rested on, beyond which the foot
  // sinks, to where it rests now. Over one edge it rolls in as many ticks as it takes; that is one step.
  void tell(const WorldContact& bearing, PieceId piece) const {
    const double rise =
        above_line(bearing.closest.on_triangle_C) - std::max(above_line(limits_.resting_C), 0.0);
    if (rise > kSameEdge) context_.note(entry::Step{Outcome::Taken, rise, limits_.highest, piece});
  }

  // Whether a way into the riser of which `free` is clear shows a tread at least.
  bool clears(double free) const {
    return free + body_.radius - dot(touch_C_, in_C_) >= context_.profile.ground.shortest_tread;
  }

  // The capsule without what is above its lower round.
  Body feet() const {
    Body low = body_;
    low.high_C = low.low_C;
    low.height = 2.0 * low.radius;
    return low;
  }

  // What is no ground is stepped onto all the same: one is lifted over it, and slides off.
  bool bears(const Surface& surface, const Vec3& normal_C) const {
    return walkable(context_.profile, surface, normal_C, body_.up_C);
  }

  // How much the ground line rises over a way across up.
  double line_rise(const Vec3& flat_C) const {
    return -dot(flat_C, limits_.ground_normal_C) / dot(limits_.ground_normal_C, body_.up_C);
  }

  // The lowest point under the part of the capsule that touches: the foot, but for who lies.
  static Vec3 base_of(const Body& body, const Vec3& foot_C, const WorldHit& blocked) {
    const Vec3 axis = body.high_C - body.low_C, along = body.flat(axis);
    const double square = length_squared(along);
    if (square < kTouch * kTouch) return foot_C;
    const double share =
        std::clamp(dot(body.flat(blocked.hit.point_C - foot_C - body.low_C), along) / square, 0.0, 1.0);
    return foot_C + body.low_C + axis * share - body.up_C * body.radius;
  }
  bool lies() const { return length(body_.flat(body_.high_C - body_.low_C)) > kTouch; }
  double above_line(const Vec3& point_C) const {
    const Vec3 from = point_C - base_C_;
    return dot(from, body_.up_C) - line_rise(body_.flat(from));
  }

  // Whether what was touched is a wall: a ray over the highest step meets it before a tread would end. One ray
  // instead of the sweeps of a whole attempt, for the most frequent refusal.
  bool rises_beyond() const {
    const Vec3 way = in_C_ * (length(touch_C_) + context_.profile.ground.shortest_tread);
    const Vec3 along_line = way + body_.up_C * line_rise(way);
    const Vec3 over = base_C_ + body_.up_C * (limits_.highest + kGroundTouch);
    return body_.cast_ray(over, along_line).has_value();
  }

  // How high what rises beyond really is, as far as the capsule reaches: only asked for when someone listens.
  double explained_rise() const {
    if (context_.ledger == nullptr) return limits_.highest;
    const Vec3 beyond = touch_C_ + in_C_ * context_.profile.ground.shortest_tread;
    const Vec3 down = -body_.up_C * body_.height;
    const auto top = body_.cast_ray(base_C_ + beyond - down, down);
    return top ? std::max(above_line(top->hit.point_C), limits_.highest) : limits_.highest;
  }

  // Judges the tread behind the riser that was touched, by a ray: the capsule itself may already lie on the
  // riser after it.
  Judgement judge_tread(double raise) const {
    const Vec3 beyond = touch_C_ + in_C_ * context_.profile.ground.shortest_tread;
    const double above = raise + body_.radius, reach = above + std::max(-line_rise(beyond), 0.0) + kTouch;
    const auto tread = body_.cast_ray(base_C_ + beyond + body_.up_C * above, -body_.up_C * reach);
    if (!tread) return {Outcome::Taken, 0.0, kNoPiece};  // Something thin, with lower ground behind it.
    const double rise = above_line(tread->hit.point_C);
    if (rise > limits_.highest + kGroundTouch) return {Outcome::TooHigh, rise, tread->piece};
    const double lift = dot(tread->hit.point_C - base_C_, body_.up_C);
    return {bears(tread->surface, tread->hit.normal_C) ? Outcome::Taken : Outcome::NotWalkable, rise,
            tread->piece, lift};
  }

  const StepContext& context_;
  const Body& body_;
  Vec3 foot_C_;
  const WorldHit& blocked_;
  const StepLimits& limits_;
  double ahead_;      // m still to go.
  Vec3 direction_C_;  // Of that, unit, across up.
  Vec3 in_C_;         // Into the riser, unit, across up.
  Vec3 base_C_;       // See base_of().
  Vec3 touch_C_;      // From there to the contact, across up.
};

}  // namespace

std::optional<Stepped> try_step(const StepContext& context, const Body& body, const Vec3& foot_C,
                                const Vec3& flat_rest_C, const WorldHit& blocked, const Planes& walls,
                                const StepLimits& limits) {
  if (limits.highest <= 0.0 || length(flat_rest_C) <= 0.0) return std::nullopt;
  return Attempt(context, body, foot_C, flat_rest_C, blocked, limits).make(walls);
}

}  // namespace lagniappe
