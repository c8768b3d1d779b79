// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/view_widget.h"

#include <QCursor>
#include <QGuiApplication>
#include <QKeyEvent>
#include <QScreen>
#include <algorithm>

#include "theme/state_colours.h"
#include "theme/theme.h"
#include "viewport/carriage.h"
#include "viewport/entry_geometry.h"
#include "viewport/line_pen.h"
#include "viewport/readouts.h"
#include "viewport/zone_lines.h"

namespace lagniappe::app {
namespace {

constexpr double kFreeSpeed = 9.0, kFreeFast = 28.0;  // m/s of the free camera.
constexpr double kFreeBehind = 2.5;                   // m behind the head.
constexpr double kFreeTurn = radians(0.25);           // Per pixel dragged.
constexpr int kFarFromMiddle = 80;                    // Pixels that nobody moves a mouse within a call.
constexpr double kCountEvery = 0.5;                   // s over which the draw rate is counted.
constexpr double kClickDistance = 4.0;                // Pixels; who moves the mouse farther drags.
constexpr double kPickDistance = 14.0;                // Pixels from what a ledger line is about.
constexpr double kPickReach = 500.0;                  // m.

// Mouse buttons have numbers that no key's code is.
Control control_of(Qt::MouseButton button) {
  return {Controls::kHands, 0x40000000u | static_cast<std::uint32_t>(button)};
}

}  // namespace

ViewWidget::ViewWidget(DriveSession& session, Heart& heart, QWidget* parent)
    : QWidget(parent),
      session_(session),
      heart_(heart),
      canvas_(make_canvas(*this, this)),
      readouts_(session),
      controls_(session) {
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setMinimumSize(320, 104);
  setObjectName("view");
  setAccessibleName(QObject::tr("View"));
  setAccessibleDescription(QObject::tr("What is driven; Enter gives it keys and mouse, Esc takes them back"));
  connect(&heart_, &Heart::beat, this, &ViewWidget::pass);
  connect(&controls_, &Controls::feel_asked, this, &ViewWidget::feel_asked);
  connect(&controls_, &Controls::pushed_undriven, this, &ViewWidget::begin_free);
}

void ViewWidget::shown() {
  emit frame_shown();
  heart_.shown();
}

void ViewWidget::changeEvent(QEvent* event) {
  QWidget::changeEvent(event);
  stale_ = true;  // Colours, fonts, whether it can be used.
}

void ViewWidget::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  stale_ = true;
  heart_.set_drawn(true);
}

void ViewWidget::hideEvent(QHideEvent* event) {
  QWidget::hideEvent(event);
  heart_.set_drawn(false);
}

ViewWidget::~ViewWidget() {
  canvas_->make_current();
  if (begun_) renderer_.release();
  canvas_->done_current();
  delete &canvas_->widget();  // Before what it draws.
}

void ViewWidget::show_place() {
  scene_changed_ = stale_ = true;
  has_driven_ = false;
  heart_.leave_out();
  camera_.mode = drive_camera_;
  readouts_.set_place(*session_.place());
  canvas_->widget().update();
}

void ViewWidget::show_changed_place() {
  scene_changed_ = stale_ = true;
  readouts_.set_place(*session_.place());
  canvas_->widget().update();
}

void ViewWidget::drive_watched() {
  begin_free();
  watched_ = true;
  set_driving(true);
  watched_ = false;
}

void ViewWidget::set_driving(bool driving) {
  if (driving == driving_ || (driving && session_.place() == nullptr)) return;
  driving_ = driving;
  if (!driving) emit feel_asked(0.0);
  session_.set_attended(driving);
  has_driven_ = has_driven_ || driving;
  controls_.set_driving(driving);
  // Left, the camera stays where it is until the free one is asked for.
  if (driving) {
    if (!watched_) camera_.mode = drive_camera_;
    away_ = false;
    take_pointer();
  } else {
    give_pointer_back();
  }
  emit driving_changed(driving);
}

