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
    bool away;     // The window was left while somebody drove.
    bool pad;      // Under the on-screen pad: the lower corners are its.
  };

  // What the lines in the view stand for.
  struct LegendLine {
    QColor colour;
    Qt::PenStyle pen;
    QString text, more;
  };
  void set_legend(std::vector<LegendLine> lines) { legend_ = std::move(lines); }
  const std::vector<LegendLine>& legend() const { return legend_; }

  // The keys that lines of advice name, as they are now.
  struct HintKeys {
    QString open = "Ctrl+O", drive = "Enter", pause = "P", back = ",", on = ".", camera = "V", all = "F1";
  };
  void set_hint_keys(HintKeys keys) { keys_ = std::move(keys); }

  // What was found or refused in the tick under the playhead.
  struct Told {
    bool refused;
    QString text;
    bool operator==(const Told&) const = default;
  };
  void set_told(std::vector<Told> told) { told_ = std::move(told); }
  const std::vector<Told>& told() const { return told_; }

  explicit Readouts(const DriveSession& session) : session_(session) {}
  void set_place(const Place& place);
  void paint(QPainter& painter, const Frame& frame);

  // The rows of the panel as they are shown: name and value.
  std::vector<std::pair<QString, QString>> rows() const;
  // How to begin, go on, or leave.
  QString hint(bool driving, bool has_driven, bool watched, bool away) const;

  struct Label {
    Vec3 at_C;
    QString text;
    bool strong;  // A mark; else a coordinate.
  };
  const std::vector<Label>& labels() const { return labels_; }

 private:
  void add_metre_labels(const Place& place, const Vec3& from_C, const Vec3& axis, const QString& letter);
  void paint_labels(QPainter& painter) const;
  void paint_panel(QPainter& painter) const;
  void paint_hint(QPainter& painter) const;
  QRectF panel_box() const;
  QRectF hint_box(QPainter& painter) const;
  QRectF legend_box() const;
  std::optional<QPointF> seen_at(const Label& label) const;
  void paint_legend(QPainter& painter) const;
  double paint_told(QPainter& painter, double top) const;
  void paint_trail_legend(QPainter& painter, double top) const;
  bool hidden(const Vec3& at_C) const;

  const DriveSession& session_;
  std::vector<Label> labels_;
  std::vector<LegendLine> legend_;
  std::vector<Told> told_;
  HintKeys keys_;
  Frame frame_{};
};

}  // namespace lagniappe::app
