// SPDX-License-Identifier: MIT
// All values that make one way of moving. Every default is a walkable character.
#pragma once

#include <array>
#include <cstdint>
#include <map>
#include <memory>
#include <string>

#include "lagniappe/curve.h"
#include "lagniappe/vector.h"

namespace lagniappe {

// How a velocity follows what is wished for.
struct Response {
  enum class Model : std::uint8_t {
    Instant,      // At once.
    Steady,       // At a constant acceleration: a straight line over time.
    Exponential,  // By a share per second: quick at first, then easing in.
    Smooth,       // Critically damped: eases in and out.
  };
  Model model = Model::Exponential;
  double acceleration = 30.0;  // m/s2, Steady, while something is wished. More: snappier.
  double deceleration = 40.0;  // m/s2, Steady, while nothing is wished. 0 keeps the velocity.
  double time = 0.10;          // s, Exponential: time constant; Smooth: smooth time. More: heavier.
  double stop_time = 0.08;     // s, the same while nothing is wished. 0 stops at once.
  // The same while what is wished goes against the velocity, until that is brought to a stand.
  double turn_acceleration = 30.0;  // m/s2.
  double turn_time = 0.10;          // s.
};

// The numbers, curves and choices. Plain: a copy costs no more than its bytes.
struct Values {
  struct Capsule {
    double radius = 0.30;          // m.
    double height = 1.80;          // m, foot to crown. REQUIRES: height >= 2 radius.
    double eye_height = 1.65;      // m above the foot.
    double centre_of_mass = 0.95;  // m above the foot: where fields of gravity are felt.
    double margin = 0.0005;  // m, how much thinner the core is that is kept clear of solids. More forgives a
                             // less precise world; what enters by less than this is not pushed out.
    double longest_push_out =
        0.60;  // m per tick out of solids. Deeper overlaps stay, and are reported as crushed.
  } capsule;

  double gravity = 20.0;         // m/s2, against up.
  double terminal_speed = 40.0;  // m/s, the fastest fall that gravity alone reaches.

  struct Ground {
    double speed = 4.0;         // m/s along the surface at full push.
    double sprint_speed = 6.5;  // m/s while sprint is held.
    Response response = {};
    double steepest_walkable = radians(46.0);
    double highest_step = 0.34;    // m. 0 takes no steps.
    double shortest_tread = 0.10;  // m, what must be clear of walls above a riser for it to count as a step.
    double snap_distance =
        0.35;  // m that the ground may drop away per tick and still be followed. 0 never snaps.
    double longest_overhang =
        0.20;  // m that the centre may stand beyond an edge before the character slips off.
    // How sharply ground may fall away under a character faster than crest_speed and still be followed:
    // compared with the ground of the last tenth of a second.
    double crest_angle = radians(60.0);
    double crest_speed = 3.0;           // m/s.
    double turn_rate = radians(720.0);  // per second, of the body towards where it goes.
    enum class SpeedOnSlopes : std::uint8_t {
      Along,
      Level
    } speed_on_slopes = SpeedOnSlopes::Along;  // What
                                               // `speed` measures: the way along the surface, or as seen from
                                               // above.
    // What a landing on a slope makes of the speed: kept along the ground, as on the flat; or what the slope
    // turns of the whole velocity, so that uphill takes of it and downhill gives.
    enum class Landing : std::uint8_t { Kept, Projected } landing = Landing::Kept;
    Curve slope_speed;  // Share of the speed over the slope in the direction of travel, in degrees; uphill
                        // positive.
    // Where the body turns to, at turn_rate.
    enum class Facing : std::uint8_t {
      Travel,       // Where it is pushed.
      View,         // Where the look goes, standing too.
      Strafe,       // Where the look goes while it is pushed; standing, the look is free.
      TurnInPlace,  // Pushing sideways turns body and look; forward is along the body.
    } facing = Facing::Travel;
    // Speed that grows while the push is held on the ground, in place of `speed`.
    struct Gather {
      double growth = 0.0;   // m/s per second. 0: none of this.
      double lowest = 3.0;   // m/s that the first push gives.
      double highest = 9.0;  // m/s that it grows to.
      double grace = 0.15;   // s without a push after which what was gathered is lost.
      double least = 0.0;    // m/s that it never is below, whatever was gathered: what a sprint sets.
    } gather;
  } ground;

