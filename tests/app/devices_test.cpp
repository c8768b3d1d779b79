// SPDX-License-Identifier: GPL-3.0-or-later
// Pads, the on-screen pad and what is bound: by joysticks that SDL makes up, real touch events and real keys.
#define SDL_MAIN_HANDLED
#include <SDL.h>

#include <QLabel>
#include <QPointingDevice>
#include <atomic>

#include "devices/devices_pane.h"
#include "devices/pads.h"
#include "devices/screen_pad.h"
#include "pages/bindings_sheet.h"
#include "pages/device_actions.h"
#include "pages/settings_page.h"
#include "support/places.h"
#include "support/window_fixture.h"
#include "widgets/key_button.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

struct Locked {
  Locked() { SDL_LockJoysticks(); }
  ~Locked() { SDL_UnlockJoysticks(); }
};

// A pad of SDL's own making, as if it were plugged in.
class VirtualPad {
 public:
  explicit VirtualPad(const char* name = "Brass Pad") {
    const Locked locked;
    SDL_VirtualJoystickDesc made{};
    made.version = SDL_VIRTUAL_JOYSTICK_DESC_VERSION;
    made.type = SDL_JOYSTICK_TYPE_GAMECONTROLLER;
    made.naxes = SDL_CONTROLLER_AXIS_MAX;
    made.nbuttons = SDL_CONTROLLER_BUTTON_DPAD_RIGHT + 1;
    made.name = name;
    const int index = SDL_JoystickAttachVirtualEx(&made);
    REQUIRE(index >= 0);
    id_ = SDL_JoystickGetDeviceInstanceID(index);
    joystick_ = SDL_JoystickOpen(index);
    REQUIRE(joystick_ != nullptr);
    for (const int trigger : {SDL_CONTROLLER_AXIS_TRIGGERLEFT, SDL_CONTROLLER_AXIS_TRIGGERRIGHT})
      axis(trigger, -1.0);
  }
  ~VirtualPad() { pull_out(); }
  VirtualPad(const VirtualPad&) = delete;

  // Up is -1, as SDL has it; triggers rest at -1.
  void axis(int axis, double value) {
    const Locked locked;
    SDL_JoystickSetVirtualAxis(joystick_, axis, Sint16(std::lround(value * 32767.0)));
  }
  void button(int button, bool down) {
    const Locked locked;
    SDL_JoystickSetVirtualButton(joystick_, button, down ? 1 : 0);
  }
  void pull_out() {
    if (joystick_ == nullptr) return;
    const Locked locked;
    SDL_JoystickClose(joystick_);
    joystick_ = nullptr;
    for (int i = 0; i < SDL_NumJoysticks(); ++i)
      if (SDL_JoystickGetDeviceInstanceID(i) == id_) SDL_JoystickDetachVirtual(i);
  }

 private:
  SDL_JoystickID id_ = -1;
  SDL_Joystick* joystick_ = nullptr;
};

struct DevicesFixture : WindowFixture {
  Pads& pads = window.devices().pads();
  ScreenPad& screen = window.devices().screen_pad();

  DevicesFixture() { window.activateWindow(); }
  void read_pads() {
    pads.start();
    REQUIRE(wait_for([&] { return pads.reads(); }));
  }
  void wait_for_pads(std::size_t count) {
    REQUIRE(wait_for([&] { return pads.pads().size() == count; }));
  }
  double speed() const { return length(session.current().velocity_C); }
  bool has_pressed(Action action) const {
    const auto& inputs = session.shown().take.inputs;
    return std::any_of(inputs.begin(), inputs.end(),
                       [&](const InputFrame& input) { return input.pressed.has(action); });
  }
  QString note() {
    QStringList all;
    for (const auto* bar : window.findChildren<MessageBar*>())
      if (bar->isVisible()) all += bar->text();
    return all.join(" ");
  }
};

// Everything that is stepped is the test's own time: a clock that stands still between beats.
struct PadsOnAClock {
  DriveSession session;
  double now = 0.0;
  Heart heart{[this](double seconds) { return session.advance(seconds); }};
  Controls controls{session};
  Bindings bindings;
  Pads pads{controls, bindings, heart};

