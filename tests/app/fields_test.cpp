// SPDX-License-Identifier: GPL-3.0-or-later
// The Fields page in real windows: the cut dragged, turned and zoomed, fields and zones moved, sized, typed,
// undone and saved, and the take that is run on what one made of the course.
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>

#include "cards/value_field.h"
#include "fields/cut_view.h"
#include "fields/plane_grips.h"
#include "fields/row_card.h"
#include "fields/small_world.h"
#include "fields/strength_plot.h"
#include "lagniappe/files.h"
#include "lagniappe/turns.h"
#include "pages/fields_page.h"
#include "panels/intent_picture.h"
#include "session/carried_round.h"
#include "support/window_fixture.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

// A ball world, another beside it, and a pad on the first.
const char* const kWorlds = R"({
  "lagniappe": "course", "version": 1, "name": "Two worlds", "gravity": "none",
  "pieces": [
    {"id": "ball", "kind": "ball", "at": [0, -6, 0], "radius": 6},
    {"id": "moon", "kind": "ball", "at": [20, -3, 0], "radius": 3}
  ],
  "fields": [
    {"id": "Ball", "kind": "ball", "at": [0, 0, 0], "radius": 6, "reach": 8, "fade": 3},
    {"id": "Moon", "kind": "ball", "at": [20, 0, 0], "radius": 3, "reach": 9, "fade": 3, "combine": "adds"}
  ],
  "marks": [{"id": "start", "at": [0, 6, 0]}],
  "zones": [{"id": "Pad", "shape": {"kind": "box", "size": [2, 0.5, 2]}, "at": [0, 6, -4],
             "effect": {"kind": "launch", "velocity": [0, 6, 0]}}]
}
)";

struct FieldsFixture : WindowFixture {
  FieldsPage& page = window.fields_page();
  CutView& cut = page.cut();
  CourseDesk& desk = window.course();
  QString course = file("worlds.course.json", kWorlds);

  FieldsFixture() {
    open(course);
    QTest::keyClick(&window, Qt::Key_3, Qt::ControlModifier);
    REQUIRE(page.isVisible());
    next_picture();
    REQUIRE(cut.pulls() != nullptr);
  }
  // Square on the course's x and y, through its middle.
  void look_along_z() {
    cut.set_cut({Vec3(8, 0, 0), Vec3(1, 0, 0), Vec3(0, 1, 0), 16.0});
    next_picture();
  }
  void walk() {
    InputChange go;
    go.at = 0.1;
    go.move = Vec2(0.0, 1.0);
    follow_to_rest(InputScript{{go}}, 2.0);
  }
  QPoint pixel(const Vec3& at_C) const { return cut.pixel_of(at_C).toPoint(); }
  void drag(QWidget& widget, const QPoint& from, const QPoint& to) {
    QTest::mousePress(&widget, Qt::LeftButton, Qt::NoModifier, from);
    QTest::mouseMove(&widget, from + (to - from) / 2);
    QTest::mouseMove(&widget, to);
    QTest::mouseRelease(&widget, Qt::LeftButton, Qt::NoModifier, to);
  }
  const CutHandle& handle(CutHandle::Kind kind) {
    handles = cut.handles();
    const auto found =
        std::find_if(handles.begin(), handles.end(), [&](const CutHandle& h) { return h.kind == kind; });
    REQUIRE(found != handles.end());
    return *found;
  }
  std::vector<CutHandle> handles;
  const Field& field(std::size_t n) const { return desk.course()->fields[n]; }
  template <typename Widget>
  Widget& in_card(const QString& name) {
    QCoreApplication::processEvents();  // A form comes to be shown, and the one before it goes, when events
                                        // are.
    for (Widget* widget : page.card().findChildren<Widget*>(name)) {
      if (widget->isVisibleTo(&page.card())) return *widget;
    }
    FAIL("no " << name.toStdString() << " on the card");
    std::abort();
  }
  void type(const QString& name, const QString& text) {
    auto& line = in_card<QLineEdit>(name);
    line.setFocus();
    line.selectAll();
    QTest::keyClick(&line, Qt::Key_Backspace);
    QTest::keyClicks(&line, text);
    QTest::keyClick(&line, Qt::Key_Return);
  }
  std::string saved() const {
    QFile read(course);
    REQUIRE(read.open(QIODevice::ReadOnly));
    return read.readAll().toStdString();
  }
};

}  // namespace