void ViewWidget::set_pointer_free(bool free) {
  if (free == pointer_free_) return;
  pointer_free_ = free;
  stale_ = true;
  if (!driving_) return;
  free ? give_pointer_back() : take_pointer();
}

void ViewWidget::give_pointer_back() {
  releaseMouse();
  unsetCursor();
}

void ViewWidget::take_pointer() {
  setFocus(Qt::OtherFocusReason);
  if (pointer_free_) return;
  setCursor(Qt::BlankCursor);
  grabMouse();
  pointer_ = {};
  pointer_.begin(PointerTurn::exact(mapToGlobal(rect().center())), devicePixelRatioF());
  send_pointer_to_middle();
}

void ViewWidget::end_move() {
  moved_ = false;
  if (!driving_) return;
  // A page without the view shows nobody what they drive.
  isVisible() ? take_pointer() : set_driving(false);
}

void ViewWidget::leave_driving() {
  if (!driving_) return;  // It may be told twice: minimising takes the focus too.
  away_ = stale_ = true;
  set_driving(false);
}

// A display server that moves no pointers for programs says afterwards that it is where it was.
void ViewWidget::send_pointer_to_middle() {
  const QPoint middle = PointerTurn::exact(mapToGlobal(rect().center()));
  QCursor::setPos(middle);
  if ((QCursor::pos() - middle).manhattanLength() > kFarFromMiddle) pointer_.only_follow();
}

void ViewWidget::set_camera(CameraMode mode) {
  drive_camera_ = mode;
  camera_.change(mode);  // Also a way back from the free camera.
  emit camera_changed(mode);
}

// The profile's choice holds from when it is made until another is made by key. Who watches goes on watching.
void ViewWidget::follow_the_profile() {
  const CameraKind kind = session_.profile().camera.kind;
  if (kind == chosen_kind_) return;
  chosen_kind_ = kind;
  const auto mode = static_cast<CameraMode>(kind);
  if (camera_.mode != CameraMode::Free) {
    set_camera(mode);
  } else {
    drive_camera_ = mode;
  }
}

// The free camera begins where the eye is, or behind the figure's head if the eye was in it.
void ViewWidget::begin_free() {
  if (camera_.mode == CameraMode::Free || session_.place() == nullptr) return;
  Eye from = camera_.follow(session_, 0.0);
  if (camera_.mode == CameraMode::FirstPerson) {
    const Vec3 back = -from.forward_C * kFreeBehind;
    const auto hit = session_.place()->world.sweep(
        {from.at_C, from.at_C}, session_.profile().camera.pull_in_radius, back, session_.moment());
    from.at_C += back * (hit ? hit->hit.fraction : 1.0);
  }
  camera_.place_free(from);
  camera_.mode = CameraMode::Free;
}

// The camera goes on once for each beat; drawing changes nothing.
void ViewWidget::pass(double seconds) {
  follow_the_profile();
  if (camera_.mode == CameraMode::Free && !driving_) move_free_camera(seconds);
  drawn_eye_ = camera_.follow(session_, seconds);
  session_.see_by(camera_.steers_as_seen() ? std::optional(drawn_eye_) : std::nullopt);
  drawn_field_ = camera_.field(session_);
  const Drawn next = to_draw();
  if (!stale_ && !next.live && drawn_ == next) return;  // At rest nothing is drawn.
  stale_ = false;
  drawn_ = next;
  canvas_->widget().update();
}

ViewWidget::Drawn ViewWidget::to_draw() const {
  const bool live = session_.live() || session_.playing();
  return {session_.revision(),
          session_.playhead(),
          drawn_eye_,
          drawn_field_,
          overlays_,
          trail_,
          driving_,
          session_.paused(),
          live,
          session_.drawing(),
          session_.tick_rate()};
}

void ViewWidget::count_frame(double now) {
  ++frames_counted_;
  if (now - counted_since_ < kCountEvery) return;
  frames_per_second_ = frames_counted_ / (now - counted_since_);
  counted_since_ = now;
  frames_counted_ = 0;
}

