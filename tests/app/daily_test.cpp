// SPDX-License-Identifier: GPL-3.0-or-later
// What is wanted every day: finding things by name, inputs played and written, a course that changes on the
// disk, driving seen from where the camera is, messages beside what is worked on.
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QScrollArea>
#include <QSplitter>

#include "cards/card.h"
#include "cards/cards_panel.h"
#include "cards/value_row.h"
#include "lagniappe/files.h"
#include "pages/states_page.h"
#include "states/state_pane.h"
#include "support/window_fixture.h"
#include "viewport/carriage.h"
#include "viewport/overlay_lines.h"
#include "widgets/command_search.h"
#include "widgets/ledger_column.h"
#include "widgets/shortcut_sheet.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

std::string yard(double kerb) {
  return R"({"lagniappe": "course", "version": 1, "name": "Yard",
  "marks": [{"id": "start", "at": [0, 0, 0]}, {"id": "far end", "at": [0, 0, 12], "facing": 90}],
  "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [60, 1, 60]},
             {"id": "kerb", "kind": "block", "at": [0, 0, -4], "size": [8, )" +
         std::to_string(kerb) + R"(, 3]}]})";
}

struct DailyFixture : WindowFixture {
  QString course = file("yard.course.json", yard(0.2));

  DailyFixture() { open(course); }

  // Types into the search and returns what is found.
  QStringList found(const QString& words) {
    QTest::keyClick(&window, Qt::Key_K, Qt::ControlModifier);
    auto* field = window.findChild<QLineEdit*>("commandField");
    REQUIRE(wait_for([&] { return field->isVisible(); }));
    QTest::keyClicks(field, words);
    QStringList names;
    auto* list = window.findChild<QListWidget*>("commands");
    for (int i = 0; i < list->count(); ++i) names.append(list->item(i)->text());
    return names;
  }
  void take_first() { QTest::keyClick(window.findChild<QLineEdit*>("commandField"), Qt::Key_Return); }
  void walk(double seconds) {
    InputChange go, stop;
    go.at = 0.1;
    go.move = Vec2(0.0, 1.0);
    stop.at = seconds;
    stop.move = Vec2(0.0);
    follow_to_rest(InputScript{{go, stop}}, seconds + 0.5);
  }
};

}  // namespace

TEST_CASE_METHOD(DailyFixture, "Ctrl+K finds a value, and its row comes up") {
  CHECK(found("highest step").first().startsWith("air highest step    value: card "));
  QTest::keyClick(window.findChild<QLineEdit*>("commandField"), Qt::Key_Escape);
  CHECK(found("ground highest").first() == "ground highest step    value: card Steps & snapping");
  take_first();
  ValueRow* row = nullptr;
  REQUIRE(wait_for([&] {
    for (ValueRow* r : window.page().cards().findChildren<ValueRow*>())
      if (r->path() == "ground.highest_step") row = r;
    return row != nullptr && !row->visibleRegion().isEmpty() && row->isAncestorOf(window.focusWidget());
  }));
}

TEST_CASE_METHOD(DailyFixture, "Ctrl+K finds marks, states, pieces and takes, and goes there") {
  CHECK(found("far end").first() == "far end    mark: Drive, Begin at mark");
  take_first();
  CHECK(wait_for([&] { return std::abs(session.current().foot_C.z - 12.0) < 0.1; }));
  walk(1.0);
  CHECK(found("kerb").contains("kerb    piece: in the course"));
  take_first();
  CHECK(wait_for([&] { return window.page().ledger().piece_text().contains("never touched"); }));
  CHECK(found("crouch").contains("Crouch    state: States page"));
  QTest::keyClick(window.findChild<QLineEdit*>("commandField"), Qt::Key_Escape);
  CHECK(found("Tuck state").first() == "Tuck    state: States page");
  take_first();
  CHECK(wait_for([&] { return window.states_page().state().isVisible(); }));
  window.actions()[Act::DrivePage]->trigger();
  window.actions()[Act::ToStart]->trigger();
  window.desk().study().wait();
  REQUIRE(wait_for([&] { return window.desk().study().entries().size() == 1; }));
  const QString name = QString::fromStdString(window.desk().study().entries().front().about.name);
  CHECK(found("take " + name.section(' ', 0, 0)).filter(name + "    take").size() == 1);
}