TEST_CASE_METHOD(FieldsFixture,
                 "The cut tells what pulls at the pointer, and the whole course is in it at first") {
  look_along_z();
  CHECK(cut.words_at({0, 7, 0}) == QStringList{"Pull 20.0 m/s\u00b2", "Ball 100 %"});
  CHECK(cut.words_at({0, 40, 0}) == QStringList{"Nothing pulls"});
  const QStringList both = cut.words_at({10, 0, 0});
  REQUIRE(both.size() == 2);
  CHECK_THAT(both[1].toStdString(), Catch::Contains("Moon") && Catch::Contains("Ball"));
  trigger(Act::CutAll);
  for (const Vec3& end : {Vec3(-14, 0, 0), Vec3(32, 0, 0), Vec3(0, 14, 0), Vec3(0, -14, 0)})
    CHECK(QRect(QPoint(), cut.picture_size()).contains(pixel(end)));
}

TEST_CASE_METHOD(FieldsFixture,
                 "The picture is dragged, zoomed at the pointer, pushed and turned by mouse and keys") {
  look_along_z();
  const Cut before = cut.cut();
  const QPoint at(400, 250);
  const Vec3 under = before.point(at, cut.picture_size());
  drag(cut, at, at + QPoint(48, -32));
  CHECK(length(cut.cut().point(at + QPoint(48, -32), cut.picture_size()) - under) < 1e-6);
  CHECK(cut.chosen() == RowChoice{CourseList::Fields, 0});  // A drag chooses nothing.
  look_along_z();
  QWheelEvent wheel(QPointF(at), cut.mapToGlobal(QPointF(at)), QPoint(), QPoint(0, 240), Qt::NoButton,
                    Qt::NoModifier, Qt::NoScrollPhase, false);
  QCoreApplication::sendEvent(&cut, &wheel);
  CHECK(cut.cut().pixels > 1.4 * before.pixels);
  CHECK(length(cut.cut().point(at, cut.picture_size()) - under) < 1e-6);
  look_along_z();
  QTest::keyClick(&cut, Qt::Key_PageUp);
  CHECK(cut.cut().middle_C.z == Approx(-0.5));
  look_along_z();
  for (int i = 0; i < 18; ++i) QTest::keyClick(&cut, Qt::Key_Right, Qt::ShiftModifier);
  CHECK(std::abs(cut.cut().across_C.x) < 1e-9);  // A quarter round.
  CHECK(std::abs(dot(cut.cut().across_C, cut.cut().up_C)) < 1e-12);
  QTest::mousePress(&cut, Qt::RightButton, Qt::NoModifier, at);
  QTest::mouseMove(&cut, at + QPoint(60, 0));
  QTest::mouseRelease(&cut, Qt::RightButton, Qt::NoModifier, at + QPoint(60, 0));
  CHECK(std::abs(cut.cut().across_C.x) > 0.3);
}

TEST_CASE_METHOD(FieldsFixture, "H cuts through the character, along its up and where it faces") {
  walk();
  cut.set_cut({Vec3(0.0), Vec3(0, 0, 1), Vec3(1, 0, 0), 16.0});
  QTest::keyClick(&cut, Qt::Key_H);
  const CharacterState& state = session.current();
  CHECK(length(cut.cut().up_C - state.up_C()) < 1e-6);
  CHECK(std::abs(cut.cut().off(state.foot_C)) < 1e-6);
  CHECK(std::abs(dot(cut.cut().across_C, state.up_C())) < 1e-9);
}

TEST_CASE_METHOD(FieldsFixture, "A field is moved by its middle; the take is run again, and undo has it back") {
  look_along_z();
  walk();
  QTest::mouseClick(&cut, Qt::LeftButton, Qt::NoModifier, pixel({21, 1, 0}));
  REQUIRE(cut.chosen() == RowChoice{CourseList::Fields, 1});
  const QPoint middle = pixel({20, 0, 0});
  drag(cut, middle, middle + QPoint(-64, 32));
  CHECK(field(1).at_C.x == Approx(16.0).margin(0.11));
  CHECK(field(1).at_C.y == Approx(-2.0).margin(0.11));
  CHECK(field(1).at_C.z == 0.0);
  CHECK(field(0).at_C == Vec3(0.0));
  REQUIRE(wait_for([&] { return desk.edited_place() != nullptr; }));
  CHECK_FALSE(desk.is_saved());
  window.undo().undo_once();  // The whole drag at once.
  CHECK(field(1).at_C == Vec3(20, 0, 0));
  CHECK(desk.is_saved());
  window.undo().redo_once();
  CHECK(field(1).at_C.x == Approx(16.0).margin(0.11));
}

