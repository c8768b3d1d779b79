// SPDX-License-Identifier: GPL-3.0-or-later
// Pads and the on-screen pad in the window: what they ask of it, and what is shown of them.
#pragma once

#include <QObject>
#include <QWidget>

#include "actions.h"
#include "devices/pads.h"

namespace lagniappe::app {

class BindingsSheet;
class DrivePage;
class ScreenPad;

class DeviceActions : public QObject {
  Q_OBJECT
 public:
  DeviceActions(const Actions& actions, DrivePage& page, DriveSession& session, Heart& heart,
                BindingsSheet& sheet, QObject* parent);

  Pads& pads() { return pads_; }
  ScreenPad& screen_pad() { return *screen_pad_; }

 signals:
  void note(const QString& what);

 private:
  void obey(Command command);
  QWidget* make_pane();
  void show_screen_pad(bool on);

  const Actions& actions_;
  DrivePage& page_;
  DriveSession& session_;
  Pads pads_;
  ScreenPad* screen_pad_;
};

}  // namespace lagniappe::app
