// SPDX-License-Identifier: GPL-3.0-or-later
// A curve of the profile: points that are pulled, added by a double click, and taken away by Delete.
#include <algorithm>

#include "cards/drawings.h"

namespace lagniappe::app {
namespace {

constexpr double kLeastGap = 1e-3;  // Between points, as a share of the axis.

class CurveEditor : public CardDrawing {
 public:
  explicit CurveEditor(const char* path) : field_(*find_curve(path)) {}

  int height() const override { return 120; }

  Extent extent(const Profile& p) const override {
    const auto [left, right] = x_range(p);
    double top = 1.05;
    for (int i = 0; i < curve(p).count; ++i) top = std::max(top, 1.05 * curve(p).points[i].y);
    const double wide = right - left;
    return {left - 0.09 * wide, right + 0.05 * wide, -0.16 * top, 1.12 * top, false};
  }

  void draw(Sketch& sketch, const Profile& p) const override {
    const auto [left, right] = x_range(p);
    sketch.line({{left, 0.0}, {right, 0.0}}, Sketch::Ink::Solid);
    sketch.line({{left, 1.0}, {right, 1.0}}, Sketch::Ink::Faint);
    for (const double x : {left, 0.5 * (left + right), right}) {
      sketch.line({{x, 0.0}, {x, -0.03}}, Sketch::Ink::Dimension);
      sketch.label({x, -0.03}, QString("%1°").arg(x, 0, 'f', 0));
    }
    sketch.line(outline(p), Sketch::Ink::Now);
    sketch.label({left, 1.0}, "100 %");
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    sketch.line(outline(p), Sketch::Ink::Reference);
  }

  std::vector<Handle> handles(const Profile& p) const override {
    std::vector<Handle> all;
    for (int i = 0; i < curve(p).count; ++i) {
      const Vec2& at = curve(p).points[i];
      all.push_back(
          {QString("point %1").arg(i + 1), at,
           QObject::tr("%1°: %2 %. Delete takes the point away; a double click on the drawing adds one")
               .arg(at.x, 0, 'f', 1)
               .arg(100.0 * at.y, 0, 'f', 0),
           path_of(field_.section, field_.key)});
    }
    return all;
  }

  Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const override {
    Profile p = profile;
    Curve& c = field_.curve(p);
    const int i = int(handle);
    const double gap = kLeastGap * (field_.highest_x - field_.lowest_x);
    const double low = i > 0 ? c.points[i - 1].x + gap : field_.lowest_x;
    const double high = i + 1 < c.count ? c.points[i + 1].x - gap : field_.highest_x;
    c.points[i] = {std::clamp(to.x, low, std::max(low, high)),
                   std::clamp(to.y, field_.lowest_y, field_.highest_y)};
    return p;
  }

  std::optional<Profile> with_point(const Profile& profile, const Vec2& at) const override {
    if (curve(profile).count == Curve::kMostPoints || at.x < field_.lowest_x || at.x > field_.highest_x)
      return std::nullopt;
    Profile p = profile;
    Curve& c = field_.curve(p);
    int i = c.count;
    while (i > 0 && c.points[i - 1].x >= at.x) c.points[i] = c.points[i - 1], --i;
    c.points[i] = {at.x, std::clamp(at.y, field_.lowest_y, field_.highest_y)};
    ++c.count;
    return p;
  }

  std::optional<Profile> without_point(const Profile& profile, std::size_t handle) const override {
    Profile p = profile;
    Curve& c = field_.curve(p);
    if (int(handle) >= c.count) return std::nullopt;
    for (int i = int(handle) + 1; i < c.count; ++i) c.points[i - 1] = c.points[i];
    --c.count;
    return p;
  }

 private:
  const Curve& curve(const Profile& p) const { return field_.get(p); }

  std::pair<double, double> x_range(const Profile& p) const {
    if (field_.lowest_x >= 0.0) return {field_.lowest_x, field_.highest_x};
    // Slopes: what is walked, and the curve's own points.
    double most = degrees(p.ground.steepest_walkable);
    for (int i = 0; i < curve(p).count; ++i) most = std::max(most, std::abs(curve(p).points[i].x));
    return {-most, most};
  }

  std::vector<Vec2> outline(const Profile& p) const {
    const auto [left, right] = x_range(p);
    std::vector<Vec2> points = {{left, curve(p).at(left)}};
    for (int i = 0; i < curve(p).count; ++i) points.push_back(curve(p).points[i]);
    points.emplace_back(right, curve(p).at(right));
    return points;
  }

  const ProfileCurve& field_;
};

}  // namespace

std::unique_ptr<CardDrawing> curve_editor(const char* path) { return std::make_unique<CurveEditor>(path); }

}  // namespace lagniappe::app
