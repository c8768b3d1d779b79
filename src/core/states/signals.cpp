// SPDX-License-Identifier: MIT
#include "lagniappe/signals.h"

#include <algorithm>

#include "lagniappe/states.h"
#include "lagniappe/turns.h"
#include "motion/climbing.h"
#include "motion/contact_kind.h"
#include "motion/hanging.h"
#include "motion/holding.h"
#include "motion/jumping.h"
#include "motion/look.h"
#include "motion/mantling.h"
#include "motion/rims.h"
#include "motion/stance.h"

namespace lagniappe {
namespace {

constexpr double kFarthestGround = 50.0;  // m; farther is not told apart.
constexpr double kFarthestWall = 2.0;     // m.
constexpr double kFarthestHead = 3.0;     // m.
constexpr double kDeepestDrop = 5.0;      // m.
constexpr double kFarthestRim = 2.0;      // m.
constexpr double kDropAhead = 0.3;        // m beyond the capsule.
constexpr double kLongest = 60.0;         // s; longer is not told apart.

double slope(const CharacterState& s) {
  if (s.ground.verdict == Verdict::None) return 0.0;
  return degrees(std::acos(std::clamp(dot(s.ground.normal_C, s.judged_up_C()), -1.0, 1.0)));
}

double trend(const CharacterState& s) {
  const Vec3 normal = unit_or(Vec3(s.ground_trend_C), Vec3(0.0));
  return normal == Vec3(0.0) ? 0.0 : degrees(std::acos(std::clamp(dot(normal, s.judged_up_C()), -1.0, 1.0)));
}

// Against the course, and against what is underfoot.
Vec3 course_velocity(const SignalView& v) {
  return v.under_way ? v.state.velocity_C + v.state.ground_velocity_C : v.state.velocity_C;
}
Vec3 own_velocity(const SignalView& v) {
  return v.under_way ? v.state.velocity_C : v.state.velocity_C - v.state.ground_velocity_C;
}

// Along the surface on the ground, across up in the air, against what carries.
double ground_speed(const SignalView& v) {
  const CharacterState& s = v.state;
  const Vec3 own = own_velocity(v);
  return s.grounded() ? length(own) : length(across(own, s.up_C()));
}

// Who walks off a level edge does not rise, whichever way the course is turned: that would be rounding.
double rise_speed(const SignalView& v) {
  constexpr double kLeast = 1e-9;
  const double rise = dot(course_velocity(v), v.state.up_C());
  return std::abs(rise) < kLeast ? 0.0 : rise;
}

double distance_to_ground(const SignalView& v) {
  const Vec3 up = v.state.up_C();
  const double radius = v.values.capsule.radius;
  const Segment ball{v.state.foot_C + up * radius, v.state.foot_C + up * radius};
  const auto hit = v.world.sweep(ball, radius, -up * kFarthestGround, v.now);
  return hit ? hit->hit.fraction * kFarthestGround : kFarthestGround;
}

bool world_pulls(const SignalView& v) {
  return v.world.surroundings(v.state.foot_C, v.now.time).gravity.has_value();
}

// deg/s between two unit vectors.
double turn_rate(const Vec3& from, const Vec3& to, double dt) {
  return dt > 0.0 ? degrees(std::atan2(length(cross(from, to)), dot(from, to))) / dt : 0.0;
}

// deg about up. Straight is the smallest turn from home's up to this one.
double carried_round(const CharacterState& s) {
  const Quat& home = s.home.frame_CB;
  const Quat straight = smallest_turn(home * Vec3(0, 1, 0), s.up_C()) * home;
  const Quat off = glm::conjugate(straight) * s.frame_CB;
  return degrees(wrap_angle(2.0 * std::atan2(off.y, off.w)));
}

Vec3 look_C(const CharacterState& s) {
  const double level = std::cos(s.pitch);
  return s.frame_CB * Vec3(-std::sin(s.yaw) * level, std::sin(s.pitch), -std::cos(s.yaw) * level);
}

double pull(const SignalView& v) {
  const double strength = length(Vec3(v.state.pull_C));
  return strength > 0.0 || world_pulls(v) ? strength : v.values.gravity;
}

bool weightless(const SignalView& v) { return v.state.pull_C == glm::vec3(0.0f) && world_pulls(v); }

// Unit, against the pull; zero where nothing is said of that, or nothing pulls.
Vec3 up_of_pull(const CharacterState& s) { return unit_or(-Vec3(s.pull_C), Vec3(0.0)); }

double lean(const CharacterState& s) {
  const Vec3 up = up_of_pull(s);
  return up == Vec3(0.0) ? 0.0 : degrees(angle_between(s.up_C(), up));
}

StepContext context_of(const SignalView& v) {
  StepContext context{v.input, v.values, v.world, v.dt, nullptr, v.now};
  context.felt.up_C = up_of_pull(v.state);
  return context;
}

Vec2 stick(const SignalView& v) { return shaped_stick(v.input.move, v.values.look.dead_zone); }

// Where it is pushed, else where the body faces.
Vec3 ahead_of(const SignalView& v) {
  const Vec3 wished = ground_intent(context_of(v), v.state).direction_C;
  return wished != Vec3(0.0) ? wished : look_direction(v.state.frame_CB, v.state.facing, 0.0);
}

double wall_ahead(const SignalView& v) {
  const StepContext context = context_of(v);
  const Body body(context, v.state);
  const auto hit = body.sweep(v.state.foot_C, ahead_of(v) * kFarthestWall);
  const ContactKind kind =
      hit ? contact_kind(v.values, hit->surface, hit->hit.normal_C, body.up_C) : ContactKind::Ground;
  const bool wall = kind == ContactKind::Wall || kind == ContactKind::Steep;
  return wall ? hit->hit.fraction * kFarthestWall : kFarthestWall;
}

double drop_ahead(const SignalView& v) {
  const Vec3 up = v.state.up_C();
  const double radius = v.values.capsule.radius;
  const Vec3 from = v.state.foot_C + up * radius + ahead_of(v) * (radius + kDropAhead);
  const auto hit = v.world.cast_ray(from, -up * (radius + kDeepestDrop), v.now);
  return hit ? std::max(hit->hit.fraction * (radius + kDeepestDrop) - radius, 0.0) : kDeepestDrop;
}

// m across up to the nearest rim ahead, from the foot.
double rim_distance(const SignalView& v) {
  const StepContext context = context_of(v);
  const Body body(context, v.state);
  std::array<Rim, kMostRims> rims;
  if (!v.state.grounded()) return kFarthestRim;
  const std::size_t count =
      rims_ahead(context, body, v.state.foot_C, ahead_of(v), kFarthestRim, v.state.ground.point_C, rims);
  double least = kFarthestRim;
  for (std::size_t i = 0; i < count; ++i) least = std::min(least, rims[i].distance);
  return least;
}

double room_for(const SignalView& v, Stance stance) { return has_room(context_of(v), v.state, stance); }

double can_jump(const SignalView& v) {
  if (!v.jump_may_begin) return 0.0;
  const bool asked = v.input.pressed.has(Action::Jump) || v.state.jump_waits || v.input.held.has(Action::Jump);
  if (!asked) return 0.0;
  const StepContext context = context_of(v);
  return judge_jump(context, Body(context, v.state), v.state).choice.has_value();
}

double can_hang(const SignalView& v) { return hang_may_begin(context_of(v), v.state); }

double can_climb(const SignalView& v) { return climb_may_begin(context_of(v), v.state); }

double can_mantle(const SignalView& v) { return mantle_may_begin(context_of(v), v.state); }

// The rim that a mantle would go over, whether there is room behind it or not.
std::optional<Ledge> ledge_ahead(const SignalView& v) {
  if (v.state.lying() || v.state.holding()) return std::nullopt;
  return judge_mantle(context_of(v), v.state).ledge.ledge;
}

double wall_climbable(const SignalView& v) {
  const Body body(context_of(v), v.state);
  const auto hit = body.sweep(v.state.foot_C, ahead_of(v) * kFarthestWall);
  return hit && (hit->surface.climbable || v.world.ladder(hit->piece, context_of(v).now));
}

// Who pushes on is brought to the pace that is pushed for, and no slower: then it is over, too.
double skid_over(const SignalView& v) {
  constexpr double kNearly = 1.05;
  const double lowest = v.values.skid.lowest_speed, full = v.values.ground.speed;
  const double pace = stick_push(v.input.move, v.values.look.dead_zone) * full * kNearly;
  return length(own_velocity(v)) <= std::max(lowest > 0.0 ? lowest : full, pace);
}

double of_wall(const SignalView& v, bool along_forward) {
  const Vec3 forward = look_direction(v.state.frame_CB, v.state.yaw, 0.0);
  return dot(v.state.wall_normal_C, along_forward ? forward : cross(forward, v.state.up_C()));
}

template <Action kAction>
double pressed(const SignalView& v) {
  return v.presses_count && v.input.pressed.has(kAction);
}
template <Action kAction>
double held(const SignalView& v) {
  return v.input.held.has(kAction);
}
template <Action kAction>
double released(const SignalView& v) {
  return v.presses_count && v.held_before.value_or(v.before.held).has(kAction) && !v.input.held.has(kAction);
}
template <Action kAction>
double since(const SignalView& v) {
  if (v.input.pressed.has(kAction)) return 0.0;
  return std::min(double(v.state.since_press[static_cast<std::size_t>(kAction)]), kLongest);
}

#define BUTTON(word, action)                                                                                 \
  {word ".pressed",                                                                                          \
   word " pressed",                                                                                          \
   "",                                                                                                       \
   true,                                                                                                     \
   "Whether the button went down in this tick; true for the "                                                \
   "tick's first transition only.",                                                                          \
   pressed<action>},                                                                                         \
      {word ".held", word " held", "", true, "Whether the button is down.", held<action>, true},             \
      {word ".released",                                                                                     \
       word " released",                                                                                     \
       "",                                                                                                   \
       true,                                                                                                 \
       "Whether the button went up in this tick; true for "                                                  \
       "the tick's first transition only.",                                                                  \
       released<action>},                                                                                    \
  {                                                                                                          \
    word ".since", "since " word, "s", false, "Since the button went down; at most 60.", since<action>, true \
  }

constexpr Signal kSignals[] = {
    {"ground_speed", "speed along ground", "m/s", false,
     "Along the surface on the ground, across up in the air, against what carries.", ground_speed},
    {"rise_speed", "rise speed", "m/s", false, "Of the foot along up, against the course.", rise_speed},
    {"height", "height above home", "m", false, "Of the foot above where one begins, along up.",
     [](const SignalView& v) { return dot(v.state.foot_C - v.state.home.foot_C, v.state.up_C()); }},
    {"speed", "speed", "m/s", false, "In any direction, against the course.",
     [](const SignalView& v) { return length(course_velocity(v)); }},
    {"acceleration", "acceleration", "m/s2", false, "From the last tick to this one, against the course.",
     [](const SignalView& v) { return length(course_velocity(v) - v.before.velocity_C) / v.dt; }},
    {"grounded", "on the ground", "", true, "Whether the ground underfoot bears and may be walked on.",
     [](const SignalView& v) { return double(v.state.grounded()); }},
    {"steep", "on steep ground", "", true, "Whether the ground underfoot is too steep to walk on.",
     [](const SignalView& v) { return double(v.state.ground.verdict == Verdict::Steep); }},
    {"on_ground", "time on ground", "s", false, "Since the landing; 0 in the air.",
     [](const SignalView& v) { return double(v.state.ground_time); }},
    {"off_ground", "time off ground", "s", false,
     "Since the ground was left, however that was; 0 on the ground, at most 60.",
     [](const SignalView& v) { return v.state.grounded() ? 0.0 : std::min(v.state.since_grounded, kLongest); }},
    {"slope", "slope", "deg", false, "Of the ground underfoot; 0 in the air.",
     [](const SignalView& v) { return slope(v.state); }},
    {"pull", "pull of the place", "m/s2", false,
     "What pulls at the centre of mass: the profile's gravity, where the course has no fields.",
     [](const SignalView& v) { return pull(v); }},
    {"lean", "lean against the pull", "deg", false, "Of the body, where the course says what pulls.",
     [](const SignalView& v) { return lean(v.state); }},
    {"up_rate", "turning of up", "deg/s", false, "How fast the body's up turned in this tick.",
     [](const SignalView& v) { return turn_rate(v.before.up_C(), v.state.up_C(), v.dt); }},
    {"look_rate", "turning of the look", "deg/s", false,
     "How fast the look turned in this tick: by the hand, and with the body.",
     [](const SignalView& v) { return turn_rate(look_C(v.before), look_C(v.state), v.dt); }},
    {"carried_round", "heading carried round", "deg", false,
     "What the way turned the look's frame about up, to the left, against one that is brought over from home "
     "straight: after a closed way by what the heading is off, though nobody turned it.",
     [](const SignalView& v) { return carried_round(v.state); }},
    {"weightless", "nothing pulls", "", true, "Whether nothing pulls, where the course says what does.",
     [](const SignalView& v) { return double(weightless(v)); }},
    {"friction", "grip of the surface", "", false, "Of what is underfoot, 1 in the air.",
     [](const SignalView& v) { return v.state.ground.surface.friction; }},
    {"climbable", "climbable ground", "", true, "Whether the surface underfoot may be climbed.",
     [](const SignalView& v) { return double(v.state.ground.surface.climbable); }},
    {"distance_to_ground", "distance to ground", "m", false,
     "Straight down from the foot to what would hold the capsule; at most 50.", distance_to_ground},
    {"drop_ahead", "drop ahead", "m", false,
     "How far it goes down 0.3 m beyond the capsule, where it is pushed or faces; at most 5.", drop_ahead},
    {"rim.distance", "distance to a rim ahead", "m", false,
     "Across up from the foot to where the ground ends, where it is pushed or faces; at most 2. Below 0 beyond "
     "it.",
     rim_distance},
    {"ledge.found", "rim within reach", "", true,
     "Whether there is a rim where it is pushed or faces, from mantle.lowest to mantle.highest.",
     [](const SignalView& v) { return double(ledge_ahead(v).has_value()); }},
    {"ledge.height", "height of the rim", "m", false, "Of that rim over the foot; 0 without one.",
     [](const SignalView& v) {
       const auto ledge = ledge_ahead(v);
       return ledge ? ledge->height : 0.0;
     }},
    {"ledge.drop", "drop below the rim", "m", false, "From that rim down to what is before it; 0 without one.",
     [](const SignalView& v) {
       const auto ledge = ledge_ahead(v);
       return ledge ? ledge->drop : 0.0;
     }},
    {"ledge.room", "head room behind the rim", "m", false,
     "Over the shelf where one would stand, at most the standing height; 0 without one.",
     [](const SignalView& v) {
       const auto ledge = ledge_ahead(v);
       return ledge ? ledge->headroom : 0.0;
     }},
    {"wall.climbable", "climbable wall ahead", "", true,
     "Whether what is met first within 2 m, where it is pushed or faces, may be climbed.", wall_climbable},
    {"wall_ahead", "distance to wall ahead", "m", false,
     "How far the capsule can go until it meets a wall, where it is pushed or faces; at most 2.", wall_ahead},
    {"wall.touched", "at a wall", "", true, "Whether the last tick slid along a wall.",
     [](const SignalView& v) { return double(v.state.wall_normal_C != Vec3(0.0)); }},
    {"wall.forward", "wall facing forward", "", false,
     "How far the normal of that wall points along the look, from -1 to 1.",
     [](const SignalView& v) { return of_wall(v, true); }},
    {"wall.right", "wall facing right", "", false,
     "How far the normal of that wall points to the right of the look, from -1 to 1.",
     [](const SignalView& v) { return of_wall(v, false); }},
    {"head_room", "head room", "m", false, "Free above the capsule; at most 3.",
     [](const SignalView& v) {
       return head_room(context_of(v), Body(context_of(v), v.state), v.state.foot_C, kFarthestHead);
     }},
    {"can_stand", "room to stand", "", true, "Whether the standing capsule has room.",
     [](const SignalView& v) { return room_for(v, Stance::Standing); }},
    {"can_crouch", "room to crouch", "", true, "Whether the crouched capsule has room.",
     [](const SignalView& v) { return room_for(v, Stance::Crouched); }},
    {"can_lie", "room to lie", "", true,
     "Whether the lying capsule has room along the facing, and ground under both ends.",
     [](const SignalView& v) { return room_for(v, Stance::Lying); }},
    {"can_jump", "jump asked and possible", "", true,
     "Whether a jump is asked for (pressed, remembered, or held where that repeats) and ground, a wall or an "
     "air "
     "jump allows it. Before the motion only, and once in a tick.",
     can_jump},
    {"can_mantle", "mantle asked and possible", "", true,
     "Whether a mantle is asked for, as mantle.start says, and the whole way over the rim is free.",
     can_mantle},
    {"can_hang", "rim to hang from", "", true,
     "Whether being caught by a rim is asked for, as hang.catch says, and there is one with room below it.",
     can_hang},
    {"can_climb", "wall to climb", "", true,
     "Whether climbing is asked for, as climb.grip says, and there is a climbable wall ahead, or below the "
     "rim.",
     can_climb},
    {"holding", "holding on", "", true, "Whether it holds on to something.",
     [](const SignalView& v) { return double(v.state.holding()); }},
    {"hold.phase", "share of the way held", "", false, "Of a mantle, from 0 to 1; 0 without one.",
     [](const SignalView& v) { return v.state.holding() ? v.state.hold.phase() : 0.0; }},
    {"hold.gap", "gap to the wall", "m", false,
     "Climbing, between the body's skin and the wall, or a ladder's front; 0 otherwise.",
     [](const SignalView& v) { return climbs(v.state) ? gap_to_wall(context_of(v), v.state) : 0.0; }},
    {"air_jumps_left", "air jumps left", "", false, "Until the next landing.",
     [](const SignalView& v) { return double(v.values.jump.air_jumps - v.state.air_jumps_used); }},
    {"skid_over", "skid run out", "", true,
     "Whether the speed is no higher than where a skid ends, or than the pace that is pushed for.", skid_over},
    BUTTON("jump", Action::Jump),
    BUTTON("sprint", Action::Sprint),
    BUTTON("crouch", Action::Crouch),
    BUTTON("lie", Action::Lie),
    BUTTON("climb", Action::Climb),
    BUTTON("fly", Action::Fly),
    {"intent", "intent", "", false, "Of the stick, from 0 to 1, the dead zone cut out.",
     [](const SignalView& v) { return stick_push(v.input.move, v.values.look.dead_zone); }, true},
    {"intent_forward", "intent forward", "", false, "Of the stick, from -1 to 1.",
     [](const SignalView& v) { return stick(v).y; }, true},
    {"intent_right", "intent right", "", false, "Of the stick, from -1 to 1.",
     [](const SignalView& v) { return stick(v).x; }, true},
    {"stick_right", "stick right", "", false, "As it comes from the device.",
     [](const SignalView& v) { return v.input.move.x; }, true},
    {"stick_forward", "stick forward", "", false, "As it comes from the device.",
     [](const SignalView& v) { return v.input.move.y; }, true},
    {"yaw", "look yaw", "deg", false, "Positive to the left.",
     [](const SignalView& v) { return degrees(v.state.yaw); }},
    {"pitch", "look pitch", "deg", false, "Positive upwards.",
     [](const SignalView& v) { return degrees(v.state.pitch); }},
    {"facing", "facing", "deg", false, "Yaw of the body.",
     [](const SignalView& v) { return degrees(v.state.facing); }},
    {"state_time", "time in state", "s", false, "Since the state was entered.",
     [](const SignalView& v) { return v.state.state_time; }},
    {"capsule_height", "capsule height", "m", false, "Foot to crown.",
     [](const SignalView& v) { return v.state.capsule_height; }},
    {"lie_length", "length lying", "m", false, "From end to end, beyond the capsule's own width; 0 upright.",
     [](const SignalView& v) { return double(v.state.lie_length); }},
    {"travelled", "way on ground", "m", false, "Since the start.",
     [](const SignalView& v) { return v.state.travelled; }},
    {"slides", "planes met", "", false, "In the last tick.",
     [](const SignalView& v) { return static_cast<double>(v.state.slides); }},
    {"snapped", "snapped", "m", false, "Down in the last tick, to stay on the ground.",
     [](const SignalView& v) { return double(v.state.snapped); }},
    {"penetration", "penetration", "m", false, "How deep in a solid the tick began.",
     [](const SignalView& v) { return double(v.state.penetration); }},
    {"crushed", "crushed", "", true, "Whether it is in a solid, and no way out was found.",
     [](const SignalView& v) { return double(v.state.crushed); }},
    {"eye_offset", "eye offset", "m", false, "How far the drawn body is behind after steps and snaps.",
     [](const SignalView& v) { return v.state.eye_offset; }},
    {"carried_speed", "speed of what carries", "m/s", false, "Of the piece underfoot.",
     [](const SignalView& v) { return length(v.state.ground_velocity_C); }},
    {"gathered", "gathered speed", "m/s", false,
     "What holding the stick has added to the lowest gathered speed.",
     [](const SignalView& v) { return v.state.gathered; }},
    {"run_up", "speed of the run-up", "m/s", false, "Across up, when the ground was last left.",
     [](const SignalView& v) { return v.state.run_up_speed; }},
    {"steering_acceleration", "acceleration of the response", "m/s2", false,
     "What the smooth response goes on with; 0 with the others.",
     [](const SignalView& v) { return length(v.state.acceleration_C); }},
    {"since_stick", "time without the stick", "s", false, "Since the stick was last pushed; at most 60.",
     [](const SignalView& v) { return std::min(double(v.state.since_push), kLongest); }},
    {"ground_trend", "slope, averaged", "deg", false,
     "Of the ground's normal over the last tenth of a second, by which crests are told; 0 in the air.",
     [](const SignalView& v) { return trend(v.state); }},
    {"may_jump_late", "late jump possible", "", true,
     "Whether no jump has been made since the ground was left, so that one may still be from there.",
     [](const SignalView& v) { return double(v.state.may_jump_late); }},
    {"jump_waits", "jump remembered", "", true, "Whether a press that was refused waits for the landing.",
     [](const SignalView& v) { return double(v.state.jump_waits); }},
    {"since_refused_jump", "since refused jump", "s", false,
     "Since the press that is remembered; 0 while none is, at most 60.",
     [](const SignalView& v) {
       return v.state.jump_waits ? std::min(v.state.since_jump_press, kLongest) : 0.0;
     }},
    {"first_jump_used", "first jump used", "", true, "Whether it was made since the landing.",
     [](const SignalView& v) { return double(v.state.first_jump_used); }},
    {"flight_of", "jump of this flight", "", false,
     "0 the first, k the k-th in the air; -1 where it is of none.",
     [](const SignalView& v) { return double(v.state.flight_of); }},
    {"jump_cut", "jump cut short", "", true,
     "Whether the button was let go while rising, or a ceiling was met, in this flight.",
     [](const SignalView& v) { return double(v.state.jump_cut); }},
    {"wall_jumped_off", "wall jumped off", "deg", false,
     "Yaw in the body's frame of the normal of the wall that was jumped off last; 0 where none was since "
     "landing.",
     [](const SignalView& v) { return v.state.jumped_wall < kLongAgo ? degrees(v.state.jumped_wall) : 0.0; }},
    {"lie_pitch", "pitch of the lying body", "deg", false, "By how much the head is higher than the feet.",
     [](const SignalView& v) { return degrees(v.state.lie_pitch); }},
    {"stride", "phase of the stride", "", false, "Of two steps, from 0 to 1.",
     [](const SignalView& v) { return double(v.state.stride); }},
    {"dt", "length of a tick", "s", false, "One divided by the tick rate.",
     [](const SignalView& v) { return v.dt; }, true},
    {"x", "foot x", "m", false, "In the course frame.", [](const SignalView& v) { return v.state.foot_C.x; }},
    {"y", "foot y", "m", false, "In the course frame.", [](const SignalView& v) { return v.state.foot_C.y; }},
    {"z", "foot z", "m", false, "In the course frame.", [](const SignalView& v) { return v.state.foot_C.z; }},
};

#undef BUTTON

}  // namespace

namespace {

template <typename Is>
bool any_zone(const SignalView& view, std::string_view name, const Is& is) {
  const InZones& zones = view.state.zones;
  for (std::size_t i = 0; i < zones.count; ++i) {
    if (is(i) && view.world.zone(zones.id[i], view.now.time).name == name) return true;
  }
  return false;
}

}  // namespace

bool in_zone(const SignalView& view, std::string_view name) {
  return any_zone(view, name, [](std::size_t) { return true; });
}

bool entered_zone(const SignalView& view, std::string_view name) {
  return any_zone(view, name, [&](std::size_t i) { return view.state.zones.has_entered(i); });
}

std::span<const Signal> all_signals() { return kSignals; }

const Signal* find_signal(std::string_view key) {
  for (const OldSignal& old : kOldSignals) {
    if (key == old.was) key = old.is;
  }
  const auto found =
      std::find_if(std::begin(kSignals), std::end(kSignals), [&](const Signal& s) { return s.key == key; });
  return found == std::end(kSignals) ? nullptr : found;
}

}  // namespace lagniappe