TEST_CASE_METHOD(FieldsFixture, "Reach, fade and radius are dragged by their handles") {
  look_along_z();
  cut.choose(RowChoice{CourseList::Fields, 0});
  const QPoint reach = pixel(handle(CutHandle::Kind::Reach).at_C);
  CHECK(length(handle(CutHandle::Kind::Reach).at_C - Vec3(14, 0, 0)) < 1e-6);
  drag(cut, reach, reach + QPoint(-32, 0));
  CHECK(*field(0).reach == Approx(6.0).margin(0.11));
  const QPoint fade = pixel(handle(CutHandle::Kind::Fade).at_C);
  drag(cut, fade, pixel({11.0, 0, 0}));
  CHECK(field(0).fade == Approx(1.0).margin(0.15));
  const QPoint radius = pixel(handle(CutHandle::Kind::Size).at_C);
  drag(cut, radius, radius + QPoint(-16, 0));
  CHECK(std::get<field::Ball>(field(0).shape).radius == Approx(7.0).margin(0.11));
}

TEST_CASE_METHOD(FieldsFixture,
                 "What is typed on the card is the field's; what cannot be is told and changes nothing") {
  cut.choose(RowChoice{CourseList::Fields, 0});
  type("Strength", "0.5");
  CHECK(field(0).strength == 0.5);
  type("Name", "Great");
  CHECK(field(0).id == "Great");
  type("Radius", "-4");
  CHECK(std::get<field::Ball>(field(0).shape).radius == 6.0);
  CHECK(window.messages().isVisible());
  CHECK(in_card<QLineEdit>("Radius").text().startsWith("6"));
  type("Reach", "");
  CHECK_FALSE(field(0).reach.has_value());
  auto& kind = in_card<QComboBox>("Kind");
  kind.setCurrentIndex(2);
  emit kind.activated(2);
  REQUIRE(std::holds_alternative<field::Pill>(field(0).shape));
  CHECK(std::get<field::Pill>(field(0).shape).radius == 6.0);  // What both have stays.
  type("Length", "5");
  CHECK(std::get<field::Pill>(field(0).shape).length == 5.0);
  for (int i = 0; i < 5; ++i) window.undo().undo_once();
  CHECK(desk.is_saved());
}

TEST_CASE_METHOD(FieldsFixture,
                 "Every kind of field, shape and effect of a zone can be chosen, and gone back from") {
  cut.choose(RowChoice{CourseList::Fields, 0});
  const int kinds = in_card<QComboBox>("Kind").count();
  REQUIRE(kinds == 6);
  for (int i = 0; i < kinds; ++i) {
    emit in_card<QComboBox>("Kind").activated(i);
    CHECK(int(field(0).shape.index()) == i);
  }
  cut.choose(RowChoice{CourseList::Zones, 0});
  for (int i = 0; i < 4; ++i) {
    emit in_card<QComboBox>("Shape").activated(i);
    CHECK(int(desk.course()->zones[0].shape.index()) == i);
  }
  // Those that need a name of something are refused, and say so, until it is there.
  const int effects = in_card<QComboBox>("Effect").count();
  REQUIRE(effects == int(std::variant_size_v<ZoneEffect>));
  int changed = 0;
  for (int i = 0; i < effects; ++i) {
    emit in_card<QComboBox>("Effect").activated(i);
    const bool taken = int(desk.course()->zones[0].effect.index()) == i;
    changed += taken;
    if (!taken) CHECK(window.messages().isVisible());
  }
  CHECK(changed >= 6);
}

TEST_CASE_METHOD(FieldsFixture,
                 "Fields and zones are added, copied and removed, and saved into the file alone") {
  look_along_z();
  trigger(Act::AddField);
  REQUIRE(desk.course()->fields.size() == 3);
  CHECK(cut.chosen() == RowChoice{CourseList::Fields, 2});
  CHECK(field(2).at_C == Vec3(8, 0, 0));
  trigger(Act::CopyRow);
  REQUIRE(desk.course()->fields.size() == 4);
  CHECK(field(3).id != field(2).id);
  trigger(Act::RemoveRow);
  CHECK(desk.course()->fields.size() == 3);
  trigger(Act::AddZone);
  REQUIRE(desk.course()->zones.size() == 2);
  CHECK(saved() == kWorlds);
  trigger(Act::SaveCourse);
  CHECK(desk.is_saved());
  const auto read = read_course(course.toStdString());
  REQUIRE(read);
  CHECK(read->fields.size() == 3);
  CHECK(read->zones.size() == 2);
  CHECK_THAT(saved(), Catch::StartsWith(std::string(kWorlds).substr(0, 400)));
}

