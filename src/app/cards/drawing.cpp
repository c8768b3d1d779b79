// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/drawing.h"

#include <algorithm>

namespace lagniappe::app {

void put(Profile& profile, const char* path, double value) {
  const ProfileField& field = *find_field(path);
  field.set_typed(profile, std::clamp(value, field.low, field.high));
}

QString metres_text(double value) { return QString("%1 m").arg(value, 0, 'f', std::abs(value) < 10.0 ? 2 : 1); }

}  // namespace lagniappe::app
