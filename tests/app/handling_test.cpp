// SPDX-License-Identifier: GPL-3.0-or-later
// Tuning in real windows: handles that are dragged, values that are typed, profiles that are saved and
// compared.
#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QElapsedTimer>
#include <QLabel>
#include <QPushButton>
#include <QRegularExpression>
#include <QSignalSpy>
#include <QSlider>
#include <QTableWidget>

#include "cards/card.h"
#include "cards/cards_panel.h"
#include "cards/compare_pane.h"
#include "cards/drawing_view.h"
#include "cards/scale_strip.h"
#include "cards/value_field.h"
#include "cards/value_row.h"
#include "lagniappe/files.h"
#include "lagniappe/handling.h"
#include "session/expression.h"
#include "support/window_fixture.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

const char* const kYard = R"({"lagniappe": "course", "version": 1, "name": "Yard",
  "marks": [{"id": "start", "at": [0, 0, 0]}],
  "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [90, 1, 90]},
             {"id": "kerb", "kind": "block", "at": [0, 0, -4], "size": [8, 0.2, 3]}]})";

const std::string kOtter = R"({
  "lagniappe": "profile",
  "version": 1,
  "name": "Otter",
  "ground": {
    "speed": 4.0,
    "highest_step": 0.34
  },
  "jump": {
    "height": 1.2,
    "lowest_share": 0.6
  }
}
)";

struct HandlingFixture : WindowFixture {
  HandlingDesk& handling = window.handling();
  TakeDesk& desk = window.desk();
  CardsPanel& cards = window.page().cards();
  QString otter = file("otter.profile.json", kOtter);

  HandlingFixture() {
    open(file("yard.course.json", kYard));
    open(otter);
    for (const CardSpec& spec : card_specs()) cards.card(spec.id)->set_folded(false);
  }
  // Walks over the kerb and jumps, until all rests.
  void walk() {
    InputChange go, jump, stop;
    go.at = 0.2;
    go.move = Vec2(0.0, 1.0);
    jump.at = 1.6;
    jump.press.set(Action::Jump, true);
    stop.at = 2.2;
    stop.move = Vec2(0.0);
    stop.release.set(Action::Jump, true);
    follow_to_rest(InputScript{{go, jump, stop}}, 2.6);
  }
  ValueField* field(const QString& path) {
    auto* found = window.findChild<ValueField*>(path);
    REQUIRE(found != nullptr);
    return found;
  }
  void type(const QString& path, const QString& text) {
    field(path)->setFocus();
    field(path)->selectAll();
    QTest::keyClicks(field(path), text);
    QTest::keyClick(field(path), Qt::Key_Return);
  }
  // Drags a handle by pixels, with real mouse events.
  static void drag(DrawingView* view, std::size_t handle, const QPointF& by) {
    const QPoint from = view->place_of(handle).toPoint();
    QTest::mousePress(view, Qt::LeftButton, Qt::NoModifier, from);
    for (int i = 1; i <= 4; ++i) {
      const QPointF at = from + by * i / 4.0;
      QMouseEvent move(QEvent::MouseMove, at, view->mapToGlobal(at), Qt::NoButton, Qt::LeftButton,
                       Qt::NoModifier);
      QCoreApplication::sendEvent(view, &move);
    }
    QTest::mouseRelease(view, Qt::LeftButton, Qt::NoModifier, (from + by).toPoint());
  }
  std::string on_disk() const {
    std::ifstream in(otter.toStdString());
    return {std::istreambuf_iterator<char>(in), {}};
  }
  void undo() { trigger(Act::Undo); }
};

}  // namespace

TEST_CASE("Arithmetic is worked out, with the present value and units, and nonsense is told as such") {
  CHECK(*evaluate("2*0.35", "m", 0.0).value == Approx(0.7));
  CHECK(*evaluate(" 1.5 m", "m", 0.0).value == 1.5);
  CHECK(*evaluate("v*1.1", "s", 2.0).value == Approx(2.2));
  CHECK(*evaluate("sqrt(2*20*1.2)", "m/s", 0.0).value == Approx(take_off_speed(20.0, 1.2)));
  for (const char* wrong : {"", "two", "1/0", "3 +", "2*(1"}) {
    const Evaluated evaluated = evaluate(wrong, "m", 1.0);
    INFO(wrong);
    CHECK_FALSE(evaluated.value);
    CHECK_FALSE(evaluated.why.isEmpty());
  }
}

