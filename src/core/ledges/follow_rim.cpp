// SPDX-License-Identifier: MIT
#include "ledges/follow_rim.h"

#include <algorithm>

namespace lagniappe {
namespace {

constexpr double kStride = 0.05;  // m between looks at the rim.
constexpr double kFinest = 1e-4;  // m, to which a rim's end is searched for.
constexpr double kRises = 0.12;   // m that a rim may rise or fall from one look to the next.
constexpr double kJustBeyond = 0.015, kBeyond = 0.06;  // m beyond a corner at which the next rim is looked for.
constexpr double kNearCorner = 0.04;                   // m between two rims that meet there.
constexpr double kSameWay = radians(0.05);  // Walls whose normals are closer than this go straight on.
constexpr double kTurnLooks = radians(22.5);
constexpr double kSharpest = radians(160.0);
constexpr double kFaced = 0.5;    // Cosine between the way along a rim and a wall that one comes up to.
constexpr double kTurned = 1e-9;  // rad.
constexpr int kMostIdle = 4;      // Events without any way between them.

class Follower {
 public:
  Follower(const World& world, const HangShape& shape) : world_(world), s_(shape), up_(shape.up_C) {}

  GripAnswer grip(const Vec3& foot_C, const Vec3& towards_C, double reach, double lowest,
                  double highest) const {
    LedgeQuery q;
    q.foot_C = foot_C;
    q.up_C = up_;
    q.towards_C = towards_C;
    q.radius = s_.radius;
    q.reach = reach;
    q.lowest = lowest;
    q.highest = highest;
    q.shortest_shelf = s_.shortest_shelf;
    q.longest_shelf = s_.shortest_shelf + 0.05;
    q.steepest_shelf = s_.steepest_shelf;
    q.most_over = s_.most_over;
    q.crouched = q.standing = 0.0;
    q.moment = s_.moment;
    GripAnswer answer;
    answer.ledge = find_ledge(world_, q);
    if (!answer.ledge.ledge) return answer;
    RimGrip found = grip_on(*answer.ledge.ledge, towards_C);
    const double back = -answer.ledge.ledge->over;
    if (back > s_.most_back()) {
      answer.leans_back = back;
      return answer;
    }
    if (const auto touched = in_the_way(found)) {
      answer.in_the_way = *touched;
      return answer;
    }
    answer.grip = found;
    return answer;
  }

  // At a place along or round a rim, where it should be.
  GripAnswer at(const Vec3& rim_C, const Vec3& normal_C, double away) const {
    const Vec3 foot = rim_C - up_ * s_.hands + normal_C * away;
    return grip(foot, -normal_C, away - s_.radius + kRises, s_.hands - kRises, s_.hands + kRises);
  }

  RimWay go(RimGrip grip, double distance) {
    RimWay way;
    const double sign = distance < 0.0 ? -1.0 : 1.0;
    double left = std::abs(distance);
    for (int idle = 0; idle < kMostIdle && left > 0.0;) {
      const double before = left;
      const RimStop stop = grip.in_corner()  ? turn(grip, sign, left, way)
                           : grip.over_gap() ? cross_gap(grip, sign, left, way)
                                             : along(grip, sign, left, way);
      way.gone += sign * (before - left);
      idle = left < before ? 0 : idle + 1;
      way.stop = stop;
      if (stop != RimStop::None) break;
    }
    way.grip = grip;
    return way;
  }

 private:
  Vec3 rotated(const Vec3& v, double angle) const { return glm::angleAxis(angle, up_) * v; }
  double angle_between(const Vec3& from, const Vec3& to) const {
    return std::atan2(dot(cross(from, to), up_), dot(from, to));
  }

  // The body hangs where it clears the wall all along its height.
  RimGrip grip_on(const Ledge& ledge, const Vec3& towards_C) const {
    RimGrip grip;
    grip.rim_C = ledge.rim_C;
    grip.normal_C = unit_or(across(ledge.wall_normal_C, up_), -towards_C);
    grip.along_C = ledge.along_C;
    const double back = std::max(-ledge.over, 0.0), below = s_.hands - s_.radius;
    grip.away = std::max(s_.radius + s_.gap, below * std::tan(back) + s_.radius / std::cos(back) + s_.gap);
    grip.piece = ledge.shelf_piece;
    return grip;
  }

  Segment body(const RimGrip& grip) const {
    const Vec3 foot = grip.foot_C(s_);
    const double height = std::max(std::min(s_.height, s_.hands), 2.0 * s_.radius);
    return {foot + up_ * s_.radius, foot + up_ * (height - s_.radius)};
  }
  std::optional<PieceId> in_the_way(const RimGrip& grip) const {
    std::array<WorldContact, 1> touched;
    const std::size_t count = world_.contacts(body(grip), s_.radius - s_.margin, touched, s_.moment);
    return count > 0 ? std::optional(touched[0].piece) : std::nullopt;
  }

