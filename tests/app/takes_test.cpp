// SPDX-License-Identifier: GPL-3.0-or-later
// The list of takes: what is kept, what each is called, in which order they stand, and what lies aside.
#include <QComboBox>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>

#include "lagniappe/files.h"
#include "pages/drive_page.h"
#include "pages/moving_picture.h"
#include "panels/takes_panel.h"
#include "session/take_names.h"
#include "support/window_fixture.h"
#include "tape/tape.h"
#include "widgets/message_bar.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

Study::Entry row(const std::string& name, const std::string& course, const std::string& profile, int rate,
                 const std::string& recorded, std::uint64_t ticks = 60) {
  Study::Entry e;
  e.file = QString::fromStdString(recorded + ".take");
  e.about.name = name;
  e.about.course = course;
  e.about.profile = profile;
  e.about.tick_rate = rate;
  e.about.recorded = recorded;
  e.about.ticks = ticks;
  return e;
}

struct TakesFixture : WindowFixture {
  TakeDesk& desk = window.desk();
  QListWidget* list = window.findChild<QListWidget*>("takes");

  TakesFixture() { window.page().show_takes(); }
  void walk(double seconds, double pushed = 1.0) {
    InputChange go;
    go.at = 0.0;
    go.move = Vec2(0.0, pushed);
    follow_to_rest(InputScript{{go}}, seconds);
  }
  // Ends what is driven, so that it is kept if it is worth it.
  std::size_t end() {
    window.actions()[Act::ToStart]->trigger();
    desk.study().wait();
    QTest::qWait(20);
    return desk.study().entries().size();
  }
  QStringList names() const {
    QStringList all;
    for (int i = 0; i < list->count(); ++i) all += list->item(i)->text();
    return all;
  }
  QString sub(int row) const { return list->item(row)->data(Qt::AccessibleTextRole).toString(); }
};

}  // namespace

TEST_CASE("Equal names are told apart by what differs, and by the time where nothing else does") {
  const auto names = told_apart({row("Quay, walk", "Yard", "Otter", 60, "2026-11-29T10:00:03Z"),
                                 row("Quay, walk", "Tidewheel", "Otter", 60, "2026-11-29T10:00:02Z"),
                                 row("Levee, sprint", "Yard", "Otter", 60, "2026-11-29T10:00:01Z")});
  CHECK(names == QStringList{"Quay, walk, Yard", "Quay, walk, Tidewheel", "Levee, sprint"});
  CHECK(told_apart({row("a", "Yard", "Otter", 60, "1"), row("a", "Yard", "Heron", 60, "2")}) ==
        QStringList{"a, Otter", "a, Heron"});
  CHECK(told_apart({row("a", "Yard", "Otter", 60, "1"), row("a", "Yard", "Otter", 144, "2")}) ==
        QStringList{"a, 60/s", "a, 144/s"});
  const auto by_time = told_apart({row("a", "Yard", "Otter", 60, "2026-11-29T10:00:03Z"),
                                   row("a", "Yard", "Heron", 60, "2026-11-29T10:00:02Z"),
                                   row("a", "Yard", "Heron", 60, "2026-11-29T10:00:01Z")});
  CHECK(QSet<QString>(by_time.begin(), by_time.end()).size() == 3);
  CHECK(by_time[0].endsWith(":00:03"));
  // Takes of before say neither profile nor rate.
  CHECK(
      told_apart({row("a", "", "", 0, "2026-11-29T10:00:03Z"), row("a", "", "", 0, "2026-11-29T10:00:02Z")})[1]
          .endsWith(":00:02"));
}

