// SPDX-License-Identifier: GPL-3.0-or-later
// The States page in real windows: guards typed, states renamed and dragged, firings counted, the table
// checked.
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollBar>

#include "cards/card.h"
#include "cards/value_field.h"
#include "lagniappe/files.h"
#include "lagniappe/scxml.h"
#include "pages/states_page.h"
#include "session/table_edits.h"
#include "states/change_log.h"
#include "states/findings_pane.h"
#include "states/lua_editor.h"
#include "states/matrix_view.h"
#include "states/signals_pane.h"
#include "states/state_pane.h"
#include "states/transition_pane.h"
#include "states/why_pane.h"
#include "support/window_fixture.h"
#include "theme/state_colours.h"
#include "theme/theme.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

const char* const kYard = R"({"lagniappe": "course", "version": 1, "name": "Yard",
  "marks": [{"id": "start", "at": [0, 0, 0]}, {"id": "pipe", "at": [0, 0, 12]}],
  "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [90, 1, 90]},
             {"id": "roof", "kind": "block", "at": [0, 1.3, 9], "size": [4, 1, 3]}]})";

struct StatesFixture : WindowFixture {
  StatesPage& page = window.states_page();
  StatesDesk& desk = window.states();
  MatrixView& matrix = page.matrix();
  QString warden = folder.filePath("warden.profile.json");

  StatesFixture() {
    open(file("yard.course.json", kYard));
    QFile::copy(kSource + "/profiles/warden.profile.json", warden);
    open(warden);
  }
  // Stands, walks, sprints, jumps and stands again, by a script, until all rests.
  void walk() {
    InputChange go, sprint, jump, stop;
    go.at = 0.2;
    go.move = Vec2(0.0, 1.0);
    sprint.at = 0.8;
    sprint.press.set(Action::Sprint, true);
    jump.at = 1.4;
    jump.press.set(Action::Jump, true);
    stop.at = 2.2;
    stop.move = Vec2(0.0);
    stop.release.set(Action::Jump, true);
    stop.release.set(Action::Sprint, true);
    follow_to_rest(InputScript{{go, sprint, jump, stop}}, 2.8);
  }
  void open_page() {
    QTest::keyClick(&window, Qt::Key_2, Qt::ControlModifier);
    REQUIRE(page.isVisible());
    next_picture();
  }
  std::size_t source(const std::string& name) const {
    const auto& all = desk.matrix().sources();
    const auto found = std::find_if(all.begin(), all.end(), [&](const auto& s) { return s.name == name; });
    REQUIRE(found != all.end());
    return std::size_t(found - all.begin());
  }
  CellPlace place(const std::string& from, const std::string& to) const {
    return {source(from), std::size_t(*desk.chart().find(to))};
  }
  const StateMatrix::Cell& cell(const std::string& from, const std::string& to) const {
    const CellPlace at = place(from, to);
    return desk.matrix().cell(at.source, at.column);
  }
  void click(const std::string& from, const std::string& to) {
    const CellPlace at = place(from, to);
    QTest::mouseClick(matrix.viewport(), Qt::LeftButton, Qt::NoModifier,
                      matrix.cell_rect(at.source, at.column).center());
    REQUIRE(desk.chosen() == at);
  }
  std::string guard(const std::string& from, const std::string& to) const {
    return desk.table().transitions[cell(from, to).rows.front()].guard;
  }
  void type_guard(const QString& text) {
    QTest::keyClick(&matrix, Qt::Key_Space);
    LuaEditor& editor = page.transition().guard();
    REQUIRE(wait_for([&] { return editor.hasFocus(); }));
    QTest::keyClicks(&editor, text);
    QTest::keyClick(&editor, Qt::Key_Escape);  // The list of words, if there is one.
  }
  void undo() { window.undo().undo_once(); }
  QColor pixel(const QWidget& widget, const QPoint& at) {
    return const_cast<QWidget&>(widget).grab().toImage().pixelColor(at * widget.devicePixelRatioF());
  }
};

}  // namespace

