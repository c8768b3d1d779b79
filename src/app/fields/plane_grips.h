// SPDX-License-Identifier: GPL-3.0-or-later
// The plane of the cut taken hold of in the view: pushed by its arrow, turned by its two arms. They stand where
// the plane passes the character.
#pragma once

#include <QObject>
#include <array>
#include <optional>

#include "fields/cut.h"

namespace lagniappe::app {

class CutView;
class DriveSession;
class LinePen;
class ViewWidget;

class PlaneGrips : public QObject {
  Q_OBJECT
 public:
  enum class Grip { Push, AboutUp, AboutAcross };
  static constexpr std::array kGrips = {Grip::Push, Grip::AboutUp, Grip::AboutAcross};

  // Takes the mouse where a grip is, and leaves it to the view elsewhere, as while one drives. All outlive it.
  PlaneGrips(CutView& cut, DriveSession& session, ViewWidget& view);

  // Where a grip is in the view, if it is before the eye.
  std::optional<QPointF> pixel(Grip grip) const;
  void draw(LinePen& pen) const;

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  Vec3 foot_C() const;  // Of the arms, in the plane.
  double arm() const;   // m, for the same length on the screen.
  Vec3 tip_C(Grip grip, const Cut& cut) const;
  Cut moved(Grip grip, const Cut& cut, double by) const;  // m or rad.
  bool begin(const QPointF& at);
  void drag(const QPointF& to);

  CutView& cut_;
  DriveSession& session_;
  ViewWidget& view_;
  std::optional<Grip> held_;
  QPointF last_;
};

}  // namespace lagniappe::app
