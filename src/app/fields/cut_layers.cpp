// SPDX-License-Identifier: GPL-3.0-or-later
// What moves over the picture of a cut: throws, the take's way, the character, handles and words.
#include <QPainter>
#include <algorithm>
#include <array>
#include <cmath>

#include "fields/cut_view.h"
#include "theme/theme.h"
#include "viewport/zone_lines.h"

namespace lagniappe::app {
namespace {

constexpr double kInCut = 0.75;                         // m off the cut that still count as in it.
constexpr double kDotsEvery = 0.1, kSecondsNear = 3.5;  // s.
constexpr std::size_t kMostWayPoints = 6000;
constexpr double kPullArrow = 4.2;  // Pixels for a m/s2: three times the strokes'.
constexpr int kHandleSize = 5;      // Pixels.

double share_off(double off) { return std::abs(off) < kInCut ? 1.0 : 0.35; }

QColor faded(QColor colour, double share) {
  colour.setAlphaF(colour.alphaF() * share);
  return colour;
}

void paint_arrow(QPainter& painter, const QPointF& from, const QPointF& to, const QColor& colour) {
  const QPointF way = to - from;
  const double size = std::hypot(way.x(), way.y());
  if (size < 2.0) return;
  const QPointF along = way / size, side(-along.y(), along.x());
  painter.setPen(QPen(colour, 2));
  painter.setBrush(colour);
  painter.drawLine(from, to - along * 5.0);
  painter.drawPolygon(QPolygonF({to, to - along * 9.0 + side * 4.0, to - along * 9.0 - side * 4.0}));
}

// A length of the scale bar: 1, 2 or 5 times a power of ten.
double round_length(double metres) {
  const double power = std::pow(10.0, std::floor(std::log10(metres))), part = metres / power;
  return power * (part < 2.0 ? 1.0 : part < 5.0 ? 2.0 : 5.0);
}

}  // namespace

// Where launches lead, to scale.
void CutView::paint_throws(QPainter& painter) const {
  const Course& course = *desk_.course();
  for (std::size_t i = 0; i < course.zones.size(); ++i) {
    const ThrowPreview thrown = throw_preview(session_, pulls_->world(), static_cast<ZoneId>(i));
    if (thrown.foot_C.empty()) continue;
    const bool fails = thrown.blocked || thrown.terminal;
    const double share = share_off(cut_.off(thrown.foot_C.front()));
    QPolygonF way;
    for (const Vec3& p : thrown.foot_C) way += pixel_of(p);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(faded(fails ? theme::brick() : theme::gold(), share), 1.8));
    painter.drawPolyline(way);
    painter.drawEllipse(way.back(), 4.0, 4.0);
  }
}

// With a dot for every tenth of a second, and the seconds near the playhead.
void CutView::paint_way(QPainter& painter) const {
  if (!session_.has_shown()) return;
  const Run& run = session_.shown().run;
  const std::size_t ticks = run.ticks(), by = std::max<std::size_t>(1, ticks / kMostWayPoints);
  const auto dots = std::max<std::size_t>(1, std::size_t(std::lround(kDotsEvery * run.tick_rate())));
  QPointF last;
  painter.setFont(theme::number_font(11));
  for (std::size_t t = 0; t <= ticks; t += by) {
    const CharacterState& state = run.state(t);
    const QColor colour = faded(theme::teal(), share_off(cut_.off(state.foot_C)));
    const QPointF at = pixel_of(state.foot_C);
    const bool jumped = t == 0 || state.times_put_home != run.state(t - by).times_put_home;
    painter.setPen(QPen(colour, 1.6));
    if (!jumped) painter.drawLine(last, at);
    last = at;
    if (by > 1 || t % dots != 0) continue;
    painter.setBrush(colour);
    const bool second = t % (dots * 10) == 0;
    painter.drawEllipse(at, second ? 3.2 : 1.7, second ? 3.2 : 1.7);
    const double apart = std::abs(double(t) - double(session_.playhead())) / run.tick_rate();
    if (second && apart > 0.3 && apart < kSecondsNear)
      paint_label(painter, at + QPointF(0.0, -14.0), QString("%1 s").arg(t / (dots * 10)), colour);
  }
}

Vec3 CutView::middle_of_body() const {
  const CharacterState& state = session_.current();
  const Profile::Capsule& capsule = session_.shown_profile().capsule;
  return state.foot_C + state.up_C() * (capsule.centre_of_mass * state.capsule_height / capsule.height);
}

