// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/figure.h"

#include <algorithm>
#include <glm/gtc/matrix_transform.hpp>

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr double kArmSwing = radians(26.0);
constexpr double kDrawnFor = 1.8;  // m, the height that the sizes below are for.
constexpr double kHip = 0.86;      // m above the foot, standing.
constexpr double kThigh = 0.41, kShin = 0.41, kAnkle = 0.07;
constexpr double kLongestContact = 0.60;  // m that a foot stays on the ground: what the legs reach.
constexpr double kStrideDrop = 0.035;     // m that the hip is lower in a stride.
constexpr double kFootLift = 0.14;        // m of a foot that swings.
constexpr double kLeastHip = 0.30;        // m, crouched as low as it goes.
constexpr double kSquat = 0.28;           // m by which the hardest landing lowers the hip.

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

// Where a leg's ankle is against its hip, in the plane of the leg: forward and up.
struct Ankle {
  double forward, up;
};

// A thigh and a shin that reach the ankle, the knee in front.
void add_leg(std::vector<FigurePart>& parts, const Mat& body, double side, double hip, const Ankle& ankle) {
  const double reach = std::min(std::hypot(ankle.forward, ankle.up), (kThigh + kShin) * 0.999);
  const double towards = std::atan2(ankle.forward, -ankle.up);
  const double bend = std::acos(
      std::clamp((kThigh * kThigh + reach * reach - kShin * kShin) / (2.0 * kThigh * reach), -1.0, 1.0));
  const double knee = std::acos(
      std::clamp((kThigh * kThigh + kShin * kShin - reach * reach) / (2.0 * kThigh * kShin), -1.0, 1.0));
  const Mat thigh = hung(body, {0.105 * side, hip, 0.0}, towards + bend);
  const Mat shin = hung(thigh, {0.0, -kThigh, 0.0}, knee - kPi);
  parts.push_back({Solid::Drum, part(thigh, {0, -0.5 * kThigh, 0}, {0.19, kThigh + 0.06, 0.21}), kWaders});
  parts.push_back({Solid::Drum, part(shin, {0, -0.5 * kShin, 0}, {0.165, kShin + 0.06, 0.18}), kWaders});
  const Mat foot = hung(shin, {0.0, -kShin, 0.0}, kPi - knee - towards - bend);
  parts.push_back({Solid::Box, part(foot, {0, -0.01, -0.05}, {0.16, 0.12, 0.30}), kBoots});
}

// The ankle of one leg, by the phase of its own stride: on the ground it goes back as far as the body goes on,
// then it swings forward.
Ankle walking_ankle(double phase, const Carriage& carriage, double hip, double scale) {
  const double cycle = 2.0 * carriage.step_length / scale;
  const double contact = std::min(0.5 * cycle, kLongestContact), share = contact / cycle;
  const bool bears = phase < share;
  const double t = bears ? phase / share : (phase - share) / (1.0 - share);
  const double swung = t * t * (3.0 - 2.0 * t);
  const double forward = bears ? contact * (0.5 - t) : contact * (swung - 0.5);
  const double lift = bears ? 0.0 : kFootLift * std::sin(kPi * t);
  return {forward * carriage.swing, kAnkle + lift * carriage.swing - hip};
}

// What a state's pose does besides walking.
struct Attitude {
  double pitch = 0.0;           // rad that the trunk leans forward.
  double arms = 0.0;            // rad that both arms are raised forward.
  bool hanging = false;         // The legs do not bear.
  Ankle left = {}, right = {};  // Where they hang.
};

// Up with the legs drawn in, then one after the other over the rim; over a rail both together.
Attitude over_rim(double phase, bool vaults) {
  if (vaults) return {0.45, 0.6, true, {0.42, -0.26}, {0.30, -0.34}};
  const double over = std::clamp((phase - 0.45) / 0.4, 0.0, 1.0), tread = std::sin(6.0 * kPi * phase);
  const Ankle first{0.20 + 0.22 * over, -0.42 + 0.16 * over - 0.08 * tread};
  const Ankle second{0.12 - 0.30 * over, -0.50 + 0.08 * tread};
  return {0.25 + 0.45 * over, 0.8 - 0.4 * over, true, first, second};
}

// From the rim: the legs free, or the feet against the wall, one higher and then the other.
Attitude from_rim(const Carriage& carriage, double scale) {
  const double tread = 0.06 * std::sin(2.0 * kPi * carriage.handing);
  if (carriage.wall <= 0.0) return {0.16, 0.0, true, {0.05 + tread, -0.79}, {-0.06 - tread, -0.76}};
  const double toes = std::max(carriage.wall / scale - 0.20, 0.0);
  return {0.16, 0.0, true, {toes, -0.68 + tread}, {toes, -0.56 - tread}};
}