  // Where the ground ends. A state that guards does not walk over a rim.
  struct Ledge {
    enum class Guard : std::uint8_t { None, Walk, WalkAndJump } guard = Guard::None;
    // m that ground may drop away from one place to the next and still go on. Never less counts than the snap
    // distance; down what is deeper than that one falls, and is not guarded meanwhile.
    double deepest_drop = 0.35;
    double least_reach = 0.25;  // m, across up, that the foot (lying, feet and head too) stays from a rim.
    // s: a rim is neared no faster than by the way that is left over this. 0: at full speed, to a dead stop.
    double reach_time = 0.10;
  } ledge;

  // Up over a rim, and over what is thin. Heights are of the rim over the foot.
  struct Mantle {
    enum class Start : std::uint8_t {
      Never,
      Button,  // On `climb`, or while it is held.
      Stick,   // By pushing into the wall.
      Always,  // Wherever it can.
    } start = Start::Button;
    double lowest = 0.34;          // m, from the ground; what is lower is stepped onto. In the air any counts.
    double highest = 2.0;          // m.
    double reach = 0.45;           // m from the body's skin to the wall.
    double longest_vault = 0.60;   // m: what is thinner is gone over. 0: nothing is.
    double deepest_landing = 1.0;  // m below the foot that a vault may end.
    double time_per_metre = 0.35;  // s for each metre of the way: up, over, and down.
    double least_time = 0.30;      // s.
    double kept_speed = 0.5;  // Share of the speed before that is there at the end; a vault goes no slower.
  } mantle;

  // From a rim, below it. Heights are of the rim over the foot.
  struct Hang {
    enum class Catch : std::uint8_t {
      Never,
      Button,   // On `climb` or while it is held, while not rising faster than `rising`.
      Falling,  // By itself then.
      Always,   // Rising as well.
    } grasps = Catch::Button;
    double lowest = 1.3, highest = 2.2;  // m, in which a rim is caught.
    double reach = 0.40;                 // m from the body's skin to the wall.
    double shortest_shelf = 0.08;        // m.
    double steepest_shelf = radians(40.0);
    double facing = radians(60.0);  // rad at most between the body's facing and the way into the wall.
    double rising = 1.5;            // m/s upwards up to which one is caught.
    double hands = 1.90;            // m of the rim over the foot while hanging.
    double speed = 1.2;             // m/s along the rim at full push.
    double catch_time = 0.15;       // s from being caught to hanging still.
    double pause = 0.40;            // s after letting go in which nothing is caught, but on a press.
  } hang;

  // On walls whose surface is climbable.
  struct Climb {
    enum class Grip : std::uint8_t {
      Never,
      Button,  // On `climb`, or while it is held.
      Stick,   // Pushing into the wall.
      Always,  // By touch; from the ground pushing into it.
    } grip = Grip::Button;
    enum class Axes : std::uint8_t {
      Wall,  // Up the wall is up on the stick, wherever one looks.
      View,  // The push as it is seen: into the wall is up.
    } axes = Axes::Wall;
    double up_speed = 1.3, down_speed = 1.6, side_speed = 1.1;  // m/s of the body at full push.
    double reach = 0.40;                                        // m from the body's skin to the wall.
    double gap = 0.05;                                          // m between the body's skin and the wall.
    double hands = 1.35;                // m over the foot: where the wall must be, and is felt for.
    double most_back = radians(40.0);   // rad that a wall leans back at most.
    double most_over = radians(30.0);   // rad that it leans over at most.
    double turn_rate = radians(540.0);  // rad/s, towards the wall.
    double take_time = 0.15;            // s from taking hold to being at the wall.
    double pause = 0.40;  // s after letting go in which the same piece is not gripped, but on a press.
  } climb;