TEST_CASE_METHOD(FieldsFixture, "Who drives on drives on the course as it was made") {
  cut.choose(RowChoice{CourseList::Fields, 0});
  type("Strength", "0.25");
  walk();
  REQUIRE(wait_for(
      [&] { return session.place()->course.fields[0].strength == 0.25 || desk.edited_place() != nullptr; }));
  drive();
  CHECK(session.place()->course.fields[0].strength == 0.25);
  session.advance(0.2);
  CHECK(length(Vec3(session.current().pull_C)) == Approx(5.0).margin(0.05));
  view.set_driving(false);
  CHECK_FALSE(desk.is_saved());
  CHECK(field(0).strength == 0.25);
}

TEST_CASE_METHOD(FieldsFixture, "What is not saved is there again after another course was shown") {
  cut.choose(RowChoice{CourseList::Fields, 0});
  type("Strength", "0.25");
  open(kDemo);
  REQUIRE(wait_for([&] { return desk.path() == kDemo.toStdString(); }));
  CHECK(desk.unsaved() == QStringList{"worlds.course.json"});
  open(course);
  REQUIRE(wait_for([&] { return desk.path() == course.toStdString(); }));
  CHECK(field(0).strength == 0.25);
  CHECK_FALSE(desk.is_saved());
}

TEST_CASE_METHOD(
    FieldsFixture,
    "Strength over distance: both worlds and their sum, where they are alike, and a curve's points") {
  look_along_z();
  cut.set_line({6, 0, 0}, {17, 0, 0});
  next_picture();
  CHECK(page.plot().graphCount() == 3);
  CHECK_THAT(page.plot().remark().toStdString(), Catch::Contains("both"));
  const QPoint from = pixel({6, 0, 0});
  drag(cut, from, from + QPoint(16, 0));
  CHECK(cut.from_C().x == Approx(7.0).margin(0.1));
  cut.choose(RowChoice{CourseList::Fields, 0});
  auto& plotted = *page.findChild<QComboBox*>("plotted");
  plotted.setCurrentIndex(1);
  emit plotted.activated(1);
  CHECK(page.plot().curve_points() == 0);
  const QPoint middle = page.plot().axisRect()->rect().center();
  QTest::mouseDClick(&page.plot(), Qt::LeftButton, Qt::NoModifier, middle);
  REQUIRE(field(0).falloff == Field::Falloff::Curve);
  const int points = field(0).curve.count;
  REQUIRE(page.plot().curve_points() == points);
  const QPoint last = page.plot().pixel_of_point(points - 1).toPoint();
  drag(page.plot(), last, last + QPoint(0, 40));
  CHECK(field(0).curve.points[points - 1].y < 0.9);
  CHECK(field(0).curve.count == points);
}

TEST_CASE_METHOD(FieldsFixture, "The points of a falloff are chosen, moved, added and taken away by keys") {
  cut.choose(RowChoice{CourseList::Fields, 0});
  auto& plotted = *page.findChild<QComboBox*>("plotted");
  plotted.setCurrentIndex(1);
  emit plotted.activated(1);
  StrengthPlot& plot = page.plot();
  plot.setFocus(Qt::TabFocusReason);
  REQUIRE(plot.hasFocus());
  QTest::keyClick(&plot, Qt::Key_Insert);
  REQUIRE(field(0).falloff == Field::Falloff::Curve);
  const Curve made = field(0).curve;
  QTest::keyClick(&plot, Qt::Key_Space);  // From the first to the second.
  QTest::keyClick(&plot, Qt::Key_Down);
  QTest::keyClick(&plot, Qt::Key_Down, Qt::ShiftModifier);
  QTest::keyClick(&plot, Qt::Key_Right);
  CHECK(field(0).curve.points[1].y == Approx(made.points[1].y - 0.11).margin(0.006));
  CHECK(field(0).curve.points[1].x == Approx(made.points[1].x + 0.1).margin(0.006));
  CHECK(field(0).curve.points[0] == made.points[0]);
  // Not beyond its neighbour.
  for (int i = 0; i < 5; ++i) QTest::keyClick(&plot, Qt::Key_Left, Qt::ShiftModifier);
  CHECK(field(0).curve.points[1].x == Approx(made.points[0].x + 0.01));
  QTest::keyClick(&plot, Qt::Key_Insert);
  REQUIRE(field(0).curve.count == made.count + 1);
  CHECK(field(0).curve.points[2].x > field(0).curve.points[1].x);
  CHECK(field(0).curve.points[2].x < field(0).curve.points[3].x);
  QTest::keyClick(&plot, Qt::Key_Delete);
  QTest::keyClick(&plot, Qt::Key_Delete);
  CHECK(field(0).curve.count == made.count - 1);
  window.actions()[Act::Undo]->trigger();
  CHECK(field(0).curve.count == made.count);
}

