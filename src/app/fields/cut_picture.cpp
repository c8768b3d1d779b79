// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/cut_picture.h"

#include <algorithm>
#include <cmath>

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr double kFine = 8.0, kCoarse = 16.0, kStrokeEvery = 32.0;  // Pixels between samples, and strokes.
constexpr double kStroke = 1.4;                                     // Pixels for a m/s2.
constexpr double kLongestStroke = 25.0;                             // Pixels.
constexpr double kAir = 3.0;                                        // Pixels for a m/s of air.
constexpr double kZoneStep = 4.0;                                   // Pixels.
constexpr int kBandShare = 15;                                      // Of 255, by which each band is darker.
constexpr double kTouching = 7.0;  // Pixels from an outline that still mean it.

void paint_lines(QPainter& painter, const std::vector<QLineF>& lines, const QPen& pen) {
  painter.setPen(pen);
  painter.drawLines(lines.data(), int(lines.size()));
}

// Dashes do not show on lines that are cut to pieces: every other few of them are left out instead.
void paint_dashed(QPainter& painter, const std::vector<QLineF>& lines, const QPen& pen, double dash) {
  painter.setPen(pen);
  for (const QLineF& line : lines) {
    const QPointF at = line.center();
    if (std::fmod(std::abs(at.x()) + std::abs(at.y()), 2.0 * dash) < dash) painter.drawLine(line);
  }
}

double distance_to(const QLineF& line, const QPointF& p) {
  const QPointF d = line.p2() - line.p1(), from = p - line.p1();
  const double square = QPointF::dotProduct(d, d);
  const double share = square > 0.0 ? std::clamp(QPointF::dotProduct(from, d) / square, 0.0, 1.0) : 0.0;
  const QPointF apart = from - d * share;
  return std::hypot(apart.x(), apart.y());
}

bool touches(const std::vector<QLineF>& lines, const QPointF& p) {
  return std::any_of(lines.begin(), lines.end(),
                     [&](const QLineF& l) { return distance_to(l, p) < kTouching; });
}

}  // namespace

QRectF paint_label(QPainter& painter, const QPointF& middle, const QString& text, const QColor& ink) {
  const QRectF box = painter.fontMetrics().boundingRect(text);
  const QRectF place(middle.x() - 0.5 * box.width() - 3.0, middle.y() - 0.5 * box.height() - 1.0,
                     box.width() + 6.0, box.height() + 2.0);
  QColor ground = theme::paper();
  ground.setAlpha(215);
  painter.setPen(Qt::NoPen);
  painter.setBrush(ground);
  painter.drawRoundedRect(place, 3.0, 3.0);
  painter.setPen(ink);
  painter.drawText(place, Qt::AlignCenter, text);
  return place;
}

CutPicture::CutPicture(const Course& course, const Place& place, const Pulls& pulls, const Cut& cut,
                       const QSize& size, double time, Grain grain)
    : cut_(cut),
      size_(size),
      map_(map_of(cut, size, pulls, time, grain == Grain::Fine ? kFine : kCoarse)),
      levels_(levels_up_to(map_.strongest)) {
  shade();
  for (const double level : levels_) contours_.push_back(contour(map_.strength, level));
  alike_ = alike(map_.parts);
  section_ = section_of(place, cut, size, time);
  for (std::size_t i = 0; i < pulls.fields().size(); ++i) add_field(course, i, pulls, time);
  for (std::size_t i = 0; i < pulls.world().zone_count(); ++i) add_zone(course, i, pulls, time);
}

QColor CutPicture::band_colour(std::size_t band) {
  QColor colour = theme::teal();
  colour.setAlpha(int(std::min<std::size_t>(band, 7)) * kBandShare);
  return colour;
}

// Every pixel of a coarse picture has the colour of its band: at once where all corners of a square of samples
// are in one, else its strength is read between them.
void CutPicture::shade() {
  constexpr int kPixel = 2;
  const Samples& s = map_.strength;
  const int each = int(s.step) / kPixel;
  shading_ = QImage((s.columns - 1) * each, (s.rows - 1) * each, QImage::Format_ARGB32_Premultiplied);
  std::vector<QRgb> colours;
  for (std::size_t band = 0; band <= levels_.size(); ++band) {
    const QColor c = band_colour(band);
    colours.push_back(qPremultiply(qRgba(c.red(), c.green(), c.blue(), c.alpha())));
  }
  const auto band_of = [&](double value) {
    return std::size_t(std::upper_bound(levels_.begin(), levels_.end(), value) - levels_.begin());
  };
  std::vector<std::size_t> bands;
  bands.reserve(s.values.size());
  for (const float value : s.values) bands.push_back(band_of(double(value)));
  for (int row = 0; row + 1 < s.rows; ++row) {
    for (int column = 0; column + 1 < s.columns; ++column) {
      const auto at = std::size_t(row) * std::size_t(s.columns) + std::size_t(column),
                 below = at + std::size_t(s.columns);
      const bool even =
          bands[at] == bands[at + 1] && bands[at] == bands[below] && bands[at] == bands[below + 1];
      for (int y = 0; y < each; ++y) {
        auto* line = reinterpret_cast<QRgb*>(shading_.scanLine(row * each + y)) + column * each;
        if (even) {
          std::fill_n(line, each, colours[bands[at]]);
          continue;
        }
        const double b = double(y) / each;
        for (int x = 0; x < each; ++x) {
          const double a = double(x) / each;
          const double value = (1 - b) * ((1 - a) * double(s.values[at]) + a * double(s.values[at + 1])) +
                               b * ((1 - a) * double(s.values[below]) + a * double(s.values[below + 1]));
          line[x] = colours[band_of(value)];
        }
      }
    }
  }
}