TEST_CASE_METHOD(DailyFixture,
                 "Ctrl+K says when nothing is called that, and lists only actions without a word") {
  const QStringList nothing = found("xyzzy");
  REQUIRE(nothing.size() == 1);
  CHECK(nothing.first().contains("xyzzy"));
  take_first();  // And does nothing.
  const QStringList all = found("");
  CHECK(all.size() > 40);
  CHECK(all.filter("    value:").isEmpty());
}

TEST_CASE_METHOD(DailyFixture, "Inputs are played from the start as a take, and written again") {
  open(kSource + "/takes/stairs.inputs.json");
  REQUIRE(wait_for([&] { return session.has_shown() && session.shown().run.ticks() == 8 * 60; }));
  CHECK(session.current().foot_C.z == Approx(0.0).margin(1e-3));  // The playhead is at the start.
  const Run played = session.shown().run;
  CHECK(played.last().foot_C.z < -15.0);
  CHECK(session.shown().take.about.name == "stairs");
  chosen_file = folder.filePath("again.inputs.json");
  trigger(Act::ExportInputs);
  open(chosen_file);
  REQUIRE(wait_for([&] { return session.shown().take.about.name == "again"; }));
  const Run& again = session.shown().run;
  CHECK(length(again.state(8 * 60).foot_C - played.last().foot_C) < 1e-6);
  // Given with a course that is still being read, they wait for it.
  window.open(course);
  window.open(kSource + "/takes/stairs.inputs.json");
  REQUIRE(wait_for([&] { return session.shown().take.about.name == "stairs"; }));
  CHECK(session.place()->course.name == "Yard");
  open(chosen_file);
  REQUIRE(wait_for([&] { return session.shown().take.about.name == "again"; }));
  // And not for another one, where that cannot be read.
  window.open(file("broken.obj", "f 1 2 3\n"));
  window.open(kSource + "/takes/tour.inputs.json");
  REQUIRE(wait_for([&] { return !window.loader().busy(); }));
  open(course);
  REQUIRE(wait_for([&] { return session.is_open() && !window.loader().busy(); }));
  CHECK(session.shown().take.about.name.empty());
  open(chosen_file);
  REQUIRE(wait_for([&] { return session.shown().take.about.name == "again"; }));
  // One that cannot be read is told, and nothing changes.
  open(file("bad.inputs.json", R"({"lagniappe": "inputs", "version": 1, "steps": [{"at": -1}]})"));
  CHECK(window.messages().text().contains("steps/0/at"));
  CHECK(session.shown().take.about.name == "again");
}

TEST_CASE_METHOD(DailyFixture, "A course that changes on the disk is driven on from where one is") {
  walk(0.6);
  const Vec3 was = session.current().foot_C;
  CHECK(was.z < -0.5);
  file("yard.course.json", yard(0.9));
  REQUIRE(wait_for(
      [&] { return session.place()->world.cast_ray(Vec3(0, 5, -4), Vec3(0, -10, 0))->hit.point_C.y > 0.85; }));
  CHECK(length(session.current().foot_C - was) < 0.01);
  CHECK(session.is_open());
  walk(2.0);
  CHECK(session.current().foot_C.z > -3.0);  // The kerb is a wall now.
  // Half a file is told, and the course stays.
  file("yard.course.json", yard(0.2).substr(0, 200));
  REQUIRE(wait_for([&] { return window.messages().isVisible(); }));
  CHECK(window.messages().text().contains("changed on the disk and cannot be read"));
  CHECK(session.place()->course.pieces.size() == 2);
}

