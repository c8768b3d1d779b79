// SPDX-License-Identifier: GPL-3.0-or-later
// The Timing page: real keys and clicks, and figures that are the core's.
#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QTabWidget>
#include <QTableWidget>
#include <QTreeWidget>

#include "pages/timing_page.h"
#include "support/window_fixture.h"
#include "timing/feel_bar.h"
#include "timing/matrix_table.h"
#include "timing/phase_pane.h"
#include "timing/probe_pane.h"
#include "timing/recipe_pane.h"
#include "timing/strip_view.h"
#include "timing/timing_desk.h"
#include "timing/ways_pane.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

struct TimingFixture : WindowFixture {
  TimingPage& page = window.timing_page();
  TimingDesk& desk = page.desk();

  TimingFixture() {
    open(kDemo);
    drive_some();
    QTest::keyClick(&window, Qt::Key_4, Qt::ControlModifier);
    REQUIRE(page.isVisible());
    REQUIRE(wait_for([&] { return desk.study() != nullptr; }));
    next_picture();
  }
  void drive_some() {
    InputChange go, jump, up;
    go.at = 0.1;
    go.move = Vec2(0.2, 1.0);
    jump.at = 0.813;
    jump.press.set(Action::Jump, true);
    up.at = 0.9;
    up.release.set(Action::Jump, true);
    follow_to_rest(InputScript{{go, jump, up}}, 2.5);
  }
  void click_cell(std::size_t row, std::size_t column, Qt::KeyboardModifiers with = Qt::NoModifier) {
    QTest::mouseClick(&page.matrix(), Qt::LeftButton, with,
                      page.matrix().cell_rect(row, column).center().toPoint());
  }
  void click_word(const QString& text) {
    for (QToolButton* button : page.findChildren<QToolButton*>()) {
      if (button->text() == text && button->isCheckable()) return QTest::mouseClick(button, Qt::LeftButton);
    }
    FAIL("there is no " << text.toStdString());
  }
  void show_tab(int tab) {
    page.tabs().setCurrentIndex(tab);
    next_picture();
  }
};

}  // namespace

TEST_CASE_METHOD(WindowFixture,
                 "Where nothing was driven the Timing page says what to do, and measures it when it was") {
  open(kDemo);
  QTest::keyClick(&window, Qt::Key_4, Qt::ControlModifier);
  TimingPage& page = window.timing_page();
  REQUIRE(page.isVisible());
  next_picture();
  CHECK(page.desk().study() == nullptr);
  CHECK_FALSE(page.matrix().isVisible());
  const auto says = [&](const char* part) {
    for (const QLabel* label : page.findChildren<QLabel*>()) {
      if (label->isVisible() && label->text().contains(part)) return true;
    }
    return false;
  };
  CHECK(says("Press Enter and drive"));
  // On this very page, by keys.
  QTest::keyClick(&window, Qt::Key_Return);
  REQUIRE(view.driving());
  QTest::keyPress(&view, Qt::Key_W);
  REQUIRE(wait_for([&] { return session.shown().run.ticks() > 40; }));
  CHECK(page.desk().study() == nullptr);
  QTest::keyRelease(&view, Qt::Key_W);
  QTest::keyClick(&view, Qt::Key_Escape);
  REQUIRE(wait_for([&] { return page.desk().study() != nullptr; }));
  CHECK(page.matrix().isVisible());
}

