// SPDX-License-Identifier: GPL-3.0-or-later
// Keys and mouse from outside the program, through the X server, as a keyboard would send them.
#include <QComboBox>
#include <QKeyEvent>
#include <QLineEdit>
#include <QProcess>

#include "support/window_fixture.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

void x(const QStringList& arguments) { REQUIRE(QProcess::execute("xdotool", arguments) == 0); }

// Where a place of a widget is for the X server, at any scale.
QPoint on_screen(const QWidget& widget, const QPoint& at) {
  return (QPointF(widget.mapToGlobal(at)) * widget.devicePixelRatioF()).toPoint();
}

// Another layout, as the desktop would set it; the usual one again at the end.
struct Layout {
  explicit Layout(const QString& name) { REQUIRE(QProcess::execute("setxkbmap", {name}) == 0); }
  ~Layout() { QProcess::execute("setxkbmap", {"us"}); }
};

// What the keyboard does while it is held, as a widget hears it.
struct Heard : QObject {
  int presses = 0, repeats = 0, releases = 0;
  bool eventFilter(QObject* watched, QEvent* event) override {
    const auto* key = static_cast<QKeyEvent*>(event);
    if (watched->isWidgetType() && event->type() == QEvent::KeyPress)
      ++(key->isAutoRepeat() ? repeats : presses);
    if (watched->isWidgetType() && event->type() == QEvent::KeyRelease && !key->isAutoRepeat()) ++releases;
    return false;
  }
};

}  // namespace

TEST_CASE_METHOD(WindowFixture,
                 "A real keyboard drives: Enter, W and Shift held, Space, a turn of the mouse, Esc") {
  x({"mousemove", "640", "400", "click", "1"});
  REQUIRE(wait_for([&] { return view.hasFocus(); }));
  x({"key", "Return"});
  REQUIRE(wait_for([&] { return view.driving(); }));
  const Vec3 from = session.current().foot_C;
  x({"keydown", "w"});
  REQUIRE(wait_for([&] { return session.current().foot_C.z < from.z - 1.0; }));
  x({"keydown", "shift"});
  REQUIRE(wait_for([&] { return session.current().state == StateId::Sprint; }));
  x({"keyup", "shift"});
  x({"key", "space"});
  REQUIRE(wait_for([&] { return session.current().state == StateId::Rise; }));
  const double yaw = session.look().x;
  x({"mousemove_relative", "--", "120", "0"});
  REQUIRE(wait_for([&] { return degrees(wrap_angle(session.look().x - yaw)) < -5.0; }));
  x({"keyup", "w"});
  REQUIRE(wait_for([&] { return session.current().state == StateId::Stand; }));
  x({"key", "v"});
  REQUIRE(wait_for([&] { return view.first_person(); }));
  x({"key", "Escape"});
  REQUIRE(wait_for([&] { return !view.driving(); }));
}

TEST_CASE_METHOD(WindowFixture, "Keys of actions work while Shift is held for a sprint") {
  x({"mousemove", "640", "400", "click", "1"});
  REQUIRE(wait_for([&] { return view.hasFocus(); }));
  x({"key", "Return", "keydown", "w", "keydown", "shift"});
  REQUIRE(wait_for([&] { return session.current().state == StateId::Sprint; }));
  x({"key", "v"});
  CHECK(wait_for([&] { return view.first_person(); }));
  x({"key", "period"});
  CHECK(wait_for([&] { return session.paused(); }));
  x({"keyup", "shift", "keyup", "w", "key", "Escape"});
}

TEST_CASE_METHOD(WindowFixture, "A real drag on the tape scrubs, and Enter drives on from there") {
  x({"mousemove", "600", "300", "click", "1"});
  x({"key", "Return", "keydown", "w"});
  REQUIRE(
      wait_for([&] { return session.current().state == StateId::Walk && session.shown().run.ticks() > 90; }));
  x({"keyup", "w", "key", "Escape"});
  REQUIRE(wait_for([&] { return session.resting(); }));
  Tape& tape = window.page().tape();
  next_picture();
  const QPoint from =
      on_screen(tape, QPoint(int(tape.x_of_tick(session.playhead())), tape.lane_rect(1).center().y()));
  const int to = on_screen(tape, QPoint(int(tape.x_of_tick(40)), 0)).x();
  x({"mousemove", QString::number(from.x()), QString::number(from.y()), "mousedown", "1"});
  x({"mousemove", QString::number((from.x() + to) / 2), QString::number(from.y())});
  x({"mousemove", QString::number(to), QString::number(from.y()), "mouseup", "1"});
  REQUIRE(wait_for([&] { return std::abs(double(session.playhead()) - 40.0) <= 1.0; }));
  const std::size_t at = session.playhead();
  const std::uint64_t kept = hash_of(session.current()), revision = session.revision();
  x({"key", "Return"});
  REQUIRE(wait_for([&] { return view.driving() && session.revision() != revision; }));
  x({"key", "Escape"});
  CHECK(hash_of(session.shown().run.state(at)) == kept);
}