  PadsOnAClock() {
    heart.set_clock([this] { return now; });
    session.set_place(test::floor_with());
    PadEvent came{PadEvent::Kind::Came, 3, 0.0};
    came.name = "Brass Pad";
    pads.take({came}, 0.0);
    controls.set_driving(true);
    beat();
  }
  void beat() {
    const int before = beats;
    REQUIRE(QTest::qWaitFor([&] { return beats > before; }, 5000));
  }
  static PadEvent button(PadControl control, bool down, double at) {
    PadEvent event{down ? PadEvent::Kind::Down : PadEvent::Kind::Up, 3, at};
    event.control = control;
    return event;
  }
  int beats = 0;
  QMetaObject::Connection counted = QObject::connect(&heart, &Heart::beat, [this] { ++beats; });
};

QStringList said_in(const MainWindow& window) {
  const auto* pane = window.findChild<DevicesPane*>();
  REQUIRE(pane != nullptr);
  return pane->lines();
}

}  // namespace

TEST_CASE_METHOD(DevicesFixture,
                 "A pad that is plugged in while one drives walks, looks and jumps; a take says so") {
  read_pads();
  drive();
  VirtualPad pad;
  wait_for_pads(1);
  CHECK(pads.pads().front().name == "Brass Pad");
  CHECK(note().contains("Brass Pad is there"));
  // Partly pushed: the profile's dead zone is cut out, and what is left is the share of the speed.
  pad.axis(SDL_CONTROLLER_AXIS_LEFTY, -0.56);
  const double full = session.profile().ground.speed;
  CHECK(wait_for([&] { return std::abs(speed() - 0.5 * full) < 0.01 * full; }));
  pad.axis(SDL_CONTROLLER_AXIS_LEFTY, 0.0);
  CHECK(wait_for([&] { return speed() < 0.01; }));
  // Within the dead zone nothing.
  pad.axis(SDL_CONTROLLER_AXIS_LEFTX, 0.11);
  REQUIRE(wait_for([&] { return pads.pads().front().sticks.move.x > 0.1; }));
  QTest::qWait(200);
  CHECK(speed() < 0.01);
  const double yaw = session.current().yaw;
  pad.axis(SDL_CONTROLLER_AXIS_RIGHTX, 1.0);
  CHECK(wait_for([&] { return wrap_angle(session.current().yaw - yaw) < -radians(30.0); }));
  pad.axis(SDL_CONTROLLER_AXIS_RIGHTX, 0.0);
  const double pitch = session.current().pitch;
  pad.axis(SDL_CONTROLLER_AXIS_RIGHTY, -1.0);  // Away from oneself: up.
  CHECK(wait_for([&] { return session.current().pitch > pitch + radians(10.0); }));
  pad.axis(SDL_CONTROLLER_AXIS_RIGHTY, 0.0);
  pad.button(SDL_CONTROLLER_BUTTON_A, true);
  CHECK(wait_for([&] { return has_pressed(Action::Jump); }));
  pad.button(SDL_CONTROLLER_BUTTON_A, false);
  REQUIRE(wait_for([&] { return pads.pads().front().down.empty(); }));
  CHECK(session.shown().take.devices ==
        std::vector<DeviceUse>{{session.shown().take.devices.front().from_tick, "Brass Pad"}});
  QTest::keyClick(&view, Qt::Key_Space);
  CHECK(wait_for([&] { return session.shown().take.devices.size() == 2; }));
  CHECK(session.shown().take.devices.back().device == "keys and mouse");
}

TEST_CASE_METHOD(DevicesFixture, "A pad that is lost lets go of what it held; what others hold stays") {
  read_pads();
  VirtualPad first, second;
  wait_for_pads(2);
  CHECK(pads.pads().front().name == "Brass Pad");
  CHECK(pads.pads().back().name == "Brass Pad (2)");
  drive();
  first.axis(SDL_CONTROLLER_AXIS_LEFTY, -1.0);
  first.button(SDL_CONTROLLER_BUTTON_B, true);
  CHECK(wait_for([&] { return session.current().state == StateId::Crouch && speed() > 0.5; }));
  first.pull_out();
  wait_for_pads(1);
  CHECK(wait_for([&] { return session.current().state == StateId::Stand && speed() < 0.01; }));
  CHECK(note().contains("Brass Pad is gone"));
  // The one that is left still drives, and what two held stays held for one.
  second.button(SDL_CONTROLLER_BUTTON_B, true);
  CHECK(wait_for([&] { return session.current().state == StateId::Crouch; }));
  QTest::keyPress(&view, Qt::Key_C);
  second.pull_out();
  wait_for_pads(0);
  QTest::qWait(200);
  CHECK(session.current().state == StateId::Crouch);
  QTest::keyRelease(&view, Qt::Key_C);
  CHECK(wait_for([&] { return session.current().state == StateId::Stand; }));
  // It comes back: as another one, with nothing held.
  VirtualPad again;
  wait_for_pads(1);
  CHECK(pads.pads().front().name == "Brass Pad");
  CHECK(pads.pads().front().down.empty());
}

