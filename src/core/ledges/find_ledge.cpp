// SPDX-License-Identifier: MIT
#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "lagniappe/ledge.h"
#include "world/neighbourhood.h"

namespace lagniappe {
namespace {

constexpr double kHand = 0.04;    // m, radius of the ball that stands for hands.
constexpr double kTip = 0.01;     // m, of what feels for faces just under a rim.
constexpr double kInside = 0.01;  // m behind the face of a wall: on top of the thinnest, of 2 cm.
constexpr double kClear = 1e-3;   // m that is left free between a probe and what it stands on.
constexpr double kFarther = 1.0;  // m beyond reach and height that are looked at, so that a number can be told.
constexpr double kBetweenRays = 0.06;        // m: half of the narrowest slit that is looked into.
constexpr double kWallFrom = radians(60.0);  // A shelf steeper than this is wall.
constexpr double kInPlane = 0.03;            // m by which a shelf may leave its plane and go on.
constexpr double kNearRim = 0.15;            // m between a rim and where its shelf was met.
constexpr double kLeastFacing = 0.3;         // Cosine between the way ahead and the normal of a wall.
constexpr int kMostFeelers = 6;              // Below a shelf, for its wall.
constexpr int kMostShelves = 8;              // Of one wall, one above the other.

// The place as the one who reaches sees it: heights over the foot, ways towards the wall.
class Reaching {
 public:
  Reaching(const World& world, const LedgeQuery& query)
      : world_(&world), q_(query), side_C_(cross(query.towards_C, query.up_C)) {}

  // From now on what is within reach is asked for as it was gathered here, once.
  void gather() {
    const double far = q_.radius + q_.reach + q_.longest_shelf + q_.radius,
                 top = q_.highest + q_.standing + kFarther;
    Box region{at(-kFarther, 0.0), at(-kFarther, 0.0)};
    for (const double height : {-kFarther, top}) {
      for (const double ahead : {-2.0 * q_.radius, far}) {
        for (const double side : {-2.0 * q_.radius, 2.0 * q_.radius}) {
          const Vec3 corner = at(height, ahead) + side_C_ * side;
          region.low_C = glm::min(region.low_C, corner);
          region.high_C = glm::max(region.high_C, corner);
        }
      }
    }
    near_.emplace(*world_, region, q_.moment.time);
    world_ = &*near_;
  }

  Vec3 at(double height, double ahead) const { return q_.foot_C + q_.up_C * height + q_.towards_C * ahead; }
  double height_of(const Vec3& p_C) const { return dot(p_C - q_.foot_C, q_.up_C); }
  double ahead_of(const Vec3& p_C) const { return dot(p_C - q_.foot_C, q_.towards_C); }
  const Vec3& side_C() const { return side_C_; }

  // Hands reach out along a wall that leans back: from there up each starts as much nearer to it.
  void lean_with(double tangent, double from_height) {
    tangent_ = tangent;
    from_height_ = from_height;
  }
  double leant(double height) const { return tangent_ * std::max(height - from_height_, 0.0); }

  // What hands between two heights meet first, reaching out so far.
  std::optional<WorldHit> reach(double low, double high, double far) const {
    return world_->sweep({at(low, leant(low)), at(high, leant(high))}, kHand, q_.towards_C * far, q_.moment);
  }
  bool open(double low, double high, double far) const { return !reach(low, high, far); }
  // What the middle of a hand meets.
  std::optional<WorldRayHit> feel(double height, double far) const {
    return ray(at(height, leant(height)), q_.towards_C * far);
  }
  std::optional<WorldHit> sweep(const Vec3& from_C, double radius, const Vec3& way_C) const {
    return world_->sweep({from_C, from_C}, radius, way_C, q_.moment);
  }
  std::optional<WorldRayHit> ray(const Vec3& from_C, const Vec3& way_C) const {
    return world_->cast_ray(from_C, way_C, q_.moment);
  }
  bool is_free(const Segment& axis, double radius) const {
    std::array<WorldContact, 1> touched;
    return world_->contacts(axis, radius, touched, q_.moment) == 0;
  }

