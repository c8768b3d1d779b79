// SPDX-License-Identifier: MIT
#include "io/document_writers.h"
#include "io/field_reader.h"
#include "io/piece_readers.h"
#include "io/row_values.h"
#include "io/zone_reader.h"

namespace lagniappe {
namespace {

Json list_of(const Vec3& v) { return RowWriter::list_of(v); }

Json turn_of(const Vec3& turn) { return {exact_degrees(turn.x), exact_degrees(turn.y), exact_degrees(turn.z)}; }

void add_surface(Json& json, const Surface& surface) {
  json["walk"] = kWalkWords[static_cast<std::size_t>(surface.walk)];
  json["ground"] = surface.ground;
  json["climbable"] = surface.climbable;
  json["friction"] = surface.friction;
}

void add_triangles(Json& json, const shape::Triangles& mesh) {
  Json& vertices = json["vertices"] = Json::array();
  for (const Vec3& v : mesh.vertices) vertices.push_back(list_of(v));
  json["triangles"] = mesh.triangles;
  if (mesh.surface_of.empty()) return;
  json["surface_of"] = mesh.surface_of;
  Json& surfaces = json["surfaces"] = Json::array();
  for (const shape::Triangles::SurfaceChoice& choice : mesh.surfaces) {
    Json values = Json::object();
    if (choice.name.empty()) add_surface(values, choice.surface);
    surfaces.push_back(choice.name.empty() ? values : Json(choice.name));
  }
}

void add_shape(Json& json, const Shape& shape) {
  // What a model comes to is written down, so that no file is needed to read it.
  if (const auto* model = std::get_if<shape::Model>(&shape)) return add_shape(json, *model->mesh);
  json["kind"] = kind_of(shape).name;
  std::visit(
      [&](const auto& s) {
        using Row = ShapeRow<std::decay_t<decltype(s)>>;
        if constexpr (std::is_same_v<decltype(s), const shape::Triangles&>) {
          add_triangles(json, s);
        } else if constexpr (requires { Row::fields(s, RowWriter{json}); }) {
          Row::fields(s, RowWriter{json});
        }
      },
      shape);
}

Json motion_json(const PieceMotion& motion) {
  Json json = {{"period", motion.period},
               {"phase", motion.phase},
               {"repeat", kRepeatWords[static_cast<std::size_t>(motion.repeat)]},
               {"path", kPathWords[static_cast<std::size_t>(motion.path)]},
               {"pivot", list_of(motion.pivot_P)},
               {"keys", Json::array()}};
  for (const PieceMotion::Key& key : motion.keys) {
    json["keys"].push_back({{"at", key.at},
                            {"move", list_of(key.move_C)},
                            {"turn", turn_of(key.turn)},
                            {"ease", kEaseWords[static_cast<std::size_t>(key.ease)]}});
  }
  return json;
}

Json piece_json(const Piece& piece) {
  Json json = {{"id", piece.id}, {"at", list_of(piece.at_C)}, {"turn", turn_of(piece.turn)}};
  if (!piece.surface.empty()) json["surface"] = piece.surface;
  add_shape(json, piece.shape);
  if (piece.motion) json["motion"] = motion_json(*piece.motion);
  if (piece.drift != Vec3(0.0)) json["drift"] = list_of(piece.drift);
  return json;
}

}  // namespace

Json course_json(const Course& course) {
  Json json = {{"lagniappe", "course"},
               {"version", 1},
               {"name", course.name},
               {"pieces", Json::array()},
               {"marks", Json::array()}};
  for (const Piece& piece : course.pieces) json["pieces"].push_back(piece_json(piece));
  for (const Field& field : course.fields) json["fields"].push_back(field_json(field));
  for (const Zone& zone : course.zones) json["zones"].push_back(zone_json(zone));
  if (!course.gravity) json["gravity"] = kGravityWords[1];
  for (const Mark& mark : course.marks) {
    json["marks"].push_back(
        {{"id", mark.id}, {"at", list_of(mark.at_C)}, {"facing", exact_degrees(mark.facing)}});
    if (mark.up_C) json["marks"].back()["up"] = list_of(*mark.up_C);
  }
  for (const NamedSurface& named : course.surfaces) {
    Json surface = {{"id", named.id}};
    add_surface(surface, named.surface);
    json["surfaces"].push_back(surface);
  }
  const Vec3 size = course.limits.size();
  if (size.x > 0.0 && size.y > 0.0 && size.z > 0.0)
    json["limits"] = {{"low", list_of(course.limits.low_C)}, {"high", list_of(course.limits.high_C)}};
  if (course.wind_C != Vec3(0.0)) json["wind"] = list_of(course.wind_C);
  return json;
}

}  // namespace lagniappe
