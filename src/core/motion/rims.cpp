// SPDX-License-Identifier: MIT
#include "motion/rims.h"

#include <algorithm>

#include "motion/contact_kind.h"

namespace lagniappe {
namespace {

constexpr double kLongStride = 0.3;      // m between looks along a direction, and no more than the gap that is
constexpr double kLeastStride = 0.05;    // crossed, but never so little as to crawl;
constexpr double kStride = 0.15;         // and where ground does not go on so far.
constexpr double kSeen = 1e-3;           // m to which a rim is found at first.
constexpr double kFound = 5e-6;          // m to which a rim is found.
constexpr double kAgrees = 3e-4;         // m by which a rim may bend and be straight; where its face
constexpr double kAgreesExactly = 3e-5;  // is known.
constexpr double kBeside = 0.06;         // rad between the two looks that tell a rim's direction.
constexpr double kBaseline = 0.02;       // m between them, where the rim is near,
constexpr double kFarthestBeside = 1.1;  // rad, but no farther aside.
constexpr double kSector = radians(22.5);  // rad between the directions that are looked along.
constexpr int kSectors = 4;                // To each side.
constexpr double kThin = 0.002;            // m: radius of what is let down across a gap,
constexpr double kClear = 0.005;           // and how far it stays from the rim.
constexpr int kMostBends = 6;              // Lines that are tried before a rim is taken for a corner.
constexpr int kCornerLooks = 16, kCornerHalvings = 14;
constexpr double kPastSeam = 1e-6;      // m beside a ray, for one that does not meet the same seam.
constexpr double kAsHighAcross = 0.01;  // m lower that the other side of a gap is as high.
constexpr double kAsHigh = 1e-3;        // m from the ground before.
constexpr double kUnderRim = 0.002;     // m under a rim, where its face is looked for,
constexpr double kBeforeFace = 0.01;    // from so far before it.
constexpr double kToFace = 0.004;       // m aside from a corner.
constexpr double kNearCorner = 0.003;   // m.
constexpr double kSteepFace = 0.05;  // Length of its normal across up: flatter is no face that a rim ends with.
constexpr double kLeastTurn = 0.02;  // rad between the faces at a corner.
constexpr double kJustBeyond = 0.01;  // m beyond a rim there is no ground.
constexpr int kShareHalvings = 8;
constexpr double kGolden = 0.6180339887498949;
constexpr double kEndless = 1e9;
constexpr double kLowestLook = 0.02;  // m above ground from which is looked at it, if no step is taken.

// What is seen looking down at one place.
struct Look {
  bool ground = false;
  bool rises = false;   // Too steep, and upwards: a wall.
  double height = 0.0;  // m along up.
  PieceId piece = kNoPiece;
};

// Where the ground ends along a direction.
struct End {
  double at = kEndless;  // m.
  double height = 0.0;   // Of the last ground.
  PieceId piece = kNoPiece;
  bool found() const { return at < kEndless; }
};

// The line, at the rim's height, of the face that the ground ends with.
struct FaceLine {
  Vec3 point_C, outward_C;
};

// What a direction leads to.
struct Seen {
  End end;
  std::optional<FaceLine> face;
};

// A direction across up that no edge is likely to have.
Vec3 any_across(const Vec3& up_C) {
  const Vec3 some(0.5123, 0.6371, -0.5761);
  return unit_or(across(std::abs(dot(some, up_C)) < 0.9 ? some : Vec3(some.x, -some.y, some.z), up_C), up_C);
}

class Search {
 public:
  Search(const StepContext& context, const Body& body, const Vec3& place_C, double within)
      : profile_(context.profile),
        body_(body),
        place_C_(place_C),
        within_(within),
        rise_(std::max(profile_.ground.highest_step, kLowestLook)),
        drop_(std::max(profile_.ledge.deepest_drop, profile_.ground.snap_distance)),
        gap_(2.0 * std::min(profile_.ground.longest_overhang, body.radius)),
        stride_(std::clamp(gap_, kLeastStride, kLongStride)),
        aside_C_(any_across(body.up_C)) {}