TEST_CASE_METHOD(HandlingFixture,
                 "Every handle of every card changes its value, the core, the ghost and the file") {
  walk();
  for (const CardSpec& spec : card_specs()) {
    Card* card = cards.card(spec.id);
    cards.bring_up(spec.id);
    QCoreApplication::processEvents();
    for (DrawingView* drawing : card->drawings()) {
      for (std::size_t i = 0; i < drawing->handles().size(); ++i) {
        const Handle handle = drawing->handles()[i];
        INFO(spec.id << ": " << handle.name.toStdString());
        const Profile before = session.profile();
        const QPointF inward = QPointF(drawing->rect().center()) - drawing->place_of(i);
        drag(drawing, i, QPointF(inward.x() > 0 ? 14 : -14, inward.y() > 0 ? 9 : -9));
        const auto changed = differences(before, session.profile());
        if (changed.empty()) {
          // Only what is at rest at its end may stay: an air response that never slows down.
          CHECK(handle.name == "stop");
          continue;
        }
        CHECK(handling.attended().toStdString() == handle.path);
        const bool named =
            std::any_of(changed.begin(), changed.end(), [&](const auto& d) { return d.path == handle.path; });
        CHECK((named || handle.path == "gravity"));
        CHECK(desk.current_ghost());
        CHECK_FALSE(handling.is_saved());
        CHECK(handling.save());
        CHECK(differences(*read_profile(otter.toStdString()), session.profile()).empty());
        // As one would write it: 1.9, and not 1.9000000000000001.
        CHECK_FALSE(QString::fromStdString(on_disk()).contains(QRegularExpression("[0-9.]{11}")));
        undo();  // A drag is one change.
        CHECK(differences(before, session.profile()).empty());
        CHECK_FALSE(desk.current_ghost());
      }
    }
  }
}

TEST_CASE_METHOD(HandlingFixture,
                 "The arrow keys move the chosen handle, and a double click adds a point to a curve") {
  DrawingView* steps = cards.card("steps")->drawings()[0];
  steps->setFocus(Qt::TabFocusReason);
  QTest::keyClick(steps, Qt::Key_Up);
  const double once = session.profile().ground.highest_step;
  CHECK(once > 0.34);
  QTest::keyClick(steps, Qt::Key_Up, Qt::ShiftModifier);
  CHECK(session.profile().ground.highest_step - once > 4.0 * (once - 0.34));
  QTest::keyClick(steps, Qt::Key_Space);
  QTest::keyClick(steps, Qt::Key_Right);
  CHECK(session.profile().ground.shortest_tread > 0.1);

  DrawingView* walls = cards.card("walls")->drawings()[0];
  cards.bring_up("walls");
  const int count = session.profile().walls.kept.count;
  const QPointF between = 0.5 * (walls->place_of(1) + walls->place_of(2)) + QPointF(0, -14);
  QTest::mouseDClick(walls, Qt::LeftButton, Qt::NoModifier, between.toPoint());
  REQUIRE(session.profile().walls.kept.count == count + 1);
  for (int i = 1; i <= count; ++i)
    CHECK(session.profile().walls.kept.points[i - 1].x < session.profile().walls.kept.points[i].x);
  QTest::mouseClick(walls, Qt::LeftButton, Qt::NoModifier, walls->place_of(2).toPoint());
  QTest::keyClick(walls, Qt::Key_Delete);
  CHECK(session.profile().walls.kept.count == count);
}

