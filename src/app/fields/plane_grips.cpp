// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/plane_grips.h"

#include <QMouseEvent>

#include "fields/cut_view.h"
#include "theme/theme.h"
#include "viewport/line_pen.h"
#include "viewport/view_widget.h"

namespace lagniappe::app {
namespace {

constexpr double kArm = 38.0, kNear = 9.0;  // Pixels.
constexpr double kLeastPixels = 4.0;        // Of a metre or radian, or dragging it would throw the plane away.

double square(const QPointF& p) { return QPointF::dotProduct(p, p); }

}  // namespace

PlaneGrips::PlaneGrips(CutView& cut, DriveSession& session, ViewWidget& view)
    : cut_(cut), session_(session), view_(view) {
  view.installEventFilter(this);
}

Vec3 PlaneGrips::foot_C() const {
  const CharacterState& state = session_.current();
  const Vec3 body_C = state.foot_C + state.up_C() * (0.5 * state.capsule_height);
  return body_C - cut_.cut().towards_C() * cut_.cut().off(body_C);
}

double PlaneGrips::arm() const {
  constexpr double kStep = 0.05;  // m.
  const Vec3 foot = foot_C();
  const auto at = view_.pixel_of(foot);
  double longest = 1.0;
  for (const Vec3& way : {cut_.cut().across_C, cut_.cut().up_C, cut_.cut().towards_C()}) {
    const auto there = view_.pixel_of(foot + way * kStep);
    if (at && there) longest = std::max(longest, std::sqrt(square(*there - *at)) / kStep);
  }
  return kArm / longest;
}

Vec3 PlaneGrips::tip_C(Grip grip, const Cut& cut) const {
  // Of `cut`, which may have been pushed or turned a little from the one that is shown.
  const Vec3 foot = foot_C(), in_plane = foot - cut.towards_C() * cut.off(foot);
  switch (grip) {
    case Grip::Push:
      return in_plane + cut.towards_C() * arm();
    case Grip::AboutUp:
      return in_plane + cut.across_C * arm();
    case Grip::AboutAcross:
      break;
  }
  return in_plane + cut.up_C * arm();
}

std::optional<QPointF> PlaneGrips::pixel(Grip grip) const { return view_.pixel_of(tip_C(grip, cut_.cut())); }

Cut PlaneGrips::moved(Grip grip, const Cut& cut, double by) const {
  if (grip == Grip::Push) return pushed(cut, -by);
  // About where the arms stand: that stays in the plane, and where it is in the picture.
  const Vec3 foot = foot_C(), d = cut.middle_C - foot;
  Cut after = grip == Grip::AboutUp ? turned(cut, by, 0.0) : turned(cut, 0.0, by);
  after.middle_C = foot + after.across_C * dot(d, cut.across_C) + after.up_C * dot(d, cut.up_C);
  return after;
}

bool PlaneGrips::begin(const QPointF& at) {
  for (const Grip grip : kGrips) {
    const auto there = pixel(grip);
    if (!there || square(*there - at) > kNear * kNear) continue;
    held_ = grip;
    last_ = at;
    cut_.set_rough(true);
    return true;
  }
  return false;
}

// By what brings the tip to where the mouse goes, along the way that the tip can go in the picture.
void PlaneGrips::drag(const QPointF& to) {
  constexpr double kStep = 1e-3;
  const Cut cut = cut_.cut();
  const auto here = view_.pixel_of(tip_C(*held_, cut)),
             there = view_.pixel_of(tip_C(*held_, moved(*held_, cut, kStep)));
  if (!here || !there) return;
  const QPointF way = (*there - *here) / kStep;
  const double pixels = std::max(square(way), kLeastPixels * kLeastPixels);
  cut_.set_cut(moved(*held_, cut, QPointF::dotProduct(to - last_, way) / pixels));
  last_ = to;
}

bool PlaneGrips::eventFilter(QObject*, QEvent* event) {
  const auto* mouse = event->isSinglePointEvent() ? dynamic_cast<QMouseEvent*>(event) : nullptr;
  if (mouse == nullptr || view_.driving() || cut_.pulls() == nullptr) return false;
  if (event->type() == QEvent::MouseButtonPress)
    return mouse->button() == Qt::LeftButton && begin(mouse->position());
  if (!held_) return false;
  if (event->type() == QEvent::MouseMove) {
    drag(mouse->position());
  } else if (event->type() == QEvent::MouseButtonRelease) {
    held_.reset();
    cut_.set_rough(false);
  }
  return true;
}

void PlaneGrips::draw(LinePen& pen) const {
  const Cut& cut = cut_.cut();
  const Vec3 foot = foot_C();
  const double length = arm();
  pen.arrow(foot, cut.towards_C() * length, theme::gold());
  // Each arm with the way that its tip goes.
  for (const Vec3& way : {cut.across_C, cut.up_C}) {
    constexpr double kShown = 0.35;  // rad to either side.
    pen.line(foot, foot + way * length, theme::gold());
    for (const double side : {-1.0, 1.0})
      pen.arc(foot, way * length, cut.towards_C() * (side * length), kShown, theme::gold());
  }
}

}  // namespace lagniappe::app
