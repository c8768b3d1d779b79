// SPDX-License-Identifier: MIT
#include "motion/slide.h"

#include <algorithm>

#include "motion/contact_kind.h"
#include "motion/piece_velocity.h"
#include "motion/wall_contact.h"

namespace lagniappe {
namespace {

using Kind = entry::Slide::Kind;

// Of the radius: so far a rim is rolled over until it is told from its face.
constexpr double kEndOfFace = 0.014;

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

// Running into walls, for who keeps to the ground. Each wall is kept as the plane that was met, and stands
// across up along its crease with the ground of the moment.
class Walls {
 public:
  Walls(const Curve& kept, const GroundSlide& how, const Vec3& up_C) : kept_(kept), how_(how), up_C_(up_C) {}

  // Returns false if there is no room for more.
  bool add(const Vec3& normal_C, const Vec3& ground_C, const Vec3& against_C) {
    const Vec3 wall = wall_on_ground(normal_C, ground_C, up_C_, against_C);
    last_C_ = wall;
    known_ = how_.plain || dot(wall, how_.known_wall_C) > kSameWall;
    if (!planes_.add(wall)) return false;
    if (count_ < kMostPlanes) met_C_[count_++] = normal_C;
    return true;
  }
  // On other ground the same walls stand otherwise.
  void lie_on(const Vec3& ground_C, const Vec3& against_C) {
    planes_ = Planes();
    for (int i = 0; i < count_; ++i) planes_.add(wall_on_ground(met_C_[i], ground_C, up_C_, against_C));
  }

  struct Deflected {
    Vec3 vector_C;
    Kind kind;
    double approach, kept;  // rad, and the share of the length that is left.
  };
  // What the walls leave of a flat vector: its direction along the last, and of its length the share that goes
  // with the angle of approach. Of two walls, no more than what went along the last of them from the beginning:
  // who runs into a corner is not led out of it.
  Deflected deflect(const Vec3& flat_C, const Vec3& from_the_first_C) const {
    const double size = length(flat_C);
    const double into = size > 0.0 ? std::clamp(-dot(flat_C, last_C_) / size, 0.0, 1.0) : 0.0;
    const Planes::Clipped clipped = planes_.clip(flat_C);
    if (clipped.kind == Kind::Along) return {flat_C, Kind::Along, 0.0, 1.0};
    if (clipped.kind != Kind::Wall) return {Vec3(0.0), Kind::Stop, std::asin(into), 0.0};
    const double along = length(clipped.vector_C) / size;
    const Vec3 way = unit_or(clipped.vector_C, Vec3(0.0));
    double kept = known_ ? along : std::min(kept_.at(degrees(std::asin(into))), 1.0);
    if (planes_.count() > 1) kept = std::clamp(dot(unit_or(from_the_first_C, Vec3(0.0)), way), 0.0, kept);
    return {way * (size * kept), kept > 0.0 ? Kind::Wall : Kind::Stop, std::asin(into), kept};
  }
  const Planes& planes() const { return planes_; }

