// SPDX-License-Identifier: GPL-3.0-or-later
// Settings: each does what it says at once, is kept, and refuses what would do harm.
#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>

#include "pages/bindings_sheet.h"
#include "pages/settings_page.h"
#include "support/window_fixture.h"
#include "theme/theme.h"
#include "widgets/key_button.h"
#include "widgets/shortcut_sheet.h"

using namespace lagniappe;
using namespace lagniappe::app;
using namespace lagniappe::app::test;

namespace {

struct SettingsFixture : WindowFixture {
  SettingsPage* page = window.findChild<SettingsPage*>();

  SettingsFixture() {
    window.activateWindow();
    QTest::keyClick(&window, Qt::Key_0, Qt::ControlModifier);
    REQUIRE(page->isVisible());
  }
  template <typename Field>
  Field* field(const char* key) {
    auto* found = page->findChild<Field*>(key);
    REQUIRE(found != nullptr);
    return found;
  }
  KeyButton* key(const QString& of) {
    for (KeyButton* button : page->findChildren<KeyButton*>())
      if (button->accessibleName() == of) return button;
    FAIL("no key for " << of.toStdString());
    return nullptr;
  }
  void change_key(const QString& of, Qt::Key to, Qt::KeyboardModifiers with = {}) {
    KeyButton* button = key(of);
    button->setFocus();
    QTest::keyClick(button, Qt::Key_Space);
    REQUIRE(button->waits());
    QTest::keyClick(button, to, with);
    CHECK_FALSE(button->waits());
  }
  double turned_by(int pixels, bool up = false) {
    window.actions()[Act::DrivePage]->trigger();
    drive();
    const Vec2 before = session.look();
    move_mouse(up ? QPoint(0, -pixels) : QPoint(pixels, 0));
    REQUIRE(session.look() != before);
    const Vec2 turned = session.look() - before;
    QTest::keyClick(&view, Qt::Key_Escape);
    return up ? turned.y : turned.x;
  }
  bool walks_by(Qt::Key k) {
    window.actions()[Act::DrivePage]->trigger();
    drive();
    QTest::keyPress(&view, k);
    const auto from = session.shown().run.ticks();
    REQUIRE(wait_for([&] { return session.shown().run.ticks() > from + 15; }));
    const bool walks = length(session.current().velocity_C) > 1.0;
    QTest::keyRelease(&view, k);
    REQUIRE(wait_for([&] { return length(session.current().velocity_C) < 0.01; }));
    QTest::keyClick(&view, Qt::Key_Escape);
    return walks;
  }
};

}  // namespace

TEST_CASE_METHOD(SettingsFixture, "The mouse's speed and which way is up hold at once, and are kept") {
  const double plain = turned_by(40), up = turned_by(40, true);
  CHECK(up > 0.0);
  field<QDoubleSpinBox>("mouse/speed")->setValue(2.5);
  field<QCheckBox>("mouse/upsideDown")->setChecked(true);
  CHECK(turned_by(40) == Approx(2.5 * plain).epsilon(0.02));
  CHECK(turned_by(20, true) < 0.0);
  CHECK(settings.value("mouse/speed").toDouble() == 2.5);
  CHECK(window.preferences().is_on(Pref::MouseUpsideDown));
}

TEST_CASE_METHOD(SettingsFixture, "Another key drives, the old one no more; what two have both rows say") {
  auto* sheet = page->findChild<BindingsSheet*>();
  const Vec3 first = session.current().foot_C;
  CHECK(walks_by(Qt::Key_W));
  const Vec3 ahead = session.current().foot_C - first;
  window.actions()[Act::SettingsPage]->trigger();
  CHECK(sheet->conflicts().isEmpty());
  // Of two rows the upper one has it: A walks forward now, and no more to the left.
  change_key("Driving: Walk forward", Qt::Key_A);
  CHECK(key("Driving: Walk forward")->text() == "A");
  CHECK(sheet->conflicts() == QStringList({"! A is \u201cWalk left\u201d too: it does only what this line says",
                                           "! A is \u201cWalk forward\u201d already, and does only that"}));
  const Vec3 from = session.current().foot_C;
  CHECK(walks_by(Qt::Key_A));
  const Vec3 way = session.current().foot_C - from;
  CHECK(dot(way, ahead) > 0.95 * length(way) * length(ahead));
  window.actions()[Act::SettingsPage]->trigger();
  // The second key alike.
  change_key("Driving: Walk left, second key", Qt::Key_A);
  CHECK(sheet->conflicts().size() == 2);
  change_key("Driving: Walk left, second key", Qt::Key_Backspace);
  CHECK(key("Driving: Walk left, second key")->text() == "none");
  change_key("Driving: Walk forward", Qt::Key_I);
  CHECK(key("Driving: Walk forward")->text() == "I");
  CHECK(sheet->conflicts().size() == 1);  // A shortcut of the window that does not act while one drives.
  CHECK(sheet->conflicts().front().contains("while driving, I is not"));
  CHECK(walks_by(Qt::Key_I));
  CHECK_FALSE(walks_by(Qt::Key_W));
  CHECK(window.actions()[Act::Interpolated]->isChecked());  // It drove, and did nothing else.
  // Kept, for the next window.
  Actions others(&window);
  Bindings kept;
  restore_keys(window.preferences(), others, kept);
  CHECK(kept.rows().front().code(Slot::Key) == Qt::Key_I);
  CHECK(kept.rows()[2].code(Slot::OtherKey) == 0);  // None is kept too.
  // Also two that were exchanged.
  window.actions()[Act::SettingsPage]->trigger();
  change_key("Driving: Walk back", Qt::Key_W);
  change_key("Driving: Walk forward", Qt::Key_S);
  Bindings exchanged;
  restore_keys(window.preferences(), others, exchanged);
  CHECK(exchanged.rows()[0].code(Slot::Key) == Qt::Key_S);
  CHECK(exchanged.rows()[1].code(Slot::Key) == Qt::Key_W);
  page->findChild<QPushButton*>("allKeysBack")->click();
  CHECK(key("Driving: Walk forward")->text() == "W");
  CHECK(key("Driving: Walk left, second key")->text() == "Left");
  CHECK(walks_by(Qt::Key_W));
}

