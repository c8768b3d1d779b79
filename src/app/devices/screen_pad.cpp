// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/screen_pad.h"

#include <QMouseEvent>
#include <QPainter>
#include <QTouchEvent>
#include <algorithm>

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

struct ButtonRow {
  Action action;
  const char* text;
};
// Four in a line, from the bottom up; what is pressed most lies nearest to the thumb.
constexpr ButtonRow kButtons[] = {
    {Action::Jump, "Jump"}, {Action::Sprint, "Sprint"}, {Action::Crouch, "Crouch"}, {Action::Climb, "Climb"},
    {Action::Lie, "Lie"},   {Action::Fly, "Fly"},       {Action::Reset, "Reset"}};
constexpr int kInLine = 4;
constexpr double kLeastRadius = 22.0, kMostRadius = 58.0, kMargin = 14.0, kGap = 6.0;  // Pixels.
constexpr double kLeastWidth = 400.0, kLeastHeight = 230.0;
constexpr double kButtonWidth = 62.0, kButtonHeight = 34.0;
// Fingers are broad: a stick is taken hold of from this many radii around it.
constexpr double kReach = 1.25;

constexpr double kLines = double((std::size(kButtons) + kInLine - 1) / kInLine);

double radius_in(double height) { return std::clamp(height / 7.0, kLeastRadius, kMostRadius); }

Control control_of(Action action) { return {Controls::kScreenPad, static_cast<std::uint32_t>(action)}; }

QColor clear(QColor colour, int alpha) {
  colour.setAlpha(alpha);
  return colour;
}

}  // namespace

ScreenPad::ScreenPad(Controls& controls, std::function<double(const QInputEvent&)> since_frame, QWidget& over)
    : QWidget(&over), controls_(controls), since_frame_(std::move(since_frame)) {
  setAttribute(Qt::WA_AcceptTouchEvents);
  setFocusPolicy(Qt::NoFocus);
  setObjectName("screenPad");
  setAccessibleName(tr("On-screen pad"));
  setAccessibleDescription(tr("Two sticks and a button for each action, for fingers and the mouse"));
  over.installEventFilter(this);
  lay_out();
}

double ScreenPad::top_in(double height) {
  return height - kMargin - 2.0 * radius_in(height) * kReach - kGap - kLines * (kButtonHeight + kGap);
}

// It is as large as what it lies over.
bool ScreenPad::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::Resize) lay_out();
  return QWidget::eventFilter(watched, event);
}

void ScreenPad::lay_out() {
  end_all();
  const QRectF all = parentWidget()->rect();
  setGeometry(all.toRect());
  laid_ = {};
  // Over a small picture of the view there is no room for fingers.
  if (all.width() < kLeastWidth || all.height() < kLeastHeight) return setMask(QRegion(-2, -2, 1, 1));
  laid_.radius = radius_in(all.height());
  const double aside = kMargin + laid_.radius * kReach;
  laid_.move = {aside, all.height() - aside};
  laid_.look = {all.width() - aside, all.height() - aside};
  const double right = all.width() - kMargin, bottom = laid_.look.y() - laid_.radius * kReach - kGap;
  QRegion mask;
  for (std::size_t i = 0; i < std::size(kButtons); ++i) {
    const double column = double(i % kInLine), line = double(i / kInLine);
    const QRectF box(right - (kInLine - column) * (kButtonWidth + kGap) + kGap,
                     bottom - (line + 1.0) * (kButtonHeight + kGap) + kGap, kButtonWidth, kButtonHeight);
    laid_.buttons.emplace_back(kButtons[i].action, box);
    mask += box.toAlignedRect().adjusted(-1, -1, 1, 1);
  }
  const int reach = int(laid_.radius * kReach) + 1;
  for (const QPointF& middle : {laid_.move, laid_.look})
    mask +=
        QRegion(QRect(middle.toPoint() - QPoint(reach, reach), QSize(2 * reach, 2 * reach)), QRegion::Ellipse);
  setMask(mask);  // All else is the view's.
}

QPointF ScreenPad::middle_of(Action action) const {
  for (const auto& [each, box] : laid_.buttons)
    if (each == action) return box.center();
  return {};
}

bool ScreenPad::is_down(Action action) const {
  return std::any_of(held_.begin(), held_.end(), [&](const auto& held) {
    return held.second.part == Part::Button && held.second.action == action;
  });
}

ScreenPad::Hold ScreenPad::part_at(const QPointF& at) const {
  if (laid_.buttons.empty()) return {Part::Nothing, {}};
  for (const auto& [action, box] : laid_.buttons)
    if (box.contains(at)) return {Part::Button, action};
  const double reach = laid_.radius * kReach;
  if (QLineF(at, laid_.move).length() <= reach) return {Part::MoveStick, {}};
  if (QLineF(at, laid_.look).length() <= reach) return {Part::LookStick, {}};
  return {Part::Nothing, {}};
}