 private:
  const World* world_;
  std::optional<Neighbourhood> near_;
  const LedgeQuery& q_;
  Vec3 side_C_;
  double tangent_ = 0.0, from_height_ = 0.0;
};

double steepness(const Vec3& normal_C, const Vec3& up_C) {
  return std::acos(std::clamp(dot(normal_C, up_C), -1.0, 1.0));
}

class Finder {
 public:
  Finder(const World& world, const LedgeQuery& query) : q_(query), to_(world, query) {}

  LedgeAnswer find() {
    double top = free_height(q_.highest + kHand + kClear);
    double low = q_.lowest;
    for (int i = 0; i < kMostShelves && low + 2.0 * kHand < top; ++i) {
      to_.lean_with(0.0, 0.0);
      const auto wall = to_.reach(low, top, q_.radius + q_.reach - kHand);
      if (!wall) break;
      if (!met_) to_.gather();
      met_ = true;
      const double in = straight_through(*wall);
      const double met_at = to_.height_of(wall->hit.point_C);
      to_.lean_with(back_lean(*wall), met_at);
      const auto from = way_in(lowest_there(low, met_at, top, in), top, in);
      if (!from) return too_high(*wall, top, in);
      const Vec3 over = to_.at(*from, in + to_.leant(*from));
      const double bottom = std::max(low - kHand, 0.0);
      const auto shelf = shelf_under(over, to_.at(bottom, in + to_.leant(bottom)) - over);
      if (!shelf) {
        low = std::max(*from, low + kHand);  // What was met lies above, or was passed: a bar.
        if (*from >= top) break;
        continue;
      }
      const double height = to_.height_of(shelf->met.hit.point_C);
      if (!is_wall(shelf->met.face_normal_C) && consider(*wall, straight_under(*shelf, in))) return answer_;
      low = std::max(height + kHand, low + kHand);
    }
    return finish();
  }

 private:
  Vec3 upwards(const Vec3& n_C) const { return dot(n_C, q_.up_C) < 0.0 ? -n_C : n_C; }

  // How far ahead one is just behind the wall. A hand meets a wall that it comes at askew with its side, before
  // its middle is there.
  double straight_through(const WorldHit& wall) const {
    const Vec3 &p = wall.hit.point_C, &n = wall.face_normal_C;
    const double met = to_.ahead_of(p), into = dot(q_.towards_C, n);
    if (std::abs(into) < kLeastFacing) return met + kInside;
    const double crossed = dot(p - to_.at(to_.height_of(p), 0.0), n) / into;
    return std::clamp(crossed, met, met + kHand) + kInside;
  }

  // What a hand comes down on: what lies straight under it, where it comes there freely.
  struct Under {
    WorldHit met;
    bool straight;
  };
  std::optional<Under> shelf_under(const Vec3& over_C, const Vec3& way_C) const {
    if (const auto straight = to_.ray(over_C, way_C)) {
      const Vec3 lies = straight->hit.point_C + q_.up_C * (kHand + kClear);
      if (dot(lies - over_C, way_C) >= 0.0 && to_.is_free({over_C, lies}, kHand))
        return Under{met_by(*straight, {}), true};
    }
    const auto met = to_.sweep(over_C, kHand, way_C);
    return met ? std::optional(Under{*met, false}) : std::nullopt;
  }

