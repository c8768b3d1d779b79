// SPDX-License-Identifier: MIT
#include "lagniappe/triangle_world.h"

#include <algorithm>
#include <cassert>

#include "geometry/closest.h"
#include "geometry/tolerances.h"
#include "world/face_tree.h"
#include "world/placed_fields.h"
#include "world/placed_zones.h"
#include "world/queries.h"

namespace lagniappe {
namespace {

constexpr double kLimitsBeyondTriangles = 50.0;

// The box of a box that is seen from a piece.
Box seen_from(const RigidPose& pose, const Box& box_C) {
  const Vec3 centre = pose.back(box_C.centre()), half = 0.5 * box_C.size();
  const glm::dmat3 turn = glm::mat3_cast(glm::conjugate(pose.rotation_CP));
  Vec3 reach(0.0);
  for (int i = 0; i < 3; ++i) reach += glm::abs(turn[i]) * half[i];
  return Box{centre - reach, centre + reach}.grown(kTouch);
}

WorldFace placed(const WorldFace& face, const RigidPose& pose) {
  WorldFace out = face;
  out.triangle = {pose.point(face.triangle.v0_C), pose.point(face.triangle.v1_C),
                  pose.point(face.triangle.v2_C)};
  out.normal_C = pose.rotation_CP * face.normal_C;
  return out;
}

// Every place that the middle of a moving piece passes: the hull of the control points of its path.
Box path_of(const PieceMotion& m) {
  Box box;
  const auto count = static_cast<std::ptrdiff_t>(m.keys.size());
  const auto key = [&](std::ptrdiff_t i) {
    return m.keys[static_cast<std::size_t>((i + count) % count)].move_C;
  };
  for (std::ptrdiff_t i = 0; i < count; ++i) {
    const Vec3 at = m.at_C + key(i);
    box.join(at);
    if (m.path != PieceMotion::Path::Curved) continue;
    // Whichever neighbours the curve uses here, one within twice the longest hop bounds it.
    const double hop = length(key(i + 1) - key(i)) + length(key(i) - key(i - 1));
    box.join(Box{at, at}.grown(hop));
  }
  return box;
}

struct SeenCapsule;

struct Mover {
  PieceId piece;
  PieceMotion motion;
  FaceTree tree;
  Box reach_C;      // Holds the piece at any time.
  double farthest;  // m of its vertices from its pivot.

  Mover(PieceId id, PieceMotion m, std::vector<WorldFace> faces)
      : piece(id), motion(std::move(m)), tree(std::move(faces)) {
    farthest = 0.0;
    for (const WorldFace& face : tree.faces()) {
      const Triangle& t = face.triangle;
      for (const Vec3& v : {t.v0_C, t.v1_C, t.v2_C}) farthest = std::max(farthest, length(v - motion.pivot_P));
    }
    reach_C = path_of(motion).grown(farthest + length(motion.pivot_P) + kTouch);
  }

  template <typename Query>
  void ask(Query& query, double time) const {
    if (!reach_C.overlaps(query.region())) return;
    const RigidPose pose = motion.pose_at(time);
    tree.each_in(seen_from(pose, query.region()),
                 [&](const WorldFace& face) { query.offer(placed(face, pose)); });
  }

  std::optional<WorldPush> push(const Segment& axis, double radius, double from_time, double to_time,
                                const PieceMotion* carrier) const;
  std::optional<WorldPush> push_by(const WorldHit& hit, const SeenCapsule& capsule, double radius,
                                   double time) const;
};

// How a capsule that goes with a carrier, and ends at `axis_C`, is seen from a piece.
struct SeenCapsule {
  const PieceMotion& piece;
  const PieceMotion* carrier;  // Null: it stands still.
  Segment axis_C;
  double to_time;