void CutPicture::add_field(const Course& course, std::size_t index, const Pulls& pulls, double time) {
  const RowChoice row{CourseList::Fields, index};
  const Field& field = course.fields[index];
  const Samples& distance = map_.distances[index];
  Outline outline{row, row_name(course, row), row_colour(course, row), field.adds, {}, {}, {}, {}, distance};
  outline.surface = contour(distance, 0.0);
  if (const double reach = reach_of(field); std::isfinite(reach)) {
    if (reach > 0.0) outline.reach = contour(distance, reach);
    if (field.fade > 0.0) outline.fade = contour(distance, reach - field.fade);
  }
  outline.middle = cut_.pixel(pulls.frame(index, time).position_C, size_);
  outlines_.push_back(std::move(outline));
}

void CutPicture::add_zone(const Course& course, std::size_t index, const Pulls& pulls, double time) {
  const RowChoice row{CourseList::Zones, index};
  const Zone& zone = course.zones[index];
  const RigidPose frame = pulls.world().zone(static_cast<ZoneId>(index), time).frame;
  const Vec3 middle_C = frame.point(bounds(zone.shape).centre());
  // What the cut does not come near is not looked at point by point.
  if (std::abs(cut_.off(middle_C)) > 0.5 * length(bounds(zone.shape).size())) return;
  Outline outline{row, row_name(course, row), row_colour(course, row), true, {}, {}, {}, {}, {}};
  outline.inside =
      sampled(cut_, size_, kZoneStep, [&](const Vec3& p) { return -depth_in(zone.shape, frame.back(p)); });
  outline.surface = contour(outline.inside, 0.0);
  outline.middle = cut_.pixel(middle_C, size_);
  if (outline.surface.empty()) return;
  // The air, on the same grid as the pulls.
  const double every = kStrokeEvery;
  for (double y = every; y < size_.height(); y += every) {
    for (double x = every; x < size_.width(); x += every) {
      const Vec3 at_C = cut_.point({x, y}, size_), air = wind_at(zone, frame, at_C, time);
      const QPointF way(dot(air, cut_.across_C) * kAir, -dot(air, cut_.up_C) * kAir);
      if (std::hypot(way.x(), way.y()) > 1.5) outline.air.emplace_back(QPointF(x, y), QPointF(x, y) + way);
    }
  }
  outlines_.push_back(std::move(outline));
}

std::optional<RowChoice> CutPicture::row_at(const QPointF& pixel) const {
  const Outline* best = nullptr;
  double least = 0.0;
  for (const Outline& outline : outlines_) {
    const Samples& s = outline.inside;
    const int column = std::clamp(int(std::lround(pixel.x() / s.step)), 0, s.columns - 1),
              row = std::clamp(int(std::lround(pixel.y() / s.step)), 0, s.rows - 1);
    const bool within = s.at(column, row) < 0.0f;
    if (!within && !touches(outline.surface, pixel) && !touches(outline.reach, pixel)) continue;
    const auto count =
        double(std::count_if(s.values.begin(), s.values.end(), [](float v) { return v < 0.0f; }));
    const double area = count * s.step * s.step;
    if (best != nullptr && area >= least) continue;
    best = &outline;
    least = area;
  }
  return best == nullptr ? std::nullopt : std::optional(best->row);
}

const CutPicture::Outline* CutPicture::outline_of(const RowChoice& row) const {
  const auto found =
      std::find_if(outlines_.begin(), outlines_.end(), [&](const Outline& o) { return o.row == row; });
  const bool drawn = found != outlines_.end() && (!found->surface.empty() || !found->reach.empty());
  return drawn ? &*found : nullptr;
}

bool CutPicture::cuts(const RowChoice& row) const { return outline_of(row) != nullptr; }

std::optional<QPointF> CutPicture::name_place(const RowChoice& row) const {
  const Outline* outline = outline_of(row);
  if (outline == nullptr || !QRectF(QPointF(), QSizeF(size_)).contains(outline->middle)) return std::nullopt;
  return outline->middle;
}

