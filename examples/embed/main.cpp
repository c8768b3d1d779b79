// SPDX-License-Identifier: MIT
// The core in a game of your own: your collision behind World, your loop around step().
#include <lagniappe/lagniappe.h>

#include <cstdio>

using namespace lagniappe;

namespace {

// A game plugs in its own collision by answering three questions. This one is an endless floor at y = 0, for
// characters whose axis is upright.
class FloorWorld final : public World {
 public:
  std::optional<WorldHit> sweep(const Segment& axis, double radius, const Vec3& motion_C,
                                const Moment&) const override {
    const double gap = axis.a_C.y - radius;
    if (motion_C.y >= -1e-9 * length(motion_C) || gap + motion_C.y > -1e-9) return std::nullopt;
    const double fraction = gap > 0.0 ? gap / -motion_C.y : 0.0;
    const Vec3 at = axis.a_C + motion_C * fraction;
    return WorldHit{{fraction, Vec3(at.x, 0.0, at.z), kUp, Feature::Face}, kUp, 0, 0};
  }
  std::size_t contacts(const Segment& axis, double radius, std::span<WorldContact> out,
                       const Moment&) const override {
    if (axis.a_C.y > radius || out.empty()) return 0;
    out[0] = {{axis.a_C.y, axis.a_C, Vec3(axis.a_C.x, 0.0, axis.a_C.z), kUp, Feature::Face}, kUp, 0, 0};
    return 1;
  }
  std::optional<WorldRayHit> cast_ray(const Vec3& origin_C, const Vec3& motion_C,
                                      const Moment&) const override {
    const double fraction = motion_C.y != 0.0 ? origin_C.y / -motion_C.y : -1.0;
    if (fraction < 0.0 || fraction > 1.0) return std::nullopt;
    return WorldRayHit{{fraction, origin_C + motion_C * fraction, kUp}, 0};
  }
  Box limits() const override { return {Vec3(-1e6), Vec3(1e6)}; }
  std::string_view piece_name(PieceId piece) const override { return piece == 0 ? "floor" : ""; }

 private:
  static constexpr Vec3 kUp{0.0, 1.0, 0.0};
};

}  // namespace

int main() {
  const FloorWorld world;
  Profile profile;
  profile.jump.height = 1.5;
  FixedStepClock clock(60);
  CharacterState previous = start_state(profile, Home{}, world), current = previous;
  double highest = 0.0;

  InputFrame input;
  input.move = Vec2(0.0, 1.0);

  // Your loop: frames of any length. Here 3 s of frames that take 13 ms.
  for (double time = 0.0; time < 3.0; time += 0.013) {
    // A press lasts until a tick has used it: not every frame has one.
    if (time > 1.0 && time < 1.013) input.pressed.set(Action::Jump, true);
    for (int due = clock.advance(0.013); due > 0; --due) {
      previous = current;
      current = step(previous, input, profile, world, clock.tick_seconds());
      input.pressed = {};
    }
    const Pose drawn = interpolate(previous, current, clock.blend());
    highest = std::max(highest, drawn.foot_C.y);
  }
  std::printf("walked to z = %.2f m, highest %.2f m, %s\n", current.foot_C.z, highest,
              std::string(name_of(current.state, profile)).c_str());
  return current.grounded() && highest > 1.4 ? 0 : 1;
}
