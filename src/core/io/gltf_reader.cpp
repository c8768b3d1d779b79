// SPDX-License-Identifier: MIT
// glTF 2.0 through tinygltf. The package parses; what it does not check (ranges of views and accessors, cycles
// among nodes) is checked here before a byte is read.
#include <fmt/format.h>
#include <tiny_gltf.h>

#include <cstring>
#include <glm/gtc/type_ptr.hpp>
#include <glm/mat4x4.hpp>

#include "io/json_document.h"
#include "io/model_readers.h"
#include "io/outside_names.h"
#include "io/piece_readers.h"

namespace lagniappe {
namespace {

constexpr std::size_t kMostTriangles = 50'000'000;
constexpr std::size_t kMostNodeVisits = 1'000'000;

// A refusal inside this file: the place in the model, and what is wrong with it.
struct BadModel {
  std::string place;
  std::string what;
};

std::string place_of(const char* kind, std::size_t index, const std::string& name) {
  return name.empty() ? fmt::format("{} {}", kind, index) : fmt::format("{} {} '{}'", kind, index, name);
}

template <typename T>
const T& element(const std::vector<T>& list, int index, const std::string& place, const char* kind) {
  if (index < 0 || static_cast<std::size_t>(index) >= list.size()) {
    throw BadModel{place, fmt::format("it refers to {} {}, but there are only {}", kind, index, list.size())};
  }
  return list[static_cast<std::size_t>(index)];
}

// `count` elements of `width` bytes each, `stride` apart; proven to lie within their buffer.
struct Bytes {
  const unsigned char* data;
  std::size_t count, stride;
  const unsigned char* at(std::size_t i) const { return data + i * stride; }
};

Bytes view_bytes(const tinygltf::Model& model, int view_index, std::size_t offset, std::size_t count,
                 std::size_t width, bool strided, const std::string& place) {
  const auto& view = element(model.bufferViews, view_index, place, "buffer view");
  const auto& buffer = element(model.buffers, view.buffer, place, "buffer");
  const std::size_t stride = strided && view.byteStride != 0 ? view.byteStride : width;
  const std::size_t have = view.byteLength;
  const bool view_fits = view.byteOffset <= buffer.data.size() && have <= buffer.data.size() - view.byteOffset;
  const bool fits = view_fits && offset <= have && stride >= width && stride <= 4096 &&
                    (count == 0 || (width <= have - offset && (count - 1) <= (have - offset - width) / stride));
  if (!fits) {
    throw BadModel{place,
                   fmt::format("it announces {} elements, but its buffer does not hold that many", count)};
  }
  return {buffer.data.data() + view.byteOffset + offset, count, stride};
}

double component(const unsigned char* at, int type, bool normalized, const std::string& place) {
  const auto read = [at](auto zero) {
    std::memcpy(&zero, at, sizeof zero);
    return static_cast<double>(zero);
  };
  switch (type) {
    case TINYGLTF_COMPONENT_TYPE_FLOAT:
      return read(float{});
    case TINYGLTF_COMPONENT_TYPE_DOUBLE:
      return read(double{});
    case TINYGLTF_COMPONENT_TYPE_BYTE:
      return normalized ? std::max(read(std::int8_t{}) / 127.0, -1.0) : read(std::int8_t{});
    case TINYGLTF_COMPONENT_TYPE_UNSIGNED_BYTE:
      return read(std::uint8_t{}) / (normalized ? 255.0 : 1.0);
    case TINYGLTF_COMPONENT_TYPE_SHORT:
      return normalized ? std::max(read(std::int16_t{}) / 32767.0, -1.0) : read(std::int16_t{});
    case TINYGLTF_COMPONENT_TYPE_UNSIGNED_SHORT:
      return read(std::uint16_t{}) / (normalized ? 65535.0 : 1.0);
    case TINYGLTF_COMPONENT_TYPE_UNSIGNED_INT:
      return read(std::uint32_t{});
    default:
      throw BadModel{place, fmt::format("its component type {} is not known", type)};
  }
}

std::size_t component_size(const tinygltf::Accessor& accessor, const std::string& place) {
  const int size = tinygltf::GetComponentSizeInBytes(static_cast<std::uint32_t>(accessor.componentType));
  if (size <= 0)
    throw BadModel{place, fmt::format("its component type {} is not known", accessor.componentType)};
  return static_cast<std::size_t>(size);
}

// How much a model may come to: so many corners for each byte that was read. A small file that names one mesh a
// million times, or says that a million zeros are not there, is stopped before the memory is.
constexpr std::size_t kCornersPerByte = 64, kCornersAnyway = 10'000'000;

class Reader {
 public:
  using Surfaces = std::vector<std::optional<shape::Triangles::SurfaceChoice>>;