  // Straight down, about as high as the place that is asked about.
  Look look(const Vec3& at_C) const { return look(at_C, 0.0, Vec3(0.0)); }

  // Whether something to walk on lies across a gap that begins at `from_C`.
  struct Landing {
    double at, height;
  };
  std::optional<Landing> across_gap(const Vec3& from_C, const Vec3& way_C, double height) const {
    if (gap_ <= 2.0 * kClear) return std::nullopt;
    const Vec3 lift = body_.up_C * (height + rise_);
    const Segment bar{from_C + way_C * kClear + lift, from_C + way_C * (gap_ - kThin) + lift};
    const auto hit = body_.world.sweep(bar, kThin, -body_.up_C * (rise_ + drop_), body_.now);
    if (!hit || !bears(hit->surface, hit->face_normal_C)) return std::nullopt;
    const Landing landing{dot(hit->hit.point_C - from_C, way_C), dot(hit->hit.point_C - place_C_, body_.up_C)};
    // Over the widest gap a body touches the other side before it tips off this one only if that is as high.
    const double lowest = height - drop_ * std::max(1.0 - landing.at / gap_, 0.0) - kAsHighAcross;
    return landing.height >= lowest ? std::optional(landing) : std::nullopt;
  }

  // The end of the ground along a unit direction, looking from ground of `height` at `from` m. `crossing`: over
  // the gaps along it.
  // `found`: m to which.
  End end_along(const Vec3& way_C, double from, double height, bool crossing, double found = kFound) const {
    End last{from, height, kNoPiece};
    bool strides_out = true;
    while (last.at < within_) {
      const double next = std::min(last.at + (strides_out ? stride_ : std::min(kStride, stride_)), within_);
      const Look seen = look(place_C_ + way_C * next, last.height, way_C);
      if (seen.ground) {
        last = {next, seen.height, seen.piece};
        strides_out = true;
        continue;
      }
      if (strides_out) {  // Stairs and slopes are followed by shorter ones.
        strides_out = false;
        continue;
      }
      if (seen.rises || barred(way_C, last, next)) return {};
      const End end = between(way_C, last, next, found);
      const auto landing = crossing ? across_gap(place_C_ + way_C * end.at, way_C, end.height) : std::nullopt;
      if (!landing) return end;
      last = {end.at + landing->at + kThin, landing->height, end.piece};
      strides_out = true;
    }
    return {};
  }

  Seen seen_along(const Vec3& way_C, double height) const {
    const End end = end_along(way_C, 0.0, height, true, kSeen);
    return {end, end.found() ? face_under(way_C, end, 0.0) : std::nullopt};
  }

  // The nearest place of a rim near the direction `way_C`. Nothing if what ends there is crossed, and all
  // behind it.
  std::optional<Rim> nearest(Vec3 way_C, double height) const {
    End first = end_along(way_C, 0.0, height, false);
    for (int bend = 0; bend < kMostBends && first.found(); ++bend) {
      const auto face = face_under(way_C, first, 0.0);
      const std::optional<Vec3> to = face ? to_line(*face) : nearest_on_line(way_C, first, height);
      if (!to || length(*to) <= kFound) break;
      const Vec3 straight = *to / length(*to);
      End end = end_along(straight, 0.0, height, false);
      if (end.found() && std::abs(end.at - length(*to)) < (face ? kAgreesExactly : kAgrees)) {
        end.at = length(*to);
        return told(straight, end, false);
      }
      // Nearer: another line; on from there. Farther: the rim turns away before.
      if (end.at > first.at)
        return face ? corner_on(*face, way_C, first, *to) : corner(way_C, straight, height);
      way_C = straight;
      first = end;
    }
    return told(way_C, first, true);
  }

  Vec3 turned(const Vec3& way_C, double by) const {
    return way_C * std::cos(by) + cross(body_.up_C, way_C) * std::sin(by);
  }

 private:
  bool bears(const Surface& surface, const Vec3& normal_C) const {
    return walkable(profile_, surface, normal_C, body_.up_C);
  }

