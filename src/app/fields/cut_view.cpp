// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/cut_view.h"

#include <QJsonDocument>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "fields/course_scale.h"
#include "theme/focus_ring.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr double kGrip = 9.0;                // Pixels.
constexpr double kTurn = radians(0.4);       // For a pixel.
constexpr double kPan = 40.0, kWheel = 1.2;  // Pixels of an arrow key, factor of a notch.
constexpr qint64 kLiveEvery = 250;           // ms.
constexpr double kSeesBody = 16.0;           // Pixels of a metre, at least, to see a body.
constexpr double kPush = 0.5;                // m of a page key.

}  // namespace

CutView::CutView(CourseDesk& desk, DriveSession& session, QWidget* parent)
    : QWidget(parent), desk_(desk), session_(session) {
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(320, 210);
  setAccessibleName(tr("Cut through the course"));
  describe();
}

CutView::~CutView() = default;

QSize CutView::picture_size() const { return {width(), std::max(height() - kLegend, 1)}; }

double CutView::shown_time() const { return session_.current().time; }

void CutView::describe() {
  QString text =
      tr("Space chooses the next field or zone; arrow keys move the picture, with Alt what is chosen, "
         "with Shift they turn the cut; Page Up and Page Down push it");
  if (chosen_ && desk_.course() != nullptr)
    text = tr("%1 is chosen. ").arg(row_name(*desk_.course(), *chosen_)) + text;
  setAccessibleDescription(text);
}

void CutView::draw_anew() {
  picture_.reset();
  still_ = {};
  update();
}

void CutView::refresh() {
  const Course* course = desk_.course();
  if (course == nullptr) {
    if (pulls_) pulls_.reset(), draw_anew();
    return;
  }
  const double gravity = session_.profile().gravity;
  if (pulls_ == nullptr || edition_ != desk_.edition() || gravity != gravity_) {
    pulls_ = std::make_unique<Pulls>(*course, gravity);
    edition_ = desk_.edition();
    gravity_ = gravity;
    const bool gone = chosen_ && chosen_->index >= row_count(*course, chosen_->list);
    if (gone) choose(std::nullopt);
    draw_anew();
    emit line_changed();
  }
  if (path_ != desk_.path()) {
    path_ = desk_.path();
    choose(std::nullopt);
    cut_through_playhead();
    show_all();
    if (!course->fields.empty()) choose(RowChoice{CourseList::Fields, 0});
  }
  const bool moved = pulls_->moves() || session_.place()->world.has_movers();
  // While one drives it follows in steps: a picture costs more than a frame has.
  const bool due = !session_.live() || !since_drawn_.isValid() || since_drawn_.elapsed() > kLiveEvery;
  if (moved && drawn_time_ != shown_time() && due) {
    since_drawn_.start();
    drawn_time_ = shown_time();
    draw_anew();
    emit line_changed();
  }
  if (playhead_ == session_.playhead() && revision_ == session_.revision()) return;
  playhead_ = session_.playhead();
  revision_ = session_.revision();
  update();
}

const CutPicture* CutView::picture() {
  if (desk_.course() == nullptr || pulls_ == nullptr || session_.place() == nullptr) return nullptr;
  if (picture_ == nullptr)
    picture_ = std::make_unique<CutPicture>(
        *desk_.course(), *session_.place(), *pulls_, cut_, picture_size(), shown_time(),
        drag_ == Drag::None && !rough_ ? CutPicture::Grain::Fine : CutPicture::Grain::Coarse);
  return picture_.get();
}

void CutView::set_cut(const Cut& cut) {
  if (cut == cut_) return;
  cut_ = cut;
  draw_anew();
  emit cut_changed();
}

void CutView::set_rough(bool rough) {
  if (std::exchange(rough_, rough) != rough) draw_anew();
}

void CutView::cut_through_playhead() {
  if (session_.place() == nullptr) return;
  const CharacterState& state = session_.current();
  const Vec3 ahead = state.frame_CB * Vec3(-std::sin(state.facing), 0.0, -std::cos(state.facing));
  set_cut(cut_along(state.foot_C + state.up_C() * (0.5 * state.capsule_height), state.up_C(), ahead,
                    std::max(cut_.pixels, kSeesBody)));
}

