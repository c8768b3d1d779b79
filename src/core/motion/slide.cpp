// SPDX-License-Identifier: MIT
#include "motion/slide.h"

#include <algorithm>

#include "motion/ground.h"

namespace lagniappe {
namespace {

using Kind = entry::Slide::Kind;

// Cosine above which a wall is the one that was slid along already: 11 degrees, so that a faceted round wall is
// one.
constexpr double kSameWall = 0.98;

// Sweeps by `rest`, moves to the contact, and leaves in `rest` what is still to be moved.
std::optional<WorldHit> advance(const StepContext& context, const Body& body, Vec3& foot, Vec3& rest) {
  const auto hit = body.sweep(foot, rest);
  if (context.ledger != nullptr) {
    entry::Sweep sweep{foot, rest,         hit ? hit->hit.fraction : 1.0, hit.has_value(), kNoPiece, {},
                       {},   Feature::Face};
    if (hit) {
      sweep.piece = hit->piece;
      sweep.point_C = hit->hit.point_C;
      sweep.normal_C = hit->hit.normal_C;
      sweep.feature = hit->hit.feature;
    }
    context.note(sweep);
  }
  const double fraction = hit ? hit->hit.fraction : 1.0;
  foot += rest * fraction;
  rest *= 1.0 - fraction;
  return hit;
}

// The wall that stands for a face too steep to walk: its normal without the part along up. A flat ceiling has
// no such part; it stops the motion that ran into it.
Vec3 wall_normal(const Body& body, const Vec3& normal_C, const Vec3& flat_motion_C) {
  const Vec3 against = -unit_or(flat_motion_C, body.up_C);
  const Vec3 flat = body.flat(normal_C);
  return length(flat) > 1e-6 ? unit_or(flat, against) : against;
}

// Running into walls across up.
class Walls {
 public:
  Walls(const Curve& kept, const Vec3& known_C) : kept_(kept), known_C_(known_C) {}

  bool add(const Vec3& wall_C) {
    last_C_ = wall_C;
    known_ = dot(wall_C, known_C_) > kSameWall;
    return planes_.add(wall_C);
  }

  struct Deflected {
    Vec3 vector_C;
    double approach, kept;  // rad, and the share of the length that is left.
  };
  // What the last wall leaves of a flat vector: its direction along the wall, and of its length the share that
  // goes with the angle of approach. Two walls leave only what goes along up or back: nothing.
  Deflected deflect(const Vec3& flat_C) const {
    const double size = length(flat_C);
    const double into = size > 0.0 ? std::clamp(-dot(flat_C, last_C_) / size, 0.0, 1.0) : 0.0;
    const Planes::Clipped clipped = planes_.clip(flat_C);
    if (clipped.kind == Kind::Along) return {flat_C, 0.0, 1.0};
    if (clipped.kind != Kind::Wall) return {Vec3(0.0), std::asin(into), 0.0};
    const double along = length(clipped.vector_C) / size;
    const double kept = known_ ? along : kept_.at(degrees(std::asin(into)));
    return {unit_or(clipped.vector_C, Vec3(0.0)) * (size * kept), std::asin(into), kept};
  }
  const Planes& planes() const { return planes_; }

