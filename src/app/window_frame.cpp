// SPDX-License-Identifier: GPL-3.0-or-later
#include "window_frame.h"

#include <QDropEvent>
#include <QMessageBox>
#include <QMimeData>
#include <QScreen>
#include <algorithm>

#include "viewport/view_widget.h"
#include "widgets/message_bar.h"

namespace lagniappe::app {
namespace {

constexpr QSize kFrame(2, 34);  // Of a window that is not maximised, with its title: about what desktops draw.

class FileDrops : public QObject {
 public:
  FileDrops(QWidget& window, std::function<void(const QString&)> open)
      : QObject(&window), open_(std::move(open)) {
    window.setAcceptDrops(true);
    window.installEventFilter(this);
  }
  bool eventFilter(QObject* watched, QEvent* event) override {
    if (event->type() != QEvent::DragEnter && event->type() != QEvent::Drop)
      return QObject::eventFilter(watched, event);
    auto* drop = static_cast<QDropEvent*>(event);
    const QList<QUrl> urls = drop->mimeData()->urls();
    const QString path = urls.size() == 1 ? urls.first().toLocalFile() : QString();
    if (path.isEmpty()) return true;
    drop->acceptProposedAction();
    if (event->type() == QEvent::Drop) open_(path);
    return true;
  }

 private:
  std::function<void(const QString&)> open_;
};

}  // namespace

void accept_files(QWidget& window, std::function<void(const QString&)> open) {
  new FileDrops(window, std::move(open));
}

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

void tell_trouble(ViewWidget& view, MessageBar& messages) {
  QObject::connect(
      &view, &ViewWidget::frame_shown, &messages,
      [&view, &messages] {
        if (view.trouble().isEmpty()) return;
        messages.show_problem(QObject::tr("The view cannot be drawn"), view.trouble());
      },
      Qt::SingleShotConnection);
}

}  // namespace lagniappe::app
