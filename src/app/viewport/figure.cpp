// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/figure.h"

#include <algorithm>
#include <glm/gtc/matrix_transform.hpp>

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr double kStrideLength = 1.5;  // m for a step with each leg.
constexpr double kFullSwingSpeed = 4.0;
constexpr double kLegSwing = radians(34.0), kArmSwing = radians(26.0);
constexpr double kDrawnFor = 1.8;  // m, the height that the sizes below are for.

const QColor kWaders(0x3E, 0x55, 0x52), kCoat(0x2F, 0x46, 0x58), kSkin(0xD8, 0xB7, 0x9A),
    kHat(0x27, 0x36, 0x40), kBoots(0x2A, 0x33, 0x35);

using Mat = glm::dmat4;

Mat part(const Mat& base, const Vec3& centre, const Vec3& size) {
  return glm::scale(glm::translate(base, centre), size);
}

// A limb that hangs from `joint` and swings about X.
Mat hung(const Mat& base, const Vec3& joint, double angle) {
  return glm::rotate(glm::translate(base, joint), angle, Vec3(1, 0, 0));
}

void add_leg(std::vector<FigurePart>& parts, const Mat& body, double side, double angle) {
  const Mat leg = hung(body, {0.105 * side, 0.86, 0.0}, angle);
  parts.push_back({Solid::Drum, part(leg, {0, -0.38, 0}, {0.185, 0.80, 0.20}), kWaders});
  parts.push_back({Solid::Box, part(leg, {0, -0.80, -0.05}, {0.16, 0.12, 0.30}), kBoots});
}

void add_arm(std::vector<FigurePart>& parts, const Mat& body, double side, double angle) {
  const Mat arm = hung(body, {0.275 * side, 1.36, 0.0}, angle);
  parts.push_back({Solid::Drum, part(arm, {0, -0.24, 0}, {0.12, 0.56, 0.13}), kCoat});
  parts.push_back({Solid::Ball, part(arm, {0, -0.54, 0}, {0.12, 0.13, 0.12}), kSkin});
  if (side < 0.0) return;
  // The lantern, in the right hand.
  parts.push_back({Solid::Drum, part(arm, {0, -0.68, -0.06}, {0.13, 0.17, 0.13}), theme::kGold});
  parts.push_back({Solid::Cone, part(arm, {0, -0.56, -0.06}, {0.15, 0.08, 0.15}), kHat});
}

void add_head(std::vector<FigurePart>& parts, const Mat& body) {
  parts.push_back({Solid::Ball, part(body, {0, 1.57, 0}, {0.23, 0.25, 0.24}), kSkin});
  parts.push_back({Solid::Cone, part(body, {0, 1.57, -0.135}, {0.05, 0.07, 0.07}), kSkin});
  parts.push_back({Solid::Drum, part(body, {0, 1.655, -0.03}, {0.36, 0.025, 0.42}), kHat});
  parts.push_back({Solid::Drum, part(body, {0, 1.73, 0}, {0.24, 0.14, 0.25}), kHat});
  parts.push_back({Solid::Drum, part(body, {0, 1.685, 0}, {0.25, 0.035, 0.26}), theme::kGold});
}

void add_trunk(std::vector<FigurePart>& parts, const Mat& body) {
  parts.push_back({Solid::Drum, part(body, {0, 1.16, 0}, {0.44, 0.54, 0.30}), kCoat});
  parts.push_back({Solid::Cone, part(body, {0, 0.92, 0}, {0.56, 0.62, 0.42}), kCoat});
  parts.push_back({Solid::Ball, part(body, {0, 1.40, 0}, {0.50, 0.20, 0.30}), kCoat});
  // The front: bib of the waders and two buckles.
  parts.push_back({Solid::Box, part(body, {0, 1.20, -0.14}, {0.26, 0.34, 0.06}), kWaders});
  for (const double side : {-1.0, 1.0})
    parts.push_back({Solid::Box, part(body, {0.09 * side, 1.35, -0.165}, {0.05, 0.05, 0.03}), theme::kGold});
}