TEST_CASE_METHOD(DailyFixture, "A finished take is retaken on its course when that changes") {
  walk(2.0);
  const double past = session.current().foot_C.z;
  CHECK(past < -5.0);
  window.actions()[Act::ToStart]->trigger();
  window.desk().study().wait();
  REQUIRE(wait_for([&] { return window.desk().study().entries().size() == 1; }));
  open(window.desk().study().entries().front().file);
  REQUIRE(wait_for([&] { return !session.is_open(); }));
  file("yard.course.json", yard(0.9));
  REQUIRE(wait_for([&] { return window.desk().current_ghost() != nullptr; }));
  CHECK(window.desk().current_ghost()->recording->run.last().foot_C.z > -3.0);
  CHECK(session.shown().run.last().foot_C.z == Approx(past).margin(1e-6));
}

TEST_CASE_METHOD(DailyFixture, "One drives while the free camera looks on") {
  next_picture();
  const Vec3 eye = view.camera().free_eye().at_C;
  window.activateWindow();
  QTest::keyClick(&window, Qt::Key_Return, Qt::ShiftModifier);
  REQUIRE(view.driving());
  CHECK(view.camera().mode == CameraMode::Free);
  const Vec3 from = view.camera().free_eye().at_C;
  CHECK(length(from - eye) > 0.01);  // From where the eye was.
  const Vec3 foot = session.current().foot_C;
  QTest::keyPress(&view, Qt::Key_W);
  CHECK(wait_for([&] { return length(session.current().foot_C - foot) > 1.0; }));
  QTest::keyRelease(&view, Qt::Key_W);
  CHECK(length(view.camera().free_eye().at_C - from) < 1e-9);
  QTest::keyClick(&view, Qt::Key_V);
  CHECK(view.camera().mode != CameraMode::Free);
  QTest::keyClick(&view, Qt::Key_Escape);
  CHECK_FALSE(view.driving());
}

TEST_CASE_METHOD(DailyFixture, "A message makes room for itself and covers nothing") {
  open(file("bad.course.json", R"({"lagniappe": "course", "version": 9})"));
  REQUIRE(window.messages().isVisible());
  QTest::qWait(50);
  const auto on_screen = [](const QWidget& w) { return QRect(w.mapToGlobal(QPoint(0, 0)), w.size()); };
  const QRect bar = on_screen(window.messages());
  CHECK(bar.height() > 20);
  for (const QWidget* w : std::initializer_list<const QWidget*>{
           &view, &window.page().tape(), &window.page().cards(), &window.page().ledger()})
    CHECK_FALSE(bar.intersects(on_screen(*w)));
}

TEST_CASE_METHOD(DailyFixture, "The ledger's end tells where the velocity comes from") {
  walk(1.0);
  session.set_playhead(10);  // Setting off.
  next_picture();
  const auto* list = window.page().ledger().findChild<QListWidget*>("sentences");
  const auto row = [&] { return list->item(list->count() - 1); };
  const auto told = [&] { return row()->data(Qt::AccessibleTextRole).toString(); };
  REQUIRE(wait_for([&] { return told().contains("+ intent"); }));
  const auto& run = session.shown().run;
  for (const auto& [name, tick] : {std::pair("before", 9), std::pair("after", 10)})
    CHECK(told().contains(QString("%1 (%2, 0.00, %3)")
                              .arg(name)
                              .arg(run.state(tick).velocity_C.x, 0, 'f', 2)
                              .arg(run.state(tick).velocity_C.z, 0, 'f', 2)));
  CHECK_FALSE(told().contains("wind"));
  const QString at_ten = told();
  session.set_playhead(40);  // Rows are used again: the table stays the last, and is this tick's.
  next_picture();
  CHECK(told() != at_ten);
  CHECK(row()->text().isEmpty());
  CHECK(list->count() == int(session.last_ledger().entries.size()) + 1);
  session.set_playhead(0);
  next_picture();
  CHECK(list->count() == 0);
  session.set_playhead(10);
  next_picture();
  CHECK(told() == at_ten);
}

