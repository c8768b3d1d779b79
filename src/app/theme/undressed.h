// SPDX-License-Identifier: GPL-3.0-or-later
// While one lives the application's style sheet is off. What is put together from the inside out would have all
// of its parts styled anew at every level: of a window's two seconds that was all but a fifth.
#pragma once

#include <QApplication>

namespace lagniappe::app::theme {

class Undressed {
 public:
  Undressed() : sheet_(qApp->styleSheet()) { qApp->setStyleSheet({}); }
  // Unless another theme was put on meanwhile.
  ~Undressed() {
    if (qApp->styleSheet().isEmpty()) qApp->setStyleSheet(sheet_);
  }
  Undressed(const Undressed&) = delete;
  Undressed& operator=(const Undressed&) = delete;

 private:
  QString sheet_;
};

}  // namespace lagniappe::app::theme
