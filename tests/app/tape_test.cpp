// SPDX-License-Identifier: GPL-3.0-or-later
// The tape, the ledger beside it, ghosts and takes, in real windows.
#include <QFileInfo>
#include <QLabel>
#include <QListWidget>
#include <QTabWidget>
#include <QTableWidget>

#include "cards/value_field.h"
#include "lagniappe/files.h"
#include "pages/exports.h"
#include "panels/ghosts_panel.h"
#include "panels/parting_dialog.h"
#include "panels/takes_panel.h"
#include "support/window_fixture.h"
#include "theme/state_colours.h"
#include "viewport/zone_lines.h"
#include "widgets/command_search.h"
#include "widgets/ledger_column.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

const char* const kYard = R"({"lagniappe": "course", "version": 1, "name": "Yard",
  "marks": [{"id": "start", "at": [0, 0, 0]}],
  "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [60, 1, 60]},
             {"id": "kerb", "kind": "block", "at": [0, 0, -4], "size": [8, 0.2, 3]},
             {"id": "wall", "kind": "block", "at": [0, 0, -9], "size": [20, 3, 1]}]})";

struct TapeFixture : WindowFixture {
  Tape& tape = window.page().tape();
  TakeDesk& desk = window.desk();

  TapeFixture() {
    open(file("yard.course.json", kYard));
    QTest::keyClick(&window, Qt::Key_G);
  }
  // Walks over the kerb and jumps, by a script, until all rests.
  void walk(double seconds = 2.5) {
    InputChange go, jump, stop;
    go.at = 0.2;
    go.move = Vec2(0.0, 1.0);
    jump.at = 1.5;
    jump.press.set(Action::Jump, true);
    stop.at = 2.0;
    stop.move = Vec2(0.0);
    stop.release.set(Action::Jump, true);
    follow_to_rest(InputScript{{go, jump, stop}}, seconds);
  }
  QPoint at(std::size_t tick, int lane = 1) const {
    return {int(std::lround(tape.x_of_tick(tick))), tape.lane_rect(lane).center().y()};
  }
  void drag(std::size_t from, std::size_t to, Qt::KeyboardModifiers keys = Qt::NoModifier) {
    QTest::mousePress(&tape, Qt::LeftButton, keys, at(from));
    for (int i = 1; i <= 5; ++i) {
      const QPoint where = at(from) + (at(to) - at(from)) * i / 5;
      QMouseEvent move(QEvent::MouseMove, where, tape.mapToGlobal(where), Qt::NoButton, Qt::LeftButton, keys);
      QCoreApplication::sendEvent(&tape, &move);
    }
    QTest::mouseRelease(&tape, Qt::LeftButton, keys, at(to));
  }
  ValueField* value(const QString& name) { return window.findChild<ValueField*>(name); }
  void set_value(const QString& name, double to) {
    ValueField* field = value(name);
    REQUIRE(field != nullptr);
    field->selectAll();
    QTest::keyClicks(field, QString::number(to));
    QTest::keyClick(field, Qt::Key_Return);
  }
};

}  // namespace

TEST_CASE_METHOD(TapeFixture, "Dragging on the tape moves the playhead, the view and the ledger with it",
                 "[pixels]") {
  walk();
  const std::size_t last = session.shown().run.ticks();
  CHECK(session.playhead() == last);
  const QImage end = next_picture();
  drag(last, 60);
  CHECK(std::abs(double(session.playhead()) - 60.0) <= 2.0);
  CHECK(difference(end, next_picture()) > 0.005);
  const LedgerColumn& ledger = window.page().ledger();
  REQUIRE(wait_for([&] { return ledger.heading() == QString("Tick %1").arg(session.playhead()); }));
  CHECK(ledger.sentences().join(" ").contains("intent"));
  // A tick at a time, and to the ends.
  const std::size_t at = session.playhead();
  QTest::keyClick(&window, Qt::Key_Comma);
  CHECK(session.playhead() == at - 1);
  QTest::keyClick(&window, Qt::Key_Period);
  CHECK(session.playhead() == at);
  QTest::keyClick(&window, Qt::Key_Home);
  CHECK(session.playhead() == 0);
  QTest::keyClick(&window, Qt::Key_Comma);
  CHECK(session.playhead() == 0);
  QTest::keyClick(&window, Qt::Key_End);
  CHECK(session.playhead() == last);
}