DrawVertex vertex(const Vec3& p, const Vec3& n) {
  const Vec3 unit = unit_or(n, Vec3(0, 1, 0));
  return {{float(p.x), float(p.y), float(p.z)}, {float(unit.x), float(unit.y), float(unit.z)}, {1, 1, 1, 1}};
}

// A body of revolution about Y: the profile's points are (radius, height), the normals come with them.
std::vector<DrawVertex> lathe(const std::vector<Vec2>& profile, const std::vector<Vec2>& normals) {
  constexpr int kSides = 20;
  const auto at = [&](std::size_t i, int k) {
    const double a = 2.0 * kPi * k / kSides;
    const Vec3 round(std::cos(a), 0.0, std::sin(a));
    return vertex(round * profile[i].x + Vec3(0, profile[i].y, 0),
                  round * normals[i].x + Vec3(0, normals[i].y, 0));
  };
  std::vector<DrawVertex> out;
  for (std::size_t i = 0; i + 1 < profile.size(); ++i) {
    for (int k = 0; k < kSides; ++k) {
      const DrawVertex a = at(i, k), b = at(i, k + 1), c = at(i + 1, k + 1), d = at(i + 1, k);
      out.insert(out.end(), {a, d, c, a, c, b});
    }
  }
  return out;
}

std::vector<DrawVertex> ball() {
  std::vector<Vec2> profile, normals;
  for (int i = 0; i <= 10; ++i) {
    const double a = -kPi / 2 + kPi * i / 10;
    normals.emplace_back(std::cos(a), std::sin(a));
    profile.push_back(normals.back() * 0.5);
  }
  return lathe(profile, normals);
}

std::vector<DrawVertex> box() {
  std::vector<DrawVertex> out;
  for (const Triangle& t : triangles_of({"", {0, -0.5, 0}, Vec3(0.0), "", shape::Block{Vec3(1.0)}})) {
    const Vec3 n = cross(t.v1_C - t.v0_C, t.v2_C - t.v0_C);
    for (const Vec3& p : {t.v0_C, t.v1_C, t.v2_C}) out.push_back(vertex(p, n));
  }
  return out;
}

}  // namespace

Carriage carriage_of(double travelled, double ground_speed, bool airborne) {
  return {2.0 * kPi * travelled / kStrideLength, std::clamp(ground_speed / kFullSwingSpeed, 0.0, 1.0),
          airborne};
}

std::vector<FigurePart> figure_parts(const Pose& pose, const Carriage& carriage) {
  const double scale = pose.capsule_height / kDrawnFor;
  const double swing = carriage.airborne ? 0.55 : std::sin(carriage.stride) * carriage.swing;
  const double bob = carriage.airborne ? 0.0 : 0.03 * carriage.swing * std::abs(std::cos(carriage.stride));
  Mat body = glm::translate(Mat(1.0), pose.foot_C) * glm::mat4_cast(pose.frame_CB) *
             glm::rotate(Mat(1.0), pose.facing, Vec3(0, 1, 0));
  body = glm::translate(glm::scale(body, Vec3(scale)), Vec3(0, bob, 0));
  std::vector<FigurePart> parts;
  for (const double side : {-1.0, 1.0}) {
    add_leg(parts, body, side, side * swing * kLegSwing);
    add_arm(parts, body, side, -side * swing * kArmSwing);
  }
  add_trunk(parts, body);
  add_head(parts, body);
  return parts;
}

std::vector<DrawVertex> solid_triangles(Solid solid) {
  switch (solid) {
    case Solid::Ball:
      return ball();
    case Solid::Drum:
      return lathe({{0, -0.5}, {0.5, -0.5}, {0.5, -0.5}, {0.5, 0.5}, {0.5, 0.5}, {0, 0.5}},
                   {{0, -1}, {0, -1}, {1, 0}, {1, 0}, {0, 1}, {0, 1}});
    case Solid::Cone:
      return lathe({{0, -0.5}, {0.5, -0.5}, {0.5, -0.5}, {0.0, 0.5}}, {{0, -1}, {0, -1}, {1, 0.5}, {1, 0.5}});
    case Solid::Box:
      return box();
  }
  return {};
}

}  // namespace lagniappe::app
