// SPDX-License-Identifier: MIT
#include "lagniappe/profile_fields.h"

#include <algorithm>
#include <array>

namespace lagniappe {
namespace {

#define VALUE(member)                                 \
  [](const Values& p) -> double { return p.member; }, \
      [](Values& p, double value) { p.member = static_cast<decltype(p.member)>(value); }

constexpr ProfileField kFields[] = {
    {"", "gravity", Unit::MetresPerSecond2, 0.0, 1000.0, 9.0, 45.0, "Pull against up.",
     "jumps float like on a moon", "jumps are over before one can steer them", VALUE(gravity)},
    {"", "terminal_speed", Unit::MetresPerSecond, 0.1, 1000.0, 15.0, 80.0,
     "Fastest fall that gravity alone reaches.", "falls look like sinking",
     "falls from towers are too fast to steer", VALUE(terminal_speed)},
    {"capsule", "radius", Unit::Metres, 0.01, 100.0, 0.15, 0.6, "Radius of the capsule.",
     "it slips into cracks and stands on rails", "doorways and stairs get too narrow", VALUE(capsule.radius)},
    {"capsule", "height", Unit::Metres, 0.02, 200.0, 0.8, 2.6, "Foot to crown; at least twice the radius.",
     "steps and ledges reach its chest", "ordinary doors are too low", VALUE(capsule.height)},
    {"capsule", "eye_height", Unit::Metres, 0.0, 200.0, 0.5, 2.4, "Eyes above the foot; at most the height.",
     "the player looks along the floor", "the view touches ceilings", VALUE(capsule.eye_height)},
    {"capsule", "centre_of_mass", Unit::Metres, 0.0, 200.0, 0.3, 1.6,
     "Above the foot, at most the height: where fields of gravity are felt.",
     "on small worlds up swings late at the feet", "on small worlds up swings with the head",
     VALUE(capsule.centre_of_mass)},
    {"capsule", "margin", Unit::Metres, 1e-05, 50.0, 0.0001, 0.02,
     "How much thinner the core is that is kept clear of solids; at most half the radius.",
     "rounding of a less precise world shakes it", "it visibly sinks into what it touches",
     VALUE(capsule.margin)},
    {"capsule", "longest_push_out", Unit::Metres, 0.0, 100.0, 0.2, 1.5,
     "Farthest way out of solids at once; deeper overlaps stay and are reported as crushed.",
     "pieces that move in crush it at once", "it is thrown through walls", VALUE(capsule.longest_push_out)},
    {"ground", "speed", Unit::MetresPerSecond, 0.0, 1000.0, 1.5, 9.0, "Speed along the surface at full push.",
     "courses feel endless", "corridors are over before one can turn", VALUE(ground.speed)},
    {"ground", "sprint_speed", Unit::MetresPerSecond, 0.0, 1000.0, 2.5, 14.0, "The same while sprint is held.",
     "sprinting is not worth its button", "corners are missed", VALUE(ground.sprint_speed)},
    {"ground", "turn_rate", Unit::DegreesPerSecond, 0.0, 100000.0, 180.0, 2000.0, "How fast the body turns.",
     "the body lags behind the push", "turns have no weight", VALUE(ground.turn_rate)},
    {"ground", "steepest_walkable", Unit::Degrees, 0.0, 89.0, 25.0, 60.0, "Steepest slope that is walked.",
     "ordinary ramps are slid down", "cliffs are walked up", VALUE(ground.steepest_walkable)},
    {"ground", "highest_step", Unit::Metres, 0.0, 100.0, 0.15, 0.6,
     "Highest riser that is stepped onto; 0 takes no steps.", "kerbs and stairs stop it",
     "it climbs tables without a jump", VALUE(ground.highest_step)},
    {"ground", "shortest_tread", Unit::Metres, 0.0, 100.0, 0.02, 0.3, "What must be clear above a riser.",
     "it steps onto mouldings", "narrow stairs are walls", VALUE(ground.shortest_tread)},
    {"ground", "snap_distance", Unit::Metres, 0.0, 100.0, 0.1, 0.7,
     "How far the ground may drop away at once and still be followed; 0 never.", "it hops down stairs",
     "it is sucked down from low walls", VALUE(ground.snap_distance)},
    {"ground", "longest_overhang", Unit::Metres, 0.0, 100.0, 0.05, 0.3,
     "How far the centre may stand beyond an edge.", "it slips off edges it seems to stand on",
     "it stands on air", VALUE(ground.longest_overhang)},
    {"ground", "crest_angle", Unit::Degrees, 0.0, 180.0, 15.0, 90.0,
     "How sharply the ground may fall away under a character faster than crest_speed and still be followed.",
     "it takes off at every kink", "it never takes off", VALUE(ground.crest_angle)},
    {"ground", "crest_speed", Unit::MetresPerSecond, 0.0, 1000.0, 1.0, 12.0,
     "Up to this speed every crest is followed.", "walking over a kerb leaves the ground",
     "no speed is enough to take off", VALUE(ground.crest_speed)},
    {"ground/response", "acceleration", Unit::MetresPerSecond2, 0.0, 100000.0, 5.0, 120.0,
     "How fast it speeds up on the ground, where the model is steady.",
     "it wades: a second passes before a push shows",
     "the push is felt as a jerk, hardly different from instant", VALUE(ground.response.acceleration)},
    {"ground/response", "deceleration", Unit::MetresPerSecond2, 0.0, 100000.0, 5.0, 160.0,
     "How fast it slows down on the ground without a push, where the model is steady; 0 keeps the speed.",
     "it does not stop where the player lets go", "stops look cut off", VALUE(ground.response.deceleration)},
    {"ground/response", "time", Unit::Seconds, 0.0, 60.0, 0.02, 0.6,
     "Time constant of speeding up on the ground: exponential and smooth models.",
     "hardly different from instant", "turns and starts come too late to aim by", VALUE(ground.response.time)},
    {"ground/response", "stop_time", Unit::Seconds, 0.0, 60.0, 0.02, 0.6,
     "The same without a push; 0 stops at once.", "stops look cut off",
     "it glides past what the player aims for", VALUE(ground.response.stop_time)},
    {"ground/response", "turn_acceleration", Unit::MetresPerSecond2, 0.0, 100000.0, 5.0, 160.0,
     "The same as acceleration while pushing against the motion, until it stands.",
     "turning round feels like ice", "turning round looks like a mirror flip",
     VALUE(ground.response.turn_acceleration)},
    {"ground/response", "turn_time", Unit::Seconds, 0.0, 60.0, 0.02, 0.6,
     "The same as time while pushing against the motion, until it stands.",
     "turning round looks like a mirror flip", "turning round feels like ice",
     VALUE(ground.response.turn_time)},
    {"ground/gather", "growth", Unit::MetresPerSecond2, 0.0, 100000.0, 0.0, 10.0,
     "How fast the speed grows while the push is held, in m/s per second; 0 turns gathering off and speed "
     "applies.",
     "", "it is at its highest at once", VALUE(ground.gather.growth)},
    {"ground/gather", "lowest", Unit::MetresPerSecond, 0.0, 1000.0, 0.5, 8.0,
     "Speed that the first push gives, where speed is gathered.", "the first step takes too long to be felt",
     "there is nothing left to gather", VALUE(ground.gather.lowest)},
    {"ground/gather", "highest", Unit::MetresPerSecond, 0.0, 1000.0, 3.0, 20.0, "Speed that it grows to.",
     "there is nothing to gather", "nothing can be steered at that speed", VALUE(ground.gather.highest)},
    {"ground/gather", "least", Unit::MetresPerSecond, 0.0, 1000.0, 0.0, 12.0,
     "What it never is below, whatever was gathered: a state that sprints sets it.", "",
     "there is nothing to gather", VALUE(ground.gather.least)},
    {"ground/gather", "grace", Unit::Seconds, 0.0, 60.0, 0.02, 0.5,
     "Time without a push after which what was gathered is lost.", "changing the thumb loses the run",
     "stopping does not lose the run", VALUE(ground.gather.grace)},
    {"ledge", "deepest_drop", Unit::Metres, 0.0, 100.0, 0.3, 1.5,
     "How far ground may drop away from one place to the next and still be walked on; never less counts than "
     "ground.snap_distance.",
     "kerbs hold whoever guards", "it walks off what hurts", VALUE(ledge.deepest_drop)},
    {"ledge", "least_reach", Unit::Metres, 0.0, 100.0, 0.1, 0.5,
     "How far a guarded foot stays from a rim, across up; lying, its feet and head too.",
     "the toes hang in the air", "narrow beams cannot be walked", VALUE(ledge.least_reach)},
    {"ledge", "reach_time", Unit::Seconds, 0.0, 10.0, 0.0, 0.3,
     "A rim is neared no faster than by the way that is left over this; 0 goes on at full speed to a dead "
     "stop.",
     "it stops as if at a wall", "it creeps long before a rim", VALUE(ledge.reach_time)},
    {"mantle", "lowest", Unit::Metres, 0.0, 100.0, 0.2, 0.8,
     "Lowest rim over the foot that is mantled from the ground; what is lower is stepped onto. In the air any "
     "counts.",
     "kerbs are mantled that a step would take", "between step and mantle there is what stops it",
     VALUE(mantle.lowest)},
    {"mantle", "highest", Unit::Metres, 0.01, 100.0, 1.2, 2.6, "Highest rim over the foot that is mantled.",
     "chest-high walls stop it", "it climbs houses", VALUE(mantle.highest)},
    {"mantle", "reach", Unit::Metres, 0.0, 10.0, 0.2, 0.8,
     "How far from the body's skin to the wall hands reach.", "it must rub along the wall first",
     "it is drawn to walls from afar", VALUE(mantle.reach)},
    {"mantle", "longest_vault", Unit::Metres, 0.0, 10.0, 0.3, 1.2,
     "Obstacles thinner than this are gone over to the other side; 0 stands on everything.",
     "rails are stood on", "it leaps over what it meant to stand on", VALUE(mantle.longest_vault)},
    {"mantle", "deepest_landing", Unit::Metres, 0.0, 100.0, 0.3, 2.0,
     "How far below the foot the ground behind an obstacle may be for a vault.", "rails at a drop are stood on",
     "a vault ends in the deep", VALUE(mantle.deepest_landing)},
    {"mantle", "time_per_metre", Unit::Seconds, 0.01, 10.0, 0.2, 0.7,
     "Time for each metre of the way up, over and down.", "it is shot over the rim", "a wall is a rest",
     VALUE(mantle.time_per_metre)},
    {"mantle", "least_time", Unit::Seconds, 0.01, 10.0, 0.15, 0.6, "Time that the shortest way takes.",
     "low rims are jerks", "low rims are waited at", VALUE(mantle.least_time)},
    {"mantle", "kept_speed", Unit::Share, 0.0, 1.0, 0.0, 1.0,
     "Share of the speed before that is there at the end; over an obstacle one goes at least as fast.",
     "every wall is a dead stop", "a wall costs no speed", VALUE(mantle.kept_speed)},
    {"hang", "lowest", Unit::Metres, 0.01, 100.0, 0.8, 1.8, "Lowest rim over the foot that is hung from.",
     "waist-high rims catch", "rims at the face are fallen past", VALUE(hang.lowest)},
    {"hang", "highest", Unit::Metres, 0.01, 100.0, 1.6, 2.8, "Highest rim over the foot that is hung from.",
     "hands miss what they could reach", "it is drawn up to what it cannot reach", VALUE(hang.highest)},
    {"hang", "reach", Unit::Metres, 0.0, 10.0, 0.2, 0.8,
     "How far from the body's skin to the wall hands reach.", "it must rub along the wall first",
     "it is drawn to walls from afar", VALUE(hang.reach)},
    {"hang", "hands", Unit::Metres, 0.1, 100.0, 1.6, 2.4, "Height of the rim over the foot while hanging.",
     "the head is above the rim", "the arms are longer than they are", VALUE(hang.hands)},
    {"hang", "shortest_shelf", Unit::Metres, 0.01, 10.0, 0.02, 0.2, "Shelf that hands need.", "nails hold it",
     "ledges that look safe do not", VALUE(hang.shortest_shelf)},
    {"hang", "steepest_shelf", Unit::Degrees, 0.0, 60.0, 20.0, 50.0, "Steepest shelf that hands hold on to.",
     "roofs do not hold", "slides hold", VALUE(hang.steepest_shelf)},
    {"hang", "facing", Unit::Degrees, 1.0, 180.0, 30.0, 90.0,
     "Angle at most between the body's facing and the way into the wall.", "one must come at it squarely",
     "rims behind the back catch", VALUE(hang.facing)},
    {"hang", "rising", Unit::MetresPerSecond, -100.0, 1000.0, 0.0, 4.0,
     "While rising faster than this nothing catches, but where `catch` is always.", "a jump passes every rim",
     "a jump ends at the first rim", VALUE(hang.rising)},
    {"hang", "speed", Unit::MetresPerSecond, 0.0, 100.0, 0.5, 2.5, "Along the rim at full push.", "it creeps",
     "hands cannot follow", VALUE(hang.speed)},
    {"hang", "catch_time", Unit::Seconds, 0.0, 10.0, 0.05, 0.4, "From being caught to hanging still.",
     "it snaps to the rim", "it drifts to the rim", VALUE(hang.catch_time)},
    {"hang", "pause", Unit::Seconds, 0.0, 60.0, 0.2, 1.0,
     "After letting go nothing is caught for this time, but on a press.", "it is caught where it let go",
     "it falls past the next rim", VALUE(hang.pause)},
    {"climb", "up_speed", Unit::MetresPerSecond, 0.0, 100.0, 0.5, 2.5, "Up a wall at full push.",
     "walls are a wait", "hands cannot follow", VALUE(climb.up_speed)},
    {"climb", "down_speed", Unit::MetresPerSecond, 0.0, 100.0, 0.5, 3.0, "Down a wall at full push.",
     "one jumps off instead", "it slides rather than climbs", VALUE(climb.down_speed)},
    {"climb", "side_speed", Unit::MetresPerSecond, 0.0, 100.0, 0.5, 2.5, "Sideways along a wall at full push.",
     "corners take for ever", "hands cannot follow", VALUE(climb.side_speed)},
    {"climb", "reach", Unit::Metres, 0.0, 10.0, 0.2, 0.8,
     "How far from the body's skin to the wall hands reach.", "one must rub along the wall first",
     "one is drawn to walls from afar", VALUE(climb.reach)},
    {"climb", "gap", Unit::Metres, 0.0, 1.0, 0.02, 0.15, "Between the body's skin and the wall while climbing.",
     "knees are in the wall", "it floats before the wall", VALUE(climb.gap)},
    {"climb", "hands", Unit::Metres, 0.1, 100.0, 1.0, 1.7,
     "Height over the foot at which there must be wall; its top ends the way up.", "one climbs on past the top",
     "the way up ends with the top out of sight", VALUE(climb.hands)},
    {"climb", "most_back", Unit::Degrees, 0.0, 60.0, 20.0, 50.0, "How far a wall may lean back.",
     "banks are neither walked nor climbed", "slopes are climbed that one could walk", VALUE(climb.most_back)},
    {"climb", "most_over", Unit::Degrees, 0.0, 60.0, 0.0, 45.0, "How far a wall may lean over.",
     "every bulge stops it", "it climbs ceilings", VALUE(climb.most_over)},
    {"climb", "turn_rate", Unit::DegreesPerSecond, 1.0, 100000.0, 180.0, 1080.0,
     "How fast the body turns to the wall.", "it climbs sideways round corners", "it snaps round corners",
     VALUE(climb.turn_rate)},
    {"climb", "take_time", Unit::Seconds, 0.0, 10.0, 0.05, 0.4, "From taking hold to being at the wall.",
     "it snaps to the wall", "it drifts to the wall", VALUE(climb.take_time)},
    {"climb", "pause", Unit::Seconds, 0.0, 60.0, 0.2, 1.0,
     "After letting go the same piece is not gripped for this time, but on a press.",
     "it grips where it let go", "it falls past what it should grip", VALUE(climb.pause)},
    {"walls", "steepest_skid", Unit::Degrees, 1.0, 89.0, 60.0, 85.0,
     "Steepest face that bears and is skidded down; from there on it is a wall.",
     "banks are walls that one falls beside", "walls that lean back are skidded down in mid-jump",
     VALUE(walls.steepest_skid)},
    {"walls", "ceiling_from", Unit::Degrees, 91.0, 180.0, 110.0, 170.0,
     "Angle between a face's normal and up from which it ends a rise: 90 is an upright wall, 180 a flat "
     "ceiling.",
     "walls that lean over end jumps", "slanted roofs turn jumps aside", VALUE(walls.ceiling_from)},
    {"walls", "strike", Unit::Share, 0.0, 1.0, 0.0, 1.0,
     "Share of its speed that a piece gives to whom it strikes; 0 only moves him out of its way.", "",
     "doors throw people about", VALUE(walls.strike)},
    {"air", "speed", Unit::MetresPerSecond, 0.0, 1000.0, 0.5, 12.0,
     "Speed across up that steering in the air reaches.", "a jump cannot be aimed",
     "the air is faster than the ground", VALUE(air.speed)},
    {"air", "over_run_up", Unit::MetresPerSecond, 0.0, 1000.0, 0.5, 12.0,
     "By how much steering may exceed the speed that the ground was left with.",
     "a standing jump cannot be aimed", "a standing jump goes as far as a running one", VALUE(air.over_run_up)},
    {"air", "wind_share", Unit::Share, 0.0, 1.0, 0.0, 1.0,
     "Share of the wind that the air moves with, as the character feels it.", "", "", VALUE(air.wind_share)},
    {"air", "wind_time", Unit::Seconds, 0.0, 100.0, 0.2, 3.0,
     "Wind slows and takes along by its speed over this time; 0 at once.", "a gust is a wall",
     "a storm does nothing to who is in the air for a second", VALUE(air.wind_time)},
    {"air", "highest_step", Unit::Metres, 0.0, 100.0, 0.0, 0.3,
     "How far a falling character is lifted onto what it meets; 0 never.", "", "missed jumps land on roofs",
     VALUE(air.highest_step)},
    {"air/response", "acceleration", Unit::MetresPerSecond2, 0.0, 100000.0, 5.0, 120.0,
     "How fast it speeds up in the air, where the model is steady.",
     "it wades: a second passes before a push shows",
     "the push is felt as a jerk, hardly different from instant", VALUE(air.response.acceleration)},
    {"air/response", "deceleration", Unit::MetresPerSecond2, 0.0, 100000.0, 0.0, 160.0,
     "How fast it slows down in the air without a push, where the model is steady; 0 keeps the speed.",
     "it does not stop where the player lets go", "stops look cut off", VALUE(air.response.deceleration)},
    {"air/response", "time", Unit::Seconds, 0.0, 60.0, 0.02, 0.6,
     "Time constant of speeding up in the air: exponential and smooth models.", "hardly different from instant",
     "turns and starts come too late to aim by", VALUE(air.response.time)},
    {"air/response", "stop_time", Unit::Seconds, 0.0, 60.0, 0.02, 0.6,
     "The same without a push; 0 stops at once.", "stops look cut off",
     "it glides past what the player aims for", VALUE(air.response.stop_time)},
    {"air/response", "turn_acceleration", Unit::MetresPerSecond2, 0.0, 100000.0, 5.0, 160.0,
     "The same as acceleration while pushing against the motion, until it stands.",
     "turning round feels like ice", "turning round looks like a mirror flip",
     VALUE(air.response.turn_acceleration)},
    {"air/response", "turn_time", Unit::Seconds, 0.0, 60.0, 0.02, 0.6,
     "The same as time while pushing against the motion, until it stands.",
     "turning round looks like a mirror flip", "turning round feels like ice", VALUE(air.response.turn_time)},
    {"skid", "friction", Unit::Share, 0.0, 10.0, 0.02, 0.8, "Coefficient of friction of a skid.",
     "a skid never slows", "a skid stops on what cannot be walked", VALUE(skid.friction)},
    {"skid", "steering_speed", Unit::MetresPerSecond, 0.0, 1000.0, 0.0, 6.0,
     "Speed across the slope at full push.", "", "a skid is as good as walking", VALUE(skid.steering_speed)},
    {"skid", "steering_time", Unit::Seconds, 0.0, 60.0, 0.05, 1.0, "Time constant of the steering.",
     "steering jerks", "steering comes after the skid is over", VALUE(skid.steering_time)},
    {"skid", "run_out_time", Unit::Seconds, 0.0, 60.0, 0.05, 1.5,
     "Time constant with which a skid loses speed on walkable ground.", "skids end like at a wall",
     "skids go on across the whole level", VALUE(skid.run_out_time)},
    {"skid", "lowest_speed", Unit::MetresPerSecond, 0.0, 1000.0, 0.5, 6.0,
     "The run-out is over below this speed; 0 ends it as soon as the speed is one that is walked at.",
     "the player waits for control", "the end of the skid is a jerk", VALUE(skid.lowest_speed)},
    {"jump", "height", Unit::Metres, 0.0, 100.0, 0.3, 3.5, "Of the foot above the take-off, at the apex.",
     "kerbs are obstacles", "fences and doors mean nothing", VALUE(jump.height)},
    {"jump", "fall_factor", Unit::Share, 0.1, 10.0, 0.7, 2.5, "Gravity while falling, as a share of gravity.",
     "landing takes too long to time", "landing comes before it can be aimed", VALUE(jump.fall_factor)},
    {"jump", "apex_speed", Unit::MetresPerSecond, 0.0, 100.0, 0.0, 3.0,
     "A jump hangs while it rises or falls slower than this; 0 turns hanging off.", "",
     "most of the jump is slow", VALUE(jump.apex_speed)},
    {"jump", "apex_factor", Unit::Share, 0.05, 1.0, 0.2, 1.0, "Gravity while it hangs, as a share of gravity.",
     "it seems to stand still in the air", "", VALUE(jump.apex_factor)},
    {"jump", "lowest_share", Unit::Share, 0.02, 1.0, 0.15, 1.0,
     "How high a jump gets when the button is let go at once, as a share of its height; 1: letting go changes "
     "nothing.",
     "a tap does nothing that can be seen", "", VALUE(jump.lowest_share)},
    {"jump", "head_bump", Unit::Share, 0.0, 1.0, 0.0, 0.5,
     "Share of the rise speed that a ceiling throws back down.", "", "low ceilings throw one to the floor",
     VALUE(jump.head_bump)},
    {"jump", "coyote_time", Unit::Seconds, 0.0, 60.0, 0.02, 0.25,
     "After leaving the ground a jump still counts as from it; 0 never.",
     "most players miss the jump at an edge", "it jumps off the air, and it shows", VALUE(jump.coyote_time)},
    {"jump", "buffer", Unit::Seconds, 0.0, 60.0, 0.03, 0.25,
     "A press this long before landing is remembered; 0 never.",
     "most players press too early and miss the jump", "it jumps when the player has given up",
     VALUE(jump.buffer)},
    {"jump", "air_jumps", Unit::Count, 0.0, 100.0, 0.0, 3.0, "Further jumps before the next landing.", "",
     "gaps mean nothing", VALUE(jump.air_jumps)},
    {"jump", "wall_push", Unit::MetresPerSecond, 0.0, 100.0, 1.0, 8.0,
     "Speed away from the wall that a jump off it gives.", "it climbs along the wall",
     "it cannot come back to the wall", VALUE(jump.wall_push)},
    {"fly", "speed", Unit::MetresPerSecond, 0.0, 1000.0, 2.0, 30.0, "Speed of free flight.",
     "looking round the course takes ages", "it cannot be steered", VALUE(fly.speed)},
    {"fly", "sprint_speed", Unit::MetresPerSecond, 0.0, 1000.0, 4.0, 80.0, "The same while sprint is held.",
     "looking round the course takes ages", "it cannot be steered", VALUE(fly.sprint_speed)},
    {"fly", "time", Unit::Seconds, 0.0, 60.0, 0.02, 0.5, "Time constant of its response.", "it jerks",
     "it drifts past what it is to look at", VALUE(fly.time)},
    {"upright", "turn_rate", Unit::DegreesPerSecond, 1.0, 100000.0, 90.0, 1080.0,
     "How fast the body turns against the pull, at most.", "on small worlds it falls behind and leans",
     "the view is thrown about where the pull changes", VALUE(upright.turn_rate)},
    {"upright", "time", Unit::Seconds, 0.0, 60.0, 0.0, 0.5,
     "Time constant with which it comes upright; 0 at once.", "the view jerks where the pull changes at once",
     "on small worlds it leans forward all the way round", VALUE(upright.time)},
    {"float", "thrust", Unit::MetresPerSecond2, 0.0, 1000.0, 0.0, 12.0,
     "Acceleration along the push where nothing pulls; 0: one drifts.", "one drifts off and never comes back",
     "floating feels like walking", VALUE(floating.thrust)},
    {"float", "speed", Unit::MetresPerSecond, 0.0, 1000.0, 1.0, 10.0, "Up to which speed thrust takes one.",
     "crossing over takes for ever", "the far side comes as a wall", VALUE(floating.speed)},
    {"look", "mouse_yaw", Unit::Degrees, -100.0, 100.0, 0.01, 0.6, "Turn per count of the mouse.",
     "turning round takes the whole desk", "nothing can be aimed at", VALUE(look.mouse_yaw)},
    {"look", "mouse_pitch", Unit::Degrees, -100.0, 100.0, 0.01, 0.6, "Look up per count of the mouse.",
     "looking up takes the whole desk", "nothing can be aimed at", VALUE(look.mouse_pitch)},
    {"look", "stick_yaw", Unit::DegreesPerSecond, -10000.0, 10000.0, 60.0, 400.0,
     "Turn at full deflection of the look stick.", "turning round takes too long", "nothing can be aimed at",
     VALUE(look.stick_yaw)},
    {"look", "stick_pitch", Unit::DegreesPerSecond, -10000.0, 10000.0, 40.0, 300.0,
     "Look up at full deflection.", "looking up takes too long", "nothing can be aimed at",
     VALUE(look.stick_pitch)},
    {"look", "lowest_pitch", Unit::Degrees, -90.0, 0.0, -90.0, -40.0, "Lowest look.", "",
     "the player cannot see the own feet", VALUE(look.lowest_pitch)},
    {"look", "highest_pitch", Unit::Degrees, 0.0, 90.0, 40.0, 90.0, "Highest look.",
     "the player cannot see what to climb", "", VALUE(look.highest_pitch)},
    {"look", "dead_zone", Unit::Share, 0.0, 0.9, 0.05, 0.3,
     "Share of a stick's travel around its rest that counts as rest.", "worn sticks walk on their own",
     "gentle pushes do nothing", VALUE(look.dead_zone)},
    {"look", "stick_power", Unit::Share, 0.2, 5.0, 1.0, 3.0, "Of the look stick: its push to this power turns.",
     "it twitches around its rest", "it turns only at the rim", VALUE(look.stick_power)},
    {"smoothing", "time", Unit::Seconds, 0.0, 60.0, 0.0, 0.2,
     "Time constant with which drawn body and eye catch up after a step or snap; 0 none.", "",
     "the view swims after stairs", VALUE(smoothing.time)},
    {"smoothing", "largest", Unit::Metres, 0.0, 100.0, 0.1, 0.8, "How far the drawn body may be behind.",
     "stairs jerk", "the drawn body is inside the stairs", VALUE(smoothing.largest)},
    {"camera", "distance", Unit::Metres, 0.0, 100.0, 1.5, 8.0, "Of the third-person eye behind the eyes.",
     "the figure hides the way", "the figure is too small to place its feet", VALUE(camera.distance)},
    {"camera", "shoulder", Unit::Metres, -10.0, 10.0, -0.8, 0.8,
     "Third-person eye to the right; negative: to the left.", "the figure is out of the picture",
     "the figure is out of the picture", VALUE(camera.shoulder)},
    {"camera", "lag", Unit::Seconds, 0.0, 10.0, 0.0, 0.25,
     "Time constant with which the third-person eye follows; 0 at once.", "",
     "the figure leaves the picture at a sprint", VALUE(camera.lag)},
    {"camera", "pull_in_radius", Unit::Metres, 0.01, 10.0, 0.1, 0.4,
     "What is kept free around the third-person eye.", "the view cuts into walls",
     "the view is pulled in in every doorway", VALUE(camera.pull_in_radius)},
    {"camera", "field_of_view", Unit::Degrees, 5.0, 170.0, 40.0, 90.0,
     "From the bottom of the picture to its top.", "as through a telescope; one gets sick turning",
     "the edges stretch", VALUE(camera.field_of_view)},
    {"camera", "widening", Unit::Degrees, 0.0, 90.0, 0.0, 20.0,
     "By how much the field is wider at widening_speed.", "", "every start of a sprint looks like a fall",
     VALUE(camera.widening)},
    {"camera", "widening_speed", Unit::MetresPerSecond, 0.1, 1000.0, 3.0, 15.0,
     "Speed from which on the field is widest.", "walking widens it", "no speed widens it",
     VALUE(camera.widening_speed)},
    {"stances", "crouched_height", Unit::Metres, 0.02, 200.0, 0.6, 1.4,
     "Foot to crown, crouched; never less than twice the radius, nor more than the height.",
     "it folds into a ball", "crouching gets it under nothing", VALUE(stances.crouched_height)},
    {"stances", "lying_length", Unit::Metres, 0.02, 200.0, 1.0, 2.2,
     "From feet to head, lying; never less than twice the radius.", "the legs stick out of the capsule",
     "it gets round no corner", VALUE(stances.lying_length)},
    {"stances", "crouch_time", Unit::Seconds, 0.0, 10.0, 0.08, 0.5,
     "From standing to crouched and back; 0 at once.", "the view drops like a stone",
     "cover is reached too late", VALUE(stances.crouch_time)},
    {"stances", "lie_time", Unit::Seconds, 0.0, 10.0, 0.3, 1.5, "From crouched to lying and back; 0 at once.",
     "it falls over", "one never dares to lie down", VALUE(stances.lie_time)},
    {"gait", "walking_stride", Unit::Metres, 0.05, 20.0, 0.9, 1.8,
     "From a foot's touch to its next, at walking_speed and below.", "the legs patter",
     "slow steps are giant ones", VALUE(gait.walking_stride)},
    {"gait", "walking_speed", Unit::MetresPerSecond, 0.0, 100.0, 0.8, 2.5,
     "Up to this speed strides are shortest.", "", "", VALUE(gait.walking_speed)},
    {"gait", "running_stride", Unit::Metres, 0.05, 20.0, 1.6, 4.0,
     "From a foot's touch to its next, at running_speed and above.", "the legs blur at a sprint",
     "it bounds like an antelope", VALUE(gait.running_stride)},
    {"gait", "running_speed", Unit::MetresPerSecond, 0.0, 100.0, 4.0, 9.0,
     "From this speed on strides are longest.", "", "", VALUE(gait.running_speed)},
    {"gait", "lean", Unit::Degrees, 0.0, 45.0, 0.0, 4.0, "Of the body, for each m/s2 across its way.", "",
     "it falls into every turn", VALUE(gait.lean)},
    {"gait", "landing_speed", Unit::MetresPerSecond, 0.1, 1000.0, 4.0, 20.0,
     "Of the fall at which a landing is as hard as it is drawn.", "every kerb is a hard landing",
     "falls from roofs leave no mark", VALUE(gait.landing_speed)},
};

#undef VALUE

#define CURVE(member) \
  [](const Values& p) -> const Curve& { return p.member; }, [](Values& p) -> Curve& { return p.member; }

constexpr ProfileCurve kCurves[] = {
    {"ground", "slope_speed", -90.0, 90.0, 0.0, 10.0, "deg", "",
     "Share of the speed over the slope in the direction of travel; uphill positive.",
     CURVE(ground.slope_speed)},
    {"walls", "kept", 0.0, 90.0, 0.0, 1.0, "deg", "",
     "Share of the speed that is kept over the angle of approach to a wall: 0 grazing, 90 head-on.",
     CURVE(walls.kept)},
    {"jump", "air_jump_height", 1.0, 100.0, 0.0, 100.0, "", "m",
     "Height of an air jump over its number; without points as high as the first.",
     CURVE(jump.air_jump_height)},
};

#undef CURVE

constexpr std::string_view kSpeedsOnSlopes[] = {"along", "level"};
constexpr std::string_view kLandings[] = {"kept", "projected"};
constexpr std::string_view kInherits[] = {"all", "horizontal", "none"};
constexpr std::string_view kModels[] = {"instant", "steady", "exponential", "smooth"};

constexpr std::string_view kCrouchesInAir[] = {"lift-feet", "lower-head"};
constexpr std::string_view kFacings[] = {"travel", "view", "strafe", "turn-in-place"};

constexpr std::string_view kCameras[] = {"first-person", "behind", "chase", "carried",
                                         "overview",     "top",    "side"};
constexpr std::string_view kClimbAxes[] = {"wall", "view"};
constexpr std::string_view kCatches[] = {"never", "button", "falling", "always"};
constexpr std::string_view kMantleStarts[] = {"never", "button", "stick", "always"};
constexpr std::string_view kGuards[] = {"none", "walk", "walk-and-jump"};

#define CHOICE(section, key, words, help, member)                                          \
  {                                                                                        \
    section, key, words, help, [](const Values& p) { return static_cast<int>(p.member); }, \
        [](Values& p, int value) { p.member = static_cast<decltype(p.member)>(value); }    \
  }

constexpr ProfileChoice kChoices[] = {
    CHOICE("ground", "speed_on_slopes", kSpeedsOnSlopes,
           "What the speed measures: the way along the surface, or as seen from above.",
           ground.speed_on_slopes),
    CHOICE("ground", "landing", kLandings,
           "What a landing on a slope makes of the speed: kept along the ground as on the flat, or what the "
           "slope turns "
           "of the whole velocity.",
           ground.landing),
    CHOICE("ground", "facing", kFacings,
           "Where the body turns: to where it is pushed; to where the look goes; there only while pushed; or "
           "sideways pushes turn it and forward is along it.",
           ground.facing),
    CHOICE("ground/response", "model", kModels,
           "How the speed follows the push: at once, at a constant acceleration, by a share per second, or "
           "eased in and out.",
           ground.response.model),
    CHOICE("air/response", "model", kModels, "How the speed follows the push in the air.", air.response.model),
    CHOICE("ledge", "guard", kGuards,
           "Whether one is kept from going over a rim: when walking, or also by jumps that would not land on "
           "ground.",
           ledge.guard),
    CHOICE("hang", "catch", kCatches,
           "What has one caught by a rim in the air: nothing; the action climb, pressed or held; falling past "
           "it; or "
           "always, rising too. By the button a mantle comes first where there is room.",
           hang.grasps),
    CHOICE("climb", "grip", kMantleStarts,
           "What takes hold of a climbable wall: nothing; the action climb, pressed or held; a push into it; "
           "or touch.",
           climb.grip),
    CHOICE("climb", "axes", kClimbAxes,
           "What the stick means on a wall: up and along it, wherever one looks; or the push as it is seen, "
           "into it "
           "being up.",
           climb.axes),
    CHOICE("mantle", "start", kMantleStarts,
           "What begins a mantle: nothing; the action climb, pressed or held; a push into the wall; or a rim "
           "within reach.",
           mantle.start),
    CHOICE("jump", "edge_uses_first", {}, "Whether walking off an edge uses up the first of the jumps.",
           jump.edge_uses_first),
    CHOICE("jump", "held_repeats", {}, "Whether a button that is still held jumps again on landing.",
           jump.held_repeats),
    CHOICE("jump", "from_skid", {}, "Whether one may jump off ground that is too steep.", jump.from_skid),
    CHOICE("jump", "remember_on_skid", {},
           "Whether a press while skidding is remembered, as long as the buffer says.", jump.remember_on_skid),
    CHOICE("jump", "from_wall", {},
           "Whether one may jump off a wall that one pushes against in the air; each wall once before landing.",
           jump.from_wall),
    CHOICE("jump", "inherits", kInherits, "What is taken along of the velocity of a moving piece that is left.",
           jump.inherits),
    CHOICE("stances", "in_air", kCrouchesInAir,
           "What crouching in the air does: bring the feet up to the head, or the head down to the feet.",
           stances.in_air),
    CHOICE("look", "invert_yaw", {}, "Whether mouse and stick turn the other way.", look.invert_yaw),
    CHOICE("look", "invert_pitch", {}, "Whether mouse and stick look up and down the other way.",
           look.invert_pitch),
    CHOICE(
        "camera", "kind", kCameras,
        "From where one is seen as one drives: by the own eyes; from behind the look; trailing the way; at one "
        "angle, carried as up turns; from one place; from above; from the side.",
        camera.kind),
    CHOICE("camera", "overview_turns", {},
           "Whether the overview turns to whom it follows; else it stands still and keeps its look.",
           camera.overview_turns),
};

#undef CHOICE

template <typename Entry>
const Entry* find_in(std::span<const Entry> table, std::string_view path) {
  for (const Entry& entry : table) {
    if (path_of(entry.section, entry.key) == path) return &entry;
  }
  return nullptr;
}

}  // namespace

std::string path_of(std::string_view section, std::string_view key) {
  std::string path(section);
  for (char& c : path) c = c == '/' ? '.' : c;
  return path.empty() ? std::string(key) : path + "." + std::string(key);
}

const ProfileField* find_field(std::string_view path) { return find_in(profile_fields(), path); }
const ProfileCurve* find_curve(std::string_view path) { return find_in(profile_curves(), path); }
const ProfileChoice* find_choice(std::string_view path) { return find_in(profile_choices(), path); }

std::vector<std::string> profile_paths() {
  std::vector<std::string> paths;
  const auto add = [&](const auto& entry) { paths.push_back(path_of(entry.section, entry.key)); };
  for (const ProfileField& field : kFields) add(field);
  for (const ProfileCurve& field : kCurves) add(field);
  for (const ProfileChoice& field : kChoices) add(field);
  return paths;
}

std::span<const ProfileField> profile_fields() { return kFields; }
std::span<const ProfileCurve> profile_curves() { return kCurves; }
std::span<const ProfileChoice> profile_choices() { return kChoices; }

}  // namespace lagniappe