TEST_CASE_METHOD(SettingsFixture, "Another key for an action: sheet, tips and lines of advice name it") {
  change_key("Help: Keys", Qt::Key_L);
  CHECK(window.messages().text().contains("L is for \u201cTrail\u201d"));
  change_key("Help: Keys", Qt::Key_W);
  CHECK(window.messages().text().contains("W drives: \u201cWalk forward\u201d"));
  change_key("Help: Keys", Qt::Key_F12);
  CHECK(window.actions()[Act::Keys]->toolTip().contains("F12"));
  CHECK(view.readouts().hint(true, true, false, false).contains("F12 lists the keys"));
  window.actions()[Act::DrivePage]->trigger();
  QTest::keyClick(&window, Qt::Key_F12);
  auto* sheet = window.findChild<ShortcutSheet*>();
  REQUIRE(wait_for([&] { return sheet->isVisible(); }));
  QStringList said;
  for (const QLabel* label : sheet->findChildren<QLabel*>()) said += label->text();
  CHECK(said.contains("F12"));
  QTest::keyClick(sheet, Qt::Key_Escape);
  QTest::keyClick(&window, Qt::Key_F1);
  CHECK_FALSE(sheet->isVisible());
  // Esc leaves a key as it is, and so does going elsewhere.
  window.actions()[Act::SettingsPage]->trigger();
  KeyButton* pause = key("Drive: Pause");
  pause->click();
  QTest::keyClick(pause, Qt::Key_Escape);
  CHECK(pause->text() == "P");
  pause->click();
  page->findChild<QLineEdit*>("keyFilter")->setFocus();
  CHECK_FALSE(pause->waits());
}

TEST_CASE_METHOD(SettingsFixture, "Keys are found by what they do and by their name") {
  QTest::keyClicks(page->findChild<QLineEdit*>("keyFilter"), "crouch");
  CHECK(key("Driving: Crouch while held; down while flying")->isVisible());
  CHECK_FALSE(key("Drive: Pause")->isVisible());
}

TEST_CASE_METHOD(SettingsFixture, "A study that cannot be written is refused; another one is kept") {
  auto* study = field<QWidget>("study");
  auto* line = study->findChild<QLineEdit*>();
  const QString before = line->text();
  const auto type = [&](const QString& path) {
    line->setFocus();
    line->selectAll();
    QTest::keyClick(line, Qt::Key_Delete);
    QTest::keyClicks(line, path);
    QTest::keyClick(line, Qt::Key_Return);
  };
  for (const char* bad : {"/proc/nowhere/study", "beside/here"}) {
    type(bad);
    CHECK(line->text() == before);
    CHECK(window.messages().text().contains(QString("\u201c%1\u201d: it must be a folder").arg(bad)));
  }
  const QString other = folder.filePath("another/study");
  type(other);
  CHECK(settings.value("study").toString() == other);
  CHECK(QDir(other).exists());
  type("");
  CHECK_FALSE(settings.contains("study"));
}

TEST_CASE_METHOD(SettingsFixture, "The theme here and the lantern of the menu are one") {
  auto* box = field<QComboBox>("lantern");
  const auto choose = [&](const char* text) {
    box->setCurrentIndex(box->findText(text));
    emit box->activated(box->currentIndex());
  };
  choose("Lantern");
  CHECK(theme::light() == theme::Light::Lantern);
  CHECK(window.actions()[Act::Lantern]->isChecked());
  window.actions()[Act::Lantern]->trigger();
  CHECK(theme::light() == theme::Light::Daylight);
  CHECK(box->currentText() == "Daylight");
  choose("as the desktop");
  CHECK_FALSE(settings.contains("lantern"));
  CHECK(theme::light() == theme::Light::Daylight);  // As it is where the tests run.
}

TEST_CASE("What the settings file has, and cannot be, is as it was at first") {
  QTemporaryDir folder;
  QSettings settings(folder.filePath("s.ini"), QSettings::IniFormat);
  settings.setValue("mouse/speed", "nonsense");
  settings.setValue("drawRate", -7);
  settings.setValue("lantern", "true");  // As it was written before.
  Preferences preferences(settings);
  CHECK(preferences.number(Pref::MouseSpeed) == 1.0);
  CHECK(preferences.number(Pref::DrawRate) == 0.0);
  CHECK(preferences.number(Pref::Light) == 1.0);
  CHECK(preferences.number(Pref::SnapshotEvery) == 5.0);
  CHECK_FALSE(preferences.text(Pref::Study).isEmpty());
}