  // What is left of the speed after running into a wall, over the angle of approach in degrees: 0 grazing, 90
  // head-on. Also how much of its speed a character keeps that goes on pushing along it.
  struct Walls {
    Curve kept = {{{{0.0, 1.0}, {20.0, 0.97}, {45.0, 0.75}, {70.0, 0.35}, {90.0, 0.0}}}, 5};
    // What a contact is, by the angle between its face's normal and up: ground and what is skidded down, up to
    // steepest_skid; a wall, from there through upright (90 degrees); a ceiling, from ceiling_from.
    double steepest_skid = radians(75.0);
    double ceiling_from = radians(135.0);
    // Share of its speed that a piece gives to whom it strikes. 0: he is only moved out of its way.
    double strike = 0.0;
  } walls;

  struct Air {
    double speed = 4.0;  // m/s across up that steering alone reaches; a faster run-up is kept.
    Response response = {Response::Model::Steady, 14.0, 0.0, 0.3, 0.3, 14.0, 0.3};
    double highest_step = 0.0;  // m that a falling character is lifted onto what it meets. 0: never.
    double over_run_up = 10.0;  // m/s by which steering may exceed the speed that the ground was left with.
    double wind_share = 1.0;    // Share of the wind that the air moves with, as the character feels it.
    double wind_time = 0.7;     // s: wind slows and takes along by its speed over this, in m/s2. 0: at once.
  } air;

  // On ground too steep to walk, and after it until the speed has run out.
  struct Skid {
    double friction = 0.20;  // Coefficient: g cos(angle) times this is taken from the acceleration downhill.
    double steering_speed = 2.0;  // m/s across the slope at full push.
    double steering_time = 0.35;  // s, time constant of it.
    double run_out_time = 0.45;   // s, time constant with which speed is lost on walkable ground.
    double lowest_speed = 2.5;    // m/s under which the run-out is over. 0 would never end it: the run-out then
                                  // ends as soon as the speed is one that is walked at.
  } skid;

  struct Jump {
    double height = 1.20;       // m, of the foot above the take-off at the apex.
    double coyote_time = 0.12;  // s after leaving the ground in which a jump still counts as from it.
    double buffer = 0.12;       // s before landing in which a press is remembered.
    double fall_factor = 1.0;   // Gravity while falling, as a share of gravity.
    double apex_speed = 0.0;    // m/s of rise or fall under which a jump hangs around its apex. 0: no hang.
    double apex_factor = 0.5;   // Gravity while it hangs, as a share of gravity.
    double lowest_share =
        1.0;                 // Of the height, if the button is let go at once. 1: letting go changes nothing.
    double head_bump = 0.0;  // Share of the rise speed that a ceiling throws back down. 0: the rise just ends.
    int air_jumps = 0;       // further jumps before the next landing.
    Curve air_jump_height;   // m over the number of the air jump; without points `height`.
    bool edge_uses_first = true;   // Whether walking off an edge uses up the first of the jumps.
    bool held_repeats = false;     // Whether a button that is still held jumps again on landing.
    bool from_skid = false;        // Whether one may jump off ground that is too steep.
    bool remember_on_skid = true;  // Whether a press while skidding is remembered, for `buffer`.
    bool from_wall = false;        // Whether one may jump off a wall that one pushes against in the air.
    double wall_push = 3.0;        // m/s away from that wall.
    // What a character takes along of the velocity of a moving piece that it leaves, by a jump or otherwise.
    enum class Inherits : std::uint8_t { All, Horizontal, None } inherits = Inherits::All;
  } jump;

  struct Fly {
    double speed = 8.0;          // m/s.
    double sprint_speed = 20.0;  // m/s while sprint is held.
    double time = 0.08;          // s, time constant of the response.
  } fly;

