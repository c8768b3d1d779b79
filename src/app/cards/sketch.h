// SPDX-License-Identifier: GPL-3.0-or-later
// A drawing in its own units (metres, seconds, degrees), laid out in pixels: lines, dimension lines, and labels
// that keep clear of everything else.
#pragma once

#include <QPainter>
#include <optional>
#include <vector>

#include "lagniappe/vector.h"

namespace lagniappe::app {

// What is to be seen, in the drawing's units.
struct Extent {
  double left, right, bottom, top;
  bool to_scale = true;  // Both axes alike.
};

class Sketch {
 public:
  enum class Ink { Now, Reference, Solid, Dimension, Faint, Warning, Early };

  // `footer`: pixels below the area that are kept for notes.
  Sketch(const Extent& extent, const QRectF& area, double footer = 0.0);

  QPointF at(const Vec2& p) const { return {origin_.x() + p.x * scale_.x, origin_.y() - p.y * scale_.y}; }
  Vec2 from(const QPointF& p) const {
    return {(p.x() - origin_.x()) / scale_.x, (origin_.y() - p.y()) / scale_.y};
  }
  const Vec2& scale() const { return scale_; }  // Pixels per unit.

  void line(const std::vector<Vec2>& points, Ink ink);
  void area(const std::vector<Vec2>& points, Ink ink);
  // A dimension line with a tick at each end, and what it measures.
  void dimension(const Vec2& a, const Vec2& b, const QString& text);
  // Placed at the first of the places around `at` where it covers nothing.
  void label(const Vec2& at, const QString& text, Ink ink = Ink::Dimension,
             const std::optional<Vec2>& or_there = {});
  // Below the drawing, in the footer, at its left or right end.
  void note(const QString& text, Ink ink, bool right);
  void capsule(const Vec2& foot, double radius, double height, Ink ink);
  void keep_clear(const Vec2& at, double pixels);  // Of labels.

  void paint(QPainter& painter) const;

  struct Placed {
    QRectF box;
    QString text;
    Ink ink;
    bool clear;  // It covers nothing.
  };
  // Labels with their places; settles them.
  const std::vector<Placed>& labels() const;
  bool covers_lines(const QRectF& box) const;

 private:
  struct Stroke {
    QPolygonF points;
    Ink ink;
    bool filled;
  };
  struct Wanted {
    std::vector<QPointF> at;  // The first that has room.
    QString text;
    Ink ink;
  };
  void settle() const;

  QRectF area_;
  double footer_;
  QPointF origin_;
  Vec2 scale_;
  std::vector<Stroke> strokes_;
  std::vector<Wanted> wanted_;
  std::vector<QRectF> clear_;
  std::vector<Placed> notes_;
  mutable std::vector<Placed> placed_;
  mutable bool settled_ = false;
};

QFont label_font();

}  // namespace lagniappe::app
