// SPDX-License-Identifier: GPL-3.0-or-later
// Every action of the window as one table: name, shortcut, tooltip, icon, menu.
#pragma once

#include <QAction>
#include <QHash>
#include <span>

namespace lagniappe::app {

enum class Act {
  OpenCourse,
  SaveCourse,
  SaveCourseAs,
  AddField,
  AddZone,
  CopyRow,
  RemoveRow,
  CutPlayhead,
  CutAll,
  OpenProfile,
  OpenTake,
  ExportTrace,
  ExportLedger,
  ExportInputs,
  ExportPoses,
  ExportView,
  ExportMoving,
  ExportTape,
  ExportPlan,
  Quit,
  SaveProfile,
  SaveProfileAs,
  FindValue,
  KeepSnapshot,
  CompareProfiles,
  ChooseReference,
  SavedAsReference,
  ExportConstants,
  ExportCurve,
  EditGuard,
  AddTransition,
  NextFiring,
  PreviousFiring,
  AddState,
  RenameState,
  DuplicateState,
  DeleteState,
  WhyState,
  CheckTable,
  ReadChart,
  WriteChart,
  Undo,
  Redo,
  Drive,
  DriveWatched,
  Pause,
  SingleTick,
  TickBack,
  ToFirst,
  ToLast,
  PlayTape,
  Loop,
  NextEvent,
  PreviousEvent,
  NextFinding,
  PreviousFinding,
  ZoomIn,
  ZoomOut,
  ShowAll,
  KeepStretch,
  Split,
  RenameTake,
  StarTake,
  NoteTake,
  PutAsideTake,
  KeepRetake,
  PutBack,
  TakeOver,
  Pin,
  WhyParting,
  RetakeUnchanged,
  RetakeOnCourse,
  Slower,
  FewerTicks,
  MoreTicks,
  FewerFrames,
  MoreFrames,
  Faster,
  ToStart,
  FirstPerson,
  BehindCamera,
  ChaseCamera,
  CarriedCamera,
  OverviewCamera,
  TopCamera,
  SideCamera,
  SecondView,
  Interpolated,
  Capsule,
  Contacts,
  Probe,
  Arrows,
  Grid,
  Lantern,
  Intent,
  Devices,
  ScreenPad,
  Trail,
  TapePane,
  LedgerPane,
  SidePane,
  DrivePage,
  StatesPage,
  FieldsPage,
  TimingPage,
  Hitch,
  ExportTiming,
  SettingsPage,
  FullScreen,
  Search,
  Keys,
  About,
};

struct ActRow {
  Act act;
  const char *menu, *text, *shortcut, *tip, *icon;
  bool checkable;
};

std::span<const ActRow> act_rows();

// The actions, made from the table; menus and buttons share them.
class Actions {
 public:
  explicit Actions(QWidget* window);
  QAction* operator[](Act act) const { return actions_.value(static_cast<int>(act)); }
  QList<QAction*> in_order() const;

  // As it is shown; empty if there is none.
  QString key_text(Act act) const { return (*this)[act]->shortcut().toString(QKeySequence::NativeText); }
  // Another key than the table's. Returns the name of the action that has it already, or nothing; then nothing
  // changes.
  QString set_key(Act act, const QString& keys);
  void restore_key(Act act, const QString& keys);  // Not asking: all of them together.
  void set_key_back(Act act);

 private:
  QHash<int, QAction*> actions_;
};

}  // namespace lagniappe::app
