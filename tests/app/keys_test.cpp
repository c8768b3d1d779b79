// SPDX-License-Identifier: GPL-3.0-or-later
// Keys by place, repeats, the one rule for focus, and the mouse at any scale: with events as keyboards send
// them.
#include <QAbstractButton>
#include <QComboBox>
#include <QLineEdit>
#include <QListWidget>

#include "keys/key_rule.h"
#include "support/window_fixture.h"
#include "viewport/pointer_turn.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

constexpr quint32 kW = 25, kA = 38, kE = 26, kF = 41, kR = 27, kX = 53, kSpace = 65, kV = 55, kBracket = 34;

QKeyEvent key(QEvent::Type type, quint32 code, int symbol, const QString& text = {}, bool repeat = false,
              Qt::KeyboardModifiers modifiers = {}) {
  return QKeyEvent(type, symbol, modifiers, code, 0, 0, text, repeat);
}

struct KeysFixture : WindowFixture {
  void send(QEvent::Type type, quint32 code, int symbol, bool repeat = false) {
    QKeyEvent event = key(type, code, symbol, {}, repeat);
    deliver(event);
  }
  // As from outside: Qt asks for shortcuts again for events that programs send, and knows no code then.
  void deliver(QKeyEvent& event) {
    QSpontaneKeyEvent::setSpontaneous(&event);
    qApp->notify(&view, &event);
  }
  void down(quint32 code, int symbol, bool repeat = false) { send(QEvent::KeyPress, code, symbol, repeat); }
  void up(quint32 code, int symbol) { send(QEvent::KeyRelease, code, symbol); }
  // What the next tick takes as its input.
  InputFrame input() {
    const std::size_t ticks = session.shown().run.ticks();
    INFO("paused " << session.paused() << ", resting " << session.resting() << ", driving " << view.driving());
    REQUIRE(wait_for([&] { return session.shown().run.ticks() > ticks + 1; }));
    return session.shown().take.inputs.back();
  }
  std::size_t presses_of(Action action) const {
    const auto& inputs = session.shown().take.inputs;
    return std::size_t(std::count_if(inputs.begin(), inputs.end(),
                                     [&](const InputFrame& f) { return f.pressed.has(action); }));
  }
};

}  // namespace

TEST_CASE_METHOD(KeysFixture,
                 "Places drive, whatever the layout has there: AZERTY, Dvorak, Cyrillic, dead keys") {
  drive();
  const int symbols[] = {Qt::Key_W, Qt::Key_Z, Qt::Key_Comma, 0x426 /* Cyrillic Tse */,
                         Qt::Key_Dead_Circumflex};
  for (const int symbol : symbols) {
    INFO(symbol);
    down(kW, symbol);
    CHECK(input().move.y == 1.0);
    up(kW, symbol);
    CHECK(input().move.y == 0.0);
  }
  // The letter W in another place does not drive; without a code, as on-screen keyboards send it, it does.
  down(52, Qt::Key_W);
  CHECK(input().move.y == 0.0);
  up(52, Qt::Key_W);
  down(0, Qt::Key_W);
  CHECK(input().move.y == 1.0);
  up(0, Qt::Key_W);
}

TEST_CASE_METHOD(KeysFixture, "A key that is let go as another symbol is let go: none stays held") {
  drive();
  down(kW, Qt::Key_W);
  down(kA, Qt::Key_A);
  up(kA, Qt::Key_AE);  // AltGr came in between.
  const InputFrame now = input();
  CHECK(now.move.x == 0.0);
  CHECK(now.move.y == 1.0);
  up(kW, 0x426);
  CHECK(input().move.y == 0.0);
}

TEST_CASE_METHOD(KeysFixture, "Two keys for one direction: it is held until both are let go") {
  drive();
  down(kW, Qt::Key_W);
  down(111, Qt::Key_Up);
  up(kW, Qt::Key_W);
  CHECK(input().move.y == 1.0);
  up(111, Qt::Key_Up);
  CHECK(input().move.y == 0.0);
}

TEST_CASE_METHOD(KeysFixture, "A repeat is neither a release nor a press, marked as one or not") {
  drive();
  for (const bool marked : {true, false}) {
    down(kSpace, Qt::Key_Space);
    input();
    for (int i = 0; i < 5; ++i) down(kSpace, Qt::Key_Space, marked);
    CHECK(input().held.has(Action::Jump));
    up(kSpace, Qt::Key_Space);
    input();
  }
  CHECK(presses_of(Action::Jump) == 2);
  for (const auto& [code, action] : {std::pair(kF, Action::Fly), std::pair(kX, Action::Lie)}) {
    const std::size_t before = presses_of(action);
    down(code, 0);
    for (int i = 0; i < 5; ++i) down(code, 0);
    input();
    up(code, 0);
    CHECK(presses_of(action) == before + 1);
  }
}

TEST_CASE_METHOD(
    KeysFixture,
    "While one drives the places that drive are the character's, also where the layout has a shortcut") {
  drive();
  const auto is_claimed = [&](quint32 code, int symbol, Qt::KeyboardModifiers modifiers = {}) {
    QKeyEvent event = key(QEvent::ShortcutOverride, code, symbol, {}, false, modifiers);
    event.ignore();
    QCoreApplication::sendEvent(&view, &event);
    return event.isAccepted();
  };
  CHECK(is_claimed(kW, Qt::Key_Comma));  // Dvorak: else it would step a tick back.
  CHECK(is_claimed(kE, Qt::Key_Period));
  CHECK_FALSE(is_claimed(kW, Qt::Key_Comma, Qt::ControlModifier));
  CHECK_FALSE(is_claimed(kV, Qt::Key_V));
}

