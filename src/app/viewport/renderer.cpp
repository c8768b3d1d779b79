// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/renderer.h"

#include <QMatrix4x4>
#include <QOpenGLContext>
#include <glm/gtc/matrix_transform.hpp>
#include <glm/gtc/type_ptr.hpp>

#include "viewport/shaders.h"

namespace lagniappe::app {
namespace {

constexpr double kNear = 0.05, kFar = 1500.0;
constexpr float kCreaseFade = 120.0f;  // m at which half of a crease is left.

QMatrix4x4 to_qt(const glm::dmat4& m) {
  QMatrix4x4 out;
  for (int column = 0; column < 4; ++column) {
    for (int row = 0; row < 4; ++row) out(row, column) = static_cast<float>(m[column][row]);
  }
  return out;
}
QVector3D to_qt(const Vec3& v) { return {float(v.x), float(v.y), float(v.z)}; }

// The square from -1 to 1 in x and z, cut into columns and rows.
std::vector<DrawVertex> net(int columns, int rows) {
  std::vector<DrawVertex> out;
  const auto knot = [&](int i, int j) {
    out.push_back({{2.0f * float(i) / float(columns) - 1.0f, 0, 2.0f * float(j) / float(rows) - 1.0f},
                   {0, 1, 0},
                   {1, 1, 1, 1}});
  };
  for (int j = 0; j < rows; ++j) {
    for (int i = 0; i < columns; ++i) {
      for (const auto& [a, b] : {std::pair(0, 0), {0, 1}, {1, 1}, {0, 0}, {1, 1}, {1, 0}}) knot(i + a, j + b);
    }
  }
  return out;
}

bool build(QOpenGLShaderProgram& program, const char* vertex, const char* fragment) {
  return program.addShaderFromSourceCode(QOpenGLShader::Vertex, vertex) &&
         program.addShaderFromSourceCode(QOpenGLShader::Fragment, fragment) && program.link();
}

}  // namespace

glm::dmat4 view_projection(const Eye& eye, double vertical_field, const QSize& pixels, const Vec3& origin_C) {
  const double aspect = double(std::max(pixels.width(), 1)) / std::max(pixels.height(), 1);
  const Vec3 at = eye.at_C - origin_C;
  return glm::perspective(vertical_field, aspect, kNear, kFar) * glm::lookAt(at, at + eye.forward_C, eye.up_C);
}

QString Renderer::initialize() {
  if (!initializeOpenGLFunctions()) return "OpenGL 3.3 is not offered by this machine's driver.";
  const bool built = build(lit_, shaders::kLitVertex, shaders::kLitFragment) &&
                     build(line_, shaders::kLineVertex, shaders::kLineFragment) &&
                     build(sky_, shaders::kSkyVertex, shaders::kSkyFragment) &&
                     build(shadow_, shaders::kShadowVertex, shaders::kShadowFragment);
  if (!built)
    return "The view's shaders could not be built: " + lit_.log() + line_.log() + sky_.log() + shadow_.log();
  create(scene_, true);
  create(moving_, true);
  for (Geometry* lines : {&creases_, &moving_creases_, &grid_, &strong_grid_, &overlay_, &trail_, &marks_})
    create(*lines, false);
  create(quad_, true);
  create(net_, true);
  for (std::size_t i = 0; i < solids_.size(); ++i) {
    create(solids_[i], true);
    fill(solids_[i], solid_triangles(static_cast<Solid>(i)));
  }
  fill(quad_, net(1, 1));
  fill(net_, net(6, 24));
  return {};
}

void Renderer::create(Geometry& geometry, bool lit) {
  geometry.array.create();
  geometry.buffer.create();
  const QOpenGLVertexArrayObject::Binder bound(&geometry.array);
  geometry.buffer.bind();
  const int stride = lit ? sizeof(DrawVertex) : sizeof(LineVertex);
  const auto attribute = [&](GLuint index, int size, std::size_t offset) {
    glEnableVertexAttribArray(index);
    glVertexAttribPointer(index, size, GL_FLOAT, GL_FALSE, stride, reinterpret_cast<const void*>(offset));
  };
  attribute(0, 3, 0);
  if (lit) attribute(1, 3, offsetof(DrawVertex, normal));
  attribute(lit ? 2 : 1, 4, lit ? offsetof(DrawVertex, colour) : offsetof(LineVertex, colour));
}

template <typename Vertex>
void Renderer::fill(Geometry& geometry, const std::vector<Vertex>& vertices) {
  geometry.buffer.bind();
  geometry.buffer.allocate(vertices.data(), static_cast<int>(vertices.size() * sizeof(Vertex)));
  geometry.count = static_cast<int>(vertices.size());
}

void Renderer::set_scene(const SceneMesh& mesh) {
  origin_C_ = mesh.origin_C;
  fill(scene_, mesh.triangles);
  fill(creases_, mesh.creases);
  fill(moving_, mesh.moving_triangles);
  fill(moving_creases_, mesh.moving_creases);
  movers_ = mesh.movers;
  fill(grid_, mesh.grid);
  fill(strong_grid_, mesh.strong_grid);
}

void Renderer::release() {
  for (Geometry* g : {&scene_, &creases_, &moving_, &moving_creases_, &grid_, &strong_grid_, &overlay_, &trail_,
                      &marks_, &quad_, &net_, &solids_[0], &solids_[1], &solids_[2], &solids_[3]}) {
    g->buffer.destroy();
    g->array.destroy();
  }
  for (QOpenGLShaderProgram* p : {&lit_, &line_, &sky_, &shadow_}) p->removeAllShaders();
}

void Renderer::draw(const DrawnFrame& frame) {
  // Every state that text drawn over the last frame may have changed.
  glViewport(0, 0, frame.pixels.width(), frame.pixels.height());
  glDisable(GL_SCISSOR_TEST);
  glDisable(GL_STENCIL_TEST);
  glDisable(GL_CULL_FACE);
  glDisable(GL_BLEND);
  glEnable(GL_DEPTH_TEST);
  glDepthFunc(GL_LEQUAL);
  glDepthMask(GL_TRUE);
  glClearColor(1.0f, 1.0f, 1.0f, 1.0f);
  glClear(GL_COLOR_BUFFER_BIT | GL_DEPTH_BUFFER_BIT);

  glm::dmat4 to_clip = view_projection(frame.eye, frame.vertical_field, frame.pixels, origin_C_);
  if (frame.flipped) to_clip = glm::scale(glm::dmat4(1.0), Vec3(1.0, -1.0, 1.0)) * to_clip;
  // Faces a little behind their creases, so that these are not eaten.
  glEnable(GL_POLYGON_OFFSET_FILL);
  glPolygonOffset(1.0f, 1.0f);
  draw_scene(frame, to_clip);
  draw_figure(frame.figure);
  draw_ghosts(frame);
  glDisable(GL_POLYGON_OFFSET_FILL);
  draw_sky(frame);
  glEnable(GL_BLEND);
  // The widget below must not shine through: what is drawn stays opaque.
  glBlendFuncSeparate(GL_SRC_ALPHA, GL_ONE_MINUS_SRC_ALPHA, GL_ZERO, GL_ONE);
  draw_lines(creases_, to_clip, 1.0f, kCreaseFade);
  draw_mover_creases(frame, to_clip);
  if (frame.grid) {
    draw_lines(grid_, to_clip, 1.0f, 16.0f);
    draw_lines(strong_grid_, to_clip, 1.0f, 60.0f);
  }
  draw_shadow(frame, to_clip);
  fill(marks_, frame.marks);
  draw_lines(marks_, to_clip, 1.0f, 200.0f);
  fill(trail_, frame.trail);
  draw_on_top(trail_, frame, to_clip, false);
  fill(overlay_, frame.overlay);
  draw_on_top(overlay_, frame, to_clip, true);
}

glm::dmat4 Renderer::to_scene(const glm::dmat4& to_course) const {
  return glm::translate(glm::dmat4(1.0), -origin_C_) * to_course;
}

void Renderer::draw_scene(const DrawnFrame& frame, const glm::dmat4& to_clip) {
  lit_.bind();
  lit_.setUniformValue("to_clip", to_qt(to_clip));
  lit_.setUniformValue("to_scene", QMatrix4x4());
  lit_.setUniformValue("tint", QVector3D(1, 1, 1));
  lit_.setUniformValue("lamp", frame.lamp);
  {
    const QOpenGLVertexArrayObject::Binder bound(&scene_.array);
    glDrawArrays(GL_TRIANGLES, 0, scene_.count);
  }
  const QOpenGLVertexArrayObject::Binder bound(&moving_.array);
  for (std::size_t i = 0; i < std::min(movers_.size(), frame.movers.size()); ++i) {
    lit_.setUniformValue("to_scene", to_qt(to_scene(frame.movers[i])));
    glDrawArrays(GL_TRIANGLES, movers_[i].triangles.first, movers_[i].triangles.count);
  }
}

void Renderer::draw_mover_creases(const DrawnFrame& frame, const glm::dmat4& to_clip) {
  for (std::size_t i = 0; i < std::min(movers_.size(), frame.movers.size()); ++i)
    draw_lines(moving_creases_, movers_[i].creases, to_clip * to_scene(frame.movers[i]), 1.0f, kCreaseFade);
}

void Renderer::draw_sky(const DrawnFrame& frame) {
  const double tall = std::tan(frame.vertical_field / 2.0),
               wide = tall * frame.pixels.width() / std::max(frame.pixels.height(), 1);
  sky_.bind();
  sky_.setUniformValue("lamp", frame.lamp);
  sky_.setUniformValue("forward", to_qt(frame.eye.forward_C));
  sky_.setUniformValue("right", to_qt(frame.eye.right_C() * wide));
  sky_.setUniformValue("up", to_qt(frame.eye.up_C * (frame.flipped ? -tall : tall)));
  const QOpenGLVertexArrayObject::Binder bound(&net_.array);
  glDrawArrays(GL_TRIANGLES, 0, net_.count);
}

void Renderer::draw_ghosts(const DrawnFrame& frame) {
  if (frame.ghosts.empty()) return;
  glEnable(GL_BLEND);
  glBlendColor(0.0f, 0.0f, 0.0f, 0.5f);
  glBlendFuncSeparate(GL_CONSTANT_ALPHA, GL_ONE_MINUS_CONSTANT_ALPHA, GL_ZERO, GL_ONE);
  draw_figure(frame.ghosts);
  glDisable(GL_BLEND);
}

void Renderer::draw_figure(const std::vector<FigurePart>& parts) {
  for (const FigurePart& part : parts) {
    Geometry& solid = solids_[static_cast<std::size_t>(part.solid)];
    lit_.setUniformValue("to_scene", to_qt(to_scene(part.to_course)));
    lit_.setUniformValue("tint", QVector3D(part.colour.redF(), part.colour.greenF(), part.colour.blueF()));
    const QOpenGLVertexArrayObject::Binder bound(&solid.array);
    glDrawArrays(GL_TRIANGLES, 0, solid.count);
  }
}

void Renderer::draw_shadow(const DrawnFrame& frame, const glm::dmat4& to_clip) {
  if (!frame.shadow) return;
  const Vec3 n = frame.shadow->normal_C,
             x = glm::normalize(cross(n, std::abs(n.x) < 0.7 ? Vec3(1, 0, 0) : Vec3(0, 0, 1))), z = cross(x, n);
  glm::dmat4 m(1.0);
  m[0] = glm::dvec4(x * frame.shadow->radius, 0.0);
  m[1] = glm::dvec4(n, 0.0);
  m[2] = glm::dvec4(z * frame.shadow->radius, 0.0);
  m[3] = glm::dvec4(frame.shadow->at_C + n * 0.01 - origin_C_, 1.0);
  glDepthMask(GL_FALSE);
  shadow_.bind();
  shadow_.setUniformValue("to_clip", to_qt(to_clip * m));
  shadow_.setUniformValue("strength", float(frame.shadow->strength));
  const QOpenGLVertexArrayObject::Binder bound(&quad_.array);
  glDrawArrays(GL_TRIANGLES, 0, quad_.count);
  glDepthMask(GL_TRUE);
}

void Renderer::draw_lines(Geometry& geometry, const glm::dmat4& to_clip, float strength, float fade) {
  draw_lines(geometry, {0, geometry.count}, to_clip, strength, fade);
}

void Renderer::draw_lines(Geometry& geometry, const SceneMesh::Range& range, const glm::dmat4& to_clip,
                          float strength, float fade) {
  if (range.count == 0) return;
  line_.bind();
  line_.setUniformValue("to_clip", to_qt(to_clip));
  line_.setUniformValue("strength", strength);
  line_.setUniformValue("fade", fade);
  const QOpenGLVertexArrayObject::Binder bound(&geometry.array);
  glDrawArrays(GL_LINES, range.first, range.count);
}

// What is hidden by solids is still shown, faintly: contacts lie on surfaces and under the figure. Core OpenGL
// only has lines of one pixel, so each is drawn four times, a pixel apart.
void Renderer::draw_on_top(Geometry& lines, const DrawnFrame& frame, const glm::dmat4& to_clip, bool thick) {
  const std::vector<std::pair<int, int>> all = {{0, 0}, {1, 0}, {0, 1}, {1, 1}};
  glDepthMask(GL_FALSE);
  for (const auto& [depth, strength] : {std::pair(GL_GREATER, 0.35f), std::pair(GL_LEQUAL, 1.0f)}) {
    glDepthFunc(depth);
    const std::size_t passes = !thick ? 2 : 4;
    for (std::size_t i = 0; i < passes; ++i) {
      const Vec3 shift(2.0 * all[i].first / frame.pixels.width(), 2.0 * all[i].second / frame.pixels.height(),
                       0.0);
      draw_lines(lines, glm::translate(glm::dmat4(1.0), shift) * to_clip, strength, 200.0f);
    }
  }
  glDepthFunc(GL_LEQUAL);
  glDepthMask(GL_TRUE);
}

}  // namespace lagniappe::app
