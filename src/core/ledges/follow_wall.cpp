// SPDX-License-Identifier: MIT
#include "ledges/follow_wall.h"

#include <algorithm>
#include <array>
#include <utility>

#include "ledges/follow_ladder.h"

namespace lagniappe {
namespace {

constexpr double kStride = 0.015;   // m between looks at the wall.
constexpr double kFinest = 2e-4;    // m, to which an end is searched for.
constexpr double kExact = 1e-7;     // m, to which the distance is kept.
constexpr int kMostShifts = 12;     // To come to the distance again.
constexpr double kSlack = 0.02;     // m beyond the distance in which walls are looked at.
constexpr double kFingers = 0.03;   // m, half the width of what is felt for.
constexpr double kHandSpan = 0.16;  // m up and down from the hands' height.
constexpr double kHollow = 0.15;    // m that the wall may fall back before the hands.
constexpr double kClear = 0.001;    // m to what is not climbed.
constexpr double kSameWay = 0.5;    // Cosine between normals, of one wall after a stride.
constexpr std::size_t kMostContacts = 24;

// A face near the body: the body may come as near as `least` to it.
struct Near {
  Vec3 normal_C;
  double distance, least;
  bool climbable, floor;
  PieceId piece;
};

class Climber {
  struct Felt {
    Vec3 point_C;
    double distance;  // m from the axis, level.
    bool climbable;
    PieceId piece;
  };

 public:
  Climber(const World& world, const ClimbShape& shape) : world_(world), s_(shape), up_(shape.up_C) {}

  WallAnswer ahead(const Vec3& foot_C, const Vec3& towards_C, double reach) const {
    WallGrip grip;
    grip.foot_C = foot_C;
    grip.normal_C = -unit_or(across(towards_C, up_), Vec3(0.0));
    // A wall that leans back is farther from the hands than from the feet.
    const double far = s_.radius + reach;
    const auto felt = feel(grip, s_.hands, far + s_.hands * std::tan(std::max(s_.most_back, 0.0)));
    if (const auto ladder = ladder_before(grip, felt, reach)) return onto(*ladder, foot_C);
    if (!felt || (!felt->climbable && felt->distance > far))
      return WallAnswer::refused(WallFault::NothingThere);
    if (!felt->climbable) return WallAnswer::refused(WallFault::NotClimbable, felt->piece);
    return onto(*felt, grip, reach);
  }

  WallAnswer now(WallGrip grip) const {
    if (grip.on_ladder()) {
      const auto found = ladder_of(grip.piece);
      return found ? ladder_now(s_, found->ladder, grip) : WallAnswer::refused(WallFault::NothingThere);
    }
    if (!put_right(grip)) return WallAnswer::refused(WallFault::NothingThere);
    return settled(grip);
  }

  WallAnswer after_turn(WallGrip grip) const {
    if (grip.on_ladder()) return now(grip);
    if (!come_near(grip)) return WallAnswer::refused(WallFault::NothingThere);
    return settled(grip);
  }

  // What stops one part of a way does not stop the other: one goes on up beside a post, and along under a rim.
  WallWay go(const WallGrip& grip, const Vec2& way) const {
    if (grip.on_ladder()) {
      const auto found = ladder_of(grip.piece);
      return found ? follow_ladder(world_, s_, found->ladder, grip, way.y)
                   : WallWay{grip, 0.0, WallFault::NothingThere};
    }
    WallWay all = straight(grip, way);
    if (all.stop == WallFault::None || all.stop == WallFault::Floor || way.x == 0.0 || way.y == 0.0) return all;
    const double left = std::max(1.0 - all.gone / length(way), 0.0);
    const WallWay upwards = straight(all.grip, {0.0, way.y * left});
    const WallWay sideways = straight(all.grip, {way.x * left, 0.0});
    WallWay rest = sideways.gone > upwards.gone ? sideways : upwards;
    rest.gone += all.gone;
    // Told is what stops the way up or down; only if nothing does, what stops the whole.
    if (upwards.stop != WallFault::None) all = upwards;
    rest.stop = all.stop;
    rest.found = all.found;
    rest.allowed = all.allowed;
    rest.piece = all.piece;
    return rest;
  }

