// SPDX-License-Identifier: GPL-3.0-or-later
#include <QComboBox>
#include <QDropEvent>
#include <QLineEdit>
#include <QMimeData>

#include "support/window_fixture.h"
#include "viewport/watch_view.h"
#include "widgets/shortcut_sheet.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

TEST_CASE_METHOD(WindowFixture, "The window starts with the demo course and draws it", "[pixels]") {
  REQUIRE(session.place() != nullptr);
  CHECK(session.place()->course.name == "Tidewheel pump works");
  CHECK(window.windowTitle().contains("Tidewheel pump works"));
  const QImage picture = next_picture();
  CHECK(picture.width() > 800);
  std::set<QRgb> colours;
  for (int y = 0; y < picture.height(); y += 7) {
    for (int x = 0; x < picture.width(); x += 7) colours.insert(picture.pixel(x, y));
  }
  CHECK(colours.size() > 40);
  // The sky is above the ground, in both ways of showing a frame.
  CHECK(picture.pixelColor(picture.width() / 2, 4).blueF() >
        picture.pixelColor(picture.width() / 2, picture.height() - 4).blueF());
}

TEST_CASE_METHOD(WindowFixture, "Keys walk the character, in the core and in pixels", "[pixels]") {
  drive();
  REQUIRE(wait_for([&] { return session.current().state == StateId::Stand; }));
  const QImage before = next_picture();
  const Vec3 from = session.current().foot_C;
  QTest::keyPress(&view, Qt::Key_W);
  REQUIRE(wait_for([&] { return session.current().foot_C.z < from.z - 1.5; }));
  CHECK(session.current().state == StateId::Walk);
  QTest::keyPress(&view, Qt::Key_Shift);
  REQUIRE(wait_for([&] { return session.current().state == StateId::Sprint; }));
  QTest::keyRelease(&view, Qt::Key_Shift);
  QTest::keyRelease(&view, Qt::Key_W);
  REQUIRE(wait_for([&] { return session.current().state == StateId::Stand; }));
  CHECK(difference(before, next_picture()) > 0.02);
  QTest::keyClick(&view, Qt::Key_Space);
  REQUIRE(wait_for([&] { return session.current().state == StateId::Rise; }));
  QTest::keyClick(&view, Qt::Key_Up);
  REQUIRE(wait_for([&] { return session.current().grounded(); }));
  QTest::keyClick(&view, Qt::Key_R);
  REQUIRE(wait_for([&] { return session.current().times_put_home == 1; }));
  CHECK(length(session.current().foot_C - from) < 0.01);
}

TEST_CASE_METHOD(WindowFixture, "The mouse turns the look while driving, and Esc gives it back") {
  drive();
  const double yaw = session.look().x;
  move_mouse(QPoint(50, 0));
  const double counts = 50.0 * view.devicePixelRatioF();
  CHECK(degrees(session.look().x - yaw) == Approx(-0.12 * counts).margin(1e-6));
  CHECK(view.cursor().shape() == Qt::BlankCursor);
  QTest::keyClick(&view, Qt::Key_Escape);
  CHECK_FALSE(view.driving());
  CHECK(view.cursor().shape() != Qt::BlankCursor);
}

TEST_CASE_METHOD(WindowFixture, "Losing the focus lets everything go and gives the mouse back") {
  drive();
  QTest::keyPress(&view, Qt::Key_W);
  REQUIRE(wait_for([&] { return session.current().state == StateId::Walk; }));
  window.page().findChild<QComboBox*>("tickRate")->setFocus();
  CHECK_FALSE(view.driving());
  const auto tick = session.current().tick;
  drive();
  REQUIRE(wait_for([&] { return session.current().tick > tick + 30; }));
  CHECK(session.current().state == StateId::Stand);  // W is not held any more.
}

TEST_CASE_METHOD(WindowFixture, "First and third person differ in pixels, and the figure is only seen in third",
                 "[pixels]") {
  REQUIRE(wait_for([&] { return session.resting(); }));  // Nothing moves, and all has its place.
  const QImage third = next_picture();
  window.actions()[Act::FirstPerson]->trigger();
  CHECK(view.first_person());
  CHECK(difference(third, next_picture()) > 0.05);
  window.actions()[Act::FirstPerson]->trigger();
  REQUIRE(wait_for([&] { return difference(third, next_picture()) < 0.02; }));
}

