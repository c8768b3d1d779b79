// SPDX-License-Identifier: GPL-3.0-or-later
// The pulse by which time goes on, whether or not anything draws.
#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <QTimer>
#include <functional>

namespace lagniappe::app {

class Heart : public QObject {
  Q_OBJECT
 public:
  // `live`: what time goes on in, by so many seconds, before anybody hears of the beat; it says whether
  // anything goes on. Where nothing does, and nobody draws or touches a key or the mouse, the heart beats ten
  // times a second.
  explicit Heart(std::function<bool(double)> live, QObject* parent = nullptr);

  double now() const { return now_(); }  // s, of the one clock.
  const std::function<double()>& clock() const { return now_; }
  void set_clock(std::function<double()> now) { now_ = std::move(now); }
  // Returns by how much `time` is after the last beat, in s; 0 before the first.
  double since_beat(double time) const { return last_ < 0.0 ? 0.0 : time - last_; }
  // What has passed since the last beat, as while a course was loaded, is no time of the run.
  void leave_out() { last_ = -1.0; }

  // No more than so many beats a second, and no more than the screen shows; 0: as the screen.
  void set_limit(int frames_per_second);
  int limit() const { return limit_; }
  void set_screen_rate(double rate);  // Of the screen that the window is on, in Hz.

  // While somebody draws, the next beat waits for what was drawn, but not for ever.
  void set_drawn(bool drawn) { drawn_ = drawn; }
  void shown();
  void skip(double seconds);  // No beat for so long, as when a machine is busy: the next one has it all.
  void wake();                // Something is going to be done: the next beat is not waited for.

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 signals:
  void about_to_beat();  // Time is going to go on: what happened before belongs to it.
  void beat(double seconds);

 private:
  void go();
  int until_next() const;  // ms.

  QTimer timer_;
  QElapsedTimer elapsed_;
  std::function<bool(double)> live_;
  std::function<double()> now_;
  double screen_rate_, shortest_, last_ = -1.0, skips_until_ = 0.0;
  int limit_ = 0;
  bool drawn_ = false, rests_ = false;
};

}  // namespace lagniappe::app