 private:
  WallWay straight(WallGrip grip, const Vec2& way) const {
    WallWay result;
    const double size = length(way);
    for (double left = size; left > 0.0;) {
      const double step = std::min(left, kStride);
      const WallAnswer answer = farthest(grip, way * (step / size));
      if (answer.grip) {
        const double gone = length(answer.grip->foot_C - grip.foot_C);
        result.gone += gone;
        grip = *answer.grip;
      }
      if (answer.fault != WallFault::None) {
        result.stop = answer.fault;
        result.found = answer.found;
        result.allowed = answer.allowed;
        result.piece = answer.piece;
        break;
      }
      left -= step;
    }
    result.grip = grip;
    return result;
  }

  // From the foot of a grip to the wall that is felt there.
  WallAnswer onto(const Felt& felt, WallGrip grip, double reach) const {
    const Vec3 from_C = grip.foot_C;
    const Vec3 towards = -grip.normal_C * felt.distance;
    const auto met = world_.sweep(s_.axis(from_C), s_.radius - s_.margin, towards, s_.moment);
    const double free = met ? met->hit.fraction * felt.distance : felt.distance - s_.radius;
    grip.foot_C -= grip.normal_C * std::max(free - s_.gap, 0.0);
    if (!come_near(grip)) return WallAnswer::refused(WallFault::NoRoom, felt.piece);
    const WallAnswer answer = settled(grip);
    if (!answer.grip) return answer;
    const Vec3 way = answer.grip->foot_C - from_C;
    if (-dot(way, unit_or(across(answer.grip->normal_C, up_), Vec3(0.0))) > reach)
      return WallAnswer::refused(WallFault::NothingThere);
    const auto hit = world_.sweep(s_.axis(from_C), s_.radius - s_.margin, way, s_.moment);
    return hit ? WallAnswer::refused(WallFault::NoRoom, hit->piece) : answer;
  }

  struct Found {
    Ladder ladder;
    PieceId piece;
  };
  std::optional<Found> ladder_of(PieceId piece) const {
    const auto ladder = world_.ladder(piece, s_.moment);
    return ladder ? std::optional(Found{*ladder, piece}) : std::nullopt;
  }

  // The ladder before the hands, else before the body: rungs may be so far apart that hands pass between them.
  std::optional<Found> ladder_before(const WallGrip& grip, const std::optional<Felt>& felt,
                                     double reach) const {
    const double far = s_.radius + reach;
    if (grip.normal_C == Vec3(0.0)) return std::nullopt;
    if (felt && !felt->climbable && felt->distance <= far) {
      if (const auto found = ladder_of(felt->piece)) return found;
    }
    const auto met =
        world_.sweep(s_.axis(grip.foot_C), s_.radius - s_.margin, grip.normal_C * -reach, s_.moment);
    return met ? ladder_of(met->piece) : std::nullopt;
  }

  // From beside a ladder either side of it will do.
  WallAnswer onto(const Found& found, const Vec3& foot_C) const {
    const Ladder& ladder = found.ladder;
    const double before = dot(foot_C + up_ * s_.hands - ladder.base_C, ladder.front_C);
    const Vec3 out = before < 0.0 ? -ladder.front_C : ladder.front_C;
    const WallAnswer answer = clear_way(grip_ladder(s_, ladder, found.piece, foot_C, out), foot_C);
    if (answer.grip || std::abs(before) > s_.radius + 0.5 * ladder.depth) return answer;
    const WallAnswer other = clear_way(grip_ladder(s_, ladder, found.piece, foot_C, -out), foot_C);
    return other.grip ? other : answer;
  }

  WallAnswer clear_way(const WallAnswer& answer, const Vec3& foot_C) const {
    if (!answer.grip) return answer;
    const Vec3 corner = corner_before_grip(*answer.grip, foot_C, up_);
    for (const auto& [from, to] : {std::pair(foot_C, corner), std::pair(corner, answer.grip->foot_C)}) {
      const auto hit = world_.sweep(s_.axis(from), s_.radius - s_.margin, to - from, s_.moment);
      if (hit) return WallAnswer::refused(WallFault::NoRoom, hit->piece);
    }
    return answer;
  }

  // What is before the body at a height over its foot.
  std::optional<Felt> feel(const WallGrip& grip, double height, double far) const {
    const Vec3 towards = -unit_or(across(grip.normal_C, up_), Vec3(0.0));
    if (towards == Vec3(0.0)) return std::nullopt;
    const Vec3 middle = grip.foot_C + up_ * height;
    const Segment fingers{middle - up_ * kHandSpan, middle + up_ * kHandSpan};
    const Vec3 way = towards * far;
    const auto hit = world_.sweep(fingers, kFingers, way, s_.moment);
    if (!hit) return std::nullopt;
    return Felt{hit->hit.point_C, hit->hit.fraction * far + kFingers, hit->surface.climbable, hit->piece};
  }

