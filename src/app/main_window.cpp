// SPDX-License-Identifier: GPL-3.0-or-later
#include "main_window.h"

#include <QCloseEvent>
#include <QDateTime>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QMenu>
#include <QSettings>
#include <QStackedWidget>

#include "application.h"
#include "closing.h"
#include "keys/places.h"
#include "pages/device_actions.h"
#include "pages/drive_page.h"
#include "pages/fields_page.h"
#include "pages/follow_preferences.h"
#include "pages/rail.h"
#include "pages/recovery.h"
#include "pages/search_entries.h"
#include "pages/settings_page.h"
#include "pages/states_page.h"
#include "pages/timing_page.h"
#include "pages/transport.h"
#include "pages/view_actions.h"
#include "top_strip.h"
#include "viewport/view_widget.h"
#include "widgets/command_search.h"
#include "widgets/message_bar.h"
#include "widgets/shortcut_sheet.h"
#include "window_frame.h"

namespace lagniappe::app {
namespace {

const char* const kGeometryKey = "window";
const char* const kOfValues = "values";  // What a message is about.

}  // namespace

MainWindow::MainWindow(QSettings& settings, Doors doors)
    : settings_(settings),
      preferences_(settings),
      doors_(std::move(doors)),
      desk_(session_, undo_, preferences_.text(Pref::Study)),
      handling_(desk_, session_, undo_, desk_.study().folder()),
      states_(handling_, desk_, session_),
      course_(session_, undo_),
      opener_(session_, handling_, settings, this),
      actions_(this),
      page_(new DrivePage(session_, heart_, desk_, handling_, states_, actions_, settings)),
      states_page_(new StatesPage(states_, handling_, session_, settings)),
      fields_page_(new FieldsPage(course_, desk_, session_, actions_, settings)),
      timing_page_(new TimingPage(session_, heart_, actions_, doors_, settings)),
      settings_page_(new SettingsPage(preferences_, actions_, page_->view().bindings(), doors_)),
      take_actions_(new TakeActions(session_, desk_, *page_, heart_, actions_, doors_, this)),
      profile_actions_(new ProfileActions(handling_, *page_, actions_, doors_, this)),
      states_actions_(new StatesActions(states_, handling_, *states_page_, actions_, doors_, this)),
      course_actions_(
          new CourseActions(course_, desk_, session_, *fields_page_, page_->view(), actions_, doors_, this)),
      device_actions_(
          new DeviceActions(actions_, *page_, session_, heart_, settings_page_->bindings_sheet(), this)) {
  session_.set_attended(false);
  setWindowTitle("Lagniappe");
  setWindowIcon(QIcon(":/lagniappe.svg"));
  accept_files(*this, [this](const QString& path) { open(path); });
  resize(1280, 800);
  restoreGeometry(settings_.value(kGeometryKey).toByteArray());
  fit_screen(*this);
  auto* central = make_central();
  setCentralWidget(central);
  busy_ = new MessageBar(central);
  recovery_ = new Recovery(desk_, handling_, opener_, *messages_, this);
  keys_ = new ShortcutSheet(view().bindings(), actions_.in_order(), central);
  search_ = new CommandSearch([this] { return search_entries(); }, central);
  connect_actions();
  connect_opener();
  connect_desks();
  connect_page();
  connect_pages();
  show_page(*page_);
  show_enabled();
  undressed_.reset();
}

// The page goes while what it shows is still there; losing the focus on the way is not to be heard of any more.
MainWindow::~MainWindow() {
  handling_.stop_feeling();
  for (const QObject* told : std::initializer_list<const QObject*>{&view(), &heart_, &undo_, &desk_, &handling_,
                                                                   &states_, &course_, &opener_})
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
  connect(strip_, &TopStrip::recent_asked, this, [this](QMenu* menu) { opener_.fill_recent(*menu); });
  connect(strip_, &TopStrip::marks_asked, this, [this] { fill_marks(strip_->marks(), session_, view()); });
  column->addWidget(strip_);
  auto* row = new QHBoxLayout;
  row->setSpacing(0);
  row->addWidget(make_rail(all_pages(), actions_));
  pages_ = new QStackedWidget;
  for (Page* page : all_pages()) pages_->addWidget(page);
  auto* right = new QVBoxLayout;
  right->setSpacing(0);
  messages_ = new MessageBar;  // It makes room for itself: what is worked on stays in sight.
  right->addWidget(messages_);
  right->addWidget(pages_, 1);
  row->addLayout(right, 1);
  column->addLayout(row, 1);
  return central;
}

void MainWindow::connect_actions() {
  const auto does_on = [this](Act act, auto does) { connect(actions_[act], &QAction::triggered, this, does); };
  does_on(Act::OpenCourse, [this] { ask_and_open(tr("Open course, model or inputs"), files::kDriven); });
  does_on(Act::OpenProfile, [this] { ask_and_open(tr("Open profile"), files::kProfiles); });
  does_on(Act::Quit, [this] { close(); });
  does_on(Act::Search, [this] { search_->open(); });
  does_on(Act::Keys, [this] { keys_->toggle(); });
  does_on(Act::About, [this] { show_about(this); });
  connect(actions_[Act::FullScreen], &QAction::toggled, this,
          [this](bool full) { full ? showFullScreen() : showNormal(); });
  connect_view_actions(actions_, session_, *page_, preferences_);
  follow_preferences(preferences_, actions_, heart_, handling_, *page_);
  restore_keys(preferences_, actions_, view().bindings());
  take_keys();
  connect_undo(actions_, undo_, *this);
}

// The one list of them, in the order of the work.
std::vector<Page*> MainWindow::all_pages() const {
  return {page_, states_page_, fields_page_, timing_page_, settings_page_};
}

void MainWindow::show_page(Page& page) {
  const ViewWidget::Moved meanwhile(view());
  if (Page* before = shown_page(); before != nullptr && before != &page) before->go_down();
  pages_->setCurrentWidget(&page);
  page.come_up(view());
  for (Page* each : all_pages()) actions_[each->act()]->setChecked(each == &page);
}

void MainWindow::show_state(StateId state) {
  show_page(*states_page_);
  states_page_->show_state(state);
}

Page* MainWindow::shown_page() const { return static_cast<Page*>(pages_->currentWidget()); }

void MainWindow::connect_pages() {
  for (Page* page : all_pages())
    connect(actions_[page->act()], &QAction::triggered, this, [this, page] { show_page(*page); });
  connect(states_actions_, &StatesActions::problem, this, &MainWindow::show_problem);
  connect(settings_page_, &SettingsPage::problem, this, &MainWindow::show_problem);
  connect(timing_page_, &TimingPage::problem, this, &MainWindow::show_problem);
  connect(settings_page_, &SettingsPage::keys_changed, this, &MainWindow::take_keys);
  const auto brings_up = [this](Page* page) {
    return [this, page] {
      if (shown_page() != page) show_page(*page);
    };
  };
  connect(states_actions_, &StatesActions::page_asked, this, brings_up(states_page_));
  connect(course_actions_, &CourseActions::problem, this, &MainWindow::show_problem);
  connect(course_actions_, &CourseActions::saved_as, this, &MainWindow::open);
  connect(course_actions_, &CourseActions::page_asked, this, brings_up(fields_page_));
  connect(&heart_, &Heart::beat, this, [this] {
    desk_.pass(double(QDateTime::currentMSecsSinceEpoch()) * 1e-3);
    states_.refresh();
    if (shown_page()->isVisible()) shown_page()->refresh();
    strip_->show_figures(
        QString("%1 ticks/s ×%2").arg(session_.tick_rate()).arg(session_.time_scale(), 0, 'f', 2));
    take_actions_->show_enabled();
    profile_actions_->show_enabled();
    course_actions_->show_enabled();
  });
}

void MainWindow::connect_desks() {
  connect(&desk_, &TakeDesk::problem, this, &MainWindow::show_problem);
  connect(&desk_, &TakeDesk::not_saved, this, [this](const QString& sentence) {
    messages_->show_offer(tr("A take could not be saved; it is kept in memory"), sentence, tr("Try again"),
                          [this] { desk_.study().save_again(); });
  });
  connect(&handling_, &HandlingDesk::changed, this, [this] {
    strip_->show_profile(QString::fromStdString(handling_.now().name) + (handling_.is_saved() ? "" : " *"));
  });
  connect(&handling_, &HandlingDesk::refused, this,
          [this](const QString& title, const QString& why) { messages_->show_problem(title, why, kOfValues); });
  connect(&undo_, &Undo::changed, this, [this] { messages_->settle(kOfValues); });
  connect(profile_actions_, &ProfileActions::problem, this, &MainWindow::show_problem);
  connect(profile_actions_, &ProfileActions::opened, this, [this](const QString& path) {
    clear_messages();
    opener_.remember(path);
  });
  connect(take_actions_, &TakeActions::problem, this, &MainWindow::show_problem);
  const auto shows_note = [this](const QString& what) { busy_->show_note(what, view()); };
  connect(take_actions_, &TakeActions::note, this, shows_note);
  connect(device_actions_, &DeviceActions::note, this, shows_note);
  connect(take_actions_, &TakeActions::writing, this,
          [this](const QString& what, double share) { busy_->show_busy(what, view(), share); });
  connect(take_actions_, &TakeActions::writing_ended, busy_, &QWidget::hide);
  connect(busy_, &MessageBar::cancel_clicked, take_actions_, &TakeActions::cancel_writing);
  connect(take_actions_, &TakeActions::open_asked, this, &MainWindow::open);
  connect(take_actions_, &TakeActions::retake_course_asked, &opener_, &Opener::retake_on);
}

void MainWindow::connect_page() {
  connect(&view(), &ViewWidget::driving_changed, this, &MainWindow::show_enabled);
  connect(&view(), &ViewWidget::feel_asked, this,
          [this](double factor) { factor > 0.0 ? handling_.feel(factor) : handling_.stop_feeling(); });
  connect(&page_->transport(), &Transport::problem, this, &MainWindow::show_problem);
  connect(page_, &DrivePage::open_asked, this, &MainWindow::open);
  connect(page_, &DrivePage::refusal_told, this, [this](const QString& sentence, std::optional<StateId> state) {
    if (state) show_state(*state);
    busy_->show_note(sentence, view());
  });
  connect(page_, &DrivePage::overlay_asked, this, [this](const QString& path) {
    if (!path.isEmpty()) opener_.pin_take(path);
  });
  tell_trouble(view(), *messages_);
}

void MainWindow::connect_opener() {
  PlaceLoader& loader = opener_.loader();
  connect(&loader, &PlaceLoader::stage, this, [this](const QString& what) {
    busy_->show_busy(what, page_->isVisible() ? static_cast<QWidget&>(view()) : *pages_);
  });
  connect(&loader, &PlaceLoader::progress, busy_, &MessageBar::show_progress);
  connect(busy_, &MessageBar::cancel_clicked, &loader, &PlaceLoader::cancel);
  connect(&opener_, &Opener::place_opened, this, &MainWindow::take_place);
  connect(&opener_, &Opener::place_changed, this, &MainWindow::take_changed);
  connect(&opener_, &Opener::take_opened, this, &MainWindow::show_take);
  connect(&opener_, &Opener::retake_asked, this, &MainWindow::clear_messages);
  connect(&opener_, &Opener::retake_asked, &desk_, &TakeDesk::retake_on);
  connect(&opener_, &Opener::pin_asked, this, &MainWindow::clear_messages);
  connect(&opener_, &Opener::pin_asked, &desk_, &TakeDesk::pin_take);
  connect(&opener_, &Opener::damaged, this, [this](const QString& path, const QString& sentence) {
    busy_->hide();
    messages_->show_offer(tr("%1 is damaged").arg(QFileInfo(path).fileName()), sentence,
                          tr("Recover what can be read"), [this, path] { opener_.recover_take(path); });
  });
  connect(&opener_, &Opener::profile_asked, profile_actions_, &ProfileActions::open);
  connect(&opener_, &Opener::chart_asked, states_actions_, &StatesActions::read_chart);
  connect(&opener_, &Opener::inputs_begin, this, [this] { view().set_driving(false); });
  connect(&opener_, &Opener::problem, this, [this](const QString& title, const QString& sentence) {
    show_problem(title, sentence);
    said_meanwhile_ = false;  // Of an opening that is over: the next one puts it away.
  });
  connect(&opener_, &Opener::settled, this, &MainWindow::show_enabled);
}

void MainWindow::take_keys() {
  show_keys(actions_, *page_);
  strip_->show_driving(view().driving());
}

void MainWindow::clear_messages() {
  messages_->hide();
  busy_->hide();
}

void MainWindow::show_problem(const QString& title, const QString& sentence) {
  busy_->hide();
  messages_->show_problem(title, sentence);
  said_meanwhile_ = loader().busy();
}

void MainWindow::show_take(const std::shared_ptr<Recording>& recording, const QString& verdict,
                           const QString& path) {
  view().set_driving(false);
  const bool other_place = session_.shared_place() != recording->place;
  if (recording->file.isEmpty()) recovery_->keep(*recording, path);
  desk_.show_recording(*recording);
  if (other_place) show_other_place();
  page_->set_remark(opener_.remark_on(recording->take, verdict), actions_.key_text(Act::TakeOver));
  clear_messages();
  show_enabled();
  view().setFocus(Qt::OtherFocusReason);
}

void MainWindow::take_place(const std::shared_ptr<const Place>& place) {
  view().set_driving(false);
  session_.set_place(place);
  show_other_place();
  busy_->hide();
  // What was said while it was being opened, as of a profile that cannot be read, was not read yet.
  if (!std::exchange(said_meanwhile_, false)) messages_->hide();
  if (const QString remark = remark_on(place->course); !remark.isEmpty())
    messages_->show_problem(tr("Opened, with a remark"), remark);
  if (place->course.starts_in_flight) {
    session_.hold(Action::Fly, true);
    session_.hold(Action::Fly, false);
  }
  show_enabled();
  view().setFocus(Qt::OtherFocusReason);
  recovery_->offer();
}

// What is being driven goes on there; a finished take is run on it, beside itself.
void MainWindow::take_changed(const std::shared_ptr<const Place>& place) {
  const bool shown_there = session_.has_shown() && session_.place()->path == place->path;
  clear_messages();
  if (course_.take_file(place) || !shown_there || session_.place()->identity == place->identity) return;
  if (!session_.is_open()) return desk_.retake_on(place);
  session_.move_to(place);
  view().show_changed_place();
}

std::vector<SearchEntry> MainWindow::search_entries() {
  std::vector<SearchEntry> entries;
  for (QAction* action : actions_.in_order()) entries.push_back(entry_of(*action));
  add_named(
      {session_, desk_, states_, *page_, [this] { show_page(*page_); },
       [this](std::size_t state) { show_state(StateId(state)); }, [this](const QString& file) { open(file); }},
      entries);
  return entries;
}

void MainWindow::show_other_place() {
  const Place& place = *session_.place();
  view().show_place();
  strip_->show_course(QString::fromStdString(place.course.name), QString::fromStdString(place.path));
  setWindowTitle(QString::fromStdString(place.course.name) + " - Lagniappe");
}

void MainWindow::ask_and_open(const QString& title, const FileKind& kind) {
  view().set_driving(false);
  const QString path = ask_for(doors_, this, title, kind);
  if (!path.isEmpty()) open(path);
}

// The one place that says what can be done now.
void MainWindow::show_enabled() {
  const bool place = session_.place() != nullptr, driving = view().driving();
  for (const Act act : {Act::Drive, Act::DriveWatched}) actions_[act]->setEnabled(place && !driving);
  for (const Act act : {Act::Pause, Act::SingleTick, Act::ToStart}) actions_[act]->setEnabled(place);
  strip_->show_driving(driving);
}

void MainWindow::closeEvent(QCloseEvent* event) {
  make_safe();
  if (!desk_.study().all_saved() && !settle_unsaved(desk_, doors_, this)) return event->ignore();
  if (!course_actions_->settle()) return event->ignore();
  session_.stand_still();
  QMainWindow::closeEvent(event);
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
  session_.stand_still();
  make_safe();
  rescue_unsaved(desk_, course_);
}

// What no widget and no shortcut made anything of: by its place on the keyboard it may be a shortcut after all.
void MainWindow::keyPressEvent(QKeyEvent* event) {
  // Offers stay: what they offer would be gone.
  if (event->key() == Qt::Key_Escape && messages_->isVisible() && messages_->is_problem())
    return messages_->hide();
  QAction* meant = action_by_place(*event, actions_.in_order());
  if (meant == nullptr) return QMainWindow::keyPressEvent(event);
  if (meant->isEnabled() && !event->isAutoRepeat()) meant->trigger();
}

void MainWindow::changeEvent(QEvent* event) {
  QMainWindow::changeEvent(event);
  const bool left = (event->type() == QEvent::ActivationChange && !isActiveWindow()) ||
                    (event->type() == QEvent::WindowStateChange && isMinimized());
  if (page_ == nullptr || !left) return;
  session_.release_all();
  // Time waits for who was called away.
  if (view().driving()) actions_[Act::Pause]->setChecked(true);
  view().leave_driving();
}

}  // namespace lagniappe::app