void ViewWidget::begin_gl() {
  trouble_ = renderer_.initialize();
  begun_ = trouble_.isEmpty();
}

void ViewWidget::draw_gl(const QSize& pixels, bool flipped) {
  if (!begun_) return;
  if (scene_changed_) renderer_.set_scene(session_.place()->drawn);
  scene_changed_ = false;
  renderer_.draw(drawn_frame(drawn_eye_, pixels, flipped));
  count_frame(heart_.now());
}

void ViewWidget::draw_text(QPainter& painter) {
  if (plain_) return;
  const bool figure = camera_.mode != CameraMode::FirstPerson;
  readouts_.paint(painter, {view_projection(drawn_eye_, drawn_field_, size(), Vec3(0.0)), drawn_eye_, size(),
                            frames_per_second_, driving_, has_driven_, figure, trail_picture().legend,
                            camera_.mode == CameraMode::Free, away_, pointer_free_});
}

DrawnFrame ViewWidget::drawn_frame(const Eye& eye, const QSize& pixels, bool flipped) const {
  return session_frame(session_, {eye, drawn_field_, camera_.mode != CameraMode::FirstPerson}, extras(), pixels,
                       flipped);
}

const Trail::Picture& ViewWidget::trail_picture() const {
  const auto place = session_.place();
  return drawn_trail_.of(session_, trail_, ghosts_, place == nullptr ? Vec3(0.0) : place->drawn.origin_C);
}

std::optional<QPointF> ViewWidget::pixel_of(const Vec3& at_C) const {
  const glm::dvec4 clip = view_projection(drawn_eye_, drawn_field_, size(), Vec3(0.0)) * glm::dvec4(at_C, 1.0);
  if (clip.w <= 0.0) return std::nullopt;
  return QPointF((clip.x / clip.w * 0.5 + 0.5) * width(), (0.5 - clip.y / clip.w * 0.5) * height());
}

Vec3 ViewWidget::ray_through(const QPointF& at) const {
  const double reach = std::tan(drawn_field_ / 2.0);
  const double x = (at.x() / width() * 2.0 - 1.0) * reach * width() / height(),
               y = (1.0 - at.y() / height() * 2.0) * reach;
  return glm::normalize(drawn_eye_.forward_C + drawn_eye_.right_C() * x + drawn_eye_.up_C * y);
}

// What a ledger line is about is small and lies on surfaces: it is looked for first.
void ViewWidget::pick(const QPointF& at) {
  if (!session_.has_shown()) return;
  std::optional<std::size_t> entry;
  double nearest = kPickDistance;
  const Ledger ledger = session_.last_ledger();
  for (std::size_t i = 0; i < ledger.entries.size(); ++i) {
    for (const Vec3& place : places_of(ledger.entries[i], session_.current())) {
      const auto pixel = pixel_of(place);
      if (!pixel || QLineF(*pixel, at).length() >= nearest) continue;
      nearest = QLineF(*pixel, at).length();
      entry = i;
    }
  }
  if (entry && piece_of(ledger.entries[*entry]) != kNoPiece) {
    emit picked(entry, piece_of(ledger.entries[*entry]));
    return;
  }
  const auto hit =
      session_.place()->world.cast_ray(drawn_eye_.at_C, ray_through(at) * kPickReach, session_.moment());
  emit picked(entry, hit ? hit->piece : kNoPiece);
}

void ViewWidget::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  canvas_->widget().setGeometry(rect());
  stale_ = true;
}

// While one drives, the places that drive are the character's, whatever the layout has there.
bool ViewWidget::event(QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride && driving_) {
    const auto* key = static_cast<QKeyEvent*>(event);
    const bool plain = !(key->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
    if (plain && bindings_.of(*key)) {
      event->accept();
      return true;
    }
  }
  return QWidget::event(event);
}

double ViewWidget::since_frame(const QInputEvent& event) {
  const double now = heart_.now(), late_by = key_times_.late_by(event.timestamp(), now);
  return heart_.since_beat(now - late_by);
}