TEST_CASE_METHOD(TapeFixture, "A selected stretch tells what it came to, as the core has it") {
  walk();
  drag(30, 90, Qt::ShiftModifier);
  REQUIRE(tape.selection());
  const Stretch s = *tape.selection();
  CHECK(std::abs(double(s.first) - 30.0) <= 2.0);
  CHECK(std::abs(double(s.last) - 90.0) <= 2.0);
  const auto* text = window.page().findChild<QLabel*>("selection");
  REQUIRE(text->isVisible());
  const DriveSummary summary = session.shown().run.summarize(s.first, s.last);
  CHECK(text->text().contains(QString::number(summary.distance, 'f', 2) + " m"));
  CHECK(text->text().contains("top " + QString::number(summary.top_speed, 'f', 2)));
  // It loops.
  next_picture();
  window.actions()[Act::Loop]->trigger();
  REQUIRE(session.playing());
  std::set<std::size_t> seen;
  REQUIRE(wait_for([&] {
    seen.insert(session.playhead());
    return seen.size() > 30;
  }));
  CHECK(*seen.rbegin() <= s.last);
  window.actions()[Act::PlayTape]->trigger();
  CHECK_FALSE(session.playing());
}

TEST_CASE_METHOD(TapeFixture, "Next and previous go to events of the chosen kind") {
  walk();
  session.set_playhead(0);
  window.page().transport().choose_event(Event::Jump);
  QTest::keyClick(&window, Qt::Key_Right, Qt::ControlModifier);
  const std::size_t jump = session.playhead();
  CHECK(session.shown().run.events(jump).has(Event::Jump));
  window.page().transport().choose_event(Event::Landing);
  QTest::keyClick(&window, Qt::Key_Right, Qt::ControlModifier);
  CHECK(session.playhead() > jump);
  CHECK(session.shown().run.events(session.playhead()).has(Event::Landing));
  QTest::keyClick(&window, Qt::Key_Left, Qt::ControlModifier);  // None before: it stays.
  CHECK(session.shown().run.events(session.playhead()).has(Event::Landing));
}

TEST_CASE_METHOD(TapeFixture, "Who looks back while driving pauses, and P drives on from there") {
  drive();
  QTest::keyPress(&view, Qt::Key_W);
  REQUIRE(wait_for([&] { return session.shown().run.ticks() > 60; }));
  QTest::keyClick(&view, Qt::Key_Home);
  CHECK(session.paused());
  CHECK(session.playhead() == 0);
  const std::uint64_t revision = session.revision();
  QTest::keyClick(&view, Qt::Key_P);
  REQUIRE(wait_for([&] { return session.revision() != revision && session.shown().run.ticks() > 5; }));
  CHECK(view.driving());
  QTest::keyRelease(&view, Qt::Key_W);
}

TEST_CASE_METHOD(TapeFixture, "The wheel zooms to one tick and out to the whole take") {
  walk();
  const QPoint middle = at(60);
  const auto wheel = [&](int notches) {
    QWheelEvent event(middle, tape.mapToGlobal(middle), {}, {0, 120 * notches}, Qt::NoButton, Qt::NoModifier,
                      Qt::NoScrollPhase, false);
    QCoreApplication::sendEvent(&tape, &event);
  };
  for (int i = 0; i < 60; ++i) wheel(1);
  CHECK(tape.shown_range().size() == Approx(1.0 / 60));
  for (int i = 0; i < 60; ++i) wheel(-1);
  CHECK(tape.shown_range().size() >= session.shown().run.seconds());
}

TEST_CASE_METHOD(TapeFixture, "Driving on from an earlier tick keeps what was before it, and the old take") {
  walk();
  const std::size_t before = desk.study().entries().size();
  const CharacterState at_50 = session.shown().run.state(50);
  const CharacterState after_50 = session.shown().run.state(51);
  const std::uint64_t old = session.revision();
  session.set_playhead(50);
  drive();
  REQUIRE(wait_for([&] { return session.revision() != old && session.shown().run.ticks() > 60; }));
  QTest::keyClick(&view, Qt::Key_Escape);
  CHECK(hash_of(session.shown().run.state(50)) == hash_of(at_50));
  CHECK(hash_of(session.shown().run.state(51)) != hash_of(after_50));  // Nobody pushes now.
  CHECK_FALSE(
      compare(session.shown().run, *run_take(session.shown().take, session.place()->world)).first_difference);
  REQUIRE(wait_for([&] { return desk.study().entries().size() == before + 1; }));
}

