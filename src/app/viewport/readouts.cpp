// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/readouts.h"

#include <QPainter>
#include <algorithm>

#include "theme/state_colours.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kRowHeight = 19, kMargin = 14, kPanelWidth = 212, kNameWidth = 84;
constexpr int kBelowHint = 48;           // Pixels from the top that the line of advice takes.
constexpr double kFarthestLabel = 45.0;  // m from the eye.

QString signed_number(double x, int digits) {
  // No "-0.00".
  const double shown = std::abs(x) < 0.5 * std::pow(10.0, -digits) ? 0.0 : x;
  return (shown > 0.0 ? "+" : "") + QString::number(shown, 'f', digits);
}

void paint_sheet(QPainter& painter, const QRectF& r) {
  QColor sheet = theme::sheet();
  sheet.setAlpha(235);
  painter.setPen(QPen(theme::rule(), 1));
  painter.setBrush(sheet);
  painter.drawRoundedRect(r, 6, 6);
}

}  // namespace

void Readouts::set_place(const Place& place) {
  labels_.clear();
  const Vec3 start = start_home(place.course).foot_C;
  add_metre_labels(place, start, Vec3(1, 0, 0), "x");
  add_metre_labels(place, start, Vec3(0, 0, 1), "z");
  for (const Mark& mark : place.course.marks) {
    labels_.push_back({mark.at_C + Vec3(0, 0.08, 0), QString::fromStdString(mark.id), true});
  }
}

// Every 5 m from the start on, where there is ground near the start's height to write on.
void Readouts::add_metre_labels(const Place& place, const Vec3& from_C, const Vec3& axis,
                                const QString& letter) {
  for (int metres = -60; metres <= 60; metres += 5) {
    if (metres == 0) continue;
    const Vec3 above = from_C + axis * double(metres) + Vec3(0, 1.5, 0);
    const auto ground = place.world.cast_ray(above, Vec3(0, -3.5, 0));
    if (ground)
      labels_.push_back({ground->hit.point_C + Vec3(0, 0.03, 0),
                         QString("%1 %2 m").arg(letter, signed_number(metres, 0)), false});
  }
}

std::vector<std::pair<QString, QString>> Readouts::rows() const {
  const CharacterState& s = session_.current();
  const Vec3 up = s.up_C();
  const bool touching = s.ground.verdict != Verdict::None;
  const double slope = touching ? degrees(std::acos(std::clamp(dot(s.ground.normal_C, up), -1.0, 1.0))) : 0.0;
  const Vec3 own = s.velocity_C - s.ground_velocity_C;
  const double along = s.grounded() ? length(own) : length(across(own, up));
  return {
      {"State", QString::fromUtf8(session_.chart().name_of(s.state).data())},
      {s.grounded() ? "Over ground" : "Across up", QString::number(along, 'f', 2) + " m/s"},
      {"In course", QString::number(length(s.velocity_C), 'f', 2) + " m/s"},
      {"Rise", signed_number(dot(s.velocity_C, up), 2) + " m/s"},
      {"Slope", touching ? QString::number(slope, 'f', 1) + QString::fromUtf8("°") : QString::fromUtf8("–")},
      {"Ground", s.crushed      ? "crushed"
                 : s.grounded() ? "grounded"
                 : touching     ? QString::fromUtf8(name_of(s.ground.verdict).data())
                                : "in the air"},
      {"Ticks", QString("%1 /s").arg(session_.tick_rate())},
      {"Drawn", QString::number(frame_.frames_per_second, 'f', 0) + " /s"},
      {"Dropped", QString::number(session_.dropped_seconds(), 'f', 2) + " s"}};
}

void Readouts::paint(QPainter& painter, const Frame& frame) {
  frame_ = frame;
  painter.setRenderHint(QPainter::Antialiasing);
  if (session_.place() != nullptr) {
    paint_labels(painter);
    paint_panel(painter);
  }
  paint_hint(painter);
  paint_trail_legend(painter, paint_legend(painter));
}