TEST_CASE_METHOD(DailyFixture, "The names of curves stand clear of them") {
  walk(2.0);
  Tape& tape = window.page().tape();
  next_picture();
  for (QCPAxisRect* rect : tape.axisRects()) {
    for (const QCPGraph* graph : rect->graphs()) {
      for (const QCPGraphData& point : *graph->data()) {
        const double y = rect->axis(QCPAxis::atLeft)->coordToPixel(point.value);
        REQUIRE(y > rect->rect().top() + 13.0);
        REQUIRE(y < rect->rect().bottom() + 1.0);
      }
    }
  }
}

TEST_CASE_METHOD(DailyFixture, "The capsule of who lies is drawn lying, and a ghost takes its state's pose") {
  InputChange lie;
  lie.at = 0.1;
  lie.press.set(Action::Lie, true);
  follow_to_rest(InputScript{{lie}}, 2.0);
  REQUIRE(session.current().lying());
  const double radius = session.shown_profile().capsule.radius;
  const auto size_of = [](const std::vector<LineVertex>& lines) {
    Vec3 low(1e9), high(-1e9);
    for (const LineVertex& v : lines) {
      const Vec3 at(v.position[0], v.position[1], v.position[2]);
      low = glm::min(low, at);
      high = glm::max(high, at);
    }
    return high - low;
  };
  OverlayChoice capsule;
  capsule.capsule = true;
  // At rest more is drawn, after it.
  std::vector<LineVertex> lines = overlay_lines(session, capsule, Vec3(0.0));
  lines.resize(lines.size() - overlay_lines(session, {}, Vec3(0.0)).size());
  const Vec3 size = size_of(lines);
  CHECK(size.z == Approx(session.current().lie_length + 2.0 * radius).margin(0.02));
  CHECK(size.y == Approx(2.0 * radius).margin(0.02));
  // Beside it, one that is run with another pace lies as well.
  Profile other = window.handling().now();
  other.ground.speed = 3.0;
  REQUIRE(window.handling().set(other, "slower"));
  REQUIRE(wait_for([&] { return window.desk().current_ghost() != nullptr; }));
  const Recording& ghost = *window.desk().current_ghost()->recording;
  const std::size_t tick = ghost.run.ticks();
  const Pose pose = interpolate(ghost.run.state(tick), ghost.run.state(tick), 1.0);
  CHECK(carriage_at(ghost, session.place()->world, tick, pose).pose == "lie");
  CHECK(carriage_at(ghost, session.place()->world, 0, interpolate(ghost.run.state(0), ghost.run.state(0), 1.0))
            .pose == "stand");
}

TEST_CASE_METHOD(DailyFixture, "Enter drives and ends a pause") {
  QTest::keyClick(&view, Qt::Key_P);
  REQUIRE(session.paused());
  QTest::keyClick(&view, Qt::Key_Return);
  CHECK(view.driving());
  CHECK_FALSE(session.paused());
  CHECK_FALSE(window.actions()[Act::Pause]->isChecked());
  const std::size_t before = session.shown().run.ticks();
  REQUIRE(wait_for([&] { return session.shown().run.ticks() > before; }));
}

