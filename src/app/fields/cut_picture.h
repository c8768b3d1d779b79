// SPDX-License-Identifier: GPL-3.0-or-later
// What stands still in the picture of a cut: shading, contours, strokes, pieces, fields and zones. Kept until
// something of it is another.
#pragma once

#include <QImage>
#include <QPainter>

#include "fields/cut_map.h"
#include "fields/row_choice.h"
#include "fields/section.h"

namespace lagniappe::app {

class CutPicture {
 public:
  // Coarse: at a quarter of the cost, for while it is dragged.
  enum class Grain { Fine, Coarse };
  CutPicture(const Course& course, const Place& place, const Pulls& pulls, const Cut& cut, const QSize& size,
             double time, Grain grain);

  void paint(QPainter& painter, const std::optional<RowChoice>& chosen) const;

  const CutMap& map() const { return map_; }
  const std::vector<double>& levels() const { return levels_; }
  // The row whose outline, or whose inside, is at a pixel; of several the smallest.
  std::optional<RowChoice> row_at(const QPointF& pixel) const;
  bool cuts(const RowChoice& row) const;  // Its surface or its reach.
  // Where its name stands, if it is in the picture.
  std::optional<QPointF> name_place(const RowChoice& row) const;

  static QColor band_colour(std::size_t band);  // 0 is below the first level.

 private:
  struct Outline {
    RowChoice row;
    QString name;
    QColor colour;
    bool dashed;
    std::vector<QLineF> surface, reach, fade;
    QPointF middle;
    Samples inside;  // Below 0: within its surface.
    std::vector<QLineF> air = {};
  };
  const Outline* outline_of(const RowChoice& row) const;  // Null where it is not in the cut.
  void shade();
  void add_field(const Course& course, std::size_t field, const Pulls& pulls, double time);
  void add_zone(const Course& course, std::size_t zone, const Pulls& pulls, double time);
  void paint_contours(QPainter& painter) const;
  void paint_strokes(QPainter& painter) const;
  void paint_outline(QPainter& painter, const Outline& outline, bool chosen) const;
  void paint_name(QPainter& painter, const Outline& outline, bool chosen) const;

  Cut cut_;
  QSize size_;
  CutMap map_;
  std::vector<double> levels_;
  QImage shading_;
  std::vector<std::vector<QLineF>> contours_;  // Of each level.
  std::vector<QLineF> alike_;
  Section section_;
  std::vector<Outline> outlines_;
};

// Text on a ground of paper, its middle at a place; returns what it covers.
QRectF paint_label(QPainter& painter, const QPointF& middle, const QString& text, const QColor& ink);

}  // namespace lagniappe::app
