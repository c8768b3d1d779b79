// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/take_actions.h"

#include <QBuffer>

#include "lagniappe/files.h"
#include "pages/drive_page.h"
#include "pages/exports.h"
#include "panels/plan_picture.h"
#include "panels/takes_panel.h"
#include "tape/tape.h"
#include "viewport/view_widget.h"

namespace lagniappe::app {
namespace {

constexpr QSize kTapeSize(1400, 520), kPlanSize(1200, 1100);

}  // namespace

TakeActions::TakeActions(DriveSession& session, TakeDesk& desk, DrivePage& page, Heart& heart,
                         const Actions& actions, Doors doors, QWidget* window)
    : QObject(window),
      session_(session),
      desk_(desk),
      page_(page),
      actions_(actions),
      doors_(std::move(doors)),
      window_(window),
      moving_(session, page.view(), heart) {
  connect_tape();
  connect_takes();
  connect_exports();
  connect_moving();
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
  // Where there is nowhere to go, what runs runs on, and it is said.
  const auto goes_to = [this, does_on](Act act, auto where, const QString& nothing) {
    does_on(act, [this, where, nothing] {
      const std::optional<std::size_t> tick = where();
      if (!tick) return emit note(nothing);
      if (session_.live()) actions_[Act::Pause]->setChecked(true);
      session_.set_playhead(*tick);
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
    on ? play(true) : shown_.reset();
  });
  const QString no_event = tr("No event of the chosen kind in this take"),
                no_finding = tr("No findings in this take");
  goes_to(
      Act::NextEvent, [this] { return page_.event_from_here(+1); }, no_event);
  goes_to(
      Act::PreviousEvent, [this] { return page_.event_from_here(-1); }, no_event);
  goes_to(
      Act::NextFinding, [this] { return page_.finding_from_here(+1); }, no_finding);
  goes_to(
      Act::PreviousFinding, [this] { return page_.finding_from_here(-1); }, no_finding);
  does_on(Act::ZoomIn, [this] { page_.tape().zoom(0.5); });
  does_on(Act::ZoomOut, [this] { page_.tape().zoom(2.0); });
  does_on(Act::ShowAll, [this] { page_.tape().show_all(); });
}

void TakeActions::play(bool playing) {
  session_.play(playing && !session_.live());
  shown_.reset();  // The button went down by itself, whether it plays or not.
}

void TakeActions::connect_takes() {
  const auto does_on = [this](Act act, auto does) { connect(actions_[act], &QAction::triggered, this, does); };
  does_on(Act::OpenTake, [this] {
    const QString path = ask_for(doors_, window_, tr("Open take"), files::kTakes);
    if (!path.isEmpty()) emit open_asked(path);
  });
  does_on(Act::KeepStretch, [this] {
    if (page_.tape().selection()) desk_.keep_stretch(*page_.tape().selection());
  });
  does_on(Act::Split, [this] { desk_.split(session_.playhead()); });
  const auto in_list = [this, does_on](Act act, auto does) {
    does_on(act, [this, does] {
      page_.show_takes();
      (page_.takes().*does)();
    });
  };
  in_list(Act::RenameTake, &TakesPanel::rename_current);
  in_list(Act::StarTake, &TakesPanel::star_current);
  in_list(Act::NoteTake, &TakesPanel::begin_note);
  in_list(Act::PutAsideTake, &TakesPanel::put_aside_current);
  does_on(Act::KeepRetake, [this] { desk_.keep_ghost(); });
  does_on(Act::PutBack, [this] { desk_.put_back(); });
  does_on(Act::Pin, [this] { desk_.pin(); });
  does_on(Act::WhyParting, [this] { page_.show_parting(); });
  does_on(Act::RetakeUnchanged, [this] { desk_.retake_unchanged(); });
  does_on(Act::RetakeOnCourse, [this] {
    const QString path = ask_for(doors_, window_, tr("Retake on another course"), files::kCourses);
    if (!path.isEmpty()) emit retake_course_asked(path);
  });
}

void TakeActions::connect_exports() {
  const auto exports = [this](Act act, const QString& title, const FileKind& kind, auto writes) {
    connect(actions_[act], &QAction::triggered, this,
            [this, title, kind, writes] { write(title, kind, writes); });
  };
  exports(Act::ExportTrace, tr("Export trace"), files::kTraces, [this](const std::string& path) {
    const Recording& shown = session_.shown();
    return write_file(path, trace_csv(shown.run, shown.take, shown.place->world));
  });
  exports(Act::ExportLedger, tr("Export ledger"), files::kLedgers, [this](const std::string& path) {
    const Recording& shown = session_.shown();
    return write_file(path, ledger_lines(shown.run, shown.take, shown.place->world));
  });
  exports(Act::ExportInputs, tr("Export inputs"), files::kInputs, [this](const std::string& path) {
    const Take& take = session_.shown().take;
    return write_file(path, inputs_text(script_of(take), take.about.name));
  });
  exports(Act::ExportPoses, tr("Export poses"), files::kPoses, [this](const std::string& path) {
    return write_file(path, poses_csv(session_.shown().run, session_.shown().take.profile));
  });
  exports(Act::ExportView, tr("Export picture of the view"), files::kPixels, [this](const std::string& path) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    page_.view().grab().save(&buffer, "PNG");
    return write_file(path, {bytes.constData(), std::size_t(bytes.size())});
  });
  exports(Act::ExportTape, tr("Export picture of the tape"), files::kPictures,
          [this](const std::string& path) { return write_tape(QString::fromStdString(path)); });
  exports(Act::ExportPlan, tr("Export plan and elevation"), files::kPictures,
          [this](const std::string& path) { return write_plan(QString::fromStdString(path)); });
}

void TakeActions::connect_moving() {
  connect(actions_[Act::ExportMoving], &QAction::triggered, this, [this] {
    if (moving_.under_way()) return;
    write(tr("Export moving picture of the view"), files::kPixels, [this](const std::string& path) {
      const Stretch all{0, session_.shown().run.ticks()};
      return moving_.begin(QString::fromStdString(path), page_.tape().selection().value_or(all));
    });
  });
  connect(&moving_, &MovingPicture::progress, this, [this](int written, int of) {
    emit writing(tr("Picture %1 of %2 is written").arg(written).arg(of), double(written) / of);
  });
  connect(&moving_, &MovingPicture::finished, this, [this](int written, bool whole) {
    emit writing_ended();
    emit note(whole ? tr("Pictures written: %1, %2 for each second").arg(written).arg(MovingPicture::kRate)
                    : tr("Ended early. Pictures written: %1").arg(written));
  });
  connect(&moving_, &MovingPicture::failed, this,
          [this](const QString& sentence) { emit problem(tr("It was not written to its end"), sentence); });
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

void TakeActions::write(const QString& title, const FileKind& kind,
                        const std::function<Result<void>(const std::string& path)>& writes) {
  if (!session_.has_shown()) return;
  const auto written = write_where_asked(doors_, window_, title, kind, QString("take") + kind.ending, writes);
  if (!written) emit problem(tr("It was not written"), QString::fromStdString(written.error().sentence()));
}

TakeActions::Situation TakeActions::situation() const {
  const auto ghost = desk_.current_ghost();
  Situation now;
  now.some = session_.has_shown() && session_.shown().run.ticks() > 0;
  now.stretch = now.some && page_.tape().selection().has_value();
  now.changed = ghost && !ghost->against.identical;
  now.parting = now.changed && ghost->against.parting;
  now.put_back = desk_.can_put_back();
  now.playing = session_.playing();
  now.loop = session_.loop().has_value();
  return now;
}

void TakeActions::show_enabled() {
  const Situation now = situation();
  if (shown_ == now) return;
  shown_ = now;
  const auto enable = [this](bool on, std::initializer_list<Act> acts) {
    for (const Act act : acts) actions_[act]->setEnabled(on);
  };
  enable(now.some, {Act::TickBack, Act::ToFirst, Act::ToLast, Act::PlayTape, Act::NextEvent, Act::PreviousEvent,
                    Act::NextFinding, Act::PreviousFinding, Act::Split, Act::ExportTrace, Act::ExportLedger,
                    Act::ExportInputs, Act::ExportPoses, Act::ExportView, Act::ExportMoving, Act::ExportTape,
                    Act::ExportPlan, Act::RetakeUnchanged, Act::RetakeOnCourse});
  enable(now.stretch, {Act::KeepStretch, Act::Loop});
  enable(now.changed, {Act::KeepRetake, Act::Pin});
  enable(now.put_back, {Act::PutBack});
  enable(now.parting, {Act::WhyParting});
  actions_[Act::PlayTape]->setChecked(now.playing);
  actions_[Act::Loop]->setChecked(now.loop);
}

}  // namespace lagniappe::app
