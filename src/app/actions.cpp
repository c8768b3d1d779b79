// SPDX-License-Identifier: GPL-3.0-or-later
#include "actions.h"

#include <QWidget>
#include <algorithm>

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr ActRow kRows[] = {
    {Act::OpenCourse, "Course", "Open course or model...", "Ctrl+O",
     "A course (*.course.json) or a model (*.glb, *.gltf, *.obj); inputs (*.inputs.json) are played on "
     "the open one. A file can also be dropped on the window",
     "folder-open", false},
    {Act::SaveCourse, "Course", "Save course", "Ctrl+Shift+C",
     "Write the changed fields and zones into the course's file, and leave the rest of it as it is", "save",
     false},
    {Act::SaveCourseAs, "Course", "Save course as...", "Ctrl+Alt+A", "Into another file, which is opened then",
     "", false},
    {Act::CutPlayhead, "Course", "Cut through the playhead", "H",
     "Along the character's up and the way it faces", "crosshair", false},
    {Act::CutAll, "Course", "Show all fields", "Ctrl+Alt+H", "In the cut as it lies", "", false},
    {Act::AddField, "Course", "Add a field", "Ctrl+Alt+F", "A ball in the middle of the cut", "field", false},
    {Act::AddZone, "Course", "Add a zone", "Ctrl+Alt+Z", "A box in the middle of the cut", "", false},
    {Act::CopyRow, "Course", "Copy the field or zone", "Ctrl+Alt+Y", "The chosen one, beside itself", "",
     false},
    {Act::RemoveRow, "Course", "Remove the field or zone", "Ctrl+Alt+M", "The chosen one", "trash-2", false},
    {Act::Quit, "Course", "Quit", "Ctrl+Q", "Close Lagniappe", "", false},
    {Act::Undo, "Edit", "Undo", "Ctrl+Z", "Take the last change back", "undo-2", false},
    {Act::Redo, "Edit", "Redo", "Ctrl+Shift+Z", "Do again what was taken back", "", false},
    {Act::Search, "Edit", "Find anything...", "Ctrl+K",
     "Any action, value, state, piece, mark or take, by a few letters of its name", "search", false},
    {Act::OpenProfile, "Profile", "Open profile...", "Ctrl+P",
     "Another way of moving (*.profile.json); the character goes on from where it is", "gauge", false},
    {Act::SaveProfile, "Profile", "Save profile", "Ctrl+S",
     "Write the changed values into the profile's file, and leave the rest of it as it is", "save", false},
    {Act::SaveProfileAs, "Profile", "Save profile as...", "Ctrl+Alt+S", "Into another file", "", false},
    {Act::FindValue, "Profile", "Find a value", "Ctrl+F", "By its name, or by what it does", "search", false},
    {Act::KeepSnapshot, "Profile", "Keep a snapshot...", "Ctrl+M", "The values as they are now, to go back to",
     "history", false},
    {Act::CompareProfiles, "Profile", "Compare profiles...", "Ctrl+J",
     "Two of them side by side, and drive with what lies between; again: closes that", "columns-2", false},
    {Act::ChooseReference, "Profile", "Mark differences from...", "Ctrl+Alt+R",
     "Another profile than the saved one: marks and dashed drawings are against it", "", false},
    {Act::SavedAsReference, "Profile", "Mark differences from the saved values", "Ctrl+Alt+B",
     "Marks and dashed drawings are against the file again", "", false},
    {Act::ExportConstants, "Profile", "Export constants...", "Ctrl+Alt+C",
     "For a game without this core: values and what they come to, as a C++ header or JSON", "", false},
    {Act::ExportCurve, "Profile", "Export a curve...", "Ctrl+Alt+V", "As a picture (SVG) or a table (CSV)", "",
     false},
    {Act::EditGuard, "States", "Edit the guard", "Ctrl+E",
     "Of the chosen cell; where there is none one is added", "pencil", false},
    {Act::AddTransition, "States", "Add a transition", "Ctrl+Alt+T",
     "From the chosen cell's row to its column, with a guard to fill in", "", false},
    {Act::NextFiring, "States", "Next firing", "F9", "To where the chosen cell's transition fires next", "",
     false},
    {Act::PreviousFiring, "States", "Previous firing", "Shift+F9", "To where it fired before", "", false},
    {Act::WhyState, "States", "Why is it here, why not there", "Ctrl+Alt+W",
     "The changes that led to the playhead's state, and the guards to another", "search", false},
    {Act::AddState, "States", "Add a state", "Ctrl+Alt+N", "After the shown one", "", false},
    {Act::RenameState, "States", "Rename the state", "Ctrl+Alt+E", "Wherever the table names it", "", false},
    {Act::DuplicateState, "States", "Duplicate the state", "Ctrl+Alt+D", "With its transitions", "", false},
    {Act::DeleteState, "States", "Delete the state", "Ctrl+Alt+X",
     "With its transitions; what is like it keeps what it had of it", "trash-2", false},
    {Act::CheckTable, "States", "Check the table", "Ctrl+Alt+K",
     "Run the study's takes and a million random ticks through it", "route", false},
    {Act::ReadChart, "States", "Read a state chart...", "Ctrl+Alt+I", "A table from SCXML (*.scxml)",
     "folder-open", false},
    {Act::WriteChart, "States", "Write the state chart...", "Ctrl+Alt+O", "The table as SCXML, for other tools",
     "", false},
    {Act::Drive, "Drive", "Drive", "Enter",
     "Give mouse and keys to the character; Esc takes them back. From an earlier tick: drive on from there",
     "footprints", false},
    {Act::DriveWatched, "Drive", "Drive, the camera stays", "Shift+Enter",
     "The same, seen from where the camera is now: to watch the character come, turn and land", "eye", false},
    {Act::ToStart, "Drive", "Back to the start mark", "Ctrl+Home",
     "Put the character back to where a run begins, as a new take", "rotate-ccw", false},
    {Act::Pause, "Drive", "Pause", "P", "Stand still between two ticks; drawing goes on", "pause", true},
    {Act::Slower, "Drive", "Slower", "[",
     "Slow motion: half, a quarter, a tenth; the ticks stay as long as they are", "", false},
    {Act::Faster, "Drive", "Faster", "]", "Back towards real time", "", false},
    {Act::FewerTicks, "Drive", "Fewer ticks per second", "Ctrl+,", "The next lower tick rate of the list", "",
     false},
    {Act::MoreTicks, "Drive", "More ticks per second", "Ctrl+.", "The next higher tick rate of the list", "",
     false},
    {Act::FewerFrames, "Drive", "Fewer frames per second", "Alt+,", "The next lower draw rate of the list", "",
     false},
    {Act::MoreFrames, "Drive", "More frames per second", "Alt+.",
     "The next higher draw rate of the list; at last as many as the screen shows", "", false},
    {Act::TickBack, "Tape", "Tick back", ",", "The tick before", "step-back", false},
    {Act::SingleTick, "Tape", "Single tick", ".",
     "The next tick; at the end of what is being driven, one more with what is held now", "step-forward",
     false},
    {Act::ToFirst, "Tape", "To the first tick", "Home", "Playhead to the start of the take", "", false},
    {Act::ToLast, "Tape", "To the last tick", "End", "Playhead to the end of the take", "", false},
    {Act::PlayTape, "Tape", "Play the take", "T", "Play from the playhead on; again: stop", "play", true},
    {Act::Loop, "Tape", "Loop the stretch", "Ctrl+L", "Play the selected stretch over and over", "repeat",
     true},
    {Act::NextEvent, "Tape", "Next event", "Ctrl+Right", "To the next event of the chosen kind",
     "chevron-right", false},
    {Act::PreviousEvent, "Tape", "Previous event", "Ctrl+Left", "To the event before, of the chosen kind",
     "chevron-left", false},
    {Act::NextFinding, "Tape", "Next finding", "F8", "To what the examination found next", "flag", false},
    {Act::PreviousFinding, "Tape", "Previous finding", "Shift+F8", "To what it found before", "", false},
    {Act::ZoomIn, "Tape", "Zoom in", "=", "Show less time, around the playhead", "", false},
    {Act::ZoomOut, "Tape", "Zoom out", "-", "Show more time", "", false},
    {Act::ShowAll, "Tape", "Show the whole take", "0", "All of it at once", "", false},
    {Act::OpenTake, "Take", "Open take...", "Ctrl+T",
     "A take (*.take), with the course and the profile that it holds", "folder-open", false},
    {Act::TakeOver, "Take", "Take over these values", "Ctrl+Shift+V",
     "What the shown take was driven with becomes the present profile, without a file; undo has yours back", "",
     false},
    {Act::KeepStretch, "Take", "Keep the stretch as a take", "Ctrl+Shift+K",
     "The selected stretch (Shift and drag on the tape) as a take of its own", "scissors", false},
    {Act::Split, "Take", "Split at the playhead", "Ctrl+Shift+S", "Two takes instead of one", "", false},
    {Act::RenameTake, "Take", "Rename the chosen take", "Ctrl+Shift+N", "In the list of takes", "pencil",
     false},
    {Act::StarTake, "Take", "Star the chosen take", "Ctrl+Shift+J",
     "Or take the star away; what is being driven is kept with one, however short it is", "star", false},
    {Act::NoteTake, "Take", "Note on the chosen take", "Ctrl+Shift+H", "In the line under the list", "", false},
    {Act::PutAsideTake, "Take", "Put the chosen take aside", "Ctrl+Shift+D",
     "It is not deleted: Aside, over the list, has it", "trash-2", false},
    {Act::ExportTrace, "Take", "Export trace...", "Ctrl+Shift+T", "The state after every tick, as CSV", "",
     false},
    {Act::ExportLedger, "Take", "Export ledger...", "Ctrl+Shift+L",
     "What the solver did in every tick, as JSON lines", "", false},
    {Act::ExportInputs, "Take", "Export inputs...", "Ctrl+Shift+I",
     "Sticks and buttons over time (*.inputs.json): to play on any course, and for the command line", "",
     false},
    {Act::ExportPoses, "Take", "Export poses...", "Ctrl+Shift+M",
     "What a figure needs for every tick (place, turn, gait, pose), as CSV: for animation", "", false},
    {Act::ExportView, "Take", "Export picture of the view...", "Ctrl+Shift+G", "As it is shown, as PNG", "",
     false},
    {Act::ExportMoving, "Take", "Export moving picture of the view...", "Ctrl+Alt+G",
     "The selected stretch, or all of the take, as numbered PNGs: 30 for each second", "", false},
    {Act::ExportTape, "Take", "Export picture of the tape...", "Ctrl+Shift+P", "As SVG, PDF or PNG", "", false},
    {Act::ExportPlan, "Take", "Export plan and elevation...", "Ctrl+Shift+E",
     "The way over the course, as SVG, PDF or PNG", "", false},
    {Act::KeepRetake, "Retake", "Keep this", "Ctrl+R", "The retake becomes a take of its own", "check", false},
    {Act::PutBack, "Retake", "Put back", "Ctrl+B", "Back to the values that there were when the take was shown",
     "undo-2", false},
    {Act::Pin, "Retake", "Pin the ghost", "Ctrl+D", "It stays beside the take while the values change on",
     "pin", false},
    {Act::WhyParting, "Retake", "Why they part...", "Ctrl+W", "Both ledgers of the tick at which they part", "",
     false},
    {Act::RetakeUnchanged, "Retake", "Run it unchanged", "Ctrl+Shift+R", "It must be identical, to the bit", "",
     false},
    {Act::RetakeOnCourse, "Retake", "Retake on another course...", "Ctrl+Shift+O",
     "Run the same inputs on another course or model", "", false},
    {Act::BehindCamera, "Camera", "Camera behind the look", "Alt+1",
     "Held by the mouse, behind the figure's head", "", false},
    {Act::ChaseCamera, "Camera", "Camera that trails the way", "Alt+2",
     "It comes round behind where the figure goes; the stick is as it is seen", "", false},
    {Act::CarriedCamera, "Camera", "Camera at one angle", "Alt+3",
     "It keeps the angle from which it was begun, and is carried along as up turns; the stick is as it is seen",
     "", false},
    {Act::OverviewCamera, "Camera", "Camera that stays", "Alt+4",
     "It stands where it is and turns to the figure; the stick is as it is seen", "", false},
    {Act::TopCamera, "Camera", "Camera from above", "Alt+5",
     "Straight down, what was ahead at the top; the stick is as it is seen", "", false},
    {Act::SideCamera, "Camera", "Camera from the side", "Alt+6",
     "What was ahead is to the right; the stick is as it is seen", "", false},
    {Act::SecondView, "Camera", "Second view", "Alt+0",
     "Beside the first, by a camera of its own: the same drive seen from above, say", "columns-2", true},
    {Act::FirstPerson, "View", "First person", "V", "Look out of the character's eyes, or from behind it",
     "eye", true},
    {Act::Interpolated, "View", "Interpolated drawing", "I",
     "Draw between the last two ticks; off: draw ticks as they are. Feel the difference at 20 ticks/s; the "
     "Timing page has more ways",
     "", true},
    {Act::Capsule, "View", "Capsule", "B",
     "The capsule at the tick's position; how far it leads the drawn figure is the interpolation's lag",
     "person-standing", true},
    {Act::Contacts, "View", "Contacts", "F2",
     "Where the last tick touched, with normals: ground in green (steep: violet), sweeps in red", "crosshair",
     true},
    {Act::Probe, "View", "Ground probe", "F3",
     "How far down the last tick looked for ground, and where it found it", "locate", true},
    {Act::Arrows, "View", "Intent and velocity", "F4",
     "What is asked for (gold) and what is (teal); 25 cm for each m/s", "move-up-right", true},
    {Act::Grid, "View", "Metre grid", "G", "Lines every metre on what faces up, stronger every five",
     "grid-3x3", true},
    {Act::Intent, "View", "From the stick to the ground", "Ctrl+I",
     "The camera's axes, the stick and what becomes of it on the ground and its slope, with numbers",
     "move-up-right", true},
    {Act::Trail, "View", "Trail", "L", "The way around the playhead, with a dot for every tick", "route", true},
    {Act::Devices, "View", "Devices", "Ctrl+Alt+J",
     "Beside the view: each pad's sticks raw and shaped, its triggers, and when what was pressed", "", true},
    {Act::ScreenPad, "View", "On-screen pad", "Ctrl+Alt+P",
     "Sticks and buttons over the view, for fingers and the mouse, which then stays free", "", true},
    {Act::TapePane, "View", "Tape", "F5", "The time strip under the view", "", true},
    {Act::LedgerPane, "View", "Ledger", "F6", "What the solver did in the tick under the playhead", "", true},
    {Act::SidePane, "View", "Cards, takes and ghosts", "F7", "The column on the right", "", true},
    {Act::DrivePage, "View", "Drive page", "Ctrl+1", "The view, tape, ledger and cards", "footprints", true},
    {Act::StatesPage, "View", "States page", "Ctrl+2", "The table of states as a matrix", "grid-3x3", true},
    {Act::FieldsPage, "View", "Fields page", "Ctrl+3", "What pulls where, and the zones, in a cut", "field",
     true},
    {Act::TimingPage, "View", "Timing page", "Ctrl+4",
     "What is seen of a run at every tick rate and draw rate; recipes, ways to ask for ground", "ticks", true},
    {Act::Hitch, "Drive", "Hitch", "F10", "One frame that takes longer, as long as the Timing page says", "",
     false},
    {Act::ExportTiming, "Take", "Export timing...", "Ctrl+Alt+U",
     "The matrix of the Timing page as a table, or as a picture with its strips", "", false},
    {Act::SettingsPage, "View", "Settings", "Ctrl+0", "Mouse, keys, drawing, theme, scale, study",
     "sliders-horizontal", true},
    {Act::Lantern, "View", "Lantern: dark", "Ctrl+Alt+L",
     "Light on dark, or by daylight; until it is chosen, as the desktop is", "", true},
    {Act::FullScreen, "View", "Full screen", "F11", "Use the whole screen", "", true},
    {Act::Keys, "Help", "Keys", "F1", "All keys on one sheet", "keyboard", false},
    {Act::About, "Help", "About Lagniappe", "", "Version and licences", "", false},
};

