// SPDX-License-Identifier: GPL-3.0-or-later
// Reads pads on a thread of its own, so that what is pressed while a frame is drawn has its own instant. Pads
// may come and go at any time.
#pragma once

#include <atomic>
#include <functional>
#include <mutex>
#include <string>
#include <thread>
#include <vector>

#include "devices/bindings.h"

namespace lagniappe::app {

struct PadEvent {
  enum class Kind { Came, Lost, Unknown, Sticks, Triggers, Down, Up };
  Kind kind;
  int pad;      // Another number for each pad that comes, also for one that comes back.
  double at_s;  // See PadReader::now().
  // Of Came and Unknown: a joystick that nobody knows how a pad's controls lie on.
  std::string name = {};
  Sticks sticks = {};                              // All of them, as they are now.
  double left_trigger = 0.0, right_trigger = 0.0;  // In [0, 1].
  PadControl control = PadControl::None;           // Of Down and Up.
};

class PadReader {
 public:
  // `something`: is called on the reader's thread when there is something to take, and there was nothing
  // before.
  explicit PadReader(std::function<void()> something);
  ~PadReader();
  PadReader(const PadReader&) = delete;

  std::vector<PadEvent> take();
  static double now();  // s, of the clock of at_s.
  // Whether pads are being read; why not, if they cannot be.
  bool reads() const { return reads_; }
  std::string trouble() const;

 private:
  class Loop;
  void add(std::vector<PadEvent> events);

  std::function<void()> something_;
  mutable std::mutex mutex_;
  std::vector<PadEvent> events_;
  std::string trouble_;
  std::atomic<bool> reads_ = false, stop_ = false;
  std::thread thread_;  // Last: it uses all the others.
};

}  // namespace lagniappe::app
