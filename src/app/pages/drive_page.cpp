// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/drive_page.h"

#include <QDateTime>
#include <QLabel>
#include <QSettings>
#include <QTabWidget>
#include <QVBoxLayout>
#include <algorithm>
#include <set>

#include "cards/cards_panel.h"
#include "lagniappe/profile_fields.h"
#include "pages/kept_splitter.h"
#include "pages/playhead_words.h"
#include "pages/transport.h"
#include "panels/ghosts_panel.h"
#include "panels/parting_dialog.h"
#include "panels/takes_panel.h"
#include "states/change_log.h"
#include "tape/tape.h"
#include "theme/state_colours.h"
#include "theme/theme.h"
#include "viewport/entry_geometry.h"
#include "viewport/view_widget.h"
#include "viewport/watch_view.h"
#include "widgets/ledger_column.h"
#include "widgets/scrolled.h"

namespace lagniappe::app {
namespace {

constexpr double kLiveLedger = 0.12;  // s between two ledgers that are shown while driving.
constexpr int kSideWidth = 316, kLedgerWidth = 300, kLeastView = 104;
const char *const kRowsKey = "drive/rows", *const kUpperKey = "drive/upper", *const kLowerKey = "drive/lower",
                  *const kCurvesKey = "drive/curves";

double now() { return double(QDateTime::currentMSecsSinceEpoch()) * 1e-3; }

QString seconds_text(const Run& run, std::size_t tick) {
  return QString::number(double(tick) / run.tick_rate(), 'f', 2);
}

}  // namespace

DrivePage::DrivePage(DriveSession& session, Heart& heart, TakeDesk& desk, HandlingDesk& handling,
                     StatesDesk& states, const Actions& actions, QSettings& settings, QWidget* parent)
    : Page(parent),
      session_(session),
      heart_(heart),
      desk_(desk),
      settings_(settings),
      view_(new ViewWidget(session, heart)),
      ledger_(new LedgerColumn),
      tape_(new Tape(session)),
      transport_(new Transport(session, desk, actions)),
      takes_(new TakesPanel(desk, session)),
      ghosts_(new GhostsPanel(desk, session)),
      cards_(new CardsPanel(handling, session, settings)),
      log_(new ChangeLog(states)),
      side_(new QTabWidget),
      rows_(new KeptSplitter(Qt::Vertical, settings, kRowsKey)),
      upper_(new KeptSplitter(Qt::Horizontal, settings, kUpperKey)),
      lower_(new KeptSplitter(Qt::Horizontal, settings, kLowerKey)),
      selection_(new QLabel),
      tape_column_(new QWidget) {
  setObjectName("page");
  selection_->setObjectName("selection");
  selection_->hide();
  auto* tape_layout = new QVBoxLayout(tape_column_);
  tape_layout->setContentsMargins(0, 0, 0, 0);
  tape_layout->setSpacing(0);
  tape_layout->addWidget(tape_, 1);
  tape_layout->addWidget(selection_);
  lower_->addWidget(tape_column_);
  lower_->addWidget(ledger_);
  upper_->addWidget(view_);
  upper_->addWidget(make_side());
  auto* bottom = new QWidget;
  auto* bottom_layout = new QVBoxLayout(bottom);
  bottom_layout->setContentsMargins(0, 0, 0, 0);
  bottom_layout->setSpacing(0);
  bottom_layout->addWidget(transport_);
  bottom_layout->addWidget(lower_, 1);
  rows_->addWidget(upper_);
  rows_->addWidget(bottom);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(rows_);
  connect_tape();
  connect_ledger();
  connect(view_, &ViewWidget::driving_changed, this, [this](bool driving) {
    if (driving) ask_about(kNoPiece);
  });
  connect(&desk_, &TakeDesk::ghosts_changed, this, &DrivePage::show_ghosts);
  connect(&desk_, &TakeDesk::shown_changed, this, [this] {
    if (session_.is_open()) set_remark({});
    ask_about(kNoPiece);
    show_legend();
  });
  connect(&desk_, &TakeDesk::values_changed, transport_, &Transport::show_tick_rate);
  connect(takes_, &TakesPanel::open_asked, this, &DrivePage::open_asked);
  connect(takes_, &TakesPanel::overlay_asked, this, &DrivePage::overlay_asked);
  connect(ghosts_, &GhostsPanel::parting_asked, this, &DrivePage::show_parting);
  connect(transport_, &Transport::typed, this, [this] { view_->setFocus(Qt::OtherFocusReason); });
  // Once the layouts below have heard of it: the splitter would not give it the room by itself.
  connect(transport_, &Transport::rows_changed, rows_, &QSplitter::refresh, Qt::QueuedConnection);
  restore();
}

DrivePage::~DrivePage() {
  show_second_view(false);  // It shows what the first one has, and its share of the splitter is not to be kept.
  settings_.setValue(kCurvesKey, tape_->curves());
  view_->disconnect(this);
}

void DrivePage::restore() {
  rows_->restore({470, 270});
  rows_->setStretchFactor(0, 3);  // The tape grows with the window too.
  rows_->setStretchFactor(1, 1);
  upper_->restore({900, kSideWidth});
  lower_->restore({900, kLedgerWidth});
  if (settings_.contains(kCurvesKey)) tape_->set_curves(settings_.value(kCurvesKey).toStringList());
  transport_->show_curves(tape_->curves());
}

void DrivePage::come_up(ViewWidget& view) {
  take_view();
  view.setFocus(Qt::OtherFocusReason);
}

void DrivePage::go_down() {
  if (view_->parentWidget() == upper_) upper_sizes_ = upper_->sizes();
}

void DrivePage::take_view() {
  if (view_->parentWidget() == upper_) return;
  view_->set_plain(false);
  view_->setMinimumHeight(kLeastView);
  view_->setMaximumHeight(QWIDGETSIZE_MAX);
  upper_->insertWidget(0, view_);
  upper_->setStretchFactor(0, 1);
  upper_->setSizes(upper_sizes_);
  view_->show();
}

// Half of the first one's room.
void DrivePage::show_second_view(bool shown) {
  if (shown == (second_ != nullptr)) return;
  const bool here = view_->parentWidget() == upper_;
  QList<int> sizes = here ? upper_->sizes() : upper_sizes_;
  const int at = here ? 1 : 0;
  if (shown) {
    second_ = new WatchView(session_, heart_, *view_);
    upper_->insertWidget(at, second_);
    if (sizes.size() > 1) sizes = {sizes[0] / 2, sizes[0] - sizes[0] / 2, sizes[1]};
  } else {
    delete std::exchange(second_, nullptr);
    if (sizes.size() > 2) sizes = {sizes[0] + sizes[1], sizes[2]};
  }
  here ? upper_->setSizes(sizes) : void(upper_sizes_ = sizes);
}

QWidget* DrivePage::make_side() {
  side_->setObjectName("side");
  side_->setAccessibleName(tr("Cards, takes and ghosts"));
  side_->setDocumentMode(true);
  side_->setMinimumSize(230, kLeastView);
  side_->addTab(cards_, tr("Cards"));
  side_->addTab(scrolled(takes_), tr("Takes"));
  ghosts_tab_ = side_->addTab(scrolled(ghosts_), tr("Ghosts"));
  side_->addTab(scrolled(log_), tr("Log"));
  return side_;
}

void DrivePage::show_beside_view(QWidget& pane, const QString& title) {
  for (int i = 0; i < side_->count(); ++i) {
    auto* area = qobject_cast<QScrollArea*>(side_->widget(i));
    if (area != nullptr && area->widget() == &pane) return side_->setCurrentIndex(i);
  }
  side_->show();
  side_->setCurrentIndex(side_->addTab(scrolled(&pane), title));
  pane.setFocus(Qt::OtherFocusReason);
}

void DrivePage::show_beside_view(const QString& title, bool shown, const std::function<QWidget*()>& make) {
  auto* pane = side_->findChild<QWidget*>(title);
  if (shown == (pane != nullptr)) return;
  if (!shown) return take_from_view(*pane);
  pane = make();
  pane->setObjectName(title);
  show_beside_view(*pane, title);
}

void DrivePage::take_from_view(QWidget& pane) {
  for (int i = 0; i < side_->count(); ++i) {
    auto* area = qobject_cast<QScrollArea*>(side_->widget(i));
    if (area == nullptr || area->widget() != &pane) continue;
    side_->removeTab(i);
    side_->setCurrentWidget(cards_);
    area->deleteLater();
    view_->setFocus(Qt::OtherFocusReason);
    return;
  }
}

void DrivePage::connect_tape() {
  connect(tape_, &Tape::selection_changed, this, &DrivePage::show_selection);
  connect(transport_, &Transport::curves_chosen, tape_, &Tape::set_curves);
  connect(transport_, &Transport::trail_chosen, this,
          [this](const QString& colour_by, int onion_skins, double seconds) {
            TrailChoice& trail = view_->trail();
            trail.colour_by = colour_by;
            trail.onion_skins = onion_skins;
            trail.seconds = seconds;
          });
}

void DrivePage::connect_ledger() {
  connect(ledger_, &LedgerColumn::pointed_at, this, &DrivePage::point_at);
  connect(ledger_, &LedgerColumn::refusal_asked, this, &DrivePage::explain_refusal);
  connect(ledger_, &LedgerColumn::piece_asked, this, &DrivePage::go_to_touch);
  connect(ledger_, &LedgerColumn::piece_left, this, [this] { ask_about(kNoPiece); });
  connect(view_, &ViewWidget::picked, this, [this](std::optional<std::size_t> entry, PieceId piece) {
    // A click on a piece finds the first line that is about it.
    const Ledger ledger = session_.last_ledger();
    for (std::size_t i = 0; !entry && piece != kNoPiece && i < ledger.entries.size(); ++i) {
      if (piece_of(ledger.entries[i]) == piece) entry = i;
    }
    ask_about(piece);
    ledger_->choose(entry);
    point_at(entry);
  });
}

void DrivePage::refresh() {
  tape_->refresh();
  show_ledger();
}

void DrivePage::show_ledger() {
  if (!session_.has_shown()) return;
  const std::tuple tick(session_.revision(), session_.playhead(), session_.live(), ledger_->isVisible());
  if (ledger_of_ == tick || (session_.live() && now() - ledger_shown_at_ < kLiveLedger)) return;
  ledger_of_ = tick;
  ledger_shown_at_ = now();
  const Run& run = session_.shown().run;
  const std::size_t at = session_.playhead();
  const Ledger ledger = session_.last_ledger();
  view_->set_told(told_at_playhead(session_, ledger));
  if (!ledger_->isVisible()) return;
  ledger_->show_tick(at, double(at) / run.tick_rate(), run.state(at > 0 ? at - 1 : 0), run.state(at), ledger,
                     session_.place()->world, session_.chart().name_of(run.state(at).state));
  view_->set_highlight({std::nullopt, asked_piece_});
  if (asked_piece_ != kNoPiece) ask_about(asked_piece_);
}

void DrivePage::explain_refusal(std::size_t entry) {
  const Ledger ledger = session_.last_ledger();
  if (entry >= ledger.entries.size()) return;
  const WhatIsBehind behind = behind_refusal(session_, ledger.entries[entry]);
  if (behind.state || behind.path.empty()) return emit refusal_told(behind.sentence, behind.state);
  side_->show();
  side_->setCurrentWidget(cards_);
  cards_->say_of_value(behind.path, behind.sentence, behind.enough);
}

void DrivePage::point_at(std::optional<std::size_t> entry) {
  Highlight highlight{entry, asked_piece_};
  if (entry && session_.has_shown()) {
    const Ledger ledger = session_.last_ledger();
    if (*entry < ledger.entries.size() && piece_of(ledger.entries[*entry]) != kNoPiece)
      highlight.piece = piece_of(ledger.entries[*entry]);
  }
  view_->set_highlight(highlight);
}

void DrivePage::ask_about(PieceId piece) {
  asked_piece_ = piece;
  std::vector<Stretch> touched;
  if (piece == kNoPiece || !session_.has_shown()) {
    ledger_->show_piece({});
    view_->set_highlight({});
    return tape_->set_touched({});
  }
  const Run& run = session_.shown().run;
  std::size_t ticks = 0;
  for (const Touch& touch : run.touches()) {
    if (touch.piece != piece) continue;
    touched.push_back({touch.first, touch.last});
    ticks += touch.last - touch.first + 1;
  }
  const std::string_view name = session_.place()->world.piece_name(piece);
  QString text = tr("%1: ").arg(QString::fromUtf8(name.data(), qsizetype(name.size())));
  if (touched.empty()) {
    text += tr("never touched in this take");
  } else {
    text += tr("touched in %n ticks", nullptr, int(ticks)) +
            tr(", first at %1 s, last at %2 s")
                .arg(seconds_text(run, touched.front().first), seconds_text(run, touched.back().last));
  }
  ledger_->show_piece(text);
  view_->set_highlight({ledger_->chosen(), piece});
  tape_->set_touched(std::move(touched));
}

void DrivePage::go_to_touch(int direction) {
  if (!session_.has_shown()) return;
  const std::size_t at = session_.playhead();
  std::optional<std::size_t> to;
  for (const Touch& touch : session_.shown().run.touches()) {
    if (touch.piece != asked_piece_) continue;
    if (direction > 0 && touch.first > at && !to) to = touch.first;
    if (direction < 0 && touch.first < at) to = touch.first;
  }
  if (to) session_.set_playhead(*to);
}

void DrivePage::show_ghosts() {
  tape_->set_ghosts(desk_.ghosts());
  view_->set_ghosts(desk_.ghosts());
  const bool some = !desk_.ghosts().empty();
  show_legend();
  side_->setTabText(ghosts_tab_, some ? tr("Ghosts (%1)").arg(desk_.ghosts().size()) : tr("Ghosts"));
}

void DrivePage::set_remark(const QString& remark, const QString& take_over_key) {
  remark_ = remark;
  take_over_key_ = take_over_key;
  show_legend();
}

void DrivePage::show_legend() {
  std::vector<Readouts::LegendLine> lines;
  const auto ghosts = desk_.ghosts();
  if (session_.has_shown() && (!ghosts.empty() || !remark_.isEmpty())) {
    const std::string& name = session_.shown().take.about.name;
    const theme::RunStyle style = theme::shown_style();
    lines.push_back({style.colour, style.pen,
                     name.empty() ? tr("The take as driven") : QString::fromStdString(name), remark_});
  }
  for (std::size_t g = 0; g < ghosts.size(); ++g) {
    const Comparison& c = ghosts[g]->against;
    const theme::RunStyle style = theme::ghost_style(g);
    QString more = c.identical ? tr("identical")
                               : tr("furthest apart %1 m at %2 s")
                                     .arg(c.furthest, 0, 'f', 2)
                                     .arg(seconds_text(session_.shown().run, c.furthest_at));
    if (c.drift) more += tr(", drifted from %1 s on").arg(seconds_text(session_.shown().run, c.drift->tick));
    lines.push_back({style.colour, style.pen, tr("Retake: %1").arg(ghosts[g]->name), more});
  }
  const auto differ = take_over_key_.isEmpty() || !session_.has_shown()
                          ? 0
                          : differences(session_.shown().take.profile, session_.profile()).size();
  if (differ > 0)
    lines.push_back({theme::ink2(),
                     Qt::NoPen,
                     differ == 1
                         ? tr("1 value is not as yours: %1 takes it over").arg(take_over_key_)
                         : tr("%1 values are not as yours: %2 takes them over").arg(differ).arg(take_over_key_),
                     {}});
  view_->set_legend(std::move(lines));
}

void DrivePage::show_selection() {
  const auto stretch = tape_->selection();
  selection_->setVisible(stretch && stretch->last > stretch->first);
  if (session_.loop()) session_.set_loop(stretch);
  if (!stretch || stretch->last <= stretch->first) return;
  const Run& run = session_.shown().run;
  const DriveSummary s = run.summarize(stretch->first, stretch->last);
  const double seconds = double(stretch->last - stretch->first) / run.tick_rate();
  const Vec3 up = run.state(stretch->first).up_C();
  const double gained = dot(run.state(stretch->last).foot_C - run.state(stretch->first).foot_C, up);
  selection_->setText(
      tr("%1 to %2 s:  %3 s,  %4 m,  mean %5 m/s,  top %6 m/s in the course,  height %7 m,  airtime %8 s")
          .arg(seconds_text(run, stretch->first), seconds_text(run, stretch->last))
          .arg(seconds, 0, 'f', 2)
          .arg(s.distance, 0, 'f', 2)
          .arg(s.distance / seconds, 0, 'f', 2)
          .arg(s.top_speed, 0, 'f', 2)
          .arg(QString(gained < 0 ? "" : "+") + QString::number(gained, 'f', 2))
          .arg(s.airtime, 0, 'f', 2));
}

void DrivePage::show_pane(Act pane, bool shown) {
  if (pane == Act::TapePane) tape_column_->setVisible(shown);
  if (pane == Act::LedgerPane) ledger_->setVisible(shown);
  if (pane == Act::SidePane) side_->setVisible(shown);
  lower_->setVisible(tape_column_->isVisibleTo(lower_) || ledger_->isVisibleTo(lower_));
}

void DrivePage::show_value(const std::string& path) {
  side_->show();
  side_->setCurrentWidget(cards_);
  cards_->show_value(path);
}

void DrivePage::find_value() {
  side_->show();
  side_->setCurrentWidget(cards_);
  cards_->find_value();
}

std::optional<std::size_t> DrivePage::event_from_here(int direction) const {
  if (!session_.has_shown()) return std::nullopt;
  const Run& run = session_.shown().run;
  const Event event = transport_->chosen_event();
  const std::size_t here = session_.playhead();
  const auto to = direction > 0 ? run.next(event, here) : run.previous(event, here);
  if (to) return to;
  return direction > 0 ? run.next(event, 0) : run.previous(event, run.ticks() + 1);
}

std::optional<std::size_t> DrivePage::finding_from_here(int direction) const {
  if (!session_.has_shown()) return std::nullopt;
  std::set<std::size_t> ticks;
  for (const Finding& f : session_.shown().run.findings()) ticks.insert(f.first);
  if (ticks.empty()) return std::nullopt;
  if (direction > 0) {
    const auto to = ticks.upper_bound(session_.playhead());
    return to == ticks.end() ? *ticks.begin() : *to;
  }
  const auto to = ticks.lower_bound(session_.playhead());
  return to == ticks.begin() ? *ticks.rbegin() : *std::prev(to);
}

void DrivePage::show_parting() {
  const auto ghost = desk_.current_ghost();
  if (!ghost || !ghost->against.parting) return;
  session_.set_playhead(*ghost->against.parting);
  PartingDialog(session_.shown(), *ghost, this).exec();
}

void DrivePage::play_selection(bool looped) { session_.set_loop(looped ? tape_->selection() : std::nullopt); }

}  // namespace lagniappe::app