// A key on its own also works while Shift is held for a sprint, when the keyboard sends another one.
QList<QKeySequence> shortcuts_of(const QString& shortcut) {
  QList<QKeySequence> list = {QKeySequence(shortcut)};
  // Keyboards have two of them.
  if (shortcut.endsWith("Enter")) list.append(QKeySequence(QString(shortcut).replace("Enter", "Return")));
  if (shortcut.size() != 1) return list;
  const QString plain = ".[],=-0", shifted = ">{}<+_)";
  const auto at = plain.indexOf(shortcut);
  list.append(QKeySequence("Shift+" + (at < 0 ? shortcut : QString(shifted[at]))));
  if (at >= 0) list.append(QKeySequence(QString(shifted[at])));
  return list;
}

void put_key(QAction& action, const ActRow& row, const QString& keys) {
  action.setShortcuts(keys.isEmpty() ? QList<QKeySequence>() : shortcuts_of(keys));
  const QString key = action.shortcut().toString(QKeySequence::NativeText);
  action.setToolTip(QObject::tr(row.tip) + (key.isEmpty() ? "" : "  (" + key + ")"));
}

const ActRow& row_of(Act act) {
  return *std::find_if(std::begin(kRows), std::end(kRows), [&](const ActRow& r) { return r.act == act; });
}

}  // namespace

