// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/follow_preferences.h"

#include <QApplication>

#include "pages/drive_page.h"
#include "theme/theme.h"
#include "viewport/view_widget.h"

namespace lagniappe::app {
namespace {

void show_light(const Preferences& preferences, QAction& lantern) {
  const double light = preferences.number(Pref::Light);
  const bool dark = light < 0.0 ? theme::desktop_is_dark() : light > 0.0;
  const QSignalBlocker quiet(lantern);
  lantern.setChecked(dark);
  const auto wanted = dark ? theme::Light::Lantern : theme::Light::Daylight;
  if (wanted != theme::light()) theme::apply(*qApp, wanted);
}

}  // namespace

void follow_preferences(Preferences& preferences, const Actions& actions, Heart& heart, HandlingDesk& handling,
                        DrivePage& page) {
  const auto follow = [&](Pref pref) {
    if (pref == Pref::MouseSpeed || pref == Pref::MouseUpsideDown)
      page.view().set_mouse(preferences.number(Pref::MouseSpeed), preferences.is_on(Pref::MouseUpsideDown));
    if (pref == Pref::SnapshotEvery) handling.set_snapshot_every(qint64(60.0 * preferences.number(pref)));
    if (pref == Pref::DrawRate) heart.set_limit(int(preferences.number(pref)));
    if (pref == Pref::Light && preferences.is_set(pref)) show_light(preferences, *actions[Act::Lantern]);
  };
  for (const PrefRow& row : pref_rows()) follow(row.pref);
  QObject::connect(&preferences, &Preferences::changed, &page, [follow, &preferences, &actions](Pref pref) {
    follow(pref);
    if (pref == Pref::Light) show_light(preferences, *actions[Act::Lantern]);
  });
}

void show_keys(const Actions& actions, DrivePage& page) {
  page.view().set_hint_keys({actions.key_text(Act::OpenCourse), actions.key_text(Act::Drive),
                             actions.key_text(Act::Pause), actions.key_text(Act::TickBack),
                             actions.key_text(Act::SingleTick), actions.key_text(Act::FirstPerson),
                             actions.key_text(Act::Keys)});
}

}  // namespace lagniappe::app
