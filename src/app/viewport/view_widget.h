// SPDX-License-Identifier: GPL-3.0-or-later
// The view: draws the session at draw rate and turns keys and mouse into its input.
#pragma once

#include <QWidget>
#include <functional>

#include "devices/controls.h"
#include "keys/key_times.h"
#include "session/heart.h"
#include "viewport/canvas.h"
#include "viewport/pointer_turn.h"
#include "viewport/readouts.h"
#include "viewport/session_frame.h"

namespace lagniappe::app {

class ViewWidget : public QWidget, private Drawable {
  Q_OBJECT
 public:
  ViewWidget(DriveSession& session, Heart& heart, QWidget* parent = nullptr);
  ~ViewWidget() override;

  void show_place();  // After the session got another place.

  // Driving captures mouse and keys until Esc, or until the window loses the focus.
  void set_driving(bool driving);
  bool driving() const { return driving_; }
  // Another page takes the view meanwhile: a drive goes on over it.
  class Moved {
   public:
    explicit Moved(ViewWidget& view) : view_(view) { view_.moved_ = true; }
    ~Moved() { view_.end_move(); }
    Moved(const Moved&) = delete;

   private:
    ViewWidget& view_;
  };
  // The window was left while somebody drove: that is over, and said until somebody drives again.
  void leave_driving();
  // The same, with the free camera looking on from where the eye is.
  void drive_watched();

  Bindings& bindings() { return bindings_; }
  Controls& controls() { return controls_; }
  // Whether driving leaves the pointer where it is: it is for what lies over the view, and looks round by
  // dragging.
  void set_pointer_free(bool free);
  // When an event really was, in s after the last beat: it may have waited while a frame was drawn.
  double since_frame(const QInputEvent& event);
  // How far a look goes for the hand's way, times what the profile says, and whether away is down.
  void set_mouse(double speed, bool upside_down) { mouse_ = QPointF(speed, upside_down ? -speed : speed); }

  void set_camera(CameraMode mode);
  void show_changed_place();  // The same place, built anew: camera and run go on.
  bool first_person() const { return drive_camera_ == CameraMode::FirstPerson; }
  OverlayChoice& overlays() { return overlays_; }
  TrailChoice& trail() { return trail_; }
  void set_ghosts(Ghosts ghosts) { put(ghosts_, std::move(ghosts)); }
  void set_highlight(const Highlight& highlight) { put(highlight_, highlight); }
  const Highlight& highlight() const { return highlight_; }
  // Returns where a place of the course is drawn, if it is before the eye.
  std::optional<QPointF> pixel_of(const Vec3& at_C) const;
  // Draws more than the session, every frame; the pen takes places of the course.
  using Besides = std::function<void(LinePen&)>;
  void set_besides(Besides besides) {
    besides_ = std::move(besides);
    stale_ = true;
  }
  void set_plain(bool plain) { put(plain_, plain); }  // Nothing is written over it: there is no room.
  void set_grid(bool shown) { put(grid_, shown); }
  // With the next beat, although nothing seems to have changed.
  void draw_anew() { stale_ = true; }
  const Camera& camera() const { return camera_; }
  double frames_per_second() const { return frames_per_second_; }
  const Readouts& readouts() const { return readouts_; }
  // The line of advice, as it is shown.
  QString hint() const {
    return readouts_.hint(driving_, has_driven_, camera_.mode == CameraMode::Free, away_);
  }
  void set_told(std::vector<Readouts::Told> told) {
    stale_ = stale_ || told != readouts_.told();
    readouts_.set_told(std::move(told));
  }
  void set_hint_keys(Readouts::HintKeys keys) {
    stale_ = true;
    readouts_.set_hint_keys(std::move(keys));
  }
  void set_legend(std::vector<Readouts::LegendLine> lines) {
    stale_ = true;
    readouts_.set_legend(std::move(lines));
  }
  // What is shown besides the place and the figure: another view beside this one shows it too.
  FrameExtras extras() const { return {overlays_, trail_picture(), ghosts_, highlight_, grid_, besides_}; }
  QImage picture() { return canvas_->picture(); }  // Of the last frame.
  // Why nothing can be drawn, or empty.
  QString trouble() const { return trouble_.isEmpty() ? canvas_->trouble() : trouble_; }

 signals:
  void driving_changed(bool driving);
  void frame_shown();
  void camera_changed(lagniappe::app::CameraMode mode);  // The one that drives.
  void feel_asked(double factor);                        // 0: let go.
  // A click on the view: the ledger line whose geometry is there, if any, and the piece.
  void picked(std::optional<std::size_t> entry, lagniappe::PieceId piece);

 protected:
  bool event(QEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void changeEvent(QEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void hideEvent(QHideEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void keyReleaseEvent(QKeyEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;

 private:
  void begin_gl() override;
  void draw_gl(const QSize& pixels, bool flipped) override;
  void draw_text(QPainter& painter) override;
  void shown() override;
  void pass(double seconds);
  void look_round(const QMouseEvent& event);
  void send_pointer_to_middle();
  void take_pointer();
  void give_pointer_back();
  void end_move();
  void follow_the_profile();
  void begin_free();
  void move_free_camera(double seconds);
  DrawnFrame drawn_frame(const Eye& eye, const QSize& pixels, bool flipped) const;
  const Trail::Picture& trail_picture() const;
  void pick(const QPointF& at);
  Vec3 ray_through(const QPointF& at) const;
  void count_frame(double now);
  template <typename Value>
  void put(Value& value, Value next) {
    stale_ = stale_ || value != next;
    value = std::move(next);
  }
  // All that a picture is drawn from besides what set stale_.
  struct Drawn {
    std::uint64_t revision;
    std::size_t playhead;
    Eye eye;
    double field;
    OverlayChoice overlays;
    TrailChoice trail;
    bool driving, paused, live;
    Drawing drawing;
    int tick_rate;
    bool operator==(const Drawn&) const = default;
  };
  Drawn to_draw() const;

  DriveSession& session_;
  Heart& heart_;
  Canvas* canvas_;
  Camera camera_;
  Eye drawn_eye_{};
  double drawn_field_ = radians(60.0);  // Vertical field of view.
  Renderer renderer_;

  OverlayChoice overlays_;
  TrailChoice trail_;
  mutable Trail drawn_trail_;
  Ghosts ghosts_;
  Highlight highlight_;
  Readouts readouts_;
  KeyTimes key_times_;
  double counted_since_ = 0.0, frames_per_second_ = 0.0;
  int frames_counted_ = 0;
  CameraMode drive_camera_ = CameraMode::ThirdPerson;
  CameraKind chosen_kind_ = CameraKind::Behind;  // By the profile, as last seen.
  bool watched_ = false;                         // Driving begins with the free camera.
  PointerTurn pointer_;
  Bindings bindings_;
  Controls controls_;
  QPointF mouse_{1.0, 1.0};
  QPointF drag_from_, pressed_at_;
  QString trouble_;
  std::optional<Drawn> drawn_;
  Besides besides_;
  bool stale_ = true;
  bool begun_ = false, driving_ = false, grid_ = true, plain_ = false, scene_changed_ = false,
       has_driven_ = false, moved_ = false, away_ = false, pointer_free_ = false;
};

}  // namespace lagniappe::app
