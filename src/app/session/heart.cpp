// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/heart.h"

#include <QGuiApplication>
#include <QScreen>
#include <algorithm>

namespace lagniappe::app {
namespace {

constexpr int kLongestDrawing =
    100;  // ms that a beat waits for a picture: of a window that nobody sees none comes.

}  // namespace

Heart::Heart(std::function<bool(double)> live, QObject* parent) : QObject(parent), live_(std::move(live)) {
  const QScreen* screen = QGuiApplication::primaryScreen();
  set_screen_rate(screen != nullptr ? screen->refreshRate() : 60.0);
  elapsed_.start();
  now_ = [this] { return double(elapsed_.nsecsElapsed()) * 1e-9; };
  timer_.setTimerType(Qt::PreciseTimer);
  timer_.setSingleShot(true);
  connect(&timer_, &QTimer::timeout, this, &Heart::go);
  timer_.start(0);
  QCoreApplication::instance()->installEventFilter(this);
}

// Whatever a hand does may be the beginning of something.
bool Heart::eventFilter(QObject* watched, QEvent* event) {
  switch (event->type()) {
    case QEvent::KeyPress:
    case QEvent::KeyRelease:
    case QEvent::MouseButtonPress:
    case QEvent::MouseButtonRelease:
    case QEvent::MouseMove:
    case QEvent::Wheel:
    case QEvent::TouchBegin:
    case QEvent::TouchUpdate:
    case QEvent::TouchEnd:
      wake();
      break;
    default:
      break;
  }
  return QObject::eventFilter(watched, event);
}

void Heart::wake() {
  if (rests_) timer_.start(until_next());
  rests_ = false;
}

void Heart::set_screen_rate(double rate) {
  screen_rate_ = std::clamp(rate, 30.0, 240.0);
  set_limit(limit_);
}

void Heart::set_limit(int frames_per_second) {
  limit_ = frames_per_second;
  shortest_ = 1.0 / (limit_ > 0 ? std::min(double(limit_), screen_rate_) : screen_rate_);
}

int Heart::until_next() const { return std::max(0, int(1000.0 * (last_ + shortest_ - now_()))); }

void Heart::skip(double seconds) { skips_until_ = now_() + seconds; }

void Heart::go() {
  const double now = now_(), seconds = since_beat(now);
  if (now < skips_until_) {
    constexpr int kAgain = 4;  // ms.
    timer_.start(std::clamp(int(1000.0 * (skips_until_ - now)), 1, kAgain));
    return;
  }
  emit about_to_beat();
  last_ = now;
  const bool goes_on = live_(seconds);
  rests_ = true;  // Unless what hears of the beat draws.
  emit beat(seconds);
  rests_ = rests_ && !goes_on;
  timer_.start(drawn_ || rests_ ? kLongestDrawing : until_next());
}

// One frame after the other, no faster than the screen shows them: a timer of even intervals would wait for its
// next beat after every frame that took a little too long.
void Heart::shown() {
  rests_ = false;
  if (drawn_) timer_.start(until_next());
}

}  // namespace lagniappe::app