// Whether a solid or the figure stands before a place.
bool Readouts::hidden(const Vec3& at_C) const {
  const Vec3 to_place = at_C - frame_.eye.at_C;
  if (session_.place()->world.cast_ray(frame_.eye.at_C, to_place * 0.99, session_.moment())) return true;
  if (!frame_.figure_shown) return false;
  const Pose pose = session_.pose();
  const double radius = session_.shown_profile().capsule.radius + 0.1;
  for (double height = 0.0; height <= pose.capsule_height; height += 0.5 * radius) {
    const Vec3 to_body = pose.foot_C + pose.up_C() * height - frame_.eye.at_C;
    const double along = dot(to_body, to_place) / length_squared(to_place);
    if (along > 0.0 && along < 1.02 && length(to_body - to_place * along) < radius) return true;
  }
  return false;
}

void Readouts::paint_labels(QPainter& painter) const {
  for (const Label& label : labels_) {
    const Vec3 to_label = label.at_C - frame_.eye.at_C;
    const double far = length(to_label);
    if (far > kFarthestLabel || far < 0.5) continue;
    const glm::dvec4 clip = frame_.to_clip * glm::dvec4(label.at_C, 1.0);
    if (clip.w <= 0.0) continue;
    const QPointF at((clip.x / clip.w * 0.5 + 0.5) * frame_.size.width(),
                     (0.5 - clip.y / clip.w * 0.5) * frame_.size.height());
    if (!QRectF(QPointF(0, 0), frame_.size).contains(at)) continue;
    if (hidden(label.at_C)) continue;
    painter.setFont(label.strong ? theme::text_font(11, true) : theme::number_font(10));
    const QRectF box = QRectF(painter.fontMetrics().boundingRect(label.text)).adjusted(-4, -1, 4, 1);
    const QRectF placed = box.translated(at - box.center());
    QColor paper = theme::sheet();
    paper.setAlpha(label.strong ? 225 : 150);
    painter.setPen(Qt::NoPen);
    painter.setBrush(paper);
    painter.drawRoundedRect(placed, 3, 3);
    painter.setPen(label.strong ? theme::strong_moss() : theme::ink());
    painter.drawText(placed, Qt::AlignCenter, label.text);
  }
}

void Readouts::paint_panel(QPainter& painter) const {
  const auto shown = rows();
  const QRectF panel(kMargin, frame_.size.height() - kMargin - kRowHeight * double(shown.size()) - 12,
                     kPanelWidth, kRowHeight * double(shown.size()) + 12);
  if (panel.top() < kBelowHint) return;  // No room: the figure matters more.
  paint_sheet(painter, panel);
  double y = panel.top() + 6;
  for (const auto& [name, value] : shown) {
    painter.setFont(theme::text_font(12));
    painter.setPen(theme::ink2());
    painter.drawText(QRectF(panel.left() + 12, y, kNameWidth, kRowHeight), Qt::AlignVCenter, name);
    painter.setFont(theme::number_font(12));
    painter.setPen(theme::ink());
    painter.drawText(QRectF(panel.left() + kNameWidth, y, kPanelWidth - kNameWidth - 12, kRowHeight),
                     Qt::AlignVCenter | Qt::AlignRight, value);
    const CharacterState& s = session_.current();
    const QPointF lamp(panel.left() + 76, y + kRowHeight / 2.0);
    if (name == "State") {
      painter.setPen(Qt::NoPen);
      painter.setBrush(theme::state_colour(s.state, session_.chart()));
      painter.drawRoundedRect(QRectF(lamp.x() - 5, lamp.y() - 5, 10, 10), 2, 2);
    } else if (name == "Ground") {
      // A lamp that is full when grounded and a ring when not: told apart without colour.
      painter.setPen(QPen(s.grounded() ? theme::moss() : theme::plum(), 2));
      painter.setBrush(s.grounded() ? QBrush(theme::moss()) : QBrush(Qt::NoBrush));
      painter.drawEllipse(lamp, 4.5, 4.5);
    }
    y += kRowHeight;
  }
}