TEST_CASE_METHOD(DevicesFixture,
                 "Start drives and stops, a stick pushed in changes the camera, and keys go on") {
  read_pads();
  VirtualPad pad;
  wait_for_pads(1);
  const auto click = [&](int button) {
    pad.button(button, true);
    REQUIRE(wait_for([&] { return !pads.pads().front().down.empty(); }));
    pad.button(button, false);
    REQUIRE(wait_for([&] { return pads.pads().front().down.empty(); }));
  };
  REQUIRE_FALSE(view.driving());
  // Undriven, its stick moves nobody.
  pad.axis(SDL_CONTROLLER_AXIS_LEFTY, -1.0);
  REQUIRE(wait_for([&] { return pads.pads().front().sticks.move.y > 0.99; }));
  QTest::qWait(200);
  CHECK(speed() < 0.01);
  click(SDL_CONTROLLER_BUTTON_START);
  CHECK(view.driving());
  // It is still pushed: that counts at once, without being moved again.
  CHECK(wait_for([&] { return speed() > 1.0; }));
  click(SDL_CONTROLLER_BUTTON_RIGHTSTICK);
  CHECK(view.first_person());
  click(SDL_CONTROLLER_BUTTON_START);
  CHECK_FALSE(view.driving());
  CHECK(wait_for([&] { return speed() < 0.01; }));
}

TEST_CASE("A trigger is pressed from half on and let go below two fifths: one that trembles presses once") {
  PadsOnAClock p;
  int presses = 0;
  QObject::connect(&p.pads, &Pads::pressed, [&](PadControl control) {
    ++presses;
    CHECK(control == PadControl::RightTrigger);
  });
  const auto pull = [&](double right) {
    PadEvent event{PadEvent::Kind::Triggers, 3, p.now};
    event.right_trigger = right;
    p.pads.take({event}, p.now);
  };
  for (const double right : {0.2, 0.49, 0.51, 0.47, 0.53, 0.41, 1.0}) pull(right);
  CHECK(presses == 1);
  CHECK(p.controls.is_held(Action::Climb));
  pull(0.39);
  CHECK_FALSE(p.controls.is_held(Action::Climb));
  pull(0.5);
  CHECK(presses == 2);
}

TEST_CASE("What is pressed on a pad has its own instant, also within a frame that takes long") {
  for (const int rate : {20, 60, 240}) {
    INFO(rate << " ticks/s");
    PadsOnAClock p;
    p.session.set_tick_rate(rate);
    p.now += 0.001;
    p.beat();
    const std::size_t begun = p.session.shown().run.ticks();
    const double at = p.now, waited = 0.001;
    // Down 93 ms into a frame of 170, up 30 ms later; both are only told when it is over.
    p.now += 0.170;
    p.pads.take({PadsOnAClock::button(PadControl::FaceLow, true, at + 0.093),
                 PadsOnAClock::button(PadControl::FaceLow, false, at + 0.123)},
                p.now);
    p.beat();
    const auto& inputs = p.session.shown().take.inputs;
    REQUIRE(inputs.size() > begun);
    const double ticks = (waited + 0.093) * rate;
    const auto i = begun + std::size_t(ticks);
    for (std::size_t k = begun; k < inputs.size(); ++k) CHECK(inputs[k].pressed.has(Action::Jump) == (k == i));
    CHECK(double(inputs[i].pressed_at[0]) == Approx(ticks - std::floor(ticks)).margin(1e-5));
  }
}

TEST_CASE("What several hold is held until all have let go, of whatever device") {
  PadsOnAClock p;
  p.controls.press({Controls::kHands, 54}, Action::Crouch, 0.0);
  p.pads.take({PadsOnAClock::button(PadControl::FaceRight, true, p.now)}, p.now);
  p.controls.press({Controls::kScreenPad, 2}, Action::Crouch, 0.0);
  p.now += 0.1;
  p.beat();
  CHECK(p.session.shown().take.inputs.back().held.has(Action::Crouch));
  p.controls.let_go({Controls::kHands, 54}, 0.0);
  p.controls.lose(Controls::kScreenPad, 0.0);
  p.now += 0.1;
  p.beat();
  CHECK(p.session.shown().take.inputs.back().held.has(Action::Crouch));
  PadEvent lost{PadEvent::Kind::Lost, 3, p.now};
  p.pads.take({lost}, p.now);
  p.now += 0.1;
  p.beat();
  CHECK_FALSE(p.session.shown().take.inputs.back().held.has(Action::Crouch));
}

