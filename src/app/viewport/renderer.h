// SPDX-License-Identifier: GPL-3.0-or-later
// Draws the scene with OpenGL 3.3 core. All calls need the view's context current.
#pragma once

#include <QOpenGLBuffer>
#include <QOpenGLFunctions_3_3_Core>
#include <QOpenGLShaderProgram>
#include <QOpenGLVertexArrayObject>
#include <QSize>
#include <array>
#include <memory>

#include "session/scene_mesh.h"
#include "viewport/camera.h"
#include "viewport/figure.h"

namespace lagniappe::app {

// What one frame shows.
struct DrawnFrame {
  Eye eye;
  double vertical_field = radians(60.0);
  QSize pixels;
  bool flipped = false;     // The first row of pixels is to be the top one.
  QVector3D lamp{1, 1, 1};  // Share of the light.
  bool grid = true;
  std::vector<FigurePart> figure;
  std::vector<FigurePart> ghosts;  // Half seen through.
  struct Shadow {
    Vec3 at_C, normal_C;
    double radius, strength;
  };
  std::optional<Shadow> shadow;
  std::vector<glm::dmat4> movers;  // Piece frame to course frame, in the order of SceneMesh::movers.
  std::vector<LineVertex> overlay;
  std::vector<LineVertex> trail;  // Many thin lines.
  std::vector<LineVertex> marks;
};

// Returns the matrix from the course (relative to `origin_C`) to clip space; also what labels are placed with.
glm::dmat4 view_projection(const Eye& eye, double vertical_field, const QSize& pixels, const Vec3& origin_C);

class Renderer : protected QOpenGLFunctions_3_3_Core {
 public:
  // Returns what is wrong with this machine's OpenGL, or an empty text.
  QString initialize();
  void set_scene(const SceneMesh& mesh);
  void draw(const DrawnFrame& frame);
  void release();

 private:
  // A vertex buffer and how it is read.
  struct Geometry {
    QOpenGLVertexArrayObject array;
    QOpenGLBuffer buffer{QOpenGLBuffer::VertexBuffer};
    int count = 0;
  };
  void create(Geometry& geometry, bool lit);
  template <typename Vertex>
  void fill(Geometry& geometry, const std::vector<Vertex>& vertices);
  void draw_scene(const DrawnFrame& frame, const glm::dmat4& to_clip);
  void draw_mover_creases(const DrawnFrame& frame, const glm::dmat4& to_clip);
  glm::dmat4 to_scene(const glm::dmat4& to_course) const;
  // `fade`: distance in m at which half of a line is left.
  void draw_lines(Geometry& geometry, const glm::dmat4& to_clip, float strength, float fade);
  void draw_lines(Geometry& geometry, const SceneMesh::Range& range, const glm::dmat4& to_clip, float strength,
                  float fade);
  void draw_sky(const DrawnFrame& frame);
  void draw_figure(const std::vector<FigurePart>& parts);
  void draw_ghosts(const DrawnFrame& frame);
  void draw_shadow(const DrawnFrame& frame, const glm::dmat4& to_clip);
  // `thick`: two pixels wide.
  void draw_on_top(Geometry& lines, const DrawnFrame& frame, const glm::dmat4& to_clip, bool thick);

  QOpenGLShaderProgram lit_, line_, sky_, shadow_;
  Geometry scene_, creases_, moving_, moving_creases_, grid_, strong_grid_, overlay_, trail_, marks_, quad_,
      net_;
  std::array<Geometry, 4> solids_;
  std::vector<SceneMesh::Mover> movers_;
  Vec3 origin_C_{0.0};
};

}  // namespace lagniappe::app