  // `height`: of the ground before; along up from the place.
  Look look(const Vec3& at_C, double height, const Vec3& way_C) const {
    const double deep = rise_ + drop_;
    const Vec3 from = at_C + body_.up_C * (height + rise_), down = -body_.up_C * deep;
    auto hit = body_.cast_ray(from, down);
    // Between two faces a ray may pass by rounding, and meet what is below.
    if (!hit || std::abs(rise_ - hit->hit.fraction * deep) > kAsHigh) {
      const auto beside = body_.cast_ray(from + aside_C_ * kPastSeam, down);
      if (beside && (!hit || beside->hit.fraction < hit->hit.fraction)) hit = beside;
    }
    if (!hit) return {};
    const Vec3& normal = hit->hit.normal_C;
    if (!bears(hit->surface, normal)) return {false, dot(normal, way_C) < 0.0};
    return {true, false, height + rise_ - hit->hit.fraction * deep, hit->piece};
  }

  // Something stands between the last ground and where there is none.
  bool barred(const Vec3& way_C, const End& last, double next) const {
    const Vec3 from = place_C_ + way_C * last.at + body_.up_C * (last.height + rise_);
    return body_.cast_ray(from, way_C * (next - last.at)).has_value();
  }

  End between(const Vec3& way_C, End last, double without, double found) const {
    while (without - last.at > found) {
      const double middle = 0.5 * (last.at + without);
      const Look seen = look(place_C_ + way_C * middle, last.height, way_C);
      if (seen.ground)
        last = {middle, seen.height, seen.piece};
      else
        without = middle;
    }
    return last;
  }

  // Where the line through the rim's place along `way_C` and one a little aside comes nearest: from the place,
  // across up. Of both sides the one where the rim is nearer. Nothing if no rim is beside it.
  std::optional<Vec3> nearest_on_line(const Vec3& way_C, const End& end, double height) const {
    const double beside = std::clamp(kBaseline / std::max(end.at, kFound), kBeside, kFarthestBeside);
    const Vec3 left = turned(way_C, beside), right = turned(way_C, -beside);
    const End at_left = end_along(left, 0.0, height, false), at_right = end_along(right, 0.0, height, false);
    const Vec3 other = at_left.at < at_right.at ? left * at_left.at : right * at_right.at;
    if (!at_left.found() && !at_right.found()) return std::nullopt;
    const Vec3 along = unit_or(other - way_C * end.at, Vec3(0.0));
    if (along == Vec3(0.0)) return std::nullopt;
    return across(way_C * end.at, along);
  }

  // Where a face's rim, seen along `way_C`, ends on the way to where its line comes nearest.
  std::optional<Rim> corner_on(const FaceLine& face, const Vec3& way_C, const End& seen,
                               const Vec3& to_C) const {
    const Vec3 from = way_C * seen.at, beyond = face.outward_C * kJustBeyond;
    const auto is_rim = [&](double share) {
      return !look(place_C_ + from + (to_C - from) * share + beyond, seen.height, way_C).ground;
    };
    double low = 0.0, high = 1.0;
    for (int i = 0; i < kCornerHalvings; ++i) {
      const double middle = 0.5 * (low + high);
      (is_rim(middle) ? low : high) = middle;
    }
    const Vec3 at = from + (to_C - from) * low;
    const End end{length(at), seen.height, seen.piece};
    if (end.at <= kFound) return std::nullopt;
    return told_corner(at / end.at, end);
  }