TEST_CASE_METHOD(StatesFixture, "The matrix counts the firings of the take, and a click leads to them") {
  walk();
  open_page();
  CHECK(cell("Stand", "Walk").fired == 1);
  CHECK(cell("Walk", "Sprint").fired == 1);
  CHECK(cell("Sprint", "Rise").fired == 1);
  CHECK(cell("Upright", "Rise").fired == 1);  // The group's row, where it is declared.
  CHECK(cell("Walk", "Rise").fired == 0);
  CHECK(cell("Walk", "Rise").own == 0);
  CHECK(cell("Stand", "Stand").itself);
  click("Walk", "Sprint");
  CHECK(page.tape().firings().size() == 1);
}

TEST_CASE_METHOD(StatesFixture, "Firings lie on the tape and in the log, and both lead there") {
  walk();
  open_page();
  click("Walk", "Sprint");
  const std::size_t fired = page.tape().firings().front();
  session.set_playhead(0);
  next_picture();
  QTest::keyClick(&window, Qt::Key_F9);
  CHECK(session.playhead() == fired);
  next_picture();
  CHECK(desk.chart().name_of(desk.state_now()) == "Sprint");
  REQUIRE(page.log().lines() == int(desk.firings().size()));
  CHECK(page.log().line(0).contains("Stand to Walk"));
  CHECK(page.log().line(0).contains("intent > 0.02  (1)"));
  CHECK(page.log().line(1).contains("sprint.held"));
  // The present state's header is marked, in the colour that it has on the tape.
  const auto* header = matrix.verticalHeader();
  const int row = int(page.matrix().model()->rowCount()) > 0 ? int(source("Sprint")) : 0;
  const QPoint at(header->width() - 8, header->sectionViewportPosition(row) + 6);
  CHECK(pixel(*header->viewport(), at) == theme::state_colour(*desk.chart().find("Sprint"), desk.chart()));
}

TEST_CASE_METHOD(StatesFixture, "A guard that is typed changes the retake, and is undone at once") {
  walk();
  open_page();
  click("Walk", "Sprint");
  type_guard("sprint.held and ground_speed > 90");
  CHECK(guard("Walk", "Sprint") == "sprint.held and ground_speed > 90");
  REQUIRE(window.desk().current_ghost());
  CHECK_FALSE(window.desk().current_ghost()->against.identical);
  CHECK(desk.subject_is_retake());
  CHECK(cell("Walk", "Sprint").fired == 0);
  CHECK(cell("Walk", "Rise").fired == 1);
  const Run& ghost = window.desk().current_ghost()->recording->run;
  const StateId sprint = *desk.chart().find("Sprint");
  for (std::size_t t = 0; t < 84; ++t) REQUIRE(ghost.state(t).state != sprint);  // Until it jumps.
  undo();
  CHECK(guard("Walk", "Sprint") == "sprint.held");
  next_picture();
  CHECK(cell("Walk", "Sprint").fired == 1);
}

TEST_CASE_METHOD(StatesFixture, "What is wrong in a guard is told under it, and the guard before goes on") {
  open_page();
  click("Walk", "Sprint");
  type_guard("sprint.hold");
  CHECK(guard("Walk", "Sprint") == "sprint.held");
  const LuaEditor& editor = page.transition().guard();
  CHECK(editor.fault().contains("sprint.hold"));
  CHECK(editor.fault().contains("line 1"));
  const auto labels = page.transition().findChildren<QLabel*>("fault");
  REQUIRE(labels.size() == 1);
  CHECK(labels[0]->isVisible());
  CHECK(labels[0]->text().contains("goes on"));
}

TEST_CASE_METHOD(StatesFixture, "An action is kept as it is typed, and all of the typing is undone at once") {
  open_page();
  click("Walk", "Sprint");
  LuaEditor* action = nullptr;
  for (LuaEditor* editor : page.transition().findChildren<LuaEditor*>()) {
    if (editor->accessibleName() == "Action") action = editor;
  }
  REQUIRE(action != nullptr);
  action->setFocus();
  REQUIRE(wait_for([&] { return action->hasFocus(); }));
  QTest::keyClicks(action, "jump() leave_ground() ");
  const auto now = [&] { return desk.table().transitions[cell("Walk", "Sprint").rows.front()].action; };
  CHECK(now() == "jump() leave_ground() ");
  undo();
  CHECK(now().empty());
}

