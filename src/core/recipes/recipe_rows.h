// SPDX-License-Identifier: MIT
// The table of recipes: what is said of each, its scene, its stages, and what is measured.
#pragma once

#include "lagniappe/recipes.h"
#include "recipes/plain_walker.h"
#include "recipes/recipe_scenes.h"

namespace lagniappe {

struct RecipeRow {
  Recipe about;
  RecipeScene (*scene)();
  double (*value)(const RecipeSample&);
  double (*figure)(measure::Samples, const RecipeScene&);
  void (*change)(PlainStages&);  // Puts its stages in the place of the plain ones.
};
std::span<const RecipeRow> recipe_rows();

}  // namespace lagniappe