TEST_CASE_METHOD(HandlingFixture,
                 "Values are typed as arithmetic, nudged, dragged on their scale, reset and pasted") {
  type("ground.highest_step", "2*0.14");
  CHECK(session.profile().ground.highest_step == Approx(0.28));
  CHECK(field("ground.highest_step")->text() == "0.28 m");
  type("ground.highest_step", "v+0.02");
  CHECK(session.profile().ground.highest_step == Approx(0.30));
  QTest::keyClick(field("ground.highest_step"), Qt::Key_Up);
  CHECK(session.profile().ground.highest_step == Approx(0.32));
  QTest::keyClick(field("ground.highest_step"), Qt::Key_Down, Qt::ControlModifier);
  CHECK(session.profile().ground.highest_step == Approx(0.318));
  QTest::keyClick(field("ground.highest_step"), Qt::Key_Delete, Qt::ControlModifier);
  CHECK(session.profile().ground.highest_step == 0.34);

  type("ground.speed", "9 m/s");
  QTest::keyClick(field("ground.speed"), Qt::Key_Backspace, Qt::ControlModifier);
  CHECK(session.profile().ground.speed == 4.0);
  type("ground.speed", "quick");
  CHECK(window.messages().text().contains("quick"));
  CHECK(session.profile().ground.speed == 4.0);
  type("ground.speed", "-3");
  CHECK(window.messages().text().contains("out of range"));
  CHECK(field("ground.speed")->text() == "4 m/s");

  auto* strip = field("ground.speed")->parentWidget()->findChild<ScaleStrip*>();
  REQUIRE(strip != nullptr);
  QTest::mousePress(strip, Qt::LeftButton, Qt::NoModifier, QPoint(strip->width() * 3 / 4, 6));
  CHECK(session.profile().ground.speed > 6.0);
  QMouseEvent move(QEvent::MouseMove, QPointF(strip->width() * 0.3, 6.0),
                   strip->mapToGlobal(QPointF(strip->width() * 0.3, 6.0)), Qt::NoButton, Qt::LeftButton,
                   Qt::NoModifier);
  QCoreApplication::sendEvent(strip, &move);
  CHECK(session.profile().ground.speed < 4.0);
  QTest::mouseRelease(strip, Qt::LeftButton, Qt::NoModifier, QPoint(strip->width() / 3, 6));
  undo();
  CHECK(session.profile().ground.speed == 4.0);

  auto* model = window.findChild<QComboBox*>("ground.response.model");
  CHECK_FALSE(field("ground.response.acceleration")->isVisibleTo(&cards));
  model->setCurrentText("steady");
  CHECK(session.profile().ground.response.model == Response::Model::Steady);
  CHECK(field("ground.response.acceleration")->isVisibleTo(&cards));
  CHECK_FALSE(field("ground.response.time")->isVisibleTo(&cards));
}

TEST_CASE_METHOD(HandlingFixture, "Two of the four of a jump are locked, and the others follow") {
  const auto value = [&](JumpValue v) { return jump_value(session.profile(), v); };
  type("jump time to apex", "0.5");  // Height is locked first, so it stays.
  CHECK(value(JumpValue::TimeToApex) == Approx(0.5));
  CHECK(value(JumpValue::Height) == Approx(1.2));
  CHECK(value(JumpValue::Gravity) == Approx(2.0 * 1.2 / 0.25));
  type("jump.height", "2");  // And with gravity locked, a change of height keeps that.
  CHECK(value(JumpValue::Gravity) == Approx(9.6));
  cards.bring_up("jump");
  QCoreApplication::processEvents();
  QList<QAbstractButton*> locks;
  for (auto* button : cards.card("jump")->findChildren<QAbstractButton*>("lock")) locks.append(button);
  REQUIRE(locks.size() == 4);
  for (QAbstractButton* button : locks) {
    if (button->accessibleName().contains("time")) QTest::mouseClick(button, Qt::LeftButton);
  }
  CHECK(std::count_if(locks.begin(), locks.end(), [](const auto* b) { return b->isChecked(); }) == 2);
  const double time = value(JumpValue::TimeToApex);
  type("jump take-off speed", "v*1.2");
  CHECK(value(JumpValue::Gravity) == Approx(9.6));  // Locked first of the two that are left.
  type("jump.height", "v*1.5");
  CHECK(value(JumpValue::Height) > 2.0);
  CHECK(time > 0.0);
}

