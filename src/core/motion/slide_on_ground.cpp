// SPDX-License-Identifier: MIT
#include <algorithm>

#include "motion/contact_kind.h"
#include "motion/ledge_guard.h"
#include "motion/piece_velocity.h"
#include "motion/slide.h"
#include "motion/sweep_ahead.h"
#include "motion/wall_contact.h"

namespace lagniappe {
namespace {

using Kind = entry::Slide::Kind;

// Of the radius: so far a rim is rolled over until it is told from its face.
constexpr double kEndOfFace = 0.014;
// Rims that bend are gone along in stretches.
constexpr int kMostGuardedRounds = 4 * kMostPlanes;

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

// One sliding along the ground: what it has met, and what is left of the motion.
class GroundWay {
 public:
  GroundWay(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& flat_motion_C,
            const Vec3& flat_velocity_C, const Vec3& ground_normal_C, const GroundSlide& how)
      : context_(context),
        body_(body),
        how_(how),
        out_{foot_C, flat_velocity_C},
        asked_C_(flat_motion_C),
        velocity_asked_C_(flat_velocity_C),
        ground_C_(ground_normal_C),
        walls_(context.profile.walls.kept, how, body.up_C),
        flat_C_(flat_motion_C),
        normal_C_(ground_normal_C),
        resting_C_(how.resting_C) {}

  // Each round either finishes, meets a new wall, or turns onto another walkable face; twice the planes bounds
  // both.
  Slid go() {
    bool goes_on = true;
    const int most = how_.guard != nullptr ? kMostGuardedRounds : 2 * kMostPlanes;
    for (int round = 0; goes_on && round < most && length_squared(flat_C_) > 0.0; ++round) {
      bool ended = false;
      const auto hit = go_ahead(ended);
      if (ended) return out_;
      if (!hit) continue;
      ++out_.slides;
      const bool leads = leads_on(context_.profile, hit->surface, hit->hit.normal_C, body_.up_C);
      if (steps_over(*hit, leads)) continue;
      if (leads) {
        turn_onto(*hit);
        continue;
      }
      goes_on = deflect(*hit);
      if (out_.stopped) return out_;
    }
    if (length_squared(flat_C_) > 0.0) context_.note(entry::Exhausted{out_.slides, length(flat_C_)});
    return out_;
  }

 private:
  void go_on_by(double share) {
    flat_C_ *= 1.0 - share;
    left_ *= 1.0 - share;
  }

  Vec3 laid() const { return laid_on(flat_C_, normal_C_, body_.up_C, how_.measure); }
  Vec3 against() const { return -unit_or(flat_C_, body_.up_C); }

  // Takes of the way what would lead over a rim. Returns the share of what is left to go at once.
  double keep_from_rims() {
    if (how_.guard == nullptr) return 1.0;
    const LedgeGuard::Left left = how_.guard->keep(out_.foot_C, flat_C_, out_.velocity_C, normal_C_,
                                                   how_.seconds * left_, walls_.planes());
    flat_C_ = left.flat_C;
    out_.velocity_C = left.velocity_C;
    return left.share;
  }

  // Returns what is met, if anything. `ended`: nothing is, and all of the way is gone.
  std::optional<WorldHit> go_ahead(bool& ended) {
    const Vec3 asked = flat_C_;
    double share = keep_from_rims();
    const bool bent = share < 1.0;
    ended = flat_C_ == Vec3(0.0);
    if (ended) return std::nullopt;
    Vec3 rest = laid();
    const double way = length(rest), near = kEndOfFace * body_.radius;
    if (at_its_end_ && way > near) share = std::min(share, near / way);
    at_its_end_ = false;
    rest *= share;
    const auto hit = sweep_ahead(context_, body_, out_.foot_C, rest);
    if (!hit && share < 1.0) flat_C_ = asked;  // Only this stretch was led along a rim.
    go_on_by(share * (hit ? hit->hit.fraction : 1.0));
    ended = !hit && (share == 1.0 || stopped_at_rim(bent, rest));
    return hit;
  }