TEST_CASE_METHOD(TapeFixture, "A changed value is answered at once by a ghost, drawn where the core says",
                 "[pixels]") {
  walk();
  session.set_playhead(session.shown().run.ticks());
  const QImage alone = next_picture();
  set_value("ground.highest_step", 0.1);
  const auto ghost = desk.current_ghost();
  REQUIRE(ghost);  // Without waiting.
  CHECK(ghost->name.contains("ground.highest_step 0.1 m"));
  REQUIRE(ghost->against.parting);
  CHECK(session.shown().run.next(Event::Step, 0) == ghost->against.parting);
  const QImage both = next_picture();
  CHECK(difference(alone, both) > 0.001);
  // Its capsule's pixels are gold about where its middle is projected to.
  const CharacterState& there = ghost->recording->run.last();
  const auto pixel = view.pixel_of(there.foot_C + Vec3(0, there.capsule_height * 0.5, 0));
  REQUIRE(pixel);
  int gold = 0;
  for (int y = -60; y <= 60; ++y) {
    for (int x = -40; x <= 40; ++x) {
      const QPoint p = pixel->toPoint() + QPoint(x, y);
      if (!both.rect().contains(p)) continue;
      const QColor c = both.pixelColor(p);
      gold += c.red() > c.blue() + 60 && both.pixel(p) != alone.pixel(p);
    }
  }
  CHECK(gold > 100);
  CHECK(window.page().ghosts().verdict().contains("They part at tick " +
                                                  QString::number(*ghost->against.parting)));
  // Undone, it is gone.
  trigger(Act::Undo);
  CHECK_FALSE(desk.current_ghost());
  CHECK(session.profile().ground.highest_step == Approx(0.34));
  trigger(Act::Redo);
  CHECK(desk.current_ghost());
}

TEST_CASE_METHOD(TapeFixture, "Values that do not fit together are refused with a sentence") {
  walk();
  set_value("capsule.height", 0.2);
  CHECK(window.messages().text().contains("the height must be at least twice the radius"));
  CHECK(session.profile().capsule.height == 1.8);
  CHECK(value("capsule.height")->value() == 1.8);
  CHECK_FALSE(desk.current_ghost());
  set_value("capsule.height", 1.7);
  CHECK(session.profile().capsule.height == 1.7);
  CHECK(desk.current_ghost());
}

TEST_CASE_METHOD(TapeFixture, "Both ledgers of the tick at which they part stand side by side") {
  walk();
  set_value("ground.highest_step", 0.1);
  const auto ghost = desk.current_ghost();
  REQUIRE(ghost);
  const PartingDialog dialog(session.shown(), *ghost, nullptr);
  CHECK(dialog.left().sentences().join(" ").contains("step taken"));
  CHECK(dialog.right().sentences().join(" ").contains("> 0.100 m allowed, refused"));
}

