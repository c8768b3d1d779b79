// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <map>
#include <set>

#include "fields/field_rows.h"
#include "io/document_writers.h"
#include "io/field_reader.h"
#include "io/model_course.h"
#include "io/outside_names.h"
#include "io/piece_readers.h"
#include "io/row_values.h"
#include "io/zone_reader.h"
#include "lagniappe/files.h"

namespace lagniappe {
namespace {

constexpr std::size_t kMostTriangles = 20'000'000;
// Flights of stairs are a line in a file and may be a million triangles: so many for each piece, on the
// average.
constexpr std::size_t kMadePerPiece = 4'000, kMadeAnyway = 2'000'000;
const std::vector<std::string_view> kDocumentKeys = {"id", "kind", "at", "turn", "surface", "motion", "drift"};

template <typename S>
Shape read_by_row(const JsonCursor& piece) {
  S shape{};
  ShapeRow<S>::fields(shape, RowReader{piece});
  if constexpr (requires { ShapeRow<S>::fault(shape); }) {
    if (const auto fault = ShapeRow<S>::fault(shape)) piece.at(fault->key).fail(fault->what);
  }
  return shape;
}

// What each triangle is made of, where a piece says so: 0 is the piece's own surface, n the n-th of `surfaces`.
void read_own_surfaces(const JsonCursor& piece, shape::Triangles& mesh) {
  if (piece.has("surfaces")) {
    for (const JsonCursor& choice : piece.at("surfaces").elements()) {
      const bool named = choice.value().is_string();
      mesh.surfaces.push_back({named ? choice.name() : "", named ? Surface{} : read_surface(choice)});
    }
  }
  if (!piece.has("surface_of")) return;
  const JsonCursor list = piece.at("surface_of");
  const int most = static_cast<int>(std::min(mesh.surfaces.size(), std::size_t{65535}));
  for (const JsonCursor& n : list.elements())
    mesh.surface_of.push_back(static_cast<std::uint16_t>(n.integer(0, most)));
  if (mesh.surface_of.size() != mesh.triangles.size())
    list.fail(fmt::format("there must be one number for each of the {} triangles", mesh.triangles.size()));
}

shape::Triangles read_triangles(const JsonCursor& piece) {
  shape::Triangles mesh;
  for (const JsonCursor& v : piece.at("vertices").elements()) mesh.vertices.push_back(v.vec3(kAnyPosition));
  const JsonCursor list = piece.at("triangles");
  const int most = static_cast<int>(mesh.vertices.size()) - 1;
  for (const JsonCursor& t : list.elements()) {
    const auto corners = t.elements();
    if (corners.size() != 3) t.fail(fmt::format("a triangle has 3 vertices, not {}", corners.size()));
    std::array<std::uint32_t, 3> indices{};
    for (int i = 0; i < 3; ++i) {
      if (most < 0) corners[i].fail("there are no vertices to refer to");
      indices[i] = static_cast<std::uint32_t>(corners[i].integer(0, most));
    }
    mesh.triangles.push_back(indices);
  }
  if (mesh.triangles.empty()) list.fail("a piece needs at least one triangle");
  read_own_surfaces(piece, mesh);
  return mesh;
}

// Reads each model of a course once, however many pieces show it.
class ModelShelf {
 public:
  // No folder: models are refused.
  explicit ModelShelf(std::optional<std::string> folder) : folder_(std::move(folder)) {}

  shape::Model read(const JsonCursor& file) {
    const std::string name = file.text();
    if (!folder_) file.fail("a course within a take holds its triangles: it names no files");
    if (const auto fault = file_name_fault(name)) file.fail(*fault);
    auto& mesh = meshes_[name];
    if (!mesh) {
      const std::string path = (std::filesystem::path(*folder_) / name).string();
      const auto model = read_model(path);
      if (!model) file.fail("the model cannot be used: " + model.error().sentence());
      auto whole = joined(*model, path);
      if (!whole) file.fail("the model cannot be used: " + whole.error().sentence());
      dropped_ += model->dropped;
      mesh = std::make_shared<const shape::Triangles>(std::move(*whole));
    }
    return {name, mesh};
  }
  std::size_t dropped() const { return dropped_; }

