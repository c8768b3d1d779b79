// SPDX-License-Identifier: MIT
// Recipes: common ways to write one part of locomotion, kept beside ours so that their faults can be seen. For
// comparison only: step() uses nothing of this.
#pragma once

#include <span>
#include <string_view>
#include <vector>

#include "lagniappe/timing.h"

namespace lagniappe {

enum class RecipePart : std::uint8_t { Speed, Friction, Smoothing, Ground, Jump, Look, Stance };
inline constexpr std::array<std::string_view, 7> kRecipeParts = {"Speed", "Friction", "Smoothing", "Ground",
                                                                 "Jump",  "Look",     "Stance"};

struct Recipe {
  RecipePart part;
  std::string_view key;                  // "blend-fixed"; never changes.
  std::string_view name;                 // "blend by a fixed share per frame".
  std::string_view formula;              // As it stands in a program.
  std::string_view fault;                // What comes of it, as a sentence.
  std::string_view instead;              // What to do instead, as a line of a program.
  std::string_view scene;                // What is done in its own scene: "full push from a stand".
  std::string_view curve, curve_unit;    // What its curve shows over time: "speed", "m/s".
  std::string_view figure, figure_unit;  // What its figure is: "to 90 % of full speed", "s".
};

// By part, in the order of kRecipeParts.
std::span<const Recipe> recipes();
const Recipe* find_recipe(std::string_view key);  // Null where there is none.

struct RecipeCurve {
  int rate;                  // Frames a second; of ours ticks.
  std::vector<Vec2> points;  // Time in s, and the curve's value then.
  double figure;
};
inline constexpr std::array kRecipeRates = {30, 60, 144};

// Its own scene, by its way and by step(), each frame (tick) `1 / rate` s long. REQUIRES: recipe is one of
// recipes(); 10 <= rate <= 480.
RecipeCurve recipe_curve(const Recipe& recipe, int rate);
RecipeCurve our_curve(const Recipe& recipe, int rate);

// The figure of the rate at which it is farthest from ours.
struct RecipeWorst {
  int rate;
  double figure, ours;
};
RecipeWorst worst_of(const Recipe& recipe, std::span<const int> rates = kRecipeRates);

// Where the foot goes on a run's inputs if this part is written so, frame by frame at `rate`. All else is a
// plain walker: it slides, steps, snaps and jumps as the profile says, and knows neither ledges nor moving
// ground.
std::vector<Vec3> recipe_way(const Recipe& recipe, const TimingSource& source, int rate);

}  // namespace lagniappe
