// SPDX-License-Identifier: GPL-3.0-or-later
// The window: top strip, rail, the pages, and what ties them together.
#pragma once

#include <QMainWindow>
#include <functional>
#include <optional>

#include "actions.h"
#include "pages/course_actions.h"
#include "pages/opener.h"
#include "pages/profile_actions.h"
#include "pages/states_actions.h"
#include "session/heart.h"
#include "session/preferences.h"
#include "theme/undressed.h"

class QMenu;
class QSettings;
class QStackedWidget;

namespace lagniappe::app {

class CommandSearch;
class DeviceActions;
struct SearchEntry;
class DrivePage;
class FieldsPage;
class MessageBar;
class Page;
class Recovery;
class SettingsPage;
class ShortcutSheet;
class StatesPage;
class TimingPage;
class TopStrip;
class ViewWidget;

class MainWindow : public QMainWindow {
  Q_OBJECT
 public:
  MainWindow(QSettings& settings, Doors doors);
  ~MainWindow() override;

  // Opens a course, model, profile or take, by what the file is. Failures are explained in the window.
  void open(const QString& path) { opener_.open(path); }
  // Saves what can be saved, without asking: the desktop's session may be over in a moment.
  void make_safe();
  void end_by_signal();

  DriveSession& session() { return session_; }
  Preferences& preferences() { return preferences_; }
  Heart& heart() { return heart_; }
  Undo& undo() { return undo_; }
  TakeDesk& desk() { return desk_; }
  HandlingDesk& handling() { return handling_; }
  StatesDesk& states() { return states_; }
  ProfileActions& profiles() { return *profile_actions_; }
  ViewWidget& view();
  const Actions& actions() const { return actions_; }
  MessageBar& messages() { return *messages_; }
  PlaceLoader& loader() { return opener_.loader(); }
  DrivePage& page() { return *page_; }
  StatesPage& states_page() { return *states_page_; }
  CourseDesk& course() { return course_; }
  FieldsPage& fields_page() { return *fields_page_; }
  TimingPage& timing_page() { return *timing_page_; }
  DeviceActions& devices() { return *device_actions_; }

 protected:
  void changeEvent(QEvent* event) override;
  void closeEvent(QCloseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QWidget* make_central();
  std::vector<Page*> all_pages() const;
  Page* shown_page() const;
  void show_page(Page& page);
  void show_state(StateId state);
  void connect_pages();
  void connect_actions();
  void connect_desks();
  void connect_page();
  void connect_opener();
  void show_problem(const QString& title, const QString& sentence);
  void show_take(const std::shared_ptr<Recording>& recording, const QString& verdict, const QString& path);
  void show_other_place();
  void take_changed(const std::shared_ptr<const Place>& place);
  std::vector<SearchEntry> search_entries();
  void take_place(const std::shared_ptr<const Place>& place);
  void ask_and_open(const QString& title, const FileKind& kind);
  void show_enabled();
  void clear_messages();
  void take_keys();

  std::optional<theme::Undressed> undressed_{std::in_place};  // Until all of it is there.
  QSettings& settings_;
  Preferences preferences_;
  Doors doors_;
  DriveSession session_;
  Heart heart_{[this](double seconds) { return session_.advance(seconds); }};
  Undo undo_;
  TakeDesk desk_;
  HandlingDesk handling_;
  StatesDesk states_;
  CourseDesk course_;
  Opener opener_;
  Actions actions_;
  DrivePage* page_;
  StatesPage* states_page_;
  FieldsPage* fields_page_;
  TimingPage* timing_page_;
  SettingsPage* settings_page_;
  QStackedWidget* pages_ = nullptr;
  MessageBar *messages_ = nullptr, *busy_ = nullptr;
  ShortcutSheet* keys_ = nullptr;
  CommandSearch* search_ = nullptr;
  TakeActions* take_actions_;
  ProfileActions* profile_actions_;
  StatesActions* states_actions_;
  CourseActions* course_actions_;
  DeviceActions* device_actions_;
  Recovery* recovery_ = nullptr;
  TopStrip* strip_ = nullptr;
  bool said_meanwhile_ = false;  // A problem, while a place was being opened.
};

}  // namespace lagniappe::app
