// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/drawing_view.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <cmath>

#include "cards/plain_number.h"
#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr double kHandle = 5.0, kReach = 10.0;  // Radius of a handle, and how near a click must be. Pixels.
constexpr int kAside = 12, kBelow = 8;
constexpr int kShownDigits = 6;                  // Of a value in its field.
constexpr double kDigits = 1e-3;                 // Of a value that a handle sets.
constexpr double kNudge = 1.0, kBigNudge = 8.0;  // Pixels per arrow key.

// Rounded to a power of ten no larger than `worth`.
double rounded(double value, double worth) {
  if (worth <= 0.0) return value;
  const double unit = std::pow(10.0, std::floor(std::log10(worth)));
  return plain_number(value, unit);
}

Extent united(const Extent& a, const Extent& b) {
  return {std::min(a.left, b.left), std::max(a.right, b.right), std::min(a.bottom, b.bottom),
          std::max(a.top, b.top), a.to_scale};
}

}  // namespace

DrawingView::DrawingView(std::unique_ptr<CardDrawing> drawing, ValuesDesk* desk, QWidget* parent)
    : QWidget(parent), drawing_(std::move(drawing)), desk_(desk) {
  setFixedHeight(drawing_->height());
  setMouseTracking(true);
  setFocusPolicy(desk_ != nullptr ? Qt::StrongFocus : Qt::NoFocus);
  describe();
}

// For who hears the drawing: what the keyboard holds, and how it is moved.
void DrawingView::describe() {
  if (desk_ == nullptr) return;
  QString text = tr("Space chooses the next handle, arrow keys move it, with Shift further");
  if (chosen_) {
    const Handle& handle = handles()[*chosen_];
    const ProfileField* field = find_field(handle.path);
    const QString value = field == nullptr ? QString()
                                           : QString(" %1 %2")
                                                 .arg(field->typed(now_), 0, 'g', kShownDigits)
                                                 .arg(qt(text_of(field->unit)))
                                                 .trimmed();
    text = tr("%1 %2, %3 of %4. ").arg(handle.name, value).arg(*chosen_ + 1).arg(handles().size()) + text;
  }
  if (accessibleDescription() != text) setAccessibleDescription(text);
}

void DrawingView::show_profiles(const Profile& now, const Profile& reference, int tick_rate) {
  drawing_->tick_rate = tick_rate;
  now_ = now;
  reference_ = reference;
  differs_ = !differences(now, reference).empty();
  draw_anew();
  // Who is not seen need not be laid out: only what the keyboard or the mouse holds is looked at now.
  if (chosen_ && *chosen_ >= handles().size()) chosen_.reset();
  if (hovered_ && *hovered_ >= handles().size()) hovered_.reset();
  describe();
}

QRectF DrawingView::area() const {
  return QRectF(rect()).adjusted(kAside, kBelow, -kAside, -kBelow - drawing_->footer());
}

const DrawingView::Drawn& DrawingView::drawn() const {
  if (drawn_) return *drawn_;
  Extent extent = held_extent_.value_or(drawing_->extent(now_));
  if (covers_reference_) extent = united(extent, drawing_->extent(reference_));  // Both are looked at.
  Sketch sketch(extent, area(), drawing_->footer());
  if (differs_) drawing_->draw_reference(sketch, reference_);
  drawing_->draw(sketch, now_);
  std::vector<Handle> handles = drawing_->handles(now_);
  if (!covers_reference_) {
    for (const Handle& handle : handles) sketch.keep_clear(handle.at, kHandle + 1.0);
  }
  return drawn_.emplace(Drawn{std::move(sketch), std::move(handles)});
}

void DrawingView::draw_anew() {
  drawn_.reset();
  update();
}

void DrawingView::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  draw_anew();
}

// Other fonts and colours.
void DrawingView::changeEvent(QEvent* event) {
  QWidget::changeEvent(event);
  draw_anew();
}

QPointF DrawingView::place_of(std::size_t handle) const {
  const QRectF room = QRectF(rect()).adjusted(kHandle, kHandle, -kHandle, -kHandle);
  const QPointF at = sketch().at(handles()[handle].at);
  return {std::clamp(at.x(), room.left(), room.right()), std::clamp(at.y(), room.top(), room.bottom())};
}

std::optional<std::size_t> DrawingView::handle_at(const QPointF& p) const {
  std::optional<std::size_t> nearest;
  double distance = kReach;
  for (std::size_t i = 0; desk_ != nullptr && i < handles().size(); ++i) {
    const double d = QLineF(place_of(i), p).length();
    if (d <= distance) nearest = i, distance = d;
  }
  return nearest;
}

void DrawingView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.fillRect(rect(), theme::sheet());
  painter.setClipRect(rect());
  sketch().paint(painter);
  if (desk_ == nullptr) return;
  if (hasFocus()) {
    painter.setPen(theme::teal());
    painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 4, 4);
  }
  for (std::size_t i = 0; i < handles().size(); ++i) {
    const bool strong = (chosen_ == i && (hasFocus() || gesture_ != 0)) || hovered_ == i;
    painter.setPen(QPen(strong ? theme::ink() : theme::teal(), 2.0));
    painter.setBrush(strong ? theme::gold() : theme::colours().field);
    painter.drawEllipse(place_of(i), kHandle, kHandle);
  }
}