  // Straight on, to the next look at most.
  RimStop along(RimGrip& grip, double sign, double& left, RimWay& way) {
    const double step = std::min(left, kStride);
    const Vec3 t = grip.along_C * sign;
    // A wall that is faced is kept off as the one that is hung on, whatever the steps are.
    const auto faced = wall_ahead(grip, sign, step);
    if (faced && free_before(*faced, step) < step && dot(faced->hit.normal_C, t) < -kFaced)
      return inner_corner(grip, sign, step, faced, left, way);
    const GripAnswer next = at(grip.rim_C + t * step, grip.normal_C, grip.away);
    if (next.grip && std::abs(angle_between(grip.normal_C, next.grip->normal_C)) <= kSameWay) {
      grip = *next.grip;
      left -= step;
      return RimStop::None;
    }
    if (next.in_the_way != kNoPiece || (next.grip && bends_in(grip, *next.grip, sign)))
      return inner_corner(grip, sign, step, faced, left, way);
    return outer_corner(grip, sign, step, left, way);
  }

  // Whether a wall that comes turns towards the body.
  bool bends_in(const RimGrip& grip, const RimGrip& next, double sign) const {
    return angle_between(grip.normal_C, next.normal_C) * sign < 0.0;
  }

  // To the last place where the rim still is as it was.
  double last_of(const RimGrip& grip, double sign, double step) const {
    double on = 0.0, off = step;
    while (off - on > kFinest) {
      const double middle = 0.5 * (on + off);
      const GripAnswer answer = at(grip.rim_C + grip.along_C * (sign * middle), grip.normal_C, grip.away);
      const bool same =
          answer.grip && std::abs(angle_between(grip.normal_C, answer.grip->normal_C)) <= kSameWay;
      (same ? on : off) = middle;
    }
    return on;
  }

  RimStop outer_corner(RimGrip& grip, double sign, double step, double& left, RimWay& way) {
    const double on = last_of(grip, sign, step);
    grip.rim_C += grip.along_C * (sign * on);
    left -= on;
    if (const auto next = round_corner(grip, grip.rim_C, sign)) {
      begin_corner(grip, *next, sign, false);
      return RimStop::None;
    }
    return over_gap(grip, sign, left, way, RimStop::End);
  }

  // To where the rim goes on, if hands reach it; else it stops there.
  RimStop over_gap(RimGrip& grip, double sign, double& left, RimWay& way, RimStop stop) {
    const double wide = gap_after(grip, sign);
    if (wide <= 0.0) return stop;
    const RimGrip before = grip;
    (sign > 0.0 ? grip.gap_right : grip.gap_left) = wide;
    const RimStop crossed = cross_gap(grip, sign, left, way);
    if (crossed == RimStop::None) return crossed;
    grip = before;
    return stop;
  }

  // m to where the rim goes on; 0: nowhere that hands reach.
  double gap_after(const RimGrip& grip, double sign) const {
    const auto goes_on = [&](double wide) {
      const GripAnswer answer = at(grip.rim_C + grip.along_C * (sign * wide), grip.normal_C, grip.away);
      return answer.grip && std::abs(angle_between(grip.normal_C, answer.grip->normal_C)) <= kTurnLooks;
    };
    for (double wide = kStride; wide <= s_.between + kStride; wide += kStride) {
      if (!goes_on(wide)) continue;
      double off = wide - kStride, on = wide;
      while (on - off > kFinest) {
        const double middle = 0.5 * (on + off);
        (goes_on(middle) ? on : off) = middle;
      }
      return on <= s_.between ? on : 0.0;
    }
    return 0.0;
  }

  RimStop cross_gap(RimGrip& grip, double sign, double& left, RimWay& way) {
    double& ahead = sign > 0.0 ? grip.gap_right : grip.gap_left;
    double& behind = sign > 0.0 ? grip.gap_left : grip.gap_right;
    const double step = std::min(left, ahead);
    RimGrip moved = grip;
    moved.rim_C += grip.along_C * (sign * step);
    if (const auto touched = in_the_way(moved)) {
      way.piece = *touched;
      return RimStop::Blocked;
    }
    const bool over = ahead - step <= kFinest;
    if (over && !lands(moved, sign)) return RimStop::End;
    left -= step;
    ahead -= step;
    behind += step;
    grip.rim_C = moved.rim_C;
    if (over) grip = moved;
    return RimStop::None;
  }

  // The rim that goes on round a corner: the one that turns the least.
  std::optional<RimGrip> round_corner(const RimGrip& grip, const Vec3& corner_C, double sign) const {
    for (const double beyond : {kJustBeyond, kBeyond}) {
      for (double turn = 0.0; turn <= kSharpest; turn += kTurnLooks) {
        const Vec3 normal = rotated(grip.normal_C, sign * turn);
        const Vec3 onward = rotated(across(grip.along_C * sign, up_), sign * turn);
        const GripAnswer answer = at(corner_C + onward * beyond, normal, grip.away);
        if (!answer.grip) continue;
        const double turned = sign * angle_between(grip.normal_C, answer.grip->normal_C);
        const Vec3 off = answer.grip->rim_C - corner_C;
        const bool meets = length(off - answer.grip->along_C * dot(off, answer.grip->along_C)) < kNearCorner;
        if (meets && turned > kSameWay) return answer.grip;
      }
    }
    return std::nullopt;
  }

