// SPDX-License-Identifier: MIT
// The kinds of pieces as rows: what each is called in a course, its keys with units and ranges, what it
// becomes. Reader, writer, schema, command line and, later, the editor walk them; each is written down once, in
// src/core/course/shapes.h.
#pragma once

#include <span>

#include "lagniappe/course.h"
#include "lagniappe/document_key.h"

namespace lagniappe {

using PieceKind = DocumentKind;

// In the order of the alternatives of Shape.
std::span<const PieceKind> piece_kinds();
const PieceKind& kind_of(const Shape& shape);

// Returns how many triangles the shape is made of at most, without making them.
std::size_t most_triangles(const Shape& shape);

}  // namespace lagniappe
