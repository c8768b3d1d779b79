// SPDX-License-Identifier: GPL-3.0-or-later
// How far the mouse was moved, from where the pointer was seen: it is put back to the middle again and again,
// so that it can go on for ever. Counts are device pixels, fractions kept, whatever the scale of the screen.
#pragma once

#include <QPointF>

namespace lagniappe::app {

class PointerTurn {
 public:
  // Returns the place near `middle` that the pointer can be put to exactly, at any usual scale.
  static QPoint exact(const QPoint& middle);

  // The pointer was sent to `middle`, both in logical pixels of the desktop; `scale` device pixels are one of
  // those.
  void begin(const QPoint& middle, double scale);
  // Sending it has no effect, as under some display servers: it is followed from place to place instead, as far
  // as the screen goes.
  void only_follow() { only_follows_ = true; }
  bool only_follows() const { return only_follows_; }

  // The pointer is seen at `at`: returns what it was moved, right and down. It should be sent to the middle
  // again unless it is only followed.
  QPointF seen(const QPointF& at);

 private:
  QPointF middle_, last_;  // Device pixels.
  double scale_ = 1.0;
  bool arriving_ = false;  // Sent, and not seen in the middle yet.
  bool only_follows_ = false;
};

}  // namespace lagniappe::app
