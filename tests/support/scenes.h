// SPDX-License-Identifier: MIT
// Small places to move in, seeded random numbers, and short ways to drive.
#pragma once

#include <functional>
#include <random>

#include "lagniappe/lagniappe.h"

namespace lagniappe::test {

// A seeded source of numbers; the same on every machine.
class Random {
 public:
  explicit Random(std::uint64_t seed) : engine_(seed) {}
  double between(double low, double high) { return low + (high - low) * ((engine_() >> 11) * 0x1.0p-53); }
  int below(int count) { return static_cast<int>(engine_() % static_cast<std::uint64_t>(count)); }
  Vec3 point(double reach) { return {between(-reach, reach), between(-reach, reach), between(-reach, reach)}; }
  Vec3 direction() {
    for (;;) {
      const Vec3 v = point(1.0);
      if (length(v) > 0.1 && length(v) <= 1.0) return v / length(v);
    }
  }
  Quat rotation() { return glm::angleAxis(between(-kPi, kPi), direction()); }

 private:
  std::mt19937_64 engine_;
};

// A frame that a scene, made in the easy frame, is moved into.
struct Frame {
  const char* name;
  Quat rotation_CE;
  Vec3 origin_C;

  Vec3 point(const Vec3& p_E) const { return origin_C + rotation_CE * p_E; }
  Vec3 vector(const Vec3& v_E) const { return rotation_CE * v_E; }
  Vec3 back(const Vec3& p_C) const { return glm::conjugate(rotation_CE) * (p_C - origin_C); }
  Triangle triangle(const Triangle& t) const { return {point(t.v0_C), point(t.v1_C), point(t.v2_C)}; }
};
// Identity, far away, quarter turns, odd turns, nearly identity.
const std::vector<Frame>& frames();

// Blocks and triangles put together in the easy frame, committed in another.
class Scene {
 public:
  Scene& block(const Vec3& base_centre, const Vec3& size, const Vec3& turn_degrees = Vec3(0.0));
  Scene& ramp(const Vec3& base_centre, const Vec3& size, const Vec3& turn_degrees = Vec3(0.0));
  Scene& stairs(const Vec3& base_centre, double width, double rise, double run, int count);
  Scene& triangle(const Triangle& t);
  Scene& floor(double half = 100.0);  // Top at y = 0.
  TriangleWorld world(const Frame& frame = frames().front()) const;

 private:
  Scene& piece(const Vec3& base_centre, const Vec3& turn_degrees, Shape shape);
  std::vector<std::vector<Triangle>> pieces_;
};

// A soup of random triangles within `reach` of the origin.
std::vector<Triangle> soup(Random& random, int count, double reach, double size);

CharacterState standing_at(const Profile& profile, const Vec3& foot_E, double yaw = 0.0,
                           const Frame& frame = frames().front());

InputFrame push(double right, double forward);
InputFrame press(Action action);

// Steps `seconds` at `hz` with the input given for each tick's start time; calls `see` after every tick.
CharacterState run(CharacterState state, const Profile& profile, const World& world, int hz, double seconds,
                   const std::function<InputFrame(double)>& input,
                   const std::function<void(const CharacterState&)>& see = {});

// The deepest overlap of the character's capsule with any triangle of the world, in metres; 0 if it is free. By
// brute force over all triangles, with distances that are not the solver's.
double deepest_overlap(const CharacterState& state, const Profile& profile, const TriangleWorld& world);

inline const std::vector<int>& tick_rates() {
  static const std::vector<int> rates = {20, 30, 60, 144, 240};
  return rates;
}

}  // namespace lagniappe::test