TEST_CASE_METHOD(StatesFixture, "Each part of a guard is told with its value at the playhead") {
  walk();
  open_page();
  click("Stand", "Sprint");
  session.set_playhead(5);  // Standing, nothing pushed.
  next_picture();
  CHECK(page.transition().parts_text().contains("intent &gt; 0.02  (0)"));
  CHECK(page.transition().parts_text().count("does not") == 2);
  session.set_playhead(session.shown().run.ticks());
  next_picture();
  CHECK(page.transition().parts_text().contains(desk.time_text(desk.tick())));
}

TEST_CASE_METHOD(StatesFixture, "Why here and why not there are answered at every tick") {
  walk();
  open_page();
  page.show_why();
  const auto firings = desk.firings();
  REQUIRE(firings.size() >= 3);
  session.set_playhead(firings[1].tick + 3);  // Sprinting.
  next_picture();
  CHECK(page.why().here_text().contains("<b>Sprint</b>"));
  CHECK(page.why().here_text().contains("Stand to Walk"));
  CHECK(page.why().here_text().contains("Walk to Sprint"));
  page.why().ask_about(*desk.chart().find("Stand"));
  CHECK(page.why().there_text().contains("intent &lt;= 0.02  (1)"));
  CHECK(page.why().there_text().contains("does not"));
  CHECK(page.why().there_text().contains("for "));
  page.why().ask_about(*desk.chart().find("Soar"));
  CHECK(page.why().there_text().contains("No transition leads from Sprint to Soar"));
}

TEST_CASE_METHOD(StatesFixture, "Every signal is shown with its value at the playhead") {
  walk();
  open_page();
  page.show_signals();
  session.set_playhead(5);
  next_picture();
  SignalsPane& list = page.signal_list();
  CHECK(list.value_of("intent") == "0.000");
  CHECK(list.value_of("grounded") == "true");
  session.set_playhead(desk.firings()[1].tick + 20);  // Sprinting.
  next_picture();
  CHECK(list.value_of("intent") == "1.000");
  CHECK(list.value_of("sprint.held") == "true");
  CHECK(list.value_of("ground_speed").toDouble() > window.handling().now().ground.speed);
  for (const Signal& s : all_signals())
    CHECK_FALSE(list.value_of(QString::fromUtf8(s.key.data(), qsizetype(s.key.size()))).isEmpty());
}

TEST_CASE_METHOD(StatesFixture, "The grid is walked with the keys, and cells are filled and emptied") {
  open_page();
  click("Skid", "Lie");
  CHECK(cell("Skid", "Lie").rows.empty());
  QTest::keyClick(&matrix, Qt::Key_Left);
  CHECK(desk.chosen() == place("Skid", "Slide"));
  QTest::keyClick(&matrix, Qt::Key_Down);
  CHECK(desk.chosen() == place("Fly", "Slide"));
  const std::size_t rows = desk.table().transitions.size();
  type_guard("crouch.held");
  REQUIRE(desk.table().transitions.size() == rows + 1);
  CHECK(guard("Fly", "Slide") == "crouch.held");
  matrix.setFocus();
  QTest::keyClick(&matrix, Qt::Key_Delete);
  CHECK(desk.table().transitions.size() == rows);
  undo();
  CHECK(guard("Fly", "Slide") == "crouch.held");
}

TEST_CASE_METHOD(StatesFixture, "A state is renamed wherever it is named, in the file too") {
  walk();
  open_page();
  page.show_state(*desk.chart().find("Walk"));
  QLineEdit& name = page.state().name_field();
  name.setFocus();
  name.selectAll();
  QTest::keyClicks(&name, "Wade");
  QTest::keyClick(&name, Qt::Key_Return);
  CHECK_FALSE(desk.chart().find("Walk"));
  REQUIRE(desk.chart().find("Wade"));
  CHECK(desk.table().states[std::size_t(*desk.chart().find("Sprint"))].like == "Wade");
  for (const TransitionSpec& t : desk.table().transitions) CHECK((t.from != "Walk" && t.to != "Walk"));
  window.actions()[Act::SaveProfile]->trigger();
  const auto saved = read_profile(warden.toStdString());
  REQUIRE(saved);
  CHECK(saved->states->find("Wade"));
  // A name that is there already is refused, with a sentence.
  name.setFocus();
  name.selectAll();
  QTest::keyClicks(&name, "Sprint");
  QTest::keyClick(&name, Qt::Key_Return);
  CHECK(desk.chart().find("Wade"));
  CHECK(window.messages().isVisible());
}

