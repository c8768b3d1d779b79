// SPDX-License-Identifier: GPL-3.0-or-later
// Keys and mouse from outside the program, through the X server, as a keyboard would send them.
#include <QComboBox>
#include <QLineEdit>
#include <QProcess>

#include "support/window_fixture.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

void x(const QStringList& arguments) { REQUIRE(QProcess::execute("xdotool", arguments) == 0); }

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
      tape.mapToGlobal(QPoint(int(tape.x_of_tick(session.playhead())), tape.lane_rect(1).center().y()));
  const int to = tape.mapToGlobal(QPoint(int(tape.x_of_tick(40)), 0)).x();
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
  const QPoint field = rates->lineEdit()->mapToGlobal(rates->lineEdit()->rect().center());
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
