// SPDX-License-Identifier: MIT
#include "ledges/follow_ladder.h"

#include <algorithm>

#include "geometry/tolerances.h"

namespace lagniappe {
namespace {

constexpr double kClear = 0.001;    // m to what is in the way.
constexpr double kBeyondEnd = 0.3;  // m past an end, from where it is still taken hold of.
constexpr double kMostAside = 0.5;  // Sine of the angle by which it leans to a side at most.

// A ladder seen by a body: its upper end is up.
class OnLadder {
 public:
  OnLadder(const ClimbShape& shape, const Ladder& ladder, PieceId piece, const Vec3& out_C)
      : s_(shape), piece_(piece), along_(ladder.along_C), out_(out_C), height_(ladder.height) {
    base_ = ladder.base_C;
    spacing_ = ladder.spacing;
    const double last = spacing_ * std::floor((height_ - ladder.first) / spacing_ + 1e-9);
    first_ = ladder.first;
    if (dot(along_, s_.up_C) < 0.0) {
      base_ += along_ * height_;
      along_ = -along_;
      first_ = height_ - ladder.first - last;
    }
    // An upright body is nearest to a leaning ladder with one of its ends.
    const double tilt = dot(out_, s_.up_C);
    const double nearest = tilt >= 0.0 ? s_.radius : std::max(s_.height, 2.0 * s_.radius) - s_.radius;
    off_ = 0.5 * ladder.depth + s_.reach() + tilt * (s_.hands - nearest);
    front_ = 0.5 * ladder.depth;
  }

  double lowest() const { return std::min(std::max(first_, 0.0), height_); }
  double highest() const { return height_; }

  // m along the ladder of the hands.
  double of(const Vec3& foot_C) const { return dot(foot_C + s_.up_C * s_.hands - base_, along_); }

  Vec3 foot(double at) const { return base_ + along_ * at + out_ * off_ - s_.up_C * s_.hands; }

  // Of a foot at the same height. REQUIRES: it does not lean too far.
  double level_with(const Vec3& foot_C) const {
    const Vec3& up = s_.up_C;
    return (dot(foot_C - base_, up) + s_.hands - off_ * dot(out_, up)) / dot(along_, up);
  }

  WallAnswer grip(double at) const {
    WallAnswer answer;
    answer.grip = WallGrip{};
    answer.grip->foot_C = foot(at);
    answer.grip->normal_C = out_;
    answer.grip->hands_C = base_ + along_ * at + out_ * front_;
    answer.grip->piece = piece_;
    answer.grip->spacing = spacing_;
    answer.grip->over_rung = at - first_;
    return answer;
  }

  // Whether it can be climbed as it leans.
  WallAnswer judged() const {
    const double back = std::asin(std::clamp(dot(out_, s_.up_C), -1.0, 1.0));
    if (back > s_.most_back) return WallAnswer::refused(WallFault::LeansBack, piece_, back, s_.most_back);
    if (-back > s_.most_over) return WallAnswer::refused(WallFault::LeansOver, piece_, -back, s_.most_over);
    const double aside = std::abs(dot(unit_or(cross(along_, out_), Vec3(0.0)), s_.up_C));
    if (aside > kMostAside)
      return WallAnswer::refused(WallFault::LeansOver, piece_, std::asin(std::min(aside, 1.0)),
                                 std::asin(kMostAside));
    return {};
  }

 private:
  const ClimbShape& s_;
  PieceId piece_;
  Vec3 base_, along_, out_;
  double height_, spacing_, first_, off_, front_;
};

// Unit: the side that a grip is on.
Vec3 side_of(const Ladder& ladder, const WallGrip& grip) {
  return dot(grip.normal_C, ladder.front_C) < 0.0 ? -ladder.front_C : ladder.front_C;
}

}  // namespace

WallAnswer grip_ladder(const ClimbShape& shape, const Ladder& ladder, PieceId piece, const Vec3& foot_C,
                       const Vec3& out_C) {
  const OnLadder on(shape, ladder, piece, out_C);
  if (const WallAnswer leans = on.judged(); leans.fault != WallFault::None) return leans;
  const double at = on.level_with(foot_C);
  if (at > on.highest() + kBeyondEnd || at < on.lowest() - kBeyondEnd)
    return WallAnswer::refused(WallFault::NothingThere);
  return on.grip(std::clamp(at, on.lowest(), on.highest()));
}

WallAnswer ladder_now(const ClimbShape& shape, const Ladder& ladder, const WallGrip& grip) {
  const OnLadder on(shape, ladder, grip.piece, side_of(ladder, grip));
  if (const WallAnswer leans = on.judged(); leans.fault != WallFault::None) return leans;
  return on.grip(std::clamp(on.of(grip.foot_C), on.lowest(), on.highest()));
}

WallWay follow_ladder(const World& world, const ClimbShape& shape, const Ladder& ladder, const WallGrip& grip,
                      double up) {
  const OnLadder on(shape, ladder, grip.piece, side_of(ladder, grip));
  WallWay way;
  const double from = on.of(grip.foot_C);
  double to = std::clamp(from + up, on.lowest(), on.highest());
  if (std::abs(to - from) < std::abs(up) - kTouch) {
    way.stop = WallFault::NothingThere;
    way.piece = grip.piece;
  }
  const Vec3 motion = on.foot(to) - grip.foot_C;
  const double size = length(motion);
  const auto hit =
      size > 0.0 ? world.sweep(shape.axis(grip.foot_C), shape.radius, motion, shape.moment) : std::nullopt;
  if (hit) {
    const double free = std::max(hit->hit.fraction * size - kClear, 0.0);
    to = from + (to - from) * (free / size);
    way.stop = shape.is_floor(hit->face_normal_C, hit->hit.normal_C) ? WallFault::Floor : WallFault::NoRoom;
    way.piece = hit->piece;
  }
  way.grip = *on.grip(to).grip;
  way.gone = length(way.grip.foot_C - grip.foot_C);
  return way;
}

Vec3 corner_before_grip(const WallGrip& grip, const Vec3& foot_C, const Vec3& up_C) {
  const Vec3 out = unit_or(across(grip.normal_C, up_C), Vec3(0.0));
  return foot_C + out * std::max(dot(grip.foot_C - foot_C, out), 0.0);
}

}  // namespace lagniappe