TEST_CASE_METHOD(StatesFixture,
                 "What is changed of the built-in table is told, is all that is saved, and is put back") {
  open_page();
  TransitionPane& pane = page.transition();
  const auto button = [](BaseLine& line) { QTest::mouseClick(&line.button(), Qt::LeftButton); };
  click("Stand", "Walk");
  CHECK(pane.base_line().text() == "As the built-in table has this transition.");
  CHECK_FALSE(pane.base_line().button().isVisible());
  type_guard("intent > 0.5");
  REQUIRE(guard("Stand", "Walk") == "intent > 0.5");
  REQUIRE(pane.base_line().text() == "The built-in table has this transition otherwise.");
  REQUIRE(pane.base_line().button().isVisible());
  page.show_state(*desk.chart().find("Crouch"));
  CHECK(page.state().base_line().text() == "As the built-in table has this state.");
  page.show_state(*desk.chart().find("Lie"));
  page.state().remove();
  CHECK(page.state().gone_line().text() == "Deleted here, but in the built-in table: Lie.");
  window.actions()[Act::SaveProfile]->trigger();
  QFile saved(warden);
  REQUIRE(saved.open(QIODevice::ReadOnly));
  const QByteArray text = saved.readAll();
  CHECK(text.contains("\"based_on\": \"built-in\""));
  CHECK(text.contains("intent > 0.5"));
  CHECK(text.contains("{\"state\": \"Lie\"}"));
  CHECK_FALSE(text.contains("Sprint"));
  CHECK(read_profile(warden.toStdString())->states->table() == desk.table());
  click("Stand", "Walk");
  button(pane.base_line());
  CHECK(guard("Stand", "Walk") == "intent > 0.02");
  button(page.state().gone_line());
  CHECK(desk.table() == built_in_states());
  for (int i = 0; i < 2; ++i) undo();
  CHECK(guard("Stand", "Walk") == "intent > 0.5");
}

TEST_CASE_METHOD(StatesFixture, "A header that is dragged puts its state elsewhere in the table") {
  walk();
  open_page();
  auto* header = matrix.verticalHeader();
  const int from = int(source("Skid")), to = int(source("Stand"));
  const auto middle = [&](int section) {
    return QPoint(40, header->sectionViewportPosition(section) + header->sectionSize(section) / 2);
  };
  QTest::mousePress(header->viewport(), Qt::LeftButton, Qt::NoModifier, middle(from));
  for (int i = 1; i <= 10; ++i) {
    const QPoint at = middle(from) + (middle(to) - middle(from) - QPoint(0, 6)) * i / 10;
    QMouseEvent move(QEvent::MouseMove, at, header->viewport()->mapToGlobal(at), Qt::NoButton, Qt::LeftButton,
                     Qt::NoModifier);
    QCoreApplication::sendEvent(header->viewport(), &move);
  }
  QTest::mouseRelease(header->viewport(), Qt::LeftButton, Qt::NoModifier, middle(to) - QPoint(0, 6));
  CHECK(desk.table().states.front().name == "Skid");
  CHECK(desk.table().states[1].name == "Stand");
  CHECK(header->visualIndex(from) == from);
  undo();
  CHECK(desk.table().states.front().name == "Stand");
  click("Stand", "Walk");
  QTest::keyClick(&matrix, Qt::Key_Down, Qt::ControlModifier);
  CHECK(desk.table().states[1].name == "Stand");
}