TEST_CASE_METHOD(WindowFixture, "The free camera begins outside the figure's head, by a real drag or a key") {
  window.actions()[Act::FirstPerson]->trigger();
  drive();
  QTest::keyClick(&view, Qt::Key_Escape);
  CHECK(view.camera().mode == CameraMode::FirstPerson);
  const QPoint middle = view.rect().center();
  QTest::mousePress(&view, Qt::LeftButton, Qt::NoModifier, middle);
  QMouseEvent move(QEvent::MouseMove, middle + QPoint(40, 0), view.mapToGlobal(middle + QPoint(40, 0)),
                   Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
  QCoreApplication::sendEvent(&view, &move);
  QTest::mouseRelease(&view, Qt::LeftButton, Qt::NoModifier, middle);
  CHECK(view.camera().mode == CameraMode::Free);
  const Vec3 head = session.current().foot_C + Vec3(0, session.profile().capsule.eye_height, 0);
  const Vec3 before = view.camera().free_eye().at_C;
  CHECK(length(before - head) > 2.0);
  QTest::keyPress(&view, Qt::Key_W);
  REQUIRE(wait_for([&] { return length(view.camera().free_eye().at_C - before) > 0.5; }));
  QTest::keyRelease(&view, Qt::Key_W);
  CHECK(session.current().state == StateId::Stand);  // The keys moved the camera, not the character.
  window.actions()[Act::FirstPerson]->trigger();
  CHECK(view.camera().mode == CameraMode::ThirdPerson);  // And back.
}

TEST_CASE_METHOD(WindowFixture, "Pause stands still, and a single tick is one tick") {
  drive();
  REQUIRE(wait_for([&] { return session.current().tick > 5; }));
  QTest::keyClick(&window, Qt::Key_P);
  REQUIRE(session.paused());
  const auto tick = session.current().tick;
  next_picture();
  CHECK(session.current().tick == tick);
  QTest::keyClick(&window, Qt::Key_Period);
  CHECK(session.current().tick == tick + 1);
  QTest::keyClick(&window, Qt::Key_P);
  REQUIRE(wait_for([&] { return session.current().tick > tick + 10; }));
}

TEST_CASE_METHOD(WindowFixture, "Time scale, tick rate and drawing mode are chosen in the strip and on keys") {
  QTest::keyClick(&window, Qt::Key_BracketLeft);
  CHECK(session.time_scale() == 0.5);
  QTest::keyClick(&window, Qt::Key_BracketRight);
  CHECK(session.time_scale() == 1.0);
  auto* rates = window.page().findChild<QComboBox*>("tickRate");
  rates->setFocus();
  rates->lineEdit()->selectAll();
  QTest::keyClicks(rates->lineEdit(), "144");
  QTest::keyClick(rates->lineEdit(), Qt::Key_Return);
  CHECK(session.tick_rate() == 144);
  window.page().transport().choose_tick_rate(5000);
  CHECK(session.tick_rate() == kHighestTickRate);
  QTest::keyClick(&window, Qt::Key_I);
  CHECK(session.drawing().method == DrawMethod::AsTicked);
}

TEST_CASE_METHOD(WindowFixture, "Overlays are drawn when they are on", "[pixels]") {
  // A place where nothing moves.
  open(file("yard.course.json", R"({"lagniappe": "course", "version": 1, "name": "Yard",
      "marks": [{"id": "start", "at": [0, 0, 0]}],
      "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [60, 1, 60]}]})"));
  drive();  // At rest the contacts are shown anyway.
  REQUIRE(wait_for([&] { return session.current().tick > 40; }));
  // Beside the read-outs, whose draw rate changes all the time.
  const auto scene = [&] {
    const QImage picture = next_picture();
    return picture.copy(300, 120, picture.width() - 300, picture.height() - 120);
  };
  const QImage plain = scene();
  for (const Act act : {Act::Capsule, Act::Contacts, Act::Probe}) {
    window.actions()[act]->setChecked(true);
    CHECK(difference(plain, scene()) > 0.0001);
    window.actions()[act]->setChecked(false);
  }
  CHECK(difference(plain, scene()) < 0.0001);
  window.actions()[Act::Grid]->setChecked(false);
  CHECK(difference(plain, scene()) > 0.0003);
}

TEST_CASE_METHOD(WindowFixture, "A bad file is explained in the window and the old course stays") {
  const auto before = session.shared_place();
  open(file("bad.course.json", "{\"lagniappe\": \"course\", \"version\": 1,\n \"peices\": []}"));
  CHECK(window.messages().isVisible());
  CHECK(window.messages().text().contains("bad.course.json"));
  CHECK(window.messages().text().contains("line 2, column"));
  CHECK(session.shared_place() == before);
  for (const auto& [name, text] : {std::pair<QString, std::string>{"cut.glb", "glTF"},
                                   {"empty.obj", ""},
                                   {"x.profile.json", "{}"},
                                   {"bin.json", std::string(99, '\0')}}) {
    open(file(name, text));
    CHECK(window.messages().text().contains(name));
    CHECK(session.shared_place() == before);
  }
  open(folder.filePath("nowhere.glb"));
  CHECK(window.messages().text().contains("cannot be opened"));
}

TEST_CASE_METHOD(WindowFixture, "A file dropped on the window is opened, a profile too") {
  const QString floor = file("floor.obj", "o hall\nv -9 0 -9\nv -9 0 9\nv 9 0 9\nv 9 0 -9\nf 1 2 3 4\n");
  const auto drop = [&](const QString& path) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(path)});
    QDragEnterEvent enter(QPoint(300, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QCoreApplication::sendEvent(&window, &enter);
    CHECK(enter.isAccepted());
    QDropEvent event(QPointF(300, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QCoreApplication::sendEvent(&window, &event);
    REQUIRE(wait_for([&] { return !window.loader().busy(); }));
  };
  drop(floor);
  CHECK(session.place()->course.name == "floor");
  drop(kSource + "/profiles/heron.profile.json");
  CHECK(session.profile().name == "Heron");
  CHECK(session.place()->course.name == "floor");
  CHECK(settings.value("recent").toStringList().first().endsWith("heron.profile.json"));
}

TEST_CASE_METHOD(WindowFixture, "Opening goes through the dialog, and a cancelled dialog changes nothing") {
  const auto before = session.shared_place();
  chosen_file = "";
  window.actions()[Act::OpenCourse]->trigger();
  CHECK(session.shared_place() == before);
  chosen_file = kSource + "/courses/tidewheel.glb";
  window.actions()[Act::OpenCourse]->trigger();
  REQUIRE(wait_for([&] { return session.shared_place() != before; }));
  CHECK(session.place()->course.name == "tidewheel");
}

TEST_CASE_METHOD(WindowFixture,
                 "A model with no place to stand opens all the same, in free flight above it, and says so") {
  open(file("wall.obj", "v 0 0 0\nv 5 0 0\nv 0 5 0\nf 1 2 3\n"));
  CHECK(session.place()->course.starts_in_flight);
  CHECK(window.messages().isVisible());
  REQUIRE(wait_for([&] { return session.current().state == StateId::Fly; }));
  const double height = session.current().foot_C.y;
  next_picture();
  CHECK(session.current().foot_C.y == Approx(height).margin(0.01));
  CHECK(height > 5.0);
}

TEST_CASE_METHOD(WindowFixture, "A load can be cancelled, and what comes late is dropped") {
  const auto before = session.shared_place();
  window.open(kSource + "/courses/tidewheel.glb");
  const auto* busy = window.findChild<MessageBar*>("busyBar");
  REQUIRE(busy != nullptr);
  CHECK(busy->isVisible());
  window.loader().cancel();
  // The job itself ends, and what it would deliver has had its turn.
  QThreadPool::globalInstance()->waitForDone();
  QCoreApplication::processEvents();
  QCoreApplication::sendPostedEvents();
  CHECK_FALSE(window.loader().busy());
  CHECK(session.shared_place() == before);
  // Not cancelled, the same comes.
  window.open(kSource + "/courses/tidewheel.glb");
  CHECK(wait_for([&] { return session.shared_place() != before; }));
}

TEST_CASE_METHOD(WindowFixture, "The window can be small and large", "[pixels]") {
  for (const QSize size : {QSize(1240, 700), QSize(1280, 800)}) {
    window.resize(size);
    REQUIRE(wait_for(
        [&] { return next_picture().size() == (QSizeF(view.size()) * view.devicePixelRatioF()).toSize(); }));
  }
  CHECK(window.minimumSizeHint().width() <= 1280);
  CHECK(window.minimumSizeHint().height() <= 720);
}

TEST_CASE_METHOD(WindowFixture, "F1 shows the keys and hides them again") {
  auto* sheet = window.findChild<ShortcutSheet*>();
  QTest::keyClick(&window, Qt::Key_F1);
  CHECK(sheet->isVisible());
  CHECK(window.rect().contains(sheet->geometry()));
  QTest::keyClick(sheet, Qt::Key_Escape);
  CHECK_FALSE(sheet->isVisible());
}

TEST_CASE_METHOD(WindowFixture,
                 "The window fits small screens, whatever page was seen and whatever a guard has to say",
                 "[fits]") {
  const auto fits = [&] {
    const QSize least = window.minimumSizeHint();
    for (QWidget* part : window.findChildren<QWidget*>()) {
      const QSize own = part->minimumSizeHint().expandedTo(part->minimumSize());
      if (part->isVisible() && (own.width() > 600 || own.height() > 300))
        UNSCOPED_INFO(part->metaObject()->className() << " " << part->objectName().toStdString() << " "
                                                      << own.width() << " x " << own.height());
    }
    INFO("least size " << least.width() << " x " << least.height());
    CHECK(least.width() <= 850);   // 1280 at a scale of 1.5, less the frame.
    CHECK(least.height() <= 490);  // 800 likewise.
  };
  fits();
  trigger(Act::StatesPage);
  next_picture();
  fits();
  trigger(Act::DrivePage);
  next_picture();
  fits();
}

namespace {

bool scrolls(const QWidget* part) {
  for (const QWidget* w = part->parentWidget(); w != nullptr; w = w->parentWidget()) {
    if (qobject_cast<const QAbstractScrollArea*>(w) != nullptr) return true;
  }
  return false;
}

// Whether all of its text can be read.
bool is_whole(const QWidget* part) {
  const auto* label = qobject_cast<const QLabel*>(part);
  const auto* button = qobject_cast<const QAbstractButton*>(part);
  const bool has_text = (label != nullptr && !label->text().isEmpty() && !label->wordWrap()) ||
                        (button != nullptr && !button->text().isEmpty());
  return !has_text || part->width() + 1 >= part->minimumSizeHint().width();
}

bool stands_inside(const QWidget* part) {
  const QWidget* parent = part->parentWidget();
  return parent == nullptr || part->isWindow() || scrolls(part) || part->width() == 0 ||
         parent->rect().contains(part->geometry());
}

std::string called(const QWidget* part) {
  const auto* label = qobject_cast<const QLabel*>(part);
  const auto* button = qobject_cast<const QAbstractButton*>(part);
  const QString text = label != nullptr ? label->text() : button != nullptr ? button->text() : QString();
  return std::string(part->metaObject()->className()) + " " + part->objectName().toStdString() + " \"" +
         text.toStdString() + "\"";
}

}  // namespace

TEST_CASE_METHOD(WindowFixture, "On every size of screen no text is cut, and nothing stands outside",
                 "[fits]") {
  drive();
  QTest::keyClick(&view, Qt::Key_Escape);
  for (const QSize size : {QSize(850, 500), QSize(960, 1040), QSize(1280, 690), QSize(1366, 738),
                           QSize(1280, 766), QSize(2560, 1400)}) {
    window.resize(size);
    for (const Act page : {Act::DrivePage, Act::StatesPage, Act::SettingsPage}) {
      window.actions()[page]->trigger();
      QTest::qWait(30);
      CHECK(window.size() == size);
      for (const QWidget* part : window.findChildren<QWidget*>()) {
        if (!part->isVisible()) continue;
        INFO(size.width() << " x " << size.height() << ": " << called(part) << ", " << part->width() << " x "
                          << part->height() << " at " << part->x() << ", " << part->y() << "; least "
                          << part->minimumSizeHint().width() << "; in "
                          << (part->parentWidget() != nullptr ? part->parentWidget()->height() : 0));
        CHECK(is_whole(part));
        CHECK(stands_inside(part));
      }
    }
  }
}

TEST_CASE_METHOD(WindowFixture,
                 "Time goes on by the heart, whether or not anything draws; its clock can be set") {
  InputChange go;
  go.move = Vec2(0.0, 1.0);
  const auto follows = [&] {
    const std::size_t before = session.shown().run.ticks();
    session.follow(InputScript{{go}}, 0.5);
    REQUIRE(wait_for([&] { return !session.following(); }));
    CHECK(session.shown().run.ticks() >= before + 30);
  };
  window.hide();
  REQUIRE_FALSE(view.isVisible());
  follows();
  window.show();
  REQUIRE(wait_for([&] { return view.isVisible(); }));
  follows();
  // By a clock that stands nothing moves; an hour at once is no more than is made up for.
  double now = 100.0;
  window.heart().set_clock([&now] { return now; });
  next_picture();
  session.follow(InputScript{{go}}, 60.0);
  const std::size_t stands = session.shown().run.ticks();
  next_picture();
  next_picture();
  CHECK(session.shown().run.ticks() == stands);
  now += 3600.0;
  next_picture();
  const std::size_t gone = session.shown().run.ticks() - stands;
  CHECK(gone > 0);
  CHECK(gone <= 15);
}

TEST_CASE_METHOD(WindowFixture,
                 "What cannot be read is told of, also when a course comes to be open after it") {
  const QString bad = file("bad.profile.json", R"({"lagniappe": "profile", "version": 1, "tick_rate": 30})");
  window.open(kDemo);
  window.open(bad);
  REQUIRE(window.loader().busy());
  REQUIRE(wait_for([&] { return !window.loader().busy(); }));
  REQUIRE(window.messages().isVisible());
  CHECK(window.messages().text().contains("\"tick_rate\" is not known"));
  // What was read is put away by what is opened next.
  open(kDemo);
  CHECK_FALSE(window.messages().isVisible());
}

TEST_CASE_METHOD(WindowFixture, "A profile's camera is taken when it is chosen, and a key's after it stays") {
  const auto with = [&](const char* name, const char* kind) {
    return file(
        name,
        QString(
            R"({"lagniappe": "profile", "version": 1, "name": "P", "capsule": {"radius": 0.3, "height": 1.8},
      "camera": {"kind": "%1"}})")
            .arg(kind)
            .toStdString());
  };
  REQUIRE(view.camera().mode == CameraMode::ThirdPerson);
  open(with("eyes.profile.json", "first-person"));
  next_picture();
  CHECK(view.camera().mode == CameraMode::FirstPerson);
  CHECK(window.actions()[Act::FirstPerson]->isChecked());
  QTest::keyClick(&window, Qt::Key_2, Qt::AltModifier);
  next_picture();
  CHECK(view.camera().mode == CameraMode::Chase);
  CHECK_FALSE(window.actions()[Act::FirstPerson]->isChecked());
  next_picture();
  CHECK(view.camera().mode == CameraMode::Chase);
  open(with("side.profile.json", "side"));
  next_picture();
  CHECK(view.camera().mode == CameraMode::Side);
  // Who looks about on his own goes on doing so, and drives by the new one.
  view.drive_watched();
  next_picture();
  REQUIRE(view.camera().mode == CameraMode::Free);
  open(with("top.profile.json", "top"));
  next_picture();
  CHECK(view.camera().mode == CameraMode::Free);
  view.set_driving(false);
  view.set_driving(true);
  next_picture();
  CHECK(view.camera().mode == CameraMode::Top);
}

TEST_CASE_METHOD(WindowFixture, "A second view beside the first shows the same drive by a camera of its own") {
  const int wide = view.width();
  QTest::keyClick(&window, Qt::Key_0, Qt::AltModifier);
  WatchView* second = window.page().second_view();
  REQUIRE(second != nullptr);
  REQUIRE(wait_for([&] { return second->isVisible() && !second->picture().isNull(); }));
  CHECK(second->camera() == CameraMode::Top);
  CHECK(view.width() < wide);
  CHECK(view.width() >= view.minimumWidth());
  next_picture();
  const auto looks_down = [&] { return dot(second->eye().forward_C, session.current().up_C()) < -0.99; };
  REQUIRE(wait_for(looks_down));
  // It follows, and keeps its camera whatever the first one does.
  const Vec3 before = second->eye().at_C;
  InputChange go;
  go.at = 0.1;
  go.move = Vec2(0.0, 1.0);
  follow_to_rest(InputScript{{go}}, 1.5);
  REQUIRE(wait_for([&] { return length(second->eye().at_C - before) > 2.0; }));
  window.actions()[Act::ChaseCamera]->trigger();
  next_picture();
  CHECK(second->camera() == CameraMode::Top);
  CHECK(looks_down());
  auto* choice = second->findChild<QComboBox*>();
  REQUIRE(choice != nullptr);
  emit choice->activated(static_cast<int>(CameraMode::Side));
  CHECK(second->camera() == CameraMode::Side);
  REQUIRE(wait_for([&] { return !looks_down(); }));
  // Over other pages and courses.
  window.actions()[Act::StatesPage]->trigger();
  window.actions()[Act::DrivePage]->trigger();
  REQUIRE(wait_for([&] { return second->isVisible() && view.isVisible(); }));
  open(kDemo);
  next_picture();
  CHECK_FALSE(second->picture().isNull());
  QTest::keyClick(&window, Qt::Key_0, Qt::AltModifier);
  CHECK(window.page().second_view() == nullptr);
  REQUIRE(wait_for([&] { return view.width() > wide - 20; }));
}
