// SPDX-License-Identifier: GPL-3.0-or-later
// Driving that goes on, or says why not; one clock and one set of coordinates; from what was refused to the
// value that refused.
#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QToolButton>

#include "cards/card.h"
#include "cards/cards_panel.h"
#include "cards/value_row.h"
#include "lagniappe/profile_fields.h"
#include "pages/states_page.h"
#include "states/matrix_view.h"
#include "states/transition_pane.h"
#include "support/window_fixture.h"
#include "widgets/ledger_column.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

struct YardFixture : WindowFixture {
  YardFixture() {
    open(file("yard.course.json", R"({"lagniappe": "course", "version": 1, "name": "Yard",
  "marks": [{"id": "start", "at": [3, 0, 7]}, {"id": "back", "at": [3, 0, 16]}],
  "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [80, 1, 80]},
             {"id": "kerb", "kind": "block", "at": [3, 0, 1], "size": [8, 0.4173, 3]}]})"));
  }
  // Walks into the kerb, and puts the playhead on the refusal.
  std::size_t go_to_refusal() {
    InputChange go;
    go.at = 0.1;
    go.move = Vec2(0.0, 1.0);
    follow_to_rest(InputScript{{go}}, 2.5);
    const auto tick = session.shown().run.next(Event::StepRefused, 0);
    REQUIRE(tick);
    session.set_playhead(*tick);
    next_picture();
    return *tick;
  }
  ValueRow* row(const std::string& path) {
    for (ValueRow* r : window.page().cards().findChildren<ValueRow*>())
      if (r->path() == path) return r;
    return nullptr;
  }
};

}  // namespace

TEST_CASE_METHOD(YardFixture, "A drive goes on over another page, with the keys that are held") {
  drive();
  QTest::keyPress(&view, Qt::Key_W);
  REQUIRE(wait_for([&] { return session.current().state == StateId::Walk; }));
  QTest::keyClick(&view, Qt::Key_2, Qt::ControlModifier);
  REQUIRE(window.states_page().isVisible());
  CHECK(view.driving());
  CHECK(view.hasFocus());
  const double z = session.current().foot_C.z;
  CHECK(wait_for([&] { return session.current().foot_C.z < z - 1.0; }));
  QTest::keyClick(&view, Qt::Key_1, Qt::ControlModifier);
  CHECK(view.driving());
  QTest::keyRelease(&view, Qt::Key_W);
  CHECK(wait_for([&] { return session.current().state == StateId::Stand; }));
  // The mouse is still its own.
  const double yaw = session.look().x;
  move_mouse(QPoint(40, 0));
  CHECK(session.look().x != yaw);
  QTest::keyClick(&view, Qt::Key_Escape);
  CHECK_FALSE(view.driving());
}

TEST_CASE_METHOD(YardFixture, "On a page without the view nobody drives, and the mouse is given back") {
  drive();
  QTest::keyClick(&view, Qt::Key_0, Qt::ControlModifier);
  REQUIRE_FALSE(view.isVisible());
  CHECK_FALSE(view.driving());
  CHECK(QWidget::mouseGrabber() == nullptr);
  QTest::keyClick(&window, Qt::Key_1, Qt::ControlModifier);
  REQUIRE(view.isVisible());
  CHECK_FALSE(view.driving());
}

TEST_CASE_METHOD(YardFixture, "At rest nothing is drawn; any change, and any hand, is drawn at once") {
  next_picture();
  REQUIRE(wait_for([&] { return !session.live(); }));
  const auto frames_in = [&](int ms) {
    int frames = 0;
    const auto counts = QObject::connect(&view, &ViewWidget::frame_shown, [&] { ++frames; });
    QTest::qWait(ms);
    QObject::disconnect(counts);
    return frames;
  };
  REQUIRE(wait_for([&] { return frames_in(400) == 0; }));
  CHECK(frames_in(600) == 0);
  for (const auto& change : std::initializer_list<std::function<void()>>{
           [&] { window.actions()[Act::Capsule]->trigger(); }, [&] { window.actions()[Act::Grid]->trigger(); },
           [&] { window.actions()[Act::FirstPerson]->trigger(); },
           [&] {
             view.set_highlight({std::nullopt, PieceId(1)});
           },
           [&] { window.resize(window.width() - 20, window.height()); }, [&] { session.set_playhead(0); }}) {
    int frames = 0;
    const auto counts = QObject::connect(&view, &ViewWidget::frame_shown, [&] { ++frames; });
    change();
    CHECK(wait_for([&] { return frames > 0; }));
    QObject::disconnect(counts);
    REQUIRE(wait_for([&] { return frames_in(300) == 0; }));
  }
}

