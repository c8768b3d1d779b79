// SPDX-License-Identifier: GPL-3.0-or-later
// A real window with the demo course, and ways to wait and to look at it.
#pragma once

#include <QSettings>
#include <QTemporaryDir>
#include <QTest>
#include <catch2/catch.hpp>
#include <fstream>
#include <memory>

#include "main_window.h"
#include "pages/drive_page.h"
#include "pages/transport.h"
#include "tape/tape.h"
#include "viewport/view_widget.h"
#include "widgets/message_bar.h"

namespace lagniappe::app::test {

inline const QString kSource = QStringLiteral(LAGNIAPPE_SOURCE_DIR);
inline const QString kDemo = kSource + "/courses/tidewheel.course.json";

// Waits until `fine` holds, while the window lives on; false after a minute, which is long even where two
// displays are drawn by a single busy processor.
template <typename Fine>
bool wait_for(Fine fine) {
  return QTest::qWaitFor(fine, 60000);
}

struct WindowFixture {
  QTemporaryDir folder;
  QSettings settings{folder.filePath("settings.ini"), QSettings::IniFormat};
  QString chosen_file;  // What the file dialog answers.
  static QSettings& with_study(QSettings& settings, const QString& folder) {
    settings.setValue("study", folder);
    return settings;
  }
  MainWindow window{with_study(settings, folder.filePath("study")),
                    {[this](QWidget*, const QString&, const QString&) { return chosen_file; },
                     [this](QWidget*, const QString&, const QString&, const QString&) { return chosen_file; }}};
  DriveSession& session = window.session();
  ViewWidget& view = window.view();

  WindowFixture() {
    window.resize(1280, 800);
    window.show();
    REQUIRE(QTest::qWaitForWindowExposed(&window));
    window.activateWindow();
    open(kDemo);
  }
  void open(const QString& path) {
    window.open(path);
    REQUIRE(wait_for([&] { return !window.loader().busy(); }));
  }
  QString file(const QString& name, const std::string& text) const {
    const QString path = folder.filePath(name);
    std::ofstream(path.toStdString(), std::ios::binary) << text;
    return path;
  }
  void drive() {
    window.activateWindow();
    window.actions()[Act::Drive]->trigger();
    REQUIRE(view.driving());
  }
  // The hand moves the mouse while one drives.
  void move_mouse(const QPoint& by) {
    const QPoint middle = PointerTurn::exact(view.mapToGlobal(view.rect().center()));
    QMouseEvent move(QEvent::MouseMove, view.mapFromGlobal(middle) + by, middle + by, Qt::NoButton,
                     Qt::NoButton, Qt::NoModifier);
    QCoreApplication::sendEvent(&view, &move);
  }
  // An action, once it is enabled.
  void trigger(Act act) {
    REQUIRE(wait_for([&] { return window.actions()[act]->isEnabled(); }));
    window.actions()[act]->trigger();
  }
  // Drives by a script until all rests, by a time that goes as fast as it is computed.
  void follow_to_rest(const InputScript& script, double seconds) {
    constexpr double kFrame = 0.05, kLongest = 60.0;  // s.
    session.follow(script, seconds);
    const auto rests = [&] { return !session.following() && session.resting(); };
    for (double gone = 0.0; gone < kLongest && !rests(); gone += kFrame) session.advance(kFrame);
    REQUIRE(rests());
    next_picture();
  }
  // Lets at least one more frame be drawn and returns its pixels.
  QImage next_picture() {
    // What is painted before the next beat, as by a bar that goes, is not yet of now.
    int shown = 0;
    bool beaten = false;
    const auto beats = QObject::connect(&window.heart(), &Heart::beat, [&] { beaten = true; });
    const auto connection = QObject::connect(&view, &ViewWidget::frame_shown, [&] { shown += beaten; });
    REQUIRE(wait_for([&] {
      view.draw_anew();
      return shown >= 2;
    }));
    QObject::disconnect(connection);
    QObject::disconnect(beats);
    return view.picture();
  }
};

// Share of pixels that differ clearly between two pictures of one size.
inline double difference(const QImage& a, const QImage& b) {
  if (a.size() != b.size()) return 1.0;
  int differ = 0;
  for (int y = 0; y < a.height(); ++y) {
    for (int x = 0; x < a.width(); ++x) {
      const QColor p = a.pixelColor(x, y), q = b.pixelColor(x, y);
      differ +=
          std::abs(p.red() - q.red()) + std::abs(p.green() - q.green()) + std::abs(p.blue() - q.blue()) > 40;
    }
  }
  return double(differ) / (a.width() * a.height());
}

}  // namespace lagniappe::app::test