// On a wall: hands and feet in turn.
Attitude on_wall(const Carriage& carriage, double scale) {
  const double tread = 0.15 * std::sin(2.0 * kPi * carriage.handing);
  const double toes = std::max(carriage.wall / scale - 0.18, 0.0);
  if (carriage.feet) {
    const auto on_rung = [&](double over) { return Ankle{toes, over / scale + kAnkle - kHip}; };
    return {0.05, 0.0, true, on_rung((*carriage.feet)[0]), on_rung((*carriage.feet)[1])};
  }
  return {0.05, 0.0, true, {toes, -0.60 - tread}, {toes, -0.60 + tread}};
}

Attitude attitude_of(const Carriage& carriage) {
  const std::string_view pose = carriage.pose;
  if (pose == "mantle") return over_rim(carriage.hold_phase, carriage.vaults);
  if (pose == "hang") return from_rim(carriage, carriage.standing_height / kDrawnFor);
  if (pose == "climb") return on_wall(carriage, carriage.standing_height / kDrawnFor);
  if (pose == "rise") return {0.10, 0.9, true, {0.22, -0.62}, {-0.10, -0.74}};
  if (pose == "fall") return {0.05, 1.5, true, {0.16, -0.70}, {-0.20, -0.66}};
  if (pose == "tuck") return {0.55, 0.7, true, {0.18, -0.36}, {0.08, -0.38}};
  if (pose == "fly") return {0.45, -0.5, true, {-0.30, -0.70}, {-0.42, -0.64}};
  if (pose == "skid") return {-0.30, 0.8, true, {0.34, -0.66}, {0.14, -0.74}};
  if (pose == "slide") return {-0.75, 0.3, true, {0.66, -0.26}, {0.34, -0.22}};
  if (pose == "run") return {0.16, 0.25, false, {}, {}};
  return {};
}

void add_arm(std::vector<FigurePart>& parts, const Mat& body, double side, double angle) {
  const Mat arm = hung(body, {0.275 * side, 1.36, 0.0}, angle);
  parts.push_back({Solid::Drum, part(arm, {0, -0.24, 0}, {0.12, 0.56, 0.13}), kCoat});
  parts.push_back({Solid::Ball, part(arm, {0, -0.54, 0}, {0.12, 0.13, 0.12}), kSkin});
  if (side < 0.0) return;
  // The lantern, in the right hand.
  parts.push_back({Solid::Drum, part(arm, {0, -0.68, -0.06}, {0.13, 0.17, 0.13}), theme::gold()});
  parts.push_back({Solid::Cone, part(arm, {0, -0.56, -0.06}, {0.15, 0.08, 0.15}), kHat});
}

// An arm that reaches for a place, as far as it is long.
void add_arm_to(std::vector<FigurePart>& parts, const Mat& trunk, double side, const Vec3& hand_C) {
  constexpr double kArm = 0.60, kShortest = 0.22;
  const Vec3 shoulder(0.275 * side, 1.36, 0.0);
  const Vec3 way = Vec3(glm::inverse(trunk) * glm::dvec4(hand_C, 1.0)) - shoulder;
  const double size = std::clamp(length(way), kShortest, kArm);
  const Vec3 down = unit_or(-way, Vec3(0, 1, 0)),
             side_ways = unit_or(cross(down, Vec3(0, 0, 1)), Vec3(1, 0, 0));
  Mat arm(1.0);
  arm[0] = glm::dvec4(side_ways, 0.0);
  arm[1] = glm::dvec4(down, 0.0);
  arm[2] = glm::dvec4(cross(side_ways, down), 0.0);
  arm[3] = glm::dvec4(shoulder, 1.0);
  arm = trunk * arm;
  parts.push_back({Solid::Drum, part(arm, {0, -0.5 * size, 0}, {0.12, size, 0.13}), kCoat});
  parts.push_back({Solid::Ball, part(arm, {0, -size, 0}, {0.12, 0.13, 0.12}), kSkin});
}

