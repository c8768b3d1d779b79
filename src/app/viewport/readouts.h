// SPDX-License-Identifier: GPL-3.0-or-later
// What is written over the view: read-outs, how to begin and how to leave, metre marks.
#pragma once

#include <QPainter>
#include <QString>
#include <glm/mat4x4.hpp>
#include <vector>

#include "viewport/camera.h"
#include "viewport/trail_lines.h"

namespace lagniappe::app {

class Readouts {
 public:
  struct Frame {
    glm::dmat4 to_clip;  // From the course frame.
    Eye eye;
    QSize size;
    double frames_per_second;
    bool driving, has_driven, figure_shown;
    TrailLegend trail;
    bool watched;  // By the free camera.
  };

  // What the lines in the view stand for.
  struct LegendLine {
    QColor colour;
    Qt::PenStyle pen;
    QString text, more;
  };
  void set_legend(std::vector<LegendLine> lines) { legend_ = std::move(lines); }
  const std::vector<LegendLine>& legend() const { return legend_; }

  explicit Readouts(const DriveSession& session) : session_(session) {}
  void set_place(const Place& place);
  void paint(QPainter& painter, const Frame& frame);

  // The rows of the panel as they are shown: name and value.
  std::vector<std::pair<QString, QString>> rows() const;

 private:
  struct Label {
    Vec3 at_C;
    QString text;
    bool strong;
  };
  void add_metre_labels(const Place& place, const Vec3& from_C, const Vec3& axis, const QString& letter);
  void paint_labels(QPainter& painter) const;
  void paint_panel(QPainter& painter) const;
  void paint_hint(QPainter& painter) const;
  QString hint() const;
  double paint_legend(QPainter& painter) const;
  void paint_trail_legend(QPainter& painter, double top) const;
  bool hidden(const Vec3& at_C) const;

  const DriveSession& session_;
  std::vector<Label> labels_;
  std::vector<LegendLine> legend_;
  Frame frame_{};
};

}  // namespace lagniappe::app