 private:
  const Curve& kept_;
  const GroundSlide& how_;
  Vec3 up_C_;
  std::array<Vec3, kMostPlanes> met_C_;
  int count_ = 0;
  Planes planes_;
  Vec3 last_C_ = Vec3(0.0);
  bool known_ = false;
};

// What a moving wall that goes away leaves of the way into it: velocities are judged against it.
Vec3 going_away(const StepContext& context, const WorldHit& hit, const Vec3& frame_velocity_C,
                const Vec3& wall_C) {
  const Vec3 own = piece_velocity(context, hit.piece, hit.hit.point_C);
  if (own == Vec3(0.0) && frame_velocity_C == Vec3(0.0)) return Vec3(0.0);
  return wall_C * std::min(dot(own - frame_velocity_C, wall_C), 0.0);
}

}  // namespace

Slid slide_on_ground(const StepContext& context, const Body& body, const Vec3& foot_C,
                     const Vec3& flat_motion_C, const Vec3& flat_velocity_C, const Vec3& ground_normal_C,
                     const GroundSlide& how) {
  Slid out{foot_C, flat_velocity_C};
  Walls walls(context.profile.walls.kept, how, body.up_C);
  Vec3 normal = ground_normal_C;
  Vec3 flat = flat_motion_C;
  // Each round either finishes, meets a new wall, or turns onto another walkable face; twice the planes bounds
  // both.
  bool goes_on = true;
  // A face that is met may end right there: over its rim one rolls, and does not go on along it into the air.
  bool at_its_end = false;
  Vec3 resting = how.resting_C;
  int round = 0;
  double left = 1.0;  // Of the motion's time.
  const auto go_on_by = [&](double share) {
    flat *= 1.0 - share;
    left *= 1.0 - share;
  };
  for (; goes_on && round < 2 * kMostPlanes && length_squared(flat) > 0.0; ++round) {
    Vec3 rest = laid_on(flat, normal, body.up_C, how.measure);
    const double way = length(rest), near = kEndOfFace * body.radius;
    const double share = at_its_end && way > near ? near / way : 1.0;
    at_its_end = false;
    rest *= share;
    const auto hit = advance(context, body, out.foot_C, rest);
    go_on_by(share * (hit ? hit->hit.fraction : 1.0));
    if (!hit && share == 1.0) return out;
    if (!hit) continue;
    ++out.slides;

    const Vec3 contact_normal = hit->hit.normal_C;
    const ContactKind kind = contact_kind(context.profile, hit->surface, contact_normal, body.up_C);
    const bool leads = leads_on(context.profile, hit->surface, contact_normal, body.up_C);
    const bool on_edge =
        hit->hit.feature != Feature::Face && dot(contact_normal, hit->face_normal_C) < kSamePlane;
    if (!leads || on_edge) {
      const StepLimits limits{context.profile.ground.highest_step, ground_normal_C, resting};
      if (const auto step = try_step(context, body, out.foot_C, flat, *hit, walls.planes(), limits)) {
        out.lifted += dot(step->foot_C - out.foot_C, body.up_C);
        out.foot_C = step->foot_C;
        out.stepped = true;
        go_on_by(1.0 - step->left);
        normal = body.up_C;
        resting = hit->hit.point_C;
        continue;
      }
    }
    const Vec3 against = -unit_or(flat, body.up_C);
    if (leads) {
      normal = contact_normal;
      at_its_end = !out.turned;
      out.turned = true;
      walls.lie_on(normal, against);
      context.note(
          entry::Slide{Kind::Along, normal, laid_on(flat, normal, body.up_C, how.measure), 0.0, 1.0, kind});
      continue;
    }
    goes_on = walls.add(contact_normal, normal, against);
    const Vec3 wall = wall_on_ground(contact_normal, normal, body.up_C, against);
    const Walls::Deflected deflected = walls.deflect(flat, flat_motion_C);
    goes_on = goes_on && (deflected.kind != Kind::Along || hit->hit.fraction > 0.0);
    const Vec3 before = flat;
    flat = deflected.vector_C;
    const Vec3 away = going_away(context, *hit, how.frame_velocity_C, wall);
    out.velocity_C = body.flat(walls.deflect(out.velocity_C - away, flat_velocity_C).vector_C + away);
    out.wall_normal_C = wall;
    out.pressed_C = wall * std::min(dot(before, wall), 0.0);
    context.note(entry::Slide{flat == Vec3(0.0) ? Kind::Stop : Kind::Wall, wall, flat, deflected.approach,
                              deflected.kept, kind});
    if (!goes_on) flat = before;
    if (1.0 - left > how.stop_after && !how.plain && dot(wall, how.known_wall_C) < kTurnedWall) {
      out.stopped = true;
      out.share = 1.0 - left;
      out.stop_normal_C = wall;
      return out;
    }
  }
  if (length_squared(flat) > 0.0) context.note(entry::Exhausted{out.slides, length(flat)});
  return out;
}

namespace {

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
      const auto hit = advance(context_, body_, out_.foot_C, rest_);
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
    out_.lifted += dot(step->foot_C - out_.foot_C, body_.up_C);
    out_.foot_C = step->foot_C;
    return out_.stepped = true;
  }

  bool stops_at(const WorldHit& hit) {
    const double share = 1.0 - left_;
    if (share <= how_.stop_after) return false;
    const Vec3& normal = hit.hit.normal_C;
    const ContactKind kind = contact_kind(context_.profile, hit.surface, normal, body_.up_C);
    const bool rises = dot(out_.velocity_C, body_.up_C) > 0.0;
    const bool ground = kind == ContactKind::Ground || (kind == ContactKind::Steep && !how_.skidding);
    if (kind == ContactKind::Ceiling ? !rises : !(ground && hit.surface.ground)) return false;
    out_.stopped = true;
    out_.stop_normal_C = normal;
    out_.share = share;
    if (kind != ContactKind::Ceiling) return true;
    out_.ceiling = true;
    const Vec3 of_piece = velocity_of(hit);
    out_.velocity_C = of_piece + without_approach(out_.velocity_C - of_piece, normal);
    return true;
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