  // Between a direction with a rim and one where it is farther: the nearest place, by golden section.
  std::optional<Rim> corner(const Vec3& from_C, const Vec3& to_C, double height) const {
    const double whole = std::atan2(dot(cross(from_C, to_C), body_.up_C), dot(from_C, to_C));
    const auto end_at = [&](double share) {
      return end_along(turned(from_C, whole * share), 0.0, height, false);
    };
    double low = 0.0, high = 1.0, left = 1.0 - kGolden, right = kGolden;
    End at_left = end_at(left), at_right = end_at(right);
    for (int i = 0; i < kCornerLooks; ++i) {
      if (at_left.at <= at_right.at) {
        high = right, right = left, at_right = at_left;
        at_left = end_at(left = high - kGolden * (high - low));
      } else {
        low = left, left = right, at_left = at_right;
        at_right = end_at(right = low + kGolden * (high - low));
      }
    }
    const Vec3 way = turned(from_C, whole * (at_left.at <= at_right.at ? left : right));
    return told_corner(way, at_left.at <= at_right.at ? at_left : at_right);
  }

  // Where its faces are known, they say exactly where it is.
  std::optional<Rim> told_corner(const Vec3& way_C, End end) const {
    const std::optional<Vec3> exact = end.found() ? to_corner(way_C, end) : std::nullopt;
    if (!exact) return told(way_C, end, true);
    end.at = length(*exact);
    return told(*exact / end.at, end, true);
  }

  // A gap that is crossed is no rim; what ends behind it may be one.
  std::optional<Rim> told(const Vec3& way_C, End end, bool corner) const {
    if (!end.found()) return std::nullopt;
    if (const auto landing = across_gap(place_C_ + way_C * end.at, way_C, end.height)) {
      end = end_along(way_C, end.at + landing->at + kThin, landing->height, true);
      if (!end.found()) return std::nullopt;
    }
    return Rim{place_C_ + way_C * end.at + body_.up_C * end.height, -way_C, end.at, corner, end.piece};
  }

  // What the ground ends with. Looks alone tell a rim to micrometres and its direction to a thousandth; the
  // face does exactly. `aside`: m from the rim's place.
  std::optional<FaceLine> face_under(const Vec3& way_C, const End& end, double aside) const {
    const Vec3 at = place_C_ + way_C * end.at + body_.up_C * end.height + cross(body_.up_C, way_C) * aside;
    const auto hit =
        body_.cast_ray(at + way_C * kBeforeFace - body_.up_C * kUnderRim, -2.0 * kBeforeFace * way_C);
    if (!hit) return std::nullopt;
    const Vec3& n = hit->hit.normal_C;
    const Vec3 level = body_.flat(n);
    const double size = length(level);
    if (size < kSteepFace) return std::nullopt;
    // Up the face from where it was met.
    const Vec3 up_along = level * (-kUnderRim * dot(n, body_.up_C) / (size * size));
    return FaceLine{hit->hit.point_C + body_.up_C * kUnderRim + up_along, level / size};
  }

  // Where it comes nearest: from the place, across up. Nothing where it passes behind.
  std::optional<Vec3> to_line(const FaceLine& line) const {
    const double distance = dot(line.point_C - place_C_, line.outward_C);
    if (distance <= kFound) return std::nullopt;
    return line.outward_C * distance;
  }

  // From the place to where the faces to both sides of a rim's place meet.
  std::optional<Vec3> to_corner(const Vec3& way_C, const End& end) const {
    const auto a = face_under(way_C, end, kToFace), b = face_under(way_C, end, -kToFace);
    if (!a || !b) return std::nullopt;
    const Vec3 along = cross(body_.up_C, a->outward_C);
    const double turn = dot(along, b->outward_C);
    if (std::abs(turn) < kLeastTurn) return std::nullopt;
    const Vec3 meet = a->point_C + along * (dot(b->point_C - a->point_C, b->outward_C) / turn);
    const Vec3 to = body_.flat(meet - place_C_);
    if (length(to) <= kFound || length(to - way_C * end.at) > kNearCorner) return std::nullopt;
    return to;
  }

