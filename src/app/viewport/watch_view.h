// SPDX-License-Identifier: GPL-3.0-or-later
// A second view of what is driven, by a camera of its own: it watches, and takes no input but the choice of it.
#pragma once

#include <QWidget>

#include "session/heart.h"
#include "viewport/canvas.h"
#include "viewport/view_widget.h"

class QComboBox;

namespace lagniappe::app {

class WatchView : public QWidget, private Drawable {
  Q_OBJECT
 public:
  // Shows what `beside` shows besides the place; both outlive it.
  WatchView(DriveSession& session, Heart& heart, const ViewWidget& beside, QWidget* parent = nullptr);
  ~WatchView() override;

  void set_camera(CameraMode mode);
  CameraMode camera() const { return camera_.mode; }
  const Eye& eye() const { return eye_; }
  QImage picture() { return canvas_->picture(); }  // Of the last frame.

 protected:
  void resizeEvent(QResizeEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void changeEvent(QEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;

 private:
  void begin_gl() override;
  void draw_gl(const QSize& pixels, bool flipped) override;
  void draw_text(QPainter&) override {}
  void shown() override {}
  void pass(double seconds);

  DriveSession& session_;
  const ViewWidget& beside_;
  Canvas* canvas_;
  Renderer renderer_;
  Camera camera_;
  Eye eye_{};
  QComboBox* choice_;
  std::shared_ptr<const Place> drawn_place_;
  bool begun_ = false;
};

}  // namespace lagniappe::app