  // rad that the wall leans back between feet and hands, so that ribs do not count.
  double lean_back(const WallGrip& grip, const Felt& felt) const {
    const double low = s_.radius, high = s_.hands - low;
    if (const auto below = feel(grip, low, farthest_reach()))
      return std::atan2(felt.distance - below->distance, high);
    return std::asin(std::clamp(dot(grip.normal_C, up_), -1.0, 1.0));
  }

  WallAnswer judged(const WallGrip& grip, const Felt& felt) const {
    if (!felt.climbable) return WallAnswer::refused(WallFault::NotClimbable, felt.piece);
    const double back = lean_back(grip, felt);
    // A bulge holds the body away from the wall below it.
    const double bulge = -std::asin(std::clamp(dot(grip.normal_C, up_), -1.0, 1.0));
    const double farthest = s_.reach() / std::cos(back) + s_.hands * std::max(std::tan(back), 0.0) + kHollow;
    if (felt.distance > farthest)
      return bulge > s_.most_over ? WallAnswer::refused(WallFault::LeansOver, felt.piece, bulge, s_.most_over)
                                  : WallAnswer::refused(WallFault::NothingThere);
    if (back > s_.most_back) return WallAnswer::refused(WallFault::LeansBack, felt.piece, back, s_.most_back);
    if (-back > s_.most_over) return WallAnswer::refused(WallFault::LeansOver, felt.piece, -back, s_.most_over);
    WallAnswer answer;
    answer.grip = grip;
    answer.grip->hands_C = felt.point_C;
    answer.grip->piece = felt.piece;
    return answer;
  }

  // m level from the axis to the farthest wall that is held: it leans back, and the body is nearest at its
  // feet.
  double farthest_reach() const {
    const double back = std::max({s_.most_back, s_.most_over, 0.0});
    return s_.reach() / std::cos(back) + s_.hands * std::tan(back) + kHollow;
  }

  WallAnswer settled(const WallGrip& grip) const {
    const auto felt = feel(grip, s_.hands, farthest_reach());
    return felt ? judged(grip, *felt) : WallAnswer::refused(WallFault::NothingThere);
  }

  std::size_t near(const Vec3& foot_C, double beyond, std::array<Near, kMostContacts>& out) const {
    std::array<WorldContact, kMostContacts> touched;
    const std::size_t count = world_.contacts(s_.axis(foot_C), s_.reach() + beyond, touched, s_.moment);
    for (std::size_t i = 0; i < count; ++i) {
      const WorldContact& c = touched[i];
      const bool floor = s_.is_floor(c.face_normal_C, c.closest.normal_C);
      const bool climbable = c.surface.climbable && !floor;
      out[i] = {c.closest.normal_C,
                c.closest.distance,
                climbable ? s_.reach() : s_.radius + kClear,
                climbable,
                floor,
                c.piece};
    }
    return count;
  }

  // The wall that is held: of those that the body is nearest to, the one that faces as it did.
  static const Near* held(const std::array<Near, kMostContacts>& faces, std::size_t count,
                          const Vec3& normal_C) {
    const Near* best = nullptr;
    double nearest = 1e9;
    for (std::size_t i = 0; i < count; ++i) {
      const Near& f = faces[i];
      if (!f.climbable || dot(f.normal_C, normal_C) < kSameWay) continue;
      if (f.distance >= nearest - kExact && (best == nullptr || f.distance > nearest + kExact ||
                                             dot(f.normal_C, normal_C) <= dot(best->normal_C, normal_C)))
        continue;
      best = &f;
      nearest = f.distance;
    }
    return best;
  }

  // Brings the body to its distance, clear of everything else.
  bool put_right(WallGrip& grip) const {
    std::array<Near, kMostContacts> faces;
    for (int i = 0; i < kMostShifts; ++i) {
      const std::size_t count = near(grip.foot_C, kSlack, faces);
      const Near* wall = held(faces, count, grip.normal_C);
      if (wall == nullptr) return false;
      grip.normal_C = wall->normal_C;
      Vec3 shift = wall->normal_C * (wall->least - wall->distance);
      const Near* worst = nullptr;
      for (std::size_t k = 0; k < count; ++k) {
        const double deep = faces[k].least - faces[k].distance;
        if (deep > kExact && (worst == nullptr || deep > worst->least - worst->distance)) worst = &faces[k];
      }
      if (worst != nullptr && worst != wall) shift = worst->normal_C * (worst->least - worst->distance);
      if (length(shift) <= kExact) return true;
      grip.foot_C += shift;
    }
    return true;
  }

