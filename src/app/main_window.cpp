// SPDX-License-Identifier: GPL-3.0-or-later
#include "main_window.h"

#include <QDragEnterEvent>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QMenu>
#include <QMessageBox>
#include <QMimeData>
#include <QScreen>
#include <QSettings>
#include <QStackedWidget>
#include <QStandardPaths>
#include <QToolButton>

#include "application.h"
#include "closing.h"
#include "keys/places.h"
#include "lagniappe/files.h"
#include "pages/drive_page.h"
#include "pages/search_entries.h"
#include "pages/states_page.h"
#include "pages/transport.h"
#include "theme/plain_tip.h"
#include "theme/theme.h"
#include "top_strip.h"
#include "viewport/view_widget.h"
#include "widgets/command_search.h"
#include "widgets/message_bar.h"
#include "widgets/shortcut_sheet.h"

namespace lagniappe::app {
namespace {

constexpr int kMostRecent = 8;
constexpr qint64 kLargestProfile = 1 << 20;
constexpr QSize kFrame(2, 34);  // Of a window that is not maximised, with its title: about what desktops draw.
const char *const kRecentKey = "recent", *const kStudyKey = "study", *const kGeometryKey = "window";
const char* const kCourseFilter =
    "Courses, models, inputs (*.course.json *.inputs.json *.json *.glb *.gltf *.obj)";
const char* const kProfileFilter = "Profiles (*.profile.json *.json)";

QString study_folder(const QSettings& settings) {
  const QString home = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + "/study";
  return settings.value(kStudyKey, home).toString();
}

}  // namespace

MainWindow::MainWindow(QSettings& settings, Doors doors)
    : settings_(settings),
      doors_(std::move(doors)),
      desk_(session_, study_folder(settings)),
      handling_(desk_, session_, study_folder(settings)),
      states_(handling_, desk_, session_),
      actions_(this),
      page_(new DrivePage(session_, heart_, desk_, handling_, states_, actions_, settings)),
      states_page_(new StatesPage(states_, handling_, session_, settings)),
      messages_(nullptr),
      busy_(nullptr),
      keys_(nullptr),
      search_(nullptr),
      take_actions_(new TakeActions(session_, desk_, *page_, actions_, doors_, this)),
      profile_actions_(new ProfileActions(handling_, *page_, actions_, doors_, this)),
      states_actions_(new StatesActions(states_, handling_, *states_page_, actions_, doors_, this)) {
  session_.set_attended(false);
  setWindowTitle("Lagniappe");
  setWindowIcon(QIcon(":/lagniappe.svg"));
  setAcceptDrops(true);
  fit_screen();
  auto* central = make_central();
  setCentralWidget(central);
  busy_ = new MessageBar(central);
  keys_ = new ShortcutSheet(actions_.in_order(), central);
  actions_[Act::Interpolated]->setChecked(true);
  search_ = new CommandSearch([this] { return search_entries(); }, central);
  for (const Act on : {Act::Grid, Act::Trail, Act::TapePane, Act::LedgerPane, Act::SidePane})
    actions_[on]->setChecked(true);
  connect_actions();
  connect_loader();
  connect_desks();
  connect_page();
  connect_states();
  show_page(page_);
  show_enabled();
}

// The page goes while what it shows is still there; losing the focus on the way is not to be heard of any more.
MainWindow::~MainWindow() {
  handling_.stop_feeling();
  for (const QObject* told :
       std::initializer_list<const QObject*>{&view(), &heart_, &desk_, &handling_, &states_, &loader_})
    told->disconnect(this);
  page_->take_view();
  delete takeCentralWidget();
  page_ = nullptr;
}

ViewWidget& MainWindow::view() { return page_->view(); }

QWidget* MainWindow::make_central() {
  auto* central = new QWidget;
  auto* column = new QVBoxLayout(central);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  strip_ = new TopStrip(actions_);
  connect(strip_, &TopStrip::recent_asked, this, &MainWindow::fill_recent);
  connect(strip_, &TopStrip::marks_asked, this, &MainWindow::fill_marks);
  column->addWidget(strip_);
  auto* row = new QHBoxLayout;
  row->setSpacing(0);
  row->addWidget(make_rail());
  pages_ = new QStackedWidget;
  pages_->addWidget(page_);
  pages_->addWidget(states_page_);
  auto* right = new QVBoxLayout;
  right->setSpacing(0);
  messages_ = new MessageBar;  // It makes room for itself: what is worked on stays in sight.
  right->addWidget(messages_);
  right->addWidget(pages_, 1);
  row->addLayout(right, 1);
  column->addLayout(row, 1);
  return central;
}

QWidget* MainWindow::make_rail() {
  auto* rail = new QWidget;
  rail->setObjectName("rail");
  rail->setAttribute(Qt::WA_StyledBackground);
  rail->setFixedWidth(64);
  auto* layout = new QVBoxLayout(rail);
  layout->setContentsMargins(5, 10, 5, 10);
  for (const auto& [act, name] :
       {std::pair(Act::DrivePage, tr("Drive")), std::pair(Act::StatesPage, tr("States"))}) {
    auto* button = new QToolButton;
    button->setObjectName("railPage");
    button->setDefaultAction(actions_[act]);
    actions_[act]->setIconText(name);
    button->setIconSize({22, 22});
    button->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
    button->setFocusPolicy(Qt::TabFocus);
    button->setFixedSize(54, 52);
    layout->addWidget(button);
  }
  layout->addStretch(1);
  return rail;
}

// As large as is comfortable, and never larger than the screen leaves room for, frame and title included.
void MainWindow::fit_screen() {
  resize(1280, 800);
  restoreGeometry(settings_.value(kGeometryKey).toByteArray());
  const QScreen* screen = this->screen();
  if (screen == nullptr || isMaximized() || isFullScreen()) return;
  const QRect room = screen->availableGeometry();
  resize(size().boundedTo(room.size() - kFrame));
  const QPoint last = room.bottomRight() - QPoint(width(), height());
  move(std::clamp(x(), room.left(), std::max(room.left(), last.x())),
       std::clamp(y(), room.top(), std::max(room.top(), last.y())));
}

void MainWindow::connect_actions() {
  const auto does_on = [this](Act act, auto does) { connect(actions_[act], &QAction::triggered, this, does); };
  const auto toggles = [this](Act act, auto does) { connect(actions_[act], &QAction::toggled, this, does); };
  does_on(Act::OpenCourse, [this] { ask_and_open(tr("Open course, model or inputs"), kCourseFilter); });
  does_on(Act::OpenProfile, [this] { ask_and_open(tr("Open profile"), kProfileFilter); });
  does_on(Act::Quit, [this] { close(); });
  does_on(Act::Drive, [this] { view().set_driving(true); });
  does_on(Act::DriveWatched, [this] { view().drive_watched(); });
  does_on(Act::ToStart, [this] {
    if (session_.place() != nullptr) session_.set_place(session_.shared_place());
  });
  does_on(Act::Slower, [this] { page_->transport().step_time_scale(+1); });
  does_on(Act::Faster, [this] { page_->transport().step_time_scale(-1); });
  does_on(Act::Search, [this] { search_->open(); });
  does_on(Act::Keys, [this] { keys_->toggle(); });
  does_on(Act::About, [this] { show_about(); });
  toggles(Act::Pause, [this](bool paused) { session_.set_paused(paused); });
  toggles(Act::FirstPerson, [this](bool first) { view().set_first_person(first); });
  toggles(Act::Interpolated,
          [this](bool on) { session_.set_drawing(on ? Drawing::Interpolated : Drawing::AsTicked); });
  toggles(Act::Capsule, [this](bool on) { view().overlays().capsule = on; });
  toggles(Act::Contacts, [this](bool on) { view().overlays().contacts = on; });
  toggles(Act::Probe, [this](bool on) { view().overlays().probe = on; });
  toggles(Act::Arrows, [this](bool on) { view().overlays().arrows = on; });
  actions_[Act::Lantern]->setChecked(theme::light() == theme::Light::Lantern);
  toggles(Act::Lantern, [this](bool on) {
    theme::apply(*qApp, on ? theme::Light::Lantern : theme::Light::Daylight);
    settings_.setValue(kLanternKey, on);
  });
  toggles(Act::Grid, [this](bool on) { view().set_grid(on); });
  toggles(Act::Trail, [this](bool on) { view().trail().shown = on; });
  for (const Act pane : {Act::TapePane, Act::LedgerPane, Act::SidePane})
    toggles(pane, [this, pane](bool on) { page_->show_pane(pane, on); });
  toggles(Act::FullScreen, [this](bool full) { full ? showFullScreen() : showNormal(); });
}

void MainWindow::show_page(QWidget* page) {
  view().set_driving(false);
  page == page_ ? page_->take_view() : states_page_->take_view(page_->lend_view());
  pages_->setCurrentWidget(page);
  actions_[Act::DrivePage]->setChecked(page == page_);
  actions_[Act::StatesPage]->setChecked(page == states_page_);
  page == page_ ? view().setFocus(Qt::OtherFocusReason) : states_page_->begin();
}

void MainWindow::connect_states() {
  connect(actions_[Act::DrivePage], &QAction::triggered, this, [this] { show_page(page_); });
  connect(actions_[Act::StatesPage], &QAction::triggered, this, [this] { show_page(states_page_); });
  connect(states_actions_, &StatesActions::problem, this, &MainWindow::show_problem);
  connect(states_actions_, &StatesActions::page_asked, this, [this] {
    if (pages_->currentWidget() != states_page_) show_page(states_page_);
  });
  connect(&heart_, &Heart::beat, this, [this] {
    states_.refresh();
    if (states_page_->isVisible()) states_page_->refresh();
  });
}

void MainWindow::connect_desks() {
  connect(&desk_, &TakeDesk::problem, this, &MainWindow::show_problem);
  connect(&desk_, &TakeDesk::not_saved, this, [this](const QString& sentence) {
    offered_ = [this] { desk_.study().save_again(); };
    messages_->show_offer(tr("A take could not be saved; it is kept in memory"), sentence, tr("Try again"));
  });
  connect(&handling_, &HandlingDesk::changed, this, [this] {
    strip_->show_profile(QString::fromStdString(handling_.now().name) + (handling_.is_saved() ? "" : " *"));
  });
  connect(profile_actions_, &ProfileActions::problem, this, &MainWindow::show_problem);
  connect(profile_actions_, &ProfileActions::opened, this, [this](const QString& path) {
    clear_messages();
    remember(path);
  });
  connect(take_actions_, &TakeActions::problem, this, &MainWindow::show_problem);
  connect(take_actions_, &TakeActions::open_asked, this, &MainWindow::open);
  connect(take_actions_, &TakeActions::retake_course_asked, this, [this](const QString& path) {
    loader_.load(path);
    load_for_ = LoadFor::Retake;
  });
}

void MainWindow::connect_page() {
  connect(&view(), &ViewWidget::driving_changed, this, &MainWindow::show_enabled);
  connect(&heart_, &Heart::beat, this, [this] {
    show_figures();
    take_actions_->show_enabled();
    profile_actions_->show_enabled();
  });
  connect(&view(), &ViewWidget::feel_asked, this,
          [this](double factor) { factor > 0.0 ? handling_.feel(factor) : handling_.stop_feeling(); });
  connect(page_, &DrivePage::open_asked, this, &MainWindow::open);
  connect(page_, &DrivePage::overlay_asked, this, [this](const QString& path) {
    if (path.isEmpty()) return;
    loader_.load_take(path, session_.shared_place());
    load_for_ = LoadFor::Pin;
  });
  connect(
      &view(), &ViewWidget::frame_shown, this,
      [this] {
        if (view().trouble().isEmpty()) return;
        messages_->show_problem(tr("The view cannot be drawn"), view().trouble());
      },
      Qt::SingleShotConnection);
}

void MainWindow::connect_loader() {
  connect(&loader_, &PlaceLoader::stage, this, [this](const QString& what) {
    busy_->show_busy(what);
    place_busy();
  });
  connect(&loader_, &PlaceLoader::progress, busy_, &MessageBar::show_progress);
  connect(&loader_, &PlaceLoader::loaded, this, [this](const std::shared_ptr<const Place>& place) {
    const LoadFor what = std::exchange(load_for_, LoadFor::Showing);
    if (what == LoadFor::Showing) return take_place(place);
    clear_messages();
    what == LoadFor::Retake ? desk_.retake_on(place) : take_changed(place);
  });
  connect(&watch_, &CourseWatch::changed, this, [this](const QString& path) {
    if (loader_.busy()) return watch_.put_off();  // What is being opened comes first.
    loader_.load(path);
    load_for_ = LoadFor::Changed;
  });
  connect(&loader_, &PlaceLoader::take_loaded, this,
          [this](const std::shared_ptr<Recording>& recording, const QString& verdict, const QString& path) {
            if (std::exchange(load_for_, LoadFor::Showing) != LoadFor::Pin)
              return show_take(recording, verdict, path);
            clear_messages();
            desk_.pin_take(recording);
          });
  connect(&loader_, &PlaceLoader::take_damaged, this, [this](const QString& path, const QString& sentence) {
    offered_ = [this, path] { loader_.load_take(path, session_.shared_place(), true); };
    busy_->hide();
    messages_->show_offer(tr("%1 is damaged").arg(QFileInfo(path).fileName()), sentence,
                          tr("Recover what can be read"));
  });
  connect(messages_, &MessageBar::accepted, this, [this] {
    if (const auto offered = std::exchange(offered_, nullptr)) offered();
  });
  connect(&loader_, &PlaceLoader::failed, this, [this](const QString& path, const QString& sentence) {
    waiting_inputs_.clear();  // The course that they were for is not there.
    const QString kept = session_.place() ? tr("; the course stays as it was") : QString();
    const QString title = std::exchange(load_for_, LoadFor::Showing) == LoadFor::Changed
                              ? tr("%1 changed on the disk and cannot be read%2")
                              : tr("%1 was not opened%2");
    show_problem(title.arg(QFileInfo(path).fileName(), kept), sentence);
    show_enabled();
  });
  connect(busy_, &MessageBar::cancel_clicked, &loader_, &PlaceLoader::cancel);
  connect(&loader_, &PlaceLoader::cancelled, this, [this] {
    waiting_inputs_.clear();
    show_enabled();
  });
}

void MainWindow::open(const QString& path) {
  // A profile is told by its heading; anything else goes the way of courses and is explained there.
  const bool small = path.endsWith(".json") && QFileInfo(path).size() < kLargestProfile;
  const std::string kind = small ? document_kind(path.toStdString()) : "";
  if (kind == "inputs" && loader_.busy()) {
    waiting_inputs_ = path;  // For the course that is being opened.
    return;
  }
  load_for_ = LoadFor::Showing;
  if (kind == "profile") {
    profile_actions_->open(path);
  } else if (path.endsWith(".scxml")) {
    states_actions_->read_chart(path);
  } else if (kind == "inputs") {
    play_inputs(path);
  } else if (kind == "take" || path.endsWith(".take")) {
    loader_.load_take(path, session_.shared_place());
  } else {
    loader_.load(path);
  }
}

void MainWindow::play_inputs(const QString& path) {
  const auto place = session_.shared_place();
  if (place == nullptr)
    return show_problem(tr("%1 was not opened").arg(QFileInfo(path).fileName()),
                        tr("Inputs are played on a course: open one first."));
  view().set_driving(false);
  loader_.load_inputs(path, place, handling_.now(), handling_.file().toStdString(), session_.tick_rate());
}

void MainWindow::clear_messages() {
  messages_->hide();
  busy_->hide();
}

// Loading is short: it moves nothing, and stands where nobody works.
void MainWindow::place_busy() {
  constexpr int kWidth = 420, kGap = 14;
  QWidget& under = page_->isVisible() ? static_cast<QWidget&>(view()) : *pages_;
  const QPoint corner = under.mapTo(centralWidget(), QPoint(under.width() - kWidth - kGap, kGap));
  busy_->setFixedWidth(kWidth);
  busy_->adjustSize();
  busy_->move(std::max(corner.x(), kGap), corner.y());
  busy_->raise();
}

void MainWindow::show_problem(const QString& title, const QString& sentence) {
  busy_->hide();
  messages_->show_problem(title, sentence);
}

void MainWindow::show_take(const std::shared_ptr<Recording>& recording, const QString& verdict,
                           const QString& path) {
  view().set_driving(false);
  const bool other_place = session_.shared_place() != recording->place;
  if (recording->file.isEmpty()) {
    // Recovered: from now on it is a take of the study like any other. A journal goes when that is done.
    complete(*recording);
    const QString file = recording->file = desk_.study().save(recording->take);
    auto* until_saved = new QObject(this);
    connect(&desk_.study(), &Study::saved, until_saved, [this, path, file, until_saved](const QString& saved) {
      if (saved != file) return;
      if (path.endsWith(".journal")) QFile::remove(path);
      until_saved->deleteLater();
      offer_next_recovery();
    });
  }
  desk_.show_recording(*recording);
  if (other_place) show_other_place();
  show_verdict(recording->take, verdict);
  clear_messages();
  show_enabled();
  view().setFocus(Qt::OtherFocusReason);
}

// What differs between a take and what is open is told without opening any file that the take names.
void MainWindow::show_verdict(const Take& take, const QString& verdict) {
  QStringList remark = {verdict};
  if (opened_place_ && opened_place_->path == take.course_file &&
      opened_place_->identity != take.course_identity)
    remark.append(
        tr("%1 is another course today").arg(QFileInfo(QString::fromStdString(take.course_file)).fileName()));
  page_->set_remark(remark.join("; "), actions_[Act::TakeOver]->shortcut().toString(QKeySequence::NativeText));
}

// A journal that nobody holds is what a program left that did not end by itself.
void MainWindow::offer_recovery() {
  if (std::exchange(recovery_offered_, true)) return;
  left_journals_ = Journal::left_behind(desk_.study().takes_folder());
  offer_next_recovery();
}

// One after the other, the newest first.
void MainWindow::offer_next_recovery() {
  if (left_journals_.isEmpty()) return offer_unsaved_values();
  const QString path = left_journals_.takeFirst();
  offered_ = [this, path] { loader_.load_take(path, session_.shared_place(), true); };
  const QString more = left_journals_.isEmpty() ? QString() : tr(" There is more than one.");
  messages_->show_offer(
      tr("Lagniappe did not end by itself the last time"),
      tr("The take that was being driven then can be had back, but for the last half second.") + more,
      tr("Have it back"));
}

void MainWindow::offer_unsaved_values() {
  if (!handling_.left_unsaved() || std::exchange(values_offered_, true)) return;
  const auto& snapshots = handling_.snapshots();
  const auto left = std::find_if(snapshots.begin(), snapshots.end(), [](const Snapshot& s) {
    return s.name.startsWith(HandlingDesk::tr("not saved when Lagniappe ended"));
  });
  if (left == snapshots.end()) return;
  offered_ = [this, name = left->name, at = left->at] {
    const auto& all = handling_.snapshots();
    for (std::size_t n = 0; n < all.size(); ++n)
      if (all[n].at == at && all[n].name == name) return handling_.go_back_to(n);
  };
  messages_->show_offer(
      tr("There are values that were not saved"),
      tr("They are kept among the snapshots (%1); undo has the present ones back.").arg(left->name),
      tr("Go on with them"));
}

void MainWindow::take_place(const std::shared_ptr<const Place>& place) {
  view().set_driving(false);
  session_.set_place(place);
  show_other_place();
  clear_messages();
  opened_place_ = place;
  watch_.follow(*place);
  if (place->course.dropped_triangles > 0) {
    messages_->show_problem(tr("Opened, with a remark"),
                            tr("%n triangles without area or with bad numbers were left out.", nullptr,
                               int(place->course.dropped_triangles)));
  }
  if (place->course.starts_in_flight) {
    session_.hold(Action::Fly, true);
    session_.hold(Action::Fly, false);
    messages_->show_problem(
        tr("Opened, with a remark"),
        tr("No place was found where a character can stand, so it begins in free flight above. In glTF "
           "an empty node named \u201cstart\u201d says where to begin."));
  }
  remember(QString::fromStdString(place->path));
  show_enabled();
  view().setFocus(Qt::OtherFocusReason);
  offer_recovery();
  if (const QString inputs = std::exchange(waiting_inputs_, {}); !inputs.isEmpty()) play_inputs(inputs);
}

// What is being driven goes on there; a finished take is run on it, beside itself.
void MainWindow::take_changed(const std::shared_ptr<const Place>& place) {
  const bool shown_there = session_.has_shown() && session_.place()->path == place->path;
  opened_place_ = place;
  watch_.follow(*place);
  if (!shown_there || session_.place()->identity == place->identity) return;
  if (!session_.is_open()) return desk_.retake_on(place);
  session_.move_to(place);
  view().show_changed_place();
}

std::vector<SearchEntry> MainWindow::search_entries() {
  std::vector<SearchEntry> entries;
  for (QAction* action : actions_.in_order()) entries.push_back(entry_of(*action));
  add_named({session_, desk_, states_, *page_, [this] { show_page(page_); },
             [this](std::size_t state) {
               show_page(states_page_);
               states_page_->show_state(StateId(state));
             },
             [this](const QString& file) { open(file); }},
            entries);
  return entries;
}

void MainWindow::show_other_place() {
  const Place& place = *session_.place();
  view().show_place();
  strip_->show_course(QString::fromStdString(place.course.name), QString::fromStdString(place.path));
  setWindowTitle(QString::fromStdString(place.course.name) + " - Lagniappe");
}

void MainWindow::ask_and_open(const QString& title, const QString& filter) {
  view().set_driving(false);
  const QString path = doors_.ask_for_file(this, title, tr(qPrintable(filter)));
  if (!path.isEmpty()) open(path);
}

void MainWindow::remember(const QString& path) {
  QStringList recent = settings_.value(kRecentKey).toStringList();
  const QString absolute = QFileInfo(path).absoluteFilePath();
  recent.removeAll(absolute);
  recent.prepend(absolute);
  settings_.setValue(kRecentKey, recent.mid(0, kMostRecent));
}

void MainWindow::fill_recent(QMenu* menu) {
  menu->clear();
  const QStringList recent = settings_.value(kRecentKey).toStringList();
  for (const QString& path : recent) {
    QAction* action = menu->addAction(QFileInfo(path).fileName());
    action->setToolTip(plain_tip(path));
    connect(action, &QAction::triggered, this, [this, path] { open(path); });
  }
  if (recent.isEmpty()) menu->addAction(tr("Nothing opened yet"))->setEnabled(false);
}

void MainWindow::fill_marks() {
  QMenu& marks = strip_->marks();
  marks.clear();
  if (session_.place() == nullptr) {
    marks.addAction(tr("No course is open"))->setEnabled(false);
    return;
  }
  for (const Mark& mark : session_.place()->course.marks) {
    QAction* action = marks.addAction(QString::fromStdString(mark.id));
    connect(action, &QAction::triggered, this, [this, mark] {
      session_.begin_at(mark);
      view().setFocus(Qt::OtherFocusReason);
    });
  }
}

void MainWindow::show_figures() {
  strip_->show_figures(
      QString("%1 ticks/s ×%2").arg(session_.tick_rate()).arg(session_.time_scale(), 0, 'f', 2));
}

// The one place that says what can be done now.
void MainWindow::show_enabled() {
  const bool place = session_.place() != nullptr, driving = view().driving();
  for (const Act act : {Act::Drive, Act::DriveWatched}) actions_[act]->setEnabled(place && !driving);
  for (const Act act : {Act::Pause, Act::SingleTick, Act::ToStart}) actions_[act]->setEnabled(place);
  strip_->show_driving(driving);
}

void MainWindow::show_about() {
  QMessageBox::about(
      this, tr("About Lagniappe"),
      tr("<b>Lagniappe " LAGNIAPPE_VERSION
         "</b><p>A workbench for first- and third-person character locomotion.</p>"
         "<p>The application is free software under the GNU General Public License, version 3 or later; "
         "the core library and the command line are under the MIT licence. Icons: Lucide (ISC).</p>"));
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls() && event->mimeData()->urls().size() == 1) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
  const QString path = event->mimeData()->urls().value(0).toLocalFile();
  if (path.isEmpty()) return;
  event->acceptProposedAction();
  open(path);
}