bool ScreenPad::begin(int finger, const QPointF& at, double since_frame) {
  const Hold hold = part_at(at);
  if (hold.part == Part::Nothing) return false;
  emit touched();
  const bool was_down = hold.part == Part::Button && is_down(hold.action);
  held_[finger] = hold;
  if (hold.part == Part::Button && !was_down)
    controls_.press(control_of(hold.action), hold.action, since_frame);
  go_on(finger, at, since_frame);
  update();
  return true;
}

void ScreenPad::go_on(int finger, const QPointF& at, double since_frame) {
  const auto held = held_.find(finger);
  if (held == held_.end() || held->second.part == Part::Button) return;
  const bool moves = held->second.part == Part::MoveStick;
  const QPointF off = (at - (moves ? laid_.move : laid_.look)) / laid_.radius;
  Vec2 stick(off.x(), -off.y());
  if (length(stick) > 1.0) stick = glm::normalize(stick);
  (moves ? sticks_.move : sticks_.look) = stick;
  steer(since_frame);
}

void ScreenPad::end(int finger, double since_frame) {
  const auto held = held_.find(finger);
  if (held == held_.end()) return;
  const Hold hold = held->second;
  held_.erase(held);
  if (hold.part == Part::Button) {
    if (!is_down(hold.action)) controls_.let_go(control_of(hold.action), since_frame);
  } else {
    (hold.part == Part::MoveStick ? sticks_.move : sticks_.look) = Vec2(0.0);
    steer(since_frame);
  }
  update();
}

void ScreenPad::end_all() {
  held_.clear();
  sticks_ = {};
  controls_.lose(Controls::kScreenPad, 0.0);
}

void ScreenPad::steer(double since_frame) {
  controls_.move(Controls::kScreenPad, sticks_, since_frame);
  update();
}

bool ScreenPad::event(QEvent* event) {
  switch (event->type()) {
    case QEvent::TouchBegin:
    case QEvent::TouchUpdate:
    case QEvent::TouchEnd:
      event->setAccepted(take_touch(*static_cast<QTouchEvent*>(event)));
      return true;
    case QEvent::TouchCancel:
      end_all();
      update();
      return true;
    default:
      return QWidget::event(event);
  }
}

bool ScreenPad::take_touch(const QTouchEvent& event) {
  const double since = since_frame_(event);
  bool any = event.type() != QEvent::TouchBegin;
  for (const QEventPoint& point : event.points()) {
    if (point.state() == QEventPoint::Pressed) any |= begin(point.id(), point.position(), since);
    if (point.state() == QEventPoint::Updated) go_on(point.id(), point.position(), since);
    if (point.state() == QEventPoint::Released) end(point.id(), since);
  }
  return any;
}

void ScreenPad::mousePressEvent(QMouseEvent* event) {
  event->setAccepted(begin(kMouse, event->position(), since_frame_(*event)));
}

void ScreenPad::mouseMoveEvent(QMouseEvent* event) { go_on(kMouse, event->position(), since_frame_(*event)); }
void ScreenPad::mouseReleaseEvent(QMouseEvent* event) { end(kMouse, since_frame_(*event)); }

void ScreenPad::hideEvent(QHideEvent* event) {
  QWidget::hideEvent(event);
  end_all();
}

void ScreenPad::paint_stick(QPainter& painter, const QPointF& middle, const Vec2& stick,
                            const QString& name) const {
  painter.setPen(QPen(clear(theme::ink(), 170), 1.5));
  painter.setBrush(clear(theme::sheet(), 120));
  painter.drawEllipse(middle, laid_.radius, laid_.radius);
  const QPointF knob = middle + QPointF(stick.x, -stick.y) * laid_.radius;
  painter.setBrush(clear(stick == Vec2(0.0) ? theme::sheet() : theme::teal(), 220));
  painter.drawEllipse(knob, laid_.radius * 0.4, laid_.radius * 0.4);
  if (stick != Vec2(0.0)) return;
  painter.setPen(theme::ink());
  painter.drawText(QRectF(middle.x() - 40, middle.y() - 10, 80, 20), Qt::AlignCenter, name);
}

void ScreenPad::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setFont(theme::text_font(12, true));
  paint_stick(painter, laid_.move, sticks_.move, tr("move"));
  paint_stick(painter, laid_.look, sticks_.look, tr("look"));
  for (std::size_t i = 0; i < laid_.buttons.size(); ++i) {
    const bool down = is_down(laid_.buttons[i].first);
    painter.setPen(QPen(clear(theme::ink(), 170), down ? 2.5 : 1.2));
    painter.setBrush(clear(down ? theme::teal() : theme::sheet(), down ? 230 : 150));
    painter.drawRoundedRect(laid_.buttons[i].second, 7, 7);
    painter.setPen(down ? theme::sheet() : theme::ink());
    painter.drawText(laid_.buttons[i].second, Qt::AlignCenter, tr(kButtons[i].text));
  }
}

}  // namespace lagniappe::app
