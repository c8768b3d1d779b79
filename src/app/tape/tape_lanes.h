// SPDX-License-Identifier: GPL-3.0-or-later
// The lanes of the tape that are no curves, painted into their place among the axes.
#pragma once

#include <qcustomplot.h>

#include <functional>

#include "tape/tape_index.h"

namespace lagniappe::app {

// A lane's area and the time it shows.
struct LaneView {
  QRectF area;
  double from, to;  // s.

  double x(double seconds) const { return area.left() + (seconds - from) / (to - from) * area.width(); }
  // The first and last of `ticks` ticks that can be seen.
  Stretch visible(std::size_t ticks, int tick_rate) const;
};

// A place among the axes whose content is painted by a function.
class LanePainter : public QCPAbstractPlottable {
 public:
  using Paint = std::function<void(QPainter&, const LaneView&)>;
  LanePainter(QCPAxisRect* rect, Paint paint);

  double selectTest(const QPointF&, bool, QVariant*) const override { return -1.0; }
  QCPRange getKeyRange(bool& found, QCP::SignDomain) const override;
  QCPRange getValueRange(bool& found, QCP::SignDomain, const QCPRange&) const override;

 protected:
  void draw(QCPPainter* painter) override;
  void drawLegendIcon(QCPPainter*, const QRectF&) const override {}

 private:
  Paint paint_;
};

void paint_states(QPainter& painter, const LaneView& view, const TapeIndex& index, const Recording& recording,
                  bool with_names);
void paint_contacts(QPainter& painter, const LaneView& view, const TapeIndex& index, int tick_rate);
// The zones that are touched, with their names; each row is kZoneRow high.
void paint_zones(QPainter& painter, const LaneView& view, const TapeIndex& index, const Recording& recording);
inline constexpr int kZoneRow = 13;  // Pixels.
void paint_inputs(QPainter& painter, const LaneView& view, TapeIndex& index, const Recording& recording);
void paint_findings(QPainter& painter, const LaneView& view, const Run& run);
void paint_firings(QPainter& painter, const LaneView& view, const std::vector<std::size_t>& ticks,
                   int tick_rate);
// What each field has in the pull, stacked.
void paint_shares(QPainter& painter, const LaneView& view, const Recording& recording);
void paint_touched(QPainter& painter, const LaneView& view, const std::vector<Stretch>& touched, int tick_rate);

// The actions that a take uses, in order: each has a row below the stick's.
std::vector<Action> used_actions(const TapeIndex& index);
inline constexpr int kInputRow = 12;  // Pixels.

}  // namespace lagniappe::app
