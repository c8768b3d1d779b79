// SPDX-License-Identifier: GPL-3.0-or-later
// Numbers that hands make, as files have them: 1.9, and not 1.9000000000000001.
#pragma once

#include <QString>
#include <cmath>

namespace lagniappe::app {

// Returns the multiple of `unit`, a power of ten, that is nearest to `value`, to the bits of its decimal
// digits.
inline double plain_number(double value, double unit) {
  return QString::number(std::round(value / unit) * unit, 'g', 12).toDouble();
}

// The same to so many digits that count.
inline double with_digits(double value, int digits) { return QString::number(value, 'g', digits).toDouble(); }

}  // namespace lagniappe::app