  // What a ball met is where hands lie; the plane straight ahead may cut another of the faces that meet there.
  WorldHit straight_under(const Under& under, double in) const {
    const WorldHit& met = under.met;
    if (under.straight) return met;
    const double height = to_.height_of(met.hit.point_C) + kHand;
    return straight_on(to_.ray(to_.at(height, in + to_.leant(height)), -q_.up_C * (2.0 * kHand)), false, met);
  }
  WorldHit straight_on(const std::optional<WorldRayHit>& ray, bool wall, const WorldHit& met) const {
    if (!ray || length(ray->hit.point_C - met.hit.point_C) > 2.0 * kHand) return met;
    return wall == is_wall(ray->hit.normal_C) ? met_by(*ray, met) : met;
  }
  static WorldHit met_by(const WorldRayHit& ray, WorldHit met) {
    met.hit.point_C = ray.hit.point_C;
    met.face_normal_C = ray.hit.normal_C;
    met.triangle = ray.triangle;
    met.piece = ray.piece;
    met.surface = ray.surface;
    return met;
  }
  bool is_wall(const Vec3& normal_C) const { return steepness(upwards(normal_C), q_.up_C) >= kWallFrom; }
  // As far ahead, within the width of a hand.
  bool is_beside(const WorldRayHit& ray, const WorldHit& met) const {
    return std::abs(to_.ahead_of(ray.hit.point_C) - to_.ahead_of(met.hit.point_C)) <= kHand;
  }

  // The tangent by which a wall leans away from the body.
  double back_lean(const WorldHit& wall) const {
    const Vec3 normal = dot(wall.face_normal_C, q_.towards_C) > 0.0 ? -wall.face_normal_C : wall.face_normal_C;
    const double up = dot(normal, q_.up_C), out = -dot(normal, q_.towards_C);
    return up <= 0.0 || steepness(normal, q_.up_C) < kWallFrom || out <= 0.0 ? 0.0 : up / out;
  }

  // From where up the wall is. What is upright is met anywhere on it, perhaps high above its lowest niche.
  double lowest_there(double low, double met_at, double top, double in) const {
    const double there = std::max(low, met_at - kHand);
    return there > low && to_.leant(top) < kClear && to_.feel(low, in) ? low : there;
  }

  // How far hands can be raised before the body.
  double free_height(double wanted) const {
    const double from = std::min(q_.lowest, wanted);
    const auto roof = to_.sweep(to_.at(from, 0.0), kHand, q_.up_C * (wanted - from));
    return roof ? from + roof->hit.fraction * (wanted - from) - kClear : wanted;
  }

  // A height at which hands reach so far in, with the lowest shelf below it: the top, where that is open; under
  // a roof the lowest that is.
  std::optional<double> way_in(double low, double top, double in) const {
    if (to_.open(top, top, in)) return top;
    const int last = static_cast<int>(std::floor((top - low) / kBetweenRays));
    for (int k = 0; k <= last; ++k) {
      const Felt here = felt(low, in, k);
      // A hand reaches out along a wall that leans back from between the first ray and the second on.
      if (here.face && k == 0) continue;
      if (here.face) {
        const auto open = k < last ? first_open(low, in, here, felt(low, in, last)) : std::nullopt;
        if (!open) return std::nullopt;
        k = *open;
      }
      const double h = low + k * kBetweenRays;
      for (double at = std::max(h - kBetweenRays, low); at <= std::min(h + kBetweenRays, top); at += kHand)
        if (to_.open(at, at, in)) return at;
    }
    return std::nullopt;
  }

  // A ray of that search and the face that it meets; none where it goes through.
  using Face = std::optional<std::pair<PieceId, std::uint32_t>>;
  struct Felt {
    int ray;
    Face face;
  };
  static Face face_of(const std::optional<WorldRayHit>& hit) {
    return hit ? Face({hit->piece, hit->triangle}) : std::nullopt;
  }
  Felt felt(double low, double in, int ray) const {
    return {ray, face_of(to_.feel(low + ray * kBetweenRays, in))};
  }
  // The first ray after `a`, which meets a face, up to `b` that goes through. Where two meet the same face all
  // between them meet it, or something before it: a triangle has no holes.
  std::optional<int> first_open(double low, double in, const Felt& a, const Felt& b) const {
    if (a.face == b.face) return std::nullopt;
    if (b.ray - a.ray <= 1) return b.face ? std::nullopt : std::optional(b.ray);
    const Felt middle = felt(low, in, (a.ray + b.ray) / 2);
    if (const auto open = first_open(low, in, a, middle)) return open;
    return first_open(low, in, middle, b);
  }