TEST_CASE_METHOD(HandlingFixture, "The heights of air jumps are set one by one") {
  type("jump.air_jumps", "2");
  type("air jump 2 height", "0.6");
  CHECK(jump_height(session.profile(), 1) == Approx(1.2));
  CHECK(jump_height(session.profile(), 2) == Approx(0.6));
  QTest::keyClick(field("jump.air_jumps"), Qt::Key_Down);
  CHECK(session.profile().jump.air_jumps == 1);
  type("jump.air_jumps", "1.5");
  CHECK(window.messages().text().contains("whole number"));
}

TEST_CASE_METHOD(HandlingFixture, "An extreme is felt for as long as the key is held, also while driving") {
  type("jump.height", "1");
  const int changes = window.undo().count();
  ValueField* height = field("jump.height");
  height->setFocus();
  QTest::keyPress(height, Qt::Key_PageUp);
  CHECK(session.profile().jump.height == Approx(3.0));
  CHECK(handling.now().jump.height == 1.0);
  QTest::keyRelease(height, Qt::Key_PageUp);
  CHECK(session.profile().jump.height == 1.0);
  QTest::keyPress(height, Qt::Key_PageDown);
  CHECK(session.profile().jump.height == Approx(1.0 / 3.0));
  window.page().findChild<QComboBox*>("tickRate")->setFocus();  // Losing the focus lets go.
  CHECK(session.profile().jump.height == 1.0);
  drive();
  QTest::keyPress(&view, Qt::Key_E);
  CHECK(session.profile().jump.height == Approx(3.0));
  QTest::keyRelease(&view, Qt::Key_E);
  CHECK(session.profile().jump.height == 1.0);
  QTest::keyPress(&view, Qt::Key_Q);
  QTest::keyClick(&view, Qt::Key_Escape);  // Leaving too.
  CHECK(session.profile().jump.height == 1.0);
  CHECK(window.undo().count() == changes);
  handling.attend("capsule.height");
  handling.feel(1.0 / 3.0);
  CHECK_FALSE(handling.feeling());
  CHECK(window.messages().text().contains("the eyes must not be above"));
}

TEST_CASE_METHOD(HandlingFixture, "Cards are searched by name and meaning, folded, and torn off and put back") {
  trigger(Act::FindValue);
  auto* search = window.findChild<QLineEdit*>("cardSearch");
  REQUIRE(search->hasFocus());
  QTest::keyClicks(search, "coyote");
  CHECK(cards.card("jump")->isVisibleTo(&cards));
  CHECK_FALSE(cards.card("walk")->isVisibleTo(&cards));
  CHECK(field("jump.coyote_time")->isVisibleTo(&cards));
  CHECK_FALSE(field("jump.buffer")->isVisibleTo(&cards));
  search->setText("third-person");
  CHECK(field("camera.lag")->isVisibleTo(&cards));
  search->clear();
  CHECK(field("jump.buffer")->isVisibleTo(&cards));

  Card* jump = cards.card("jump");
  jump->set_folded(true);
  CHECK_FALSE(field("jump.buffer")->isVisibleTo(&cards));
  emit jump->tear_off_asked();
  CHECK(jump->window() != &window);
  CHECK(jump->window()->isVisible());
  CHECK(field("jump.buffer")->isVisibleTo(jump));
  type("jump.buffer", "0.2");
  CHECK(session.profile().jump.buffer == 0.2);
  jump->window()->close();
  CHECK(jump->window() == &window);
  CHECK(jump->isVisibleTo(&cards));
}

