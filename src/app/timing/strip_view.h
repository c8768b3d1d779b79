// SPDX-License-Identifier: GPL-3.0-or-later
// A quarter of a second of two cells, A beside B: the exact way, ticks and drawn frames over time with the gaps
// between, the step of each frame below; and both replayed in slow motion at their own draw rates.
#pragma once

#include <QElapsedTimer>
#include <QTimer>
#include <QWidget>

#include "timing/timing_desk.h"

class QPainter;

namespace lagniappe::app {

class StripView : public QWidget {
  Q_OBJECT
 public:
  static constexpr double kSlower = 20.0;  // Times, in the replay.

  explicit StripView(TimingDesk& desk, QWidget* parent = nullptr);

  bool replaying() const { return replaying_; }
  void set_replaying(bool replaying);
  void set_clock(std::function<double()> now) { now_ = std::move(now); }
  // Of A (0) or B (1): the frame that the replay shows, null outside of it.
  const StripFrame* shown_frame(int which) const;
  const Strip& strip(int which) const { return strips_[std::size_t(which)]; }
  void paint(QPainter& painter, const QSizeF& size) const;

 signals:
  void replay_changed(bool replaying);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void focusInEvent(QFocusEvent* event) override { update(), QWidget::focusInEvent(event); }
  void focusOutEvent(QFocusEvent* event) override { update(), QWidget::focusOutEvent(event); }

 private:
  // Of one strip: where time and way are in the picture.
  struct Axes {
    QRectF way, steps, bodies;
    double from, seconds, low, high, most_step;
    QPointF at(double moment, double along) const {
      return {way.left() + way.width() * (moment - from) / seconds,
              way.bottom() - way.height() * (along - low) / (high - low)};
    }
  };
  void gather();
  double cursor() const;  // Moment of the replay, or where the mouse is; negative: none.
  const StripFrame* frame_at(const Strip& strip, double moment) const;
  Axes axes_of(const Strip& strip, const QRectF& rect) const;
  void paint_strip(QPainter& painter, const QRectF& rect, int which) const;
  void paint_words(QPainter& painter, const QRectF& rect, int which) const;
  void paint_axes(QPainter& painter, const Axes& axes) const;
  void paint_way(QPainter& painter, const Axes& axes, const Strip& strip, const QColor& colour) const;
  void paint_steps(QPainter& painter, const Axes& axes, const Strip& strip, const QColor& colour) const;
  void paint_moment(QPainter& painter, const Axes& axes, const Strip& strip) const;
  void paint_bodies(QPainter& painter, const Axes& axes, const Strip& strip, const QColor& colour) const;

  TimingDesk& desk_;
  std::array<Strip, 2> strips_;
  bool replaying_ = false, stale_ = true;
  std::function<double()> now_;
  QTimer frames_;  // While it replays: the window's own beat rests where nobody drives.
  double began_ = 0.0;
  std::optional<double> pointed_;
  double grip_ = 0.0;
};

}  // namespace lagniappe::app
