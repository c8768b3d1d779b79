// SPDX-License-Identifier: GPL-3.0-or-later
// A pad on the screen, over the view: two sticks and a button for each action, for fingers (several at once)
// and for the mouse. Buttons act when they go down.
#pragma once

#include <QPointer>
#include <QWidget>
#include <functional>
#include <map>
#include <vector>

#include "devices/controls.h"

class QTouchEvent;
class QInputEvent;

namespace lagniappe::app {

class ScreenPad : public QWidget {
  Q_OBJECT
 public:
  // `since_frame`: s from the session's last advance() to an event.
  ScreenPad(Controls& controls, std::function<double(const QInputEvent&)> since_frame, QWidget& over);

  const Sticks& sticks() const { return sticks_; }
  // Where its buttons begin in a view so high, from the top.
  static double top_in(double height);
  // Where its parts are, in pixels of its own; for whoever presses them.
  QPointF middle_of(Action action) const;
  QPointF middle_of_move() const { return laid_.move; }
  QPointF middle_of_look() const { return laid_.look; }
  double stick_radius() const { return laid_.radius; }
  bool is_down(Action action) const;

 signals:
  void touched();  // Something is going to be pressed: whoever drives should.

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  bool event(QEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  struct Laid {
    QPointF move, look;  // Middles of the sticks.
    double radius = 0.0;
    std::vector<std::pair<Action, QRectF>> buttons;
  };
  // What a finger, or the mouse, has hold of from where it went down until it is lifted.
  enum class Part { Nothing, MoveStick, LookStick, Button };
  struct Hold {
    Part part;
    Action action;
  };
  static constexpr int kMouse = -1;

  void lay_out();
  Hold part_at(const QPointF& at) const;
  bool begin(int finger, const QPointF& at, double since_frame);  // Returns whether there is anything.
  void go_on(int finger, const QPointF& at, double since_frame);
  void end(int finger, double since_frame);
  void end_all();
  bool take_touch(const QTouchEvent& event);
  void steer(double since_frame);
  void paint_stick(QPainter& painter, const QPointF& middle, const Vec2& stick, const QString& name) const;

  Controls& controls_;
  std::function<double(const QInputEvent&)> since_frame_;
  Laid laid_;
  std::map<int, Hold> held_;  // By finger.
  Sticks sticks_;
};

}  // namespace lagniappe::app
