// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/drive_keys.h"

#include <Qt>

namespace lagniappe::app {
namespace {

using Push = DriveSession::Push;

constexpr DriveKey kKeys[] = {
    {Qt::Key_W, Qt::Key_Up, Push::Forward, "W / Up", "Walk forward"},
    {Qt::Key_S, Qt::Key_Down, Push::Back, "S / Down", "Walk back"},
    {Qt::Key_A, Qt::Key_Left, Push::Left, "A / Left", "Walk left"},
    {Qt::Key_D, Qt::Key_Right, Push::Right, "D / Right", "Walk right"},
    {Qt::Key_Space, 0, Action::Jump, "Space", "Jump; up while flying"},
    {Qt::Key_Shift, 0, Action::Sprint, "Shift", "Sprint; fly faster"},
    {Qt::Key_C, 0, Action::Crouch, "C", "Crouch while held; down while flying"},
    {Qt::Key_X, 0, Action::Lie, "X", "Lie down, or get up"},
    {Qt::Key_Z, 0, Action::Climb, "Z", "Climb, or what the table of states does with it"},
    {Qt::Key_F, 0, Action::Fly, "F", "Fly, or stop flying"},
    {Qt::Key_R, 0, Action::Reset, "R", "Back to the start mark"},
    {Qt::Key_E, 0, Feel{3.0}, "E", "Held: the value touched last, ×3"},
    {Qt::Key_Q, 0, Feel{1.0 / 3.0}, "Q", "Held: the value touched last, ÷3"},
};

}  // namespace

std::span<const DriveKey> drive_keys() { return kKeys; }

std::optional<DriveKeyDoes> drive_key(const QKeyEvent& event) {
  const int key = key_at_place(event);
  if (key == 0) return std::nullopt;
  for (const DriveKey& k : kKeys) {
    if (key == k.key || (k.other_key != 0 && key == k.other_key)) return k.does;
  }
  return std::nullopt;
}

}  // namespace lagniappe::app
