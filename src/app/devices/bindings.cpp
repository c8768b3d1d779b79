// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/bindings.h"

#include <QObject>
#include <Qt>
#include <algorithm>

namespace lagniappe::app {
namespace {

using Push = DriveSession::Push;
using P = PadControl;

struct First {
  int key, other_key;
  PadControl pad;
  Does does;
  const char* text;
};

// No mouse button at first: the mouse looks.
constexpr First kFirst[] = {
    {Qt::Key_W, Qt::Key_Up, P::CrossUp, Push::Forward, "Walk forward"},
    {Qt::Key_S, Qt::Key_Down, P::CrossDown, Push::Back, "Walk back"},
    {Qt::Key_A, Qt::Key_Left, P::CrossLeft, Push::Left, "Walk left"},
    {Qt::Key_D, Qt::Key_Right, P::CrossRight, Push::Right, "Walk right"},
    {Qt::Key_Space, 0, P::FaceLow, Action::Jump, "Jump; up while flying"},
    {Qt::Key_Shift, 0, P::LeftStickIn, Action::Sprint, "Sprint; fly faster"},
    {Qt::Key_C, 0, P::FaceRight, Action::Crouch, "Crouch while held; down while flying"},
    {Qt::Key_X, 0, P::FaceLeft, Action::Lie, "Lie down, or get up"},
    {Qt::Key_Z, 0, P::RightTrigger, Action::Climb, "Climb, or what the table of states does with it"},
    {Qt::Key_F, 0, P::FaceHigh, Action::Fly, "Fly, or stop flying"},
    {Qt::Key_R, 0, P::Back, Action::Reset, "Back to the start mark"},
    {Qt::Key_E, 0, P::RightShoulder, Feel{3.0}, "Held: the value touched last, ×3"},
    {Qt::Key_Q, 0, P::LeftShoulder, Feel{1.0 / 3.0}, "Held: the value touched last, ÷3"},
    {0, 0, P::Start, Command::Drive, "Drive, or give the mouse back"},
    {0, 0, P::RightStickIn, Command::ChangeCamera, "First person, or behind"},
};

constexpr const char* kPadNames[kPadControlCount] = {"",
                                                     "lower face button",
                                                     "right face button",
                                                     "left face button",
                                                     "upper face button",
                                                     "left shoulder",
                                                     "right shoulder",
                                                     "left trigger",
                                                     "right trigger",
                                                     "left stick in",
                                                     "right stick in",
                                                     "cross up",
                                                     "cross down",
                                                     "cross left",
                                                     "cross right",
                                                     "back",
                                                     "start"};

QString key_name(int key) {
  return key == Qt::Key_Shift ? QString("Shift") : QKeySequence(key).toString(QKeySequence::NativeText);
}

QString mouse_name(int button) {
  switch (button) {
    case Qt::LeftButton:
      return QObject::tr("left button");
    case Qt::RightButton:
      return QObject::tr("right button");
    case Qt::MiddleButton:
      return QObject::tr("middle button");
    case Qt::BackButton:
      return QObject::tr("back button");
    case Qt::ForwardButton:
      return QObject::tr("forward button");
    default:
      return QObject::tr("another button");
  }
}

bool is_key(Slot slot) { return slot == Slot::Key || slot == Slot::OtherKey; }

// Whether the row has that code where the slot's kind is bound.
bool has(const Binding& row, Slot slot, int code) {
  if (code == 0) return false;
  return is_key(slot) ? row.code(Slot::Key) == code || row.code(Slot::OtherKey) == code
                      : row.code(slot) == code;
}

Binding first_binding(const First& first) {
  return {{first.key, first.other_key, 0, static_cast<int>(first.pad)}, first.does, first.text};
}

}  // namespace

QString name_of(PadControl control) { return QObject::tr(kPadNames[static_cast<std::size_t>(control)]); }

QString code_text(Slot slot, int code) {
  if (code == 0) return {};
  if (slot == Slot::Mouse) return mouse_name(code);
  return slot == Slot::Pad ? name_of(static_cast<PadControl>(code)) : key_name(code);
}

QString Binding::keys_text() const {
  QStringList keys = {code_text(Slot::Key, code(Slot::Key)), code_text(Slot::OtherKey, code(Slot::OtherKey)),
                      code_text(Slot::Mouse, code(Slot::Mouse))};
  keys.removeAll(QString());
  return keys.join(" / ");
}

Bindings::Bindings() { set_back(); }

void Bindings::set_back() {
  rows_.clear();
  for (const First& first : kFirst) rows_.push_back(first_binding(first));
}

std::optional<Does> Bindings::of(const QKeyEvent& event) const {
  const int key = key_at_place(event);
  for (const Binding& row : rows_)
    if (has(row, Slot::Key, key)) return row.does;
  return std::nullopt;
}

std::optional<Does> Bindings::of(Qt::MouseButton button) const {
  for (const Binding& row : rows_)
    if (has(row, Slot::Mouse, button)) return row.does;
  return std::nullopt;
}

std::optional<Does> Bindings::of(PadControl control) const {
  for (const Binding& row : rows_)
    if (has(row, Slot::Pad, static_cast<int>(control))) return row.does;
  return std::nullopt;
}

void Bindings::set(std::size_t row, Slot slot, int code) {
  rows_[row].codes[static_cast<std::size_t>(slot)] = code;
}

bool Bindings::is_set(std::size_t row, Slot slot) const {
  return rows_[row].code(slot) != first_binding(kFirst[row]).code(slot);
}

std::vector<std::size_t> Bindings::conflicts(std::size_t row, Slot slot) const {
  std::vector<std::size_t> others;
  for (std::size_t i = 0; i < rows_.size(); ++i)
    if (i != row && has(rows_[i], slot, rows_[row].code(slot))) others.push_back(i);
  return others;
}

}  // namespace lagniappe::app