  // Where the place says what pulls.
  struct Upright {
    double turn_rate = radians(360.0);  // rad/s, of the body against the pull, at most.
    double time = 0.0;                  // s, time constant with which it comes upright.
  } upright;

  // Where nothing pulls.
  struct Float {
    double thrust = 3.0;  // m/s2 along the push; 0: one drifts.
    double speed = 4.0;   // m/s, up to which thrust takes one.
  } floating;

  struct Look {
    double mouse_yaw = radians(0.12);    // per count of the mouse; negative inverts.
    double mouse_pitch = radians(0.12);  // per count of the mouse; negative inverts.
    double stick_yaw = radians(200.0);   // per second at full deflection.
    double stick_pitch = radians(140.0);
    double lowest_pitch = radians(-88.0);
    double highest_pitch = radians(88.0);
    bool invert_yaw = false, invert_pitch = false;
    double dead_zone = 0.12;   // share of a stick's travel around its rest that counts as rest; round.
    double stick_power = 1.0;  // of the look stick: its push to this power turns. More: finer near its rest.
  } look;

  struct Smoothing {
    double time =
        0.07;  // s, time constant with which drawn body and camera catch up after a step or snap. 0: none.
    double largest = 0.40;  // m that the drawn body may be behind; never more than a step anyway.
  } smoothing;

  // What is drawn, and from where. Nothing of it reaches step().
  struct Camera {
    enum class Kind : std::uint8_t {
      FirstPerson,
      Behind,    // Held by the player: behind the head, along the look.
      Chase,     // Trails the way that is travelled.
      Carried,   // At one angle in a frame that goes along with up, whatever the look does.
      Overview,  // From one place.
      Top,       // From straight above, its top carried like that angle.
      Side,      // From the side, likewise.
    } kind = Kind::Behind;
    bool overview_turns = true;    // Whether the overview turns to whom it follows; else it keeps its look.
    double distance = 4.5;         // m behind the eyes, third person.
    double shoulder = 0.0;         // m to the right of them; negative: to the left.
    double lag = 0.0;              // s, time constant with which the third-person eye follows. 0: at once.
    double pull_in_radius = 0.20;  // m kept free around the third-person eye.
    double field_of_view = radians(60.0);  // From bottom to top.
    double widening = 0.0;                 // rad by which it is wider at widening_speed and above.
    double widening_speed = 8.0;           // m/s.
  } camera;

  // The capsule of the stances that are not standing, and how it gets there.
  struct Stances {
    double crouched_height = 1.10;  // m; taken as at least twice the radius and at most the height.
    double lying_length = 1.76;     // m, from end to end; taken as at least twice the radius.
    double crouch_time = 0.18;      // s from standing to crouched and back. 0: at once.
    double lie_time = 0.55;         // s from crouched to lying and back. 0: at once.
    // What crouching in the air does: bring the feet up to the head, or the head down to the feet.
    enum class InAir : std::uint8_t { LiftFeet, LowerHead } in_air = InAir::LiftFeet;
  } stances;

  // What the body is drawn with.
  struct Gait {
    double walking_stride = 1.30;  // m from a foot's touch to its next, at walking_speed and below.
    double walking_speed = 1.6;    // m/s.
    double running_stride = 2.60;  // m, at running_speed and above; in between in proportion.
    double running_speed = 6.0;    // m/s.
    double lean = radians(2.0);    // rad for each m/s2 across the way.
    double landing_speed = 9.0;    // m/s of fall at which a landing is as hard as it is drawn.
  } gait;
};

class StateChart;

struct Profile : Values {
  std::string name = "Untitled";
  std::map<std::string, std::string> notes;  // What people write about a value, by its path ("jump.height").
  std::shared_ptr<const StateChart> states;  // Null: the built-in ones. See states.h.
};

}  // namespace lagniappe
