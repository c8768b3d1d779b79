// SPDX-License-Identifier: MIT
// Reading documents and models, and writing what a run leaves. No function here throws or prints; a refusal
// names file and place, and nothing half-read is ever returned.
//
// Thread safety: free functions; any number of threads at once.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "lagniappe/course.h"
#include "lagniappe/drive.h"
#include "lagniappe/profile.h"
#include "lagniappe/result.h"

namespace lagniappe {

// Reads a course document (*.json), or a model (*.glb, *.gltf, *.obj) as a course: each of its meshes' nodes is
// a piece, and the run begins at the node "start", or else on the lowest free place near the middle.
Result<Course> read_course(const std::string& path);
Result<Profile> read_profile(const std::string& path);
Result<InputScript> read_inputs(const std::string& path);

// The same from text; `file` is only used in refusals. Models that a course names are looked up in `folder`.
Result<Course> parse_course(std::string_view text, const std::string& file, const std::string& folder);
Result<Profile> parse_profile(std::string_view text, const std::string& file);
Result<InputScript> parse_inputs(std::string_view text, const std::string& file);

// One node of a model that has triangles, in the model's frame.
struct ModelPart {
  std::string name;  // The node's or object's name; may be empty.
  shape::Triangles mesh;
};
struct ModelMark {
  std::string name;
  Vec3 at_C;
  double facing;  // Yaw in radians of the node's -Z.
};
struct Model {
  std::vector<ModelPart> parts;
  std::vector<ModelMark> nodes;  // Named nodes without a mesh.
  std::size_t dropped = 0;       // Triangles without area or with a coordinate that is not finite.
};
// Reads every triangle of a glTF 2.0 (.gltf, .glb) or OBJ file: node transforms and repeated meshes applied;
// lists, strips and fans; sparse and quantised positions. Refused if nothing is left.
Result<Model> read_model(const std::string& path);

// Returns what kind of document a JSON file says it is by its heading; empty if it says nothing.
std::string document_kind(const std::string& path);

// Returns what kind of document a file says it is, checks it whole, and gives its refusals. Kinds: "course",
// "profile", "inputs", "take", "model".
Result<std::string> check_file(const std::string& path);

// Writes a trace as CSV, one row per state, numbers that read back to the same bits.
std::string trace_csv(const std::vector<CharacterState>& states, const World& world, int tick_rate);

// Takes: CBOR (RFC 8949) with a version and a checksum.
std::string take_bytes(const Take& take);
Result<Take> parse_take(std::string_view bytes, const std::string& file);
Result<Take> read_take(const std::string& path);

// Writes to a new file beside `path`, syncs, and puts it in place of `path`: a reader sees the old or the new
// whole.
Result<void> write_file(const std::string& path, std::string_view bytes);

}  // namespace lagniappe
