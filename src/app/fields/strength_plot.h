// SPDX-License-Identifier: GPL-3.0-or-later
// Strength over distance: of each field and of all together along a line of the cut, or of one field over the
// distance from its surface, where its curve is edited. Axes and curves are QCustomPlot's.
#pragma once

#include <qcustomplot.h>

#include <QJsonArray>
#include <optional>

#include "fields/pulls.h"
#include "fields/row_choice.h"

namespace lagniappe::app {

class StrengthPlot : public QCustomPlot {
  Q_OBJECT
 public:
  explicit StrengthPlot(QWidget* parent = nullptr);

  // Along the line from A to B.
  void show_line(const Course& course, const Pulls& pulls, const Vec3& from_C, const Vec3& to_C, double time);
  // Of one field, in m/s2; `gravity` is the profile's.
  void show_falloff(const Course& course, const RowChoice& field, double gravity);
  void show_nothing();

  // For tests and tools: where a point of the curve is, in the widget.
  int curve_points() const { return curve_.count; }
  QPointF pixel_of_point(int point) const;
  QString remark() const { return remark_; }  // What there is to be said of the line.

 signals:
  // The points of a curve, m from the surface and share of the strength. `begins`: a gesture begins.
  void curve_changed(const QJsonArray& points, bool begins);
  void redraw_asked();  // Another point is chosen, or none is any more.

 protected:
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void focusInEvent(QFocusEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void changeEvent(QEvent* event) override;

 private:
  static void theme_axis(QCPAxis* axis);
  void begin(const QString& x_label, bool of_field);
  QCPGraph* add_curve(const QColor& colour, Qt::PenStyle style, double width, const QString& name);
  void name_curves();
  void fit(double from, double to);  // m.
  void mark_alike(const std::vector<QVector<double>>& own, const QVector<double>& x);
  int point_at(const QPointF& p) const;
  Vec2 at(const QPointF& p) const;  // m, and share of the strength.
  Vec2 beside_chosen() const;
  void choose_point(int point);
  void mark_chosen(const QColor& colour);
  void move_point(int point, Vec2 to, bool begins);
  void remove_point(int point);
  void add_point(const Vec2& added);
  void put_points(bool begins);

  struct Name {
    QString text;
    QColor colour;
    QCPGraph* graph;
  };
  std::vector<Name> names_;
  Curve curve_;            // Of the shown field; empty where it has none.
  Curve to_be_;            // The curve that its falloff would be as points.
  double strength_ = 1.0;  // m/s2 at its surface.
  bool of_field_ = false;
  std::optional<int> dragged_;
  int chosen_ = -1;     // The point that keys move.
  bool begun_ = false;  // The drag has changed something.
  QString remark_;
};

}  // namespace lagniappe::app
