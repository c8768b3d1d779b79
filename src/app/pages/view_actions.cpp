// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/view_actions.h"

#include <QMenu>

#include "pages/drive_page.h"
#include "pages/transport.h"
#include "panels/intent_picture.h"
#include "session/preferences.h"
#include "session/undo.h"
#include "theme/theme.h"
#include "viewport/view_widget.h"

namespace lagniappe::app {
namespace {

QWidget* make_intent(DriveSession& session, ViewWidget& view) {
  auto* picture = new IntentPicture(session);
  picture->refresh();
  QObject::connect(&view, &ViewWidget::frame_shown, picture, &IntentPicture::refresh);
  return picture;
}

}  // namespace

void connect_view_actions(const Actions& actions, DriveSession& session, DrivePage& page,
                          Preferences& preferences) {
  ViewWidget* view = &page.view();
  const auto does_on = [&](Act act, auto does) {
    QObject::connect(actions[act], &QAction::triggered, &page, does);
  };
  const auto toggles = [&](Act act, bool on, auto does) {
    actions[act]->setChecked(on);
    QObject::connect(actions[act], &QAction::toggled, &page, does);
  };
  // Who drives wants to move: no pause outlives that.
  const auto drives = [pause = actions[Act::Pause]](auto begin) {
    return [pause, begin] {
      pause->setChecked(false);
      begin();
    };
  };
  does_on(Act::Drive, drives([view] { view->set_driving(true); }));
  does_on(Act::DriveWatched, drives([view] { view->drive_watched(); }));
  does_on(Act::ToStart, [&session] {
    if (session.place() != nullptr) session.set_place(session.shared_place());
  });
  does_on(Act::Slower, [&page] { page.transport().step_time_scale(+1); });
  does_on(Act::Faster, [&page] { page.transport().step_time_scale(-1); });
  does_on(Act::FewerTicks, [&page] { page.transport().step_tick_rate(-1); });
  does_on(Act::MoreTicks, [&page] { page.transport().step_tick_rate(+1); });
  does_on(Act::FewerFrames, [&preferences] { preferences.step(Pref::DrawRate, +1); });
  does_on(Act::MoreFrames, [&preferences] { preferences.step(Pref::DrawRate, -1); });
  toggles(Act::Pause, false, [&session](bool paused) { session.set_paused(paused); });
  toggles(Act::FirstPerson, false,
          [view](bool first) { view->set_camera(first ? CameraMode::FirstPerson : CameraMode::ThirdPerson); });
  QObject::connect(view, &ViewWidget::camera_changed, actions[Act::FirstPerson], [&actions](CameraMode mode) {
    const QSignalBlocker silent(actions[Act::FirstPerson]);
    actions[Act::FirstPerson]->setChecked(mode == CameraMode::FirstPerson);
  });
  for (const auto& [act, mode] :
       {std::pair{Act::BehindCamera, CameraMode::ThirdPerson}, std::pair{Act::ChaseCamera, CameraMode::Chase},
        std::pair{Act::CarriedCamera, CameraMode::Carried},
        std::pair{Act::OverviewCamera, CameraMode::Overview}, std::pair{Act::TopCamera, CameraMode::Top},
        std::pair{Act::SideCamera, CameraMode::Side}}) {
    does_on(act, [view, mode = mode] { view->set_camera(mode); });
  }
  // The Timing page has more ways to draw than these two.
  const auto is_interpolated = [&session] { return session.drawing().method == DrawMethod::Interpolated; };
  QObject::connect(view, &ViewWidget::frame_shown, &page,
                   [is_interpolated, act = actions[Act::Interpolated]] { act->setChecked(is_interpolated()); });
  toggles(Act::Interpolated, true, [&session, is_interpolated](bool on) {
    if (on == is_interpolated()) return;
    Drawing drawing = session.drawing();
    drawing.method = on ? DrawMethod::Interpolated : DrawMethod::AsTicked;
    session.set_drawing(drawing);
  });
  toggles(Act::Capsule, false, [view](bool on) { view->overlays().capsule = on; });
  toggles(Act::Contacts, false, [view](bool on) { view->overlays().contacts = on; });
  toggles(Act::Probe, false, [view](bool on) { view->overlays().probe = on; });
  toggles(Act::Arrows, false, [view](bool on) { view->overlays().arrows = on; });
  toggles(Act::Lantern, theme::light() == theme::Light::Lantern,
          [&preferences](bool on) { preferences.set(Pref::Light, on ? 1 : 0); });
  toggles(Act::Grid, true, [view](bool on) { view->set_grid(on); });
  toggles(Act::Trail, true, [view](bool on) { view->trail().shown = on; });
  toggles(Act::SecondView, false, [&page](bool on) { page.show_second_view(on); });
  toggles(Act::Intent, false, [&page, &session, view](bool on) {
    page.show_beside_view(QObject::tr("Intent"), on, [&] { return make_intent(session, *view); });
  });
  for (const Act pane : {Act::TapePane, Act::LedgerPane, Act::SidePane})
    toggles(pane, true, [&page, pane](bool on) { page.show_pane(pane, on); });
}

void connect_undo(const Actions& actions, Undo& undo, QObject& owner) {
  const auto show = [&actions, &undo] {
    actions[Act::Undo]->setEnabled(undo.can_undo());
    actions[Act::Redo]->setEnabled(undo.can_redo());
    actions[Act::Undo]->setText(QObject::tr("Undo %1").arg(undo.undo_text()).trimmed());
    actions[Act::Redo]->setText(QObject::tr("Redo %1").arg(undo.redo_text()).trimmed());
  };
  QObject::connect(actions[Act::Undo], &QAction::triggered, &owner, [&undo] { undo.undo_once(); });
  QObject::connect(actions[Act::Redo], &QAction::triggered, &owner, [&undo] { undo.redo_once(); });
  QObject::connect(&undo, &Undo::changed, &owner, show);
  show();
}

void fill_marks(QMenu& menu, DriveSession& session, ViewWidget& view) {
  menu.clear();
  if (session.place() == nullptr) {
    menu.addAction(QObject::tr("No course is open"))->setEnabled(false);
    return;
  }
  for (const Mark& mark : session.place()->course.marks) {
    QAction* action = menu.addAction(QString::fromStdString(mark.id));
    QObject::connect(action, &QAction::triggered, &view, [&session, &view, mark] {
      session.begin_at(mark);
      view.setFocus(Qt::OtherFocusReason);
    });
  }
}

}  // namespace lagniappe::app