TEST_CASE_METHOD(TapeFixture, "Ghosts are pinned, compared, kept and put back") {
  walk();
  const std::uint64_t before = session.shown().take.profile_identity;
  set_value("jump.height", 2.0);
  desk.pin();
  set_value("jump.height", 0.5);
  REQUIRE(desk.ghosts().size() == 2);
  const QTableWidget& table = window.page().ghosts().table();
  auto* side = window.findChild<QTabWidget*>("side");
  side->setCurrentIndex(2);  // Figures are read once they are seen.
  REQUIRE(side->tabText(2).startsWith("Ghosts"));
  REQUIRE(table.columnCount() == 3);
  const auto text = [&](const QString& row, int column) {
    for (int i = 0; i < table.rowCount(); ++i) {
      if (table.verticalHeaderItem(i)->text() == row) return table.item(i, column)->text();
    }
    return QString();
  };
  CHECK(text("highest point", 2) ==
        QString::number(desk.ghosts()[1]->recording->run.summarize().drive.highest_point, 'f', 2) + " m");
  CHECK(text("highest point", 1) < text("highest point", 2));
  CHECK(text("landings", 0) == QString::number(session.shown().run.summarize().landings));
  desk.name_pin(0, "two metres");
  CHECK(table.horizontalHeaderItem(2)->toolTip() == "two metres");
  desk.put_back();
  CHECK(identity_of(session.profile()) == before);
  CHECK(desk.ghosts().size() == 1);  // The pin stays.
  set_value("jump.height", 0.5);
  const std::uint64_t end = hash_of(desk.current_ghost()->recording->run.last());
  desk.keep_ghost();
  CHECK(hash_of(session.shown().run.last()) == end);
  CHECK(session.profile().jump.height == 0.5);
  CHECK_FALSE(desk.current_ghost());
  window.undo().undo_once();
  CHECK(session.shown().take.profile_identity == before);
}

TEST_CASE_METHOD(TapeFixture,
                 "A retake with nothing changed says identical; another tick rate is a ghost too") {
  walk();
  window.actions()[Act::RetakeUnchanged]->trigger();
  CHECK(window.page().ghosts().verdict().contains("Identical, to the bit, in all"));
  window.page().transport().choose_tick_rate(144);
  REQUIRE(desk.current_ghost());
  CHECK(desk.current_ghost()->recording->run.tick_rate() == 144);
  CHECK(desk.current_ghost()->against.furthest < 0.2);
}

TEST_CASE_METHOD(TapeFixture, "A take is saved by itself, opened again, and runs as it was recorded") {
  walk();
  const std::uint64_t end = hash_of(session.shown().run.last());
  window.actions()[Act::ToStart]->trigger();
  REQUIRE(wait_for([&] { return desk.study().entries().size() == 1; }));
  desk.study().wait();
  const Study::Entry entry = desk.study().entries().front();
  CHECK(QString::fromStdString(entry.about.name).contains("1 jump"));
  CHECK(entry.about.path.size() > 10);
  open(entry.file);
  REQUIRE(wait_for([&] { return session.has_shown() && session.shown().file == entry.file; }));
  CHECK_FALSE(session.is_open());
  session.set_playhead(session.shown().run.ticks());
  CHECK(hash_of(session.current()) == end);
  // Named, starred and noted, and all that undone.
  TakeAbout about = entry.about;
  about.name = "Over the kerb";
  about.star = true;
  desk.change_about(entry.file, about, "rename");
  desk.study().wait();
  CHECK(read_take_about(entry.file.toStdString())->name == "Over the kerb");
  window.undo().undo_once();
  desk.study().wait();
  CHECK(read_take_about(entry.file.toStdString())->name == entry.about.name);
  CHECK(read_take(entry.file.toStdString()));
  // Put aside and back.
  desk.put_aside(entry.file);
  CHECK(desk.study().entries().empty());
  window.undo().undo_once();
  CHECK(desk.study().entries().size() == 1);
}

TEST_CASE_METHOD(TapeFixture, "Another take is pinned beside the shown one") {
  walk();
  window.actions()[Act::ToStart]->trigger();
  REQUIRE(wait_for([&] { return desk.study().entries().size() == 1; }));
  desk.study().wait();
  walk(1.0);
  emit window.page().takes().overlay_asked(desk.study().entries().front().file);
  REQUIRE(wait_for([&] { return desk.ghosts().size() == 1; }));
  CHECK(desk.ghosts()[0]->name.contains("1 jump"));
  CHECK(desk.ghosts()[0]->recording->run.ticks() > session.shown().run.ticks());
}

