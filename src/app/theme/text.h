// SPDX-License-Identifier: GPL-3.0-or-later
// The core's texts and numbers as the window shows them.
#pragma once

#include <QString>
#include <string_view>

namespace lagniappe::app {

inline QString qt(std::string_view text) { return QString::fromUtf8(text.data(), qsizetype(text.size())); }

// "1.25 s".
inline QString seconds_text(double seconds, int digits = 2) {
  return QString::number(seconds, 'f', digits) + " s";
}

}  // namespace lagniappe::app
