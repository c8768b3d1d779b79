// SPDX-License-Identifier: GPL-3.0-or-later
// The Timing page: the shown take at every tick rate, draw rate and way to draw it as a matrix, two of its
// cells as strips, and beside them recipes, ways to ask for ground, the order of a tick and the ways of all
// rates.
#pragma once

#include <memory>

#include "doors.h"
#include "pages/page.h"
#include "session/drive_session.h"
#include "session/heart.h"

class QButtonGroup;
class QLabel;
class QPushButton;
class QProgressBar;
class QSettings;
class QTabWidget;
class QToolButton;

namespace lagniappe::app {

class FeelBar;
class KeptSplitter;
class LinePen;
class MatrixTable;
class PhasePane;
class ProbePane;
class RecipePane;
class StripView;
class TimingDesk;
class WaysPane;

class TimingPage : public Page {
  Q_OBJECT
 public:
  TimingPage(DriveSession& session, Heart& heart, const Actions& actions, const Doors& doors,
             QSettings& settings, QWidget* parent = nullptr);
  ~TimingPage() override;

  Act act() const override { return Act::TimingPage; }
  QString name() const override { return tr("Timing"); }
  void come_up(ViewWidget& view) override;
  void go_down() override;
  void refresh() override;

  TimingDesk& desk() { return *desk_; }
  MatrixTable& matrix() { return *matrix_; }
  StripView& strips() { return *strips_; }
  RecipePane& recipe_pane() { return *recipes_; }
  ProbePane& probes() { return *probes_; }
  PhasePane& phases() { return *phases_; }
  WaysPane& ways() { return *ways_; }
  FeelBar& feel() { return *feel_; }
  QTabWidget& tabs() { return *tabs_; }
  QLabel& advice() { return *advice_; }

 signals:
  void problem(const QString& title, const QString& sentence);

 private:
  QWidget* make_left(const Actions& actions);
  QWidget* make_side();
  QWidget* make_choices();
  void connect_parts(const Actions& actions);
  void show_measured();
  void show_meaning();
  void show_advice();
  void next_advice(int by);
  void try_advice();
  void export_figures();
  void read_frames();
  void draw_besides(LinePen& pen) const;

  DriveSession& session_;
  Doors doors_;
  TimingDesk* desk_;
  MatrixTable* matrix_;
  StripView* strips_;
  RecipePane* recipes_;
  ProbePane* probes_;
  PhasePane* phases_;
  WaysPane* ways_;
  FeelBar* feel_;
  QTabWidget* tabs_;
  QButtonGroup *methods_, *figures_;
  QLabel *summary_, *meaning_, *empty_, *advice_, *advice_count_;
  QPushButton *try_, *replay_;
  QProgressBar* progress_;
  KeptSplitter *rows_, *columns_;
  QWidget *study_area_ = nullptr, *view_place_ = nullptr;
  ViewWidget* view_ = nullptr;
  int view_least_ = 0;
  std::vector<TimingAdvice> advices_;
  std::size_t advised_ = 0;
};

}  // namespace lagniappe::app
