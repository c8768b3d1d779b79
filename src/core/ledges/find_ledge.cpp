// SPDX-License-Identifier: MIT
#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "lagniappe/ledge.h"

namespace lagniappe {
namespace {

constexpr double kHand = 0.04;    // m, radius of the ball that stands for hands.
constexpr double kTip = 0.01;     // m, of what feels for faces just under a rim.
constexpr double kInside = 0.01;  // m behind the face of a wall: on top of the thinnest, of 2 cm.
constexpr double kClear = 1e-3;   // m that is left free between a probe and what it stands on.
constexpr double kFarther = 1.0;  // m beyond reach and height that are looked at, so that a number can be told.
constexpr double kFinest = 0.02;  // m, to which the lowest way in is searched for.
constexpr double kWallFrom = radians(60.0);  // A shelf steeper than this is wall.
constexpr double kInPlane = 0.03;            // m by which a shelf may leave its plane and go on.
constexpr int kMostShelves = 8;              // Of one wall, one above the other.

// The place as the one who reaches sees it: heights over the foot, ways towards the wall.
class Reaching {
 public:
  Reaching(const World& world, const LedgeQuery& query)
      : world_(world), q_(query), side_C_(cross(query.towards_C, query.up_C)) {}

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
    return world_.sweep({at(low, leant(low)), at(high, leant(high))}, kHand, q_.towards_C * far, q_.moment);
  }
  bool open(double low, double high, double far) const { return !reach(low, high, far); }
  std::optional<WorldHit> sweep(const Vec3& from_C, double radius, const Vec3& way_C) const {
    return world_.sweep({from_C, from_C}, radius, way_C, q_.moment);
  }
  std::optional<WorldRayHit> ray(const Vec3& from_C, const Vec3& way_C) const {
    return world_.cast_ray(from_C, way_C, q_.moment);
  }
  bool is_free(const Segment& axis, double radius) const {
    std::array<WorldContact, 1> touched;
    return world_.contacts(axis, radius, touched, q_.moment) == 0;
  }