TEST_CASE_METHOD(DailyFixture, "F8 goes round the findings; where there are none it says so and all runs on") {
  walk(0.3);
  REQUIRE(wait_for([&] { return window.actions()[Act::NextFinding]->isEnabled(); }));
  // At once: a machine that does not keep up drops time, and that is a finding.
  drive();
  QTest::keyClick(&view, Qt::Key_F8);
  CHECK_FALSE(session.paused());
  auto* note = window.findChild<MessageBar*>("busyBar");
  REQUIRE(note != nullptr);
  CHECK(note->isVisible());
  CHECK(note->text().contains("No findings in this take"));
  REQUIRE(wait_for([&] { return !note->isVisible(); }));  // It goes by itself.
  CHECK_FALSE(window.messages().isVisible());
  QTest::keyClick(&view, Qt::Key_Escape);
  // A press in the air, a little too early for the landing.
  InputChange jump, again, later;
  jump.at = 0.2;
  jump.press.set(Action::Jump, true);
  again.at = 0.45;
  again.release.set(Action::Jump, true);
  later = again;
  later.at = 0.72;
  later.release = {};
  later.press.set(Action::Jump, true);
  follow_to_rest(InputScript{{jump, again, later}}, 3.0);
  std::set<std::size_t> ticks;  // What was driven before by real time may have findings of its own.
  for (const Finding& finding : session.shown().run.findings()) ticks.insert(finding.first);
  REQUIRE_FALSE(ticks.empty());
  session.set_playhead(0);
  for (int round = 0; round < 2; ++round) {
    for (const std::size_t tick : ticks) {
      trigger(Act::NextFinding);
      CHECK(session.playhead() == tick);
    }
  }
  session.set_playhead(0);
  trigger(Act::PreviousFinding);  // Round from the other side.
  CHECK(session.playhead() == *ticks.rbegin());
}

TEST_CASE_METHOD(DailyFixture,
                 "The tick rate: refused with a sentence, by keys while driving, marked in the list") {
  auto* rates = window.page().findChild<QComboBox*>("tickRate");
  const auto type_rate = [&](const QString& text) {
    rates->setFocus();
    rates->lineEdit()->selectAll();
    QTest::keyClicks(rates->lineEdit(), text);
    QTest::keyClick(rates->lineEdit(), Qt::Key_Return);
  };
  type_rate("603");
  CHECK(session.tick_rate() == 60);
  CHECK(window.messages().text().contains("The tick rate stays at 60"));
  CHECK(rates->currentText() == "60");
  type_rate("50");
  CHECK(session.tick_rate() == 50);
  CHECK(rates->currentIndex() == -1);  // Not in the list.
  drive();
  QTest::keyClick(&view, Qt::Key_Period, Qt::ControlModifier);
  CHECK(session.tick_rate() == 60);
  QTest::keyClick(&view, Qt::Key_Period, Qt::ControlModifier);
  CHECK(session.tick_rate() == 120);
  CHECK(rates->itemText(rates->currentIndex()) == "120");
  QTest::keyClick(&view, Qt::Key_Comma, Qt::ControlModifier);
  CHECK(session.tick_rate() == 60);
  CHECK(view.driving());
}

TEST_CASE("Who declines an offer is asked the next; what was offered before it is gone") {
  MessageBar bar;
  QStringList said;
  bar.show_offer(
      "first", "", "Yes", [&] { said += "took the first"; },
      [&] {
        said += "declined the first";
        bar.show_offer("second", "", "Yes", [&] { said += "took the second"; });
      });
  CHECK_FALSE(bar.is_problem());
  for (QPushButton* button : bar.findChildren<QPushButton*>())
    if (button->text() == "Not now") button->click();
  CHECK(said == QStringList{"declined the first"});
  CHECK(bar.text().startsWith("second"));
  bar.show_problem("another matter", "");
  emit bar.accepted();
  CHECK(said.size() == 1);
}

TEST_CASE_METHOD(DailyFixture,
                 "A sentence of the ledger is copied by Ctrl+C, and all of a tick where none is chosen") {
  walk(1.0);
  session.set_playhead(30);
  next_picture();
  LedgerColumn& ledger = *window.page().findChild<LedgerColumn*>("ledger");
  auto* list = ledger.findChild<QListWidget*>("sentences");
  const QStringList told = ledger.sentences();
  REQUIRE(told.size() >= 3);
  list->setFocus();
  list->setCurrentRow(-1);
  QTest::keyClick(list, Qt::Key_C, Qt::ControlModifier);
  const QString all = QApplication::clipboard()->text();
  CHECK(all.startsWith("Tick 30: Walk"));
  for (const QString& sentence : told) CHECK(all.contains(sentence));
  ledger.choose(1);
  QTest::keyClick(list, Qt::Key_C, Qt::ControlModifier);
  CHECK(QApplication::clipboard()->text() == list->item(1)->text());
}