TEST_CASE_METHOD(FieldsFixture, "From the stick to the ground: numbers of the playhead's tick, on both pages") {
  InputChange aslant;
  aslant.at = 0.1;
  aslant.move = Vec2(1.0, 1.0);
  follow_to_rest(InputScript{{aslant}}, 1.0);
  session.set_playhead(30);
  const auto facts = intent_facts(session);
  REQUIRE(facts);
  CHECK(facts->unlimited() == Approx(std::sqrt(2.0)));
  CHECK(length(facts->stick) == Approx(1.0));
  CHECK(length(facts->laid_C) == Approx(1.0));
  CHECK(dot(facts->laid_C, facts->up_C) == Approx(0.0).margin(1e-9));
  // The look is level here: all methods agree, and with what the tick asked for.
  REQUIRE(facts->projected_C);
  REQUIRE(facts->crossed_C);
  CHECK(length(*facts->projected_C - facts->laid_C) < 0.02);
  CHECK(length(*facts->crossed_C - facts->laid_C) < 0.02);
  REQUIRE(facts->asked_C);
  CHECK(length(glm::normalize(*facts->asked_C) - facts->laid_C) < 0.05);
  REQUIRE(facts->normal_C);
  CHECK(length(facts->on_slope_C()) <= 1.0 + 1e-9);
  auto& plotted = *page.findChild<QComboBox*>("plotted");
  plotted.setCurrentIndex(2);
  emit plotted.activated(2);
  auto* here = page.findChild<IntentPicture*>();
  REQUIRE(here != nullptr);
  REQUIRE(wait_for([&] { return here->isVisible(); }));
  CHECK_THAT(here->lines().join("\n").toStdString(),
             Catch::Contains("1.41 long") && Catch::Contains("41 % faster"));
  window.actions()[Act::DrivePage]->trigger();
  QTest::keyClick(&window, Qt::Key_I, Qt::ControlModifier);
  auto* beside = window.page().findChild<IntentPicture*>();
  REQUIRE(beside != nullptr);
  REQUIRE(wait_for([&] { return beside->isVisible(); }));
  CHECK(beside->lines() == here->lines());
  session.set_playhead(0);
  REQUIRE(wait_for([&] {
    next_picture();
    return beside->lines().size() == 1;
  }));
  QTest::keyClick(&window, Qt::Key_I, Qt::ControlModifier);
  REQUIRE(wait_for([&] { return window.page().findChild<IntentPicture*>() == nullptr; }));
}

TEST_CASE("Straight down the eye's axes have no direction on the ground, and the stick still has one") {
  const Vec3 up(0, 1, 0);
  for (const double pitch : {-90.0, 90.0}) {
    const Eye eye = eye_at(Vec3(0.0), Quat(1, 0, 0, 0), {0.0, radians(pitch)});
    const StickAxes axes = stick_axes(eye, up);
    CHECK(length(cross(eye.forward_C, up)) < 1e-6);
    CHECK(length(axes.away_C) == Approx(1.0));
    CHECK(std::abs(dot(axes.away_C, up)) < 1e-9);
  }
}

