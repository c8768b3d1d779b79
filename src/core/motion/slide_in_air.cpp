// SPDX-License-Identifier: MIT
#include <algorithm>

#include "motion/contact_kind.h"
#include "motion/piece_velocity.h"
#include "motion/slide.h"
#include "motion/sweep_ahead.h"
#include "motion/wall_contact.h"

namespace lagniappe {
namespace {

using Kind = entry::Slide::Kind;

// What a vector keeps of its length when ground turns it while skidding.
Vec3 turned_by_ground(const Vec3& before_C, const Vec3& after_C) {
  return unit_or(after_C, Vec3(0.0)) * length(before_C);
}

// A face that may be slid down but not up: too steep to walk, whether it is ground or not, and not leaning
// over.
bool sheds(const StepContext& context, const Body& body, const WorldHit& hit) {
  const Vec3& normal = hit.hit.normal_C;
  const double upright = dot(normal, body.up_C);
  return upright > 0.0 && upright <= kLevel && !walkable(context.profile, hit.surface, normal, body.up_C);
}

Vec3 without_approach(const Vec3& v_C, const Vec3& wall_C) {
  return v_C - wall_C * std::min(dot(v_C, wall_C), 0.0);
}

// One sliding through the air: what it has met, and what is left of the motion.
class AirWay {
 public:
  AirWay(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& motion_C,
         const Vec3& velocity_C, const AirSlide& how)
      : context_(context), body_(body), how_(how), out_{foot_C, velocity_C}, rest_(motion_C) {}

  Slid go() {
    int round = 0;
    bool goes_on = true;
    for (; goes_on && round < 2 * kMostPlanes && length_squared(rest_) > 0.0; ++round) {
      const Vec3 heading = rest_;
      const auto hit = sweep_ahead(context_, body_, out_.foot_C, rest_);
      if (!hit) return out_;
      ++out_.slides;
      left_ *= 1.0 - hit->hit.fraction;
      if (stops_at(*hit)) return out_;
      if (steps_onto(*hit)) return out_;
      goes_on = meet(*hit, heading);
    }
    if (length_squared(rest_) > 0.0) context_.note(entry::Exhausted{out_.slides, length(rest_)});
    return out_;
  }

 private:
  bool steps_onto(const WorldHit& hit) {
    const bool falls = dot(out_.velocity_C, body_.up_C) <= 0.0;
    if (how_.highest_step <= 0.0 || !falls ||
        leads_on(context_.profile, hit.surface, hit.hit.normal_C, body_.up_C))
      return false;
    const StepLimits limits{how_.highest_step, body_.up_C, out_.foot_C, true};
    const auto step = try_step(context_, body_, out_.foot_C, body_.flat(rest_), hit, planes_, limits);
    if (!step) return false;
    out_.lift(dot(step->foot_C - out_.foot_C, body_.up_C), 1.0 - left_);
    out_.foot_C = step->foot_C;
    return out_.stepped = true;
  }

  bool stops_at(const WorldHit& hit) {
    const double share = 1.0 - left_;
    if (share <= how_.stop_after) return false;
    const Vec3& normal = hit.hit.normal_C;
    const ContactKind kind = contact_kind(context_.profile, hit.surface, normal, body_.up_C);
    const bool rises = dot(out_.velocity_C, body_.up_C) > 0.0;
    const bool wall = kind == ContactKind::Wall || (kind == ContactKind::Steep && rises);
    const bool ground = kind == ContactKind::Ground || (kind == ContactKind::Steep && !how_.skidding);
    if (wall                           ? !is_new(wall_of(normal, rest_))
        : kind == ContactKind::Ceiling ? !rises
                                       : !(ground && hit.surface.ground))
      return false;
    out_.stopped = true;
    out_.stop_normal_C = normal;
    out_.share = share;
    // Known from that instant on: one may jump off it.
    if (kind == ContactKind::Wall) out_.wall_normal_C = wall_of(normal, rest_);
    if (kind != ContactKind::Ceiling) return true;
    out_.ceiling = true;
    const Vec3 of_piece = velocity_of(hit);
    out_.velocity_C = of_piece + without_approach(out_.velocity_C - of_piece, normal);
    return true;
  }