  Reader(const tinygltf::Model& model, std::size_t bytes, Surfaces of_materials, Surfaces of_nodes)
      : model_(model),
        of_materials_(std::move(of_materials)),
        of_nodes_(std::move(of_nodes)),
        corners_left_(kCornersAnyway + kCornersPerByte * bytes) {}

  Model read() {
    for (const int root : roots()) visit(root);
    return std::move(out_);
  }

 private:
  struct Waiting {
    int node;
    glm::dmat4 parent;
    std::size_t depth;
    int surface_from;  // The nearest node, itself or above, that says what it is made of; or -1.
  };

  std::vector<int> roots() const {
    if (!model_.scenes.empty()) {
      const int scene = model_.defaultScene >= 0 ? model_.defaultScene : 0;
      return element(model_.scenes, scene, "the heading", "scene").nodes;
    }
    std::vector<bool> is_child(model_.nodes.size(), false);
    for (const auto& node : model_.nodes) {
      for (const int child : node.children) {
        if (child >= 0 && static_cast<std::size_t>(child) < is_child.size()) is_child[child] = true;
      }
    }
    std::vector<int> roots;
    for (std::size_t i = 0; i < is_child.size(); ++i) {
      if (!is_child[i]) roots.push_back(static_cast<int>(i));
    }
    return roots;
  }

  // Depth first with a stack of its own: a long chain of nodes must not use up the program's.
  void visit(int root) {
    std::vector<Waiting> waiting = {{root, glm::dmat4(1.0), 0, -1}};
    while (!waiting.empty()) {
      const Waiting next = waiting.back();
      waiting.pop_back();
      const auto& node = element(model_.nodes, next.node, "the scene", "node");
      const std::string place = place_of("node", static_cast<std::size_t>(next.node), node.name);
      if (next.depth > model_.nodes.size()) throw BadModel{place, "it is its own ancestor"};
      if (++visits_ > kMostNodeVisits)
        throw BadModel{place,
                       fmt::format("there are more than {} nodes with all repetitions", kMostNodeVisits)};
      const glm::dmat4 to_model = next.parent * local_transform(node, place);
      const int surface_from = at(of_nodes_, next.node) ? next.node : next.surface_from;
      if (node.mesh >= 0) {
        add_mesh(node, to_model, place, at(of_nodes_, surface_from));
      } else if (!node.name.empty()) {
        add_mark(node, to_model);
      }
      for (auto child = node.children.rbegin(); child != node.children.rend(); ++child) {
        waiting.push_back({*child, to_model, next.depth + 1, surface_from});
      }
    }
  }

  static std::optional<shape::Triangles::SurfaceChoice> at(const Surfaces& surfaces, int index) {
    const bool there = index >= 0 && static_cast<std::size_t>(index) < surfaces.size();
    return there ? surfaces[static_cast<std::size_t>(index)] : std::nullopt;
  }

  static glm::dmat4 local_transform(const tinygltf::Node& node, const std::string& place) {
    const auto sized = [&](const std::vector<double>& v, std::size_t size) {
      if (!v.empty() && v.size() != size) throw BadModel{place, "its transform has the wrong number of values"};
      return !v.empty();
    };
    if (sized(node.matrix, 16)) return glm::make_mat4(node.matrix.data());
    glm::dmat4 m(1.0);
    if (sized(node.translation, 3)) m[3] = glm::dvec4(glm::make_vec3(node.translation.data()), 1.0);
    if (sized(node.rotation, 4)) {
      const auto& r = node.rotation;
      m = m * glm::mat4_cast(glm::normalize(Quat(r[3], r[0], r[1], r[2])));
    }
    if (sized(node.scale, 3)) {
      for (int i = 0; i < 3; ++i) m[i] *= node.scale[i];
    }
    return m;
  }

  void add_mark(const tinygltf::Node& node, const glm::dmat4& m) {
    const Vec3 at(m[3]), ahead(-m[2]);
    if (is_finite(at) && is_finite(ahead))
      out_.nodes.push_back({plain_name(node.name), at, std::atan2(-ahead.x, -ahead.z)});
  }

