// SPDX-License-Identifier: GPL-3.0-or-later
// The window with long takes, on whatever display there is: what a hand does, frame after frame.
//   scrub    the playhead is moved, on both pages, with trails of one colour and by a signal
//   drag     a handle of a card is dragged, and the take is run again meanwhile
//   guard    a guard is typed, letter after letter
//   tape     the whole tape is drawn anew, as when zooming, at several widths of time
// Prints milliseconds from frame to frame (the tape: of drawing), medians and slowest twentieths. What is
// shown is checked to be what was asked for. An argument: only what has it in its name.
#include <QApplication>
#include <QElapsedTimer>
#include <QSettings>
#include <QTemporaryDir>
#include <algorithm>
#include <cstdio>
#include <string_view>

#include "application.h"
#include "cards/card.h"
#include "cards/cards_panel.h"
#include "cards/drawing_view.h"
#include "lagniappe/files.h"
#include "main_window.h"
#include "pages/drive_page.h"
#include "pages/states_page.h"
#include "states/lua_editor.h"
#include "states/matrix_view.h"
#include "states/transition_pane.h"
#include "tape/tape.h"
#include "viewport/view_widget.h"
#include "widgets/ledger_column.h"

namespace {

using namespace lagniappe;
using namespace lagniappe::app;

constexpr int kFrames = 240;

double milliseconds(const QElapsedTimer& timer) { return double(timer.nsecsElapsed()) * 1e-6; }

void print(const char* what, std::vector<double> times) {
  std::sort(times.begin(), times.end());
  std::printf("%-44s %8.2f %8.2f\n", what, times[times.size() / 2], times[times.size() * 95 / 100]);
  std::fflush(stdout);
}

// Walks, turns, jumps and sprints about, so that all lanes have something to show.
Take wandering_take(const MainWindow& window, int seconds) {
  const Place& place = *const_cast<MainWindow&>(window).session().place();
  Take take;
  take.course = std::make_shared<const Course>(place.course);
  take.course_identity = place.identity;
  take.start = start_state(take.profile, start_home(place.course), place.world);
  for (int i = 0; i < seconds * 60; ++i) {
    InputFrame input;
    input.move = Vec2(i % 700 < 90 ? 0.6 : 0.0, i % 300 < 240 ? 1.0 : 0.0);
    input.look_delta = Vec2(i % 200 < 60 ? 0.015 : -0.004, 0.0);
    input.held.set(Action::Sprint, i % 500 < 200);
    input.pressed.set(Action::Jump, i % 130 == 0);
    take.inputs.push_back(input);
  }
  return take;
}

void show(MainWindow& window, int seconds) {
  const auto place = window.session().shared_place();
  Take take = wandering_take(window, seconds);
  Run run = *run_take(take, place->world);
  window.desk().show_recording({std::move(take), place, std::move(run), {}});
  QApplication::processEvents();
}

void must(bool fine, const char* what) {
  if (fine) return;
  std::fprintf(stderr, "not so: %s\n", what);
  std::exit(1);
}

// The hand moves once for each frame; what is awaited is that frame.
std::vector<double> each_frame(MainWindow& window, const std::function<void(int)>& hand) {
  std::vector<double> times;
  bool beaten = false, shown = false;
  QObject guard;
  QObject::connect(&window.heart(), &Heart::beat, &guard, [&] { beaten = true; });
  QObject::connect(&window.view(), &ViewWidget::frame_shown, &guard, [&] { shown = shown || beaten; });
  for (int i = 0; i < kFrames; ++i) {
    QElapsedTimer timer;
    timer.start();
    beaten = shown = false;
    hand(i);
    window.heart().wake();
    window.view().draw_anew();
    while (!shown) QApplication::processEvents(QEventLoop::WaitForMoreEvents);
    times.push_back(milliseconds(timer));
  }
  return times;
}

std::vector<double> scrub(MainWindow& window) {
  DriveSession& session = window.session();
  const std::size_t ticks = session.shown().run.ticks();
  const bool on_drive = window.page().isVisible();
  return each_frame(window, [&](int i) {
    if (i > 0 && on_drive)
      must(window.page().ledger().heading() == QString("Tick %1").arg(session.playhead()), "ledger's tick");
    session.set_playhead(ticks * std::size_t(i * 37 % kFrames) / kFrames);
  });
}

void send(QWidget& to, QEvent::Type type, const QPointF& at, Qt::MouseButtons buttons) {
  QMouseEvent event(type, at, to.mapToGlobal(at), type == QEvent::MouseMove ? Qt::NoButton : Qt::LeftButton,
                    buttons, Qt::NoModifier);
  QApplication::sendEvent(&to, &event);
}

std::vector<double> drag(MainWindow& window) {
  window.page().cards().bring_up("jump");
  QApplication::processEvents();
  auto* drawing = window.page().cards().card("jump")->findChild<DrawingView*>();
  const QPointF from = drawing->place_of(0);
  const Profile before = window.handling().now();
  send(*drawing, QEvent::MouseButtonPress, from, Qt::LeftButton);
  const auto times = each_frame(window, [&](int i) {
    send(*drawing, QEvent::MouseMove, from + QPointF(i % 3, i % 16 - 8), Qt::LeftButton);
  });
  must(!differences(window.handling().now(), before).empty(), "a dragged handle changes a value");
  send(*drawing, QEvent::MouseButtonRelease, from, {});
  return times;
}

void press(QWidget& to, int key, const QString& text = {}) {
  for (const QEvent::Type type : {QEvent::KeyPress, QEvent::KeyRelease}) {
    QKeyEvent event(type, key, Qt::NoModifier, text);
    QApplication::sendEvent(&to, &event);
  }
}

// Letter after letter at the end of a guard, and back again.
std::vector<double> type_guard(MainWindow& window) {
  StatesDesk& desk = window.states();
  const StateTable before = desk.table();
  for (std::size_t column = 0; column < desk.matrix().columns() && !desk.chosen(); ++column) {
    if (!desk.matrix().cell(0, column).rows.empty()) desk.choose(CellPlace{0, column});
  }
  window.states_page().transition().edit_guard();
  QWidget& guard = window.states_page().transition().guard();
  press(guard, Qt::Key_End);
  const QString text = " and speed > 1.25 and time_in_state < 9";
  int changes = 0;
  const auto times = each_frame(window, [&](int i) {
    const int at = i % int(text.size() * 2);
    at < text.size() ? press(guard, 0, text.mid(at, 1)) : press(guard, Qt::Key_Backspace);
    changes += !(desk.table() == before);
  });
  must(changes > 0, "a typed guard changes the table");
  return times;
}

std::vector<double> redraw(MainWindow& window, double width) {
  Tape& tape = window.page().tape();
  const double seconds = window.session().shown().run.seconds();
  std::vector<double> times;
  for (int i = 0; i < kFrames; ++i) {
    const double from = (seconds - width) * i / kFrames;
    QElapsedTimer timer;
    timer.start();
    tape.show_range(from, from + width);
    tape.replot(QCustomPlot::rpImmediateRefresh);
    times.push_back(milliseconds(timer));
  }
  return times;
}

}  // namespace

