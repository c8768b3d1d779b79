// SPDX-License-Identifier: MIT
#include "motion/stepping.h"

#include <algorithm>

#include "motion/ground.h"
#include "motion/slide.h"

namespace lagniappe {
namespace {

using Outcome = entry::Step::Outcome;

// The capsule lifted over the riser: what it can do from there.
struct Lifted {
  const Body& body;
  Vec3 foot_C;   // Raised.
  double raise;  // By how much.

  double free_along(const Vec3& motion_C) const {
    const auto hit = body.sweep(foot_C, motion_C);
    return hit ? hit->hit.fraction * length(motion_C) : length(motion_C);
  }
  // Where the capsule rests after `forward_C`, at most as low as it was before it was lifted.
  std::optional<Vec3> landing(const Vec3& forward_C) const {
    const Vec3 over = foot_C + forward_C;
    const Vec3 down = -body.up_C * (raise + kTouch);
    const auto hit = body.sweep(over, down);
    return hit ? std::optional(over + down * hit->hit.fraction) : std::nullopt;
  }
};

// The direction into the riser, across up.
Vec3 inwards(const Body& body, const WorldHit& blocked, const Vec3& direction_C) {
  return unit_or(-body.flat(blocked.hit.normal_C), direction_C);
}

// Whether what was touched is a wall: a ray over the highest step meets it before a tread would end. One ray
// instead of the sweeps of a whole attempt, for the most frequent refusal.
bool rises_beyond(const StepContext& context, const Body& body, const Vec3& foot_C, const WorldHit& blocked,
                  const Vec3& direction_C) {
  const Profile::Ground& ground = context.profile.ground;
  const double reach = length(body.flat(blocked.hit.point_C - foot_C)) + ground.shortest_tread;
  const Vec3 over = foot_C + body.up_C * (ground.highest_step + kGroundTouch);
  return body.world.cast_ray(over, inwards(body, blocked, direction_C) * reach).has_value();
}

struct Judgement {
  Outcome outcome;
  double rise;
  PieceId piece;
};

// Judges the tread behind the riser that was touched, by a ray: the capsule itself may already lie on the riser
// after it.
Judgement judge_tread(const StepContext& context, const Lifted& lifted, const Vec3& foot_C,
                      const WorldHit& blocked, const Vec3& direction_C) {
  const Body& body = lifted.body;
  const Vec3 in = inwards(body, blocked, direction_C);
  const Vec3 beyond = body.flat(blocked.hit.point_C - foot_C) + in * context.profile.ground.shortest_tread;
  const double above = lifted.raise + body.radius;
  const auto tread = body.world.cast_ray(foot_C + beyond + body.up_C * above, -body.up_C * (above + kTouch));
  if (!tread) return {Outcome::Taken, 0.0, kNoPiece};  // Something thin, with lower ground behind it.
  const double rise = above - tread->hit.fraction * (above + kTouch);
  if (rise > context.profile.ground.highest_step + kGroundTouch) return {Outcome::TooHigh, rise, tread->piece};
  const bool fine = walkable(context.profile, tread->hit.normal_C, body.up_C);
  return {fine ? Outcome::Taken : Outcome::NotWalkable, rise, tread->piece};
}

}  // namespace

std::optional<Vec3> try_step(const StepContext& context, const Body& body, const Vec3& foot_C,
                             const Vec3& flat_rest_C, const WorldHit& blocked, const Planes& walls) {
  const Profile::Ground& ground = context.profile.ground;
  const double ahead = length(flat_rest_C);
  if (ground.highest_step <= 0.0 || ahead <= 0.0) return std::nullopt;
  const auto refuse = [&](Outcome outcome, double rise) {
    context.note(entry::Step{outcome, rise, ground.highest_step, blocked.piece});
    return std::nullopt;
  };
  const double touched_at = dot(blocked.hit.point_C - foot_C, body.up_C);
  if (touched_at > ground.highest_step + kGroundTouch) return refuse(Outcome::TooHigh, touched_at);

  const Vec3 direction = flat_rest_C / ahead;
  if (rises_beyond(context, body, foot_C, blocked, direction))
    return refuse(Outcome::TooHigh, ground.highest_step);
  const Vec3 up = body.up_C * ground.highest_step;
  const auto ceiling = body.sweep(foot_C, up);
  const double raise = ceiling ? ceiling->hit.fraction * ground.highest_step : ground.highest_step;
  const Lifted lifted{body, foot_C + body.up_C * raise, raise};

  // The riser lies under the round of the capsule: the centre has to come this far forward to be over it.
  const double to_riser = std::max(dot(blocked.hit.point_C - foot_C, direction), 0.0);
  const double wanted = std::max(ahead, to_riser + ground.shortest_tread);
  const double free = lifted.free_along(direction * wanted);
  const double tread = free + body.radius - to_riser;
  if (free < wanted - kTouch && tread < ground.shortest_tread) {
    return refuse(ceiling ? Outcome::NoHeadRoom : (free <= kTouch ? Outcome::TooHigh : Outcome::ShortTread),
                  touched_at);
  }
  const Judgement judged = judge_tread(context, lifted, foot_C, blocked, direction);
  if (judged.outcome != Outcome::Taken) return refuse(judged.outcome, judged.rise);

  const double forward = std::min(free, ahead);
  if (forward <= length(body.flat(walls.clip(flat_rest_C).vector_C)) * (1.0 - 1e-9) && walls.count() > 0) {
    return refuse(Outcome::NoGain, judged.rise);
  }
  const auto landed = lifted.landing(direction * forward);
  if (!landed || forward <= kTouch) return refuse(Outcome::NoGain, judged.rise);
  const auto bearing = bearing_face(body, *landed);
  if (!bearing || !walkable(context.profile, bearing->face_normal_C, body.up_C)) {
    return refuse(Outcome::NotWalkable, judged.rise);
  }
  context.note(entry::Step{Outcome::Taken, judged.rise, ground.highest_step, judged.piece});
  return landed;
}

}  // namespace lagniappe