  Segment at(double time) const {
    const RigidPose pose = piece.pose_at(time);
    if (carrier == nullptr) return {pose.back(axis_C.a_C), pose.back(axis_C.b_C)};
    const RigidPose then = carrier->pose_at(time), end = carrier->pose_at(to_time);
    const auto seen = [&](const Vec3& p_C) { return pose.back(then.point(end.back(p_C))); };
    return {seen(axis_C.a_C), seen(axis_C.b_C)};
  }
  // The direction, at the end, of a normal of the piece as it was then, to who goes with the carrier.
  Vec3 direction_C(const Vec3& normal_P, double time) const {
    const Vec3 then_C = piece.pose_at(time).rotation_CP * normal_P;
    if (carrier == nullptr) return then_C;
    const Quat on = carrier->pose_at(to_time).rotation_CP * glm::conjugate(carrier->pose_at(time).rotation_CP);
    return on * then_C;
  }
};

bool alike(const Segment& a, const Segment& b) {
  return length(a.a_C - b.a_C) <= kTouch && length(a.b_C - b.b_C) <= kTouch;
}

// In the frame of the piece the capsule moves and the piece stands still. Where they turn against each other,
// the way is cut so short that it is straight: what is left over is far less than a margin at walking sizes,
// and push-out takes it.
std::optional<WorldPush> Mover::push(const Segment& axis, double radius, double from_time, double to_time,
                                     const PieceMotion* carrier) const {
  const SeenCapsule capsule{motion, carrier, axis, to_time};
  const Segment begin = capsule.at(from_time), end = capsule.at(to_time);
  const double middle_time = 0.5 * (from_time + to_time);
  if (alike(begin, end) && alike(begin, capsule.at(middle_time))) return std::nullopt;
  const Vec3 turning = motion.velocity_at(middle_time).angular_C -
                       (carrier != nullptr ? carrier->velocity_at(middle_time).angular_C : Vec3(0.0));
  const double turned = length(turning) * (to_time - from_time);
  constexpr double kShortTurn = 0.02;
  const int parts = std::clamp(static_cast<int>(std::ceil(turned / kShortTurn)), 1, 32);
  const auto time_at = [&](double part) { return from_time + (to_time - from_time) * (part / parts); };
  Segment from = begin;
  for (int part = 0; part < parts; ++part) {
    const Segment to = capsule.at(time_at(part + 1));
    SweepQuery query(from, radius, 0.5 * (to.a_C - from.a_C + to.b_C - from.b_C), {});
    tree.each_in(query.region(), [&](const WorldFace& face) { query.offer(face); });
    if (const auto& hit = query.answer()) {
      const double share = part + hit->hit.fraction;
      if (const auto push = push_by(*hit, capsule, radius, time_at(share))) {
        WorldPush found = *push;
        found.fraction = share / parts;
        return found;
      }
    }
    from = to;
  }
  return std::nullopt;
}

// What a face that touched the capsule at `time` does until the end.
std::optional<WorldPush> Mover::push_by(const WorldHit& hit, const SeenCapsule& capsule, double radius,
                                        double time) const {
  const Segment then = capsule.at(time), end = capsule.at(capsule.to_time);
  // The part of the axis that is nearest to the touch.
  const Vec3 along = then.b_C - then.a_C;
  const double square = length_squared(along);
  const double at = square > 0.0 ? std::clamp(dot(hit.hit.point_C - then.a_C, along) / square, 0.0, 1.0) : 0.0;
  const Vec3& normal_P = hit.hit.normal_C;
  const double apart = dot(end.a_C + (end.b_C - end.a_C) * at - hit.hit.point_C, normal_P);
  const double entered = radius - apart;
  if (entered <= kTouch) return std::nullopt;
  const Vec3 normal_C = capsule.direction_C(normal_P, capsule.to_time);
  const Vec3 way_C = unit_or(normal_C + capsule.direction_C(normal_P, time), normal_C);
  const Vec3 point_C = motion.pose_at(capsule.to_time).point(hit.hit.point_C);
  return WorldPush{way_C * (entered / dot(way_C, normal_C)), point_C, normal_C, 0.0, piece};
}

// Copies faces, as a query does that wants them all.
struct Collect {
  Box box;
  std::span<WorldFace> out;
  std::size_t count = 0;
  bool fits = true;

  const Box& region() const { return box; }
  void offer(const WorldFace& face) {
    if (!box.overlaps(bounds(face.triangle))) return;
    if (count < out.size()) {
      out[count++] = face;
    } else {
      fits = false;
    }
  }
};

}  // namespace

struct TriangleWorld::Data {
  FaceTree still;
  std::vector<Mover> movers;
  std::vector<PieceId> moving_pieces;
  std::vector<int> mover_of;            // By piece; -1 for still ones. Empty where nothing moves.
  std::vector<const WorldFace*> added;  // By the order of adding.
  std::vector<std::string> names;
  Box limits;
  Vec3 wind;
  std::vector<std::pair<PieceId, Ladder>> ladders;  // By piece.
  std::vector<std::pair<PieceId, Vec3>> drifts;     // By piece; in the frame of its triangles.
  std::optional<PlacedFields> fields;
  PlacedZones zones;

