// SPDX-License-Identifier: GPL-3.0-or-later
// The strip between view and tape: time, playhead, tick rate, and what is shown.
#pragma once

#include <QWidget>

#include "actions.h"
#include "session/take_desk.h"
#include "viewport/trail_lines.h"

class QButtonGroup;
class QComboBox;
class QToolButton;

namespace lagniappe::app {

class Transport : public QWidget {
  Q_OBJECT
 public:
  Transport(DriveSession& session, TakeDesk& desk, const Actions& actions, QWidget* parent = nullptr);

  void step_time_scale(int by);  // One notch slower (positive) or faster.
  void choose_tick_rate(int rate);
  void step_tick_rate(int by);  // The next of the list, up (positive) or down.
  void show_tick_rate();        // That of the session, which may have changed by itself.

  // The kind of event that next and previous go to.
  Event chosen_event() const;
  void choose_event(Event event);

 signals:
  void typed();  // The field is done with.
  void rows_changed();
  void problem(const QString& title, const QString& sentence);
  void curves_chosen(const QStringList& keys);
  void trail_chosen(const QString& colour_by, int onion_skins, double seconds);

 public slots:
  void show_curves(const QStringList& keys);

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  QWidget* make_scales();
  QWidget* make_rates();
  void take_typed_rate();
  void put_tick_rate();
  QToolButton* make_curves();
  QToolButton* make_trail();
  void announce_trail();

  DriveSession& session_;
  TakeDesk& desk_;
  QButtonGroup* scales_;
  QComboBox *rates_, *events_;
  QStringList curves_;
  QMenu* curves_menu_ = nullptr;
  TrailChoice trail_;
};

}  // namespace lagniappe::app
