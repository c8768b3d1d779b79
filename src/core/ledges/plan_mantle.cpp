// SPDX-License-Identifier: MIT
#include "ledges/plan_mantle.h"

#include <algorithm>

namespace lagniappe {
namespace {

constexpr double kClear = 2e-3;          // m between the foot and the rim that it goes over.
constexpr double kSameWay = 1.0 - 1e-9;  // Cosine.
constexpr double kPastBack = 0.05;       // m behind the back of an obstacle.

class Planner {
 public:
  Planner(const World& world, const MantleQuery& query) : world_(world), q_(query), up_(query.ledge.up_C) {}

  MantleAnswer plan() {
    answer_.ledge = find_ledge(world_, q_.ledge);
    if (!answer_.ledge.ledge) return refuse(MantleFault::NoLedge, 0.0, 0.0);
    const Ledge& ledge = *answer_.ledge.ledge;
    return ledge.depth < q_.longest_vault ? over(ledge) : onto(ledge);
  }

 private:
  MantleAnswer refuse(MantleFault fault, double found, double allowed, PieceId piece = kNoPiece) {
    answer_.plan.reset();
    answer_.fault = fault;
    answer_.found = found;
    answer_.allowed = allowed;
    answer_.piece = piece;
    return answer_;
  }

  Segment axis(const Vec3& foot_C, double height) const {
    return {foot_C + up_ * radius(), foot_C + up_ * std::max(height - radius(), radius())};
  }
  double radius() const { return q_.ledge.radius; }
  double slim() const { return radius() - 0.5 * q_.margin; }
  // Along walls that are touched: by a body that is slimmer than itself by what nobody counts as an overlap.
  std::optional<WorldHit> sweep(const Vec3& foot_C, double height, const Vec3& way_C) const {
    if (way_C == Vec3(0.0)) return std::nullopt;
    return world_.sweep(axis(foot_C, height), slim(), way_C, q_.ledge.moment);
  }
  bool fits(const Vec3& foot_C, double height) const {
    std::array<WorldContact, 1> touched;
    return world_.contacts(axis(foot_C, height), slim(), touched, q_.ledge.moment) == 0;
  }

  MantleAnswer onto(const Ledge& ledge) {
    if (!ledge.standing && !ledge.crouched)
      return refuse(MantleFault::NoRoom, ledge.headroom, q_.ledge.crouched, ledge.shelf_piece);
    // On a narrow shelf the foot stands in its middle. On a slope the foot's round is higher than the face
    // below it, and a shelf that rises from its rim is gone over as high as where one will stand.
    const double behind = std::min(radius() + kClear, 0.5 * ledge.depth);
    const double upright = std::max(dot(ledge.shelf_normal_C, up_), 0.1);
    const double climbs = std::max(-dot(ledge.shelf_normal_C, q_.ledge.towards_C) / upright, 0.0) * behind;
    const double lift = climbs + radius() / upright - radius();
    return way(ledge, MantlePlan::Kind::Mantle, ledge.distance + radius() + behind, !ledge.standing, lift);
  }

  MantleAnswer over(const Ledge& ledge) {
    const double in = ledge.distance + 2.0 * radius() + ledge.depth + kPastBack;
    const MantleAnswer vault = way(ledge, MantlePlan::Kind::Vault, in, false, 0.0);
    if (vault.plan || ledge.depth < radius() || (!ledge.standing && !ledge.crouched)) return vault;
    return onto(ledge);  // What cannot be gone over can be stood on.
  }