  // Where a rim that is gone along bends, and where it ends, is an event of the tick: from there another way is
  // free, and the velocity follows.
  bool stopped_at_rim(bool bent, const Vec3& way_C) {
    if (!bent || 1.0 - left_ <= how_.stop_after) return false;
    out_.stopped = true;
    out_.share = 1.0 - left_;
    out_.stop_normal_C = unit_or(way_C, Vec3(0.0));
    return true;
  }

  bool steps_over(const WorldHit& hit, bool leads) {
    const bool on_edge =
        hit.hit.feature != Feature::Face && dot(hit.hit.normal_C, hit.face_normal_C) < kSamePlane;
    if (leads && !on_edge) return false;
    const StepLimits limits{context_.profile.ground.highest_step, ground_C_, resting_C_};
    const auto step = try_step(context_, body_, out_.foot_C, flat_C_, hit, walls_.planes(), limits);
    if (!step) return false;
    out_.lift(dot(step->foot_C - out_.foot_C, body_.up_C), 1.0 - left_);
    out_.foot_C = step->foot_C;
    go_on_by(1.0 - step->left);
    normal_C_ = body_.up_C;
    resting_C_ = hit.hit.point_C;
    return out_.stepped = true;
  }

  void turn_onto(const WorldHit& hit) {
    normal_C_ = hit.hit.normal_C;
    at_its_end_ = !out_.turned;
    out_.turned = true;
    walls_.lie_on(normal_C_, against());
    context_.note(entry::Slide{Kind::Along, normal_C_, laid(), 0.0, 1.0, kind_of(hit)});
  }

  // Returns false if nothing is left of the way.
  bool deflect(const WorldHit& hit) {
    const bool room = walls_.add(hit.hit.normal_C, normal_C_, against());
    const Vec3 wall = wall_on_ground(hit.hit.normal_C, normal_C_, body_.up_C, against());
    const Walls::Deflected deflected = walls_.deflect(flat_C_, asked_C_);
    const bool goes_on = room && (deflected.kind != Kind::Along || hit.hit.fraction > 0.0);
    const Vec3 before = flat_C_;
    flat_C_ = deflected.vector_C;
    const Vec3 away = going_away(context_, hit, how_.frame_velocity_C, wall);
    out_.velocity_C = body_.flat(walls_.deflect(out_.velocity_C - away, velocity_asked_C_).vector_C + away);
    out_.wall_normal_C = wall;
    out_.pressed_C = wall * std::min(dot(before, wall), 0.0);
    context_.note(entry::Slide{flat_C_ == Vec3(0.0) ? Kind::Stop : Kind::Wall, wall, flat_C_,
                               deflected.approach, deflected.kept, kind_of(hit)});
    if (!goes_on) flat_C_ = before;
    stop_at_another(wall);
    return goes_on;
  }

  // Another wall than the one that was known is an event of the tick.
  void stop_at_another(const Vec3& wall) {
    if (1.0 - left_ <= how_.stop_after || how_.plain || dot(wall, how_.known_wall_C) >= kTurnedWall) return;
    out_.stopped = true;
    out_.share = 1.0 - left_;
    out_.stop_normal_C = wall;
  }

  ContactKind kind_of(const WorldHit& hit) const {
    return contact_kind(context_.profile, hit.surface, hit.hit.normal_C, body_.up_C);
  }

  const StepContext& context_;
  const Body& body_;
  const GroundSlide& how_;
  Slid out_;
  const Vec3 asked_C_, velocity_asked_C_, ground_C_;
  Walls walls_;
  Vec3 flat_C_;     // What is left of the motion, across up.
  Vec3 normal_C_;   // Of the face that one is on.
  Vec3 resting_C_;  // What bears.
  // A face that is met may end right there: over its rim one rolls, and does not go on along it into the air.
  bool at_its_end_ = false;
  double left_ = 1.0;  // Of the motion's time.
};

}  // namespace

Slid slide_on_ground(const StepContext& context, const Body& body, const Vec3& foot_C,
                     const Vec3& flat_motion_C, const Vec3& flat_velocity_C, const Vec3& ground_normal_C,
                     const GroundSlide& how) {
  return GroundWay(context, body, foot_C, flat_motion_C, flat_velocity_C, ground_normal_C, how).go();
}

}  // namespace lagniappe