TEST_CASE_METHOD(StatesFixture, "States are added, duplicated and deleted, and all of it is undone") {
  open_page();
  const StateTable before = desk.table();
  page.show_state(*desk.chart().find("Walk"));
  page.state().duplicate();
  REQUIRE(desk.chart().find("Walk 2"));
  CHECK(cell("Walk 2", "Stand").rows.size() == 1);
  CHECK(cell("Stand", "Walk 2").rows.size() == 1);
  page.state().add();
  CHECK(desk.chart().find("State"));
  page.show_state(*desk.chart().find("Walk"));
  page.state().remove();
  CHECK_FALSE(desk.chart().find("Walk"));
  // What was like it has become itself what it had of it.
  const StateSpec& sprint = desk.table().states[std::size_t(*desk.chart().find("Sprint"))];
  CHECK(sprint.like.empty());
  CHECK(sprint.group == "Upright");
  for (int i = 0; i < 3; ++i) undo();
  CHECK(desk.table() == before);
}

TEST_CASE_METHOD(StatesFixture, "Slots are named on the page, and guards know them from then on") {
  open_page();
  page.show_state(*desk.chart().find("Walk"));
  QLineEdit& field = page.state().slots_field();
  const auto type = [&](const QString& text) {
    field.setFocus();
    field.selectAll();
    QTest::keyClicks(&field, text);
    QTest::keyClick(&field, Qt::Key_Return);
  };
  type("breath mud");
  CHECK(desk.table().memory == std::vector<std::string>{"breath", "mud"});
  click("Walk", "Sprint");
  type_guard("sprint.held and memory.breath < 3");
  CHECK(guard("Walk", "Sprint") == "sprint.held and memory.breath < 3");
  // One that is used cannot go, nor can one be called anything.
  page.show_state(*desk.chart().find("Walk"));
  type("mud");
  CHECK(desk.table().memory.size() == 2);
  type("2x");
  CHECK(desk.table().memory.size() == 2);
  CHECK(field.text() == "breath mud");
}

TEST_CASE_METHOD(StatesFixture, "A card of a state changes what the state overrides, and marks it") {
  open_page();
  const StateId crouch = *desk.chart().find("Crouch");
  page.show_state(crouch);
  next_picture();
  Card* walk_card = page.state().card("walk");
  REQUIRE(walk_card != nullptr);
  CHECK(page.state().card("body") == nullptr);
  walk_card->set_folded(false);
  auto* speed = walk_card->findChild<ValueField*>("ground.speed");
  REQUIRE(speed != nullptr);
  speed->setFocus();
  speed->selectAll();
  QTest::keyClicks(speed, "1.25");
  QTest::keyClick(speed, Qt::Key_Return);
  const auto values = [&] { return desk.chart().values_in(crouch, window.handling().now()); };
  CHECK(values().ground.speed == 1.25);
  CHECK(window.handling().now().ground.speed != 1.25);
  CHECK(desk.chart().values_in(*desk.chart().find("Walk"), window.handling().now()).ground.speed ==
        window.handling().now().ground.speed);
  // The profile's own value takes the word back.
  speed->selectAll();
  QTest::keyClicks(speed, QString::number(window.handling().now().ground.speed));
  QTest::keyClick(speed, Qt::Key_Return);
  const auto& own = desk.table().states[std::size_t(crouch)].overrides;
  CHECK(std::none_of(own.begin(), own.end(), [](const Override& o) { return o.path == "ground.speed"; }));
}