TEST_CASE_METHOD(HandlingFixture,
                 "What differs is marked, saved as one line, and told from another reference") {
  auto* save = window.findChild<QPushButton*>("saveProfile");
  CHECK_FALSE(save->isEnabled());
  type("ground.highest_step", "0.4");
  CHECK(save->isEnabled());
  const auto row = [&](const std::string& path) -> const ValueRow* {
    for (const CardSpec& spec : card_specs()) {
      for (const ValueRow* r : cards.card(spec.id)->rows()) {
        if (r->path() == path) return r;
      }
    }
    return nullptr;
  };
  CHECK(row("ground.highest_step")->differs());
  CHECK_FALSE(row("ground.speed")->differs());
  QTest::mouseClick(save, Qt::LeftButton);
  std::string expected = kOtter;
  expected.replace(expected.find("0.34"), 4, "0.4");
  CHECK(on_disk() == expected);
  CHECK(handling.is_saved());
  CHECK_FALSE(row("ground.highest_step")->differs());

  chosen_file = kSource + "/profiles/heron.profile.json";
  trigger(Act::ChooseReference);
  CHECK(row("ground.speed")->differs());
  CHECK_FALSE(row("ground.highest_step")->differs());
  trigger(Act::SavedAsReference);
  CHECK_FALSE(row("ground.speed")->differs());

  handling.set_note("jump.height", "clears the sill");
  CHECK_FALSE(handling.is_saved());
  trigger(Act::SaveProfile);
  CHECK(read_profile(otter.toStdString())->notes.at("jump.height") == "clears the sill");
}

TEST_CASE_METHOD(HandlingFixture,
                 "A file that changes on the disk is taken over, but for what was changed here") {
  type("jump.height", "1.7");
  std::string text = kOtter;
  text.replace(text.find("4.0"), 3, "5.5");
  file("otter.profile.json", text);
  REQUIRE(wait_for([&] { return session.profile().ground.speed == 5.5; }));
  CHECK(session.profile().jump.height == 1.7);
  CHECK(handling.unsaved().size() == 1);
  CHECK(window.messages().text().contains("1 value was"));
  file("otter.profile.json", "{\"lagniappe\": \"profile\", ");
  REQUIRE(wait_for([&] { return window.messages().text().contains("cut off"); }));
  CHECK(session.profile().ground.speed == 5.5);
  // What is broken there is not written over.
  CHECK_FALSE(handling.save());
  CHECK(on_disk() == "{\"lagniappe\": \"profile\", ");
  // Put in place by another program, atomically, it is still followed.
  text.replace(text.find("5.5"), 3, "6.5");
  REQUIRE(write_file(otter.toStdString(), text));
  REQUIRE(wait_for([&] { return session.profile().ground.speed == 6.5; }));
  undo();
  CHECK(session.profile().ground.speed == 5.5);
}

TEST_CASE_METHOD(HandlingFixture, "Snapshots go back, and outlive the program") {
  type("jump.height", "1.7");
  REQUIRE(handling.snapshots().size() >= 1);  // Before the first change.
  handling.keep_snapshot("springy");
  type("jump.height", "0.5");
  handling.go_back_to(0);
  CHECK(session.profile().jump.height == 1.7);
  CHECK(session.profile().name == "Otter");
  handling.go_back_to(handling.snapshots().size() - 1);
  CHECK(session.profile().jump.height == 1.2);
  undo();
  CHECK(session.profile().jump.height == 1.7);
  const std::size_t count = handling.snapshots().size();
  handling.wait();
  DriveSession other_session;
  Undo other_undo;
  TakeDesk other_desk(other_session, other_undo, folder.filePath("other"));
  HandlingDesk other(other_desk, other_session, other_undo, folder.filePath("study"));
  CHECK(other.snapshots().size() >= count);
  CHECK(std::any_of(other.snapshots().begin(), other.snapshots().end(), [](const Snapshot& s) {
    return s.name.startsWith("springy") && s.profile.jump.height == 1.7;
  }));
}

