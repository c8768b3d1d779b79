// SPDX-License-Identifier: GPL-3.0-or-later
// Moving pieces in the view, the ledger beside it, and beginning at a mark.
#include <QListWidget>
#include <QMenu>
#include <QMenuBar>

#include "support/places.h"
#include "support/window_fixture.h"
#include "widgets/ledger_column.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

const char* const kLift = R"({"lagniappe": "course", "version": 1, "name": "Lift",
  "marks": [{"id": "start", "at": [0, 0, 0]}, {"id": "aside", "at": [6, 0, 2], "facing": 90}],
  "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [60, 1, 60]},
             {"id": "plate", "kind": "block", "at": [0, 0, -3], "size": [3, 1.5, 1],
              "motion": {"period": 2, "repeat": "back-and-forth", "keys": [{"at": 0}, {"at": 1, "move": [0, 3, 0]}]}}]})";

}  // namespace

TEST_CASE_METHOD(WindowFixture,
                 "A moving piece is drawn where it is: it moves on screen, and stands while paused",
                 "[pixels]") {
  open(file("lift.course.json", kLift));
  QTest::keyClick(&window, Qt::Key_G);
  drive();
  const QImage before = next_picture();
  const double time = session.current().time;
  REQUIRE(wait_for([&] { return session.current().time > time + 0.4; }));
  CHECK(difference(before, next_picture()) > 0.01);
  QTest::keyClick(&window, Qt::Key_P);
  next_picture();
  const QImage paused = next_picture();
  CHECK(difference(paused, next_picture()) < 0.001);
}

TEST_CASE_METHOD(WindowFixture,
                 "Paused, the last tick's ledger stands beside the tape as sentences, tick by tick") {
  const LedgerColumn& ledger = window.page().ledger();
  drive();
  QTest::keyPress(&view, Qt::Key_W);
  REQUIRE(wait_for([&] { return session.current().state == StateId::Walk; }));
  QTest::keyClick(&window, Qt::Key_P);
  const auto agrees = [&] {
    const Ledger last = session.last_ledger();
    QStringList wanted;
    for (const LedgerEntry& e : last.entries)
      wanted.append(QString::fromStdString(to_sentence(e, session.place()->world)));
    return !wanted.isEmpty() && ledger.sentences() == wanted;
  };
  CHECK(wait_for(agrees));
  const QString heading = ledger.heading();
  QTest::keyClick(&window, Qt::Key_Period);
  REQUIRE(wait_for([&] { return ledger.heading() != heading; }));
  CHECK(ledger.heading().contains(QString::number(session.playhead())));
  CHECK(agrees());
  QTest::keyClick(&window, Qt::Key_Comma);
  REQUIRE(wait_for([&] { return ledger.heading() == heading; }));
  CHECK(agrees());
  // Beside the tape, not over it, and inside the window.
  const Tape& tape = window.page().tape();
  CHECK(ledger.mapTo(&window, QPoint()).x() >= tape.mapTo(&window, QPoint(tape.width(), 0)).x());
  CHECK(ledger.mapTo(&window, QPoint(ledger.width(), 0)).x() <= window.width());
  QTest::keyRelease(&view, Qt::Key_W);
}

TEST_CASE_METHOD(WindowFixture, "A refused step is told and stands out") {
  open(
      file("wall.course.json",
           R"({"lagniappe": "course", "version": 1, "name": "Wall", "marks": [{"id": "start", "at": [0, 0, 0]}],
                "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [60, 1, 60]},
                           {"id": "kerb", "kind": "block", "at": [0, 0, -2], "size": [6, 0.36, 2]}]})"));
  drive();
  QTest::keyPress(&view, Qt::Key_W);
  REQUIRE(wait_for(
      [&] { return session.current().foot_C.z < -0.6 && length(session.current().velocity_C) < 1e-6; }));
  QTest::keyClick(&window, Qt::Key_P);
  const LedgerColumn& ledger = window.page().ledger();
  REQUIRE(wait_for([&] { return ledger.heading() == QString("Tick %1").arg(session.playhead()); }));
  const auto* list = ledger.findChild<QListWidget*>("sentences");
  int refused = 0;
  for (int i = 0; i < list->count(); ++i) {
    const bool tells = list->item(i)->text().contains("rise 0.360 m > 0.340 m allowed, refused");
    refused += tells;
    if (tells) CHECK(list->item(i)->foreground() != list->item(0)->foreground());
  }
  CHECK(refused >= 1);  // A slide may meet it more than once.
}

TEST_CASE_METHOD(WindowFixture,
                 "The Drive menu begins at any mark of the course, and a reset comes back to it") {
  open(file("lift.course.json", kLift));
  QMenu* marks = nullptr;
  for (QMenu* menu : window.findChildren<QMenu*>()) {
    if (menu->title() == "Begin at mark") marks = menu;
  }
  REQUIRE(marks != nullptr);
  emit marks->aboutToShow();
  REQUIRE(marks->actions().size() == 2);
  marks->actions()[1]->trigger();
  CHECK(length(session.current().foot_C - Vec3(6, 0, 2)) < 0.01);
  CHECK(session.current().yaw == Approx(kPi / 2));
  drive();
  QTest::keyClick(&view, Qt::Key_R);
  next_picture();
  CHECK(length(session.current().foot_C - Vec3(6, 0, 2)) < 0.01);
}
