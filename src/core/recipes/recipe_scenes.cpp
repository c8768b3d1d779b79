// SPDX-License-Identifier: MIT
#include "recipes/recipe_scenes.h"

#include <algorithm>
#include <cmath>

#include "lagniappe/course.h"

namespace lagniappe {
namespace {

// One floor with its top at 0, and what else there is.
class Place {
 public:
  Place() { course_.name = "Recipe"; }
  Place& floor() { return add(shape::Block{{120.0, 1.0, 120.0}}, {0.0, -1.0, 0.0}); }
  Place& add(Shape shape, const Vec3& base_C) {
    Piece piece;
    piece.id = "P" + std::to_string(course_.pieces.size());
    piece.at_C = base_C;
    piece.shape = std::move(shape);
    course_.pieces.push_back(std::move(piece));
    return *this;
  }
  RecipeScene scene(const Vec3& foot_C, InputScript script, double begins, double seconds,
                    Profile profile) const {
    TriangleWorld world = build_world(course_);
    CharacterState start = start_state(profile, Home{foot_C}, world);
    return {std::move(profile), std::move(world), start, std::move(script), begins, seconds};
  }

 private:
  Course course_;
};

Profile eased() {
  Profile profile;
  profile.ground.response.model = Response::Model::Exponential;
  profile.ground.response.time = profile.ground.response.stop_time = 0.10;
  return profile;
}

InputChange at(double seconds) {
  InputChange change;
  change.at = seconds;
  return change;
}
InputChange push(double seconds, const Vec2& stick) {
  InputChange change = at(seconds);
  change.move = stick;
  return change;
}
InputChange down(double seconds, Action action) {
  InputChange change = at(seconds);
  change.press.set(action, true);
  return change;
}
InputChange up(double seconds, Action action) {
  InputChange change = at(seconds);
  change.release.set(action, true);
  return change;
}

// A wedge that begins at z = 0 and rises towards -Z.
shape::Ramp ramp(double degrees, double deep) { return {{8.0, deep * std::tan(radians(degrees)), deep}}; }

}  // namespace

namespace scene {

RecipeScene from_a_stand() {
  return Place().floor().scene(Vec3(0.0), {{push(0.0, {0, 1})}}, 0.0, 1.5, eased());
}

RecipeScene diagonal() { return Place().floor().scene(Vec3(0.0), {{push(0.0, {1, 1})}}, 0.0, 1.5, eased()); }

RecipeScene stand_on_slope() {
  const double deep = 12.0;
  return Place()
      .floor()
      .add(ramp(30.0, deep), {0.0, 0.0, -0.5 * deep})
      .scene({0.0, 6.0 * std::tan(radians(30.0)) + 0.05, -6.0}, {}, 0.5, 2.5, Profile{});
}

RecipeScene jump() {
  return Place().floor().scene(Vec3(0.0), {{down(0.5, Action::Jump), up(0.6, Action::Jump)}}, 0.5, 1.8,
                               Profile{});
}

RecipeScene fall() {
  Profile profile;
  profile.terminal_speed = 15.0;
  return Place().floor().scene({0.0, 60.0, 0.0}, {}, 0.0, 3.0, profile);
}

RecipeScene let_go() {
  return Place().floor().scene(Vec3(0.0), {{push(0.0, {0, 1}), push(1.5, {0, 0})}}, 1.5, 3.0, eased());
}

RecipeScene up_a_slope() {
  const double deep = 14.0;
  return Place()
      .floor()
      .add(ramp(35.0, deep), {0.0, 0.0, -1.0 - 0.5 * deep})
      .scene(Vec3(0.0), {{push(0.0, {0, 1})}}, 0.0, 2.5, Profile{});
}

RecipeScene up_stairs() {
  return Place()
      .floor()
      .add(shape::Stairs{4.0, 0.2, 0.3, 20}, {0.0, 0.0, -1.0 - 3.0})
      .scene(Vec3(0.0), {{push(0.0, {0, 1})}}, 0.0, 1.6, Profile{});
}

RecipeScene down_a_slope() {
  const double deep = 24.0, high = deep * std::tan(radians(30.0));
  // Rises towards -Z: the look goes to +Z.
  InputChange turned = push(0.0, {0, 1});
  turned.look = Vec2(kPi, 0.0);
  return Place()
      .floor()
      .add(ramp(30.0, deep), {0.0, 0.0, -0.5 * deep})
      .scene({0.0, high - 2.0 * std::tan(radians(30.0)) + 0.05, 2.0 - deep}, {{turned}}, 0.5, 4.0, Profile{});
}

RecipeScene off_an_edge() {
  return Place()
      .floor()
      .add(shape::Block{{8.0, 6.0, 8.0}}, {0.0, 0.0, 0.0})
      .scene({0.0, 6.0, 3.5}, {{push(0.0, {0, 1})}}, 1.2, 2.6, Profile{});
}

RecipeScene presses() {
  InputScript script;
  // Instants that no rate has in common.
  for (int i = 0; i < 20; ++i) {
    const double press = 0.3 + 1.2 * i + std::fmod(0.6180339887 * i, 1.0) * 0.1;
    script.changes.push_back(down(press, Action::Jump));
    script.changes.push_back(up(press + 0.05, Action::Jump));
  }
  return Place().floor().scene(Vec3(0.0), std::move(script), 0.0, 24.6, Profile{});
}

RecipeScene held_jump() {
  return Place().floor().scene(Vec3(0.0), {{down(0.3, Action::Jump)}}, 0.0, 4.0, Profile{});
}

RecipeScene under_a_ceiling() {
  return Place()
      .floor()
      .add(shape::Block{{8.0, 1.0, 8.0}}, {0.0, 2.1, 0.0})
      .scene(Vec3(0.0), {{down(0.3, Action::Jump), up(0.4, Action::Jump)}}, 0.3, 1.8, Profile{});
}

RecipeScene second_press() {
  return Place().floor().scene(
      Vec3(0.0),
      {{down(0.3, Action::Jump), up(0.33, Action::Jump), down(0.4, Action::Jump), up(0.43, Action::Jump)}}, 0.3,
      2.2, Profile{});
}

RecipeScene hand_turns() {
  InputChange turn = at(0.5), rest = at(1.0);
  turn.turn = Vec2(radians(180.0), 0.0);
  rest.turn = Vec2(0.0);
  return Place().floor().scene(Vec3(0.0), {{turn, rest}}, 0.5, 1.5, Profile{});
}

RecipeScene out_of_crouch() {
  return Place()
      .floor()
      .add(shape::Block{{6.0, 1.0, 6.0}}, {0.0, 1.3, -5.0})
      .scene(Vec3(0.0), {{down(0.2, Action::Crouch), push(0.5, {0, 1}), up(2.5, Action::Crouch)}}, 2.0, 3.2,
             Profile{});
}

}  // namespace scene

namespace measure {
namespace {

Samples since(Samples s, double time) {
  const auto first =
      std::find_if(s.begin(), s.end(), [&](const RecipeSample& at) { return at.time >= time - 1e-9; });
  return s.subspan(static_cast<std::size_t>(first - s.begin()));
}

}  // namespace

double speed(const RecipeSample& s) { return std::hypot(s.velocity_C.x, s.velocity_C.z); }
double along(const RecipeSample& s) { return length(s.velocity_C); }
double height(const RecipeSample& s) { return s.foot_C.y; }
double descent(const RecipeSample& s) { return -s.velocity_C.y; }
double turned_degrees(const RecipeSample& s) { return degrees(s.turned); }
double inside_mm(const RecipeSample& s) { return s.inside * 1e3; }
double off_ground(const RecipeSample& s) { return s.grounded ? 0.0 : 1.0; }

double time_to_most(Samples s, const RecipeScene& scene) {
  const double wanted = 0.9 * scene.profile.ground.speed;
  for (std::size_t i = 1; i < s.size(); ++i) {
    const double before = speed(s[i - 1]), now = speed(s[i]);
    if (now < wanted) continue;
    return s[i - 1].time + (s[i].time - s[i - 1].time) * (wanted - before) / (now - before) - scene.begins;
  }
  return scene.seconds - scene.begins;  // Not within the scene.
}

double top_speed(Samples s, const RecipeScene&) {
  double top = 0.0;
  for (const RecipeSample& at : s) top = std::max(top, speed(at));
  return top;
}

double stopping_way(Samples s, const RecipeScene& scene) {
  const Samples rest = since(s, scene.begins);
  return length(rest.back().foot_C - rest.front().foot_C);
}

double fastest_back(Samples s, const RecipeScene& scene) {
  double fastest = 0.0;
  for (const RecipeSample& at : since(s, scene.begins)) fastest = std::max(fastest, at.velocity_C.z);
  return fastest;
}

double end_speed(Samples s, const RecipeScene& scene) {
  const Samples rest = since(s, scene.seconds - 0.5);
  return length(rest.back().foot_C - rest.front().foot_C) / (rest.back().time - rest.front().time);
}

double crept(Samples s, const RecipeScene& scene) { return stopping_way(s, scene); }

double highest(Samples s, const RecipeScene& scene) {
  double highest = 0.0;
  const double g = scene.profile.gravity;
  for (std::size_t i = 1; i < s.size(); ++i) {
    const double rise = s[i - 1].velocity_C.y;
    highest = std::max(highest, s[i].foot_C.y);
    // Between two frames the apex of what flies freely counts.
    if (!s[i - 1].grounded && rise > 0.0 && s[i].velocity_C.y < 0.0)
      highest = std::max(highest, s[i - 1].foot_C.y + 0.5 * rise * rise / g);
  }
  return highest - s.front().foot_C.y;
}

double fallen(Samples s, const RecipeScene&) { return s.front().foot_C.y - s.back().foot_C.y; }

double deepest_inside(Samples s, const RecipeScene&) {
  double deepest = 0.0;
  for (const RecipeSample& at : s) deepest = std::max(deepest, at.inside);
  return deepest;
}

double share_in_air(Samples s, const RecipeScene& scene) {
  const Samples rest = since(s, scene.begins);
  const auto up = std::count_if(rest.begin(), rest.end(), [](const RecipeSample& at) { return !at.grounded; });
  return 100.0 * static_cast<double>(up) / static_cast<double>(rest.size());
}

double times_lost(Samples s, const RecipeScene& scene) {
  const Samples rest = since(s, scene.begins);
  double lost = 0.0;
  for (std::size_t i = 1; i < rest.size(); ++i) lost += rest[i - 1].grounded && !rest[i].grounded;
  return lost;
}

double descent_after_rim(Samples s, const RecipeScene&) {
  for (std::size_t i = 1; i < s.size(); ++i) {
    if (!s[i - 1].grounded || s[i].grounded) continue;
    const Samples after = since(s, s[i].time + 0.1);
    return after.empty() ? 0.0 : descent(after.front());
  }
  return 0.0;
}

double jumps(Samples s, const RecipeScene&) {
  double jumps = 0.0;
  // Off the ground and rising fast.
  for (std::size_t i = 1; i < s.size(); ++i)
    jumps += s[i].velocity_C.y > s[i - 1].velocity_C.y + 1.0 && s[i].velocity_C.y > 1.0 && !s[i].grounded;
  return jumps;
}

double time_above(Samples s, const RecipeScene&) {
  double above = 0.0;
  for (std::size_t i = 1; i < s.size(); ++i) above += s[i].grounded ? 0.0 : s[i].time - s[i - 1].time;
  return above;
}

double turned(Samples s, const RecipeScene&) { return degrees(s.back().turned); }

}  // namespace measure

}  // namespace lagniappe
