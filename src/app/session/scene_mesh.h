// SPDX-License-Identifier: GPL-3.0-or-later
// Triangles and lines for drawing: plain numbers, no OpenGL.
#pragma once

#include <QColor>
#include <vector>

#include "lagniappe/course.h"

namespace lagniappe::app {

struct DrawVertex {
  float position[3];
  float normal[3];
  float colour[4];
};

struct LineVertex {
  float position[3];
  float colour[4];
};

struct SceneMesh {
  std::vector<DrawVertex> triangles;  // Three each; position relative to `origin_C`.
  std::vector<LineVertex> creases;  // Two each: edges where faces meet at more than 20 degrees, and open edges.
  std::vector<LineVertex> grid;     // Metre lines on what faces up; empty for very large models.
  std::vector<LineVertex> strong_grid;  // Those of every fifth metre.
  Vec3 origin_C{0.0};

  // Moving pieces, in their own frames, one after the other.
  struct Range {
    int first = 0, count = 0;
  };
  struct Mover {
    PieceId piece;
    Range triangles, creases;
  };
  std::vector<DrawVertex> moving_triangles;
  std::vector<LineVertex> moving_creases;
  std::vector<Mover> movers;
};

// Returns the drawn form of a course: one clay colour per surface, the like for surfaces that are not known.
SceneMesh scene_mesh(const Course& course, const TriangleWorld& world);

QColor surface_colour(const std::string& surface);

}  // namespace lagniappe::app
