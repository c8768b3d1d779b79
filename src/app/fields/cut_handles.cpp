// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/cut_handles.h"

#include <QJsonArray>
#include <algorithm>
#include <cmath>

#include "cards/plain_number.h"

namespace lagniappe::app {
namespace {

constexpr double kLeastSize = 0.01;     // m that a size can be dragged to.
constexpr double kMostAskew = 0.75;     // Of a unit axis, towards who looks.
constexpr double kFarthestReach = 1e4;  // m that is looked for a reach's end.

double rounded(double value, double grain) {
  return plain_number(value, std::pow(10.0, std::floor(std::log10(std::max(grain, 1e-6)))));
}

QJsonArray list_of(const Vec3& v) { return {v.x, v.y, v.z}; }

QString metres(const QString& name, double value) {
  return QString("%1 %2 m").arg(name, QString::number(value, 'g', 4));
}

// Where the row stands in its document, and now.
struct Placed {
  Vec3 at_C;
  RigidPose rest, now;

  Vec3 moved_by(const Vec3& by_C) const {
    return at_C + rest.rotation_CP * (glm::conjugate(now.rotation_CP) * by_C);
  }
};

class Maker {
 public:
  Maker(QJsonObject row, const Placed& placed, const Cut& cut, std::vector<CutHandle>& out)
      : row_(std::move(row)), placed_(placed), cut_(cut), out_(out) {}

  void place(const Vec3& shown_at_C) {
    out_.push_back({CutHandle::Kind::Place, QObject::tr("place"), shown_at_C, shown_at_C,
                    [row = row_, placed = placed_, shown_at_C](const Vec3& to, double grain) {
                      const Vec3 at = placed.moved_by(to - shown_at_C);
                      QJsonObject next = row;
                      next["at"] = list_of({rounded(at.x, grain), rounded(at.y, grain), rounded(at.z, grain)});
                      return next;
                    }});
  }

  // A size along an axis of the row's frame: it is `times` the way from `from` plus `more`. `component`: of a
  // list; -1: a number of its own. Zones have it in their shape.
  void size(const char* key, int component, const Vec3& from, const Vec3& along, double times, double more,
            double least = kLeastSize) {
    const Vec3 along_C = placed_.now.rotation_CP * along, from_C = placed_.now.point(from);
    if (std::abs(dot(along_C, cut_.towards_C())) > kMostAskew) return;
    const bool in_shape = row_.contains("shape");
    const QJsonObject holder = in_shape ? row_["shape"].toObject() : row_;
    const double value = component < 0 ? holder[key].toDouble() : holder[key].toArray()[component].toDouble();
    out_.push_back({CutHandle::Kind::Size, metres(key, value), from_C + along_C * ((value - more) / times),
                    from_C, [=, row = row_](const Vec3& to, double grain) {
                      const double size =
                          std::max(least, rounded(dot(to - from_C, along_C) * times + more, grain));
                      QJsonObject inner = holder, next = row;
                      if (component < 0) {
                        inner[key] = size;
                      } else {
                        QJsonArray list = inner[key].toArray();
                        list[component] = size;
                        inner[key] = list;
                      }
                      if (!in_shape) return inner;
                      next["shape"] = inner;
                      return next;
                    }});
  }

  // The axis of the frame that lies best in the cut, of those given.
  Vec3 best(std::initializer_list<Vec3> axes) const {
    return *std::min_element(axes.begin(), axes.end(), [&](const Vec3& a, const Vec3& b) {
      return std::abs(dot(placed_.now.rotation_CP * a, cut_.towards_C())) <
             std::abs(dot(placed_.now.rotation_CP * b, cut_.towards_C())) - 1e-9;
    });
  }
  const Vec3 x{1, 0, 0}, y{0, 1, 0}, z{0, 0, 1};