  // From somewhere before the wall to its distance.
  bool come_near(WallGrip& grip) const {
    for (int i = 0; i < kMostShifts; ++i) {
      std::array<Near, kMostContacts> faces;
      const std::size_t count = near(grip.foot_C, kHollow, faces);
      const Near* wall = held(faces, count, grip.normal_C);
      if (wall == nullptr) return false;
      const double off = wall->distance - wall->least;
      if (off <= kSlack) return put_right(grip);
      grip.foot_C -= wall->normal_C * off;
    }
    return false;
  }

  // The direction of a way along a wall.
  Vec3 along(const Vec3& normal_C, const Vec2& way) const {
    const Vec3 right = unit_or(cross(up_, normal_C), Vec3(0.0));
    return right * way.x + cross(normal_C, right) * way.y;
  }

  // One stride; at an inner corner the wall that comes is taken hold of.
  WallAnswer stride(WallGrip grip, const Vec2& way) const {
    std::array<Near, kMostContacts> faces;
    const double size = length(way);
    const std::size_t count = near(grip.foot_C, size + kSlack, faces);
    Vec3 motion = along(grip.normal_C, way);
    for (int turn = 0; turn < 2; ++turn) {
      const Near* blocks = first_in_way(faces, count, grip.normal_C, motion);
      if (blocks == nullptr) break;
      if (blocks->floor) return WallAnswer::refused(WallFault::Floor, blocks->piece);
      if (!blocks->climbable || turn == 1) return WallAnswer::refused(WallFault::NoRoom, blocks->piece);
      grip.normal_C = blocks->normal_C;
      motion = along(grip.normal_C, way);
    }
    const auto hit = world_.sweep(s_.axis(grip.foot_C), s_.radius - s_.margin, motion, s_.moment);
    if (hit) return WallAnswer::refused(WallFault::NoRoom, hit->piece);
    grip.foot_C += motion;
    return now(grip);
  }

  // What the motion would come too near to, besides the wall that is held.
  const Near* first_in_way(const std::array<Near, kMostContacts>& faces, std::size_t count,
                           const Vec3& normal_C, const Vec3& motion) const {
    const Near* first = nullptr;
    double deepest = 0.1 * length(motion);
    for (std::size_t i = 0; i < count; ++i) {
      const Near& f = faces[i];
      if (f.climbable && dot(f.normal_C, normal_C) > std::cos(radians(3.0))) continue;
      const double deep = f.least - (f.distance + dot(motion, f.normal_C));
      if (dot(motion, f.normal_C) >= 0.0 || deep <= deepest) continue;
      first = &f;
      deepest = deep;
    }
    return first;
  }

  // As much of a stride as goes.
  WallAnswer farthest(const WallGrip& grip, const Vec2& way) const {
    WallAnswer whole = stride(grip, way);
    if (whole.grip) return whole;
    const double size = length(way);
    double on = 0.0, off = size;
    std::optional<WallGrip> last;
    while (off - on > kFinest) {
      const double middle = 0.5 * (on + off);
      const WallAnswer some = stride(grip, way * (middle / size));
      if (some.grip) last = some.grip;
      (some.grip ? on : off) = middle;
    }
    whole.grip = last;
    return whole;
  }

  const World& world_;
  const ClimbShape& s_;
  const Vec3 up_;
};

}  // namespace

WallAnswer wall_ahead(const World& world, const ClimbShape& shape, const Vec3& foot_C, const Vec3& towards_C,
                      double reach) {
  return Climber(world, shape).ahead(foot_C, towards_C, reach);
}

WallAnswer wall_now(const World& world, const ClimbShape& shape, const WallGrip& grip) {
  return Climber(world, shape).now(grip);
}

WallAnswer wall_after_turn(const World& world, const ClimbShape& shape, const WallGrip& grip) {
  return Climber(world, shape).after_turn(grip);
}

WallWay follow_wall(const World& world, const ClimbShape& shape, const WallGrip& grip, const Vec2& way) {
  return Climber(world, shape).go(grip, way);
}

}  // namespace lagniappe