 private:
  const World& world_;
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
      met_ = true;
      const double in = dot(wall->hit.point_C - q_.foot_C, q_.towards_C) + kInside;
      const double met_at = to_.height_of(wall->hit.point_C);
      to_.lean_with(back_lean(*wall), met_at);
      const auto way_in = lowest_way_in(std::max(low, met_at - kHand), top, in);
      if (!way_in) return too_high(*wall, top, in);
      const Vec3 over = to_.at(*way_in, in + to_.leant(*way_in));
      const auto shelf = to_.sweep(over, kHand, -q_.up_C * (*way_in - low + kHand));
      if (!shelf) {
        low = *way_in;  // What was met lies above, or was passed: a bar.
        continue;
      }
      const double height = to_.height_of(shelf->hit.point_C);
      if (steepness(upwards(shelf->face_normal_C), q_.up_C) < kWallFrom && consider(*wall, *shelf))
        return answer_;
      low = std::max(height + kHand, low + kHand);
    }
    return finish();
  }

 private:
  Vec3 upwards(const Vec3& n_C) const { return dot(n_C, q_.up_C) < 0.0 ? -n_C : n_C; }

  // The tangent by which a wall leans away from the body.
  double back_lean(const WorldHit& wall) const {
    const Vec3 normal = dot(wall.face_normal_C, q_.towards_C) > 0.0 ? -wall.face_normal_C : wall.face_normal_C;
    const double up = dot(normal, q_.up_C), out = -dot(normal, q_.towards_C);
    return up <= 0.0 || steepness(normal, q_.up_C) < kWallFrom || out <= 0.0 ? 0.0 : up / out;
  }

  // How far hands can be raised before the body.
  double free_height(double wanted) const {
    const double from = std::min(q_.lowest, wanted);
    const auto roof = to_.sweep(to_.at(from, 0.0), kHand, q_.up_C * (wanted - from));
    return roof ? from + roof->hit.fraction * (wanted - from) - kClear : wanted;
  }

  // The lowest height from which up to the top all is open so far in; under a roof, the lowest that is open.
  std::optional<double> lowest_way_in(double low, double top, double in) const {
    if (to_.open(top, top, in)) {
      double closed = low, open = top;
      while (open - closed > kFinest) {
        const double middle = 0.5 * (open + closed);
        (to_.open(middle, top, in) ? open : closed) = middle;
      }
      return open;
    }
    for (double h = low; h <= top; h += kHand)
      if (to_.open(h, h, in)) return h;
    return std::nullopt;
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
    const auto refuse = [&](LedgeFault fault, double found, double allowed) {
      fail(fault, found, allowed, ledge.rim_C, ledge.shelf_piece);
      return false;
    };
    if (ledge.height > q_.highest) return refuse(LedgeFault::TooHigh, ledge.height, q_.highest);
    if (ledge.distance > q_.reach) return refuse(LedgeFault::OutOfReach, ledge.distance, q_.reach);
    if (ledge.slope > q_.steepest_shelf)
      return refuse(LedgeFault::ShelfTooSteep, ledge.slope, q_.steepest_shelf);
    if (ledge.over > q_.most_over) return refuse(LedgeFault::LeansOver, ledge.over, q_.most_over);
    ledge.depth = depth_of(ledge);
    if (ledge.depth < q_.shortest_shelf)
      return refuse(LedgeFault::ShelfTooShort, ledge.depth, q_.shortest_shelf);
    const Vec3 hands = ledge.rim_C + ledge.shelf_normal_C * (kHand + kClear) + into(ledge) * kInside;
    if (!to_.is_free({hands, hands}, kHand)) return refuse(LedgeFault::NoRoomForHands, 0.0, 2.0 * kHand);
    find_room(ledge);
    answer_ = {};
    answer_.ledge = ledge;
    return true;
  }

  // Into the shelf, along it.
  static Vec3 into(const Ledge& ledge) { return cross(ledge.shelf_normal_C, ledge.along_C); }

  // The wall is felt just under the shelf, where its face may be another than the one met first.
  void find_rim(Ledge& ledge, const WorldHit& met, const WorldHit& shelf) {
    const double height = to_.height_of(shelf.hit.point_C);
    const double ahead = to_.ahead_of(shelf.hit.point_C);
    const auto under = to_.sweep(to_.at(height - 2.0 * kTip, 0.0), kTip, q_.towards_C * (ahead + kHand));
    const WorldHit& wall = under ? *under : met;
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

  // How far the shelf goes on from the rim, as a plane, free to lay hands on.
  double depth_of(const Ledge& ledge) const {
    const Vec3 in = into(ledge), out = ledge.shelf_normal_C;
    double depth = q_.longest_shelf;
    const Vec3 over = ledge.rim_C + out * (kHand + kClear);
    if (const auto wall = to_.sweep(over, kHand, in * depth)) depth = wall->hit.fraction * depth + kHand;
    const double step = std::max(0.5 * q_.shortest_shelf, kHand), last = depth - kClear;
    for (double x = std::min(kInside, last);; x = std::min(x + step, last)) {
      if (!goes_on(ledge, x)) return end_before(ledge, x);
      if (x >= last) return depth;
    }
  }

  bool goes_on(const Ledge& ledge, double x) const {
    const Vec3 from = ledge.rim_C + into(ledge) * x + ledge.shelf_normal_C * kInPlane;
    return to_.ray(from, -ledge.shelf_normal_C * (2.0 * kInPlane)).has_value();
  }

  double end_before(const Ledge& ledge, double x) const {
    double on = 0.0, off = x;
    while (off - on > kClear) {
      const double middle = 0.5 * (on + off);
      (goes_on(ledge, middle) ? on : off) = middle;
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
    if (to_.is_free({low, low}, core)) {
      const double most = std::max(q_.standing - 2.0 * q_.radius, 0.0);
      const auto roof = to_.sweep(low, core, q_.up_C * most);
      ledge.headroom = 2.0 * q_.radius + (roof ? roof->hit.fraction * most : most);
    }
    ledge.crouched = q_.crouched > 0.0 && ledge.headroom >= q_.crouched - kClear;
    ledge.standing = q_.standing > 0.0 && ledge.headroom >= q_.standing - kClear;
    const Vec3 before = ledge.rim_C - q_.towards_C * q_.radius;
    const auto ground = to_.ray(before, -q_.up_C * Ledge::kDeepestDrop);
    ledge.drop = ground ? ground->hit.fraction * Ledge::kDeepestDrop : Ledge::kDeepestDrop;
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