TEST_CASE("Takes are sorted, and grouped where that says something") {
  const std::vector<Study::Entry> all = {row("c", "Yard", "Otter", 60, "2026-11-29T10:00:03Z", 60),
                                         row("a", "Tidewheel", "Heron", 30, "2026-11-28T10:00:00Z", 60),
                                         row("b", "Yard", "Heron", 144, "2026-11-27T10:00:00Z", 72)};
  const QStringList names = told_apart(all);
  const auto order = [&](TakeOrder by) {
    QStringList flat;
    for (const TakeGroup& group : grouped(all, names, by)) {
      if (!group.heading.isEmpty()) flat += "[" + group.heading + "]";
      for (const std::size_t i : group.entries) flat += names[qsizetype(i)];
    }
    return flat.join(" ");
  };
  CHECK(order(TakeOrder::Newest) == "c a b");
  CHECK(order(TakeOrder::ByName) == "a b c");
  CHECK(order(TakeOrder::Longest) == "a c b");  // 2 s, 1 s, half a second.
  CHECK(order(TakeOrder::ByCourse) == "[Tidewheel] a [Yard] c b");
  CHECK(order(TakeOrder::ByProfile) == "[Heron] a b [Otter] c");
  CHECK(order(TakeOrder::ByDay).contains("[Saturday, 28 Nov 2026] a"));
}

TEST_CASE_METHOD(TakesFixture, "What is short, or in which nothing was pressed, is not kept; a star keeps it") {
  walk(0.1, 0.0);
  CHECK(end() == 0);
  InputChange go;
  go.at = 0.0;
  go.move = Vec2(0.0, 1.0);
  window.actions()[Act::ToStart]->trigger();  // The window's own clock has gone on meanwhile, however long.
  session.follow(InputScript{{go}}, 0.2);
  session.advance(0.05);
  session.advance(0.05);
  REQUIRE(session.shown().run.seconds() < 0.5);
  REQUIRE(session.shown().run.ticks() > 2);
  SECTION("without a star") { CHECK(end() == 0); }
  SECTION("with one") {
    REQUIRE(wait_for([&] {
      emit desk.rested();  // The list takes it in.
      return list->count() == 1;
    }));
    list->setCurrentRow(0);
    window.actions()[Act::StarTake]->trigger();
    REQUIRE(end() == 1);
    CHECK(desk.study().entries().front().about.star);
  }
}

TEST_CASE_METHOD(TakesFixture,
                 "The list says with which profile and at which rate, also after it is read again") {
  walk(1.0);
  REQUIRE(end() == 1);
  const auto about = read_take_about(desk.study().entries().front().file.toStdString());
  REQUIRE(about);
  CHECK(about->profile == session.profile().name);
  CHECK(about->course == session.place()->course.name);
  CHECK(about->tick_rate == 60);
  REQUIRE(wait_for([&] { return list->count() == 1; }));
  CHECK(sub(0).contains(QString::fromStdString(session.profile().name) + ", 60/s"));
  desk.set_tick_rate(144);
  walk(1.0);
  REQUIRE(end() == 2);
  CHECK(names().filter("144/s").size() + names().filter("60/s").size() <= 2);
  auto* order = window.findChild<QComboBox*>("takeOrder");
  order->setCurrentIndex(order->findText("By course"));
  emit order->activated(order->currentIndex());
  REQUIRE(list->count() == 3);
  CHECK(list->item(0)->text() == QString::fromStdString(session.place()->course.name));
  CHECK(list->item(0)->flags() == Qt::NoItemFlags);
}

TEST_CASE_METHOD(TakesFixture, "Parts keep the star of what they are of") {
  walk(1.5);
  REQUIRE(end() == 1);
  const QString file = desk.study().entries().front().file;
  TakeAbout about = desk.study().entries().front().about;
  about.star = true;
  desk.change_about(file, about, "star");
  desk.study().wait();
  open(file);
  REQUIRE(wait_for([&] { return session.shown().file == file; }));
  desk.split(40);
  desk.study().wait();
  REQUIRE(wait_for([&] { return desk.study().entries().size() == 2; }));
  for (const Study::Entry& part : desk.study().entries()) {
    CHECK(part.about.star);
    CHECK(part.about.ticks < about.ticks);
  }
}