TEST_CASE_METHOD(DailyFixture, "What can be done with a take stands in its menu, in words") {
  walk(1.0);
  session.finish();
  window.desk().study().wait();
  window.page().show_takes();
  auto* list = window.findChild<QListWidget*>("takes");
  REQUIRE(wait_for([&] { return list->count() == 1; }));
  list->setCurrentRow(0);
  CHECK(list->contextMenuPolicy() == Qt::ActionsContextMenu);
  REQUIRE(list->actions().size() == 6);
  const auto does = [&](const QString& begins) {
    for (QAction* action : list->actions())
      if (action->text().startsWith(begins)) return action->trigger();
    FAIL("no " << begins.toStdString());
  };
  does("Star");
  CHECK(window.desk().study().entries().front().about.star);
  does("Put aside");
  CHECK(window.desk().study().entries().empty());
  trigger(Act::Undo);
  CHECK(window.desk().study().entries().size() == 1);
}

TEST_CASE_METHOD(DailyFixture, "Poses and a picture of the view are written; where none is chosen nothing is") {
  walk(1.0);
  chosen_file = folder.filePath("walked");
  trigger(Act::ExportPoses);
  std::ifstream poses((chosen_file + ".csv").toStdString());
  std::string line;
  int lines = 0;
  while (std::getline(poses, line)) ++lines;
  CHECK(lines == int(session.shown().run.ticks()) + 2);  // A heading, and the start.
  next_picture();
  trigger(Act::ExportView);
  const QImage picture(chosen_file + ".png");
  CHECK(picture.size() == view.size() * view.devicePixelRatioF());
  CHECK(difference(picture, view.grab().toImage()) < 0.02);
  chosen_file.clear();
  trigger(Act::ExportView);
  CHECK(QDir(folder.path()).entryList({"*.png"}).size() == 1);
  chosen_file = "/proc/nowhere/walked.csv";
  trigger(Act::ExportPoses);
  CHECK(window.messages().text().contains("It was not written"));
  CHECK(window.messages().text().contains("/proc/nowhere"));
}

TEST_CASE_METHOD(DailyFixture, "Who closes the sheet of keys goes on where they were") {
  view.setFocus();
  trigger(Act::Keys);
  auto* sheet = window.findChild<ShortcutSheet*>();
  REQUIRE(wait_for([&] { return sheet->isVisible() && sheet->hasFocus(); }));
  QTest::keyClick(sheet, Qt::Key_Escape);
  CHECK_FALSE(sheet->isVisible());
  CHECK(view.hasFocus());
  QTest::keyClick(window.focusWidget(), Qt::Key_Return);
  CHECK(view.driving());
}

TEST_CASE_METHOD(DailyFixture, "Parts of a page stay as wide as they were made while another page is shown") {
  auto* upper = qobject_cast<QSplitter*>(view.parentWidget());
  REQUIRE(upper != nullptr);
  // As it was left the last time: not what counts now.
  const QList<int> before = upper->sizes();
  settings.setValue("drive/upper", upper->saveState());
  upper->setSizes({before[0] - 120, before[1] + 120});
  const QList<int> made = upper->sizes();
  REQUIRE(made[1] > before[1] + 60);
  QTest::keyClick(&window, Qt::Key_2, Qt::ControlModifier);
  REQUIRE(window.states_page().isVisible());
  QTest::keyClick(&window, Qt::Key_1, Qt::ControlModifier);
  REQUIRE(wait_for([&] { return view.isVisible() && view.parentWidget() == upper; }));
  CHECK(upper->sizes() == made);
}