  // Where the rim is that is too high.
  LedgeAnswer too_high(const WorldHit& wall, double top, double in) {
    const double higher = free_height(q_.highest + kFarther);
    double found = std::numeric_limits<double>::infinity();
    if (higher > top && to_.open(higher, higher, in)) {
      const auto shelf =
          to_.sweep(to_.at(higher, in + to_.leant(higher)), kHand, -q_.up_C * (higher - q_.lowest));
      if (shelf) found = to_.height_of(shelf->hit.point_C);
    }
    if (answer_.fault == LedgeFault::None)
      fail(LedgeFault::TooHigh, found, q_.highest, wall.hit.point_C, wall.piece);
    return answer_;
  }

  void fail(LedgeFault fault, double found, double allowed, const Vec3& at_C, PieceId piece) {
    answer_ = {std::nullopt, fault, found, allowed, at_C, piece};
  }

  bool consider(const WorldHit& wall, const WorldHit& shelf) {
    Ledge ledge{};
    ledge.shelf_normal_C = upwards(shelf.face_normal_C);
    ledge.slope = steepness(ledge.shelf_normal_C, q_.up_C);
    ledge.shelf_piece = shelf.piece;
    ledge.shelf_face = shelf.triangle;
    ledge.shelf_surface = shelf.surface;
    find_rim(ledge, wall, shelf);
    ledge.height = to_.height_of(ledge.rim_C);
    ledge.distance = to_.ahead_of(ledge.rim_C) - q_.radius;
    if (ledge.height < q_.lowest) return false;
    // A shelf that a hand brushes beside the way straight ahead has no rim there.
    if (length(ledge.rim_C - shelf.hit.point_C) > kNearRim) return false;
    const auto refuse = [&](LedgeFault fault, double found, double allowed) {
      fail(fault, found, allowed, ledge.rim_C, ledge.shelf_piece);
      return false;
    };
    if (ledge.height > q_.highest) return refuse(LedgeFault::TooHigh, ledge.height, q_.highest);
    if (ledge.distance > q_.reach) return refuse(LedgeFault::OutOfReach, ledge.distance, q_.reach);
    if (ledge.slope > q_.steepest_shelf)
      return refuse(LedgeFault::ShelfTooSteep, ledge.slope, q_.steepest_shelf);
    if (ledge.over > q_.most_over) return refuse(LedgeFault::LeansOver, ledge.over, q_.most_over);
    const bool free = hands_free(ledge, 0.0, q_.longest_shelf);
    ledge.depth = depth_of(ledge, shelf, free);
    if (ledge.depth < q_.shortest_shelf)
      return refuse(LedgeFault::ShelfTooShort, ledge.depth, q_.shortest_shelf);
    if (!free && !hands_free(ledge, kInside, kInside))
      return refuse(LedgeFault::NoRoomForHands, 0.0, 2.0 * kHand);
    find_room(ledge);
    answer_ = {};
    answer_.ledge = ledge;
    return true;
  }

  // Into the shelf, along it.
  static Vec3 into(const Ledge& ledge) { return cross(ledge.shelf_normal_C, ledge.along_C); }

  // Just under the shelf, where the wall's face may be another than the one met first; a shelf that rises from
  // its rim is met higher than that.
  WorldHit wall_under(const WorldHit& shelf, const WorldHit& met) const {
    const double ahead = to_.ahead_of(shelf.hit.point_C) + kHand;
    for (int i = 1; i <= kMostFeelers; ++i) {
      const Vec3 from = to_.at(to_.height_of(shelf.hit.point_C) - 2.0 * kTip * i, 0.0);
      const auto straight = to_.ray(from, q_.towards_C * ahead);
      if (straight && is_wall(straight->hit.normal_C) && is_beside(*straight, met))
        return met_by(*straight, met);
      const auto under = to_.sweep(from, kTip, q_.towards_C * ahead);
      if (!under) break;
      const WorldHit wall = straight_on(straight, true, *under);
      if (is_wall(wall.face_normal_C)) return wall;
    }
    return met;
  }