TEST_CASE_METHOD(
    KeysFixture,
    "Shortcuts of a letter or a bracket are found by their place where the layout has something else there") {
  drive();
  down(kV, 0x41c /* Cyrillic Em */);
  CHECK(view.first_person());
  up(kV, 0x41c);
  down(kBracket, Qt::Key_Dead_Circumflex);
  CHECK(session.time_scale() == 0.5);
  QKeyEvent find =
      key(QEvent::KeyPress, 45, 0x41b, {}, false, Qt::ControlModifier);  // Ctrl and the place of K.
  deliver(find);
  CHECK(wait_for([&] { return window.findChild<QLineEdit*>("commandField")->isVisible(); }));
}

TEST_CASE_METHOD(KeysFixture,
                 "Return in any line of text finishes it and does not drive, nor does what is typed next") {
  for (const Act page : {Act::DrivePage, Act::StatesPage}) {
    trigger(page);
    for (QLineEdit* line : window.findChildren<QLineEdit*>()) {
      if (!line->isVisible() || !line->isEnabled() || line->isReadOnly()) continue;
      INFO(line->objectName().toStdString() << " " << line->placeholderText().toStdString());
      line->setFocus();
      if (!line->hasFocus()) continue;
      QTest::keyClick(line, Qt::Key_Return);
      QTest::keyClick(line, Qt::Key_Enter);
      CHECK_FALSE(view.driving());
      if (!line->hasFocus()) continue;  // The tick rate gives it back to the view.
      const QString before = line->text();
      QTest::keyClicks(line, "v");
      CHECK_FALSE(view.first_person());
      line->setText(before);
      line->setModified(false);
    }
  }
  trigger(Act::DrivePage);
  view.setFocus();
  QTest::keyClick(&view, Qt::Key_Return);
  CHECK(view.driving());
}

TEST_CASE("Keys belong to what has the focus, by one table") {
  QLineEdit line;
  QListWidget list;
  QComboBox box;
  QToolButton button;
  QWidget view;
  const auto belongs = [](const QWidget& widget, int symbol, const QString& text = {},
                          Qt::KeyboardModifiers modifiers = {}) {
    return belongs_to(widget, key(QEvent::ShortcutOverride, 0, symbol, text, false, modifiers));
  };
  for (const QWidget* widget : std::initializer_list<QWidget*>{&line, &list, &box, &button})
    CHECK(belongs(*widget, Qt::Key_Return));
  CHECK_FALSE(belongs(view, Qt::Key_Return));
  CHECK(belongs(line, Qt::Key_Home));
  CHECK(belongs(list, Qt::Key_Home));
  CHECK_FALSE(belongs(button, Qt::Key_Home));
  CHECK(belongs(line, Qt::Key_P, "p"));
  CHECK(belongs(line, Qt::Key_BracketLeft, "[", Qt::GroupSwitchModifier));
  CHECK_FALSE(belongs(list, Qt::Key_Period, "."));  // Ticks are stepped while the ledger has the focus.
  CHECK_FALSE(belongs(line, Qt::Key_S, {}, Qt::ControlModifier));
  CHECK(belongs(line, Qt::Key_A, {}, Qt::ControlModifier));
  CHECK(belongs(line, Qt::Key_Left, {}, Qt::ControlModifier));
  CHECK_FALSE(belongs(line, Qt::Key_F8));
  // Undo is the line's while there is something of its own to take back.
  CHECK_FALSE(belongs(line, Qt::Key_Z, {}, Qt::ControlModifier));
  QTest::keyClicks(&line, "17");
  CHECK(belongs(line, Qt::Key_Z, {}, Qt::ControlModifier));
  line.setReadOnly(true);
  CHECK_FALSE(belongs(line, Qt::Key_P, "p"));
}

TEST_CASE("The mouse is counted in device pixels, to the last fraction, at any scale") {
  for (const double scale : {1.0, 1.25, 1.5, 1.75, 2.0}) {
    INFO("scale " << scale);
    PointerTurn pointer;
    const QPoint middle = PointerTurn::exact(QPoint(641, 403));
    CHECK(QPointF(middle) * scale == QPointF((QPointF(middle) * scale).toPoint()));
    pointer.begin(middle, scale);
    CHECK(pointer.seen(QPointF(middle) + QPointF(300, 40)).isNull());  // Where it was before it was sent.
    QPointF turned;
    // A slow hand: a device pixel each time, put back after it.
    for (int i = 0; i < 100; ++i) turned += pointer.seen(QPointF(middle) + QPointF(1, -1) / scale);
    CHECK(turned.x() == Approx(100.0));
    CHECK(turned.y() == Approx(-100.0));
    CHECK(pointer.seen(QPointF(middle) + QPointF(200, 0) / scale).x() == Approx(200.0));  // A flick.
  }
}

TEST_CASE("Where pointers cannot be put back they are followed, and the look does not run away") {
  PointerTurn pointer;
  pointer.begin(QPoint(640, 400), 1.0);
  pointer.only_follow();
  QPointF turned;
  for (int i = 0; i <= 50; ++i) turned += pointer.seen(QPointF(640 + i, 400));
  CHECK(turned == QPointF(50, 0));
}