  void centred_box() {
    int component = 0;
    for (const Vec3& axis : {x, y, z}) size("size", component++, Vec3(0.0), axis, 2.0, 0.0);
  }
  void of(const field::Uniform&) { centred_box(); }
  void of(const field::Slab&) { centred_box(); }
  // The left one: on the right is its reach.
  void of(const field::Ball&) { size("radius", -1, Vec3(0.0), -best({x, y, z}), 1.0, 0.0); }
  void of(const field::Pill& s) {
    size("radius", -1, Vec3(0.0), -best({x, z}), 1.0, 0.0);
    size("length", -1, Vec3(0.0), y, 2.0, -2.0 * s.radius, 0.0);
  }
  void of(const field::Ring& s) {
    const Vec3 out = -best({x, z});
    size("radius", -1, Vec3(0.0), out, 1.0, 0.0);
    size("thickness", -1, Vec3(0.0), out, 1.0, -s.radius);
  }
  void of(const field::Path& s) {
    const std::vector<Vec3>& points = s.line.points();
    for (std::size_t i = 0; i < points.size(); ++i) {
      const Vec3 at_C = placed_.now.point(points[i]);
      out_.push_back({CutHandle::Kind::Size, QObject::tr("point %1").arg(i + 1), at_C, at_C,
                      [=, row = row_, now = placed_.now, i = int(i)](const Vec3& to, double grain) {
                        const Vec3 p = now.back(to);
                        QJsonObject next = row;
                        QJsonArray list = next["points"].toArray();
                        list[i] = list_of({rounded(p.x, grain), rounded(p.y, grain), rounded(p.z, grain)});
                        next["points"] = list;
                        return next;
                      }});
    }
  }
  void of(const zone::Box& s) {
    const Vec3 middle = y * (0.5 * s.size.y);
    size("size", 0, middle, x, 2.0, 0.0);
    size("size", 1, Vec3(0.0), y, 1.0, 0.0);
    size("size", 2, middle, z, 2.0, 0.0);
  }
  void of(const zone::Cylinder& s) {
    size("radius", -1, y * (0.5 * s.height), best({x, z}), 1.0, 0.0);
    size("height", -1, Vec3(0.0), y, 1.0, 0.0);
  }
  void of(const zone::Ball& s) { size("radius", -1, y * s.radius, best({x, z}), 1.0, 0.0); }
  void of(const zone::Pill& s) {
    size("radius", -1, y * s.radius, best({x, z}), 1.0, 0.0);
    size("length", -1, Vec3(0.0), y, 1.0, -2.0 * s.radius, 0.0);
  }

  const QJsonObject& row() const { return row_; }

 private:
  QJsonObject row_;
  Placed placed_;
  Cut cut_;
  std::vector<CutHandle>& out_;
};

// Where one comes to a distance from the field's surface, going out from its centre.
std::optional<Vec3> at_distance(const Pulls& pulls, std::size_t field, const Vec3& from_C, const Vec3& out_C,
                                double wanted, double time) {
  const auto beyond = [&](double way) { return pulls.distance(field, from_C + out_C * way, time) >= wanted; };
  double far = 1.0;
  while (!beyond(far) && far < kFarthestReach) far *= 2.0;
  if (!beyond(far)) return std::nullopt;
  double near = 0.0;
  for (int i = 0; i < 48; ++i) {
    const double middle = 0.5 * (near + far);
    (beyond(middle) ? far : near) = middle;
  }
  return from_C + out_C * far;
}

void add_reach(const Field& field, std::size_t index, const Maker& maker, const Pulls& pulls, const Cut& cut,
               double time, std::vector<CutHandle>& out) {
  const double reach = reach_of(field);
  const Vec3 centre_C = pulls.frame(index, time).position_C;
  const Vec3 right_C = cut.across_C, aslant_C = unit_or(cut.across_C - cut.up_C * 0.35, cut.across_C);
  if (!std::isfinite(reach)) return;
  if (const auto at = at_distance(pulls, index, centre_C, right_C, reach, time)) {
    out.push_back({CutHandle::Kind::Reach, metres("reach", reach), *at, centre_C,
                   [&pulls, index, time, row = maker.row()](const Vec3& to, double grain) {
                     QJsonObject next = row;
                     next["reach"] = std::max(0.0, rounded(pulls.distance(index, to, time), grain));
                     return next;
                   }});
  }
  if (const auto at = at_distance(pulls, index, centre_C, aslant_C, reach - field.fade, time)) {
    out.push_back({CutHandle::Kind::Fade, metres("fade", field.fade), *at, *at,
                   [&pulls, index, time, reach, row = maker.row()](const Vec3& to, double grain) {
                     QJsonObject next = row;
                     next["fade"] = std::max(0.0, rounded(reach - pulls.distance(index, to, time), grain));
                     return next;
                   }});
  }
}

}  // namespace

std::vector<CutHandle> handles_of(const Course& course, const RowChoice& row, const Pulls& pulls,
                                  const Cut& cut, double time) {
  std::vector<CutHandle> handles;
  const QJsonObject object = row_object(course, row);
  if (row.list == CourseList::Fields) {
    const Field& field = course.fields[row.index];
    Maker maker(object, {field.at_C, frame_of(field), pulls.frame(row.index, time)}, cut, handles);
    maker.place(pulls.frame(row.index, time).position_C);
    std::visit([&](const auto& shape) { maker.of(shape); }, field.shape);
    add_reach(field, row.index, maker, pulls, cut, time, handles);
  } else {
    const Zone& zone = course.zones[row.index];
    const RigidPose now = pulls.world().zone(static_cast<ZoneId>(row.index), time).frame;
    Maker maker(object, {zone.at_C, frame_of(zone), now}, cut, handles);
    maker.place(now.position_C);
    std::visit([&](const auto& shape) { maker.of(shape); }, zone.shape);
  }
  return handles;
}

}  // namespace lagniappe::app