TEST_CASE_METHOD(WindowFixture, "Enter in the tick-rate field sets the rate and does not begin to drive") {
  auto* rates = window.page().findChild<QComboBox*>("tickRate");
  const QPoint field = on_screen(*rates->lineEdit(), rates->lineEdit()->rect().center());
  x({"mousemove", QString::number(field.x()), QString::number(field.y()), "click", "1"});
  REQUIRE(wait_for([&] { return rates->lineEdit()->hasFocus(); }));
  x({"key", "ctrl+a"});
  x({"type", "144"});
  x({"key", "Return"});
  REQUIRE(wait_for([&] { return session.tick_rate() == 144; }));
  REQUIRE(wait_for([&] { return view.hasFocus(); }));
  next_picture();
  CHECK_FALSE(view.driving());
}

TEST_CASE_METHOD(WindowFixture, "W held for three seconds on a busy machine is one push without a gap") {
  x({"mousemove", "640", "400", "click", "1"});
  REQUIRE(wait_for([&] { return view.hasFocus(); }));
  x({"key", "Return"});
  REQUIRE(wait_for([&] { return view.driving(); }));
  // Frames that take long, as in software on a large screen.
  const auto slow = QObject::connect(&window.heart(), &Heart::beat, [] { QTest::qSleep(60); });
  Heard heard;
  qApp->installEventFilter(&heard);
  x({"keydown", "25"});
  REQUIRE(wait_for([&] { return session.current().state == StateId::Walk; }));
  const std::size_t first = session.shown().take.inputs.size(), revision = session.revision();
  REQUIRE(wait_for([&] { return session.shown().take.inputs.size() > first + 180; }));
  CHECK(heard.releases == 0);
  CHECK(heard.repeats > 10);  // The keyboard did repeat.
  CHECK(heard.presses == 1);
  x({"keyup", "25"});
  REQUIRE(session.revision() == revision);
  const auto& inputs = session.shown().take.inputs;
  for (std::size_t i = first; i < first + 180; ++i) REQUIRE(inputs[i].move.y == 1.0);
  REQUIRE(wait_for([&] { return session.current().state == StateId::Stand; }));
  CHECK(heard.releases == 1);
  QObject::disconnect(slow);
  qApp->removeEventFilter(&heard);
}

TEST_CASE_METHOD(WindowFixture, "A held F flies once, however long it is held") {
  x({"mousemove", "640", "400", "click", "1"});
  REQUIRE(wait_for([&] { return view.hasFocus(); }));
  x({"key", "Return"});
  REQUIRE(wait_for([&] { return view.driving(); }));
  x({"keydown", "41"});
  REQUIRE(wait_for([&] { return session.current().state == StateId::Fly; }));
  const std::size_t from = session.shown().run.ticks();
  REQUIRE(wait_for([&] { return session.shown().run.ticks() > from + 90; }));
  for (std::size_t i = from; i <= from + 90; ++i) REQUIRE(session.shown().run.state(i).state == StateId::Fly);
  x({"keyup", "41"});
}

TEST_CASE_METHOD(WindowFixture,
                 "The places of W A S D drive under real layouts: French, German, Russian, Dvorak") {
  for (const char* name : {"fr", "de", "ru", "dvorak"}) {
    INFO(name);
    const Layout layout(name);
    x({"mousemove", "640", "400", "click", "1"});
    REQUIRE(wait_for([&] { return view.hasFocus(); }));
    if (!view.driving()) x({"key", "Return"});
    REQUIRE(wait_for([&] { return view.driving(); }));
    const auto turns = [&](const char* code, double right, double forward) {
      INFO(code);
      x({"keydown", code});
      CHECK(wait_for([&] {
        const auto& inputs = session.shown().take.inputs;
        return !inputs.empty() && inputs.back().move == Vec2(right, forward);
      }));
      x({"keyup", code});
      CHECK(wait_for([&] { return session.shown().take.inputs.back().move == Vec2(0.0); }));
    };
    turns("25", 0, 1);
    turns("38", -1, 0);
    turns("39", 0, -1);
    turns("40", 1, 0);
    const bool first = view.first_person();
    x({"key", "55"});
    CHECK(wait_for([&] { return view.first_person() != first; }));
    CHECK(view.driving());
    x({"key", "Escape"});
    REQUIRE(wait_for([&] { return !view.driving(); }));
  }
}

TEST_CASE_METHOD(WindowFixture,
                 "Typed with a real keyboard: a name is finished by Return and Ctrl+Z takes a value back") {
  const auto* height = window.findChild<QLineEdit*>("ground.speed");
  REQUIRE(height != nullptr);
  const double before = session.profile().ground.speed;
  const QPoint at = on_screen(*height, height->rect().center());
  x({"mousemove", QString::number(at.x()), QString::number(at.y()), "click", "1"});
  REQUIRE(wait_for([&] { return height->hasFocus(); }));
  x({"key", "ctrl+a"});
  x({"type", "3" + QLocale::system().decimalPoint() + "5"});
  x({"key", "Return"});
  REQUIRE(wait_for([&] { return session.profile().ground.speed == 3.5; }));
  CHECK(height->hasFocus());
  x({"key", "ctrl+z"});
  CHECK(wait_for([&] { return session.profile().ground.speed == before; }));
  CHECK_FALSE(view.driving());
}
