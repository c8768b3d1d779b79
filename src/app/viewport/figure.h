// SPDX-License-Identifier: GPL-3.0-or-later
// The night warden: a figure of simple solids with a clear front, a lantern and a stride.
#pragma once

#include <QColor>
#include <array>
#include <glm/mat4x4.hpp>
#include <optional>
#include <string_view>
#include <vector>

#include "lagniappe/pose.h"
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
  double standing_height = 1.8;  // m: what it is scaled by; the pose's capsule says how low it crouches.
  double stride = 0.0;           // Of two steps, in [0, 1).
  double step_length = 1.3;      // m from a foot's touch to its next.
  double swing = 0.0;            // In [0, 1]: standing to full strides.
  double lean = 0.0;             // rad to its right.
  double squat = 0.0;            // In [0, 1]: a landing.
  std::string_view pose;         // The state's.
  // While it holds on: where the hands are, in the course frame, and how far on its way it is, from 0 to 1.
  std::optional<std::array<Vec3, 2>> hands_C;
  double hold_phase = 0.0;
  double wall = 0.0;     // Hanging: m to the wall at the feet, 0 where they hang free.
  double handing = 0.0;  // Hanging: in [0, 1), of one hand and the other along the rim.
  std::optional<std::array<double, 2>>
      feet;  // On rungs: m of the left and the right sole over the pose's foot.
  bool vaults = false;
};

// Returns the parts of the figure, foot at the pose's foot, as low as the pose's capsule, facing its facing. On
// the ground a foot that bears stays where it is while the body goes on: nothing skates.
std::vector<FigurePart> figure_parts(const Pose& pose, const Carriage& carriage);

// Returns the triangles of a solid.
std::vector<DrawVertex> solid_triangles(Solid solid);

}  // namespace lagniappe::app
