// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/readouts.h"

#include <QPainter>
#include <algorithm>

#include "devices/screen_pad.h"
#include "lagniappe/turns.h"
#include "theme/state_colours.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kRowHeight = 19, kMargin = 14, kPanelWidth = 212, kNameWidth = 84;
constexpr int kBelowHint = 48;           // Pixels from the top that the line of advice takes.
constexpr double kFarthestLabel = 45.0;  // m from the eye.
constexpr double kLegendLine = 17.0, kLegendWidth = 330.0;

QString zone_text(const World& world, const CharacterState& state) {
  QStringList names;
  for (std::size_t i = 0; i < state.zones.count; ++i)
    names.push_back(QString::fromUtf8(world.zone(state.zones.id[i], state.time).name.data()));
  return names.join(", ");
}

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
  // Marks first: what lies over another is left out.
  for (const Mark& mark : place.course.marks)
    labels_.push_back({mark.at_C + Vec3(0, 0.08, 0), QString::fromStdString(mark.id), true});
  const Vec3 start = start_home(place.course).foot_C;
  add_metre_labels(place, start, Vec3(1, 0, 0), "x");
  add_metre_labels(place, start, Vec3(0, 0, 1), "z");
}

// Where the strong lines of the grid pass the start, with their course coordinate, where there is ground near
// the start's height to write on.
void Readouts::add_metre_labels(const Place& place, const Vec3& from_C, const Vec3& axis,
                                const QString& letter) {
  constexpr double kApart = 5.0, kReach = 60.0;
  const double start = dot(from_C, axis);
  for (double at = std::ceil((start - kReach) / kApart) * kApart; at <= start + kReach; at += kApart) {
    if (std::abs(at - start) < 0.5) continue;  // One stands there.
    const Vec3 above = from_C + axis * (at - start) + Vec3(0, 1.5, 0);
    const auto ground = place.world.cast_ray(above, Vec3(0, -3.5, 0));
    if (ground)
      labels_.push_back({ground->hit.point_C + Vec3(0, 0.03, 0),
                         QString("%1 %2 m").arg(letter, signed_number(at, 0)), false});
  }
}

std::vector<std::pair<QString, QString>> Readouts::rows() const {
  constexpr int kPullRow = 4;  // Before the slope, which is against it.
  const CharacterState& s = session_.current();
  const Vec3 up = s.up_C();
  const bool touching = s.ground.verdict != Verdict::None;
  const double slope = touching ? degrees(angle_between(s.ground.normal_C, s.judged_up_C())) : 0.0;
  const Vec3 own = s.velocity_C - s.ground_velocity_C;
  const double along = s.grounded() ? length(own) : length(across(own, up));
  std::vector<std::pair<QString, QString>> rows = {
      {"State", QString::fromUtf8(session_.chart().name_of(s.state).data())},
      {s.grounded() ? "Over ground" : "Across up", QString::number(along, 'f', 2) + " m/s"},
      {"In course", QString::number(length(s.velocity_C), 'f', 2) + " m/s"},
      {"Rises", signed_number(dot(s.velocity_C, up), 2) + " m/s"},
      {"Slope", touching ? QString::number(slope, 'f', 1) + QString::fromUtf8("°") : QString::fromUtf8("–")},
      {"Ground", s.crushed      ? "crushed"
                 : s.grounded() ? "grounded"
                 : touching     ? QString::fromUtf8(name_of(s.ground.verdict).data())
                                : "in the air"},
      {"Ticks", QString("%1 /s").arg(session_.tick_rate())},
      {"Frames", session_.live() || session_.playing()
                     ? QString::number(frame_.frames_per_second, 'f', 0) + " /s"
                     : QString("at rest")},
      {"Dropped", QString::number(session_.dropped_seconds(), 'f', 2) + " s"}};
  if (session_.place() != nullptr && session_.place()->world.fields() != nullptr) {
    const double pull = length(Vec3(s.pull_C));
    rows.insert(rows.begin() + kPullRow,
                {"Pull", pull > 0.0 ? QString::number(pull, 'f', 1) + QString::fromUtf8(" m/s²") : "none"});
  }
  if (s.zones.count > 0) rows.push_back({"In zone", zone_text(session_.place()->world, s)});
  return rows;
}

