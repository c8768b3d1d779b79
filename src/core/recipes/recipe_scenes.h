// SPDX-License-Identifier: MIT
// The small places in which recipes show their faults, and what is measured there.
#pragma once

#include <span>
#include <vector>

#include "lagniappe/drive.h"
#include "lagniappe/profile.h"
#include "lagniappe/triangle_world.h"

namespace lagniappe {

// A body at a time, theirs or ours.
struct RecipeSample {
  double time;
  Vec3 foot_C, velocity_C;
  double turned;  // rad since the start.
  double inside;  // m of overlap.
  bool grounded;
};

struct RecipeScene {
  Profile profile;
  TriangleWorld world;
  CharacterState start;
  InputScript script;
  double begins;   // s at which what is looked at begins;
  double seconds;  // and all ends.
};

namespace scene {

RecipeScene from_a_stand();    // Full push, s 0.
RecipeScene diagonal();        // Both keys.
RecipeScene stand_on_slope();  // 30 degrees, nobody pushes.
RecipeScene jump();
RecipeScene fall();        // From 30 m, with a terminal speed.
RecipeScene let_go();      // At full speed.
RecipeScene up_a_slope();  // 35 degrees.
RecipeScene up_stairs();
RecipeScene down_a_slope();  // 30 degrees.
RecipeScene off_an_edge();   // 2 s along a platform, then over its rim.
RecipeScene presses();       // Twenty jumps.
RecipeScene held_jump();
RecipeScene under_a_ceiling();
RecipeScene second_press();   // In the air, right after the first.
RecipeScene hand_turns();     // By 90 degrees in half a second.
RecipeScene out_of_crouch();  // Under a low roof.

}  // namespace scene

// Values of samples that curves show, and figures over all of them, of which the first is at the scene's start.
namespace measure {

using Samples = std::span<const RecipeSample>;
double speed(const RecipeSample& s);    // Across up.
double along(const RecipeSample& s);    // With its rise.
double height(const RecipeSample& s);   // m of the foot.
double descent(const RecipeSample& s);  // m/s.
double turned_degrees(const RecipeSample& s);
double inside_mm(const RecipeSample& s);
double off_ground(const RecipeSample& s);  // 1 or 0.

double time_to_most(Samples s, const RecipeScene& scene);  // s to 90 % of full speed.
double top_speed(Samples s, const RecipeScene& scene);
double stopping_way(Samples s, const RecipeScene& scene);       // m.
double fastest_back(Samples s, const RecipeScene& scene);       // m/s against the way it went.
double end_speed(Samples s, const RecipeScene& scene);          // m/s, mean of the last half second.
double crept(Samples s, const RecipeScene& scene);              // m.
double highest(Samples s, const RecipeScene& scene);            // m over the start.
double fallen(Samples s, const RecipeScene& scene);             // m.
double deepest_inside(Samples s, const RecipeScene& scene);     // m.
double share_in_air(Samples s, const RecipeScene& scene);       // %.
double times_lost(Samples s, const RecipeScene& scene);         // How often ground was left.
double descent_after_rim(Samples s, const RecipeScene& scene);  // m/s, a tenth of a second after.
double jumps(Samples s, const RecipeScene& scene);
double time_above(Samples s, const RecipeScene& scene);  // s off the ground.
double turned(Samples s, const RecipeScene& scene);      // Degrees.

}  // namespace measure

}  // namespace lagniappe