TEST_CASE_METHOD(YardFixture, "Who is called away finds time paused and is told so; Enter drives on") {
  drive();
  const std::size_t revision = session.revision();
  window.showMinimized();
  REQUIRE(wait_for([&] { return !view.driving(); }));
  CHECK(session.paused());
  const auto ticks = session.shown().run.ticks();
  QTest::qWait(120);
  CHECK(session.shown().run.ticks() == ticks);
  window.showNormal();
  window.activateWindow();
  view.leave_driving();  // It is told twice where the focus goes too.
  CHECK(view.hint().contains("the window was left"));
  CHECK(view.hint().contains("Enter drives on"));
  QTest::keyClick(&window, Qt::Key_Return);
  CHECK(view.driving());
  CHECK_FALSE(session.paused());
  CHECK(wait_for([&] { return session.shown().run.ticks() > ticks + 5; }));
  CHECK(session.revision() == revision);  // The same take.
}

TEST_CASE_METHOD(YardFixture, "A ledger that was hidden shows the tick that one went to meanwhile") {
  go_to_refusal();
  window.actions()[Act::LedgerPane]->trigger();
  session.set_playhead(20);
  next_picture();
  window.actions()[Act::LedgerPane]->trigger();
  CHECK(wait_for([&] { return window.page().ledger().heading() == "Tick 20"; }));
}

TEST_CASE_METHOD(YardFixture, "Ledger and tape count from the take's start, whatever the course's clock says") {
  drive();
  REQUIRE(wait_for([&] { return session.shown().run.ticks() > 40; }));
  QTest::keyClick(&view, Qt::Key_Escape);
  session.begin_at(session.place()->course.marks[1]);
  REQUIRE(session.current().time > 0.5);
  InputChange go;
  go.at = 0.0;
  go.move = Vec2(0.0, 1.0);
  follow_to_rest(InputScript{{go}}, 1.0);
  session.set_playhead(30);
  next_picture();
  QStringList texts;
  for (const QLabel* label : window.page().ledger().findChildren<QLabel*>()) texts += label->text();
  CHECK(texts.filter("Walk, 0.500 s").size() == 1);
  CHECK(texts.filter("m/s in the course").size() == 1);
}

TEST_CASE_METHOD(YardFixture, "What is written on the ground are coordinates of the course") {
  int coordinates = 0;
  for (const Readouts::Label& label : view.readouts().labels()) {
    if (label.strong) continue;
    const QStringList words = label.text.split(' ');
    REQUIRE(words.size() == 3);
    const double said = words[1].toDouble(), is = words[0] == "x" ? label.at_C.x : label.at_C.z;
    CHECK(is == Approx(said).margin(1e-9));
    CHECK(std::remainder(said, 5.0) == 0.0);
    ++coordinates;
  }
  CHECK(coordinates > 10);
}

TEST_CASE_METHOD(YardFixture, "The draw rate by keys while driving, by the list, and kept") {
  auto* rates = window.findChild<QComboBox*>("drawRate");
  CHECK(rates->currentText() == "as the screen");
  drive();
  for (const char* rate : {"144", "120", "60", "30", "24", "10", "10"}) {
    QTest::keyClick(&view, Qt::Key_Comma, Qt::AltModifier);
    CHECK(rates->currentText() == rate);
    CHECK(window.heart().limit() == QString(rate).toInt());
  }
  CHECK(view.driving());
  CHECK(settings.value("drawRate").toInt() == 10);
  // Ticks stay as many as they are, frames become few.
  QTest::qWait(300);
  int frames = 0;
  const auto counts = QObject::connect(&view, &ViewWidget::frame_shown, [&] { ++frames; });
  const auto from = session.shown().run.ticks();
  REQUIRE(wait_for([&] { return session.shown().run.ticks() >= from + 60; }));
  QObject::disconnect(counts);
  CHECK(frames <= 14);
  for (int i = 0; i < 7; ++i) QTest::keyClick(&view, Qt::Key_Period, Qt::AltModifier);
  CHECK(rates->currentText() == "as the screen");
  CHECK(window.heart().limit() == 0);
}

