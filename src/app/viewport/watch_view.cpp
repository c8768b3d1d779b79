// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/watch_view.h"

#include <QComboBox>
#include <QWheelEvent>

#include "theme/text.h"

namespace lagniappe::app {
namespace {

constexpr int kAside = 10;  // Pixels.

}  // namespace

WatchView::WatchView(DriveSession& session, Heart& heart, const ViewWidget& beside, QWidget* parent)
    : QWidget(parent),
      session_(session),
      beside_(beside),
      canvas_(make_canvas(*this, this)),
      choice_(new QComboBox(this)) {
  setObjectName("watch");
  setMinimumSize(160, 104);
  setAccessibleName(tr("Second view"));
  setFocusPolicy(Qt::NoFocus);
  for (const std::string_view name : kCameraNames) choice_->addItem(qt(name));
  choice_->setAccessibleName(tr("Camera of the second view"));
  choice_->setFocusPolicy(Qt::TabFocus);
  choice_->move(kAside, kAside);
  connect(choice_, &QComboBox::activated, this,
          [this](int mode) { set_camera(static_cast<CameraMode>(mode)); });
  connect(&heart, &Heart::beat, this, &WatchView::pass);
  connect(&beside, &ViewWidget::frame_shown, this, [this] { canvas_->widget().update(); });
  set_camera(CameraMode::Top);
}

WatchView::~WatchView() {
  canvas_->make_current();
  if (begun_) renderer_.release();
  canvas_->done_current();
  delete &canvas_->widget();  // Before what it draws.
}

void WatchView::set_camera(CameraMode mode) {
  camera_.change(mode);
  choice_->setCurrentIndex(static_cast<int>(mode));
  canvas_->widget().update();
}

// The camera goes on also while the one beside it rests.
void WatchView::pass(double seconds) {
  if (!isVisible()) return;
  const Eye before = eye_;
  eye_ = camera_.follow(session_, seconds);
  if (before != eye_) canvas_->widget().update();
}

void WatchView::begin_gl() { begun_ = renderer_.initialize().isEmpty(); }

void WatchView::draw_gl(const QSize& pixels, bool flipped) {
  if (!begun_) return;
  if (const auto place = session_.shared_place(); place != nullptr && place != drawn_place_) {
    renderer_.set_scene(place->drawn);
    drawn_place_ = place;
  }
  renderer_.draw(session_frame(session_,
                               {eye_, camera_.field(session_), camera_.mode != CameraMode::FirstPerson},
                               beside_.extras(), pixels, flipped));
}

void WatchView::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  canvas_->widget().setGeometry(rect());
  choice_->raise();
}

void WatchView::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  canvas_->widget().update();
}

void WatchView::changeEvent(QEvent* event) {
  QWidget::changeEvent(event);
  canvas_->widget().update();
}

void WatchView::wheelEvent(QWheelEvent* event) {
  camera_.zoom(event->angleDelta().y() / 120.0);
  canvas_->widget().update();
}

}  // namespace lagniappe::app