  Vec3 straight_on(const RimGrip& grip, double sign) const {
    return unit_or(across(grip.along_C * sign, up_), Vec3(0.0));
  }
  // What the body meets on a step along the rim, or within its gap behind that.
  std::optional<WorldHit> wall_ahead(const RimGrip& grip, double sign, double step) const {
    return world_.sweep(body(grip), s_.radius - s_.margin, straight_on(grip, sign) * (step + s_.gap),
                        s_.moment);
  }
  // m of the step until it is so near.
  double free_before(const WorldHit& ahead, double step) const {
    return std::clamp(ahead.hit.fraction * (step + s_.gap) - s_.gap, 0.0, step);
  }

  // The wall ahead has a rim as well: the body turns to it.
  RimStop inner_corner(RimGrip& grip, double sign, double step, const std::optional<WorldHit>& ahead,
                       double& left, RimWay& way) {
    const Vec3 t = straight_on(grip, sign);
    const double room = s_.radius + s_.gap;
    way.piece = ahead ? ahead->piece : kNoPiece;
    const double on = ahead ? free_before(*ahead, step) : step;
    RimGrip near = grip;
    near.rim_C += grip.along_C * (sign * on);
    const GripAnswer next = grip_from_here(near, t, room);
    if (next.grip && std::abs(angle_between(grip.normal_C, next.grip->normal_C)) > kSameWay) {
      grip = near;
      left -= on;
      begin_corner(grip, *next.grip, sign, true);
      return RimStop::None;
    }
    const double good = std::min(on, last_of(grip, sign, step));
    grip.rim_C += grip.along_C * (sign * good);
    left -= good;
    return over_gap(grip, sign, left, way, RimStop::Blocked);
  }
  void begin_corner(RimGrip& grip, const RimGrip& next, double sign, bool inner) const {
    grip.inner = inner;
    (sign > 0.0 ? grip.turn_right : grip.turn_left) = std::abs(angle_between(grip.normal_C, next.normal_C));
  }
  GripAnswer grip_from_here(const RimGrip& grip, const Vec3& towards_C, double reach) const {
    return this->grip(grip.foot_C(s_), towards_C, reach, s_.hands - kRises, s_.hands + kRises);
  }

  // Round a corner, at the pace that the body has along a rim.
  RimStop turn(RimGrip& grip, double sign, double& left, RimWay& way) {
    const double about = grip.inner ? -sign : sign;
    const double ahead = sign > 0.0 ? grip.turn_right : grip.turn_left;
    const double angle = std::min(left / grip.away, ahead);
    RimGrip turned = grip;
    turned.normal_C = rotated(grip.normal_C, about * angle);
    turned.along_C = rotated(grip.along_C, about * angle);
    if (grip.inner) turned.rim_C += (grip.normal_C - turned.normal_C) * grip.away;
    (sign > 0.0 ? turned.turn_right : turned.turn_left) -= angle;
    (sign > 0.0 ? turned.turn_left : turned.turn_right) += angle;
    if (const auto touched = in_the_way(turned)) {
      way.piece = *touched;
      return RimStop::Blocked;
    }
    if (ahead - angle <= kTurned && !lands(turned, sign)) return RimStop::End;
    left -= angle * grip.away;
    grip = turned;
    return RimStop::None;
  }

  // Onto the rim behind a corner or a gap. If it has moved away meanwhile, the hands stay with the one before.
  bool lands(RimGrip& grip, double sign) const {
    const Vec3 onward = across(grip.along_C * sign, up_);
    const double in = grip.inner ? 0.0 : kFinest * 2.0;
    const GripAnswer next = at(grip.rim_C + onward * in, grip.normal_C, grip.away);
    if (next.grip) grip = *next.grip;
    return next.grip.has_value();
  }

  const World& world_;
  const HangShape& s_;
  const Vec3 up_;
};

}  // namespace

GripAnswer grip_from(const World& world, const HangShape& shape, const Vec3& foot_C, const Vec3& towards_C,
                     double reach, double lowest, double highest) {
  return Follower(world, shape).grip(foot_C, towards_C, reach, lowest, highest);
}

GripAnswer renewed(const World& world, const HangShape& shape, const RimGrip& grip) {
  return Follower(world, shape).at(grip.rim_C, grip.normal_C, grip.away);
}

RimWay follow_rim(const World& world, const HangShape& shape, const RimGrip& grip, double distance) {
  return Follower(world, shape).go(grip, distance);
}

}  // namespace lagniappe