TEST_CASE("Who lets go leaves the take to whom still holds something") {
  PadsOnAClock p;
  const auto tick = [&] {
    p.now += 1.0 / 60;
    p.beat();
    return p.session.shown().take.devices.back().device;
  };
  p.controls.press({Controls::kHands, 25}, DriveSession::Push::Forward, 0.0);
  CHECK(tick() == "keys and mouse");
  p.pads.take({PadsOnAClock::button(PadControl::FaceLow, true, p.now)}, p.now);
  CHECK(tick() == "Brass Pad");
  p.pads.take({PadsOnAClock::button(PadControl::FaceLow, false, p.now)}, p.now);
  CHECK(tick() == "keys and mouse");
  // A stick that trembles about its middle drives nobody.
  PadEvent trembles{PadEvent::Kind::Sticks, 3, p.now};
  trembles.sticks.move = Vec2(0.05, -0.06);
  p.pads.take({trembles}, p.now);
  CHECK(tick() == "keys and mouse");
}

TEST_CASE("What is pressed in the first frame of a recording is told") {
  PadsOnAClock p;
  QWidget over;
  ScreenPad screen(
      p.controls, [](const QInputEvent&) { return 0.0; }, over);
  DevicesPane pane(p.session, p.pads, screen);
  // Other values begin another recording, and the press is in it before the pane has seen it.
  Profile faster = p.session.profile();
  faster.ground.speed *= 1.5;
  const std::uint64_t revision = p.session.revision();
  p.session.set_profile(faster);
  p.session.hold(Action::Jump, true);
  p.session.advance(0.2);
  REQUIRE(p.session.revision() != revision);
  pane.refresh();
  CHECK_THAT(pane.lines().join("\n").toStdString(), Catch::Contains("jump: tick 1, 0.0 ms in"));
}

TEST_CASE_METHOD(DevicesFixture,
                 "The pane shows sticks raw and shaped, triggers, and in which tick what was pressed") {
  trigger(Act::Devices);
  CHECK(said_in(window).join("\n").contains("No pad is plugged in"));
  read_pads();
  VirtualPad pad("Ferry Pad");
  wait_for_pads(1);
  pad.axis(SDL_CONTROLLER_AXIS_LEFTX, 0.56);
  pad.axis(SDL_CONTROLLER_AXIS_TRIGGERLEFT, 0.5);
  REQUIRE(wait_for([&] { return pads.pads().front().left_trigger > 0.7; }));
  QStringList said = said_in(window);
  CHECK(said.contains("Ferry Pad"));
  CHECK(said.contains("move 0.56, 0.00, counts as 0.50, 0.00"));
  CHECK(said.contains("triggers 0.75 and 0.00, pressed from 0.50 on"));
  CHECK(said.contains("down: left trigger"));
  // The look stick's curve is the profile's.
  Profile finer = session.profile();
  finer.look.stick_power = 2.0;
  REQUIRE(window.handling().set(finer, "a finer stick"));
  pad.axis(SDL_CONTROLLER_AXIS_RIGHTX, 0.56);
  CHECK(wait_for([&] { return said_in(window).contains("look 0.56, 0.00, turns at 0.25 of its rate"); }));
  pad.axis(SDL_CONTROLLER_AXIS_LEFTX, 0.0);
  pad.axis(SDL_CONTROLLER_AXIS_RIGHTX, 0.0);
  drive();
  pad.button(SDL_CONTROLLER_BUTTON_A, true);
  REQUIRE(wait_for([&] { return has_pressed(Action::Jump); }));
  const auto& inputs = session.shown().take.inputs;
  const auto pressed = std::find_if(inputs.begin(), inputs.end(),
                                    [](const InputFrame& input) { return input.pressed.has(Action::Jump); });
  const QString line = QString("jump: tick %1, %2 ms in")
                           .arg(pressed - inputs.begin() + 1)
                           .arg(1000.0 * double(pressed->pressed_at[0]) / session.tick_rate(), 0, 'f', 1);
  CHECK(wait_for([&] { return said_in(window).join("\n").contains(line); }));
  // The action puts it away, and brings it again.
  trigger(Act::Devices);
  CHECK(wait_for([&] { return window.findChild<DevicesPane*>() == nullptr; }));
  // The window may go while they are shown.
  for (const Act act : {Act::Devices, Act::Intent, Act::ScreenPad}) trigger(act);
  CHECK(window.findChild<DevicesPane*>() != nullptr);
}

