// SPDX-License-Identifier: GPL-3.0-or-later
// The time strip on which takes are read: findings, states, contacts, inputs and curves over time.
//
// Axes, curves and layout are QCustomPlot's; the other lanes are painted by tape_lanes. The playhead and the
// selection lie on a layer of their own, so that scrubbing draws nothing else anew.
#pragma once

#include <qcustomplot.h>

#include "session/retaker.h"
#include "tape/tape_index.h"
#include "tape/tape_overlay.h"

namespace lagniappe::app {

class Tape : public QCustomPlot {
  Q_OBJECT
 public:
  // What its third lane is: contacts, firings of a transition, or the share that each field has.
  enum class Third { Contacts, Firings, Shares };
  explicit Tape(DriveSession& session, QWidget* parent = nullptr, Third third = Third::Contacts);

  // Takes in what changed in the session. Called for every drawn frame.
  void refresh();

  // The runs drawn beside the shown one; the first is the one that changes while a value does.
  void set_ghosts(std::vector<std::shared_ptr<const Ghost>> ghosts);
  // The curves, by the keys of their signals, from the top.
  void set_curves(const QStringList& keys);
  const QStringList& curves() const { return curve_keys_; }
  // Stretches in which a chosen piece was touched.
  void set_touched(std::vector<Stretch> touched);

  // Ticks at which something fired, in order; for a tape with a lane for them.
  void set_firings(std::vector<std::size_t> ticks);
  const std::vector<std::size_t>& firings() const { return fired_; }

  std::optional<Stretch> selection() const { return selection_; }
  void select(std::optional<Stretch> stretch);

  // The shown time in seconds.
  QCPRange shown_range() const;
  void show_range(double from, double to);
  void show_all();
  void zoom(double factor);  // Around the playhead; below 1 shows less.

  const TapeIndex& index() const { return index_; }
  double x_of_tick(std::size_t tick) const;  // Pixels in this widget.
  std::size_t tick_at_x(double x) const;
  QRect lane_rect(int row) const;  // The n-th lane's area, for tests and exports.

  // The whole picture for a file, at this size.
  void paint_on(QCPPainter& painter, const QSize& size);

 signals:
  void selection_changed();
  void scrubbed();  // The playhead was moved here.

 protected:
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void focusInEvent(QFocusEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void changeEvent(QEvent* event) override;
  bool event(QEvent* event) override;

 private:
  struct Curve {
    const Signal* signal;  // Null: the distance apart.
    QCPAxisRect* rect;
    std::vector<QCPGraph*> graphs;  // The shown run, then the ghosts.
  };
  enum class Drag { None, Scrub, Select, Pan };

  // Whether what was gathered is of the recording that is shown now.
  bool is_current() const { return session_.has_shown() && revision_ == session_.revision(); }
  void build_lanes();
  QCPAxisRect* add_lane(int row, int height);
  void add_curve(int row, const QString& key);
  // A ghost, and what of it is drawn.
  struct GhostLanes {
    explicit GhostLanes(std::shared_ptr<const Ghost> of);
    std::shared_ptr<const Ghost> ghost;
    TapeIndex index;
    MinMaxPyramid apart;
  };
  void take_ghosts();
  void fill_curves();
  void fit_values(const Curve& curve);
  void fill_graph(QCPGraph& graph, const MinMaxPyramid& values, int tick_rate);
  void follow_live();
  void limit_range();
  QString hint_at(const QPoint& at) const;
  std::vector<TapeOverlay::Label> labels() const;
  TapeOverlay::Content overlay_content() const;
  QString curve_title(const Curve& curve) const;

  DriveSession& session_;
  TapeIndex index_;
  std::vector<std::shared_ptr<const Ghost>> wanted_ghosts_;  // Read once the tape is seen.
  std::vector<std::unique_ptr<GhostLanes>> ghosts_;
  QStringList curve_keys_;
  std::vector<Curve> curves_;
  std::vector<QCPAxisRect*> lanes_;
  std::optional<Stretch> selection_;
  std::vector<Stretch> touched_;
  Third third_;
  std::vector<std::size_t> fired_;
  TapeOverlay* overlay_;
  std::uint64_t revision_ = 0;
  bool curves_complete_ = false, was_live_ = false;
  QElapsedTimer since_replot_;
  Drag drag_ = Drag::None;
  std::size_t select_from_ = 0;
  QPointF drag_at_;
};

}  // namespace lagniappe::app
