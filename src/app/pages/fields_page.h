// SPDX-License-Identifier: GPL-3.0-or-later
// The Fields page: what pulls where, in a cut through the course; strength over distance and the card of the
// chosen field or zone beside it; pull, shares and the turning of up on the tape below.
#pragma once

#include "fields/row_choice.h"
#include "pages/page.h"
#include "session/course_desk.h"
#include "session/take_desk.h"

class QComboBox;
class QLabel;
class QSettings;
class QVBoxLayout;

namespace lagniappe::app {

class CutView;
class IntentPicture;
class KeptSplitter;
class LinePen;
class PlaneGrips;
class RowCard;
class StrengthPlot;
class Tape;

class FieldsPage : public Page {
  Q_OBJECT
 public:
  FieldsPage(CourseDesk& desk, TakeDesk& takes, DriveSession& session, const Actions& actions,
             QSettings& settings, QWidget* parent = nullptr);
  ~FieldsPage() override;

  Act act() const override { return Act::FieldsPage; }
  QString name() const override { return tr("Fields"); }
  void come_up(ViewWidget& view) override;
  void go_down() override;
  void refresh() override;

  CutView& cut() { return *cut_; }
  StrengthPlot& plot() { return *plot_; }
  RowCard& card() { return *card_; }
  Tape& tape() { return *tape_; }
  PlaneGrips* grips() { return grips_.get(); }  // Of the plane, in the view; none while the page is down.

  void add_field();
  void add_zone();
  void copy_row();
  void remove_row();

 signals:
  void refused(const QString& title, const QString& why);

 private:
  QWidget* make_side(const Actions& actions);
  void connect_parts();
  void show_rows();
  void show_plot();
  void show_figures();
  void add_row(const RowChoice& row, const QJsonObject& object, const QString& what);
  void draw_besides(LinePen& pen) const;

  CourseDesk& desk_;
  TakeDesk& takes_;
  DriveSession& session_;
  CutView* cut_;
  StrengthPlot* plot_;
  RowCard* card_;
  Tape* tape_;
  QComboBox *rows_list_, *plotted_;
  IntentPicture* intent_;
  QWidget *card_area_ = nullptr, *intent_area_ = nullptr;
  QLabel *remark_, *figures_;
  KeptSplitter *rows_, *columns_;
  ViewWidget* view_ = nullptr;
  std::unique_ptr<PlaneGrips> grips_;
  int view_least_ = 0;  // Its least width elsewhere.
  std::uint64_t listed_ = 0;
  std::pair<std::uint64_t, std::size_t> figures_of_{};  // Recording and playhead.
  bool plot_stale_ = true;
};

}  // namespace lagniappe::app
