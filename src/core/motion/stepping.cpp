// SPDX-License-Identifier: MIT
#include "motion/stepping.h"

#include <algorithm>

#include "motion/ground.h"

namespace lagniappe {
namespace {

using Outcome = entry::Step::Outcome;

// Share of the longest overhang that is certainly stood on.
constexpr double kSafeOverhang = 0.5;

// The capsule lifted over the riser: what it can do from there.
struct Lifted {
  const Body& body;
  Vec3 foot_C;   // Raised.
  double raise;  // By how much.

  struct Way {
    double free;    // m.
    bool overhead;  // What ends it leans over: a roof, not a riser.
  };
  Way free_along(const Vec3& motion_C) const {
    const auto hit = body.sweep(foot_C, motion_C);
    if (!hit) return {length(motion_C), false};
    return {hit->hit.fraction * length(motion_C), dot(hit->hit.normal_C, body.up_C) < -kUpright};
  }
  // Where the capsule rests after `forward_C`, at most `below` lower than it was before it was lifted.
  std::optional<Vec3> landing(const Vec3& forward_C, double below) const {
    const Vec3 over = foot_C + forward_C;
    const Vec3 down = -body.up_C * (raise + below + kTouch);
    const auto hit = body.sweep(over, down);
    return hit ? std::optional(over + down * hit->hit.fraction) : std::nullopt;
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
        touch_C_(body.flat(blocked.hit.point_C - foot_C)) {}

  std::optional<Vec3> make(const Vec3& flat_rest_C, const Planes& walls) const {
    const double touched_at = above_line(blocked_.hit.point_C);
    if (touched_at > limits_.highest + kGroundTouch) return refuse(Outcome::TooHigh, touched_at);
    if (rises_beyond()) return refuse(Outcome::TooHigh, explained_rise());

    // Judged straight into the riser, however slantwise the way goes: the riser lies under the round of the
    // capsule, whose centre has to come a tread further than to over it.
    const double wanted = std::max(dot(touch_C_, in_C_), 0.0) + context_.profile.ground.shortest_tread;
    const double lift = limits_.highest + std::max(line_rise(in_C_ * wanted), 0.0);
    const auto ceiling = body_.sweep(foot_C_, body_.up_C * lift);
    const double raise = ceiling ? ceiling->hit.fraction * lift : lift;
    const Judgement judged = judge_tread(raise);
    Lifted lifted{body_, foot_C_ + body_.up_C * raise, raise};
    Lifted::Way way = lifted.free_along(in_C_ * wanted);
    // Lifted all the way the head may meet a roof that it would pass under on the tread.
    if (!clears(way.free, wanted) && judged.outcome == Outcome::Taken && judged.lift + kGroundTouch < raise) {
      const double low = judged.lift + kGroundTouch;
      const Lifted lower{body_, foot_C_ + body_.up_C * low, low};
      const Lifted::Way lower_way = lower.free_along(in_C_ * wanted);
      if (lower_way.free > way.free) {
        lifted.foot_C = lower.foot_C;
        lifted.raise = low;
        way = lower_way;
      }
    }
    if (!clears(way.free, wanted)) {
      const bool head = ceiling.has_value() || way.overhead;
      return refuse(head ? Outcome::NoHeadRoom : (way.free <= kTouch ? Outcome::TooHigh : Outcome::ShortTread),
                    touched_at);
    }
    if (judged.outcome != Outcome::Taken) return refuse(judged.outcome, judged.rise);

    const double over = dot(touch_C_, in_C_) - kSafeOverhang * context_.profile.ground.longest_overhang;
    const double slant = std::max(dot(direction_C_, in_C_), kSafeOverhang);
    const double ahead = limits_.in_air ? std::max(ahead_, over / slant) : ahead_;
    const double forward = lifted.free_along(direction_C_ * ahead).free;
    const double sliding = length(body_.flat(walls.clip(flat_rest_C).vector_C));
    if (walls.count() > 0 && forward <= sliding * (1.0 - 1e-9)) return refuse(Outcome::NoGain, judged.rise);
    const double falls = std::max(-line_rise(direction_C_ * forward), 0.0);
    const auto landed = lifted.landing(direction_C_ * forward, falls);
    if (!landed || forward <= kTouch) return refuse(Outcome::NoGain, judged.rise);
    const Touching touching(body_, *landed);
    const WorldContact* bearing = bearing_face(context_, body_, touching);
    if (bearing == nullptr || !bears(bearing->surface, bearing->face_normal_C))
      return refuse(Outcome::NotWalkable, judged.rise);
    context_.note(entry::Step{Outcome::Taken, judged.rise, limits_.highest, judged.piece});
    return landed;
  }

 private:
  std::optional<Vec3> refuse(Outcome outcome, double rise) const {
    context_.note(entry::Step{outcome, rise, limits_.highest, blocked_.piece});
    return std::nullopt;
  }

  // Whether a way into the riser of which `free` is clear gets as far as is wanted, or shows a tread at least.
  bool clears(double free, double wanted) const {
    const double beyond = free + body_.radius - dot(touch_C_, in_C_);
    return free >= wanted - kTouch || beyond >= context_.profile.ground.shortest_tread;
  }

  bool bears(const Surface& surface, const Vec3& normal_C) const {
    return surface.ground && walkable(context_.profile, surface, normal_C, body_.up_C);
  }

  // How much the ground line rises over a way across up.
  double line_rise(const Vec3& flat_C) const {
    return -dot(flat_C, limits_.ground_normal_C) / dot(limits_.ground_normal_C, body_.up_C);
  }
  double above_line(const Vec3& point_C) const {
    const Vec3 from = point_C - foot_C_;
    return dot(from, body_.up_C) - line_rise(body_.flat(from));
  }

  // Whether what was touched is a wall: a ray over the highest step meets it before a tread would end. One ray
  // instead of the sweeps of a whole attempt, for the most frequent refusal.
  bool rises_beyond() const {
    const Vec3 way = in_C_ * (length(touch_C_) + context_.profile.ground.shortest_tread);
    const Vec3 along_line = way + body_.up_C * line_rise(way);
    const Vec3 over = foot_C_ + body_.up_C * (limits_.highest + kGroundTouch);
    return body_.cast_ray(over, along_line).has_value();
  }

  // How high what rises beyond really is, as far as the capsule reaches: only asked for when someone listens.
  double explained_rise() const {
    if (context_.ledger == nullptr) return limits_.highest;
    const Vec3 beyond = touch_C_ + in_C_ * context_.profile.ground.shortest_tread;
    const Vec3 down = -body_.up_C * body_.height;
    const auto top = body_.cast_ray(foot_C_ + beyond - down, down);
    return top ? std::max(above_line(top->hit.point_C), limits_.highest) : limits_.highest;
  }

  // Judges the tread behind the riser that was touched, by a ray: the capsule itself may already lie on the
  // riser after it.
  Judgement judge_tread(double raise) const {
    const Vec3 beyond = touch_C_ + in_C_ * context_.profile.ground.shortest_tread;
    const double above = raise + body_.radius, reach = above + std::max(-line_rise(beyond), 0.0) + kTouch;
    const auto tread = body_.cast_ray(foot_C_ + beyond + body_.up_C * above, -body_.up_C * reach);
    if (!tread) return {Outcome::Taken, 0.0, kNoPiece};  // Something thin, with lower ground behind it.
    const double rise = above_line(tread->hit.point_C);
    if (rise > limits_.highest + kGroundTouch) return {Outcome::TooHigh, rise, tread->piece};
    const double lift = dot(tread->hit.point_C - foot_C_, body_.up_C);
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
  Vec3 touch_C_;      // From the foot to the contact, across up.
};

}  // namespace

std::optional<Vec3> try_step(const StepContext& context, const Body& body, const Vec3& foot_C,
                             const Vec3& flat_rest_C, const WorldHit& blocked, const Planes& walls,
                             const StepLimits& limits) {
  if (limits.highest <= 0.0 || length(flat_rest_C) <= 0.0) return std::nullopt;
  return Attempt(context, body, foot_C, flat_rest_C, blocked, limits).make(flat_rest_C, walls);
}

}  // namespace lagniappe