  void add_mesh(const tinygltf::Node& node, const glm::dmat4& m, const std::string& place,
                const std::optional<shape::Triangles::SurfaceChoice>& surface) {
    const auto& mesh = element(model_.meshes, node.mesh, place, "mesh");
    PartBuilder part(node.name.empty() ? mesh.name : node.name);
    for (std::size_t i = 0; i < mesh.primitives.size(); ++i) {
      const auto of_material = at(of_materials_, mesh.primitives[i].material);
      part.made_of(of_material ? of_material : surface);
      add_primitive(mesh.primitives[i], m, place + ", " + place_of("primitive", i, ""), part);
    }
    if (const std::string fault = part.finish(out_); !fault.empty()) throw BadModel{place, fault};
  }

  void add_primitive(const tinygltf::Primitive& primitive, const glm::dmat4& m, const std::string& place,
                     PartBuilder& part) {
    const int mode = primitive.mode < 0 ? TINYGLTF_MODE_TRIANGLES : primitive.mode;
    if (mode < TINYGLTF_MODE_TRIANGLES) return;  // Points and lines are nothing to walk on.
    if (mode > TINYGLTF_MODE_TRIANGLE_FAN) throw BadModel{place, fmt::format("its mode {} is not known", mode)};
    const auto position = primitive.attributes.find("POSITION");
    if (position == primitive.attributes.end()) throw BadModel{place, "it has no positions"};

    std::vector<Vec3> corner = positions(position->second, place);
    for (Vec3& p : corner) p = Vec3(m * glm::dvec4(p, 1.0));
    const std::vector<std::uint32_t> order =
        primitive.indices >= 0 ? indices(primitive.indices, corner.size(), place) : counted(corner.size());
    // A mirroring transform turns the winding round; turn it back, so that outside stays outside.
    const bool mirrored = glm::determinant(glm::dmat3(m)) < 0.0;
    const auto add = [&](std::size_t i, std::size_t j, std::size_t k) {
      if (++triangles_ > kMostTriangles)
        throw BadModel{place, fmt::format("there are more than {} triangles", kMostTriangles)};
      const Vec3 &a = corner[order[i]], &b = corner[order[j]], &c = corner[order[k]];
      mirrored ? part.add(a, c, b) : part.add(a, b, c);
    };
    const std::size_t n = order.size();
    if (mode == TINYGLTF_MODE_TRIANGLES) {
      for (std::size_t i = 0; i + 2 < n; i += 3) add(i, i + 1, i + 2);
    } else if (mode == TINYGLTF_MODE_TRIANGLE_STRIP) {
      for (std::size_t i = 0; i + 2 < n; ++i) i % 2 == 0 ? add(i, i + 1, i + 2) : add(i + 1, i, i + 2);
    } else {
      for (std::size_t i = 1; i + 1 < n; ++i) add(0, i, i + 1);
    }
  }

  static std::vector<std::uint32_t> counted(std::size_t count) {
    std::vector<std::uint32_t> order(count);
    for (std::size_t i = 0; i < count; ++i) order[i] = static_cast<std::uint32_t>(i);
    return order;
  }

  void must_afford(std::size_t corners, const std::string& place) {
    if (corners > corners_left_)
      throw BadModel{place, "with this the model comes to far more than its file holds"};
    corners_left_ -= corners;
  }

  std::vector<Vec3> positions(int index, const std::string& place) {
    const auto& accessor = element(model_.accessors, index, place, "accessor");
    if (accessor.type != TINYGLTF_TYPE_VEC3) throw BadModel{place, "its positions are not vectors of three"};
    const std::size_t size = component_size(accessor, place);
    const auto read = [&](const unsigned char* at) {
      Vec3 p;
      for (int i = 0; i < 3; ++i)
        p[i] = component(at + i * size, accessor.componentType, accessor.normalized, place);
      return p;
    };
    std::vector<Vec3> out;
    if (accessor.bufferView >= 0) {
      const Bytes bytes =
          view_bytes(model_, accessor.bufferView, accessor.byteOffset, accessor.count, 3 * size, true, place);
      must_afford(bytes.count, place);
      out.reserve(bytes.count);
      for (std::size_t i = 0; i < bytes.count; ++i) out.push_back(read(bytes.at(i)));
    } else if (accessor.sparse.isSparse) {
      must_afford(accessor.count, place);
      out.resize(accessor.count, Vec3(0.0));
    } else {
      throw BadModel{place, "its positions have no data"};
    }
    if (accessor.sparse.isSparse) replace_sparse(accessor, 3 * size, read, out, place);
    return out;
  }

