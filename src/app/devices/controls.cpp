// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/controls.h"

#include <algorithm>

namespace lagniappe::app {
namespace {

const Vec2& farther(const Vec2& a, const Vec2& b) { return length(b) > length(a) ? b : a; }

}  // namespace

Controls::Controls(DriveSession& session, QObject* parent) : QObject(parent), session_(session) {
  set_name(kHands, tr("keys and mouse"));
  set_name(kScreenPad, tr("on-screen pad"));
}

void Controls::set_name(int device, const QString& name) { names_[device] = name.toStdString(); }

void Controls::set_driving(bool driving) {
  driving_ = driving;
  let_all_go();
}

bool Controls::press(const Control& control, const Does& does, double since_frame) {
  const bool held = is_held(does);
  if (!down_.emplace(control, does).second) return false;
  tell_device(control.device);
  if (!held) begin(does, since_frame);
  return true;
}

void Controls::begin(const Does& does, double since_frame) {
  const auto* push = std::get_if<DriveSession::Push>(&does);
  if (const auto* command = std::get_if<Command>(&does)) {
    emit command_asked(*command);
  } else if (!driving_) {
    if (push != nullptr) emit pushed_undriven();
  } else if (push != nullptr) {
    session_.push(*push, true, since_frame);
  } else if (const auto* feel = std::get_if<Feel>(&does)) {
    emit feel_asked(feel->factor);
  } else {
    session_.hold(std::get<Action>(does), true, since_frame);
  }
}

bool Controls::let_go(const Control& control, double since_frame) {
  const auto down = down_.find(control);
  if (down == down_.end()) return false;
  const Does does = down->second;
  down_.erase(down);
  tell_device(control.device);
  if (driving_ && !is_held(does)) end(does, since_frame);
  return true;
}

void Controls::end(const Does& does, double since_frame) {
  if (const auto* push = std::get_if<DriveSession::Push>(&does)) {
    session_.push(*push, false, since_frame);
  } else if (std::holds_alternative<Feel>(does)) {
    emit feel_asked(0.0);
  } else if (const auto* action = std::get_if<Action>(&does)) {
    session_.hold(*action, false, since_frame);
  }
}

bool Controls::is_pushed(const Sticks& sticks) const {
  const double dead_zone = session_.profile().look.dead_zone;
  return stick_push(sticks.move, dead_zone) > 0.0 || stick_push(sticks.look, dead_zone) > 0.0;
}

// Whether it does anything to the character now.
bool Controls::is_in_use(int device) const {
  const bool holds = std::any_of(down_.begin(), down_.end(), [&](const auto& down) {
    return down.first.device == device && (std::holds_alternative<Action>(down.second) ||
                                           std::holds_alternative<DriveSession::Push>(down.second));
  });
  const auto sticks = sticks_.find(device);
  return holds || (sticks != sticks_.end() && is_pushed(sticks->second));
}

// Who did something last drives; who lets go leaves it to whom still holds something.
void Controls::tell_device(int changed) {
  if (!driving_) return;
  if (is_in_use(changed)) return session_.drive_with(names_[changed]);
  for (const auto& [device, name] : names_)
    if (is_in_use(device)) return session_.drive_with(name);
}

bool Controls::is_steered() const { return is_pushed(sticks()); }

void Controls::move(int device, const Sticks& sticks, double since_frame) {
  sticks_[device] = sticks;
  if (!driving_) return;
  tell_device(device);
  session_.steer(this->sticks(), since_frame);
}

void Controls::turn_by(const Vec2& mouse_counts) {
  session_.drive_with(names_[kHands]);
  session_.turn_by(mouse_counts);
}

void Controls::lose(int device, double since_frame) {
  std::vector<Control> its;
  for (const auto& [control, does] : down_)
    if (control.device == device) its.push_back(control);
  for (const Control& control : its) let_go(control, since_frame);
  if (sticks_.contains(device)) move(device, {}, since_frame);
  sticks_.erase(device);
}

// Buttons that are still down count only from their next press on; a stick counts for where it is.
void Controls::let_all_go() {
  if (is_held(Feel{3.0}) || is_held(Feel{1.0 / 3.0})) emit feel_asked(0.0);
  down_.clear();
  session_.release_all();
  if (driving_) session_.steer(sticks());
}

bool Controls::is_held(const Does& does) const {
  return std::any_of(down_.begin(), down_.end(), [&](const auto& down) { return down.second == does; });
}

Sticks Controls::sticks() const {
  Sticks all;
  for (const auto& [device, sticks] : sticks_)
    all = {farther(all.move, sticks.move), farther(all.look, sticks.look)};
  return all;
}

}  // namespace lagniappe::app