void add_head(std::vector<FigurePart>& parts, const Mat& body) {
  parts.push_back({Solid::Ball, part(body, {0, 1.57, 0}, {0.23, 0.25, 0.24}), kSkin});
  parts.push_back({Solid::Cone, part(body, {0, 1.57, -0.135}, {0.05, 0.07, 0.07}), kSkin});
  parts.push_back({Solid::Drum, part(body, {0, 1.655, -0.03}, {0.36, 0.025, 0.42}), kHat});
  parts.push_back({Solid::Drum, part(body, {0, 1.73, 0}, {0.24, 0.14, 0.25}), kHat});
  parts.push_back({Solid::Drum, part(body, {0, 1.685, 0}, {0.25, 0.035, 0.26}), theme::gold()});
}

void add_trunk(std::vector<FigurePart>& parts, const Mat& body) {
  parts.push_back({Solid::Drum, part(body, {0, 1.16, 0}, {0.44, 0.54, 0.30}), kCoat});
  parts.push_back({Solid::Cone, part(body, {0, 0.92, 0}, {0.56, 0.62, 0.42}), kCoat});
  parts.push_back({Solid::Ball, part(body, {0, 1.40, 0}, {0.50, 0.20, 0.30}), kCoat});
  // The front: bib of the waders and two buckles.
  parts.push_back({Solid::Box, part(body, {0, 1.20, -0.14}, {0.26, 0.34, 0.06}), kWaders});
  for (const double side : {-1.0, 1.0})
    parts.push_back({Solid::Box, part(body, {0.09 * side, 1.35, -0.165}, {0.05, 0.05, 0.03}), theme::gold()});
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

namespace {

// The frame of a body that stands, or that lies on its front.
Mat body_frame(const Pose& pose, double scale, double lean) {
  Mat body = glm::translate(Mat(1.0), pose.foot_C) * glm::mat4_cast(pose.frame_CB) *
             glm::rotate(Mat(1.0), pose.facing, Vec3(0, 1, 0));
  if (pose.lie_length <= 0.0) return glm::scale(glm::rotate(body, -lean, Vec3(0, 0, 1)), Vec3(scale));
  // Down over the toes: the more of its length lies, the flatter.
  const double flat = std::clamp(pose.lie_length / (kDrawnFor * scale * 0.6), 0.0, 1.0);
  body = glm::translate(body, Vec3(0.0, 0.2 * scale * flat, 0.5 * pose.lie_length + 0.2 * scale * flat));
  body = glm::rotate(body, pose.lie_pitch, Vec3(1, 0, 0));
  return glm::scale(glm::rotate(body, -0.5 * kPi * flat, Vec3(1, 0, 0)), Vec3(scale));
}

}  // namespace

std::vector<FigurePart> figure_parts(const Pose& pose, const Carriage& carriage) {
  const double scale = carriage.standing_height / kDrawnFor;
  const bool lies = pose.lie_length > 0.0;
  const double lowered = lies ? 0.0 : (carriage.standing_height - pose.capsule_height) / scale;
  const double bob = lies ? 0.0 : 0.025 * carriage.swing * std::cos(4.0 * kPi * carriage.stride);
  const double hip =
      std::max(kHip - 0.75 * lowered - kSquat * carriage.squat - kStrideDrop * carriage.swing - std::abs(bob),
               kLeastHip);
  const Attitude attitude = attitude_of(carriage);
  const double pitch = attitude.pitch + 0.9 * std::max(lowered - (kHip - hip), 0.0) + 0.6 * carriage.squat;

  const Mat body = body_frame(pose, scale, carriage.lean);
  const Mat trunk = glm::translate(hung(body, {0.0, hip, 0.0}, -pitch), Vec3(0.0, -kHip, 0.0));
  std::vector<FigurePart> parts;
  for (const double side : {-1.0, 1.0}) {
    const double phase = carriage.stride + (side > 0.0 ? 0.5 : 0.0);
    const Ankle walking = walking_ankle(phase - std::floor(phase), carriage, hip, scale);
    Ankle hanging = side < 0.0 ? attitude.left : attitude.right;
    if (carriage.hands_C) hanging.up = std::max(hanging.up, kAnkle - hip);  // Not through what is below.
    add_leg(parts, body, side, hip, attitude.hanging ? hanging : lies ? Ankle{0.0, kAnkle - hip} : walking);
    const double swing = std::sin(2.0 * kPi * phase) * carriage.swing * kArmSwing;
    if (carriage.hands_C) {
      add_arm_to(parts, trunk, side, (*carriage.hands_C)[side < 0.0 ? 0 : 1]);
      continue;
    }
    add_arm(parts, trunk, side, attitude.arms + (lies ? 2.6 + 2.0 * swing : -swing));
  }
  add_trunk(parts, trunk);
  add_head(parts, trunk);
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