void MainWindow::closeEvent(QCloseEvent* event) {
  make_safe();
  if (!desk_.study().all_saved() && !settle_unsaved(desk_, doors_, this)) return event->ignore();
  stand_still();
  QMainWindow::closeEvent(event);
}

// What was saved is the end of it: frames that still come drive nothing on.
void MainWindow::stand_still() {
  session_.follow(std::nullopt);
  session_.set_paused(true);
}

void MainWindow::make_safe() {
  view().set_driving(false);
  desk_.close_recording();
  handling_.stop_feeling();
  handling_.keep_unsaved();
  handling_.wait();
  settings_.setValue(kGeometryKey, saveGeometry());
  settings_.sync();
}

void MainWindow::end_by_signal() {
  stand_still();
  make_safe();
  rescue_unsaved(desk_);
}

// What no widget and no shortcut made anything of: by its place on the keyboard it may be a shortcut after all.
void MainWindow::keyPressEvent(QKeyEvent* event) {
  const QKeySequence meant = shortcut_by_place(*event);
  for (QAction* action : meant.isEmpty() ? QList<QAction*>() : actions_.in_order()) {
    if (!action->shortcuts().contains(meant)) continue;
    if (action->isEnabled() && !event->isAutoRepeat()) action->trigger();
    return;
  }
  QMainWindow::keyPressEvent(event);
}

void MainWindow::changeEvent(QEvent* event) {
  QMainWindow::changeEvent(event);
  if (page_ != nullptr && event->type() == QEvent::ActivationChange && !isActiveWindow()) {
    session_.release_all();
    view().set_driving(false);
  }
}

}  // namespace lagniappe::app