void CutView::show_all() {
  if (desk_.course() == nullptr) return;
  set_cut(covering(cut_, *desk_.course(), picture_size()));
  const Vec3 half = cut_.across_C * (0.25 * picture_size().width() / cut_.pixels);
  set_line(cut_.middle_C - half, cut_.middle_C + half);
}

void CutView::choose(const std::optional<RowChoice>& row) {
  if (chosen_ == row) return;
  chosen_ = row;
  still_ = {};
  describe();
  update();
  emit chosen_changed();
}

void CutView::choose_and_show(const RowChoice& row) {
  choose(row);
  const auto all = all_handles();
  if (picture() == nullptr || all.empty() || picture()->name_place(row)) return;
  Cut there = pushed(cut_, -cut_.off(all.front().at_C));
  if (!QRectF(QPointF(), QSizeF(picture_size())).contains(pixel_of(all.front().at_C)))
    there.middle_C = all.front().at_C;
  set_cut(there);
}

void CutView::set_line(const Vec3& from_C, const Vec3& to_C) {
  from_C_ = from_C;
  to_C_ = to_C;
  update();
  emit line_changed();
}

std::vector<CutHandle> CutView::handles() const {
  if (picture_ && chosen_ && !picture_->cuts(*chosen_)) return {};
  return all_handles();
}

std::vector<CutHandle> CutView::all_handles() const {
  if (!chosen_ || desk_.course() == nullptr || pulls_ == nullptr) return {};
  return handles_of(*desk_.course(), *chosen_, *pulls_, cut_, shown_time());
}

CutView::Drag CutView::grip_at(const QPointF& p, std::size_t& handle) const {
  const auto near = [&](const Vec3& at_C) {
    const QPointF d = pixel_of(at_C) - p;
    return std::hypot(d.x(), d.y()) < kGrip;
  };
  // The place lies below the sizes that may have come to nothing on it.
  const auto all = handles();
  for (std::size_t i = all.size(); i-- > 0;) {
    if (!near(all[i].at_C)) continue;
    handle = i;
    return Drag::Handle;
  }
  if (near(from_C_)) return Drag::From;
  return near(to_C_) ? Drag::To : Drag::None;
}

void CutView::mousePressEvent(QMouseEvent* event) {
  setFocus(Qt::MouseFocusReason);
  last_ = event->position();
  moved_ = false;
  if (event->button() == Qt::RightButton || event->modifiers() & Qt::ShiftModifier) {
    drag_ = Drag::Turn;
    return;
  }
  if (event->button() != Qt::LeftButton || event->position().y() > picture_size().height()) return;
  drag_ = grip_at(event->position(), handle_);
  if (drag_ == Drag::Handle) {
    grip_ = event->position() - pixel_of(handles()[handle_].at_C);
    gesture_ = desk_.new_gesture();
  }
  if (drag_ == Drag::None) drag_ = Drag::Picture;
}

void CutView::drag_handle(const QPointF& to) {
  const auto all = handles();
  if (handle_ >= all.size()) return;
  const CutHandle& handle = all[handle_];
  // What lies before or behind the cut stays so far from it.
  const Vec3 to_C = cut_.point(to, picture_size()) + cut_.towards_C() * cut_.off(handle.at_C);
  const QJsonObject row = handle.moved(to_C, grain());
  const QString what = handle.kind == CutHandle::Kind::Place ? tr("move %1") : tr("size of %1");
  desk_.set_row(chosen_->list, chosen_->index, QJsonDocument(row).toJson(QJsonDocument::Compact),
                what.arg(row_name(*desk_.course(), *chosen_)), gesture_);
  refresh();
}

void CutView::mouseMoveEvent(QMouseEvent* event) {
  const QPointF at = event->position(), by = at - last_;
  pointer_ = at;
  if (drag_ == Drag::None) {
    std::size_t handle = 0;
    setCursor(grip_at(at, handle) == Drag::None ? Qt::ArrowCursor : Qt::PointingHandCursor);
    return update();
  }
  if (!moved_ && std::hypot(by.x(), by.y()) < 3.0) return;
  moved_ = true;
  last_ = at;
  switch (drag_) {
    case Drag::Picture:
      return set_cut(dragged(cut_, by));
    case Drag::Turn:
      return set_cut(turned(cut_, -by.x() * kTurn, -by.y() * kTurn));
    case Drag::Handle:
      return drag_handle(at - grip_);
    case Drag::From:
      return set_line(cut_.point(at, picture_size()), to_C_);
    case Drag::To:
      return set_line(from_C_, cut_.point(at, picture_size()));
    case Drag::None:
      return;
  }
}