 private:
  const Curve& kept_;
  Vec3 known_C_;
  Planes planes_;
  Vec3 last_C_ = Vec3(0.0);
  bool known_ = false;
};

}  // namespace

Slid slide_on_ground(const StepContext& context, const Body& body, const Vec3& foot_C,
                     const Vec3& flat_motion_C, const Vec3& flat_velocity_C, const Vec3& ground_normal_C,
                     const GroundSlide& how) {
  const SpeedOnSlopes measure = context.profile.ground.speed_on_slopes;
  Slid out{foot_C, flat_velocity_C};
  Walls walls(context.profile.walls.kept, how.known_wall_C);
  const Vec3 heading_C = how.wish_C == Vec3(0.0) ? flat_motion_C : how.wish_C;
  Vec3 normal = ground_normal_C;
  Vec3 flat = flat_motion_C;
  // Each round either finishes, meets a new wall, or turns onto another walkable face; twice the planes bounds
  // both.
  for (int round = 0; round < 2 * kMostPlanes && length_squared(flat) > 0.0; ++round) {
    Vec3 rest = laid_on(flat, normal, body.up_C, measure);
    const auto hit = advance(context, body, out.foot_C, rest);
    if (!hit) break;
    ++out.slides;
    flat *= 1.0 - hit->hit.fraction;

    const Vec3 contact_normal = hit->hit.normal_C;
    const bool leads = leads_on(context.profile, hit->surface, contact_normal, body.up_C);
    const bool on_edge =
        hit->hit.feature != Feature::Face && dot(contact_normal, hit->face_normal_C) < kSamePlane;
    if (!leads || on_edge) {
      const StepLimits limits{context.profile.ground.highest_step, ground_normal_C};
      if (const auto step = try_step(context, body, out.foot_C, flat, *hit, walls.planes(), limits)) {
        out.lifted += dot(*step - out.foot_C, body.up_C);
        out.foot_C = *step;
        out.stepped = true;
        break;
      }
    }
    if (leads) {
      normal = contact_normal;
      context.note(entry::Slide{Kind::Along, normal, laid_on(flat, normal, body.up_C, measure), 0.0, 1.0});
      continue;
    }
    const Vec3 wall = wall_normal(body, contact_normal, flat);
    if (!walls.add(wall)) break;
    const Walls::Deflected deflected = walls.deflect(flat);
    // Never back against what is headed for: between two walls that would shake.
    const bool on = dot(deflected.vector_C, heading_C) > 0.0;
    flat = on ? deflected.vector_C : Vec3(0.0);
    const Vec3 velocity = body.flat(walls.deflect(out.velocity_C).vector_C);
    out.velocity_C = on || dot(velocity, heading_C) > 0.0 ? velocity : Vec3(0.0);
    out.wall_normal_C = wall;
    context.note(entry::Slide{flat == Vec3(0.0) ? Kind::Stop : Kind::Wall, wall, flat, deflected.approach,
                              deflected.kept});
  }
  return out;
}

namespace {

// What a vector keeps of its length when ground turns it while skidding.
Vec3 turned_by_ground(const Vec3& before_C, const Vec3& after_C) {
  return unit_or(after_C, Vec3(0.0)) * length(before_C);
}

// A face that may be slid down but not up: too steep to walk, and not overhanging.
bool sheds(const StepContext& context, const Body& body, const WorldHit& hit) {
  const Vec3& normal = hit.hit.normal_C;
  return dot(normal, body.up_C) > kUpright && !leads_on(context.profile, hit.surface, normal, body.up_C);
}

Vec3 without_approach(const Vec3& v_C, const Vec3& wall_C) {
  return v_C - wall_C * std::min(dot(v_C, wall_C), 0.0);
}

}  // namespace

Slid slide_in_air(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& motion_C,
                  const Vec3& velocity_C, const AirSlide& how) {
  Slid out{foot_C, velocity_C};
  Planes planes;
  Vec3 rest = motion_C;
  for (int round = 0; round < 2 * kMostPlanes && length_squared(rest) > 0.0; ++round) {
    const Vec3 heading = rest;
    const auto hit = advance(context, body, out.foot_C, rest);
    if (!hit) break;
    ++out.slides;
    const Vec3 normal = hit->hit.normal_C;
    const double upright = dot(normal, body.up_C);
    if (how.highest_step > 0.0 && dot(out.velocity_C, body.up_C) <= 0.0 &&
        !leads_on(context.profile, hit->surface, normal, body.up_C)) {
      const StepLimits limits{how.highest_step, body.up_C, true};
      if (const auto step = try_step(context, body, out.foot_C, body.flat(rest), *hit, planes, limits)) {
        out.lifted += dot(*step - out.foot_C, body.up_C);
        out.foot_C = *step;
        out.stepped = true;
        break;
      }
    }
    // A face too steep to walk takes what runs into it as a wall does, before it turns the rest downhill.
    const double speed = length(out.velocity_C);
    Vec3 velocity = out.velocity_C;
    if (sheds(context, body, *hit)) {
      const Vec3 wall = wall_normal(body, normal, rest);
      rest = without_approach(rest, wall);
      velocity = without_approach(velocity, wall);
    }
    const bool room = planes.add(normal);
    const Planes::Clipped clipped = planes.clip(rest);
    const bool turns = how.skidding && upright > kUpright && clipped.kind == Kind::Wall;
    const Vec3 kept = turns ? turned_by_ground(rest, clipped.vector_C) : clipped.vector_C;
    rest = room && dot(kept, heading) > 0.0 ? kept : Vec3(0.0);
    const Vec3 left = planes.clip(velocity).vector_C;
    out.velocity_C = turns ? turned_by_ground(velocity, left) : left;
    if (std::abs(upright) <= kUpright) out.wall_normal_C = wall_normal(body, normal, rest);
    const bool ceiling = upright < -kUpright;
    out.ceiling |= ceiling;
    const Kind kind =
        rest == Vec3(0.0) ? Kind::Stop : (ceiling && clipped.kind == Kind::Wall ? Kind::Ceiling : clipped.kind);
    const double into = std::clamp(-dot(unit_or(heading, Vec3(0.0)), normal), 0.0, 1.0);
    context.note(
        entry::Slide{kind, normal, rest, std::asin(into), speed > 0.0 ? length(out.velocity_C) / speed : 1.0});
    if (!room) break;
  }
  return out;
}

}  // namespace lagniappe
