// SPDX-License-Identifier: MIT
// The whole state of a character between two ticks. A copy is a snapshot: nothing else remembers.
#pragma once

#include <algorithm>
#include <array>
#include <bit>
#include <cstdint>
#include <optional>
#include <string_view>
#include <type_traits>

#include "lagniappe/input_frame.h"
#include "lagniappe/world.h"

namespace lagniappe {

// A row of the profile's table of states; see states.h. The named ones are those of the built-in table.
enum class StateId : std::uint8_t {
  Stand,
  Walk,
  Sprint,
  Rise,
  Fall,
  Skid,
  Fly,
  Crouch,
  Slide,
  Lie,
  Tuck,
  Soar,
  Mantle,
  Hang,
  Climb,
  Float
};

inline constexpr int kMemorySlots = 6;

enum class Verdict : std::uint8_t {
  None,      // Nothing underfoot.
  Walkable,  //
  Steep,     // Touching, but steeper than the profile walks.
  Tipping,   // On an edge with the centre too far beyond it: slips off.
};
inline constexpr std::array<std::string_view, 4> kVerdictNames = {"none", "walkable", "steep", "tipping"};
inline std::string_view name_of(Verdict v) { return kVerdictNames[static_cast<std::size_t>(v)]; }

// What is underfoot.
struct Ground {
  Verdict verdict = Verdict::None;
  PieceId piece = kNoPiece;
  Vec3 normal_C =
      Vec3(0.0);  // Unit normal of the true face, away from the solid; zero where the verdict is None.
  Vec3 point_C = Vec3(0.0);  // Where the capsule rests.
  Surface surface = {};      // Of what bears.
};

// A mantle's way: the foot goes straight up, over the rim, and down to where the body stands. Places are
// against where it began.
struct MantleWay {
  glm::vec3 above_P = glm::vec3(0.0f), over_P = glm::vec3(0.0f), to_P = glm::vec3(0.0f);
  glm::vec3 rim_P = glm::vec3(0.0f);
  float first_height = 0.0f, least_height = 0.0f;  // m of the capsule: as it began, and once it is up.
  float speed = 0.0f;                              // m/s over the rim that it had, against the piece.
  float unused = 0.0f;
};

// How one hangs from a rim.
struct RimHold {
  glm::vec3 normal_P = glm::vec3(0.0f);  // Unit: from the rim to the body.
  glm::vec3 along_P = glm::vec3(0.0f);   // Unit, along the rim: to the right of who faces the wall.
  glm::vec3 pull_P = glm::vec3(0.0f);    // m that the body was from there when it was caught.
  float away = 0.0f;                     // m from the rim to the body's axis.
  // At a corner: rad to be turned until the rim goes on to the left and to the right; over a gap the same in m.
  float turn_left = 0.0f, turn_right = 0.0f, gap_left = 0.0f, gap_right = 0.0f;
  float inner = 0.0f;  // 1: the corner is one that the walls close in on.
  float wall = 0.0f;   // m from the body's axis to the wall at its feet; 0: they hang free.
};

// How one climbs a wall. Places are against the foot's.
struct ClimbHold {
  glm::vec3 normal_P = glm::vec3(0.0f);  // Unit: from the wall's nearest point to the body.
  glm::vec3 hands_P = glm::vec3(0.0f);   // On the wall, before the hands.
  glm::vec3 pull_P = glm::vec3(0.0f);    // m that the body was from there when it took hold.
  float top = 0.0f;                      // 1: the wall ends above the hands.
  // On a ladder, else 0: m from rung to rung, and of the hands over the lowest.
  float spacing = 0.0f, over_rung = 0.0f;
  float bend = 0.0f;  // Of the pull: 1 away from the wall first, -1 to the wall last, 0 straight.
  std::array<float, 3> unused = {};
};

// What one holds on to, in the frame of its piece, so that it goes where that goes.
struct Hold {
  enum class Kind : std::uint8_t { None, Mantle, Vault, Hang, Climb, Descent } kind = Kind::None;
  PieceId piece = kNoPiece;
  // Mantling, and down over a rim, where the foot began; hanging, the rim's point before the body; climbing,
  // the foot.
  Vec3 at_P = Vec3(0.0);
  std::array<float, 16> numbers = {};  // A MantleWay, a RimHold or a ClimbHold, by the kind.
  // s that a mantle's way takes, or being pulled to a rim, and of it so far. With no kind: of the pause after
  // one was thrown off, or let go; the piece and the place are then of the rim that was hung from last.
  float seconds = 0.0f, gone = 0.0f;