TEST_CASE_METHOD(DevicesFixture, "Fingers push and press at once; buttons act when they go down") {
  trigger(Act::ScreenPad);
  REQUIRE(screen.isVisible());
  std::unique_ptr<QPointingDevice> touch(QTest::createTouchDevice());
  const QPoint stick = screen.middle_of_move().toPoint(), jump = screen.middle_of(Action::Jump).toPoint(),
               crouch = screen.middle_of(Action::Crouch).toPoint();
  const QPoint up(0, -int(screen.stick_radius()));
  REQUIRE_FALSE(view.driving());
  // The first touch begins driving; the pointer stays free.
  QTest::touchEvent(&screen, touch.get()).press(0, stick);
  CHECK(view.driving());
  CHECK(QWidget::mouseGrabber() == nullptr);
  QTest::touchEvent(&screen, touch.get()).move(0, stick + up);
  CHECK(wait_for([&] { return speed() > 0.98 * session.profile().ground.speed; }));
  // Another finger while the first one stays: held before it is lifted.
  QTest::touchEvent(&screen, touch.get()).stationary(0).press(1, crouch);
  CHECK(wait_for([&] { return session.current().state == StateId::Crouch; }));
  CHECK(speed() > 0.5);
  QTest::touchEvent(&screen, touch.get()).stationary(0).release(1, crouch);
  CHECK(wait_for([&] { return session.current().state == StateId::Walk; }));
  CHECK_FALSE(has_pressed(Action::Jump));
  QTest::touchEvent(&screen, touch.get()).stationary(0).press(1, jump);
  CHECK(wait_for([&] { return has_pressed(Action::Jump); }));
  // A finger that slides off its button holds it until it is lifted; one beside everything does nothing.
  QTest::touchEvent(&screen, touch.get()).stationary(0).move(1, jump + QPoint(0, -200));
  CHECK(screen.is_down(Action::Jump));
  QTest::touchEvent(&screen, touch.get()).stationary(0).release(1, jump + QPoint(0, -200));
  CHECK_FALSE(screen.is_down(Action::Jump));
  // Past the rim it is as far as the rim.
  QTest::touchEvent(&screen, touch.get()).move(0, stick + 3 * up);
  CHECK(screen.sticks().move.y == Approx(1.0));
  CHECK(length(screen.sticks().move) <= 1.0 + 1e-12);
  QTest::touchEvent(&screen, touch.get()).release(0, stick + 3 * up);
  CHECK(screen.sticks() == Sticks{});
  CHECK(wait_for([&] { return speed() < 0.01; }));
  CHECK(names_of(session.shown().take.devices) == std::vector<std::string>{"on-screen pad"});
}