void Readouts::paint(QPainter& painter, const Frame& frame) {
  frame_ = frame;
  painter.setRenderHint(QPainter::Antialiasing);
  if (session_.place() != nullptr) {
    paint_labels(painter);
    paint_panel(painter);
  }
  paint_hint(painter);
  paint_legend(painter);
  const double below = legend_.empty() ? legend_box().top() : legend_box().bottom() + 8.0;
  paint_trail_legend(painter, paint_told(painter, below));
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

// Where a label's place is drawn, if it is near, before the eye and not behind anything.
std::optional<QPointF> Readouts::seen_at(const Label& label) const {
  const double far = length(label.at_C - frame_.eye.at_C);
  if (far > kFarthestLabel || far < 0.5) return std::nullopt;
  const glm::dvec4 clip = frame_.to_clip * glm::dvec4(label.at_C, 1.0);
  if (clip.w <= 0.0) return std::nullopt;
  const QPointF at((clip.x / clip.w * 0.5 + 0.5) * frame_.size.width(),
                   (0.5 - clip.y / clip.w * 0.5) * frame_.size.height());
  if (!QRectF(QPointF(0, 0), frame_.size).contains(at) || hidden(label.at_C)) return std::nullopt;
  return at;
}

// Whole, on nothing else that is written: what does not fit so is left out.
void Readouts::paint_labels(QPainter& painter) const {
  std::vector<QRectF> taken = {panel_box(), hint_box(painter), legend_box()};
  for (const Label& label : labels_) {
    const auto at = seen_at(label);
    if (!at) continue;
    painter.setFont(label.strong ? theme::text_font(11, true) : theme::number_font(10));
    const QRectF box = QRectF(painter.fontMetrics().boundingRect(label.text)).adjusted(-4, -1, 4, 1);
    const QRectF placed = box.translated(*at - box.center());
    const bool free =
        std::none_of(taken.begin(), taken.end(), [&](const QRectF& other) { return other.intersects(placed); });
    if (!free || !QRectF(QPointF(2, 2), frame_.size - QSize(4, 4)).contains(placed)) continue;
    taken.push_back(placed);
    QColor paper = theme::sheet();
    paper.setAlpha(label.strong ? 225 : 150);
    painter.setPen(Qt::NoPen);
    painter.setBrush(paper);
    painter.drawRoundedRect(placed, 3, 3);
    painter.setPen(label.strong ? theme::strong_moss() : theme::ink());
    painter.drawText(placed, Qt::AlignCenter, label.text);
  }
}

// Empty where there is no room: the figure matters more.
QRectF Readouts::panel_box() const {
  const double height = kRowHeight * double(rows().size()) + 12.0;
  if (frame_.pad) {
    const QRectF right(frame_.size.width() - kMargin - kPanelWidth, kMargin, kPanelWidth, height);
    return right.bottom() < ScreenPad::top_in(frame_.size.height()) ? right : QRectF();
  }
  const QRectF panel(kMargin, frame_.size.height() - kMargin - height, kPanelWidth, height);
  return panel.top() < kBelowHint ? QRectF() : panel;
}

void Readouts::paint_panel(QPainter& painter) const {
  const auto shown = rows();
  const QRectF panel = panel_box();
  if (panel.isEmpty()) return;
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

QString Readouts::hint(bool driving, bool has_driven, bool watched, bool away) const {
  const HintKeys& k = keys_;
  if (session_.place() == nullptr)
    return QString("Open a course or a model with %1, or drop a file here").arg(k.open);
  const QString steps = QString("the keys %1 and %2 step").arg(k.back, k.on);
  if (driving && session_.paused())
    return QString("Paused.  %1 drives on from here, %2.  Esc leaves driving").arg(k.pause, steps);
  if (driving && watched)
    return QString(
               "Driving, the camera stays: the mouse turns the character.  %1 takes the camera along,  Esc "
               "leaves")
        .arg(k.camera);
  if (driving) return QString("Driving.  Esc gives the mouse back,  %1 lists the keys").arg(k.all);
  if (away) return QString("Paused: the window was left.  %1 drives on").arg(k.drive);
  const std::size_t at = session_.playhead(), last = session_.shown().run.ticks();
  if (!has_driven && last < 120)
    return QString("Press %1, or Drive, to walk.  Drag to look round,  %2 lists the keys").arg(k.drive, k.all);
  if (at < last)
    return QString("Tick %1 of %2.  %3 drives on from here, %4").arg(at).arg(last).arg(k.drive, steps);
  if (session_.paused()) return QString("Paused.  %1 drives on,  %2 lets time go on").arg(k.drive, k.pause);
  return QString("%1 drives on.  Drag on the tape to go back in time,  drag here to look round").arg(k.drive);
}

// Under the hint, at the left; without height where there is none.
QRectF Readouts::legend_box() const {
  double rows = 0.0;
  for (const LegendLine& line : legend_) rows += line.more.isEmpty() ? 1.0 : 2.0;
  return {kMargin, kMargin + 38.0, std::min(kLegendWidth, frame_.size.width() - 2.0 * kMargin),
          legend_.empty() ? 0.0 : rows * kLegendLine + 12.0};
}

void Readouts::paint_legend(QPainter& painter) const {
  constexpr double kLine = kLegendLine;
  const QRectF box = legend_box();
  if (legend_.empty()) return;
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
}

// What was found at the playhead, or refused there, each in a line of its own; returns where the next box goes.
double Readouts::paint_told(QPainter& painter, double top) const {
  constexpr double kHeight = 24.0, kIcon = 14.0;
  for (const Told& told : told_) {
    painter.setFont(theme::text_font(12));
    const QFontMetrics metrics = painter.fontMetrics();
    const double widest = frame_.size.width() - 2.0 * kMargin;
    const QRectF box(kMargin, top, std::min(widest, metrics.horizontalAdvance(told.text) + 42.0), kHeight);
    paint_sheet(painter, box);
    theme::icon(told.refused ? "x" : "flag", theme::brick())
        .paint(&painter, QRectF(box.left() + 9, box.top() + 5, kIcon, kIcon).toRect());
    painter.setPen(theme::ink());
    const QRectF text = box.adjusted(30, 0, -8, 0);
    painter.drawText(text, Qt::AlignVCenter,
                     metrics.elidedText(told.text, Qt::ElideRight, int(text.width()) + 1));
    top += kHeight + 4.0;
  }
  return told_.empty() ? top : top + 4.0;
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

QRectF Readouts::hint_box(QPainter& painter) const {
  painter.setFont(theme::text_font(12, true));
  const QString text = hint(frame_.driving, frame_.has_driven, frame_.watched, frame_.away);
  return {kMargin, kMargin,
          std::min(painter.fontMetrics().horizontalAdvance(text) + 40.0, frame_.size.width() - 2.0 * kMargin),
          30};
}

void Readouts::paint_hint(QPainter& painter) const {
  const QString text = hint(frame_.driving, frame_.has_driven, frame_.watched, frame_.away);
  const QRectF box = hint_box(painter);
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
  const QRectF room = box.adjusted(29, 0, -6, 0);
  painter.drawText(room, Qt::AlignVCenter,
                   painter.fontMetrics().elidedText(text, Qt::ElideRight, int(room.width()) + 6));
}

}  // namespace lagniappe::app
