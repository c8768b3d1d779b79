// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>
#include <QTextDocument>

namespace lagniappe::app {

// A tool tip that shows a text as it is, also one from a file that looks like HTML.
inline QString plain_tip(const QString& text) {
  return Qt::mightBeRichText(text)
             ? text.toHtmlEscaped().replace('\n', "<br>").prepend("<span>").append("</span>")
             : text;
}

}  // namespace lagniappe::app
