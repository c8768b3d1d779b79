// SPDX-License-Identifier: GPL-3.0-or-later
// A drawing on the screen: its handles are dragged, or moved with the arrow keys.
#pragma once

#include <QWidget>
#include <memory>

#include "cards/drawing.h"
#include "session/values_desk.h"

namespace lagniappe::app {

class DrawingView : public QWidget {
  Q_OBJECT
 public:
  // Without a desk it only shows.
  DrawingView(std::unique_ptr<CardDrawing> drawing, ValuesDesk* desk, QWidget* parent = nullptr);

  // Scaled so that the reference is whole too, and without room for handles.
  void cover_reference() { covers_reference_ = true; }
  void show_profiles(const Profile& now, const Profile& reference, int tick_rate = 60);

  // For tests and tools: where a handle is, in the widget.
  const std::vector<Handle>& handles() const { return drawn().handles; }
  QPointF place_of(std::size_t handle) const;
  const Sketch& sketch() const { return drawn().sketch; }

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void focusInEvent(QFocusEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;
  void leaveEvent(QEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void changeEvent(QEvent* event) override;
  bool event(QEvent* event) override;

 private:
  // Kept until values, size or scale are others: paths are integrated for it.
  struct Drawn {
    Sketch sketch;
    std::vector<Handle> handles;
  };
  const Drawn& drawn() const;
  void draw_anew();
  QRectF area() const;
  std::optional<std::size_t> handle_at(const QPointF& p) const;
  void pull(std::size_t handle, const QPointF& to, int gesture);
  void describe();
  void choose(std::optional<std::size_t> handle);

  std::unique_ptr<CardDrawing> drawing_;
  ValuesDesk* desk_;
  Profile now_, reference_;
  mutable std::optional<Drawn> drawn_;
  bool differs_ = false, covers_reference_ = false;
  std::optional<std::size_t> chosen_, hovered_;
  // While a handle is dragged the scale stays, or it would run away from the mouse.
  std::optional<Extent> held_extent_;
  QPointF grip_;  // From the handle to where it was taken.
  int gesture_ = 0, key_gesture_ = 0;
};

}  // namespace lagniappe::app
