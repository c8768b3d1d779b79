// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/take_actions.h"

#include <QFileInfo>

#include "lagniappe/files.h"
#include "pages/drive_page.h"
#include "pages/exports.h"
#include "panels/plan_picture.h"
#include "tape/tape.h"

namespace lagniappe::app {
namespace {

const char* const kTakeFilter = "Takes (*.take *.json)";
const char* const kCourseFilter = "Courses and models (*.course.json *.json *.glb *.gltf *.obj)";
const char* const kPictures = "Pictures (*.svg *.pdf *.png)";
constexpr QSize kTapeSize(1400, 520), kPlanSize(1200, 1100);

}  // namespace

TakeActions::TakeActions(DriveSession& session, TakeDesk& desk, DrivePage& page, const Actions& actions,
                         Doors doors, QWidget* window)
    : QObject(window),
      session_(session),
      desk_(desk),
      page_(page),
      actions_(actions),
      doors_(std::move(doors)),
      window_(window) {
  connect_tape();
  connect_takes();
  connect_exports();
}

void TakeActions::connect_tape() {
  const auto does_on = [this](Act act, auto does) { connect(actions_[act], &QAction::triggered, this, does); };
  // Who looks back while driving pauses: P drives on from there.
  const auto moves_on = [this, does_on](Act act, auto moves) {
    does_on(act, [this, moves] {
      if (session_.live()) actions_[Act::Pause]->setChecked(true);
      moves();
    });
  };
  moves_on(Act::TickBack, [this] { session_.tick_back(); });
  moves_on(Act::SingleTick, [this] { session_.single_tick(); });
  moves_on(Act::ToFirst, [this] { session_.set_playhead(0); });
  moves_on(Act::ToLast, [this] {
    if (session_.has_shown()) session_.set_playhead(session_.shown().run.ticks());
  });
  does_on(Act::PlayTape, [this](bool on) { play(on); });
  does_on(Act::Loop, [this](bool on) {
    page_.play_selection(on);
    if (on) play(true);
  });
  moves_on(Act::NextEvent, [this] { page_.go_to_event(+1); });
  moves_on(Act::PreviousEvent, [this] { page_.go_to_event(-1); });
  moves_on(Act::NextFinding, [this] { page_.go_to_finding(+1); });
  moves_on(Act::PreviousFinding, [this] { page_.go_to_finding(-1); });
  does_on(Act::ZoomIn, [this] { page_.tape().zoom(0.5); });
  does_on(Act::ZoomOut, [this] { page_.tape().zoom(2.0); });
  does_on(Act::ShowAll, [this] { page_.tape().show_all(); });
}

void TakeActions::play(bool playing) { session_.play(playing && !session_.live()); }

void TakeActions::connect_takes() {
  const auto does_on = [this](Act act, auto does) { connect(actions_[act], &QAction::triggered, this, does); };
  does_on(Act::OpenTake, [this] {
    const QString path = doors_.ask_for_file(window_, tr("Open take"), tr(kTakeFilter));
    if (!path.isEmpty()) emit open_asked(path);
  });
  does_on(Act::KeepStretch, [this] {
    if (page_.tape().selection()) desk_.keep_stretch(*page_.tape().selection());
  });
  does_on(Act::Split, [this] { desk_.split(session_.playhead()); });
  does_on(Act::KeepRetake, [this] { desk_.keep_ghost(); });
  does_on(Act::PutBack, [this] { desk_.put_back(); });
  does_on(Act::Pin, [this] { desk_.pin(); });
  does_on(Act::WhyParting, [this] { page_.show_parting(); });
  does_on(Act::RetakeUnchanged, [this] { desk_.retake_unchanged(); });
  does_on(Act::RetakeOnCourse, [this] {
    const QString path = doors_.ask_for_file(window_, tr("Retake on another course"), tr(kCourseFilter));
    if (!path.isEmpty()) emit retake_course_asked(path);
  });
  does_on(Act::Undo, [this] { desk_.undo_once(); });
  does_on(Act::Redo, [this] { desk_.redo_once(); });
}

void TakeActions::connect_exports() {
  const auto does_on = [this](Act act, auto does) { connect(actions_[act], &QAction::triggered, this, does); };
  does_on(Act::ExportTrace, [this] {
    write(tr("Export trace"), tr("Traces (*.csv)"), ".csv", [this](const QString& path) {
      return write_file(path.toStdString(), trace_csv(session_.shown().run, session_.place()->world,
                                                      session_.shown().take.profile));
    });
  });
  does_on(Act::ExportLedger, [this] {
    write(tr("Export ledger"), tr("Ledgers (*.jsonl)"), ".jsonl", [this](const QString& path) {
      const Recording& shown = session_.shown();
      return write_file(path.toStdString(), ledger_lines(shown.run, shown.take, shown.place->world));
    });
  });
  does_on(Act::ExportInputs, [this] {
    write(tr("Export inputs"), tr("Inputs (*.inputs.json)"), ".inputs.json", [this](const QString& path) {
      const Take& take = session_.shown().take;
      return write_file(path.toStdString(), inputs_text(script_of(take), take.about.name));
    });
  });
  does_on(Act::ExportTape, [this] {
    write(tr("Export picture of the tape"), tr(kPictures), ".svg",
          [this](const QString& path) { return write_tape(path); });
  });
  does_on(Act::ExportPlan, [this] {
    write(tr("Export plan and elevation"), tr(kPictures), ".svg",
          [this](const QString& path) { return write_plan(path); });
  });
}

Result<void> TakeActions::write_tape(const QString& path) {
  return export_picture(path, kTapeSize, tr("Tape"),
                        [this](QCPPainter& painter) { page_.tape().paint_on(painter, kTapeSize); });
}

Result<void> TakeActions::write_plan(const QString& path) {
  return export_picture(path, kPlanSize, tr("Plan and elevation"), [this](QCPPainter& painter) {
    paint_plan(painter, kPlanSize, session_.shown(), desk_.ghosts());
  });
}

void TakeActions::write(const QString& title, const QString& filter, const QString& ending,
                        const std::function<Result<void>(const QString&)>& writes) {
  if (!session_.has_shown()) return;
  QString path = doors_.ask_where_to_save(window_, title, filter, "take" + ending);
  if (path.isEmpty()) return;
  if (QFileInfo(path).suffix().isEmpty()) path += ending;
  const Result<void> written = writes(path);
  if (!written)
    emit problem(tr("%1 was not written").arg(QFileInfo(path).fileName()),
                 QString::fromStdString(written.error().sentence()));
}

void TakeActions::show_enabled() {
  const bool some = session_.has_shown() && session_.shown().run.ticks() > 0;
  for (const Act act :
       {Act::TickBack, Act::ToFirst, Act::ToLast, Act::PlayTape, Act::NextEvent, Act::PreviousEvent,
        Act::NextFinding, Act::PreviousFinding, Act::Split, Act::ExportTrace, Act::ExportLedger,
        Act::ExportInputs, Act::ExportTape, Act::ExportPlan, Act::RetakeUnchanged, Act::RetakeOnCourse})
    actions_[act]->setEnabled(some);
  const bool stretch = some && page_.tape().selection().has_value();
  for (const Act act : {Act::KeepStretch, Act::Loop}) actions_[act]->setEnabled(stretch);
  const auto ghost = desk_.current_ghost();
  const bool changed = ghost && !ghost->against.identical;
  for (const Act act : {Act::KeepRetake, Act::Pin}) actions_[act]->setEnabled(changed);
  actions_[Act::PutBack]->setEnabled(desk_.can_put_back());
  actions_[Act::WhyParting]->setEnabled(changed && ghost->against.parting);
  actions_[Act::Undo]->setEnabled(desk_.undo().canUndo());
  actions_[Act::Redo]->setEnabled(desk_.undo().canRedo());
  actions_[Act::Undo]->setText(tr("Undo %1").arg(desk_.undo().undoText()).trimmed());
  actions_[Act::Redo]->setText(tr("Redo %1").arg(desk_.undo().redoText()).trimmed());
  actions_[Act::PlayTape]->setChecked(session_.playing());
  actions_[Act::Loop]->setChecked(session_.loop().has_value());
}

}  // namespace lagniappe::app
