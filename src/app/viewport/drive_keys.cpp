// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/drive_keys.h"

#include <Qt>

namespace lagniappe::app {
namespace {

using Push = DriveSession::Push;

constexpr DriveKey kKeys[] = {
    {Qt::Key_W, Qt::Key_Up, Push::Forward, "Walk forward"},
    {Qt::Key_S, Qt::Key_Down, Push::Back, "Walk back"},
    {Qt::Key_A, Qt::Key_Left, Push::Left, "Walk left"},
    {Qt::Key_D, Qt::Key_Right, Push::Right, "Walk right"},
    {Qt::Key_Space, 0, Action::Jump, "Jump; up while flying"},
    {Qt::Key_Shift, 0, Action::Sprint, "Sprint; fly faster"},
    {Qt::Key_C, 0, Action::Crouch, "Crouch while held; down while flying"},
    {Qt::Key_X, 0, Action::Lie, "Lie down, or get up"},
    {Qt::Key_Z, 0, Action::Climb, "Climb, or what the table of states does with it"},
    {Qt::Key_F, 0, Action::Fly, "Fly, or stop flying"},
    {Qt::Key_R, 0, Action::Reset, "Back to the start mark"},
    {Qt::Key_E, 0, Feel{3.0}, "Held: the value touched last, ×3"},
    {Qt::Key_Q, 0, Feel{1.0 / 3.0}, "Held: the value touched last, ÷3"},
};

QString name_of(int key) {
  return key == Qt::Key_Shift ? QString("Shift") : QKeySequence(key).toString(QKeySequence::NativeText);
}

}  // namespace

QString DriveKey::keys_text() const {
  return other_key == 0 ? name_of(key) : name_of(key) + " / " + name_of(other_key);
}

DriveKeys::DriveKeys() : rows_(std::begin(kKeys), std::end(kKeys)) {}

std::optional<DriveKeyDoes> DriveKeys::of(const QKeyEvent& event) const {
  const int key = key_at_place(event);
  if (key == 0) return std::nullopt;
  for (const DriveKey& k : rows_) {
    if (key == k.key || (k.other_key != 0 && key == k.other_key)) return k.does;
  }
  return std::nullopt;
}

QString DriveKeys::set(std::size_t row, int key) {
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    if (i != row && (rows_[i].key == key || rows_[i].other_key == key)) return rows_[i].text;
  }
  rows_[row].key = key;
  return {};
}

void DriveKeys::set_back(std::size_t row) { rows_[row].key = kKeys[row].key; }
bool DriveKeys::is_set(std::size_t row) const { return rows_[row].key != kKeys[row].key; }

}  // namespace lagniappe::app
