// SPDX-License-Identifier: GPL-3.0-or-later
// What is typed as a value: a number, or arithmetic such as "2*0.35" or "v*1.1".
#pragma once

#include <QString>
#include <optional>

namespace lagniappe::app {

struct Evaluated {
  std::optional<double> value;
  QString why;  // Not, in words.
};

// `v` in the text is `present`; a unit behind the number is ignored.
Evaluated evaluate(const QString& text, const QString& unit, double present);

}  // namespace lagniappe::app