  MantleAnswer way(const Ledge& ledge, MantlePlan::Kind kind, double in, bool crouched, double lift) {
    const Vec3& ahead = q_.ledge.towards_C;
    const Vec3 from = q_.ledge.foot_C;
    const double body = std::min(q_.body_height, q_.ledge.crouched), over_rim = ledge.height + lift + kClear;
    const bool fenced = q_.fence_height + kClear > over_rim;
    const double rise = fenced ? q_.fence_height + kClear : over_rim;
    if (fenced) in = std::max(in, q_.fence_back + radius() + kPastBack);
    // A wall that leans over has its rim over the body.
    const double back = std::max(-ledge.distance, 0.0), across = in + back;
    if (const auto hit = sweep(from, q_.body_height, -ahead * back))
      return refuse(MantleFault::OnTheWay, hit->hit.fraction * back, back, hit->piece);
    const Vec3 beside = from - ahead * back;
    if (const auto roof = sweep(beside, body, up_ * rise))
      return refuse(MantleFault::Overhead, roof->hit.fraction * rise, rise, roof->piece);
    const Vec3 above = beside + up_ * rise;
    if (const auto hit = sweep(above, body, ahead * across))
      return refuse(MantleFault::OnTheWay, hit->hit.fraction * across, across, hit->piece);
    const Vec3 beyond = above + ahead * across;
    const double deep = kind == MantlePlan::Kind::Vault ? rise + q_.deepest_landing : lift + rise;
    const auto to = landing(beyond, body, deep);
    if (!to) return answer_;
    const bool low = crouched || !fits(*to, q_.ledge.standing);
    answer_.fault = MantleFault::None;
    answer_.plan = MantlePlan{kind, from, above, beyond, *to, body, low, ledge};
    return answer_;
  }

  // Down to ground that can be stood on.
  std::optional<Vec3> landing(const Vec3& from, double body, double deep) {
    const auto ground = world_.sweep(axis(from, body), radius(), -up_ * deep, q_.ledge.moment);
    if (!ground || !can_be_stood_on(ground->surface, ground->face_normal_C)) {
      refuse(MantleFault::NoLanding, ground ? ground->hit.fraction * deep : deep, deep,
             ground ? ground->piece : kNoPiece);
      return std::nullopt;
    }
    const Vec3 to = from - up_ * (ground->hit.fraction * deep);
    const double beyond = length(across(ground->hit.point_C - to, up_));
    const bool on_edge = ground->hit.feature != Feature::Face && beyond > q_.longest_overhang;
    if (on_edge && !is_over_step(to, dot(ground->hit.point_C - to, up_))) {
      refuse(MantleFault::SlipsOff, beyond, q_.longest_overhang, ground->piece);
      return std::nullopt;
    }
    if (fits(to, body)) return to;
    refuse(MantleFault::NoRoom, 0.0, body, ground->piece);
    return std::nullopt;
  }

  bool can_be_stood_on(const Surface& surface, const Vec3& normal_C) const {
    constexpr double kRounding = 1e-9;
    const double upright = dot(normal_C, up_);
    if (!surface.ground || surface.walk == Surface::Walk::Never || upright <= 0.0) return false;
    if (surface.walk == Surface::Walk::Always) return true;
    const double slope = length(across(normal_C, up_)) / upright;
    return slope <= std::tan(q_.ledge.steepest_shelf) * surface.friction + kRounding;
  }

  // Whether there is ground a step below what the foot touches with its side.
  bool is_over_step(const Vec3& foot_C, double touched_at) const {
    const double way = radius() + q_.highest_step - touched_at;
    const auto hit = world_.cast_ray(foot_C + up_ * radius(), -up_ * way, q_.ledge.moment);
    return hit && can_be_stood_on(hit->surface, hit->hit.normal_C);
  }

  const World& world_;
  const MantleQuery& q_;
  const Vec3 up_;
  MantleAnswer answer_;
};

}  // namespace

MantleAnswer plan_mantle(const World& world, const MantleQuery& query) {
  const MantleAnswer pushed = Planner(world, query).plan();
  if (!pushed.ledge.ledge) return pushed;
  MantleQuery straight = query;
  straight.ledge.towards_C =
      unit_or(-across(pushed.ledge.ledge->wall_normal_C, query.ledge.up_C), query.ledge.towards_C);
  if (dot(straight.ledge.towards_C, query.ledge.towards_C) > kSameWay) return pushed;
  const MantleAnswer turned = Planner(world, straight).plan();
  return turned.plan || !pushed.plan ? turned : pushed;
}

}  // namespace lagniappe