TEST_CASE_METHOD(HandlingFixture,
                 "Values that were not saved are there again after the program ended, and not before") {
  type("jump.height", "1.7");
  const auto kept = [](const QString& study) {
    return QDir(study + "/snapshots").entryInfoList({"unsaved-*.profile.json"}, QDir::Files);
  };
  REQUIRE(wait_for([&] { return kept(folder.filePath("study")).size() == 1; }));
  const auto unsaved_in = [&](const QString& study) {
    DriveSession other_session;
    Undo other_undo;
    TakeDesk other_desk(other_session, other_undo, folder.filePath("other"));
    const HandlingDesk other(other_desk, other_session, other_undo, study);
    std::vector<double> heights;
    for (const Snapshot& s : other.snapshots())
      if (s.name.contains("not saved")) heights.push_back(s.profile.jump.height);
    CHECK(other.left_unsaved() == !heights.empty());
    return heights;
  };
  // A second window on the same study leaves the first one's alone.
  CHECK(unsaved_in(folder.filePath("study")).empty());
  CHECK(kept(folder.filePath("study")).size() == 1);
  // The same without its owner: as after a crash.
  QDir().mkpath(folder.filePath("crashed/snapshots"));
  REQUIRE(QFile::copy(kept(folder.filePath("study")).front().filePath(),
                      folder.filePath("crashed/snapshots/unsaved-1-0.profile.json")));
  CHECK(unsaved_in(folder.filePath("crashed")) == std::vector<double>{1.7});
  CHECK(kept(folder.filePath("crashed")).isEmpty());
}

TEST_CASE_METHOD(HandlingFixture, "Two profiles are compared as a table and in drawings, and driven between") {
  trigger(Act::CompareProfiles);
  ComparePane* compare = window.profiles().compare();
  const Profile heron = *read_profile((kSource + "/profiles/heron.profile.json").toStdString());
  compare->add("Heron", heron);
  const Profile otter_profile = session.profile();
  auto* table = compare->findChild<QTableWidget*>();
  REQUIRE(table->rowCount() == int(differences(otter_profile, heron).size()));
  for (int i = 0; i < table->rowCount(); ++i) CHECK(table->item(i, 1)->text() != table->item(i, 2)->text());
  drive();
  auto* slider = compare->findChild<QSlider*>("blend");
  slider->setValue(50);
  CHECK(session.profile().jump.height == Approx(0.5 * (1.2 + 1.9)));
  CHECK(view.driving());
  slider->setValue(100);
  CHECK(differences(session.profile(), heron).empty());
  CHECK(session.profile().name == "Otter");
  slider->setValue(0);
  CHECK(differences(session.profile(), otter_profile).empty());
}

TEST_CASE_METHOD(HandlingFixture,
                 "Comparing is beside the view, names both, and asks whether a blend is kept") {
  const Profile before = session.profile();
  const auto opened = [&] {
    QTest::keyClick(&window, Qt::Key_J, Qt::ControlModifier);
    ComparePane* compare = window.findChild<ComparePane*>();
    REQUIRE(compare != nullptr);
    compare->add("Heron", *read_profile((kSource + "/profiles/heron.profile.json").toStdString()));
    return compare;
  };
  const auto button = [&](const char* text) {
    for (QPushButton* b : window.findChild<ComparePane*>()->findChildren<QPushButton*>())
      if (b->text() == text) return b;
    return static_cast<QPushButton*>(nullptr);
  };
  const auto gone = [&] { return window.findChild<ComparePane*>() == nullptr; };
  window.activateWindow();
  ComparePane* compare = opened();
  CHECK(compare->isVisible());
  CHECK(view.isVisible());
  auto* table = compare->findChild<QTableWidget*>();
  CHECK(table->horizontalHeaderItem(1)->text() == "Otter, before blending");
  CHECK(table->horizontalHeaderItem(2)->text() == "Heron");
  // Nothing was blended: Esc closes it.
  QTest::keyClick(compare, Qt::Key_Escape);
  REQUIRE(wait_for(gone));
  CHECK(window.undo().can_undo() == false);
  // A blend: Esc asks, Esc goes on, and it can be put back or kept.
  compare = opened();
  auto* slider = compare->findChild<QSlider*>("blend");
  slider->setFocus();
  for (int i = 0; i < 40; ++i) QTest::keyClick(slider, Qt::Key_Right);
  REQUIRE(session.profile().jump.height == Approx(1.2 + 0.4 * 0.7));
  QTest::keyClick(slider, Qt::Key_Escape);
  CHECK(button("Keep it")->isVisible());
  QTest::keyClick(slider, Qt::Key_Escape);
  CHECK_FALSE(button("Keep it")->isVisible());
  CHECK_FALSE(gone());
  QTest::keyClick(&window, Qt::Key_J, Qt::ControlModifier);  // Closes, as it opened.
  REQUIRE(button("Put mine back")->isVisible());
  button("Put mine back")->click();
  REQUIRE(wait_for(gone));
  CHECK(differences(session.profile(), before).empty());
  compare = opened();
  compare->findChild<QSlider*>("blend")->setValue(100);
  QTest::keyClick(compare, Qt::Key_Escape);
  button("Keep it")->click();
  REQUIRE(wait_for(gone));
  CHECK(session.profile().jump.height == 1.9);
  CHECK(session.profile().name == "Otter");
}

