// SPDX-License-Identifier: GPL-3.0-or-later
#include "application.h"

#include <QLabel>
#include <QLocale>
#include <QMessageBox>
#include <clocale>

#include "keys/key_rule.h"
#include "keys/wheel_rule.h"
#include "theme/theme.h"
#include "viewport/canvas.h"

namespace lagniappe::app {
namespace {

// Labels show names and sentences that come from files. Left to themselves they take what looks like HTML for
// it, pictures and links included; here only what asks to be rich is. The box about ourselves writes its own.
class PlainTexts : public QObject {
 public:
  using QObject::QObject;
  bool eventFilter(QObject* watched, QEvent* event) override {
    auto* label = event->type() == QEvent::Polish ? qobject_cast<QLabel*>(watched) : nullptr;
    const bool tip = label != nullptr && label->inherits("QTipLabel");  // See plain_tip().
    const bool box = label != nullptr && qobject_cast<QMessageBox*>(label->parent()) != nullptr;
    if (label != nullptr && label->textFormat() == Qt::AutoText && !tip && !box)
      label->setTextFormat(Qt::PlainText);
    return QObject::eventFilter(watched, event);
  }
};

// Qt sets the environment's locale for the whole program. Guards, scripts, files and fields all write numbers
// with a point; a comma in some of them would make two kinds of number.
void write_numbers_with_points() {
  std::setlocale(LC_NUMERIC, "C");
  QLocale::setDefault(QLocale::c());
}

}  // namespace

void choose_display(double scale) {
  // Looking round with the mouse puts the pointer back to the middle, which Wayland lets no program do; its X
  // server does it for us. Who sets QT_QPA_PLATFORM decides otherwise, and looks round as far as the screen
  // goes.
  const auto is_set = [](const char* name) { return !qEnvironmentVariableIsEmpty(name); };
  if (is_set("WAYLAND_DISPLAY") && is_set("DISPLAY") && !is_set("QT_QPA_PLATFORM"))
    qputenv("QT_QPA_PLATFORM", "xcb");
  if (scale > 0.0 && !is_set("QT_SCALE_FACTOR")) qputenv("QT_SCALE_FACTOR", QByteArray::number(scale));
  choose_opengl();
}

void begin_application(QApplication& application, bool lantern) {
  write_numbers_with_points();
  (void)theme::desktop_is_dark();
  theme::apply(application, lantern ? theme::Light::Lantern : theme::Light::Daylight);
  new KeyRule(&application);
  new WheelRule(&application);
  application.installEventFilter(new PlainTexts(&application));
}

}  // namespace lagniappe::app