TEST_CASE_METHOD(FieldsFixture,
                 "The plane of the cut is pushed and turned in the view, where the character stands") {
  session.set_place(session.shared_place());
  cut.cut_through_playhead();
  next_picture();
  PlaneGrips* grips = page.grips();
  REQUIRE(grips != nullptr);
  const Vec3 body = session.current().foot_C + session.current().up_C() * 0.9;
  // Askew to the eye, so that no arm points at it.
  cut.set_cut(turned(cut.cut(), 0.6, 0.4));
  next_picture();
  const Cut before = cut.cut();
  const auto pull = [&](PlaneGrips::Grip grip, const QPoint& by) {
    const auto from = grips->pixel(grip);
    REQUIRE(from);
    drag(view, from->toPoint(), from->toPoint() + by);
    next_picture();
  };
  const auto away = grips->pixel(PlaneGrips::Grip::Push);
  const auto foot = view.pixel_of(body - before.towards_C() * before.off(body));
  REQUIRE((away && foot));
  pull(PlaneGrips::Grip::Push, (*away - *foot).toPoint());
  CHECK(cut.cut().off(before.middle_C) < -0.05);
  CHECK(cut.cut().across_C == before.across_C);
  cut.set_cut(before);
  for (const auto grip : {PlaneGrips::Grip::AboutUp, PlaneGrips::Grip::AboutAcross}) {
    next_picture();
    pull(grip, QPoint(9, -7));
    const Cut after = cut.cut();
    CHECK(angle_between(after.towards_C(), before.towards_C()) > 0.03);
    // The axis stays, and the place that it turns about is where it was in the picture.
    const bool about_up = grip == PlaneGrips::Grip::AboutUp;
    CHECK(angle_between(about_up ? after.up_C : after.across_C, about_up ? before.up_C : before.across_C) <
          1e-9);
    CHECK(QLineF(after.pixel(body, cut.picture_size()), before.pixel(body, cut.picture_size())).length() < 1.0);
    cut.set_cut(before);
  }
  // Beside the grips the mouse is the view's own.
  next_picture();
  drag(view, QPoint(4, 4), QPoint(30, 8));
  CHECK(cut.cut() == before);
}

TEST_CASE_METHOD(FieldsFixture,
                 "Round a closed way that nobody turned on, the page tells what it turned the look by") {
  // From the pole down, along the equator and up again: a quarter of each of three great circles.
  InputScript way;
  const double quarter = 0.5 * kPi * 6.0 / session.profile().ground.speed;
  for (int i = 0; i < 3; ++i) {
    InputChange leg;
    leg.at = 0.5 + i * (quarter + 0.6);
    leg.move = i == 0 ? Vec2(-1, 0) : i == 1 ? Vec2(0, -1) : Vec2(1, 0);
    InputChange stop;
    stop.at = leg.at + quarter;
    stop.move = Vec2(0.0);
    way.changes.push_back(leg);
    way.changes.push_back(stop);
  }
  follow_to_rest(way, way.changes.back().at + 0.5);
  const auto round = carried_round(session);
  REQUIRE(round);
  // A triangle of three right angles on a ball is an eighth of it: it turns by a right angle.
  CHECK(std::abs(degrees(round->angle)) == Approx(90.0).margin(12.0));
  CHECK(round->since < 60);
  session.set_playhead(60);
  CHECK_FALSE(carried_round(session));
}

TEST_CASE_METHOD(FieldsFixture,
                 "Saved as another file a course is opened there, and its own file stays as it was") {
  const std::string before = saved();
  cut.choose(RowChoice{CourseList::Fields, 1});
  type("Strength", "0.5");
  const QString other = folder.filePath("other");
  chosen_file = folder.filePath("no such folder/other");
  trigger(Act::SaveCourseAs);
  CHECK(window.messages().isVisible());
  CHECK_FALSE(desk.is_saved());
  chosen_file = other;
  trigger(Act::SaveCourseAs);
  REQUIRE(wait_for([&] { return desk.path() == (other + ".course.json").toStdString(); }));
  CHECK(saved() == before);
  CHECK(desk.is_saved());
  CHECK(desk.unsaved().isEmpty());
  CHECK(field(1).strength == 0.5);
  const auto read = read_course(desk.path());
  REQUIRE(read);
  CHECK(read->fields[1].strength == 0.5);
  const auto change = [&](const char* strength) {
    next_picture();
    cut.choose(RowChoice{CourseList::Fields, 1});
    type("Strength", strength);
    CHECK(field(1).strength == Approx(QString(strength).toDouble()));
    CHECK_FALSE(desk.is_saved());
  };
  // Over its own file it is saved, and goes on as it is.
  change("0.25");
  const std::uint64_t recording = session.revision();
  chosen_file = other + ".course.json";
  trigger(Act::SaveCourseAs);
  CHECK(desk.is_saved());
  CHECK(read_course(desk.path())->fields[1].strength == 0.25);
  QTest::qWait(50);
  CHECK_FALSE(window.loader().busy());
  CHECK(session.revision() == recording);
  // Over another one whose own changes were kept, these are over.
  change("0.75");
  open(course);
  REQUIRE(wait_for([&] { return desk.path() == course.toStdString(); }));
  CHECK(desk.unsaved() == QStringList{"other.course.json"});
  trigger(Act::SaveCourseAs);
  CHECK(desk.unsaved().isEmpty());
  REQUIRE(wait_for([&] { return desk.path() == (other + ".course.json").toStdString(); }));
  CHECK(field(1).strength != 0.75);
  // Back at the first file nothing of it is left.
  open(course);
  REQUIRE(wait_for([&] { return desk.path() == course.toStdString(); }));
  CHECK(field(1).strength != 0.5);
}