  const PieceMotion* motion_of(const std::string& piece) const {
    const auto mover =
        std::find_if(movers.begin(), movers.end(), [&](const Mover& m) { return names[m.piece] == piece; });
    return mover != movers.end() ? &mover->motion : nullptr;
  }

  template <typename Query>
  void ask_movers(Query& query, double time) const {
    for (const Mover& mover : movers) mover.ask(query, time);
  }
};

PieceId TriangleWorld::Builder::begin_piece(std::string name) {
  names_.push_back(std::move(name));
  return static_cast<PieceId>(names_.size() - 1);
}

PieceId TriangleWorld::Builder::begin_moving_piece(std::string name, PieceMotion motion) {
  assert(!motion.keys.empty() && motion.period > 0.0);
  const PieceId piece = begin_piece(std::move(name));
  motions_.emplace_back(piece, std::move(motion));
  return piece;
}

bool TriangleWorld::Builder::add(const Triangle& t, const Surface& surface) {
  assert(!names_.empty());
  if (!is_finite(t.v0_C) || !is_finite(t.v1_C) || !is_finite(t.v2_C)) return false;
  const double double_area = length(cross(t.v1_C - t.v0_C, t.v2_C - t.v0_C));
  if (!(double_area >= kLeastDoubleArea) || !std::isfinite(double_area)) return false;
  faces_.push_back({t, winding_normal(t), static_cast<PieceId>(names_.size() - 1),
                    static_cast<std::uint32_t>(faces_.size()), surface});
  return true;
}

void TriangleWorld::Builder::set_ladder(const Ladder& ladder) {
  assert(!names_.empty());
  ladders_.emplace_back(static_cast<PieceId>(names_.size() - 1), ladder);
}

void TriangleWorld::Builder::set_drift(const Vec3& drift_P) {
  assert(!names_.empty());
  drifts_.emplace_back(static_cast<PieceId>(names_.size() - 1), drift_P);
}

TriangleWorld TriangleWorld::Builder::commit(Options options) {
  // Faces of a moving piece lie together; all others stay in the tree of what stands still.
  std::vector<std::vector<WorldFace>> moving(motions_.size());
  std::vector<WorldFace> still;
  const std::size_t count = faces_.size();
  if (motions_.empty()) {
    still = std::move(faces_);
  } else {
    std::vector<int> motion_of(names_.size(), -1);
    for (std::size_t i = 0; i < motions_.size(); ++i) motion_of[motions_[i].first] = static_cast<int>(i);
    for (const WorldFace& face : faces_) {
      const int motion = motion_of[face.piece];
      (motion < 0 ? still : moving[static_cast<std::size_t>(motion)]).push_back(face);
    }
  }
  auto data = std::make_unique<Data>(Data{FaceTree(std::move(still)),
                                          {},
                                          {},
                                          {},
                                          {},
                                          std::move(names_),
                                          options.limits,
                                          options.wind,
                                          std::move(ladders_),
                                          std::move(drifts_),
                                          {},
                                          {}});
  Box all = data->still.box();
  data->movers.reserve(motions_.size());
  for (std::size_t i = 0; i < motions_.size(); ++i) {
    data->movers.emplace_back(motions_[i].first, std::move(motions_[i].second), std::move(moving[i]));
    data->moving_pieces.push_back(motions_[i].first);
    data->mover_of.resize(data->names.size(), -1);
    data->mover_of[motions_[i].first] = static_cast<int>(i);
    all.join(data->movers.back().reach_C);
  }
  if (options.gravity) {
    data->fields.emplace(std::move(*options.gravity),
                         [&](const std::string& piece) { return data->motion_of(piece); });
  }
  assert(options.zones.size() <= kNoZone);
  data->zones =
      PlacedZones(std::move(options.zones), [&](const std::string& piece) { return data->motion_of(piece); });
  if (options.limits.empty()) {
    if (all.empty()) all = Box{Vec3(0.0), Vec3(0.0)};
    data->limits = all.grown(kLimitsBeyondTriangles);
  }
  data->added.resize(count);
  const auto list = [&](const FaceTree& tree) {
    for (const WorldFace& face : tree.faces()) data->added[face.index] = &face;
  };
  list(data->still);
  for (const Mover& mover : data->movers) list(mover.tree);
  *this = Builder();
  return TriangleWorld(std::move(data));
}

TriangleWorld::TriangleWorld(std::unique_ptr<Data> data) : data_(std::move(data)) {}
TriangleWorld::TriangleWorld(TriangleWorld&&) noexcept = default;
TriangleWorld& TriangleWorld::operator=(TriangleWorld&&) noexcept = default;
TriangleWorld::~TriangleWorld() = default;

std::optional<WorldHit> TriangleWorld::sweep(const Segment& axis, double radius, const Vec3& motion_C,
                                             const Moment& moment) const {
  SweepQuery query(axis, radius, motion_C, moment);
  data_->still.ask_along(query, bounds(axis).grown(radius + kTouch), motion_C);
  if (!moment.still) data_->ask_movers(query, moment.time);
  return covered(*this, query.answer(), moment);
}

std::size_t TriangleWorld::contacts(const Segment& axis, double radius, std::span<WorldContact> out,
                                    const Moment& moment) const {
  ContactQuery query(axis, radius, out, moment);
  data_->still.each_in(query.region(), [&](const WorldFace& face) { query.offer(face); });
  if (!moment.still) data_->ask_movers(query, moment.time);
  return covered(*this, out, query.answer(), moment);
}

std::optional<WorldRayHit> TriangleWorld::cast_ray(const Vec3& origin_C, const Vec3& motion_C,
                                                   const Moment& moment) const {
  RayQuery query(origin_C, motion_C, moment);
  data_->still.ask_along(query, Box{origin_C, origin_C}.grown(kTouch), motion_C);
  if (!moment.still) data_->ask_movers(query, moment.time);
  return covered(*this, query.answer(), moment);
}

std::optional<WorldPush> TriangleWorld::first_push(const Segment& axis, double radius, double from_time,
                                                   double to_time, PieceId carrier) const {
  std::optional<WorldPush> first;
  const PieceMotion* carrying = motion_of(carrier);
  // All that the capsule passes, so that what is never near costs nothing.
  Box passed = bounds(axis);
  if (carrying != nullptr) {
    const RigidPose before = carrying->pose_at(from_time), after = carrying->pose_at(to_time);
    const auto began = [&](const Vec3& p_C) { return before.point(after.back(p_C)); };
    passed.join(bounds(Segment{began(axis.a_C), began(axis.b_C)}));
  }
  passed = passed.grown(radius);
  for (const Mover& mover : data_->movers) {
    if (mover.piece == carrier || !mover.reach_C.overlaps(passed)) continue;
    const auto push = mover.push(axis, radius, from_time, to_time, carrying);
    if (!push) continue;
    // Of two at one instant the one that goes further, whichever comes first in the course.
    const bool sooner = !first || push->fraction < first->fraction;
    const bool further = first && push->fraction == first->fraction &&
                         length_squared(push->shift_C) > length_squared(first->shift_C);
    if (sooner || further) first = push;
  }
  return first;
}

std::optional<std::size_t> TriangleWorld::gather(const Box& region, double time,
                                                 std::span<WorldFace> out) const {
  Collect collect{region, out};
  data_->still.each_in(region, [&](const WorldFace& face) { collect.offer(face); });
  data_->ask_movers(collect, time);
  return collect.fits ? std::optional(collect.count) : std::nullopt;
}

Box TriangleWorld::limits() const { return data_->limits; }
Vec3 TriangleWorld::wind() const { return data_->wind; }

std::string_view TriangleWorld::piece_name(PieceId piece) const {
  return piece < data_->names.size() ? std::string_view(data_->names[piece]) : std::string_view();
}

std::optional<Ladder> TriangleWorld::ladder(PieceId piece, const Moment& moment) const {
  const auto found = std::lower_bound(data_->ladders.begin(), data_->ladders.end(), piece,
                                      [](const auto& row, PieceId id) { return row.first < id; });
  if (found == data_->ladders.end() || found->first != piece) return std::nullopt;
  const RigidPose frame = piece_frame(piece, moment.time);
  Ladder ladder = found->second;
  ladder.base_C = frame.point(ladder.base_C);
  ladder.along_C = frame.rotation_CP * ladder.along_C;
  ladder.front_C = frame.rotation_CP * ladder.front_C;
  return ladder;
}

bool TriangleWorld::has_movers() const { return !data_->movers.empty(); }

Surroundings TriangleWorld::surroundings(const Vec3& at_C, double time) const {
  Surroundings here{data_->wind + data_->zones.wind(at_C, time)};
  if (data_->fields) here.gravity = data_->fields->at(at_C, time);
  return here;
}

std::size_t TriangleWorld::field_shares(const Vec3& at_C, double time, std::span<FieldShare> out) const {
  return data_->fields ? data_->fields->shares(at_C, time, out) : 0;
}

std::string_view TriangleWorld::field_name(std::uint16_t field) const {
  if (!data_->fields) return {};
  const auto& fields = data_->fields->sum().fields();
  return field < fields.size() ? std::string_view(fields[field].id) : std::string_view();
}

const FieldSum* TriangleWorld::fields() const { return data_->fields ? &data_->fields->sum() : nullptr; }

void TriangleWorld::place_fields(double time, std::span<RigidPose> out) const {
  data_->fields->place(time, out);
}

std::size_t TriangleWorld::zones_touched(const CapsuleWay& way, double from_time, double to_time,
                                         std::span<ZoneId> out) const {
  return data_->zones.touched(way, from_time, to_time, out);
}

ZoneNow TriangleWorld::zone(ZoneId zone, double time) const {
  if (zone >= data_->zones.size()) return World::zone(zone, time);
  const Zone& of = data_->zones.zone(zone);
  return {of.id, &of.effect, data_->zones.frame(zone, time), data_->zones.velocity(zone, time)};
}

bool TriangleWorld::covers_surfaces() const { return data_->zones.covers(); }

std::optional<Surface> TriangleWorld::surface_over(const Vec3& at_C, double time) const {
  return data_->zones.surface_over(at_C, time);
}

Vec3 TriangleWorld::surface_drift(PieceId piece, double time) const {
  const auto found = std::lower_bound(data_->drifts.begin(), data_->drifts.end(), piece,
                                      [](const auto& row, PieceId id) { return row.first < id; });
  if (found == data_->drifts.end() || found->first != piece) return Vec3(0.0);
  return piece_frame(piece, time).rotation_CP * found->second;
}

std::size_t TriangleWorld::zone_count() const { return data_->zones.size(); }
const Zone& TriangleWorld::zone_as_given(ZoneId zone) const { return data_->zones.zone(zone); }

bool TriangleWorld::moves(PieceId piece) const { return motion_of(piece) != nullptr; }

RigidPose TriangleWorld::piece_frame(PieceId piece, double time) const {
  const PieceMotion* motion = motion_of(piece);
  return motion != nullptr ? motion->pose_at(time) : RigidPose{};
}

RigidVelocity TriangleWorld::piece_velocity(PieceId piece, double time) const {
  const PieceMotion* motion = motion_of(piece);
  return motion != nullptr ? motion->velocity_at(time) : RigidVelocity{};
}

const PieceMotion* TriangleWorld::motion_of(PieceId piece) const {
  const int mover = piece < data_->mover_of.size() ? data_->mover_of[piece] : -1;
  return mover < 0 ? nullptr : &data_->movers[static_cast<std::size_t>(mover)].motion;
}

std::size_t TriangleWorld::triangle_count() const { return data_->added.size(); }
std::size_t TriangleWorld::piece_count() const { return data_->names.size(); }

std::size_t TriangleWorld::memory_bytes() const {
  std::size_t bytes = data_->still.memory_bytes() + data_->added.size() * sizeof(const WorldFace*);
  for (const Mover& mover : data_->movers) bytes += mover.tree.memory_bytes();
  return bytes;
}

const Triangle& TriangleWorld::triangle(std::size_t index) const { return data_->added[index]->triangle; }
PieceId TriangleWorld::triangle_piece(std::size_t index) const { return data_->added[index]->piece; }
const Surface& TriangleWorld::triangle_surface(std::size_t index) const { return data_->added[index]->surface; }
std::span<const PieceId> TriangleWorld::moving_pieces() const { return data_->moving_pieces; }

}  // namespace lagniappe