TEST_CASE_METHOD(HandlingFixture,
                 "Constants are exported, and opening another profile keeps what was not saved") {
  chosen_file = folder.filePath("otter_handling.h");
  trigger(Act::ExportConstants);
  std::ifstream header(chosen_file.toStdString());
  const std::string text{std::istreambuf_iterator<char>(header), {}};
  CHECK_THAT(text, Catch::Contains("jump_height_m = 1.2;"));
  type("jump.height", "1.7");
  open(kSource + "/profiles/heron.profile.json");
  CHECK(session.profile().name == "Heron");
  CHECK(handling.is_saved());
  CHECK(handling.snapshots().front().profile.jump.height == 1.7);
  // Undo stops here: what was done to the other profile is no step back from this one.
  CHECK_FALSE(window.undo().can_undo());
  type("jump.height", "1.5");
  window.undo().undo_once();
  window.undo().undo_once();
  CHECK(session.profile().name == "Heron");
  CHECK(session.profile().jump.height == 1.9);
  CHECK(QFileInfo(handling.file()) == QFileInfo(kSource + "/profiles/heron.profile.json"));
}

TEST_CASE_METHOD(
    HandlingFixture,
    "Ctrl+Z works inside a field, a step for each change as seen; opening a take is none of them") {
  window.activateWindow();
  const auto undo_here = [&](const QString& path) {
    field(path)->setFocus();
    QTest::keyClick(field(path), Qt::Key_Z, Qt::ControlModifier);
  };
  type("jump.height", "1.7");
  QTest::keyClick(field("jump.height"), Qt::Key_Up);  // Two nudges are seen as two.
  QTest::keyClick(field("jump.height"), Qt::Key_Up);
  const double nudged = session.profile().jump.height;
  REQUIRE(nudged > 1.7);
  undo_here("jump.height");
  CHECK(session.profile().jump.height < nudged);
  CHECK(session.profile().jump.height > 1.7);
  undo_here("ground.speed");  // The keyboard is in another field: it undoes what was done, wherever that was.
  CHECK(session.profile().jump.height == 1.7);
  undo_here("jump.height");
  CHECK(session.profile().jump.height == 1.2);
  for (int i = 0; i < 3; ++i) undo_here("jump.height");
  CHECK(session.profile().name == "Otter");
  CHECK(QFileInfo(handling.file()) == QFileInfo(otter));

  // A take that was driven under other values is opened: mine stay, and so does what can be undone of them.
  walk();
  chosen_file = folder.filePath("walk.take");
  trigger(Act::ToStart);
  desk.study().wait();
  REQUIRE(wait_for([&] { return desk.study().entries().size() == 1; }));
  type("jump.height", "1.5");
  const int steps = window.undo().count();
  open(desk.study().entries().front().file);
  CHECK(session.profile().jump.height == 1.5);
  CHECK(window.undo().count() == steps);
  undo_here("jump.height");
  CHECK(session.profile().jump.height == 1.2);
  CHECK(session.shown().file == desk.study().entries().front().file);
  CHECK(QFileInfo(handling.file()) == QFileInfo(otter));
}