TEST_CASE_METHOD(TimingFixture, "The matrix has the core's figures, and a cell is chosen by click and keys") {
  const TimingStudy& study = *desk.study();
  const auto rows = timing_rows(study.source(), study.ask, 2);
  REQUIRE(rows);
  for (std::size_t i = 0; i < rows->size(); ++i) {
    CHECK((*rows)[i].figures.body.jitter == study.rows[i].figures.body.jitter);
    CHECK((*rows)[i].figures.age.mean == study.rows[i].figures.age.mean);
  }
  CHECK(page.matrix().text_of(2, 3) ==
        QString("%1 mm").arg(study.row({2, 3, 1}).figures.body.jitter * 1e3, 0, 'f', 2));
  click_word("lag");
  CHECK(page.matrix().text_of(2, 3).startsWith("16.7 ms"));
  CHECK(study.row({0, 1, 1}).figures.body.lag == Approx(0.05).margin(0.002));
  click_word("input age");
  CHECK(page.matrix().text_of(1, 0).endsWith("ms"));
  click_word("as ticked");
  CHECK(desk.b() == TimingCell{2, 3, 0});
  click_cell(1, 2);
  CHECK(desk.b() == TimingCell{1, 2, 0});
  QTest::keyClick(&page.matrix(), Qt::Key_Down);
  QTest::keyClick(&page.matrix(), Qt::Key_Left);
  CHECK(desk.b() == TimingCell{2, 1, 0});
  QTest::keyClick(&page.matrix(), Qt::Key_A);
  CHECK(desk.a() == TimingCell{2, 1, 0});
  click_cell(0, 4, Qt::ShiftModifier);
  CHECK(desk.a() == TimingCell{0, 4, 0});
  CHECK(desk.b() == TimingCell{2, 1, 0});
}

TEST_CASE_METHOD(TimingFixture,
                 "Strips show ticks, frames and gaps as they are, and replay at their own draw rates") {
  desk.compare_with({1, 3, 0});
  desk.choose({2, 3, 1});
  next_picture();
  const Strip a = desk.strip(desk.a()), b = desk.strip(desk.b());
  CHECK(a.frames.size() == Approx(36).margin(1));  // A quarter of 144.
  CHECK(a.ticks.size() == Approx(8).margin(1));
  CHECK(b.ticks.size() == Approx(15).margin(1));
  // As ticked a frame stands still or goes a whole tick; what it is off is what it is behind.
  std::size_t still = 0;
  for (const StripFrame& f : a.frames) still += f.step < 1e-9;
  CHECK(still > a.frames.size() / 2);
  for (const StripFrame& f : b.frames) CHECK(f.gap <= desk.study()->row(desk.b()).figures.body.farthest + 1e-9);
  // By a settable clock: each frame is held for its time, twenty times as long.
  double now = 10.0;
  page.strips().set_clock([&now] { return now; });
  page.strips().setFocus();
  QTest::keyClick(&page.strips(), Qt::Key_Space);
  REQUIRE(page.strips().replaying());
  std::set<double> seen;
  for (int i = 0; i < 200; ++i) {
    now += 0.025;
    if (const StripFrame* frame = page.strips().shown_frame(1)) seen.insert(frame->moment);
  }
  CHECK(seen.size() == Approx(b.frames.size()).margin(1));
  QTest::keyClick(&page.strips(), Qt::Key_Space);
  CHECK_FALSE(page.strips().replaying());
  const double from = desk.from();
  QTest::keyClick(&page.strips(), Qt::Key_Right);
  QTest::keyClick(&page.strips(), Qt::Key_Right);
  CHECK(desk.from() == Approx(std::min(from + 0.1, desk.study()->take.seconds() - 0.25)));
}

TEST_CASE_METHOD(TimingFixture,
                 "Advice is for the chosen cell, and Try it goes there and keeps what it was as A") {
  desk.choose({1, 3, 1});
  CHECK(page.advice().text().startsWith("At 30 ticks/s interpolated lags 33 ms; 60 would halve it"));
  auto* attempt = page.findChild<QPushButton*>();
  for (QPushButton* button : page.findChildren<QPushButton*>()) {
    if (button->text() == "Try it") attempt = button;
  }
  REQUIRE(attempt != nullptr);
  QTest::mouseClick(attempt, Qt::LeftButton);
  CHECK(desk.b() == TimingCell{2, 3, 1});
  CHECK(desk.a() == TimingCell{1, 3, 1});
}