 private:
  std::optional<std::string> folder_;
  std::map<std::string, std::shared_ptr<const shape::Triangles>> meshes_;
  std::size_t dropped_ = 0;
};

template <typename S>
Shape read_as(const JsonCursor& piece, ModelShelf& shelf) {
  if constexpr (std::is_same_v<S, shape::Triangles>) {
    return read_triangles(piece);
  } else if constexpr (std::is_same_v<S, shape::Model>) {
    return shelf.read(piece.at("file"));
  } else {
    return read_by_row<S>(piece);
  }
}

template <std::size_t... kIndex>
Shape read_kind(std::size_t kind, const JsonCursor& piece, ModelShelf& shelf, std::index_sequence<kIndex...>) {
  Shape shape;
  ((kind == kIndex ? void(shape = read_as<std::variant_alternative_t<kIndex, Shape>>(piece, shelf)) : void()),
   ...);
  return shape;
}

Shape read_shape(const JsonCursor& piece, ModelShelf& shelf) {
  std::vector<std::string_view> names, keys = kDocumentKeys;
  for (const PieceKind& kind : piece_kinds()) names.push_back(kind.name);
  const std::size_t kind = piece.at("kind").one_of(names);
  for (const DocumentKey& key : piece_kinds()[kind].keys) keys.push_back(key.name);
  piece.only_keys(keys);
  return read_kind(kind, piece, shelf, std::make_index_sequence<std::variant_size_v<Shape>>());
}

// Of what a few numbers in a file are made.
bool is_made(const Shape& shape) {
  return !std::holds_alternative<shape::Triangles>(shape) && !std::holds_alternative<shape::Model>(shape);
}

Piece read_piece(const JsonCursor& cursor, ModelShelf& shelf) {
  Piece piece;
  piece.id = cursor.at("id").name();
  piece.shape = read_shape(cursor, shelf);
  piece.at_C = cursor.at("at").vec3(kAnyPosition);
  if (cursor.has("turn")) {
    const Vec3 turn = cursor.at("turn").vec3(kAnyDegrees);
    piece.turn = {radians(turn.x), radians(turn.y), radians(turn.z)};
  }
  if (cursor.has("surface")) piece.surface = cursor.at("surface").name();
  if (cursor.has("motion")) piece.motion = read_motion(cursor.at("motion"));
  if (cursor.has("drift")) piece.drift = cursor.at("drift").vec3({-1000.0, 1000.0});
  return piece;
}

Mark read_mark(const JsonCursor& cursor) {
  cursor.only_keys({"id", "at", "facing", "up"});
  Mark mark{cursor.at("id").name(), cursor.at("at").vec3(kAnyPosition), 0.0};
  if (cursor.has("up")) {
    const Vec3 up = direction_as_written(cursor.at("up").vec3(kAnyPosition));
    if (up == Vec3(0.0)) cursor.at("up").fail("it is no direction: all three numbers are 0");
    mark.up_C = up;
  }
  cursor.degrees_if("facing", kAnyDegrees, mark.facing);
  mark.facing = wrap_angle(mark.facing);
  return mark;
}

Box read_limits(const JsonCursor& cursor) {
  cursor.only_keys({"low", "high"});
  const Box box{cursor.at("low").vec3(kAnyPosition), cursor.at("high").vec3(kAnyPosition)};
  const Vec3 size = box.size();
  if (!(size.x > 0.0 && size.y > 0.0 && size.z > 0.0))
    cursor.fail("each number of \"high\" must be above that of \"low\"");
  return box;
}

// The piece's own surface, and those that the materials and nodes of its model name.
void must_name_surfaces(const JsonCursor& cursor, const Piece& piece,
                        const std::vector<NamedSurface>& surfaces) {
  if (cursor.has("surface")) must_name_surface(cursor.at("surface"), surfaces);
  const auto* model = std::get_if<shape::Model>(&piece.shape);
  const auto* own = std::get_if<shape::Triangles>(&piece.shape);
  if (model == nullptr && own == nullptr) return;
  for (const auto& choice : model != nullptr ? model->mesh->surfaces : own->surfaces) {
    const bool known =
        choice.name.empty() || std::any_of(surfaces.begin(), surfaces.end(),
                                           [&](const NamedSurface& s) { return s.id == choice.name; });
    if (!known)
      cursor.at(model != nullptr ? "file" : "surfaces")
          .fail(fmt::format("it names the surface \"{}\", which is not among \"surfaces\"", choice.name));
  }
}

}  // namespace

Course read_course_document(const JsonCursor& document, const std::optional<std::string>& folder) {
  document.only_keys({"name", "pieces", "surfaces", "fields", "zones", "gravity", "marks", "limits", "wind"});
  Course course;
  ModelShelf shelf(folder);
  course.name = document.at("name").name();
  std::set<std::string> seen;
  std::size_t triangles = 0, made = 0;
  // Without a list of surfaces their names are mere labels; with one, each must be in it.
  const bool listed = document.has("surfaces");
  if (listed) course.surfaces = read_surfaces(document.at("surfaces"));
  for (const JsonCursor& cursor : document.at("pieces").elements()) {
    course.pieces.push_back(read_piece(cursor, shelf));
    must_be_new(cursor, course.pieces.back().id, seen);
    if (listed) must_name_surfaces(cursor, course.pieces.back(), course.surfaces);
    triangles += most_triangles(course.pieces.back().shape);
    if (triangles > kMostTriangles)
      cursor.fail(fmt::format("with this piece the course has more than {} triangles", kMostTriangles));
    if (is_made(course.pieces.back().shape)) made += most_triangles(course.pieces.back().shape);
    if (made > kMadeAnyway + kMadePerPiece * course.pieces.size())
      cursor.fail(
          "with this piece the stairs of the course come to far more triangles than so few pieces should");
  }
  if (course.pieces.empty()) document.at("pieces").fail("a course needs at least one piece");
  if (document.has("gravity")) course.gravity = document.at("gravity").one_of(kGravityWords) == 0;
  if (document.has("fields")) read_fields(document.at("fields"), course);
  const JsonCursor marks = document.at("marks");
  seen.clear();
  for (const JsonCursor& cursor : marks.elements()) {
    course.marks.push_back(read_mark(cursor));
    must_be_new(cursor, course.marks.back().id, seen);
  }
  if (seen.count("start") == 0) marks.fail("the mark \"start\" is missing: it says where a run begins");
  if (document.has("zones")) read_zones(document.at("zones"), course);
  if (document.has("wind")) course.wind_C = document.at("wind").vec3({-1000.0, 1000.0});
  if (document.has("limits")) {
    course.limits = read_limits(document.at("limits"));
    if (!course.limits.contains(start_home(course).foot_C))
      document.at("limits").fail("the mark \"start\" lies outside these limits");
  }
  course.dropped_triangles = shelf.dropped();
  return course;
}

Result<Course> parse_course(std::string_view text, const std::string& file, const std::string& folder) {
  return read_document(text, file, "course",
                       [&](const JsonCursor& document) { return read_course_document(document, folder); });
}

Result<Course> read_course(const std::string& path) {
  if (is_model_path(path)) {
    return read_model(path).and_then([&](const Model& model) { return course_of(model, path); });
  }
  const std::string folder = std::filesystem::path(path).parent_path().string();
  return read_text(path).and_then([&](const std::string& text) { return parse_course(text, path, folder); });
}

}  // namespace lagniappe
