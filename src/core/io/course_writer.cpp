// SPDX-License-Identifier: MIT
#include "io/document_writers.h"
#include "io/exact_degrees.h"
#include "io/piece_readers.h"

namespace lagniappe {
namespace {

Json list_of(const Vec3& v) { return {v.x, v.y, v.z}; }

Json turn_of(const Vec3& turn) { return {exact_degrees(turn.x), exact_degrees(turn.y), exact_degrees(turn.z)}; }

void add_surface(Json& json, const Surface& surface) {
  json["walk"] = kWalkWords[static_cast<std::size_t>(surface.walk)];
  json["ground"] = surface.ground;
  json["climbable"] = surface.climbable;
  json["friction"] = surface.friction;
}

void add_triangles(Json& json, const shape::Triangles& mesh) {
  json["kind"] = "triangles";
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

struct ShapeWriter {
  Json& json;
  void operator()(const shape::Block& s) const { sized("block", s.size); }
  void operator()(const shape::Ramp& s) const { sized("ramp", s.size); }
  void operator()(const shape::Stairs& s) const {
    json.update({{"kind", "stairs"}, {"width", s.width}, {"rise", s.rise}, {"run", s.run}, {"count", s.count}});
  }
  void operator()(const shape::SpiralStairs& s) const {
    json.update({{"kind", "spiral-stairs"},
                 {"inner", s.inner},
                 {"outer", s.outer},
                 {"rise", s.rise},
                 {"angle", exact_degrees(s.angle)},
                 {"count", s.count}});
  }
  void operator()(const shape::Triangles& s) const { add_triangles(json, s); }
  void operator()(const shape::Model& s) const { add_triangles(json, *s.mesh); }

 private:
  void sized(const char* kind, const Vec3& size) const {
    json["kind"] = kind;
    json["size"] = list_of(size);
  }
};

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
  std::visit(ShapeWriter{json}, piece.shape);
  if (piece.motion) json["motion"] = motion_json(*piece.motion);
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
  for (const Mark& mark : course.marks)
    json["marks"].push_back(
        {{"id", mark.id}, {"at", list_of(mark.at_C)}, {"facing", exact_degrees(mark.facing)}});
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