TEST_CASE_METHOD(TimingFixture, "A recipe is told with its figures, and its ways go over the take in the view",
                 "[pixels]") {
  RecipePane& pane = page.recipe_pane();
  REQUIRE(wait_for([&] { return !pane.list().topLevelItem(0)->child(0)->text(1).isEmpty(); }));
  // Ours is the last of each part.
  for (int p = 0; p < pane.list().topLevelItemCount(); ++p) {
    const QTreeWidgetItem* part = pane.list().topLevelItem(p);
    CHECK(part->child(part->childCount() - 1)->text(0).startsWith("ours"));
  }
  const Recipe& recipe = *find_recipe("diagonals");
  pane.choose(recipe);
  CHECK(pane.told().contains("5.66 m/s"));
  CHECK(pane.told().contains("ours 4.00 m/s"));
  CHECK(pane.told().contains("Instead:"));
  CHECK(pane.plot().curves().theirs.size() == 3);
  auto* ghosts = pane.findChild<QCheckBox*>();
  REQUIRE(ghosts != nullptr);
  const QImage before = next_picture();
  QTest::mouseClick(ghosts, Qt::LeftButton, Qt::NoModifier, QPoint(8, ghosts->height() / 2));
  REQUIRE(wait_for([&] { return pane.ways().size() == 3; }));
  CHECK(pane.ways()[1].size() == std::size_t(std::lround(desk.study()->take.seconds() * 60)) + 1);
  REQUIRE(wait_for([&] { return difference(before, next_picture()) > 1e-4; }));
}

TEST_CASE_METHOD(TimingFixture, "Ways to ask for ground are told at the playhead and over the take") {
  show_tab(1);
  ProbePane& pane = page.probes();
  REQUIRE(wait_for([&] { return pane.lanes().lanes() != nullptr; }));
  std::size_t air = 0;
  while (session.shown().run.state(air).grounded()) ++air;
  session.set_playhead(air + 3);
  next_picture();
  REQUIRE_FALSE(session.current().grounded());
  const auto says = [&](GroundProbe probe) { return pane.table().item(int(probe) + 1, 1)->text(); };
  CHECK(pane.table().item(0, 1)->text() == "no");
  CHECK(says(GroundProbe::LongRay).startsWith("yes"));
  CHECK(says(GroundProbe::LongRay).contains("≠"));
  CHECK(says(GroundProbe::ContactNormals) == "no");
  CHECK(pane.table().item(int(GroundProbe::LongRay) + 1, 5)->text().toInt() > 5);
  // A click on the lanes is the playhead.
  QTest::mouseClick(&pane.lanes(), Qt::LeftButton, Qt::NoModifier, QPoint(pane.lanes().width() / 2, 8));
  CHECK(session.playhead() == Approx(session.shown().run.ticks() / 2).margin(2));
}

TEST_CASE_METHOD(TimingFixture,
                 "The order of a tick adds up to what it did, and its phases tell what the ledger has") {
  show_tab(2);
  session.set_playhead(40);
  next_picture();
  PhasePane& pane = page.phases();
  CHECK(pane.table().rowCount() == int(kTickPhases.size()));
  CHECK(pane.table().item(6, 1)->text() != "-");
  pane.table().setCurrentCell(7, 0);
  CHECK_FALSE(pane.words().isEmpty());
  session.set_playhead(0);
  next_picture();
  CHECK(pane.table().item(6, 1)->text().isEmpty());
}

TEST_CASE_METHOD(TimingFixture, "The ways of all tick rates stay together, and it is said how close") {
  show_tab(3);
  WaysPane& pane = page.ways();
  REQUIRE(pane.picture().ways().size() == 6);
  CHECK(pane.list().count() == 6);
  for (std::size_t i = 0; i < 6; ++i) {
    const auto& way = pane.picture().ways()[i];
    CHECK(way.most == Approx(desk.study()->row({i, 0, 1}).figures.apart).margin(1e-12));
    CHECK(pane.list().item(int(i))->text().contains(QString("within %1 cm").arg(way.most * 1e2, 0, 'f', 2)));
    CHECK(way.parts_at.has_value() == (way.most > WaysPicture::kParted));
  }
}

