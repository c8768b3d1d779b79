// SPDX-License-Identifier: GPL-3.0-or-later
// What is held, and on which device: all hands meet here and become the session's input. What several controls
// hold is held until all have let go; of several sticks the one that is pushed farthest counts.
#pragma once

#include <QObject>
#include <compare>
#include <map>

#include "devices/bindings.h"

namespace lagniappe::app {

struct Control {
  int device;
  std::uint32_t code;  // The device's own number of it.
  auto operator<=>(const Control&) const = default;
};

class Controls : public QObject {
  Q_OBJECT
 public:
  // Devices; pads have numbers from kFirstPad on.
  static constexpr int kHands = 0, kScreenPad = 1, kFirstPad = 2;

  explicit Controls(DriveSession& session, QObject* parent = nullptr);

  void set_name(int device, const QString& name);  // As takes tell it.
  void set_driving(bool driving);                  // Lets all go; sticks count from here on, or no more.

  // `since_frame`: s of real time after the session's last advance(). Returns false where nothing changed.
  bool press(const Control& control, const Does& does, double since_frame);
  bool let_go(const Control& control, double since_frame);
  void move(int device, const Sticks& sticks, double since_frame);
  void turn_by(const Vec2& mouse_counts);
  void lose(int device, double since_frame);  // It is gone: what it held is let go.
  void let_all_go();

  bool is_held(const Does& does) const;
  Sticks sticks() const;    // Of all devices.
  bool is_steered() const;  // One of them is out of the dead zone.

 signals:
  void feel_asked(double factor);  // 0: let go.
  void command_asked(lagniappe::app::Command command);
  void pushed_undriven();  // Somebody wants to move, and nobody drives.

 private:
  void begin(const Does& does, double since_frame);
  void end(const Does& does, double since_frame);
  bool is_pushed(const Sticks& sticks) const;
  bool is_in_use(int device) const;
  void tell_device(int changed);

  DriveSession& session_;
  std::map<Control, Does> down_;  // What was pressed is what is let go.
  std::map<int, Sticks> sticks_;  // By device.
  std::map<int, std::string> names_;
  bool driving_ = false;
};

}  // namespace lagniappe::app
