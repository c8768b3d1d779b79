// SPDX-License-Identifier: GPL-3.0-or-later
#include "actions.h"

#include <QWidget>

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr ActRow kRows[] = {
    {Act::OpenCourse, "Course", "Open course or model...", "Ctrl+O",
     "A course (*.course.json) or a model (*.glb, *.gltf, *.obj); a file can also be dropped on the window",
     "folder-open", false},
    {Act::OpenProfile, "Course", "Open profile...", "Ctrl+P",
     "Another way of moving (*.profile.json); the character goes on from where it is", "gauge", false},
    {Act::Quit, "Course", "Quit", "Ctrl+Q", "Close Lagniappe", "", false},
    {Act::Drive, "Drive", "Drive", "Enter", "Give mouse and keys to the character; Esc takes them back",
     "footprints", false},
    {Act::ToStart, "Drive", "Back to the start mark", "Home", "Put the character back to where a run begins",
     "rotate-ccw", false},
    {Act::Pause, "Drive", "Pause", "P", "Stand still between two ticks; drawing goes on", "pause", true},
    {Act::SingleTick, "Drive", "Single tick", ".", "Pause, and do one tick with what is held now",
     "step-forward", false},
    {Act::Slower, "Drive", "Slower", "[",
     "Slow motion: half, a quarter, a tenth; the ticks stay as long as they are", "", false},
    {Act::Faster, "Drive", "Faster", "]", "Back towards real time", "", false},
    {Act::FirstPerson, "View", "First person", "V", "Look out of the character's eyes, or from behind it",
     "eye", true},
    {Act::Interpolated, "View", "Interpolated drawing", "I",
     "Draw between the last two ticks; off: draw ticks as they are. Feel the difference at 20 ticks/s", "",
     true},
    {Act::Capsule, "View", "Capsule", "B",
     "The capsule at the tick's position; how far it leads the drawn figure is the interpolation's lag",
     "person-standing", true},
    {Act::Contacts, "View", "Contacts", "F2",
     "Where the last tick touched, with normals: ground in green (steep: violet), sweeps in red", "crosshair",
     true},
    {Act::Probe, "View", "Ground probe", "F3",
     "How far down the last tick looked for ground, and where it found it", "locate", true},
    {Act::Arrows, "View", "Wish and velocity", "F4",
     "What is asked for (gold) and what is (teal); 25 cm for each m/s", "route", true},
    {Act::Grid, "View", "Metre grid", "G", "Lines every metre on what faces up, stronger every five",
     "grid-3x3", true},
    {Act::FullScreen, "View", "Full screen", "F11", "Use the whole screen", "", true},
    {Act::Keys, "Help", "Keys", "F1", "All keys on one sheet", "keyboard", false},
    {Act::About, "Help", "About Lagniappe", "", "Version and licences", "", false},
};

// A key on its own also works while Shift is held for a sprint, when the keyboard sends another one.
QList<QKeySequence> shortcuts_of(const QString& shortcut) {
  QList<QKeySequence> list = {QKeySequence(shortcut)};
  if (shortcut == "Enter") list.append(QKeySequence(Qt::Key_Return));  // Keyboards have two of them.
  if (shortcut.size() != 1) return list;
  const QString plain = ".[]", shifted = ">{}";
  const auto at = plain.indexOf(shortcut);
  list.append(QKeySequence("Shift+" + (at < 0 ? shortcut : QString(shifted[at]))));
  if (at >= 0) list.append(QKeySequence(QString(shifted[at])));
  return list;
}

}  // namespace

std::span<const ActRow> act_rows() { return kRows; }

Actions::Actions(QWidget* window) {
  for (const ActRow& row : kRows) {
    auto* action = new QAction(window->tr(row.text), window);
    action->setCheckable(row.checkable);
    if (*row.shortcut != '\0') action->setShortcuts(shortcuts_of(row.shortcut));
    const QString key = action->shortcut().toString(QKeySequence::NativeText);
    action->setToolTip(window->tr(row.tip) + (key.isEmpty() ? "" : "  (" + key + ")"));
    if (*row.icon != '\0') action->setIcon(theme::icon(row.icon));
    action->setIconVisibleInMenu(false);
    action->setObjectName(row.text);
    if (row.act == Act::Interpolated) action->setIconText(window->tr("Interpolated"));
    if (row.act == Act::SingleTick) action->setIconText(window->tr("Tick"));
    window->addAction(action);
    actions_.insert(static_cast<int>(row.act), action);
  }
}

QList<QAction*> Actions::in_order() const {
  QList<QAction*> list;
  for (const ActRow& row : kRows) list.append((*this)[row.act]);
  return list;
}

}  // namespace lagniappe::app