TEST_CASE_METHOD(
    TimingFixture,
    "Driven by another method what is drawn is off by as much as is told; a hitch is one long frame") {
  FeelBar& feel = page.feel();
  feel.method().setCurrentIndex(1);
  emit feel.method().activated(1);
  CHECK(session.drawing().method == DrawMethod::AsTicked);
  session.set_tick_rate(20);
  QTest::keyClick(&window, Qt::Key_Return);
  REQUIRE(view.driving());
  QTest::keyPress(&view, Qt::Key_W);
  double widest = 0.0;
  REQUIRE(wait_for([&] {
    widest = std::max(widest, feel.gap());
    return widest > 0.05;
  }));
  CHECK(widest <= session.profile().ground.sprint_speed / 20.0 + 0.05);
  CHECK(feel.words().text().startsWith("drawn "));
  // A quarter of a second in which nothing is drawn and nothing ticks, and then all of it at once.
  double longest = 0.0;
  const auto watch = QObject::connect(&window.heart(), &Heart::beat, &window.heart(),
                                      [&](double seconds) { longest = std::max(longest, seconds); });
  window.actions()[Act::Hitch]->trigger();
  REQUIRE(wait_for([&] { return longest > 0.2; }));
  QObject::disconnect(watch);
  QTest::keyRelease(&view, Qt::Key_W);
  QTest::keyClick(&view, Qt::Key_Escape);
  feel.method().setCurrentIndex(0);
  emit feel.method().activated(0);
  CHECK(session.drawing().method == DrawMethod::Interpolated);
  REQUIRE(wait_for([&] { return window.actions()[Act::Interpolated]->isChecked(); }));
}

// A body of its own, which goes the same way as the ticks; they are what is recorded.
TEST_CASE_METHOD(TimingFixture,
                 "Motion in the frame itself is driven beside the ticks, and it is said how far off it is") {
  FeelBar& feel = page.feel();
  const int in_frame = feel.method().findText("in-frame");
  REQUIRE(in_frame >= 0);
  feel.method().setCurrentIndex(in_frame);
  emit feel.method().activated(in_frame);
  REQUIRE(wait_for([&] { return !window.actions()[Act::Interpolated]->isChecked(); }));
  session.set_tick_rate(20);
  QTest::keyClick(&window, Qt::Key_Return);
  QTest::keyPress(&view, Qt::Key_W);
  REQUIRE(wait_for([&] { return session.in_frame() && length(session.current().velocity_C) > 2.0; }));
  double widest = 0.0, ahead = 0.0;
  const std::size_t ticks = session.shown().run.ticks();
  REQUIRE(wait_for([&] {
    widest = std::max(widest, feel.gap());
    ahead = std::max(ahead, session.moment().time - session.current().time);
    return session.shown().run.ticks() > ticks + 8;
  }));
  CHECK(widest < 0.01);
  CHECK(ahead > 0.01);  // It is drawn within a tick of 50 ms.
  QTest::keyRelease(&view, Qt::Key_W);
  QTest::keyClick(&view, Qt::Key_Escape);
  // The menu's own two ways: interpolated, and then as ticked.
  window.actions()[Act::Interpolated]->trigger();
  CHECK(session.drawing().method == DrawMethod::Interpolated);
  window.actions()[Act::Interpolated]->trigger();
  CHECK(session.drawing().method == DrawMethod::AsTicked);
}