TEST_CASE_METHOD(TakesFixture, "What is put aside is seen, opened, and brought back, with undo") {
  walk(1.0);
  REQUIRE(end() == 1);
  const QString file = desk.study().entries().front().file;
  auto* aside = window.findChild<QPushButton*>("takesAside");
  CHECK(aside->isHidden());
  REQUIRE(wait_for([&] { return list->count() == 1; }));
  list->setCurrentRow(0);
  window.actions()[Act::PutAsideTake]->trigger();
  CHECK(desk.study().entries().empty());
  CHECK_FALSE(aside->isHidden());
  CHECK(aside->text() == "Aside (1)");
  aside->click();
  REQUIRE(list->count() == 1);
  // It can be opened from there.
  list->setCurrentRow(0);
  emit list->itemActivated(list->item(0));
  REQUIRE(wait_for([&] { return session.shown().file.contains("aside"); }));
  list->setCurrentRow(0);
  window.actions()[Act::PutAsideTake]->trigger();
  REQUIRE(desk.study().entries().size() == 1);
  CHECK(desk.study().entries().front().file == file);
  CHECK(aside->isHidden());
  window.undo().undo_once();
  CHECK(desk.study().entries().empty());
  window.undo().redo_once();
  CHECK(desk.study().entries().size() == 1);
}

TEST_CASE_METHOD(TakesFixture, "A take is renamed, noted and put aside from the menu, by the keyboard") {
  walk(1.0);
  REQUIRE(end() == 1);
  REQUIRE(wait_for([&] { return list->count() == 1; }));
  list->setCurrentRow(0);
  window.actions()[Act::NoteTake]->trigger();
  auto* note = qobject_cast<QLineEdit*>(window.focusWidget());
  REQUIRE(note != nullptr);
  QTest::keyClicks(note, "fell short");
  QTest::keyClick(note, Qt::Key_Return);
  CHECK(desk.study().entries().front().about.note == "fell short");
  window.actions()[Act::RenameTake]->trigger();
  REQUIRE(wait_for([&] { return qobject_cast<QLineEdit*>(QApplication::focusWidget()) != nullptr; }));
  auto* editor = qobject_cast<QLineEdit*>(QApplication::focusWidget());
  editor->selectAll();
  QTest::keyClicks(editor, "the gap");
  QTest::keyClick(editor, Qt::Key_Return);
  REQUIRE(wait_for([&] { return desk.study().entries().front().about.name == "the gap"; }));
}

TEST_CASE_METHOD(TakesFixture,
                 "A moving picture is thirty pictures for each second, however slow the drawing") {
  walk(1.0);
  const Run& run = session.shown().run;
  MovingPicture moving(session, view, window.heart());
  std::vector<Vec3> feet;
  std::optional<bool> whole;
  QObject::connect(&moving, &MovingPicture::progress, [&] {
    feet.push_back(session.pose().foot_C);
    QThread::msleep(feet.size() % 5 == 0 ? 90 : 0);  // A hitch.
  });
  QObject::connect(&moving, &MovingPicture::finished, [&](int, bool all) { whole = all; });
  REQUIRE(moving.begin(folder.filePath("walk.png"), {6, 54}));
  REQUIRE(wait_for([&] { return whole.has_value(); }));
  CHECK(*whole);
  REQUIRE(feet.size() == 25);  // Of 60 ticks a second every other one, both ends too.
  for (std::size_t i = 0; i < feet.size(); ++i) CHECK(length(feet[i] - run.state(6 + 2 * i).foot_C) < 1e-9);
  const QStringList files = QDir(folder.path()).entryList({"walk-*.png"}, QDir::Files, QDir::Name);
  REQUIRE(files.size() == 25);
  CHECK(files.front() == "walk-0001.png");
  CHECK(files.back() == "walk-0025.png");
  const QImage first(folder.filePath(files.front())), last(folder.filePath(files.back()));
  CHECK(first.size() == view.size() * view.devicePixelRatioF());
  CHECK(difference(first, last) > 0.02);
  // The clock is the window's again, and nothing is written over, whichever of them is there.
  const double before = window.heart().now();
  QTest::qWait(30);
  CHECK(window.heart().now() > before);
  for (const QString& name : {QString("walk-0001.png"), QString("walk-0023.png")}) {
    const auto again = moving.begin(folder.filePath("walk.png"), {6, 54});
    REQUIRE_FALSE(again);
    CHECK(again.error().sentence().find(name.toStdString()) != std::string::npos);
    for (int i = 1; i < 23; ++i)
      QFile::remove(folder.filePath(QString("walk-%1.png").arg(i, 4, 10, QChar('0'))));
  }
}

