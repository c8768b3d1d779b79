// SPDX-License-Identifier: MIT
// Parts of a course that have a reader of their own. All throw ReadFailure where something is wrong.
#pragma once

#include <optional>

#include "io/json_document.h"
#include "lagniappe/course.h"

namespace lagniappe {

// The words of the format, in the order of their enumerations.
inline const std::vector<std::string_view> kWalkWords = {"by-angle", "always", "never"};
inline const std::vector<std::string_view> kEaseWords = {"even", "smooth", "speeding", "slowing"};
inline const std::vector<std::string_view> kRepeatWords = {"loop", "back-and-forth"};
inline const std::vector<std::string_view> kGravityWords = {"profile", "none"};
inline const std::vector<std::string_view> kPathWords = {"straight", "curved"};

// The `motion` of a piece.
PieceMotion read_motion(const JsonCursor& cursor);

// The values of a surface; `more_keys` are allowed beside them and left to the caller.
Surface read_surface(const JsonCursor& cursor, const std::vector<std::string_view>& more_keys = {});

// The `surfaces` of a course.
std::vector<NamedSurface> read_surfaces(const JsonCursor& cursor);

// What the `extras.surface` of each of a glTF document's "materials" or "nodes" says: the name of one of the
// course's surfaces, or the values of one. Other extras are nobody's business here.
std::vector<std::optional<shape::Triangles::SurfaceChoice>> read_extra_surfaces(const JsonCursor& document,
                                                                                std::string_view list);

// Refuses a surface name that none of the surfaces has, naming the nearest one.
void must_name_surface(const JsonCursor& name, const std::vector<NamedSurface>& surfaces);

}  // namespace lagniappe
