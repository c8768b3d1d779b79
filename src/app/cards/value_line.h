// SPDX-License-Identifier: GPL-3.0-or-later
// What a number's field does to a desk's values, whichever value it is.
#pragma once

#include <functional>

#include "cards/value_field.h"
#include "session/values_desk.h"

namespace lagniappe::app {

// What is typed is a change of its own (gesture 0), what one press of a key nudges is one. Touching it attends
// to `path`: that value is then felt. `stays`: the title where it is refused.
void connect_line(ValueField& field, ValuesDesk& desk, const QString& path, const QString& stays,
                  const std::function<void(double value, int gesture)>& change);

}  // namespace lagniappe::app
