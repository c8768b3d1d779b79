// SPDX-License-Identifier: GPL-3.0-or-later
// The window with long takes, on whatever display there is:
//   scrub   the playhead is moved, and view, tape and ledger are drawn for it, frame after frame
//   tape    the whole tape is drawn anew, as when zooming, at several widths of time
// Prints milliseconds, medians and slowest twentieths. Each round checks that what it shows is the tick it
// asked for.
#include <QApplication>
#include <QElapsedTimer>
#include <QSettings>
#include <QTemporaryDir>
#include <algorithm>
#include <cstdio>

#include "application.h"
#include "lagniappe/files.h"
#include "main_window.h"
#include "pages/drive_page.h"
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

std::vector<double> scrub(MainWindow& window) {
  DriveSession& session = window.session();
  const std::size_t ticks = session.shown().run.ticks();
  std::vector<double> times;
  for (int i = 0; i < kFrames; ++i) {
    QElapsedTimer timer;
    timer.start();
    session.set_playhead(ticks * std::size_t(i * 37 % kFrames) / kFrames);
    window.view().pass_frame();
    window.view().repaint();
    QApplication::processEvents();
    times.push_back(milliseconds(timer));
    if (window.page().ledger().heading() != QString("Tick %1").arg(session.playhead())) std::exit(1);
  }
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
  lagniappe::app::begin_application(application);
  QTemporaryDir folder;
  QSettings settings(folder.filePath("settings.ini"), QSettings::IniFormat);
  settings.setValue("study", folder.filePath("study"));
  MainWindow window(settings, real_doors());
  window.show();
  window.open(LAGNIAPPE_SOURCE_DIR "/courses/tidewheel.course.json");
  while (window.loader().busy()) QApplication::processEvents();
  std::printf("window %d x %d, view %d x %d\n%-44s %8s %8s\n", window.width(), window.height(),
              window.view().width(), window.view().height(), "", "median", "slow 5 %");
  show(window, 600);
  print("scrub, take of 10 minutes", scrub(window));
  print("tape anew, 10 minutes, all of it", redraw(window, 600.0));
  print("tape anew, 10 minutes, 10 s of it", redraw(window, 10.0));
  show(window, 3600);
  print("scrub, take of an hour", scrub(window));
  print("tape anew, an hour, all of it", redraw(window, 3600.0));
  print("tape anew, an hour, 10 s of it", redraw(window, 10.0));
}