  template <typename Read>
  void replace_sparse(const tinygltf::Accessor& accessor, std::size_t width, const Read& read,
                      std::vector<Vec3>& out, const std::string& place) const {
    const auto& sparse = accessor.sparse;
    if (sparse.count < 0) throw BadModel{place, "its sparse count is negative"};
    const auto count = static_cast<std::size_t>(sparse.count);
    const int index_size =
        tinygltf::GetComponentSizeInBytes(static_cast<std::uint32_t>(sparse.indices.componentType));
    if (index_size <= 0) throw BadModel{place, "its sparse indices have an unknown type"};
    const Bytes at =
        view_bytes(model_, sparse.indices.bufferView, static_cast<std::size_t>(sparse.indices.byteOffset),
                   count, static_cast<std::size_t>(index_size), false, place);
    const Bytes value =
        view_bytes(model_, sparse.values.bufferView, static_cast<std::size_t>(sparse.values.byteOffset), count,
                   width, false, place);
    for (std::size_t i = 0; i < count; ++i) {
      const auto index =
          static_cast<std::size_t>(component(at.at(i), sparse.indices.componentType, false, place));
      if (index >= out.size()) throw BadModel{place, "a sparse index is out of range"};
      out[index] = read(value.at(i));
    }
  }

  std::vector<std::uint32_t> indices(int index, std::size_t vertices, const std::string& place) {
    const auto& accessor = element(model_.accessors, index, place, "accessor");
    if (accessor.type != TINYGLTF_TYPE_SCALAR) throw BadModel{place, "its indices are not single numbers"};
    const Bytes bytes = view_bytes(model_, accessor.bufferView, accessor.byteOffset, accessor.count,
                                   component_size(accessor, place), true, place);
    must_afford(bytes.count, place);
    std::vector<std::uint32_t> out;
    out.reserve(bytes.count);
    for (std::size_t i = 0; i < bytes.count; ++i) {
      const double value = component(bytes.at(i), accessor.componentType, false, place);
      if (!(value >= 0.0 && value < static_cast<double>(vertices))) {
        throw BadModel{place,
                       fmt::format("index {} refers to vertex {}, but there are only {}", i, value, vertices)};
      }
      out.push_back(static_cast<std::uint32_t>(value));
    }
    return out;
  }

  const tinygltf::Model& model_;
  Surfaces of_materials_, of_nodes_;
  Model out_;
  std::size_t corners_left_;
  std::size_t visits_ = 0;
  std::size_t triangles_ = 0;
};

// The files that a model names, as the package asks for them: plain relative names below the model's folder,
// and never the working directory, where the package looks next.
constexpr const char* kBesideModel = "beside";

struct BesideModel {
  std::string folder;
  std::size_t bytes;  // Read for this model so far.
  std::string fault{};