void CutView::paint_character(QPainter& painter) const {
  const CharacterState& state = session_.current();
  const Profile& profile = session_.shown_profile();
  const double radius = profile.capsule.radius, off = cut_.off(state.foot_C);
  const QColor ink = faded(theme::ink(), share_off(off));
  const Vec3 up = state.up_C();
  const QPointF low = pixel_of(state.foot_C + up * radius),
                high = pixel_of(state.foot_C + up * std::max(state.capsule_height - radius, radius));
  painter.setPen(QPen(ink, 2.0 * radius * cut_.pixels + 3.0, Qt::SolidLine, Qt::RoundCap));
  painter.drawLine(low, high);
  painter.setPen(QPen(theme::gold(), std::max(2.0 * radius * cut_.pixels, 2.0), Qt::SolidLine, Qt::RoundCap));
  painter.drawLine(low, high);
  const QPointF head = pixel_of(state.foot_C + up * (state.capsule_height + 0.6));
  paint_arrow(painter, pixel_of(state.foot_C + up * state.capsule_height), head, ink);
  const Vec3 middle_C = middle_of_body();
  const Vec3 pull = pulls_->at(middle_C, shown_time());
  const QPointF middle = pixel_of(middle_C);
  paint_arrow(painter, middle, middle + QPointF(dot(pull, cut_.across_C), -dot(pull, cut_.up_C)) * kPullArrow,
              theme::brick());
}

// What pulls on the character, in a box beside it.
void CutView::paint_readout(QPainter& painter) const {
  const Vec3 middle_C = middle_of_body();
  const double off = cut_.off(session_.current().foot_C);
  const QPointF middle = pixel_of(middle_C);
  painter.setFont(theme::text_font(11));
  QStringList words = words_at(middle_C);
  if (std::abs(off) >= kInCut)
    words += off > 0.0 ? tr("%1 m before the cut").arg(off, 0, 'f', 1)
                       : tr("%1 m behind the cut").arg(-off, 0, 'f', 1);
  const QFontMetrics metrics(theme::text_font(11));
  int wide = 0;
  for (const QString& word : words) wide = std::max(wide, metrics.horizontalAdvance(word));
  QRectF box(middle.x() - 0.5 * wide - 8, middle.y() + 34.0, wide + 16.0, 16.0 * double(words.size()) + 8.0);
  const QRectF room = QRectF(QPointF(), QSizeF(picture_size())).adjusted(6, 6, -6, -6);
  if (!room.contains(middle)) return;
  if (box.bottom() > room.bottom()) box.moveBottom(middle.y() - 34.0);
  box.moveLeft(std::clamp(box.left(), room.left(), room.right() - box.width()));
  painter.setPen(QPen(theme::ink(), 1.2));
  painter.setBrush(theme::sheet());
  painter.drawRect(box);
  for (int i = 0; i < words.size(); ++i) {
    painter.setFont(theme::text_font(11, i == 0));
    painter.setPen(i == 0 ? theme::ink() : theme::ink2());
    painter.drawText(QPointF(box.left() + 8.0, box.top() + 16.0 * (i + 1)), words[i]);
  }
}

// With a tick a metre.
void CutView::paint_line(QPainter& painter) const {
  const QPointF from = pixel_of(from_C_), to = pixel_of(to_C_), way = to - from;
  const double size = std::hypot(way.x(), way.y());
  painter.setPen(QPen(theme::ink(), 1.6));
  painter.drawLine(from, to);
  const double metres = length(to_C_ - from_C_);
  const double every = metres > 0.0 && size / metres > 6.0 ? 1.0 : 0.0;
  if (every > 0.0 && size > 0.0) {
    const QPointF side(-way.y() / size * 3.5, way.x() / size * 3.5);
    for (double m = every; m < metres; m += every) {
      const QPointF at = from + way * (m / metres);
      painter.drawLine(at - side, at + side);
    }
  }
  painter.setFont(theme::text_font(12, true));
  for (const auto& [at, name] : {std::pair(from, tr("A")), std::pair(to, tr("B"))}) {
    painter.setBrush(theme::sheet());
    painter.setPen(QPen(theme::ink(), 1.8));
    painter.drawEllipse(at, 4.5, 4.5);
    paint_label(painter, at + QPointF(0.0, -15.0), name, theme::ink());
  }
}

void CutView::paint_handles(QPainter& painter) const {
  if (!chosen_) return;
  const QColor colour = row_colour(*desk_.course(), *chosen_);
  painter.setFont(theme::text_font(11));
  for (const CutHandle& handle : handles()) {
    const QPointF at = pixel_of(handle.at_C), from = pixel_of(handle.from_C);
    painter.setPen(QPen(colour, 1));
    painter.drawLine(from, at);
    painter.setPen(QPen(colour, 2));
    painter.setBrush(theme::sheet());
    painter.drawEllipse(at, kHandleSize, kHandleSize);
    if (handle.kind != CutHandle::Kind::Place)
      paint_label(painter, at + QPointF(at.x() < from.x() ? -8.0 : 8.0, 15.0), handle.name, theme::ink());
  }
}