void CutPicture::paint(QPainter& painter, const std::optional<RowChoice>& chosen) const {
  painter.drawImage(QRectF(0, 0, shading_.width() * 2.0, shading_.height() * 2.0), shading_);
  QColor hatch = theme::ink2();
  hatch.setAlpha(70);
  painter.setRenderHint(QPainter::Antialiasing, false);
  paint_lines(painter, section_.inside, QPen(hatch, 1));
  painter.setRenderHint(QPainter::Antialiasing);
  paint_contours(painter);
  paint_strokes(painter);
  paint_lines(painter, section_.outline, QPen(theme::ink(), 1.6, Qt::SolidLine, Qt::RoundCap));
  paint_dashed(painter, alike_, QPen(theme::ink(), 1.6), 9.0);
  for (const Outline& outline : outlines_) paint_outline(painter, outline, chosen == outline.row);
  for (const Outline& outline : outlines_) paint_name(painter, outline, chosen == outline.row);
  if (!alike_.empty()) {
    painter.setFont(theme::text_font(11));
    paint_label(painter, alike_[alike_.size() / 2].center() + QPointF(0, 14), QObject::tr("both pull alike"),
                theme::ink());
  }
}

// Each with its number where there is room for it.
void CutPicture::paint_contours(QPainter& painter) const {
  QColor thin = theme::ink2();
  thin.setAlpha(130);
  painter.setFont(theme::number_font(11));
  const QRectF all = QRectF(QPointF(), QSizeF(size_)).adjusted(24, 16, -24, -16);
  std::vector<QRectF> taken;
  for (std::size_t i = 0; i < contours_.size(); ++i) {
    paint_lines(painter, contours_[i], QPen(thin, 1));
    // Two numbers a level, far from each other.
    const std::size_t count = contours_[i].size();
    for (const std::size_t at : {count / 3, count * 5 / 6}) {
      if (at >= count) continue;
      const QPointF middle = contours_[i][at].center();
      const QRectF room(middle - QPointF(26, 12), QSizeF(52, 24));
      const bool free =
          std::none_of(taken.begin(), taken.end(), [&](const QRectF& r) { return r.intersects(room); });
      if (!free || !all.contains(middle)) continue;
      taken.push_back(room);
      paint_label(painter, middle, QString::number(levels_[i]), theme::ink2());
    }
  }
}

// A pull that points out of the picture is a dot, as what is left of its stroke.
void CutPicture::paint_strokes(QPainter& painter) const {
  const Samples& s = map_.strength;
  const int every = int(kStrokeEvery / s.step);
  QColor ink = theme::ink();
  ink.setAlpha(190);
  painter.setPen(QPen(ink, 1.1));
  painter.setBrush(ink);
  for (int row = every / 2; row < s.rows; row += every) {
    for (int column = every / 2; column < s.columns; column += every) {
      const Vec3& pull = map_.pull_C[std::size_t(row) * std::size_t(s.columns) + std::size_t(column)];
      const double strength = length(pull);
      if (strength <= 0.0) continue;
      const double scale = std::min(kStroke, kLongestStroke / strength);
      const QPointF at(column * s.step, row * s.step);
      const QPointF way(dot(pull, cut_.across_C) * scale, -dot(pull, cut_.up_C) * scale);
      const double size = std::hypot(way.x(), way.y());
      if (size < 1.5) {
        painter.drawEllipse(at, 1.0, 1.0);
        continue;
      }
      const QPointF tip = at + 0.5 * way, tail = at - 0.5 * way, along = way / size,
                    side(-along.y(), along.x());
      painter.drawLine(tail, tip);
      const double head = std::min(4.5, 0.5 * size);
      painter.drawPolygon(QPolygonF(
          {tip, tip - along * head + side * (0.45 * head), tip - along * head - side * (0.45 * head)}));
    }
  }
}

void CutPicture::paint_outline(QPainter& painter, const Outline& outline, bool chosen) const {
  const QPen line(outline.colour, chosen ? 2.6 : 1.5, Qt::SolidLine, Qt::RoundCap);
  const QPen thin(outline.colour, chosen ? 1.8 : 1.2, Qt::SolidLine, Qt::RoundCap);
  if (outline.dashed) {
    paint_dashed(painter, outline.surface, line, 8.0);
    paint_dashed(painter, outline.reach, thin, 8.0);
  } else {
    paint_lines(painter, outline.surface, line);
    paint_lines(painter, outline.reach, thin);
  }
  paint_dashed(painter, outline.fade, thin, 3.0);
  paint_lines(painter, outline.air, QPen(outline.colour, 1.6));
  for (const QLineF& air : outline.air) painter.drawEllipse(air.p2(), 1.5, 1.5);
}

void CutPicture::paint_name(QPainter& painter, const Outline& outline, bool chosen) const {
  const QRectF all{QPointF(), QSizeF(size_)};
  if (!all.contains(outline.middle) || (outline.surface.empty() && outline.reach.empty() && !chosen)) return;
  painter.setFont(theme::text_font(12, chosen));
  const QPointF below(0.0, outline.row.list == CourseList::Fields ? 16.0 : 0.0);
  paint_label(painter, outline.middle + below, outline.name,
              outline.colour.darker(theme::light() == theme::Light::Daylight ? 140 : 80));
}

}  // namespace lagniappe::app