TEST_CASE_METHOD(DevicesFixture,
                 "The mouse presses the on-screen pad, and looks beside it; hidden it lets go") {
  trigger(Act::ScreenPad);
  REQUIRE(screen.isVisible());
  const QPoint stick = screen.middle_of_move().toPoint(), up(0, -int(screen.stick_radius()));
  QTest::mousePress(&screen, Qt::LeftButton, {}, stick + up);
  CHECK(view.driving());
  CHECK(wait_for([&] { return speed() > 1.0; }));
  trigger(Act::ScreenPad);
  CHECK_FALSE(screen.isVisible());
  CHECK(wait_for([&] { return speed() < 0.01; }));
  CHECK(view.driving());
  CHECK(QWidget::mouseGrabber() == &view);  // Driven as ever again.
  trigger(Act::ScreenPad);
  CHECK(QWidget::mouseGrabber() == nullptr);
  const double yaw = session.look().x;
  const QPoint middle = view.rect().center();
  QTest::mousePress(&view, Qt::LeftButton, {}, middle);
  QMouseEvent move(QEvent::MouseMove, middle + QPoint(60, 0), view.mapToGlobal(middle + QPoint(60, 0)),
                   Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
  QCoreApplication::sendEvent(&view, &move);
  QTest::mouseRelease(&view, Qt::LeftButton, {}, middle + QPoint(60, 0));
  CHECK(session.look().x < yaw);
  CHECK(view.driving());
  QTest::keyClick(&view, Qt::Key_Escape);
  CHECK_FALSE(view.driving());
  // Over the small view of another page there is no room for it: a click there is the view's.
  trigger(Act::TimingPage);
  CHECK(screen.mask().boundingRect().intersected(screen.rect()).isEmpty());
  trigger(Act::DrivePage);
  CHECK_FALSE(screen.mask().boundingRect().intersected(screen.rect()).isEmpty());
}

TEST_CASE_METHOD(DevicesFixture, "Mouse buttons and pad controls are bound by pressing them, and kept") {
  auto* page = window.findChild<SettingsPage*>();
  auto* sheet = page->findChild<BindingsSheet*>();
  const auto button = [&](const QString& of) {
    for (KeyButton* each : page->findChildren<KeyButton*>())
      if (each->accessibleName() == of) return each;
    FAIL("no button for " << of.toStdString());
    return static_cast<KeyButton*>(nullptr);
  };
  trigger(Act::SettingsPage);
  KeyButton* mouse = button("Driving: Jump; up while flying, mouse");
  CHECK(mouse->text() == "none");
  QTest::mouseClick(mouse, Qt::LeftButton);
  REQUIRE(mouse->waits());
  QTest::keyClick(mouse, Qt::Key_J);  // No key is for it.
  REQUIRE(mouse->waits());
  QTest::mousePress(mouse, Qt::RightButton);
  QTest::mouseRelease(mouse, Qt::RightButton);
  CHECK(mouse->text() == "right button");
  read_pads();
  VirtualPad pad;
  wait_for_pads(1);
  KeyButton* control = button("Driving: Jump; up while flying, pad");
  CHECK(control->text() == "lower face button");
  control->click();
  pad.axis(SDL_CONTROLLER_AXIS_TRIGGERLEFT, 1.0);
  CHECK(wait_for([&] { return control->text() == "left trigger"; }));
  pad.axis(SDL_CONTROLLER_AXIS_TRIGGERLEFT, -1.0);
  REQUIRE(wait_for([&] { return pads.pads().front().down.empty(); }));
  // What two rows have, both say; the upper one has it.
  KeyButton* fly = button("Driving: Fly, or stop flying, pad");
  fly->click();
  pad.axis(SDL_CONTROLLER_AXIS_TRIGGERLEFT, 1.0);
  CHECK(wait_for([&] { return fly->text() == "left trigger"; }));
  CHECK(sheet->conflicts().size() == 2);
  pad.axis(SDL_CONTROLLER_AXIS_TRIGGERLEFT, -1.0);
  REQUIRE(wait_for([&] { return pads.pads().front().down.empty(); }));
  trigger(Act::DrivePage);
  drive();
  pad.axis(SDL_CONTROLLER_AXIS_TRIGGERLEFT, 1.0);
  CHECK(wait_for([&] { return has_pressed(Action::Jump); }));
  CHECK_FALSE(has_pressed(Action::Fly));
  QTest::keyClick(&view, Qt::Key_Escape);
  drive();
  const auto presses = [&] {
    std::size_t count = 0;
    for (const InputFrame& input : session.shown().take.inputs) count += input.pressed.has(Action::Jump);
    return count;
  };
  const std::size_t before = presses();
  QTest::mousePress(&view, Qt::RightButton, {}, view.rect().center());
  CHECK(wait_for([&] { return presses() == before + 1; }));
  CHECK(session.shown().take.inputs.back().held.has(Action::Jump));
  QTest::mouseRelease(&view, Qt::RightButton, {}, view.rect().center());
  CHECK(wait_for([&] { return !session.shown().take.inputs.back().held.has(Action::Jump); }));
  // For the next window, too; and all of it goes back.
  Bindings kept;
  restore_bindings(window.preferences(), kept);
  CHECK(kept.of(Qt::RightButton) == std::optional<Does>(Action::Jump));
  CHECK(kept.of(PadControl::LeftTrigger) == std::optional<Does>(Action::Jump));
  CHECK(kept.of(PadControl::FaceLow) == std::nullopt);
  page->findChild<QPushButton*>("allKeysBack")->click();
  CHECK(view.bindings().of(PadControl::FaceLow) == std::optional<Does>(Action::Jump));
  CHECK(view.bindings().of(Qt::RightButton) == std::nullopt);
  CHECK(sheet->conflicts().isEmpty());
}