TEST_CASE_METHOD(TapeFixture,
                 "A long take is run again in the background, with progress, and can be given up") {
  Take take = begin_recording(
                  start_state(session.profile(), start_home(session.place()->course), session.place()->world),
                  session.shared_place(), session.profile(), 60)
                  .take;
  InputFrame input;
  input.turn_rate = Vec2(1.0, 0.0);
  input.move = Vec2(0.0, 0.3);
  take.inputs.assign(120'000, input);
  const QString path = file("long.take", take_bytes(take));
  open(path);
  REQUIRE(wait_for([&] { return session.has_shown() && session.shown().file == path; }));
  double share = 0.0;
  QObject::connect(&desk, &TakeDesk::retake_progress, &window, [&](double s) { share = std::max(share, s); });
  set_value("jump.height", 2.0);
  CHECK_FALSE(desk.current_ghost());
  CHECK(desk.retaker().busy());
  int frames = 0;
  QObject::connect(&window.heart(), &Heart::beat, &window, [&] { ++frames; });
  REQUIRE(wait_for([&] { return desk.current_ghost() != nullptr; }));
  CHECK(share > 0.0);
  CHECK(frames > 0);                                   // The window lived on.
  CHECK_FALSE(desk.current_ghost()->against.parting);  // Nobody jumped.
  set_value("jump.height", 2.5);
  REQUIRE(desk.retaker().busy());
  desk.cancel_retake();
  CHECK_FALSE(desk.retaker().busy());
}

TEST_CASE_METHOD(TapeFixture, "A stretch becomes a take, and a take is split in two") {
  walk();
  desk.keep_stretch({40, 100});
  desk.split(70);
  desk.study().wait();
  REQUIRE(wait_for(
      [&] { return desk.study().entries().size() == 3; }));  // The stretch and two parts; the whole is aside.
  std::vector<std::uint64_t> ticks;
  for (const Study::Entry& entry : desk.study().entries()) {
    const auto take = read_take(entry.file.toStdString());
    REQUIRE(take);
    const TriangleWorld world = build_world(*take->course);
    CHECK_FALSE(first_difference(*run_take(*take, world), *take));
    ticks.push_back(entry.about.ticks);
  }
  std::sort(ticks.begin(), ticks.end());
  CHECK(ticks[0] == 60);
  CHECK(ticks[1] == 70);
}

TEST_CASE_METHOD(TapeFixture,
                 "A ledger line points at its place in the view, and a click there finds the line") {
  walk();
  const auto step = session.shown().run.next(Event::Step, 0);
  REQUIRE(step);
  session.set_playhead(*step);
  next_picture();
  const QImage plain = next_picture();
  auto* list = window.page().ledger().findChild<QListWidget*>("sentences");
  int row = -1;
  for (int i = 0; i < list->count(); ++i) {
    if (list->item(i)->text().contains("met the edge of")) row = i;
  }
  REQUIRE(row >= 0);
  list->setCurrentRow(row);
  CHECK(view.highlight().entry == std::size_t(row));
  CHECK(session.place()->world.piece_name(view.highlight().piece) == "kerb");
  CHECK(difference(plain, next_picture()) > 0.0002);
  // And back, by a click on the kerb.
  const auto pixel = view.pixel_of(Vec3(2.5, 0.2, -3.5));
  REQUIRE(pixel);
  QTest::mouseClick(&view, Qt::LeftButton, Qt::NoModifier, pixel->toPoint());
  REQUIRE(window.page().ledger().chosen());
  CHECK(list->item(int(*window.page().ledger().chosen()))->text().contains("kerb"));
  CHECK(window.page().ledger().piece_text().contains("kerb: touched in"));
}

TEST_CASE_METHOD(TapeFixture, "A picture of the tape has the ghosts of now, also from a page without it") {
  walk();
  trigger(Act::StatesPage);
  const auto exported = [&](const QString& name) {
    chosen_file = folder.filePath(name);
    trigger(Act::ExportTape);
    QFile written(chosen_file);
    REQUIRE(written.open(QIODevice::ReadOnly));
    return QString::fromUtf8(written.readAll());
  };
  CHECK_FALSE(exported("before.svg").contains("distance apart, m"));
  desk.set_tick_rate(30);
  REQUIRE(wait_for([&] { return desk.ghosts().size() == 1; }));
  CHECK(exported("after.svg").contains("distance apart, m"));
}

TEST_CASE_METHOD(TapeFixture, "Pictures, traces and ledgers are exported") {
  walk();
  for (const auto& [act, name, begin] : {std::tuple{Act::ExportTrace, "a.csv", "tick,time_s,state"},
                                         {Act::ExportLedger, "a.jsonl", "{\"tick\":1,\"entries\":["},
                                         {Act::ExportTape, "a.svg", "<?xml"},
                                         {Act::ExportPlan, "b.svg", "<?xml"},
                                         {Act::ExportTape, "a.pdf", "%PDF"},
                                         {Act::ExportPlan, "b.pdf", "%PDF"},
                                         {Act::ExportTape, "a.png", "\x89PNG"},
                                         {Act::ExportPlan, "b.png", "\x89PNG"}}) {
    chosen_file = folder.filePath(name);
    window.actions()[act]->trigger();
    QFile written(chosen_file);
    REQUIRE(written.open(QIODevice::ReadOnly));
    CHECK(written.readAll().startsWith(begin));
    CHECK(written.size() > 1000);
  }
  const QImage tape_picture(folder.filePath("a.png"));
  REQUIRE_FALSE(tape_picture.isNull());
  int walked = 0;
  for (int x = 0; x < tape_picture.width(); x += 3) {
    for (int y = 0; y < tape_picture.height(); y += 3)
      walked += tape_picture.pixelColor(x, y) == theme::state_colour(StateId::Walk, *built_in_chart());
  }
  CHECK(walked > 200);
  chosen_file = "/nowhere/a.csv";
  window.actions()[Act::ExportTrace]->trigger();
  CHECK(window.messages().text().contains("/nowhere/a.csv: the file: it cannot be written"));
}

TEST_CASE_METHOD(TapeFixture, "Ctrl+K finds any action by a few letters and does it") {
  QTest::keyClick(&window, Qt::Key_K, Qt::ControlModifier);
  auto* search = window.findChild<CommandSearch*>();
  REQUIRE(search->isVisible());
  auto* field = search->findChild<QLineEdit*>("commandField");
  QTest::keyClicks(field, "first pers");
  QTest::keyClick(field, Qt::Key_Return);
  CHECK(wait_for([&] { return view.first_person(); }));
  CHECK_FALSE(search->isVisible());
}

TEST_CASE_METHOD(TapeFixture, "A damaged take is explained, and what can be read of it is offered") {
  walk();
  window.actions()[Act::ToStart]->trigger();
  desk.study().wait();
  REQUIRE(wait_for([&] { return desk.study().entries().size() == 1; }));
  QFile whole(desk.study().entries().front().file);
  REQUIRE(whole.open(QIODevice::ReadOnly));
  const QByteArray bytes = whole.readAll();
  open(file("cut.take", bytes.left(bytes.size() - 40).toStdString()));
  CHECK(window.messages().text().contains("cut.take"));
  CHECK(window.messages().text().contains("can be recovered"));
  emit window.messages().accepted();
  // It becomes a take of the study, whole again, and the damaged file stays as it is.
  REQUIRE(wait_for([&] { return desk.study().entries().size() == 2; }));
  desk.study().wait();
  const auto rest = read_take(session.shown().file.toStdString());
  REQUIRE(rest);
  CHECK(rest->inputs.size() == session.shown().run.ticks());
  CHECK(QFileInfo(folder.filePath("cut.take")).size() == bytes.size() - 40);
  open(file("not.take", "neither CBOR nor anything"));
  CHECK(window.messages().text().contains("not.take"));
}

TEST_CASE_METHOD(TapeFixture, "Panes can be hidden and shown, and large and small windows lose nothing",
                 "[pixels]") {
  walk();
  for (const Act pane : {Act::TapePane, Act::LedgerPane, Act::SidePane})
    window.actions()[pane]->setChecked(false);
  CHECK_FALSE(tape.isVisible());
  next_picture();
  const int wide = view.width();
  for (const Act pane : {Act::TapePane, Act::LedgerPane, Act::SidePane})
    window.actions()[pane]->setChecked(true);
  CHECK(tape.isVisible());
  CHECK(wait_for([&] { return view.width() < wide; }));
  for (const QSize size : {QSize(1280, 800), QSize(1200, 760)}) {
    window.resize(size);
    next_picture();
    for (QWidget* widget : {static_cast<QWidget*>(&view), static_cast<QWidget*>(&tape)})
      CHECK(window.rect().contains(QRect(widget->mapTo(&window, QPoint()), widget->size())));
  }
}

TEST_CASE_METHOD(TapeFixture, "With the focus the tape is gone along by the keyboard, and a stretch selected") {
  walk();
  Tape& strip = window.page().tape();
  const std::size_t last = session.shown().run.ticks();
  session.set_playhead(40);
  strip.setFocus(Qt::TabFocusReason);
  QTest::keyClick(&strip, Qt::Key_Right);
  CHECK(session.playhead() == 41);
  QTest::keyClick(&strip, Qt::Key_Left);
  QTest::keyClick(&strip, Qt::Key_Left);
  CHECK(session.playhead() == 39);
  for (int i = 0; i < 3; ++i) QTest::keyClick(&strip, Qt::Key_Right, Qt::ShiftModifier);
  CHECK(strip.selection() == Stretch{39, 42});
  for (int i = 0; i < 5; ++i) QTest::keyClick(&strip, Qt::Key_Left, Qt::ShiftModifier);
  CHECK(strip.selection() == Stretch{37, 39});
  for (int i = 0; i < 100; ++i) QTest::keyClick(&strip, Qt::Key_PageDown);
  CHECK(session.playhead() == last);
  QTest::keyClick(&strip, Qt::Key_PageUp);
  CHECK(session.playhead() == last - 60);
}

TEST_CASE("Zones are on the tape by their names, and throws are drawn before anyone steps on them") {
  TapeFixture f;
  f.open(f.file("vents.course.json", R"({"lagniappe": "course", "version": 1, "name": "Vents",
    "marks": [{"id": "start", "at": [0, 0, 0]}, {"id": "roof", "at": [0, 4, -20]}],
    "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [60, 1, 60]},
               {"id": "tower", "kind": "block", "at": [0, 0, -20], "size": [4, 4, 4]},
               {"id": "lid", "kind": "block", "at": [5, 2.5, -10], "size": [9, 0.2, 4]}],
    "zones": [
      {"id": "Mud", "shape": {"kind": "box", "size": [4, 1, 2]}, "at": [0, 0, -2], "effect": {"kind": "pace", "times": 0.5}},
      {"id": "Vent", "shape": {"kind": "box", "size": [2, 0.05, 2]}, "at": [0, 0, -5], "effect": {"kind": "launch", "to": "roof", "apex": 1}},
      {"id": "Under a lid", "shape": {"kind": "box", "size": [2, 0.05, 2]}, "at": [5, 0, -8], "effect": {"kind": "launch", "to": "roof", "apex": 1}}]})"));
  DriveSession& session = f.session;
  const ThrowPreview free = throw_preview(session, 1), blocked = throw_preview(session, 2);
  CHECK(throw_preview(session, 0).foot_C.empty());
  CHECK_FALSE(free.blocked);
  REQUIRE(free.foot_C.size() > 10);
  CHECK(length(free.foot_C.back() - Vec3(0, 4, -20)) < 0.3);
  CHECK(blocked.blocked);
  CHECK(blocked.foot_C.back().y < 2.5);
  CHECK(zone_lines(session, Vec3(0.0)).size() > 3 * 24);

  InputChange go;
  go.at = 0.0;
  go.move = Vec2(0.0, 1.0);
  f.follow_to_rest(InputScript{{go}}, 4.0);
  TapeIndex index;
  index.update(session.shown(), session.revision());
  REQUIRE(index.zones().size() >= 1);
  CHECK(index.zone_rows() == 1);
  CHECK(session.place()->world.zone(index.zones().front().zone, 0.0).name == "Mud");
  const Stretch in_mud = index.zones().front().ticks;
  CHECK(session.shown().run.state(in_mud.first).zones.count == 1);
  CHECK(session.shown().run.state(in_mud.last + 1).zones.count == 0);
  CHECK_FALSE(index.stretches(Event::Thrown).empty());
  CHECK(f.tape.lane_rect(4).height() == 13);  // A row for them, below the stick's.
  bool stood_there = false;
  const Run& run = session.shown().run;
  for (std::size_t i = 0; i <= run.ticks(); ++i)
    stood_there = stood_there || session.place()->world.piece_name(run.state(i).ground.piece) == "tower";
  CHECK(stood_there);
}