  tinygltf::FsCallbacks callbacks() {
    return {
        [](const std::string& path, void*) { return path.starts_with(std::string(kBesideModel) + "/"); },
        [](const std::string& path, void*) { return path; },
        [](std::vector<unsigned char>* out, std::string* why, const std::string& path, void* self) {
          return static_cast<BesideModel*>(self)->read(path.substr(std::strlen(kBesideModel) + 1), *out, *why);
        },
        [](std::string*, const std::string&, const std::vector<unsigned char>&, void*) { return false; }, this};
  }
  bool read(const std::string& name, std::vector<unsigned char>& out, std::string& why) {
    const auto bad = file_name_fault(name);
    const Result<std::string> text = bad ? Result<std::string>(refuse({plain_name(name), "its name", *bad}))
                                         : read_text(folder + "/" + name);
    if (!text) {
      fault = why = text.error().sentence();
      return false;
    }
    bytes += text->size();
    out.assign(text->begin(), text->end());
    return true;
  }
};

std::string word_of(std::uint32_t number) {
  return std::string(reinterpret_cast<const char*>(&number), sizeof number);
}

// The document as the package gets it. Pictures are nothing to walk on: their files are not even opened.
std::string without_pictures(Json json, const std::string& bytes, bool binary) {
  if (json.is_object()) {
    json.erase("images");
    json.erase("textures");
  }
  std::string text = dumped(json);
  if (!binary) return text;
  text.resize((text.size() + 3) / 4 * 4, ' ');
  std::uint32_t old_length = 0;
  std::memcpy(&old_length, bytes.data() + 12, sizeof old_length);
  const std::string_view rest = std::string_view(bytes).substr(20 + old_length);
  const auto whole = static_cast<std::uint32_t>(20 + text.size() + rest.size());
  return bytes.substr(0, 8) + word_of(whole) + word_of(static_cast<std::uint32_t>(text.size())) +
         bytes.substr(16, 4) + text + std::string(rest);
}

// The JSON text of a .gltf, or of the first chunk of a .glb.
Result<std::string_view> json_text(const std::string& bytes, bool binary, const std::string& path) {
  if (!binary) return std::string_view(bytes);
  std::uint32_t whole = 0, length = 0, kind = 0;
  if (bytes.size() < 20 || bytes.compare(0, 4, "glTF") != 0) {
    return refuse({path, "byte 0", "this is no GLB file: it should begin with \"glTF\""});
  }
  std::memcpy(&whole, bytes.data() + 8, 4);
  if (whole > bytes.size())
    return refuse({path, "byte 8", "it is shorter than it says; the file seems to be cut off"});
  std::memcpy(&length, bytes.data() + 12, 4);
  std::memcpy(&kind, bytes.data() + 16, 4);
  if (kind != 0x4E4F534Au || length > bytes.size() - 20) {
    return refuse({path, "byte 12", "the first chunk is no whole JSON chunk; the file seems to be cut off"});
  }
  return std::string_view(bytes).substr(20, length);
}

std::string one_line(std::string text) {
  for (char& c : text) {
    if (static_cast<unsigned char>(c) < 32) c = ' ';
  }
  while (!text.empty() && text.back() == ' ') text.pop_back();
  return text.empty() ? "it cannot be read as glTF" : text.substr(0, 300);
}

// What the document says it cannot be read without, and we do not read.
std::optional<std::string> unsupported_extension(const Json& document) {
  const auto required = document.find("extensionsRequired");
  if (required == document.end() || !required->is_array()) return std::nullopt;
  for (const Json& extension : *required) {
    if (!extension.is_string()) continue;
    const std::string name = extension;
    if (name.find("compression") != std::string::npos || name.find("instancing") != std::string::npos)
      return name;
  }
  return std::nullopt;
}

}  // namespace

Result<Model> read_gltf(const std::string& path) {
  const Result<std::string> bytes = read_text(path);
  if (!bytes) return refuse(bytes.error());
  const bool binary = path.back() == 'b' || path.back() == 'B';
  const Result<std::string_view> text = json_text(*bytes, binary, path);
  if (!text) return refuse(text.error());
  // Our own parser goes first: it names line and column, and bounds the nesting.
  const auto json = parse_json(*text, path);
  if (!json) return refuse(json.error());
  if (json->is_object()) {
    if (const auto extension = unsupported_extension(*json)) {
      return refuse(
          {path, "extensionsRequired",
           "the model needs " + *extension + ", which is not read; save it without compression or instancing"});
    }
  }

  BesideModel beside{path.find('/') == std::string::npos ? "." : path.substr(0, path.rfind('/')),
                     bytes->size()};
  tinygltf::TinyGLTF loader;
  loader.SetFsCallbacks(beside.callbacks());
  tinygltf::Model model;
  std::string error, warning;
  bool read = false;
  try {
    const std::string document = without_pictures(*json, *bytes, binary);
    const auto size = static_cast<unsigned int>(document.size());
    read = binary ? loader.LoadBinaryFromMemory(&model, &error, &warning,
                                                reinterpret_cast<const unsigned char*>(document.data()), size,
                                                kBesideModel)
                  : loader.LoadASCIIFromString(&model, &error, &warning, document.data(), size, kBesideModel);
  } catch (const std::exception& e) {
    error = e.what();
  }
  if (!beside.fault.empty()) return refuse({path, "buffers", beside.fault});
  if (!read) return refuse({path, "the whole model", one_line(error)});
  try {
    const JsonCursor document(*json, "");
    return Reader(model, beside.bytes, read_extra_surfaces(document, "materials"),
                  read_extra_surfaces(document, "nodes"))
        .read();
  } catch (const BadModel& bad) {
    return refuse({path, bad.place, bad.what});
  } catch (const ReadFailure& failure) {
    return refuse({path, failure.pointer, failure.what});
  }
}

}  // namespace lagniappe