TEST_CASE_METHOD(StatesFixture, "Remarks show what is wrong with a table, and the check counts what is used") {
  open_page();
  page.show_findings();
  CHECK(page.findings().lines().isEmpty());
  StateTable table = desk.table();
  table.transitions.push_back({"Walk", "Crouch", "sprint.held and grounded", 10, 0.0, ""});
  REQUIRE(desk.change(table, "a shadowed row"));
  REQUIRE(page.findings().lines().size() == 1);
  CHECK(page.findings().lines()[0].contains("never taken"));
  undo();
  double last = -1.0;
  bool rises = true;
  QObject::connect(&desk, &StatesDesk::check_progress, &page, [&](double share) {
    rises = rises && share >= last;
    last = share;
  });
  desk.check(60'000);
  CHECK(desk.checking());
  REQUIRE(wait_for([&] { return !desk.checking(); }));
  CHECK(rises);
  CHECK(last > 0.5);
  REQUIRE(desk.use() != nullptr);
  CHECK(desk.use()->ticks >= 60'000);
  CHECK(page.findings().summary().contains("states entered"));
  // It can be given up.
  desk.check(50'000'000);
  desk.cancel_check();
  CHECK_FALSE(desk.checking());
}

TEST_CASE_METHOD(StatesFixture,
                 "Driving on the page moves the glow, and a pipe forces a crouch with real keys") {
  open_page();
  session.begin_at(session.place()->course.marks[1]);
  window.activateWindow();
  window.actions()[Act::Drive]->trigger();
  REQUIRE(view.driving());
  REQUIRE(view.isVisible());
  QTest::keyPress(&view, Qt::Key_C);
  QTest::keyPress(&view, Qt::Key_W);
  REQUIRE(wait_for([&] { return session.current().foot_C.z < 9.2; }));
  QTest::keyRelease(&view, Qt::Key_C);
  QTest::keyRelease(&view, Qt::Key_W);
  REQUIRE(wait_for([&] { return length(session.current().velocity_C) < 0.01; }));
  next_picture();
  CHECK(desk.chart().name_of(desk.state_now()) == "Crouch");
  CHECK(session.current().capsule_height < 1.3);
  QTest::keyPress(&view, Qt::Key_W);
  REQUIRE(wait_for([&] { return session.current().foot_C.z < 6.0; }));
  QTest::keyRelease(&view, Qt::Key_W);
  next_picture();
  CHECK(desk.chart().name_of(session.current().state) != "Crouch");
  CHECK(page.log().lines() >= 3);
  QTest::keyClick(&view, Qt::Key_Escape);
  QTest::keyClick(&window, Qt::Key_1, Qt::ControlModifier);
  CHECK(window.page().isVisible());
  CHECK(view.isVisible());
  CHECK(view.height() > 250);
  CHECK(view.width() > 700);  // As wide as before.
}

TEST_CASE_METHOD(StatesFixture,
                 "The built-in states fit the window at 1280 by 800, and charts go out and come in") {
  walk();
  open_page();
  REQUIRE(desk.chart().size() == 16);
  CHECK_FALSE(matrix.horizontalScrollBar()->isVisible());
  CHECK_FALSE(matrix.verticalScrollBar()->isVisible());
  const QRect last = matrix.cell_rect(desk.matrix().sources().size() - 1, 15);
  CHECK(matrix.viewport()->rect().contains(last));
  chosen_file = folder.filePath("table.scxml");
  window.actions()[Act::WriteChart]->trigger();
  const auto chart = read_scxml(chosen_file.toStdString());
  REQUIRE(chart);
  CHECK(chart->table == desk.table());
  chosen_file = file("foreign.scxml",
                     "<scxml xmlns='http://www.w3.org/2005/07/scxml' version='1.0'><state id='a'>"
                     "<transition event='go' target='b'/></state><state id='b'/></scxml>");
  window.actions()[Act::ReadChart]->trigger();
  CHECK(desk.chart().size() == 2);
  CHECK(window.messages().isVisible());
  undo();
  CHECK(desk.chart().size() == 16);
  chosen_file = file("broken.scxml", "<scxml><state></scxml>");
  window.actions()[Act::ReadChart]->trigger();
  CHECK(desk.chart().size() == 16);
}

TEST_CASE(
    "Tables are edited as values: a likeness through several states, groups that end, names that are taken") {
  StateTable table = built_in_states();
  StateSpec trot;
  trot.name = "Trot";
  trot.like = "Sprint";
  trot.overrides = {{"ground.speed", Override::Kind::Value, 5.0, {}, {}}};
  table.states.push_back(trot);
  const StateTable without = without_state(table, 2);  // Sprint, which is like Walk.
  const StateSpec& left = without.states.back();
  CHECK(left.like == "Walk");
  CHECK(left.pose == "run");
  REQUIRE(left.overrides.size() == 2);
  CHECK(left.overrides[0].number == 5.0);  // Its own word stays.
  REQUIRE(StateChart::make(without));
  StateTable no_flight = without_state(built_in_states(), 6);
  no_flight = without_state(no_flight, 10);
  for (const TransitionSpec& t : no_flight.transitions) CHECK(t.from != "Flight");
  CHECK(StateChart::make(no_flight));
  CHECK(free_state_name(table, "Walk") == "Walk 2");
  CHECK(free_state_name(table, "Upright") == "Upright 2");
  CHECK(free_state_name(table, "Hop") == "Hop");
  const StateTable moved = with_state_moved(built_in_states(), 0, 3);
  CHECK(moved.states[3].name == "Stand");
  CHECK(StateChart::make(moved));
}

TEST_CASE_METHOD(StatesFixture, "A guard can be typed in a window that hangs over the edge of the screen") {
  open_page();
  click("Walk", "Sprint");
  // The package that brings the editor looks for the screen under its list of words, and takes none for one.
  window.move(-window.width() - 400, 100);
  type_guard("sprint.held and intent > 0.5");
  CHECK(guard("Walk", "Sprint") == "sprint.held and intent > 0.5");
  window.move(0, 0);
}

TEST_CASE_METHOD(StatesFixture, "A name that is being typed is that of the state it was typed for") {
  open_page();
  page.show_state(*desk.chart().find("Walk"));
  auto* name = page.state().findChild<QLineEdit*>("stateName");
  REQUIRE(name != nullptr);
  name->setFocus();
  name->selectAll();
  QTest::keyClicks(name, "Stroll");
  QTest::keyClick(name, Qt::Key_D, Qt::ControlModifier | Qt::AltModifier);
  CHECK(desk.chart().find("Stroll"));
  CHECK_FALSE(desk.chart().find("Walk"));
  CHECK(name->text().toStdString() == desk.chart().name_of(page.state().state()));
  CHECK(name->text() != "Stroll");  // The copy is shown, under its own name.
  CHECK(desk.table().states.size() == 17);
}

TEST_CASE_METHOD(StatesFixture,
                 "What is being typed of a state stays while the table changes, and is its own") {
  open_page();
  click("Walk", "Sprint");
  page.show_state(*desk.chart().find("Walk"));
  QLineEdit& slots_line = page.state().slots_field();
  slots_line.setFocus();
  QTest::keyClicks(&slots_line, "breath mud");
  // A change from elsewhere, as by undo: what is typed is still there, and not yet the table's.
  StateTable other = desk.table();
  other.states[std::size_t(*desk.chart().find("Walk"))].pose = "stride";
  REQUIRE(desk.change(other, "pose of Walk"));
  CHECK(slots_line.text() == "breath mud");
  CHECK(slots_line.hasFocus());  // Nor is anybody led to another pane.
  CHECK(desk.table().memory.empty());
  // Another state is shown: it is done with, and the other's fields are the other's.
  page.show_state(*desk.chart().find("Sprint"));
  CHECK(desk.table().memory == std::vector<std::string>{"breath", "mud"});
  // What it shows follows again.
  undo();
  CHECK(slots_line.text().isEmpty());
}

TEST_CASE_METHOD(StatesFixture,
                 "The wheel scrolls a pane and changes no value of it, unless one clicked there") {
  open_page();
  page.show_state(*desk.chart().find("Walk"));
  const StateTable before = desk.table();
  const auto wheel = [](QWidget* on) {
    const QPointF at = on->rect().center();
    QWheelEvent event(at, on->mapToGlobal(at), {}, {0, -120}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase,
                      false);
    QCoreApplication::sendEvent(on, &event);
  };
  const auto boxes = page.state().findChildren<QComboBox*>();
  REQUIRE(boxes.size() >= 3);
  for (QComboBox* box : boxes) {
    if (!box->isVisible()) continue;
    const int index = box->currentIndex();
    wheel(box);
    CHECK(box->currentIndex() == index);
    CHECK(box->focusPolicy() == Qt::StrongFocus);
  }
  CHECK(desk.table() == before);
  // Clicked into, it turns.
  auto* stance = boxes.back();
  for (QComboBox* box : boxes)
    if (box->isVisible() && box->currentIndex() + 1 < box->count()) stance = box;
  stance->setFocus();
  REQUIRE(stance->hasFocus());
  const int index = stance->currentIndex();
  wheel(stance);
  CHECK(stance->currentIndex() == index + 1);
}