TEST_CASE_METHOD(HandlingFixture, "Another file is another profile, and the first keeps its name") {
  chosen_file = folder.filePath("sluice_keeper.profile.json");
  type("jump.height", "1.7");
  trigger(Act::SaveProfileAs);
  CHECK(read_profile(chosen_file.toStdString())->name == "Sluice keeper");
  CHECK(session.profile().name == "Sluice keeper");
  CHECK(handling.is_saved());
  CHECK(on_disk() == kOtter);
  // What it is called is no step of undo: saving again cannot write the old name into the new file.
  undo();
  CHECK(session.profile().jump.height == 1.2);
  CHECK(session.profile().name == "Sluice keeper");
  trigger(Act::SaveProfile);
  CHECK(read_profile(chosen_file.toStdString())->name == "Sluice keeper");
}

TEST_CASE_METHOD(HandlingFixture, "A release in slow motion or pause is not lost: the jump is cut") {
  for (const bool pause : {false, true}) {
    trigger(Act::ToStart);
    drive();
    REQUIRE(wait_for([&] { return session.current().grounded(); }));
    session.set_time_scale(pause ? 1.0 : 0.1);
    QTest::keyPress(&view, Qt::Key_Space);
    REQUIRE(wait_for([&] { return session.current().state == StateId::Rise; }));
    if (pause) window.actions()[Act::Pause]->setChecked(true);
    QTest::keyRelease(&view, Qt::Key_Space);
    CHECK_FALSE(session.current().jump_cut);
    window.actions()[Act::Pause]->setChecked(false);
    session.set_time_scale(1.0);
    REQUIRE(wait_for([&] { return session.current().jump_cut; }));
    REQUIRE(wait_for([&] { return session.current().grounded(); }));
    QTest::keyClick(&view, Qt::Key_Escape);
  }
}

TEST_CASE_METHOD(HandlingFixture, "Losing the focus releases the jump too") {
  drive();
  QTest::keyPress(&view, Qt::Key_Space);
  REQUIRE(wait_for([&] { return session.current().state == StateId::Rise; }));
  window.page().findChild<QComboBox*>("tickRate")->setFocus();
  REQUIRE(wait_for([&] { return session.current().jump_cut; }));
}

TEST_CASE_METHOD(HandlingFixture, "How long a change takes", "[.speed]") {
  walk();
  QElapsedTimer clock;
  clock.start();
  constexpr int kTimes = 100;
  for (int i = 0; i < kTimes; ++i) {
    Profile p = handling.now();
    p.jump.height = 1.0 + 0.01 * i;
    handling.set(p, "height", 7);
  }
  WARN("a change: " << double(clock.nsecsElapsed()) * 1e-6 / kTimes << " ms");
  clock.restart();
  for (int i = 0; i < kTimes; ++i) {
    emit handling.changed();
    QCoreApplication::processEvents();
  }
  WARN("the cards shown: " << double(clock.nsecsElapsed()) * 1e-6 / kTimes << " ms");
}

TEST_CASE_METHOD(HandlingFixture, "What is told about a field goes when the field is right, or by Esc") {
  type("jump.height", "9999999");
  REQUIRE(window.messages().isVisible());
  CHECK(window.messages().text().contains("out of range"));
  type("jump.height", "1.3");
  CHECK_FALSE(window.messages().isVisible());
  CHECK(session.profile().jump.height == 1.3);
  type("jump.height", "1e-320");
  REQUIRE(window.messages().isVisible());
  CHECK(window.messages().text().contains("too small to be meant"));
  CHECK(session.profile().jump.height == 1.3);
  QTest::keyClick(field("jump.height"), Qt::Key_Escape);
  CHECK_FALSE(window.messages().isVisible());
  // Another change does not put away what is told about a file.
  open(file("broken.profile.json", "{"));
  REQUIRE(window.messages().isVisible());
  type("jump.height", "1.4");
  CHECK(window.messages().isVisible());
}

TEST_CASE_METHOD(HandlingFixture, "A comma is a decimal one where the desktop's is, and refused elsewhere") {
  type("jump.height", "1,5");
  if (QLocale::system().decimalPoint() == QString(",")) {
    CHECK(session.profile().jump.height == 1.5);
  } else {
    CHECK(session.profile().jump.height == 1.2);
    CHECK(window.messages().text().contains("decimals come after a point"));
  }
}