  const Values& profile_;
  const Body& body_;
  const Vec3 place_C_;
  const double within_, rise_, drop_, gap_, stride_;
  const Vec3 aside_C_;  // Unit, across up.
};

// The rim of ground that one is beyond already.
std::optional<Rim> rim_behind(const Search& search, const Body& body, const Vec3& place_C, const Vec3& ahead_C,
                              const Vec3& bearing_C) {
  const Vec3 back = body.flat(bearing_C - place_C);
  const double distance = length(back);
  const Vec3 inward = distance > kFound ? back / distance : -ahead_C;
  if (dot(inward, ahead_C) >= 0.0) return std::nullopt;
  if (search.across_gap(place_C + back, -inward, dot(bearing_C - place_C, body.up_C))) return std::nullopt;
  return Rim{bearing_C, inward, -distance, false, kNoPiece};
}

// Whether a direction sees another face of a rim than those before it; where no face is known, whether the rim
// is nearest there.
bool is_another(std::span<const Seen> seen, int i) {
  const Seen& it = seen[i];
  if (!it.face) {
    const bool nearer = i == 0 || it.end.at < seen[i - 1].end.at;
    return nearer && (i + 1 == static_cast<int>(seen.size()) || it.end.at <= seen[i + 1].end.at);
  }
  return std::none_of(seen.begin(), seen.begin() + i, [&](const Seen& other) {
    return other.face && dot(other.face->outward_C, it.face->outward_C) > kSamePlane &&
           std::abs(dot(other.face->point_C - it.face->point_C, it.face->outward_C)) < kAgrees;
  });
}

// Of more than fit, the nearest stay.
void keep_nearest(const Rim& rim, std::span<Rim, kMostRims> out, std::size_t& count) {
  if (count < kMostRims) {
    out[count++] = rim;
    return;
  }
  const auto farthest = std::max_element(out.begin(), out.end(),
                                         [](const Rim& a, const Rim& b) { return a.distance < b.distance; });
  if (rim.distance < farthest->distance) *farthest = rim;
}

bool same(const Rim& a, const Rim& b) {
  return dot(a.inward_C, b.inward_C) > kSamePlane && std::abs(a.distance - b.distance) < kAgrees;
}

}  // namespace

std::size_t rims_ahead(const StepContext& context, const Body& body, const Vec3& place_C, const Vec3& ahead_C,
                       double within, const Vec3& bearing_C, std::span<Rim, kMostRims> out) {
  // A straight rim within that distance is seen by a direction on each side of the nearest place at least.
  const Search search(context, body, place_C, within / std::cos(kSector));
  const Look here = search.look(place_C);
  std::size_t count = 0;
  if (!here.ground) {
    const auto rim = rim_behind(search, body, place_C, ahead_C, bearing_C);
    if (rim) out[count++] = *rim;
    return count;
  }
  constexpr int kWays = 2 * kSectors + 1;
  std::array<Seen, kWays> seen;
  const auto way = [&](int i) { return search.turned(ahead_C, (i - kSectors) * kSector); };
  for (int i = 0; i < kWays; ++i) seen[i] = search.seen_along(way(i), here.height);
  for (int i = 0; i < kWays; ++i) {
    if (!seen[i].end.found() || !is_another(seen, i)) continue;
    const auto rim = search.nearest(way(i), here.height);
    if (!rim || rim->distance > within) continue;
    if (std::none_of(out.begin(), out.begin() + count, [&](const Rim& other) { return same(other, *rim); }))
      keep_nearest(*rim, out, count);
  }
  return count;
}

bool is_on_ground(const StepContext& context, const Body& body, const Vec3& place_C) {
  return Search(context, body, place_C, 0.0).look(place_C).ground;
}

double share_along_rim(const StepContext& context, const Body& body, const Rim& rim, const Vec3& way_C) {
  const Search search(context, body, rim.point_C, 0.0);
  const Vec3 along = across(way_C, rim.inward_C), beyond = -rim.inward_C * kJustBeyond;
  const auto goes_on = [&](double share) { return !search.look(rim.point_C + along * share + beyond).ground; };
  if (goes_on(1.0)) return 1.0;
  double low = 0.0, high = 1.0;
  for (int i = 0; i < kShareHalvings; ++i) {
    const double middle = 0.5 * (low + high);
    (goes_on(middle) ? low : high) = middle;
  }
  return high;
}

}  // namespace lagniappe
