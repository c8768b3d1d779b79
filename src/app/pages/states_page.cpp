// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/states_page.h"

#include <QLabel>
#include <QSettings>
#include <QTabWidget>
#include <QVBoxLayout>

#include "pages/kept_splitter.h"
#include "states/change_log.h"
#include "states/findings_pane.h"
#include "states/matrix_view.h"
#include "states/signals_pane.h"
#include "states/state_pane.h"
#include "states/transition_pane.h"
#include "states/why_pane.h"
#include "tape/tape.h"
#include "viewport/view_widget.h"
#include "widgets/scrolled.h"

namespace lagniappe::app {
namespace {

constexpr int kSideWidth = 330, kViewHeight = 204, kLeastView = 100, kTapeHeight = 140, kLogWidth = 330;
const char *const kRowsKey = "states/rows", *const kColumnsKey = "states/columns",
                  *const kLowerKey = "states/lower";

}  // namespace

StatesPage::StatesPage(StatesDesk& desk, HandlingDesk& handling, DriveSession& session, QSettings& settings,
                       QWidget* parent)
    : Page(parent),
      desk_(desk),
      settings_(settings),
      caption_(new QLabel),
      matrix_(new MatrixView(desk)),
      transition_(new TransitionPane(desk)),
      state_(new StatePane(desk, handling, session)),
      why_(new WhyPane(desk)),
      findings_(new FindingsPane(desk)),
      signals_(new SignalsPane(desk)),
      log_(new ChangeLog(desk)),
      tape_(new Tape(session, nullptr, Tape::Third::Firings)),
      side_(new QTabWidget),
      rows_(new KeptSplitter(Qt::Vertical, settings, kRowsKey)),
      columns_(new KeptSplitter(Qt::Horizontal, settings, kColumnsKey)),
      lower_(new KeptSplitter(Qt::Horizontal, settings, kLowerKey)),
      view_place_(nullptr) {
  setObjectName("page");
  caption_->setObjectName("caption");
  caption_->setWordWrap(true);
  tape_->set_curves({});
  auto* left = new QWidget;
  auto* column = new QVBoxLayout(left);
  column->setContentsMargins(12, 8, 6, 6);
  column->setSpacing(6);
  column->addWidget(caption_);
  column->addWidget(matrix_, 1);
  lower_->addWidget(tape_);
  lower_->addWidget(log_);
  columns_->addWidget(left);
  columns_->addWidget(make_side());
  rows_->addWidget(columns_);
  rows_->addWidget(lower_);
  rows_->restore({600, kTapeHeight});
  columns_->restore({880, kSideWidth});
  lower_->restore({880, kLogWidth});
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->addWidget(rows_);
  connect_parts();
  show_caption();
}

StatesPage::~StatesPage() { desk_.disconnect(this); }

QWidget* StatesPage::make_side() {
  side_->setObjectName("narrowSide");
  side_->setAccessibleName(tr("What is chosen in the table"));
  side_->setDocumentMode(true);
  const std::pair<QWidget*, QString> panes[] = {{transition_, tr("Transition")},
                                                {state_, tr("State")},
                                                {why_, tr("Why")},
                                                {signals_, tr("Signals")},
                                                {findings_, tr("Remarks")}};
  for (const auto& [pane, name] : panes) side_->addTab(scrolled(pane), name);
  auto* box = new QWidget;
  box->setMinimumWidth(kSideWidth);
  view_place_ = new QVBoxLayout(box);
  view_place_->setContentsMargins(0, 0, 0, 0);
  view_place_->setSpacing(0);
  view_place_->addWidget(side_, 1);
  return box;
}

void StatesPage::come_up(ViewWidget& view) {
  view_place_->insertWidget(0, &view);
  view.setMinimumHeight(kLeastView);
  view.setMaximumHeight(kViewHeight);
  view.set_plain(true);
  view.show();
  begin();
}

void StatesPage::connect_parts() {
  connect(matrix_, &MatrixView::edit_asked, this, [this] {
    show_transition();
    transition_->edit_guard();
  });
  connect(matrix_, &MatrixView::remove_asked, transition_, &TransitionPane::remove_transition);
  connect(matrix_, &MatrixView::state_asked, this, &StatesPage::show_state);
  connect(matrix_, &MatrixView::state_moved, state_, &StatePane::move);
  connect(transition_, &TransitionPane::left, this, [this] { matrix_->setFocus(Qt::OtherFocusReason); });
  connect(findings_, &FindingsPane::state_asked, this, &StatesPage::show_state);
  connect(&desk_, &StatesDesk::chosen_changed, this, [this] {
    if (desk_.chosen() && shows(state_)) show_transition();
    if (desk_.chosen()) why_->ask_about(StateId(desk_.chosen()->column));
    mark_firings();
  });
  connect(&desk_, &StatesDesk::firings_changed, this, [this] {
    mark_firings();
    show_caption();
  });
  connect(&desk_, &StatesDesk::table_changed, this, [this] {
    mark_firings();
    show_caption();
  });
  // What is looked at is on the tape.
  connect(&desk_, &StatesDesk::moved, this, [this] {
    if (!isVisible() || desk_.is_live() || desk_.subject() == nullptr) return;
    const double at = double(desk_.tick()) / desk_.subject()->run.tick_rate();
    if (!tape_->shown_range().contains(at)) tape_->show_all();
  });
  connect(tape_, &Tape::scrubbed, &desk_, &StatesDesk::refresh);
}

// The firings of the chosen cell, on the tape.
void StatesPage::mark_firings() {
  std::vector<std::size_t> marks;
  if (!desk_.subject_is_retake()) {
    for (const Firing& f : desk_.chosen_firings()) marks.push_back(f.tick);
  }
  tape_->set_firings(std::move(marks));
}

void StatesPage::show_caption() {
  const QString first = tr("A row is left for a column when the cell's guard holds. ");
  if (desk_.subject() == nullptr) {
    caption_->setText(first + tr("Drive to count how often each does."));
  } else {
    caption_->setText(first + (desk_.subject_is_retake()
                                   ? tr("Counted in the retake under the changed table.")
                                   : tr("The number counts how often it did in this take.")));
  }
}

void StatesPage::begin() {
  desk_.refresh();
  // One begins in the row of the state that it is in.
  const std::size_t source = desk_.matrix().source_of(desk_.state_now());
  for (std::size_t c = 0; !desk_.chosen() && c < desk_.matrix().columns(); ++c) {
    if (!desk_.matrix().cell(source, c).rows.empty()) desk_.choose(CellPlace{source, c});
  }
  matrix_->setFocus(Qt::OtherFocusReason);
}

bool StatesPage::shows(const QWidget* pane) const {
  return static_cast<const QScrollArea*>(side_->currentWidget())->widget() == pane;
}

void StatesPage::show_pane(const QWidget* pane) {
  for (int i = 0; i < side_->count() && !shows(pane); ++i) side_->setCurrentIndex(i);
}

void StatesPage::show_transition() { show_pane(transition_); }

void StatesPage::show_state(StateId state) {
  state_->show_state(state);
  show_pane(state_);
}

void StatesPage::show_why() { show_pane(why_); }
void StatesPage::show_signals() { show_pane(signals_); }
void StatesPage::show_findings() { show_pane(findings_); }

void StatesPage::refresh() { tape_->refresh(); }

}  // namespace lagniappe::app
