// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/device_actions.h"

#include "devices/devices_pane.h"
#include "devices/screen_pad.h"
#include "pages/bindings_sheet.h"
#include "pages/drive_page.h"
#include "viewport/view_widget.h"

namespace lagniappe::app {

DeviceActions::DeviceActions(const Actions& actions, DrivePage& page, DriveSession& session, Heart& heart,
                             BindingsSheet& sheet, QObject* parent)
    : QObject(parent),
      actions_(actions),
      page_(page),
      session_(session),
      pads_(page.view().controls(), page.view().bindings(), heart),
      screen_pad_(new ScreenPad(
          page.view().controls(),
          [view = &page.view()](const QInputEvent& event) { return view->since_frame(event); }, page.view())) {
  screen_pad_->hide();
  connect(&page.view().controls(), &Controls::command_asked, this, &DeviceActions::obey);
  connect(&pads_, &Pads::pressed, &sheet, &BindingsSheet::take_pad);
  connect(&pads_, &Pads::came, this, [this](const QString& name) { emit note(tr("%1 is there").arg(name)); });
  connect(&pads_, &Pads::lost, this,
          [this](const QString& name) { emit note(tr("%1 is gone; what it held is let go").arg(name)); });
  connect(screen_pad_, &ScreenPad::touched, this, [this] {
    if (!page_.view().driving()) actions_[Act::Drive]->trigger();
  });
  connect(actions[Act::Devices], &QAction::toggled, this,
          [this](bool on) { page_.show_beside_view(tr("Devices"), on, [this] { return make_pane(); }); });
  connect(actions[Act::ScreenPad], &QAction::toggled, this, &DeviceActions::show_screen_pad);
}

// Pads are heard by whoever has them open; only the window that is worked in obeys.
void DeviceActions::obey(Command command) {
  ViewWidget& view = page_.view();
  if (!view.window()->isActiveWindow() || !view.isVisible()) return;
  if (command == Command::ChangeCamera) return actions_[Act::FirstPerson]->toggle();
  view.driving() ? view.set_driving(false) : actions_[Act::Drive]->trigger();
}

// The pointer stays free: it may press what is on the screen.
void DeviceActions::show_screen_pad(bool on) {
  page_.view().set_pointer_free(on);
  screen_pad_->setVisible(on);
  if (on) screen_pad_->raise();
}

QWidget* DeviceActions::make_pane() {
  auto* pane = new DevicesPane(session_, pads_, *screen_pad_);
  connect(&page_.view(), &ViewWidget::frame_shown, pane, &DevicesPane::refresh);
  connect(&pads_, &Pads::changed, pane, &DevicesPane::refresh);
  return pane;
}

}  // namespace lagniappe::app
