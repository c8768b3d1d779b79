// SPDX-License-Identifier: GPL-3.0-or-later
// Everything is reached by the keyboard, and has a name and a role for who hears the window instead of seeing
// it.
#include <QAbstractScrollArea>
#include <QAbstractSpinBox>
#include <QAccessible>
#include <QComboBox>
#include <QMenu>
#include <QMenuBar>
#include <QScrollArea>

#include "cards/card.h"
#include "cards/cards_panel.h"
#include "cards/drawing_view.h"
#include "support/window_fixture.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

constexpr Act kPages[] = {Act::DrivePage, Act::StatesPage, Act::FieldsPage, Act::SettingsPage};

QString told(const QWidget& w) { return QString(w.metaObject()->className()) + " " + w.objectName(); }

// What Tab stops at on the page that is shown, in its order.
std::vector<QWidget*> stops(MainWindow& window) {
  std::vector<QWidget*> all;
  QWidget* at = &window;
  do {
    at = at->nextInFocusChain();
    if (at->isVisible() && at->isEnabled() && (at->focusPolicy() & Qt::TabFocus)) all.push_back(at);
  } while (at != &window && all.size() < 2000);
  return all;
}

}  // namespace

TEST_CASE_METHOD(WindowFixture, "Each menu has a letter of its own, and so has each entry") {
  auto* bar = window.findChild<QMenuBar*>();
  QString letters;
  for (QAction* menu : bar->actions()) {
    const qsizetype at = menu->text().indexOf('&');
    REQUIRE(at >= 0);
    const QChar letter = menu->text()[at + 1].toLower();
    INFO(menu->text().toStdString());
    CHECK_FALSE(letters.contains(letter));
    letters += letter;
    emit menu->menu()->aboutToShow();
    QString taken;
    for (const QAction* entry : menu->menu()->actions()) {
      const qsizetype of = entry->text().indexOf('&');
      INFO(entry->text().toStdString());
      REQUIRE(of >= 0);
      CHECK_FALSE(taken.contains(entry->text()[of + 1].toLower()));
      taken += entry->text()[of + 1].toLower();
    }
  }
  // The letters are for menus alone.
  CHECK(window.actions()[Act::Capsule]->text().remove('&') == "Capsule");
  window.activateWindow();
  view.setFocus();
  QTest::keyClick(&window, Qt::Key_V, Qt::AltModifier);
  REQUIRE(wait_for([&] { return QApplication::activePopupWidget() != nullptr; }));
  auto* open = qobject_cast<QMenu*>(QApplication::activePopupWidget());
  REQUIRE(open != nullptr);
  CHECK(open->actions().contains(window.actions()[Act::Capsule]));
  open->close();
}

TEST_CASE_METHOD(WindowFixture, "What Tab stops at has a name and a role for screen readers") {
  for (const Act page : kPages) {
    window.actions()[page]->trigger();
    QTest::qWait(50);
    int heard = 0;
    for (QWidget* w : stops(window)) {
      QAccessibleInterface* heard_as = QAccessible::queryAccessibleInterface(w);
      REQUIRE(heard_as != nullptr);
      INFO(window.actions()[page]->text().toStdString() << ": " << told(*w).toStdString());
      // What only scrolls is heard by what is in it.
      if (qobject_cast<QScrollArea*>(w) != nullptr) continue;
      // A box is heard by its own name, not by that of the line in it.
      if (qobject_cast<QAbstractSpinBox*>(w->parent()) != nullptr ||
          qobject_cast<QComboBox*>(w->parent()) != nullptr)
        continue;
      CHECK_FALSE(heard_as->text(QAccessible::Name).isEmpty());
      CHECK(heard_as->role() != QAccessible::NoRole);
      ++heard;
    }
    CHECK(heard > 10);
  }
}

TEST_CASE_METHOD(WindowFixture,
                 "Tab goes to view, tape, ledger, cards and matrix, and where it is can be seen") {
  const auto reaches = [&](const QWidget& part) {
    for (QWidget* w : stops(window))
      if (w == &part || part.isAncestorOf(w)) return w;
    return static_cast<QWidget*>(nullptr);
  };
  for (QWidget* part :
       std::initializer_list<QWidget*>{&view, &window.page().tape(), window.findChild<QWidget*>("ledger"),
                                       window.findChild<QWidget*>("side")}) {
    INFO(told(*part).toStdString());
    CHECK(reaches(*part) != nullptr);
  }
  // The chosen handle of a drawing is heard.
  window.activateWindow();
  CardsPanel& cards = window.page().cards();
  cards.bring_up("jump");
  auto* drawing = cards.card("jump")->findChild<DrawingView*>();
  drawing->setFocus(Qt::TabFocusReason);
  const auto heard = [&] {
    return QAccessible::queryAccessibleInterface(drawing)->text(QAccessible::Description).toStdString();
  };
  REQUIRE(drawing->handles().size() > 1);
  const auto count = std::to_string(drawing->handles().size());
  CHECK(heard().find(drawing->handles()[0].name.toStdString()) == 0);
  CHECK(heard().find(", 1 of " + count) != std::string::npos);
  const std::string before = heard();
  QTest::keyClick(drawing, Qt::Key_Up);
  CHECK(heard() != before);  // Its value.
  QTest::keyClick(drawing, Qt::Key_Space);
  CHECK(heard().find(", 2 of " + count) != std::string::npos);
}

TEST_CASE_METHOD(WindowFixture,
                 "Where the keyboard is can be seen: another picture with the focus than without") {
  window.activateWindow();
  for (const Act page : kPages) {
    window.actions()[page]->trigger();
    QTest::qWait(50);
    const auto all = stops(window);
    for (std::size_t i = 0; i < all.size(); ++i) {
      QWidget* w = all[i];
      if (w == &view || w->width() == 0 || qobject_cast<QScrollArea*>(w) != nullptr) continue;
      INFO(window.actions()[page]->text().toStdString()
           << ": " << told(*w).toStdString() << " " << w->accessibleName().toStdString());
      all[i == 0 ? 1 : 0]->setFocus(Qt::TabFocusReason);
      QCoreApplication::processEvents();
      const QImage without = w->grab().toImage();
      w->setFocus(Qt::TabFocusReason);
      QCoreApplication::processEvents();
      if (!w->hasFocus()) continue;
      CHECK(difference(without, w->grab().toImage()) > 0.0);
    }
  }
}
