// SPDX-License-Identifier: MIT
#include "motion/step_aside.h"

#include "motion/contact_kind.h"
#include "motion/holding.h"

namespace lagniappe {
namespace {

constexpr double kHighest = 0.5;    // m of the floor over or below the foot.
constexpr double kFartherBy = 1.0;  // Radii that a floor may begin later.

struct AsideWay {
  Vec3 above_C, over_C, to_C;  // Of the foot.
  PieceId floor;
};

class Searching {
 public:
  Searching(const StepContext& context, const Body& body, const Vec3& foot_C)
      : values_(context.profile), body_(body), foot_(foot_C) {}

  // The way over a height, 0 or as high as one can step.
  std::optional<AsideWay> over(double rise, const Vec3& side_C) const {
    AsideWay way;
    way.above_C = foot_ + body_.up_C * free_way(foot_, body_.up_C * rise);
    way.over_C = way.above_C + side_C;
    if (free_way(way.above_C, side_C) < length(side_C)) return std::nullopt;
    const Vec3 down = body_.up_C * -(kHighest + dot(way.above_C - foot_, body_.up_C));
    const auto floor = body_.sweep(way.over_C, down);
    if (!floor) return std::nullopt;
    way.to_C = way.over_C + down * floor->hit.fraction;
    if (!bears(*floor, way.to_C)) return std::nullopt;
    way.floor = floor->piece;
    return way;
  }

 private:
  // One can stand there, and would not slip off its edge.
  bool bears(const WorldHit& hit, const Vec3& foot_C) const {
    const double aside = length(body_.flat(hit.hit.point_C - foot_C));
    const bool on_edge = hit.hit.feature != Feature::Face && aside > values_.ground.longest_overhang;
    return !on_edge && hit.surface.ground && walkable(values_, hit.surface, hit.face_normal_C, body_.up_C);
  }
  double free_way(const Vec3& from_C, const Vec3& motion_C) const {
    const auto hit = body_.world.sweep(body_.axis(from_C), body_.radius - body_.margin, motion_C, body_.now);
    return length(motion_C) * (hit ? hit->hit.fraction : 1.0);
  }

  const Values& values_;
  const Body& body_;
  Vec3 foot_;
};

std::optional<AsideWay> find_way(const StepContext& context, const Body& body, const Vec3& side_C,
                                 const Vec3& foot_C) {
  const Searching searching(context, body, foot_C);
  const Vec3 farther = side_C + unit_or(side_C, Vec3(0.0)) * (kFartherBy * body.radius);
  for (const double rise : {0.0, kHighest}) {
    for (const Vec3& side : {side_C, farther}) {
      if (const auto way = searching.over(rise, side)) return way;
    }
  }
  return std::nullopt;
}

}  // namespace

bool begin_step_aside(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& side_C,
                      CharacterState& state) {
  const auto found = find_way(context, body, side_C, foot_C);
  if (!found) return false;
  Hold& hold = state.hold;
  hold = Hold{};
  hold.kind = Hold::Kind::Mantle;
  hold.piece = found->floor;
  const RigidPose frame = hold_frame(context, hold.piece);
  hold.at_P = frame.back(foot_C);
  const auto in_piece = [&](const Vec3& p_C) { return glm::vec3(frame.back(p_C) - hold.at_P); };
  MantleWay way;
  way.above_P = in_piece(found->above_C);
  way.over_P = in_piece(found->over_C);
  way.to_P = way.rim_P = in_piece(found->to_C);
  way.first_height = way.least_height = static_cast<float>(state.capsule_height);
  hold.set(way);
  const double size = length(found->above_C - foot_C) + length(found->over_C - found->above_C) +
                      length(found->to_C - found->over_C);
  const Profile::Mantle& pace = context.profile.mantle;
  hold.seconds = static_cast<float>(std::max(pace.time_per_metre * size, pace.least_time));
  context.note(entry::LetGo{entry::LetGo::Why::Aside, 0.0, 0.0, hold.piece});
  return true;
}

}  // namespace lagniappe
