// SPDX-License-Identifier: MIT
// OBJ through tinyobjloader, in double precision.
#include <fmt/format.h>
#include <tiny_obj_loader.h>

#include "io/json_document.h"
#include "io/model_readers.h"

namespace lagniappe {
namespace {

std::string first_line(const std::string& text) {
  const std::string line = text.substr(0, std::min<std::size_t>(text.find('\n'), 300));
  return line.empty() ? "it cannot be read as OBJ" : line;
}

// Fans each face out from its first corner. Returns why a face cannot be used, or nothing.
std::string add_shape(const tinyobj::shape_t& shape, const tinyobj::attrib_t& attributes, PartBuilder& part) {
  const std::size_t vertices = attributes.vertices.size() / 3;
  const auto corner = [&](const tinyobj::index_t& index) {
    const std::size_t at = 3 * static_cast<std::size_t>(index.vertex_index);
    return Vec3(attributes.vertices[at], attributes.vertices[at + 1], attributes.vertices[at + 2]);
  };
  std::size_t first = 0;
  for (std::size_t face = 0; face < shape.mesh.num_face_vertices.size(); ++face) {
    const std::size_t count = shape.mesh.num_face_vertices[face];
    if (first + count > shape.mesh.indices.size()) return fmt::format("face {} is not complete", face + 1);
    for (std::size_t i = 0; i < count; ++i) {
      const int index = shape.mesh.indices[first + i].vertex_index;
      if (index < 0 || static_cast<std::size_t>(index) >= vertices) {
        return fmt::format("face {} refers to vertex {}, but there are only {}", face + 1, index + 1, vertices);
      }
    }
    for (std::size_t i = 1; i + 1 < count; ++i) {
      part.add(corner(shape.mesh.indices[first]), corner(shape.mesh.indices[first + i]),
               corner(shape.mesh.indices[first + i + 1]));
    }
    first += count;
  }
  return "";
}

// The package reads a coordinate that is no number as 0, which would bend the model without a word. Returns the
// first line with such a vertex, or 0.
std::size_t line_of_bad_vertex(std::string_view text) {
  for (std::size_t line = 1; !text.empty(); ++line) {
    const std::string_view row = text.substr(0, text.find('\n'));
    text.remove_prefix(std::min(row.size() + 1, text.size()));
    const std::size_t begin = row.find_first_not_of(" \t");
    if (begin == std::string_view::npos || row[begin] != 'v' || begin + 1 >= row.size()) continue;
    if (row[begin + 1] != ' ' && row[begin + 1] != '\t') continue;
    if (row.find_first_not_of(" \t\r+-.0123456789eE", begin + 1) != std::string_view::npos) return line;
  }
  return 0;
}

}  // namespace

Result<Model> read_obj(const std::string& path) {
  const Result<std::string> text = read_text(path);
  if (!text) return refuse(text.error());
  if (const std::size_t line = line_of_bad_vertex(*text)) {
    return refuse({path, fmt::format("line {}", line), "a vertex has a coordinate that is no number"});
  }
  if (const auto at = find_no_utf8(*text))
    return refuse({path, line_and_column(*text, *at), "the names are no UTF-8; save the model as UTF-8"});
  tinyobj::ObjReaderConfig config;
  config.triangulate = true;  // Concave faces too; what is left with more corners is fanned.
  tinyobj::ObjReader reader;
  if (!reader.ParseFromString(*text, "", config))
    return refuse({path, "the whole model", first_line(reader.Error())});

  Model model;
  for (std::size_t i = 0; i < reader.GetShapes().size(); ++i) {
    const auto& shape = reader.GetShapes()[i];
    PartBuilder part(shape.name);
    std::string wrong = add_shape(shape, reader.GetAttrib(), part);
    if (wrong.empty()) wrong = part.finish(model);
    if (!wrong.empty()) return refuse({path, fmt::format("object {} '{}'", i, plain_name(shape.name)), wrong});
  }
  return model;
}

}  // namespace lagniappe