QStringList CutView::words_at(const Vec3& at_C) const {
  const double strength = length(pulls_->at(at_C, shown_time()));
  QStringList words = {strength > 0.0 ? tr("Pull %1 m/s\u00b2").arg(strength, 0, 'f', 1) : tr("Nothing pulls")};
  // As the ledger tells it: the factor of what each pulls by itself.
  std::array<FieldShare, kMostFields + 1> shares;
  const std::size_t count =
      pulls_->fields().empty() ? 0 : pulls_->world().field_shares(at_C, shown_time(), shares);
  QStringList named;
  for (std::size_t i = 0; i < count; ++i) {
    if (shares[i].share < 0.005) continue;
    const QString name = shares[i].field == kBelowFields
                             ? tr("the course's own")
                             : QString::fromStdString(pulls_->fields()[shares[i].field].id);
    named += QString("%1 %2 %").arg(name).arg(100.0 * shares[i].share, 0, 'f', 0);
  }
  return named.isEmpty() ? words : words << named.join(", ");
}

// Under the pointer.
void CutView::paint_words(QPainter& painter) const {
  if (!pointer_ || drag_ != Drag::None || !QRectF(QPointF(), QSizeF(picture_size())).contains(*pointer_))
    return;
  painter.setFont(theme::text_font(11));
  const QString text = words_at(cut_.point(*pointer_, picture_size())).join(": ");
  const double half = 0.5 * painter.fontMetrics().horizontalAdvance(text) + 8.0;
  const double x = std::clamp(pointer_->x(), half, std::max(half, width() - half));
  paint_label(painter, {x, pointer_->y() + (pointer_->y() < 30.0 ? 24.0 : -18.0)}, text, theme::ink());
}

void CutView::paint_legend(QPainter& painter) const {
  const QRectF strip(0, picture_size().height(), width(), height() - picture_size().height());
  painter.fillRect(strip, theme::sheet());
  painter.setPen(theme::rule());
  painter.drawLine(strip.topLeft(), strip.topRight());
  painter.setFont(theme::text_font(11));
  const double y = strip.center().y();
  double x = 14.0;
  const auto text = [&](const QString& words) {
    painter.setPen(theme::ink());
    const int wide = painter.fontMetrics().horizontalAdvance(words);
    painter.drawText(QPointF(x, y + 4.0), words);
    x += wide + 18.0;
  };
  paint_arrow(painter, {x, y}, {x + 14.0, y}, theme::ink());
  x += 20.0;
  text(tr("pull, 10 m/s\u00b2 this long"));
  const auto& levels = picture_->levels();
  for (std::size_t band = 0; band <= levels.size() && !levels.empty(); ++band) {
    const QString name = band == levels.size()
                             ? QString("%1+").arg(levels.back())
                             : QString("%1\u2013%2").arg(band == 0 ? 0.0 : levels[band - 1]).arg(levels[band]);
    const QRectF box(x, strip.top() + 6.0, painter.fontMetrics().horizontalAdvance(name) + 10.0,
                     strip.height() - 12.0);
    painter.setPen(theme::rule());
    painter.setBrush(theme::paper());
    painter.drawRect(box);
    painter.setBrush(CutPicture::band_colour(band));
    painter.drawRect(box);
    painter.setPen(theme::ink());
    painter.drawText(box, Qt::AlignCenter, name);
    x += box.width();
  }
  x += 6.0;
  text(tr("m/s\u00b2"));
  painter.setPen(QPen(theme::teal(), 1.6));
  painter.setBrush(theme::teal());
  painter.drawLine(QPointF(x, y), QPointF(x + 18.0, y));
  painter.drawEllipse(QPointF(x + 9.0, y), 2.0, 2.0);
  x += 24.0;
  text(tr("take, a dot per 0.1 s"));
  paint_arrow(painter, {x, y}, {x + 18.0, y}, theme::brick());
  x += 24.0;
  text(tr("pull on the body, \u00d73"));
  const double metres = round_length(120.0 / cut_.pixels), bar = metres * cut_.pixels;
  if (x + bar + 20.0 > width()) return;
  const double right = width() - 14.0;
  painter.setPen(QPen(theme::ink(), 1.4));
  painter.drawLine(QPointF(right - bar, y + 5.0), QPointF(right, y + 5.0));
  for (const double end : {right - bar, right}) painter.drawLine(QPointF(end, y + 1.0), QPointF(end, y + 9.0));
  painter.drawText(QRectF(right - bar, strip.top(), bar, y + 4.0 - strip.top()), Qt::AlignCenter,
                   QString("%1 m").arg(metres));
}

}  // namespace lagniappe::app