int main(int argc, char** argv) {
  lagniappe::app::choose_display();
  QApplication application(argc, argv);
  lagniappe::app::begin_application(application, false);
  QTemporaryDir folder;
  QSettings settings(folder.filePath("settings.ini"), QSettings::IniFormat);
  settings.setValue("study", folder.filePath("study"));
  MainWindow window(settings, real_doors());
  window.show();
  window.open(LAGNIAPPE_SOURCE_DIR "/courses/tidewheel.course.json");
  while (window.loader().busy()) QApplication::processEvents();
  std::printf("window %d x %d, view %d x %d\n%-44s %8s %8s\n", window.width(), window.height(),
              window.view().width(), window.view().height(), "", "median", "slow 5 %");
  window.heart().set_screen_rate(1000.0);  // As fast as it can.
  const std::string_view only = argc > 1 ? argv[1] : "";
  const auto measure = [&](const char* what, auto&& part) {
    if (std::string_view(what).find(only) != std::string_view::npos) print(what, part());
  };
  const auto scrub_with = [&](const TrailChoice& trail) {
    return [&window, trail] {
      window.view().trail() = trail;
      return scrub(window);
    };
  };
  const auto redraw_of = [&](double width) { return [&window, width] { return redraw(window, width); }; };
  show(window, 600);
  measure("scrub, take of 10 minutes", scrub_with({}));
  measure("scrub, trail by speed, 6 s", scrub_with({true, 6.0, "speed", 0}));
  measure("scrub, trail by speed, 30 s, figures", scrub_with({true, 30.0, "speed", 12}));
  measure("drag a handle, take of 10 minutes", [&] { return drag(window); });
  measure("scrub, with a ghost", scrub_with({}));
  window.actions()[Act::StatesPage]->trigger();
  measure("scrub on the States page", scrub_with({}));
  measure("type a guard, take of 10 minutes", [&] { return type_guard(window); });
  window.actions()[Act::DrivePage]->trigger();
  measure("tape anew, 10 minutes, all of it", redraw_of(600.0));
  measure("tape anew, 10 minutes, 10 s of it", redraw_of(10.0));
  show(window, 3600);
  measure("scrub, take of an hour", scrub_with({}));
  measure("tape anew, an hour, all of it", redraw_of(3600.0));
  measure("tape anew, an hour, 10 s of it", redraw_of(10.0));
}
