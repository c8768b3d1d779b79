// SPDX-License-Identifier: MIT
#include "lagniappe/recipes.h"

#include <algorithm>
#include <cmath>

#include "recipes/recipe_rows.h"
#include "world/overlap.h"

namespace lagniappe {
namespace {

const RecipeRow& row_of(const Recipe& recipe) {
  const auto rows = recipe_rows();
  return *std::find_if(rows.begin(), rows.end(), [&](const RecipeRow& r) { return r.about.key == recipe.key; });
}

PlainStages stages_of(const RecipeRow& row) {
  PlainStages stages = kPlain;
  row.change(stages);
  return stages;
}

PlainBody body_at(const CharacterState& start) {
  PlainBody body;
  body.foot_C = start.foot_C;
  body.frame_CB = start.frame_CB;
  body.up_C = start.up_C();
  body.yaw = start.yaw;
  body.height = start.capsule_height;
  body.time = start.time;
  body.run_C = across(start.velocity_C, body.up_C);
  body.rise = dot(start.velocity_C, body.up_C);
  body.grounded = start.grounded();
  if (body.grounded) body.normal_C = start.ground.normal_C;
  return body;
}

// Every frame of a script by a walker.
template <typename See>
void walk(PlainBody& body, const PlainStages& stages, const InputScript& script, const Profile& profile,
          const World& world, int rate, double seconds, const See& see) {
  InputPlayer player(script, rate);
  const auto frames = std::lround(seconds * rate);
  see();
  for (long i = 0; i < frames; ++i) {
    const InputFrame input = player.next();
    const Vec3 before_C = body.foot_C;
    advance(body, stages, {input, profile, world, 1.0 / rate});
    if (!world.limits().contains(body.foot_C)) body.foot_C = before_C;
    see();
  }
}

std::vector<RecipeSample> theirs(const RecipeRow& row, const RecipeScene& scene, int rate) {
  std::vector<RecipeSample> samples;
  PlainBody body = body_at(scene.start);
  double turned = 0.0, yaw = body.yaw;
  walk(body, stages_of(row), scene.script, scene.profile, scene.world, rate, scene.seconds, [&] {
    turned += wrap_angle(body.yaw - yaw);
    yaw = body.yaw;
    // On ground the run goes along it.
    const Vec3 velocity_C = samples.empty() || !body.grounded
                                ? body.run_C + body.up_C * body.rise
                                : (body.foot_C - samples.back().foot_C) * double(rate);
    samples.push_back(
        {body.time, body.foot_C, velocity_C, turned, overlap(body, scene.profile, scene.world), body.grounded});
  });
  return samples;
}

std::vector<RecipeSample> ours(const RecipeScene& scene, int rate) {
  std::vector<RecipeSample> samples;
  double turned = 0.0, yaw = scene.start.yaw;
  const auto see = [&](const CharacterState& s) {
    turned += wrap_angle(s.yaw - yaw);
    yaw = s.yaw;
    samples.push_back({s.time, s.foot_C, s.velocity_C, turned,
                       deepest_overlap(scene.world, capsule_axis(s, scene.profile.capsule.radius),
                                       scene.profile.capsule.radius, s.time),
                       s.grounded()});
  };
  see(scene.start);
  drive(scene.start, frames_of(scene.script, rate, scene.seconds), scene.profile, scene.world, rate,
        [&](const CharacterState& s, const Ledger*) { see(s); });
  return samples;
}

RecipeCurve curve_of(const RecipeRow& row, const RecipeScene& scene, const std::vector<RecipeSample>& samples,
                     int rate) {
  RecipeCurve curve{rate, {}, row.figure(samples, scene)};
  for (const RecipeSample& s : samples) {
    if (s.time >= scene.begins - 1e-9) curve.points.emplace_back(s.time - scene.begins, row.value(s));
  }
  return curve;
}

}  // namespace

std::span<const Recipe> recipes() {
  static const std::vector<Recipe> all = [] {
    std::vector<Recipe> said;
    for (const RecipeRow& row : recipe_rows()) said.push_back(row.about);
    return said;
  }();
  return all;
}

const Recipe* find_recipe(std::string_view key) {
  const auto all = recipes();
  const auto found = std::find_if(all.begin(), all.end(), [&](const Recipe& r) { return r.key == key; });
  return found == all.end() ? nullptr : &*found;
}

RecipeCurve recipe_curve(const Recipe& recipe, int rate) {
  const RecipeRow& row = row_of(recipe);
  const RecipeScene scene = row.scene();
  return curve_of(row, scene, theirs(row, scene, rate), rate);
}

RecipeCurve our_curve(const Recipe& recipe, int rate) {
  const RecipeRow& row = row_of(recipe);
  const RecipeScene scene = row.scene();
  return curve_of(row, scene, ours(scene, rate), rate);
}

RecipeWorst worst_of(const Recipe& recipe, std::span<const int> rates) {
  const RecipeRow& row = row_of(recipe);
  const RecipeScene scene = row.scene();
  RecipeWorst worst{0, 0.0, 0.0};
  for (const int rate : rates) {
    const double figure = row.figure(theirs(row, scene, rate), scene),
                 right = row.figure(ours(scene, rate), scene);
    if (worst.rate == 0 || std::abs(figure - right) > std::abs(worst.figure - worst.ours))
      worst = {rate, figure, right};
  }
  return worst;
}

std::vector<Vec3> recipe_way(const Recipe& recipe, const TimingSource& source, int rate) {
  std::vector<Vec3> way;
  PlainBody body = body_at(source.start);
  walk(body, stages_of(row_of(recipe)), source.script, source.profile, source.world, rate, source.seconds,
       [&] { way.push_back(body.foot_C); });
  return way;
}

}  // namespace lagniappe
