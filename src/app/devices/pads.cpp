// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/pads.h"

#include <algorithm>

namespace lagniappe::app {

Pads::Pads(Controls& controls, const Bindings& bindings, Heart& heart, QObject* parent)
    : QObject(parent), controls_(controls), bindings_(bindings), heart_(heart) {
  connect(&heart_, &Heart::about_to_beat, this, &Pads::pass);
}

Pads::~Pads() = default;

void Pads::start() {
  reader_ = std::make_unique<PadReader>(
      [this] { QMetaObject::invokeMethod(this, &Pads::pass, Qt::QueuedConnection); });
}

QString Pads::trouble() const {
  return reader_ == nullptr ? QString() : QString::fromStdString(reader_->trouble());
}

void Pads::pass() {
  if (reader_ == nullptr) return;
  const std::vector<PadEvent> events = reader_->take();
  if (!events.empty()) take(events, PadReader::now());
}

void Pads::take(const std::vector<PadEvent>& events, double now_s) {
  const double now = heart_.now();
  for (const PadEvent& event : events) heed(event, heart_.since_beat(now - (now_s - event.at_s)));
  emit changed();
}

void Pads::heed(const PadEvent& event, double since_frame) {
  using Kind = PadEvent::Kind;
  if (event.kind == Kind::Came) return add(event);
  if (event.kind == Kind::Unknown) return unknown_.append(QString::fromStdString(event.name));
  const auto pad = std::find_if(pads_.begin(), pads_.end(), [&](const Pad& p) { return p.id == event.pad; });
  if (pad == pads_.end()) return;
  if (event.kind == Kind::Lost) return lose(*pad, since_frame);
  if (event.kind == Kind::Sticks) {
    pad->sticks = event.sticks;
    controls_.move(Controls::kFirstPad + pad->id, pad->sticks, since_frame);
    if (controls_.is_steered()) heart_.wake();
  } else if (event.kind == Kind::Triggers) {
    pad->left_trigger = event.left_trigger;
    pad->right_trigger = event.right_trigger;
    pull(*pad, PadControl::LeftTrigger, pad->left_trigger, since_frame);
    pull(*pad, PadControl::RightTrigger, pad->right_trigger, since_frame);
  } else {
    press(*pad, event.control, event.kind == Kind::Down, since_frame);
  }
}

// Two of a kind are told apart.
QString Pads::name_for(const QString& name) const {
  const auto is_taken = [&](const QString& n) {
    return std::any_of(pads_.begin(), pads_.end(), [&](const Pad& pad) { return pad.name == n; });
  };
  QString own = name;
  for (int i = 2; is_taken(own); ++i) own = QString("%1 (%2)").arg(name).arg(i);
  return own;
}

void Pads::add(const PadEvent& event) {
  pads_.push_back({event.pad, name_for(QString::fromStdString(event.name)), {}, 0.0, 0.0, {}});
  controls_.set_name(Controls::kFirstPad + event.pad, pads_.back().name);
  emit came(pads_.back().name);
}

void Pads::lose(Pad& pad, double since_frame) {
  const QString name = pad.name;
  controls_.lose(Controls::kFirstPad + pad.id, since_frame);
  pads_.erase(pads_.begin() + (&pad - pads_.data()));
  heart_.wake();
  emit lost(name);
}

void Pads::pull(Pad& pad, PadControl trigger, double now, double since_frame) {
  const bool is_down = pad.down.contains(trigger);
  if (!is_down && now >= kPulled) press(pad, trigger, true, since_frame);
  if (is_down && now < kLetGo) press(pad, trigger, false, since_frame);
}

void Pads::press(Pad& pad, PadControl control, bool down, double since_frame) {
  const Control which{Controls::kFirstPad + pad.id, static_cast<std::uint32_t>(control)};
  heart_.wake();
  if (!down) {
    pad.down.erase(control);
    controls_.let_go(which, since_frame);
    return;
  }
  pad.down.insert(control);
  emit pressed(control);
  if (const auto does = bindings_.of(control)) controls_.press(which, *does, since_frame);
}

}  // namespace lagniappe::app