void CutView::mouseReleaseEvent(QMouseEvent* event) {
  const Drag was = std::exchange(drag_, Drag::None);
  if (was != Drag::None && moved_) draw_anew();  // As fine as can be.
  if (was != Drag::Picture || moved_ || picture() == nullptr) return;
  choose(picture()->row_at(event->position()));
}

void CutView::wheelEvent(QWheelEvent* event) {
  const double notches = event->angleDelta().y() / 120.0;
  if (event->modifiers() & Qt::ControlModifier) return set_cut(pushed(cut_, notches * kPush));
  set_cut(zoomed(cut_, std::pow(kWheel, notches), event->position(), picture_size()));
}

void CutView::move_chosen(const QPointF& pixels) {
  const auto all = handles();
  if (all.empty()) return;
  handle_ = 0;
  gesture_ = desk_.new_gesture();
  drag_handle(pixel_of(all.front().at_C) + pixels);
}

void CutView::choose_next(int step) {
  const Course* course = desk_.course();
  if (course == nullptr) return;
  const auto fields = int(course->fields.size()), all = fields + int(course->zones.size());
  if (all == 0) return;
  int at = step > 0 ? -1 : 0;
  if (chosen_) at = int(chosen_->index) + (chosen_->list == CourseList::Zones ? fields : 0);
  at = (at + step + all) % all;
  choose_and_show(at < fields ? RowChoice{CourseList::Fields, std::size_t(at)}
                              : RowChoice{CourseList::Zones, std::size_t(at - fields)});
}

void CutView::keyPressEvent(QKeyEvent* event) {
  const auto arrow = [&](const QPointF& way) {
    if (event->modifiers() & Qt::AltModifier) return move_chosen(way * 8.0);
    if (event->modifiers() & Qt::ShiftModifier)
      return set_cut(turned(cut_, -way.x() * radians(5.0), -way.y() * radians(5.0)));
    set_cut(dragged(cut_, -way * kPan));
  };
  switch (event->key()) {
    case Qt::Key_Left:
      return arrow({-1, 0});
    case Qt::Key_Right:
      return arrow({1, 0});
    case Qt::Key_Up:
      return arrow({0, -1});
    case Qt::Key_Down:
      return arrow({0, 1});
    case Qt::Key_PageUp:
      return set_cut(pushed(cut_, kPush));
    case Qt::Key_PageDown:
      return set_cut(pushed(cut_, -kPush));
    case Qt::Key_Space:
      return choose_next(event->modifiers() & Qt::ShiftModifier ? -1 : 1);
    case Qt::Key_Delete:
      return emit remove_asked();
    case Qt::Key_Insert:
      return emit add_asked();
    default:
      QWidget::keyPressEvent(event);
  }
}

void CutView::leaveEvent(QEvent* event) {
  pointer_.reset();
  update();
  QWidget::leaveEvent(event);
}

void CutView::changeEvent(QEvent* event) {
  QWidget::changeEvent(event);
  if (event->type() == QEvent::PaletteChange) draw_anew();
}

void CutView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), theme::paper());
  const CutPicture* drawn = picture();
  if (drawn == nullptr) {
    painter.setPen(theme::ink2());
    painter.setFont(theme::text_font(14));
    return painter.drawText(rect(), Qt::AlignCenter, tr("Open a course: what pulls in it is drawn here"));
  }
  painter.setClipRect(QRect(QPoint(), picture_size()));
  if (still_.isNull()) {
    still_ = QPixmap(picture_size() * devicePixelRatioF());
    still_.setDevicePixelRatio(devicePixelRatioF());
    still_.fill(theme::paper());
    QPainter once(&still_);
    drawn->paint(once, chosen_);
  }
  painter.drawPixmap(0, 0, still_);
  paint_throws(painter);
  paint_way(painter);
  paint_line(painter);
  paint_character(painter);
  paint_handles(painter);
  paint_readout(painter);
  paint_words(painter);
  painter.setClipping(false);
  paint_legend(painter);
  theme::paint_focus(painter, *this);
}

}  // namespace lagniappe::app