TEST_CASE_METHOD(FieldsFixture, "A course is not saved where what it names is not beside it") {
  open(kDemo);  // It has a model.
  REQUIRE(wait_for([&] { return desk.path() == kDemo.toStdString(); }));
  chosen_file = folder.filePath("lost.course.json");
  trigger(Act::SaveCourseAs);
  CHECK(window.messages().isVisible());
  CHECK_FALSE(QFileInfo::exists(chosen_file));
  CHECK(desk.path() == kDemo.toStdString());
}

TEST_CASE_METHOD(FieldsFixture,
                 "A file that was changed by another hand is followed, and what is changed here is kept") {
  QString other = QString::fromStdString(kWorlds);
  const auto write = [&](const QString& text) {
    QFile out(course);
    REQUIRE(out.open(QIODevice::WriteOnly));
    out.write(text.toUtf8());
  };
  write(other.replace("\"radius\": 6, \"reach\": 8", "\"radius\": 6, \"reach\": 7"));
  REQUIRE(wait_for([&] { return field(0).reach == 7.0; }));
  CHECK(desk.is_saved());
  cut.choose(RowChoice{CourseList::Fields, 1});
  type("Strength", "0.5");
  write(other.replace("\"reach\": 7", "\"reach\": 5"));
  QTest::qWait(1500);
  CHECK(field(1).strength == 0.5);
  CHECK_FALSE(desk.is_saved());
  // What the other hand changed meanwhile is not written over unseen.
  const std::string theirs = saved();
  trigger(Act::SaveCourse);
  CHECK(window.messages().isVisible());
  CHECK(saved() == theirs);
  CHECK_FALSE(desk.is_saved());
  open(course);
  next_picture();  // With the next beat it is taken in.
  CHECK(field(1).strength == 0.5);
  trigger(Act::SaveCourse);
  const auto read = read_course(course.toStdString());
  REQUIRE(read);
  CHECK(read->fields[1].strength == 0.5);
}

TEST_CASE_METHOD(FieldsFixture,
                 "Over a file whose fields are other ones nothing is written, and what is changed stays") {
  cut.choose(RowChoice{CourseList::Fields, 1});
  type("Strength", "0.5");
  // While another course is shown nobody watches the first one's file.
  open(kDemo);
  REQUIRE(wait_for([&] { return desk.path() == kDemo.toStdString(); }));
  QFile out(course);
  REQUIRE(out.open(QIODevice::WriteOnly));
  const QByteArray other =
      QByteArray::fromStdString(kWorlds).replace("\"radius\": 6, \"reach\": 8", "\"radius\": 6, \"reach\": 5");
  out.write(other);
  out.close();
  const auto refused = desk.save_all();
  REQUIRE(!refused);
  CHECK_THAT(refused.error().sentence(), Catch::Contains("open the course first"));
  CHECK(saved() == other.toStdString());
  CHECK(desk.unsaved() == QStringList{"worlds.course.json"});
  open(course);
  REQUIRE(wait_for([&] { return desk.path() == course.toStdString(); }));
  CHECK(field(1).strength == 0.5);
  trigger(Act::SaveCourse);
  CHECK(read_course(course.toStdString())->fields[1].strength == 0.5);
}

TEST_CASE_METHOD(FieldsFixture, "Ended by a signal, a changed course is beside the takes") {
  cut.choose(RowChoice{CourseList::Fields, 1});
  type("Strength", "0.5");
  // Whatever became of the file: nobody can be asked any more. What was rescued before stays.
  QFile out(course);
  REQUIRE(out.open(QIODevice::WriteOnly));
  const QByteArray other =
      QByteArray::fromStdString(kWorlds).replace("\"radius\": 6, \"reach\": 8", "\"radius\": 6, \"reach\": 5");
  out.write(other);
  out.close();
  window.end_by_signal();
  const auto left = read_course(folder.filePath("study/unsaved-worlds.course.json").toStdString());
  REQUIRE(left);
  CHECK(left->fields[1].strength == 0.5);
  CHECK(saved() == other.toStdString());
  window.end_by_signal();
  CHECK(QFileInfo::exists(folder.filePath("study/unsaved-2-worlds.course.json")));
}