QString Readouts::hint() const {
  if (session_.place() == nullptr) return "Open a course or a model with Ctrl+O, or drop a file here";
  if (frame_.driving) {
    return session_.paused() ? "Paused.  P drives on from here, the keys , and . step.  Esc leaves driving"
           : frame_.watched  ? "Driving, the camera stays: the mouse turns the character.  V takes the camera "
                               "along,  Esc leaves"
                             : "Driving.  Esc gives the mouse back,  F1 lists the keys";
  }
  if (!frame_.has_driven && session_.shown().run.ticks() < 120)
    return "Press Enter, or Drive, to walk.  Drag to look round,  F1 lists the keys";
  const std::size_t at = session_.playhead(), last = session_.shown().run.ticks();
  if (at < last)
    return QString("Tick %1 of %2.  Enter drives on from here, the keys , and . step").arg(at).arg(last);
  return "Enter drives on.  Drag on the tape to go back in time,  drag here to look round";
}

// Under the hint, at the left.
double Readouts::paint_legend(QPainter& painter) const {
  constexpr double kLine = 17.0, kLegendWidth = 330.0;
  double rows = 0.0;
  for (const LegendLine& line : legend_) rows += line.more.isEmpty() ? 1.0 : 2.0;
  const QRectF box(kMargin, kMargin + 38.0, std::min(kLegendWidth, frame_.size.width() - 2.0 * kMargin),
                   rows * kLine + 12.0);
  if (legend_.empty()) return box.top();
  paint_sheet(painter, box);
  double y = box.top() + 6.0;
  for (const LegendLine& line : legend_) {
    painter.setPen(QPen(line.colour, 2.5, line.pen));
    painter.drawLine(QPointF(box.left() + 10, y + kLine / 2), QPointF(box.left() + 34, y + kLine / 2));
    const auto text = [&](const QString& what, const QColor& colour, const QFont& font) {
      painter.setFont(font);
      painter.setPen(colour);
      const QRectF r(box.left() + 42, y, box.width() - 50, kLine);
      painter.drawText(r, Qt::AlignVCenter,
                       painter.fontMetrics().elidedText(what, Qt::ElideRight, int(r.width())));
      y += kLine;
    };
    text(line.text, theme::ink(), theme::text_font(12));
    if (!line.more.isEmpty()) text(line.more, theme::ink2(), theme::text_font(11));
  }
  return box.bottom() + 8.0;
}

void Readouts::paint_trail_legend(QPainter& painter, double top) const {
  constexpr double kLine = 16.0, kLegendWidth = 190.0;
  if (frame_.trail.rows.empty()) return;
  const QRectF box(kMargin, top, kLegendWidth, kLine * double(frame_.trail.rows.size() + 1) + 12.0);
  paint_sheet(painter, box);
  painter.setFont(theme::text_font(11, true));
  painter.setPen(theme::ink());
  painter.drawText(QRectF(box.left() + 10, box.top() + 5, box.width() - 14, kLine), Qt::AlignVCenter,
                   frame_.trail.title);
  double y = box.top() + 6.0 + kLine;
  for (const TrailLegend::Row& row : frame_.trail.rows) {
    painter.fillRect(QRectF(box.left() + 10, y + 3, 16, 10), row.colour);
    painter.setFont(theme::number_font(11));
    painter.drawText(QRectF(box.left() + 34, y, box.width() - 40, kLine), Qt::AlignVCenter, row.text);
    y += kLine;
  }
}

void Readouts::paint_hint(QPainter& painter) const {
  const QString text = hint();
  painter.setFont(theme::text_font(12, true));
  const QRectF box(kMargin, kMargin, painter.fontMetrics().horizontalAdvance(text) + 40, 30);
  paint_sheet(painter, box);
  painter.setPen(Qt::NoPen);
  painter.setBrush(frame_.driving ? (session_.paused() ? theme::gold() : theme::teal()) : theme::ink2());
  if (frame_.driving && session_.paused()) {
    painter.drawRect(QRectF(box.left() + 12, box.center().y() - 5, 3, 10));
    painter.drawRect(QRectF(box.left() + 18, box.center().y() - 5, 3, 10));
  } else {
    painter.drawEllipse(QPointF(box.left() + 17, box.center().y()), 4, 4);
  }
  painter.setPen(theme::ink());
  painter.drawText(box.adjusted(29, 0, 0, 0), Qt::AlignVCenter, text);
}

}  // namespace lagniappe::app