  void find_rim(Ledge& ledge, const WorldHit& met, const WorldHit& shelf) {
    const WorldHit wall = wall_under(shelf, met);
    Vec3 normal = wall.face_normal_C;
    if (dot(normal, q_.towards_C) > 0.0) normal = -normal;
    ledge.wall_normal_C = normal;
    ledge.wall_piece = wall.piece;
    ledge.wall_face = wall.triangle;
    ledge.wall_surface = wall.surface;
    ledge.over = steepness(normal, q_.up_C) - 0.5 * kPi;
    ledge.along_C = unit_or(cross(normal, ledge.shelf_normal_C), to_.side_C());
    if (dot(ledge.along_C, to_.side_C()) < 0.0) ledge.along_C = -ledge.along_C;
    // Where the planes of shelf and wall and the plane straight ahead meet (Cramer's rule).
    const Vec3 &s = ledge.shelf_normal_C, &w = normal, &p = to_.side_C();
    const double det = dot(s, cross(w, p));
    if (std::abs(det) < 1e-3) {
      ledge.rim_C = wall.hit.point_C;
      return;
    }
    ledge.rim_C = (cross(w, p) * dot(s, shelf.hit.point_C) + cross(p, s) * dot(w, wall.hit.point_C) +
                   cross(s, w) * dot(p, q_.foot_C)) /
                  det;
  }

  // Where a hand lies, so far in from the rim.
  Vec3 hand_at(const Ledge& ledge, double in) const {
    return ledge.rim_C + ledge.shelf_normal_C * (kHand + kClear) + into(ledge) * in;
  }
  bool hands_free(const Ledge& ledge, double from, double to) const {
    return to_.is_free({hand_at(ledge, from), hand_at(ledge, to)}, kHand);
  }

  // How far the shelf goes on from the rim, as a plane, free to lay hands on; `free`: nothing stands on it.
  double depth_of(const Ledge& ledge, const WorldHit& shelf, bool free) const {
    double depth = q_.longest_shelf;
    if (!free) {
      const auto wall = to_.sweep(hand_at(ledge, 0.0), kHand, into(ledge) * depth);
      if (wall) depth = wall->hit.fraction * depth + kHand;
    }
    const double last = depth - kClear, first = std::min(kInside, last);
    const Face begins = first == kInside && is_first(ledge, shelf) ? Face({shelf.piece, shelf.triangle})
                                                                   : face_at(ledge, first);
    if (!begins) return end_between(ledge, 0.0, first);
    const auto gap = first_gap(ledge, {first, begins}, {last, face_at(ledge, last)});
    return gap ? end_between(ledge, gap->on, gap->off) : depth;
  }

  // Whether the shelf was met where its depth begins to be felt for.
  bool is_first(const Ledge& ledge, const WorldHit& shelf) const {
    return length(shelf.hit.point_C - ledge.rim_C - into(ledge) * kInside) <= kClear;
  }

  // The face of the shelf so far in; nothing where it has none.
  Face face_at(const Ledge& ledge, double x) const {
    const Vec3 from = ledge.rim_C + into(ledge) * x + ledge.shelf_normal_C * kInPlane;
    return face_of(to_.ray(from, -ledge.shelf_normal_C * (2.0 * kInPlane)));
  }