TEST_CASE_METHOD(YardFixture, "A refusal is named in the view, and leads to the value and what was enough") {
  const std::size_t tick = go_to_refusal();
  REQUIRE_FALSE(view.readouts().told().empty());
  CHECK(view.readouts().told().front().refused);
  CHECK(view.readouts().told().front().text.contains("step tried on"));
  auto* list = window.page().ledger().findChild<QListWidget*>("sentences");
  QListWidgetItem* refused = nullptr;
  for (int i = 0; i < list->count() && refused == nullptr; ++i)
    if (list->item(i)->text().contains("refused")) refused = list->item(i);
  REQUIRE(refused != nullptr);
  list->scrollToItem(refused);
  QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(refused).center());
  ValueRow* value = row("ground.highest_step");
  REQUIRE(value != nullptr);
  REQUIRE(wait_for([&] { return !value->visibleRegion().isEmpty(); }));
  CHECK(value->said() == QString("In tick %1: 0.418 m would have been enough").arg(tick));
  CHECK(value->isAncestorOf(window.focusWidget()));
  for (QToolButton* button : value->findChildren<QToolButton*>())
    if (button->text() == "Set it") button->click();
  REQUIRE(wait_for([&] { return window.handling().now().ground.highest_step == Approx(0.418); }));
  CHECK(value->said().isEmpty());
  // And the retake steps onto it.
  REQUIRE(wait_for([&] { return window.desk().current_ghost() != nullptr; }));
  double highest = 0.0;
  const Run& run = window.desk().current_ghost()->recording->run;
  for (std::size_t t = 0; t <= run.ticks(); ++t) highest = std::max(highest, run.state(t).foot_C.y);
  CHECK(highest == Approx(0.4173).margin(1e-3));
}

TEST_CASE_METHOD(YardFixture, "A refusal is followed by the keyboard, and goes when it is dismissed") {
  go_to_refusal();
  auto* list = window.page().ledger().findChild<QListWidget*>("sentences");
  list->setFocus();
  for (int i = 0; i < list->count(); ++i)
    if (list->item(i)->text().contains("refused")) list->setCurrentRow(i);
  QTest::keyClick(list, Qt::Key_Return);
  ValueRow* value = row("ground.highest_step");
  CHECK_FALSE(value->said().isEmpty());
  for (QToolButton* button : value->findChildren<QToolButton*>())
    if (button->text() == "Dismiss") button->click();
  CHECK(wait_for([&] { return value->said().isEmpty(); }));
}

TEST_CASE_METHOD(YardFixture, "While time goes on nothing is said of single ticks in the view") {
  go_to_refusal();
  REQUIRE_FALSE(view.readouts().told().empty());
  drive();
  CHECK(wait_for([&] { return view.readouts().told().empty(); }));
}

TEST_CASE_METHOD(YardFixture, "An action that fails while driving is told where it is written") {
  StateTable table = window.states().table();
  for (TransitionSpec& t : table.transitions)
    if (t.to == "Walk" && t.from == "Stand") t.action = "memory.nothing.more = 1";
  const bool some = std::any_of(table.transitions.begin(), table.transitions.end(),
                                [](const TransitionSpec& t) { return !t.action.empty(); });
  if (!some) {
    TransitionSpec t;
    t.from = "Stand";
    t.to = "Walk";
    t.guard = "wish > 0.5";
    t.priority = 500;
    t.action = "memory.nothing.more = 1";
    table.transitions.push_back(t);
  }
  REQUIRE(window.states().change(table, "a faulty action"));
  go_to_refusal();
  QTest::keyClick(&window, Qt::Key_2, Qt::ControlModifier);
  auto& desk = window.states();
  const auto stand = desk.chart().find("Stand"), walk = desk.chart().find("Walk");
  REQUIRE(stand);
  desk.choose(CellPlace{desk.matrix().source_of(*stand), std::size_t(*walk)});
  auto* pane = window.states_page().findChild<TransitionPane*>();
  auto* fault = pane->findChild<QLabel*>("fault");
  REQUIRE(wait_for([&] { return fault->isVisible(); }));
  CHECK(fault->text().startsWith("Action: Failed at 0."));
}