std::span<const ActRow> act_rows() { return kRows; }

Actions::Actions(QWidget* window) {
  for (const ActRow& row : kRows) {
    auto* action = new QAction(window->tr(row.text), window);
    action->setCheckable(row.checkable);
    action->setAutoRepeat(!row.checkable);  // What is held does not flicker to and fro.
    put_key(*action, row, row.shortcut);
    if (*row.icon != '\0') action->setIcon(theme::icon(row.icon));
    action->setIconVisibleInMenu(false);
    action->setObjectName(row.text);
    action->setData(row.menu);
    if (row.act == Act::Interpolated) action->setIconText(window->tr("Interpolated"));
    window->addAction(action);
    actions_.insert(static_cast<int>(row.act), action);
  }
}

QString Actions::set_key(Act act, const QString& keys) {
  const QList<QKeySequence> wanted = shortcuts_of(keys);
  for (const ActRow& row : kRows) {
    const QList<QKeySequence> has = (*this)[row.act]->shortcuts();
    const bool taken =
        std::any_of(wanted.begin(), wanted.end(), [&](const auto& k) { return has.contains(k); });
    if (row.act != act && taken) return QObject::tr(row.text);
  }
  restore_key(act, keys);
  return {};
}

void Actions::restore_key(Act act, const QString& keys) { put_key(*(*this)[act], row_of(act), keys); }

void Actions::set_key_back(Act act) { put_key(*(*this)[act], row_of(act), row_of(act).shortcut); }

QList<QAction*> Actions::in_order() const {
  QList<QAction*> list;
  for (const ActRow& row : kRows) list.append((*this)[row.act]);
  return list;
}

}  // namespace lagniappe::app
