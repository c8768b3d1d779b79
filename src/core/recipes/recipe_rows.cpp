// SPDX-License-Identifier: MIT
#include "recipes/recipe_rows.h"

#include "recipes/recipe_stages.h"

namespace lagniappe {
namespace {

using Part = RecipePart;

constexpr RecipeRow kRows[] = {
    {{Part::Speed, "added-per-frame", "speed added per frame", "v = towards(v, goal, 0.17);   // every frame",
      "What is added per frame is added as often as is drawn: a display of 144 frames a second makes a body "
      "that is "
      "up to speed in less than half of the time that 60 take.",
      "v = towards(v, goal, acceleration * dt);   // and half of what was added counts for the way",
      "full push from a stand", "speed", "m/s", "to 90 % of full speed", "s"},
     scene::from_a_stand,
     measure::speed,
     measure::time_to_most,
     [](PlainStages& s) { s.run = stage::added_per_frame; }},
    {{Part::Speed, "diagonals", "diagonals not limited", "goal = (right * x + ahead * y) * speed;",
      "Two keys at once make a push that is longer than one: who runs askew runs 41 % faster.",
      "stick = stick / max(1, length(stick));   // keeps a stick that is half pushed", "two keys from a stand",
      "speed", "m/s", "top speed", "m/s"},
     scene::diagonal,
     measure::speed,
     measure::top_speed,
     [](PlainStages& s) { s.goal = stage::diagonals_not_limited; }},
    {{Part::Speed, "two-moves", "two moves a tick", "move(v * dt);  move(down * dt);",
      "The second move presses down and slides like the first: who stands on a slope creeps down it.",
      "move((v + down) * dt);   // once, and on ground along the ground alone",
      "nobody pushes, on a slope of 30°", "height of the foot", "m", "crept", "m"},
     scene::stand_on_slope,
     measure::height,
     measure::crept,
     [](PlainStages& s) { s.move = stage::two_moves; }},
    {{Part::Speed, "position-first", "place before speed", "y += v * dt;  v -= g * dt;",
      "The way of a frame goes by the speed at its beginning: jumps are the higher the fewer frames there are.",
      "y += v * dt - 0.5 * g * dt * dt;  v -= g * dt;   // and split where something ends it",
      "a jump of 1.20 m", "height of the foot", "m", "jumped", "m"},
     scene::jump,
     measure::height,
     measure::highest,
     [](PlainStages& s) { s.fall = stage::position_first; }},
    {{Part::Speed, "velocity-first", "speed before place", "v -= g * dt;  y += v * dt;",
      "The way of a frame goes by the speed at its end: jumps are the lower the fewer frames there are.",
      "y += v * dt - 0.5 * g * dt * dt;  v -= g * dt;   // and split where something ends it",
      "a jump of 1.20 m", "height of the foot", "m", "jumped", "m"},
     scene::jump,
     measure::height,
     measure::highest,
     [](PlainStages& s) { s.fall = stage::velocity_first; }},
    {{Part::Speed, "half-step", "mean speed of the frame",
      "y += v * dt - 0.5 * g * dt * dt;  v = max(v - g * dt, -terminal);",
      "Right as long as nothing but gravity acts. At the terminal speed every frame goes on falling half a "
      "frame's "
      "gravity further than that; the best of the three all the same.",
      "split the frame where the terminal speed is reached; from there on y += v * dt",
      "a fall with a terminal speed of 15 m/s", "descent", "m/s", "fallen in 3 s", "m"},
     scene::fall,
     measure::descent,
     measure::fallen,
     [](PlainStages& s) { s.fall = stage::half_step; }},
    {{Part::Friction, "friction-per-frame", "v -= mu v", "v -= v * 0.1;   // every frame",
      "A share per frame is lost the faster the more frames there are: the way to a stop goes by the display.",
      "v *= exp(-dt / 0.16);", "let go at full speed", "speed", "m/s", "way to a stop", "m"},
     scene::let_go,
     measure::speed,
     measure::stopping_way,
     [](PlainStages& s) { s.run = stage::friction_per_frame; }},
    {{Part::Friction, "friction-times-dt", "v -= mu v dt", "v -= v * 40 * dt;",
      "Good for small mu dt. Where that is more than 1, the body turns round and shakes, and more than 2 "
      "throws it "
      "away: one long frame is enough.",
      "v *= exp(-40 * dt);", "let go at full speed, mu = 40 /s", "speed", "m/s", "fastest backwards", "m/s"},
     scene::let_go,
     measure::speed,
     measure::fastest_back,
     [](PlainStages& s) { s.run = stage::friction_times_dt; }},
    {{Part::Friction, "projected", "projected, and the length not given back", "way -= n * dot(way, n);",
      "A way that is laid onto a slope is shorter by the slope's cosine: uphill and downhill one is slower "
      "than was "
      "set, and nobody set that.",
      "along = way - n * dot(way, n);  way = normalize(along) * length(way);", "full push up a slope of 35°",
      "speed", "m/s", "speed on the slope", "m/s"},
     scene::up_a_slope,
     measure::along,
     measure::end_speed,
     [](PlainStages& s) { s.move = stage::projected_on_slope; }},
    {{Part::Smoothing, "blend-fixed", "blend by a fixed share per frame",
      "v += (goal - v) * 0.10;   // every frame",
      "The share is taken per frame, so a faster display makes a quicker body.",
      "v += (goal - v) * (1 - exp(-dt / 0.10));", "full push from a stand", "speed", "m/s",
      "to 90 % of full speed", "s"},
     scene::from_a_stand,
     measure::speed,
     measure::time_to_most,
     [](PlainStages& s) { s.run = stage::blend_fixed; }},
    {{Part::Smoothing, "blend-times-dt", "blend by k dt", "v += (goal - v) * 10 * dt;",
      "Nearly right for short frames, too quick for long ones; a frame of 0.2 s goes past the goal and turns "
      "back.",
      "v += (goal - v) * (1 - exp(-dt / 0.10));", "full push from a stand", "speed", "m/s",
      "to 90 % of full speed", "s"},
     scene::from_a_stand,
     measure::speed,
     measure::time_to_most,
     [](PlainStages& s) { s.run = stage::blend_times_dt; }},
    {{Part::Smoothing, "body-smoothed", "step smoothing on the body itself",
      "y += (foot - y) * (1 - exp(-dt / 0.1));",
      "What is smoothed is what collides: on stairs the body is inside of the steps, and is held up by the "
      "next one.",
      "the body steps at once; what is drawn of it follows", "up stairs of 0.20 m", "overlap", "mm",
      "deepest inside", "m"},
     scene::up_stairs,
     measure::inside_mm,
     measure::deepest_inside,
     [](PlainStages& s) { s.ground = stage::body_smoothed; }},
    {{Part::Ground, "push-down", "a push down to stay on the ground", "y += -2 * dt;   // while grounded",
      "It holds what falls away by less than 2 m/s: at 4 m/s that is 26°. On a steeper slope one flies in "
      "hops.",
      "sweep down by the snap distance, and go there if it can be walked on", "down a slope of 30°",
      "in the air", "", "in the air", "%"},
     scene::down_a_slope,
     measure::off_ground,
     measure::share_in_air,
     [](PlainStages& s) {
       s.fall = stage::push_as_speed;
       s.move = stage::move_freely;
       s.ground = stage::ground_without_snap;
     }},
    {{Part::Ground, "gravity-kept", "gravity kept while grounded", "v -= g * dt;   // always",
      "The fall adds up while one stands: over a rim one does not begin to fall, one is shot down.",
      "on ground v = 0; gravity begins where the ground ends", "1.2 s along a platform, and over its rim",
      "descent", "m/s", "0.1 s after the rim", "m/s"},
     scene::off_an_edge,
     measure::descent,
     measure::descent_after_rim,
     [](PlainStages& s) {
       s.fall = stage::gravity_kept;
       s.move = stage::move_freely;
       s.ground = stage::ground_only_told;
     }},
    {{Part::Ground, "gravity-zeroed", "gravity off while grounded, and no more",
      "if (grounded) v = 0;  else v -= g * dt;",
      "Nothing holds one on what falls away: downhill the ground is lost and found again, over and over, and "
      "with it "
      "every state that goes by it.",
      "the same, and follow the ground down within the snap distance", "down a slope of 30°", "in the air", "",
      "ground lost", "times"},
     scene::down_a_slope,
     measure::off_ground,
     measure::times_lost,
     [](PlainStages& s) {
       s.move = stage::move_freely;
       s.ground = stage::ground_without_snap;
     }},
    {{Part::Ground, "two-loops", "ground asked in one loop, motion in another",
      "draw:  grounded = ray(foot, down);    tick:  if (grounded) v = 0;",
      "With more ticks than frames a tick after the take-off still hears \"grounded\" from before it, and "
      "stops the "
      "jump that had begun: of many presses some do nothing.",
      "ask for ground in the tick, after its motion", "twenty presses", "height of the foot", "m",
      "jumps of 20", ""},
     scene::presses,
     measure::height,
     [](measure::Samples s, const RecipeScene& scene) {
       // Those that got somewhere.
       double high = 0.0;
       bool above = false;
       for (const RecipeSample& at : s) {
         const bool now = at.foot_C.y > 0.5 * scene.profile.jump.height;
         high += now && !above;
         above = now;
       }
       return high;
     },
     [](PlainStages& s) { s.ground = stage::ground_in_another_loop; }},
    {{Part::Jump, "held-key", "jump by a held key", "if (held(jump) && grounded) v = jump;",
      "A key that is still down on landing jumps again: one press, many jumps.",
      "if (pressed(jump) && grounded) v = jump;   // and remember a press for a while",
      "one press, held for 3.7 s", "height of the foot", "m", "jumps", ""},
     scene::held_jump,
     measure::height,
     measure::jumps,
     [](PlainStages& s) { s.jump = stage::jump_while_held; }},
    {{Part::Jump, "rise-kept", "rise not cleared at a ceiling", "move(v * dt);   // and v.y stays as it was",
      "The body goes on rising against the ceiling, and hangs there until gravity has used up all of the "
      "speed.",
      "take out of v what goes into the plane that was met", "a jump under a ceiling", "height of the foot",
      "m", "off the ground", "s"},
     scene::under_a_ceiling,
     measure::height,
     measure::time_above,
     [](PlainStages& s) { s.move = stage::rise_not_cleared; }},
    {{Part::Jump, "late-always", "late jumps without their conditions",
      "if (pressed(jump) && since_ground < 0.12) v = jump;",
      "The time after a rim in which a jump still counts begins with a jump too: a second press right after "
      "the first "
      "jumps again in the air.",
      "only where the ground was left without a jump, and once", "two presses, 0.10 s apart",
      "height of the foot", "m", "jumped", "m"},
     scene::second_press,
     measure::height,
     measure::highest,
     [](PlainStages& s) { s.jump = stage::late_without_conditions; }},
    {{Part::Look, "mouse-times-dt", "mouse times dt", "yaw += mouse * 60 * dt;",
      "A mouse tells how far the hand went, not how fast: times dt, the same hand turns less the more frames "
      "there are.",
      "yaw += mouse;   // never times dt", "the hand turns by 90° in half a second", "turned", "°", "turned",
      "°"},
     scene::hand_turns,
     measure::turned_degrees,
     measure::turned,
     [](PlainStages& s) { s.look = stage::mouse_times_dt; }},
    {{Part::Stance, "stand-blindly", "standing up without looking", "height = held(crouch) ? 1.1 : 1.8;",
      "Under a low roof the body grows into it, and is pushed out wherever that is nearest, or is stuck.",
      "stand up only where the taller body is free; else stay crouched until it is",
      "crouch let go under a roof of 1.3 m", "overlap", "mm", "deepest inside", "m"},
     scene::out_of_crouch,
     measure::inside_mm,
     measure::deepest_inside,
     [](PlainStages& s) { s.stance = stage::stand_up_blindly; }},
};

}  // namespace

std::span<const RecipeRow> recipe_rows() { return kRows; }

}  // namespace lagniappe
