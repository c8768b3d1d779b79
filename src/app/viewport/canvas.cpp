// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/canvas.h"

#include <QOffscreenSurface>
#include <QOpenGLContext>
#include <QOpenGLFramebufferObject>
#include <QOpenGLFunctions>
#include <QOpenGLWidget>
#include <QSurfaceFormat>
#include <QTimer>
#include <memory>
#include <optional>

namespace lagniappe::app {
namespace {

// Keys and mouse belong to the view that the canvas lies in.
void leave_input_to_parent(QWidget& canvas) {
  canvas.setAttribute(Qt::WA_TransparentForMouseEvents);
  canvas.setFocusPolicy(Qt::NoFocus);
}

class WidgetCanvas final : public QOpenGLWidget, public Canvas {
 public:
  WidgetCanvas(Drawable& drawing, QWidget* parent) : QOpenGLWidget(parent), drawing_(drawing) {
    leave_input_to_parent(*this);
    connect(this, &QOpenGLWidget::frameSwapped, this, [this] { drawing_.shown(); });
  }
  QWidget& widget() override { return *this; }
  void make_current() override { makeCurrent(); }
  void done_current() override { doneCurrent(); }
  QImage picture() override { return grabFramebuffer(); }

 protected:
  void initializeGL() override { drawing_.begin_gl(); }
  void paintGL() override {
    drawing_.draw_gl(size() * devicePixelRatioF(), false);
    QPainter painter(this);
    drawing_.draw_text(painter);
  }

 private:
  Drawable& drawing_;
};

class ReadbackCanvas final : public QWidget, public Canvas {
 public:
  ReadbackCanvas(Drawable& drawing, QWidget* parent) : QWidget(parent), drawing_(drawing) {
    leave_input_to_parent(*this);
    setAttribute(Qt::WA_OpaquePaintEvent);
    surface_.create();
    context_.create();
  }
  ~ReadbackCanvas() override {
    make_current();
    target_.reset();
    done_current();
  }
  QWidget& widget() override { return *this; }
  void make_current() override { context_.makeCurrent(&surface_); }
  void done_current() override { context_.doneCurrent(); }
  QImage picture() override { return image_; }

 protected:
  void paintEvent(QPaintEvent*) override {
    make_current();
    if (!begun_) drawing_.begin_gl();
    begun_ = true;
    draw_and_read();
    done_current();
    QPainter(this).drawImage(QPoint(0, 0), image_);
    QTimer::singleShot(0, this, [this] { drawing_.shown(); });
  }

 private:
  void draw_and_read() {
    const QSize pixels = (size() * devicePixelRatioF()).expandedTo({1, 1});
    if (!target_ || target_->size() != pixels) {
      target_ =
          std::make_unique<QOpenGLFramebufferObject>(pixels, QOpenGLFramebufferObject::CombinedDepthStencil);
      image_ = QImage(pixels, QImage::Format_RGB32);
    }
    image_.setDevicePixelRatio(1.0);
    target_->bind();
    drawing_.draw_gl(pixels, true);
    context_.functions()->glReadPixels(0, 0, pixels.width(), pixels.height(), 0x80E1 /* GL_BGRA */,
                                       GL_UNSIGNED_BYTE, image_.bits());
    target_->release();
    image_.setDevicePixelRatio(devicePixelRatioF());
    QPainter painter(&image_);
    drawing_.draw_text(painter);
  }

  Drawable& drawing_;
  QOffscreenSurface surface_;
  QOpenGLContext context_;
  std::unique_ptr<QOpenGLFramebufferObject> target_;
  QImage image_;
  bool begun_ = false;
};

// Without OpenGL: time goes on by the frames that would be.
class EmptyCanvas final : public QWidget, public Canvas {
 public:
  EmptyCanvas(Drawable& drawing, QWidget* parent) : QWidget(parent), drawing_(drawing) {
    leave_input_to_parent(*this);
  }
  QWidget& widget() override { return *this; }
  void make_current() override {}
  void done_current() override {}
  QImage picture() override { return QImage(size(), QImage::Format_RGB32); }
  QString trouble() const override {
    return tr(
        "There is no OpenGL 3.3 on this display; on Debian the package libgl1-mesa-dri brings it. Tape, "
        "ledger and cards work without.");
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    QPainter painter(this);
    drawing_.draw_text(painter);
    QTimer::singleShot(0, this, [this] { drawing_.shown(); });
  }

 private:
  Drawable& drawing_;
};

// What draws; nothing where nothing does.
std::optional<QByteArray> opengl_renderer() {
  QOffscreenSurface surface;
  surface.create();
  QOpenGLContext context;
  if (!context.create() || !context.makeCurrent(&surface)) return std::nullopt;
  const QByteArray renderer(reinterpret_cast<const char*>(context.functions()->glGetString(GL_RENDERER)));
  context.doneCurrent();
  return renderer;
}

bool is_software(const QByteArray& renderer) {
  return renderer.contains("llvmpipe") || renderer.contains("softpipe") || renderer.contains("swrast");
}

}  // namespace

void choose_opengl() {
  QSurfaceFormat format;
  format.setVersion(3, 3);
  format.setProfile(QSurfaceFormat::CoreProfile);
  format.setDepthBufferSize(24);
  QSurfaceFormat::setDefaultFormat(format);
}

Canvas* make_canvas(Drawable& drawing, QWidget* parent) {
  const QByteArray wanted = qgetenv("LAGNIAPPE_CANVAS");
  const auto renderer = opengl_renderer();
  if (!renderer) return new EmptyCanvas(drawing, parent);
  const bool readback = wanted == "readback" || (wanted != "widget" && is_software(*renderer));
  if (readback) return new ReadbackCanvas(drawing, parent);
  return new WidgetCanvas(drawing, parent);
}

}  // namespace lagniappe::app
