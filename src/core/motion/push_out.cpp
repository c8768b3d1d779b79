// SPDX-License-Identifier: MIT
#include "motion/push_out.h"

#include <array>

namespace lagniappe {
namespace {

struct Deepest {
  double depth = 0.0;
  Vec3 normal_C = Vec3(0.0);
  PieceId piece = kNoPiece;
};

Deepest deepest_overlap(const Body& body, const Vec3& foot_C) {
  std::array<WorldContact, kMostContacts> contacts;
  const Segment axis = body.axis(foot_C);
  const std::size_t count = body.world.contacts(axis, body.radius - body.margin, contacts, body.now);
  Deepest deepest;
  for (std::size_t i = 0; i < count; ++i) {
    const double depth = push_out_depth(contacts[i].closest, axis, body.radius);
    if (depth > deepest.depth) deepest = {depth, contacts[i].closest.normal_C, contacts[i].piece};
  }
  return deepest;
}

}  // namespace

PushedOut push_out(const StepContext& context, const Body& body, const Vec3& foot_C) {
  Deepest deepest = deepest_overlap(body, foot_C);
  if (deepest.depth <= 0.0) return {foot_C, 0.0, false};

  const Deepest first = deepest;
  Vec3 foot = foot_C;
  for (int round = 0; round < kPushOutRounds && deepest.depth > 0.0; ++round) {
    foot += deepest.normal_C * deepest.depth;
    deepest = deepest_overlap(body, foot);
  }
  const bool crushed = deepest.depth > 0.0 || length(foot - foot_C) > context.profile.capsule.longest_push_out;
  context.note(entry::PushOut{first.depth, crushed, first.piece});
  return {crushed ? foot_C : foot, first.depth, crushed};
}

}  // namespace lagniappe
