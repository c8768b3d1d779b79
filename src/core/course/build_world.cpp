// SPDX-License-Identifier: MIT
// A course as a world to move in.
#include <algorithm>

#include "course/shapes.h"
#include "lagniappe/course.h"
#include "lagniappe/profile.h"
#include "lagniappe/turns.h"

namespace lagniappe {
namespace {

// Room around everything that is there, marks high above included; less below, where only a fall leads.
constexpr double kRoomAround = 200.0, kRoomBelow = 50.0;
const Vec3 kUp(0.0, 1.0, 0.0);

Box default_limits(Box all, const std::vector<Mark>& marks, bool falls_down) {
  for (const Mark& mark : marks) all.join(mark.at_C);
  if (all.empty()) all = Box{Vec3(0.0), Vec3(0.0)};
  Box limits = all.grown(kRoomAround);
  if (falls_down) limits.low_C.y = all.low_C.y - kRoomBelow;
  return limits;
}

Surface named(const Course& course, const std::string& id) {
  const auto found = std::find_if(course.surfaces.begin(), course.surfaces.end(),
                                  [&](const NamedSurface& s) { return s.id == id; });
  return found != course.surfaces.end() ? found->surface : Surface{};
}

const shape::Triangles* mesh_of(const Shape& shape) {
  if (const auto* mesh = std::get_if<shape::Triangles>(&shape)) return mesh;
  const auto* model = std::get_if<shape::Model>(&shape);
  return model != nullptr ? model->mesh.get() : nullptr;
}

// In the frame of the piece's triangles.
Ladder placed(const shape::Ladder& s, const Piece& piece) {
  Ladder ladder;
  ladder.width = s.width;
  ladder.height = s.height;
  ladder.depth = ShapeRow<shape::Ladder>::kDepth;
  ladder.first = ladder.spacing = s.spacing;
  if (piece.motion) return ladder;
  const Quat rotation = rotation_of(piece.turn);
  ladder.base_C = piece.at_C;
  ladder.along_C = rotation * ladder.along_C;
  ladder.front_C = rotation * ladder.front_C;
  return ladder;
}

PieceMotion placed_motion(const Piece& piece) {
  PieceMotion motion = *piece.motion;
  motion.at_C = piece.at_C;
  motion.turn = piece.turn;
  return motion;
}

}  // namespace

Surface surface_of(const Course& course, const Piece& piece, std::size_t triangle) {
  const shape::Triangles* mesh = mesh_of(piece.shape);
  if (mesh == nullptr || triangle >= mesh->surface_of.size() || mesh->surface_of[triangle] == 0)
    return named(course, piece.surface);
  const auto& choice = mesh->surfaces[mesh->surface_of[triangle] - 1u];
  return choice.name.empty() ? choice.surface : named(course, choice.name);
}

TriangleWorld build_world(const Course& course) {
  TriangleWorld::Builder builder;
  Box all;
  for (const Piece& piece : course.pieces) {
    if (piece.motion) {
      builder.begin_moving_piece(piece.id, placed_motion(piece));
    } else {
      builder.begin_piece(piece.id);
    }
    const std::vector<Triangle> triangles = piece.motion ? own_triangles_of(piece) : triangles_of(piece);
    const shape::Triangles* mesh = mesh_of(piece.shape);
    const bool mixed = mesh != nullptr && !mesh->surface_of.empty();
    Surface whole = named(course, piece.surface);
    if (const auto* ladder = std::get_if<shape::Ladder>(&piece.shape)) {
      builder.set_ladder(placed(*ladder, piece));
      whole.climbable = false;
    }
    if (piece.drift != Vec3(0.0))
      builder.set_drift(piece.motion ? piece.drift : rotation_of(piece.turn) * piece.drift);
    for (std::size_t i = 0; i < triangles.size(); ++i) {
      if (!builder.add(triangles[i], mixed ? surface_of(course, piece, i) : whole)) continue;
      if (!piece.motion) all.join(bounds(triangles[i]));
    }
    if (piece.motion) {
      for (const PieceMotion::Key& key : piece.motion->keys) all.join(piece.at_C + key.move_C);
    }
  }
  const Box limits = course.limits.empty()
                         ? default_limits(all, course.marks, course.gravity && course.fields.empty())
                         : course.limits;
  return builder.commit({limits, course.wind_C, fields_of(course), zones_of(course)});
}

std::optional<FieldSum> fields_of(const Course& course) {
  const auto leans = [](const Mark& m) { return m.up_C && *m.up_C != kUp; };
  if (course.gravity && course.fields.empty() && std::none_of(course.marks.begin(), course.marks.end(), leans))
    return std::nullopt;
  return FieldSum(course.fields, course.gravity ? -kUp : Vec3(0.0));
}

std::vector<Zone> zones_of(const Course& course) {
  std::vector<Zone> zones = course.zones;
  for (Zone& zone : zones) {
    if (auto* over = std::get_if<effect::SurfaceOver>(&zone.effect)) over->is = named(course, over->surface);
    auto* launch = std::get_if<effect::Launch>(&zone.effect);
    if (launch == nullptr || launch->to.empty()) continue;
    const auto mark = std::find_if(course.marks.begin(), course.marks.end(),
                                   [&](const Mark& m) { return m.id == launch->to; });
    if (mark != course.marks.end()) launch->target_C = mark->at_C;
  }
  return zones;
}

Home home_of(const Course& course, const Mark& mark) {
  Vec3 up = kUp;
  if (mark.up_C) {
    up = *mark.up_C;
  } else if (const auto fields = fields_of(course)) {
    // As the profiles that come along are pulled; only fields in m/s2 make this differ.
    up = unit_or(-fields->at(mark.at_C).of(Profile().gravity), kUp);
  }
  return {mark.at_C, smallest_turn(kUp, up), mark.facing};
}

Home start_home(const Course& course) {
  const auto start =
      std::find_if(course.marks.begin(), course.marks.end(), [](const Mark& m) { return m.id == "start"; });
  return home_of(course, *start);
}

std::vector<Home> homes_of(const Course& course) {
  std::vector<Home> homes;
  for (const Mark& mark : course.marks) homes.push_back(home_of(course, mark));
  return homes;
}

}  // namespace lagniappe