TEST_CASE_METHOD(TimingFixture,
                 "Hitches at random, and measured ones, are had while one drives; without them none") {
  using Hitches = FeelBar::Hitches;
  constexpr double kHitch = 0.075;  // s, and more.
  QComboBox& kinds = page.feel().kinds();
  // By real keys, in the box.
  const auto choose = [&](Hitches wanted) {
    kinds.setFocus();
    while (kinds.currentIndex() != int(wanted))
      QTest::keyClick(&kinds, kinds.currentIndex() < int(wanted) ? Qt::Key_Down : Qt::Key_Up);
    REQUIRE(page.feel().hitches() == wanted);
  };
  // A clock that goes on by a hundredth at a time: what a beat has of it is how long its frame took.
  double clock = window.heart().now();
  window.heart().set_clock([&] { return clock; });
  std::vector<double> frames;
  const auto watch = QObject::connect(&window.heart(), &Heart::beat, &window.heart(),
                                      [&](double seconds) { frames.push_back(seconds); });
  const auto driven = [&](double seconds) {
    drive();
    frames.clear();
    for (double gone = 0.0; gone < seconds; gone += 0.01, clock += 0.01) {
      const std::size_t before = frames.size();
      (void)QTest::qWaitFor([&] { return frames.size() > before; }, 12);
    }
    QTest::keyClick(&view, Qt::Key_Escape);
    // What was begun before is over after two.
    return std::vector<double>(frames.begin() + 2, frames.end());
  };
  const auto longest = [](const std::vector<double>& f) { return *std::max_element(f.begin(), f.end()); };
  CHECK(longest(driven(2.0)) < kHitch);
  choose(Hitches::Random);
  const std::vector<double> some = driven(5.0);
  const auto hitches = std::count_if(some.begin(), some.end(), [](double s) { return s > kHitch; });
  CHECK(hitches >= 1);
  CHECK(hitches <= 10);  // Now and then, not all the time.
  CHECK(longest(some) < 0.35);
  chosen_file = file("frames.txt", "120\n40\n");
  choose(Hitches::Measured);
  const std::vector<double> measured = driven(2.0);
  REQUIRE(measured.size() > 8);
  for (std::size_t i = 4; i + 1 < measured.size(); ++i) {
    INFO(i);
    CHECK(measured[i] + measured[i + 1] == Approx(0.16).margin(0.045));
    CHECK(std::abs(measured[i] - measured[i + 1]) > 0.04);
  }
  choose(Hitches::None);
  CHECK(longest(driven(1.0)) < kHitch);
  QObject::disconnect(watch);
  window.heart().set_clock([clock] { return clock; });  // This one goes.
}

TEST_CASE_METHOD(TimingFixture,
                 "Measured frames are read, and a bad file is refused by line; figures are written") {
  const QString frames = file("frames.txt", "# ms\n16.7\n33.4\n"), bad = file("bad.txt", "16.7\nslow\n");
  const auto ask = [&](const QString& path) {
    chosen_file = path;
    page.feel().kinds().setCurrentIndex(2);
    emit page.feel().kinds().activated(2);
  };
  ask(frames);
  CHECK(page.feel().hitches() == FeelBar::Hitches::Measured);
  CHECK_FALSE(window.messages().isVisible());
  ask(bad);
  CHECK(page.feel().hitches() == FeelBar::Hitches::None);
  REQUIRE(window.messages().isVisible());
  CHECK(window.messages().text().contains("bad.txt: line 2: a frame's length in milliseconds is wanted"));
  // All figures as a table, and what is seen as a picture.
  chosen_file = folder.filePath("timing.csv");
  window.actions()[Act::ExportTiming]->trigger();
  QFile table(chosen_file);
  REQUIRE(table.open(QIODevice::ReadOnly));
  CHECK(table.readLine() ==
        "hz,draw_hz,drawing,lag_ms,lag_m,jitter_m,pop_m,inside_m,apart_m,dropped_s,step_us\n");
  CHECK(table.readAll().count('\n') == 6 * 5 * 5);
  for (const char* name : {"timing.svg", "timing.pdf", "timing.png"}) {
    chosen_file = folder.filePath(name);
    window.actions()[Act::ExportTiming]->trigger();
    CHECK(QFileInfo(chosen_file).size() > 5000);
  }
  CHECK_FALSE(QImage(folder.filePath("timing.png")).isNull());
}

TEST_CASE_METHOD(TimingFixture, "Figures go with what is shown: another place with nothing driven has none") {
  open(QString(LAGNIAPPE_SOURCE_DIR "/courses/orrery.course.json"));
  REQUIRE(wait_for([&] { return desk.study() == nullptr; }));
  next_picture();
  CHECK_FALSE(page.matrix().isVisible());
  drive_some();
  REQUIRE(wait_for([&] { return desk.study() != nullptr; }));
  CHECK(desk.study()->place->course.name == session.place()->course.name);
  CHECK(desk.study()->since == 0.0);
}