  struct Place {
    double x;
    Face face;
  };
  struct Gap {
    double on, off;
  };
  // Where the shelf first ends between two places. Between two on one face it does not: a triangle has no
  // holes.
  std::optional<Gap> first_gap(const Ledge& ledge, const Place& a, const Place& b) const {
    if (a.face == b.face) return std::nullopt;
    const double step = std::max(0.5 * q_.shortest_shelf, kHand);
    if (b.x - a.x <= step) return b.face ? std::nullopt : std::optional(Gap{a.x, b.x});
    const double x = 0.5 * (a.x + b.x);
    const Place middle{x, face_at(ledge, x)};
    if (const auto gap = first_gap(ledge, a, middle)) return gap;
    return middle.face ? first_gap(ledge, middle, b) : std::optional(Gap{a.x, x});
  }

  double end_between(const Ledge& ledge, double on, double off) const {
    while (off - on > kClear) {
      const double middle = 0.5 * (on + off);
      (face_at(ledge, middle) ? on : off) = middle;
    }
    return 0.5 * (on + off);
  }

  // Room for bodies on the shelf, and what is below in front of the wall.
  void find_room(Ledge& ledge) const {
    const Vec3 foot = ledge.rim_C + into(ledge) * std::min(q_.radius + kClear, ledge.depth);
    // A round foot on a slope stands higher than its point.
    const double lift = q_.radius / std::max(dot(ledge.shelf_normal_C, q_.up_C), 0.1);
    const Vec3 low = foot + q_.up_C * (lift + kClear);
    const double core = q_.radius - 2.0 * kClear;
    const double most = std::max(q_.standing - 2.0 * q_.radius, 0.0);
    if (to_.is_free({low, low + q_.up_C * most}, core)) {
      ledge.headroom = 2.0 * q_.radius + most;
    } else if (to_.is_free({low, low}, core)) {
      const auto roof = to_.sweep(low, core, q_.up_C * most);
      ledge.headroom = 2.0 * q_.radius + (roof ? roof->hit.fraction * most : most);
    }
    ledge.crouched = q_.crouched > 0.0 && ledge.headroom >= q_.crouched - kClear;
    ledge.standing = q_.standing > 0.0 && ledge.headroom >= q_.standing - kClear;
    const Vec3 before = ledge.rim_C - q_.towards_C * q_.radius;
    ledge.drop = Ledge::kDeepestDrop;
    // Near first: that is gathered.
    for (const double deep : {std::max(ledge.height, 0.0) + 0.5 * kFarther, Ledge::kDeepestDrop}) {
      const auto ground = to_.ray(before, -q_.up_C * deep);
      if (!ground) continue;
      ledge.drop = ground->hit.fraction * deep;
      break;
    }
  }

  // Nothing fitted: what kept the last, or how far the next wall is.
  LedgeAnswer finish() {
    if (answer_.fault != LedgeFault::None) return answer_;
    if (!met_) {
      const double top = free_height(q_.highest + kHand);
      const auto wall = to_.reach(q_.lowest, std::max(top, q_.lowest), q_.radius + q_.reach + kFarther);
      if (wall)
        fail(LedgeFault::OutOfReach, to_.ahead_of(wall->hit.point_C) - q_.radius, q_.reach, wall->hit.point_C,
             wall->piece);
    }
    if (answer_.fault == LedgeFault::None) answer_.fault = LedgeFault::NothingThere;
    return answer_;
  }

  const LedgeQuery& q_;
  Reaching to_;
  LedgeAnswer answer_;
  bool met_ = false;
};

}  // namespace

std::string_view name_of(LedgeFault fault) {
  constexpr std::array<std::string_view, 8> kNames = {"none",
                                                      "nothing there",
                                                      "out of reach",
                                                      "too high",
                                                      "shelf too short",
                                                      "shelf too steep",
                                                      "leans over too far",
                                                      "no room for hands"};
  return kNames[static_cast<std::size_t>(fault)];
}

LedgeAnswer find_ledge(const World& world, const LedgeQuery& query) { return Finder(world, query).find(); }

}  // namespace lagniappe