TEST_CASE_METHOD(TakesFixture,
                 "A moving picture shows the stretch and nothing beyond, at any tick rate and speed") {
  for (const int rate : {20, 60, 144}) {
    window.desk().set_tick_rate(rate);
    window.actions()[Act::ToStart]->trigger();
    walk(1.0);
    const Run& run = session.shown().run;
    REQUIRE(run.tick_rate() == rate);
    for (const double scale : {1.0, 0.5}) {
      session.set_time_scale(scale);
      // From an odd tick to another, and to the take's end.
      for (const Stretch stretch : {Stretch{3, 12}, Stretch{run.ticks() - 7, run.ticks()}}) {
        INFO(rate << " ticks/s, x" << scale << ", to tick " << stretch.last << " of " << run.ticks());
        MovingPicture moving(session, view, window.heart());
        std::vector<double> ticks;
        std::size_t farthest = 0;
        std::optional<bool> whole;
        QObject::connect(&moving, &MovingPicture::progress, [&] {
          farthest = std::max(farthest, session.playhead());
          ticks.push_back((session.moment().time - run.state(0).time) * rate);
        });
        QObject::connect(&moving, &MovingPicture::finished, [&](int, bool all) { whole = all; });
        const QString name = folder.filePath(QString("%1-%2-%3.png").arg(rate).arg(scale).arg(stretch.first));
        REQUIRE(moving.begin(name, stretch));
        REQUIRE(wait_for([&] { return whole.has_value(); }));
        CHECK(*whole);
        CHECK(farthest <= stretch.last);
        const double each = rate * scale / MovingPicture::kRate;  // Ticks.
        REQUIRE(ticks.size() == 1 + std::size_t(double(stretch.last - stretch.first) / each + 1e-9));
        for (std::size_t i = 0; i < ticks.size(); ++i)
          CHECK(ticks[i] == Approx(double(stretch.first) + double(i) * each).margin(1e-6));
      }
    }
    session.set_time_scale(1.0);
  }
}

TEST_CASE_METHOD(TakesFixture, "From another page the keys of takes are for the list as it is now") {
  for (int i = 0; i < 2; ++i) {
    walk(1.0);
    end();
  }
  REQUIRE(desk.study().entries().size() == 2);
  list->setCurrentRow(0);
  trigger(Act::StatesPage);
  REQUIRE_FALSE(list->isVisible());
  trigger(Act::PutAsideTake);
  CHECK(desk.study().entries().size() == 1);
  trigger(Act::PutAsideTake);  // Nothing that is gone already is put aside once more.
  CHECK_FALSE(window.messages().text().contains("could not be put aside"));
}

TEST_CASE_METHOD(TakesFixture,
                 "A moving picture of the selected stretch says how far it is, and can be ended") {
  walk(4.0);
  chosen_file = folder.filePath("run.png");
  trigger(Act::ExportMoving);
  QPushButton* end = nullptr;
  REQUIRE(wait_for([&] {
    for (auto* button : window.findChildren<QPushButton*>())
      if (button->isVisible() && button->text() == "Cancel") end = button;
    return end != nullptr;
  }));
  const auto written = [&] { return QDir(folder.path()).entryList({"run-*.png"}).size(); };
  REQUIRE(wait_for([&] { return written() >= 3; }));
  QTest::mouseClick(end, Qt::LeftButton);
  const auto count = written();
  CHECK(count < 60);
  QTest::qWait(150);
  CHECK(written() == count);  // What was written stays, and no more comes.
  CHECK_FALSE(session.playing());
  QStringList told;
  for (const auto* bar : window.findChildren<MessageBar*>()) told += bar->isVisible() ? bar->text() : QString();
  CHECK(told.join(" ").contains(QString("Ended early. Pictures written: %1").arg(count)));

  // On a page without the view there is nothing to take pictures of.
  window.actions()[Act::SettingsPage]->trigger();
  chosen_file = folder.filePath("none.png");
  trigger(Act::ExportMoving);
  CHECK(window.messages().text().contains("is not on this page"));
  CHECK(QDir(folder.path()).entryList({"none-*"}).isEmpty());
}