  double phase() const { return seconds > 0.0f ? std::min(double(gone) / seconds, 1.0) : 1.0; }
  MantleWay way() const { return std::bit_cast<MantleWay>(numbers); }
  RimHold rim() const { return std::bit_cast<RimHold>(numbers); }
  ClimbHold wall() const { return std::bit_cast<ClimbHold>(numbers); }
  void set(const ClimbHold& wall) { numbers = std::bit_cast<std::array<float, 16>>(wall); }
  void set(const MantleWay& way) { numbers = std::bit_cast<std::array<float, 16>>(way); }
  void set(const RimHold& rim) { numbers = std::bit_cast<std::array<float, 16>>(rim); }
};
inline constexpr std::array<std::string_view, 6> kHoldNames = {"",     "mantle", "vault",
                                                               "hang", "climb",  "descent"};
inline std::string_view name_of(Hold::Kind kind) { return kHoldNames[static_cast<std::size_t>(kind)]; }

// So many zones are told apart at a place; of more, those that come first.
inline constexpr std::size_t kMostZonesAtOnce = 8;

// The zones that one touches, in the world's order.
struct InZones {
  std::array<ZoneId, kMostZonesAtOnce> id = {kNoZone, kNoZone, kNoZone, kNoZone,
                                             kNoZone, kNoZone, kNoZone, kNoZone};
  std::uint8_t count = 0;
  std::uint8_t entered = 0;  // One bit for each: since the tick began.
  std::uint8_t threw = 0;    // The same of launches: it threw since it was entered.
  bool aimed = false;        // One flies by a throw to a mark: nothing steers it.
  float since_throw = 1e9f;  // s.

  std::optional<std::size_t> index_of(ZoneId zone) const {
    const auto end = id.begin() + count, found = std::find(id.begin(), end, zone);
    return found != end ? std::optional(static_cast<std::size_t>(found - id.begin())) : std::nullopt;
  }
  bool has_entered(std::size_t i) const { return (entered >> i) & 1; }
  bool has_thrown(std::size_t i) const { return (threw >> i) & 1; }
};

// Where a character is put: at the start, and again on reset.
struct Home {
  Vec3 foot_C = Vec3(0.0);
  Quat frame_CB = Quat(1.0, 0.0, 0.0, 0.0);
  double yaw = 0.0;
};

struct CharacterState {
  Vec3 foot_C = Vec3(0.0);                   // The lowest point of the capsule along its up.
  Vec3 velocity_C = Vec3(0.0);               // m/s, against the course: what a moving piece gives is in it.
  Vec3 acceleration_C = Vec3(0.0);           // m/s2 across up; only the smooth response uses it.
  Quat frame_CB = Quat(1.0, 0.0, 0.0, 0.0);  // Body frame to course frame; its +Y is up.
  double yaw = 0.0;                          // Of the look, in the body frame, in (-pi, pi].
  double pitch = 0.0;                        // Of the look.
  double facing = 0.0;                       // Yaw of the body, which follows where it goes.
  double capsule_height = 0.0;               // m, from foot to crown; twice the radius while lying.
  Ground ground;
  Hold hold;
  Home home;
  InZones zones;

