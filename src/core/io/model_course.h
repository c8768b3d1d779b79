// SPDX-License-Identifier: MIT
// A model seen as a course, or as one piece of one.
#pragma once

#include "lagniappe/files.h"

namespace lagniappe {

bool is_model_path(const std::string& path);  // By its ending: .glb, .gltf, .obj, in any case.

// Returns the triangles of all parts as one mesh. Refused where they are made of more surfaces than one can
// tell apart.
Result<shape::Triangles> joined(const Model& model, const std::string& path);

// Returns a course with a piece per part, starting at the node "start", else on the lowest walkable place near
// the middle in which a capsule of the default profile is free. Refused if there is no such place.
Result<Course> course_of(const Model& model, const std::string& path);

}  // namespace lagniappe
