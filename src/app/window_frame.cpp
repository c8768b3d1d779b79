// SPDX-License-Identifier: GPL-3.0-or-later
#include "window_frame.h"

#include <QMessageBox>
#include <QScreen>
#include <algorithm>

namespace lagniappe::app {
namespace {

constexpr QSize kFrame(2, 34);  // Of a window that is not maximised, with its title: about what desktops draw.

}  // namespace

void fit_screen(QWidget& window) {
  const QScreen* screen = window.screen();
  if (screen == nullptr || window.isMaximized() || window.isFullScreen()) return;
  const QRect room = screen->availableGeometry();
  window.resize(window.size().boundedTo(room.size() - kFrame));
  const QPoint last = room.bottomRight() - QPoint(window.width(), window.height());
  window.move(std::clamp(window.x(), room.left(), std::max(room.left(), last.x())),
              std::clamp(window.y(), room.top(), std::max(room.top(), last.y())));
}

void show_about(QWidget* window) {
  QMessageBox::about(
      window, QWidget::tr("About Lagniappe"),
      QWidget::tr(
          "<b>Lagniappe " LAGNIAPPE_VERSION
          "</b><p>A workbench for first- and third-person character locomotion.</p>"
          "<p>The application is free software under the GNU General Public License, version 3 or later; "
          "the core library and the command line are under the MIT licence. Icons: Lucide (ISC).</p>"));
}

}  // namespace lagniappe::app