TEST_CASE_METHOD(FieldsFixture,
                 "What is typed and not yet entered is of the field that was shown, not of the next one") {
  cut.choose(RowChoice{CourseList::Fields, 0});
  auto& radius = in_card<QLineEdit>("Radius");
  radius.setFocus();
  radius.selectAll();
  QTest::keyClicks(&radius, "7.5");
  trigger(Act::AddField);
  REQUIRE(desk.course()->fields.size() == 3);
  CHECK(std::get<field::Ball>(field(0).shape).radius == 7.5);
  CHECK(std::get<field::Ball>(field(2).shape).radius == 3.0);
  auto& next = in_card<QLineEdit>("Radius");
  next.setFocus();
  next.selectAll();
  QTest::keyClicks(&next, "4");
  QTest::keyClick(&window, Qt::Key_M, Qt::ControlModifier | Qt::AltModifier);
  CHECK(desk.course()->fields.size() == 2);
  CHECK(std::get<field::Ball>(field(0).shape).radius == 7.5);
}

TEST_CASE_METHOD(FieldsFixture,
                 "A drag of a value and one of a field are two steps of undo, however soon after each other") {
  look_along_z();
  HandlingDesk& values = window.handling();
  Profile faster = values.now();
  faster.ground.speed += 1.0;
  const double speed = values.now().ground.speed;
  REQUIRE(values.set(faster, "speed", values.new_gesture()));
  cut.choose(RowChoice{CourseList::Fields, 1});
  const QPoint middle = pixel({20, 0, 0});
  drag(cut, middle, middle + QPoint(-48, 0));
  REQUIRE(field(1).at_C.x < 18.0);
  window.undo().undo_once();
  CHECK(field(1).at_C.x == 20.0);
  CHECK(values.now().ground.speed == speed + 1.0);
  window.undo().undo_once();
  CHECK(values.now().ground.speed == speed);
}

TEST_CASE_METHOD(FieldsFixture,
                 "The tape's keys go for the tape that is shown, and numbers follow the profile") {
  walk();
  next_picture();
  page.tape().show_all();
  const double shown = page.tape().shown_range().size();
  trigger(Act::ZoomIn);
  CHECK(page.tape().shown_range().size() < 0.6 * shown);
  trigger(Act::ShowAll);
  CHECK(page.tape().shown_range().size() == Approx(shown));
  cut.choose(RowChoice{CourseList::Fields, 0});
  const auto tells = [&](const QString& text) {
    const auto labels = page.findChildren<QLabel*>();
    return std::any_of(labels.begin(), labels.end(), [&](const QLabel* l) { return l->text().contains(text); });
  };
  CHECK(tells("= 20.00 m/s\u00b2"));
  Profile lighter = window.handling().now();
  lighter.gravity = 5.0;
  REQUIRE(window.handling().set(lighter, "gravity"));
  CHECK(tells("= 5.00 m/s\u00b2"));
  CHECK(tells(QString("from %1 m/s").arg(std::sqrt(5.0 * 6.0), 0, 'f', 1)));
  cut.choose(std::nullopt);
  next_picture();
  CHECK_FALSE(window.actions()[Act::RemoveRow]->isEnabled());
}

TEST_CASE("A little faster than a world is said to hold one runs off it, a little slower one does not") {
  Course world;
  world.gravity = false;
  world.pieces = {{"ball", {0, -6, 0}, Vec3(0.0), "", shape::Ball{6.0}}};
  Field field;
  field.id = "Ball";
  field.shape = field::Ball{6.0};
  world.fields = {field};
  world.marks = {{"start", {0, 6, 0}}};
  const TriangleWorld built = build_world(world);
  const auto leaves_at = [&](double share) {
    Profile profile;
    const auto figures = small_world(field, profile);
    REQUIRE(figures);
    CHECK(figures->round == Approx(2.0 * kPi * 6.0));
    profile.ground.speed = share * figures->leaving_speed;
    CharacterState state = start_state(profile, start_home(world), built);
    InputFrame forward;
    forward.move = Vec2(0.0, 1.0);
    bool left = false;
    for (int i = 0; i < 360; ++i) {
      state = step(state, forward, profile, built, 1.0 / 60);
      left = left || !state.grounded();
    }
    return left;
  };
  CHECK_FALSE(leaves_at(0.96));
  CHECK(leaves_at(1.04));
}