  double time = 0.0;  // s since the start: what moving pieces go by. Goes on through resets.
  glm::vec3 pull_C =
      glm::vec3(0.0f);  // m/s2 at the centre of mass, where the world says what pulls; else zero.
  Vec3 ground_velocity_C = Vec3(0.0);  // m/s of the piece underfoot where the capsule rests; zero in the air.
  glm::vec3 ground_trend_C = glm::vec3(0.0f);  // The ground's normal, averaged over the last tenth of a second.
  Vec3 wall_normal_C = Vec3(0.0);  // Unit, across up: of the wall that the last tick slid along; zero without.
  double state_time = 0.0;         // s in the present state.
  double since_grounded = 0.0;    // s since the ground was left, however that was, or since the start; 0 on it.
  double since_jump_press = 0.0;  // s since the last press of jump that was refused.
  double run_up_speed = 0.0;      // m/s across up when the ground was last left.
  double gathered = 0.0;          // m/s that holding the push has added to the lowest gathered speed.
  double travelled = 0.0;         // m along the ground since the start; what the stride is drawn from.
  double eye_offset = 0.0;  // m along up, drawn minus true foot: what is left of the last steps and snaps.
  std::uint32_t tick = 0;
  std::uint32_t times_put_home =
      0;                    // Resets and falls out of the limits; a drawn frame does not blend across one.
  float since_push = 0.0f;  // s without a push.
  float jumped_wall =
      1e9f;  // Yaw in the body frame of the normal of the wall jumped off last; 1e9 since landing.
  float lie_length = 0.0f;   // m from end to end beyond twice the radius; 0 is upright.
  float lie_pitch = 0.0f;    // rad by which the head lies higher than the feet.
  float stride = 0.0f;       // Of two steps, in [0, 1): what the legs are drawn from.
  float ground_time = 0.0f;  // s on the ground.
  std::array<float, kActionCount - 1> since_press = {1e9f, 1e9f, 1e9f, 1e9f, 1e9f, 1e9f};  // s; not of reset.
  std::array<double, kMemorySlots> memory = {};                                            // The table's slots.
  std::int16_t air_jumps_used = 0;
  std::int16_t flight_of =
      -1;                      // The jump that this flight is of: 0 the first, k the k-th in the air; -1: none.
  bool may_jump_late = false;  // A jump may still be from the ground: none was since it was left.
  bool jump_waits = false;     // The press at since_jump_press is remembered, and nothing has used it yet.
  bool first_jump_used = false;  // Since landing.
  bool jump_cut = false;         // The button was let go while rising, or a ceiling was met.
  Buttons held;
  StateId state = StateId::Fall;
  StateId came_from = StateId::Fall;  // The state before.

  // What the last tick did.
  bool stepped = false;
  bool carried = false;      // Moved along by the piece underfoot.
  bool crushed = false;      // Still in overlap: no way out was found.
  std::uint16_t slides = 0;  // Planes met.
  float snapped = 0.0f;      // m moved down (or up) to stay on the ground.
  float carried_yaw = 0.0f;  // rad that look and body were turned by: by the piece underfoot, or in place.
  float penetration = 0.0f;  // m that the capsule was inside a solid when the tick began; it was pushed out.

  Vec3 up_C() const { return frame_CB * Vec3(0.0, 1.0, 0.0); }
  // Unit, against the pull, which the body may still be turning to; where the world says nothing of that, the
  // body's.
  Vec3 judged_up_C() const { return unit_or(-Vec3(pull_C), up_C()); }
  bool grounded() const { return ground.verdict == Verdict::Walkable; }
  bool lying() const { return lie_length > 0.0f; }
  bool holding() const { return hold.kind != Hold::Kind::None; }
};

static_assert(std::is_trivially_copyable_v<CharacterState>);
// Each copy costs 6 ns more for 96 bytes more, and an hour at 60 ticks/s 20 MB.
static_assert(sizeof(CharacterState) <= 680);

// Returns a state at rest at `home`, as tall as the profile, looking level along the home's yaw: standing
// where there is walkable ground right under the foot at `time`, else in the air.
CharacterState start_state(const Profile& profile, const Home& home, const World& world, double time = 0.0);

// The same, in the air wherever it is: what is underfoot is only known after the first tick.
CharacterState start_state(const Profile& profile, const Home& home);

// Returns the axis of the capsule of `radius` and `height` that stands on `foot_C`.
// REQUIRES: height >= 2 radius, up_C is unit.
inline Segment capsule_axis(const Vec3& foot_C, const Vec3& up_C, double radius, double height) {
  return {foot_C + up_C * radius, foot_C + up_C * (height - radius)};
}

// The same of a character, upright or lying. Lying, the axis runs from the feet to the head along the body's
// facing, its middle one radius above the foot.
Segment capsule_axis(const CharacterState& state, double radius);

// Returns the unit direction of the look at `yaw` (and `pitch`) in the course frame.
Vec3 look_direction(const Quat& frame_CB, double yaw, double pitch);

}  // namespace lagniappe
