// SPDX-License-Identifier: GPL-3.0-or-later
// The night warden: a figure of simple solids with a clear front, a lantern and a stride.
#pragma once

#include <QColor>
#include <glm/mat4x4.hpp>
#include <vector>

#include "lagniappe/fixed_step_clock.h"
#include "session/scene_mesh.h"

namespace lagniappe::app {

enum class Solid {
  Ball,
  Drum,
  Cone,
  Box
};  // Each fits the cube from -0.5 to 0.5; Drum and Cone stand along Y.

struct FigurePart {
  Solid solid;
  glm::dmat4 to_course;
  QColor colour;
};

// How the figure holds itself.
struct Carriage {
  double stride = 0.0;  // Radians of the leg swing's cycle.
  double swing = 0.0;   // In [0, 1]: standing to full strides.
  bool airborne = false;
};

// Returns the carriage for a length travelled and a speed along the ground: two steps per 1.5 m, whatever the
// speed.
Carriage carriage_of(double travelled, double ground_speed, bool airborne);

// Returns the parts of the figure, foot at the pose's foot, as tall as the pose's capsule, facing its facing.
std::vector<FigurePart> figure_parts(const Pose& pose, const Carriage& carriage);

// Returns the triangles of a solid.
std::vector<DrawVertex> solid_triangles(Solid solid);

}  // namespace lagniappe::app
