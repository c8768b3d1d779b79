// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/values_desk.h"

#include "lagniappe/files.h"

namespace lagniappe::app {

bool ValuesDesk::assign(const QString& path, const QString& text, int gesture) {
  stop_feeling();
  attend(path);
  const auto profile = with_value(now(), (path + "=" + text).toStdString());
  if (profile) return set(*profile, path, gesture);
  tell_refused(tr("%1 stays as it was").arg(path), QString::fromStdString(profile.error().what));
  return false;
}

}  // namespace lagniappe::app