void DrawingView::choose(std::optional<std::size_t> handle) {
  chosen_ = handle;
  describe();
  if (handle && desk_ != nullptr) desk_->attend(QString::fromStdString(handles()[*handle].path));
  update();
}

void DrawingView::pull(std::size_t handle, const QPointF& to, int gesture) {
  const Handle taken = handles()[handle];
  const Sketch shown = sketch();  // A copy: what is set draws anew.
  const Vec2 at = shown.from(to);
  // To what a pixel can tell, so that values stay plain numbers.
  const Vec2 plain_at(rounded(at.x, 1.0 / shown.scale().x), rounded(at.y, 1.0 / shown.scale().y));
  Profile pulled = drawing_->pulled(now_, handle, plain_at);
  const ProfileField* field = find_field(taken.path);
  if (field != nullptr && field->get(pulled) != field->get(now_)) {
    const double value = field->typed(pulled);
    field->set_typed(pulled, rounded(value, std::abs(value) * kDigits));
  }
  // What follows from it, as the other values of a jump do, is what its field shows.
  for (const ProfileField& follower : profile_fields()) {
    if (&follower != field && follower.get(pulled) != follower.get(now_))
      follower.set_typed(pulled, with_digits(follower.typed(pulled), kShownDigits));
  }
  desk_->set(pulled, QString::fromStdString(taken.path), gesture);
}

void DrawingView::mousePressEvent(QMouseEvent* event) {
  const auto handle = event->button() == Qt::LeftButton ? handle_at(event->position()) : std::nullopt;
  choose(handle);
  if (!handle) return QWidget::mousePressEvent(event);
  grip_ = event->position() - place_of(*handle);
  held_extent_ = drawing_->extent(now_);
  draw_anew();
  gesture_ = desk_->new_gesture();
}

void DrawingView::mouseMoveEvent(QMouseEvent* event) {
  if (gesture_ != 0 && chosen_) return pull(*chosen_, event->position() - grip_, gesture_);
  const auto over = handle_at(event->position());
  setCursor(over ? Qt::SizeAllCursor : Qt::ArrowCursor);
  if (over != hovered_) hovered_ = over, update();
}

void DrawingView::mouseReleaseEvent(QMouseEvent*) {
  gesture_ = 0;
  held_extent_.reset();
  draw_anew();
}

void DrawingView::mouseDoubleClickEvent(QMouseEvent* event) {
  if (desk_ == nullptr || handle_at(event->position())) return;
  const auto more = drawing_->with_point(now_, sketch().from(event->position()));
  if (more) desk_->set(*more, tr("a point of a curve"));
}

void DrawingView::keyPressEvent(QKeyEvent* event) {
  const std::size_t count = handles().size();
  const double way = event->modifiers() & Qt::ShiftModifier ? kBigNudge : kNudge;
  const QPointF moves[] = {{-way, 0.0}, {0.0, -way}, {way, 0.0}, {0.0, way}};  // Left, Up, Right, Down.
  const int key = event->key();
  if (desk_ == nullptr || count == 0) return QWidget::keyPressEvent(event);
  if (key == Qt::Key_Space) return choose(chosen_ ? (*chosen_ + 1) % count : 0);
  if (!chosen_) return QWidget::keyPressEvent(event);
  if (key >= Qt::Key_Left && key <= Qt::Key_Down) {
    // One gesture for as long as the key repeats.
    if (!event->isAutoRepeat() || key_gesture_ == 0) key_gesture_ = desk_->new_gesture();
    pull(*chosen_, sketch().at(handles()[*chosen_].at) + moves[key - Qt::Key_Left], key_gesture_);
  } else if (key == Qt::Key_Delete || key == Qt::Key_Backspace) {
    if (const auto less = drawing_->without_point(now_, *chosen_)) desk_->set(*less, tr("a point of a curve"));
  } else {
    QWidget::keyPressEvent(event);
  }
}

void DrawingView::focusInEvent(QFocusEvent* event) {
  if (!chosen_ && event->reason() != Qt::MouseFocusReason && !handles().empty()) choose(0);
  update();
}

void DrawingView::focusOutEvent(QFocusEvent*) { update(); }

void DrawingView::leaveEvent(QEvent*) {
  hovered_.reset();
  update();
}

bool DrawingView::event(QEvent* event) {
  if (event->type() == QEvent::ToolTip) {
    auto* help = static_cast<QHelpEvent*>(event);
    const auto over = handle_at(help->pos());
    if (over) QToolTip::showText(help->globalPos(), handles()[*over].tip, this);
    return true;
  }
  return QWidget::event(event);
}

}  // namespace lagniappe::app
