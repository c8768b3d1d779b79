// SPDX-License-Identifier: GPL-3.0-or-later
// The full example without a person: drives the demo course in the real window, takes pictures, writes a
// report.
#pragma once

#include <QDir>
#include <QElapsedTimer>
#include <QObject>
#include <QStringList>

#include "lagniappe/drive.h"

namespace lagniappe::app {

class MainWindow;

class ExampleRun : public QObject {
  Q_OBJECT
 public:
  // `inputs` is followed in real time once the window has a place. Pictures and report.md go to `folder`.
  ExampleRun(MainWindow& window, InputScript inputs, const QString& folder, double seconds_to_first_frame);

  void begin();

 signals:
  void done(bool fine);

 private:
  struct Scene {
    double at;  // s from the beginning of the drive.
    const char* name;
    void (*arrange)(MainWindow&);  // Before the picture; may be null.
  };
  static const std::vector<Scene>& scenes();

  void pass();  // After every frame.
  void picture(const QString& name);
  bool write_report();

  MainWindow& window_;
  InputScript inputs_;
  QDir folder_;
  double first_frame_;
  std::size_t next_scene_ = 0;
  bool arranged_ = false;
  QStringList pictures_;
  std::vector<CharacterState> states_;
  std::vector<double> frame_seconds_;
  QElapsedTimer since_frame_;
};

}  // namespace lagniappe::app
