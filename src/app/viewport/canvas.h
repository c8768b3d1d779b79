// SPDX-License-Identifier: GPL-3.0-or-later
// How a drawn frame comes onto the screen.
//
// With a graphics card a QOpenGLWidget shows it. On software OpenGL the composition that QOpenGLWidget needs
// costs more than the scene itself (18 ms of 26 on two cores at 1280x800), so there the frame is drawn off
// screen and its pixels are read back, which in memory is a copy.
#pragma once

#include <QImage>
#include <QPainter>
#include <QWidget>

namespace lagniappe::app {

// What a canvas shows.
class Drawable {
 public:
  virtual ~Drawable() = default;
  virtual void begin_gl() = 0;  // Once, with the context current.
  // With the context current and the target bound. `flipped`: the first row of pixels is the top one.
  virtual void draw_gl(const QSize& pixels, bool flipped) = 0;
  virtual void draw_text(QPainter& painter) = 0;
  virtual void shown() = 0;  // The frame is on its way to the screen.
};

class Canvas {
 public:
  virtual ~Canvas() = default;
  virtual QWidget& widget() = 0;
  virtual void make_current() = 0;
  virtual void done_current() = 0;
  virtual QImage picture() = 0;                   // The last frame's pixels.
  virtual QString trouble() const { return {}; }  // Why nothing can be drawn on it, or empty.
};

// Asks for the OpenGL that everything is drawn with. To be called before the application object is made.
void choose_opengl();

// Returns the canvas that suits this machine, as a child of `parent`; without any OpenGL one that stays empty
// and says why, while all else goes on. The environment variable LAGNIAPPE_CANVAS
// ("widget" or "readback") decides otherwise. `drawing` must outlive it.
Canvas* make_canvas(Drawable& drawing, QWidget* parent);

}  // namespace lagniappe::app