  bool is_new(const Vec3& wall_C) const {
    return !how_.skidding && dot(wall_C, how_.known_wall_C) <= kSameWall;
  }

  // Of what is met, as velocities are measured here.
  Vec3 velocity_of(const WorldHit& hit) const {
    return piece_velocity(context_, hit.piece, hit.hit.point_C) - how_.frame_velocity_C;
  }

  // Returns false if nothing more can be met.
  bool meet(const WorldHit& hit, const Vec3& heading) {
    const Vec3 normal = hit.hit.normal_C;
    const ContactKind contact = contact_kind(context_.profile, hit.surface, normal, body_.up_C);
    const double speed = length(out_.velocity_C);
    // A piece that moves is met with the velocity against it.
    const Vec3 of_piece = velocity_of(hit);
    Vec3 velocity = out_.velocity_C - of_piece;
    // A face too steep to walk takes what runs into it as a wall does, before it turns the rest downhill.
    if (sheds(context_, body_, hit)) {
      const Vec3 wall = wall_of(normal, rest_);
      rest_ = without_approach(rest_, wall);
      velocity = without_approach(velocity, wall);
    }
    // Landing takes the fall, and nothing of the way along the ground.
    if (contact == ContactKind::Ground && !how_.skidding && hit.hit.feature == Feature::Face)
      velocity += body_.up_C * (std::max(-dot(velocity, normal), 0.0) / dot(normal, body_.up_C));
    const bool room = planes_.add(normal);
    const Planes::Clipped clipped = planes_.clip(rest_);
    const bool bears = contact == ContactKind::Ground || contact == ContactKind::Steep;
    const bool turns = how_.skidding && bears && clipped.kind == Kind::Wall;
    const Vec3 kept = turns ? turned_by_ground(rest_, clipped.vector_C) : clipped.vector_C;
    rest_ = room && dot(kept, heading) > 0.0 ? kept : Vec3(0.0);
    const Vec3 left = planes_.clip(velocity).vector_C;
    out_.velocity_C = of_piece + (turns ? turned_by_ground(velocity, left) : left);
    if (contact == ContactKind::Wall) out_.wall_normal_C = wall_of(normal, rest_);
    if (contact == ContactKind::Wall || contact == ContactKind::Steep)
      out_.too_steep_C = wall_of(normal, rest_);
    out_.ceiling |= contact == ContactKind::Ceiling;
    const bool ceiling = contact == ContactKind::Ceiling && clipped.kind == Kind::Wall;
    const Kind kind = rest_ == Vec3(0.0) ? Kind::Stop : ceiling ? Kind::Ceiling : clipped.kind;
    const double into = std::clamp(-dot(unit_or(heading, Vec3(0.0)), normal), 0.0, 1.0);
    context_.note(entry::Slide{kind, normal, rest_, std::asin(into),
                               speed > 0.0 ? length(out_.velocity_C) / speed : 1.0, contact});
    return room;
  }

  Vec3 wall_of(const Vec3& normal, const Vec3& motion) const {
    return wall_on_ground(normal, body_.up_C, body_.up_C, -unit_or(motion, body_.up_C));
  }

  const StepContext& context_;
  const Body& body_;
  const AirSlide& how_;
  Slid out_;
  Planes planes_;
  Vec3 rest_;
  double left_ = 1.0;  // Share of the motion.
};

}  // namespace

Slid slide_in_air(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& motion_C,
                  const Vec3& velocity_C, const AirSlide& how) {
  return AirWay(context, body, foot_C, motion_C, velocity_C, how).go();
}

}  // namespace lagniappe