void ViewWidget::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape && driving_) return set_driving(false);
  const auto does = bindings_.of(*event);
  const bool plain = !(event->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
  if (!does || !plain) return QWidget::keyPressEvent(event);
  if (!event->isAutoRepeat()) controls_.press({Controls::kHands, code_of(*event)}, *does, since_frame(*event));
}

void ViewWidget::keyReleaseEvent(QKeyEvent* event) {
  if (event->isAutoRepeat()) return;
  if (!controls_.let_go({Controls::kHands, code_of(*event)}, since_frame(*event)))
    QWidget::keyReleaseEvent(event);
}

void ViewWidget::focusOutEvent(QFocusEvent* event) {
  if (!moved_) {
    controls_.let_all_go();
    set_driving(false);
  }
  QWidget::focusOutEvent(event);
}

void ViewWidget::look_round(const QMouseEvent& event) {
  const QPointF moved = pointer_.seen(event.globalPosition());
  if (!moved.isNull()) controls_.turn_by(Vec2(moved.x() * mouse_.x(), moved.y() * mouse_.y()));
  const QPointF from_middle = event.globalPosition() - PointerTurn::exact(mapToGlobal(rect().center()));
  if (!from_middle.isNull() && !pointer_.only_follows()) send_pointer_to_middle();
}

void ViewWidget::mousePressEvent(QMouseEvent* event) {
  setFocus(Qt::MouseFocusReason);
  drag_from_ = pressed_at_ = event->position();
  const auto does = bindings_.of(event->button());
  if (does && driving_) controls_.press(control_of(event->button()), *does, since_frame(*event));
}

void ViewWidget::mouseReleaseEvent(QMouseEvent* event) {
  if (controls_.let_go(control_of(event->button()), since_frame(*event))) return;
  const bool click = QLineF(event->position(), pressed_at_).length() < kClickDistance;
  if (!driving_ && click && event->button() == Qt::LeftButton) pick(event->position());
}

void ViewWidget::mouseMoveEvent(QMouseEvent* event) {
  if (driving_ && !pointer_free_) return look_round(*event);
  if (!(event->buttons() & (Qt::LeftButton | Qt::RightButton))) return;
  const bool dragged = QLineF(event->position(), pressed_at_).length() >= kClickDistance;
  if (camera_.mode != CameraMode::Free && !dragged) return;
  if (!driving_) begin_free();
  const QPointF moved = event->position() - drag_from_;
  drag_from_ = event->position();
  if (driving_) return controls_.turn_by(Vec2(moved.x() * mouse_.x(), moved.y() * mouse_.y()));
  camera_.turn_free(Vec2(moved.x() * mouse_.x(), moved.y() * mouse_.y()) * kFreeTurn);
}

void ViewWidget::wheelEvent(QWheelEvent* event) {
  const double notches = event->angleDelta().y() / 120.0;
  if (camera_.mode == CameraMode::Free) {
    camera_.move_free(Vec3(0.0, 0.0, notches));
  } else {
    camera_.zoom(notches);
  }
}

void ViewWidget::move_free_camera(double seconds) {
  using Push = DriveSession::Push;
  const auto held = [this](const Does& does) { return double(controls_.is_held(does)); };
  const Profile::Look& look = session_.profile().look;
  const Sticks sticks = controls_.sticks();
  const Vec2 stick = shaped_stick(sticks.move, look.dead_zone);
  Vec3 intent(held(Push::Right) - held(Push::Left) + stick.x, held(Action::Jump) - held(Action::Crouch),
              held(Push::Forward) - held(Push::Back) + stick.y);
  if (length(intent) > 1.0) intent = glm::normalize(intent);
  const double time = std::min(seconds, 0.1);
  camera_.move_free(intent * ((controls_.is_held(Action::Sprint) ? kFreeFast : kFreeSpeed) * time));
  const Vec2 turn = stick_turn_rate(look, sticks.look) * time;
  if (turn != Vec2(0.0)) camera_.turn_free(turn);
}

}  // namespace lagniappe::app
