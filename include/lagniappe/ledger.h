// SPDX-License-Identifier: MIT
// The ordered list of what the solver did within one tick, with the numbers and the reason for each verdict.
// Attach one to step(); with none attached nothing is recorded and nothing is spent.
#pragma once

#include <memory>
#include <string>
#include <variant>
#include <vector>

#include "lagniappe/character_state.h"

namespace lagniappe {

class StateChart;

// What a contact is to a character: walked on; borne by but skidded down; a wall, that is slid along; what ends
// a rise. By its angle to up and the profile's limits.
enum class ContactKind : std::uint8_t { Ground, Steep, Wall, Ceiling };
inline constexpr std::array<std::string_view, 4> kContactKindNames = {"ground", "steep", "wall", "ceiling"};

// Lengths in metres, speeds in metres per second, angles in radians, vectors in the course frame.
namespace entry {

struct Reset {
  bool out_of_limits;
  ZoneId zone = kNoZone;
};  // Put back home: by request, because the limits were left, or by a zone.
struct ZoneEntered {
  ZoneId zone;
};
struct ZoneLeft {
  ZoneId zone;
};
struct Thrown {  // By a launch.
  ZoneId zone;
  Vec3 from_C, velocity_C;  // m/s, against the course.
  Vec3 to_C;                // The mark that it leads to, and what lies on the way: with `aimed` only.
  double apex, seconds;
  bool aimed, terminal;
};
struct ThrowWaits {  // Who holds on to something, or flies freely, is not thrown.
  ZoneId zone;
};
struct HomeMoved {  // By a checkpoint.
  ZoneId zone;
  Vec3 foot_C;
};
struct BarredFrom {  // A state that a zone bars: it was not entered, or left.
  ZoneId zone;
  StateId state;
  bool left;
  std::shared_ptr<const StateChart> chart;
};
struct PushOut {
  double depth;
  bool crushed;
  PieceId piece;
};
struct Carry {  // Taken along by the moving piece underfoot.
  PieceId piece;
  Vec3 shift_C;
  double yaw;
  bool blocked;
};
struct Push {  // Moved out of the way of a piece that came.
  PieceId piece;
  Vec3 shift_C;
  Vec3 point_C, normal_C;
  bool blocked;
};
struct Intent {
  Vec3 velocity_C;         // Against what is underfoot, along it; in the air against the air.
  double share;            // Of the full speed, in [0, 1].
  Vec3 air_C = Vec3(0.0);  // m/s of the air, as it is felt; on the ground what of it grip does not hold.
};
struct Pulled {       // What the place pulls, as the tick begins.
  Vec3 pull_C;        // m/s2.
  double off_ground;  // rad between it and the normal of the ground, turned over; negative in the air.
  std::array<FieldShare, 4> shares;
  int count;  // Of them.
};
struct Upright {  // The body was turned against the pull.
  double angle;   // rad that it was off.
  double turned;  // rad of them,
  double most;    // of at most so many rad in that time.
  bool fits;      // Else something is in the way of the rest.
};
struct RunsOff {  // Faster round the ground's curve than the pull holds: the ground is left.
  double speed;   // m/s along it,
  double most;    // of at most so many.
};
struct Gravity {  // What gravity changed the velocity by.
  Vec3 change_C;
  double gravity;  // m/s2 in force at the part's beginning: with the jump's factors, and a script's share.
  double terminal_speed;  // m/s downwards.
  double apex;            // m by which the foot will still rise; 0 when it does not.
};
struct Change {  // What else changed the velocity. Together with Gravity these sum to the tick's change.
  enum class Why : std::uint8_t {
    Intent,   // The response to what is wished for, as it is with full grip and in still air.
    Grip,     // What the surface's grip changes of that; on a skid, its friction.
    Wind,     // What moving air does.
    Carrier,  // The piece underfoot: its acceleration, turning, and what is not kept of it on leaving.
    Jump,     //
    Launch,   // A zone.
    Script,   // Actions and scripts of the table.
    Contact,  // What was met: walls, ceilings, steep faces, pieces that strike.
    Ground,   // What is underfoot at the end: landing on it, turning with it.
    Hold,     // What is held on to: the way along it, and letting go.
    Reset,    //
  } why;
  Vec3 change_C;
};
struct StateChange {
  StateId from, to;
  std::shared_ptr<const StateChart> chart = nullptr;  // Null: the built-in one.
  int row = -1;                                       // Of the transition in its table; -1: none.
};
struct StateLoop {  // The transition would have led round in a circle, or was one too many for a tick.
  StateId from, to;
  std::shared_ptr<const StateChart> chart;
  int row;
};
struct ScriptFailed {
  std::string what;  // With the place: "Walk to Glide:1: there is no signal 'wihs'".
};
struct StanceWaits {  // The capsule is not yet as the state's stance wants it, for want of room.
  enum class Why : std::uint8_t { Ceiling, Wall, Drop } why;
  double wanted, height;  // m: of the capsule; lying, its length.
  PieceId piece;
};
struct LieHeld {  // Lying, it did not turn where an end would hang over a drop or enter a wall.
  enum class Why : std::uint8_t { Drop, Wall } why;
};
struct RimHeld {         // A guard kept the character from going over a rim.
  Vec3 rim_C, inward_C;  // The nearest place of the rim; across up, unit, from there to where the ground is.
  double distance;       // m across up from the foot (lying: from its end) to the rim, before the motion.
  double least;          // m that are kept.
  double taken;          // m/s of the way over it that were taken.
  PieceId piece;         // That ends there.
};
struct JumpWouldFall {  // Where a jump that a guard refuses would have led.
  Vec3 landing_C;       // Of the foot: where it would have met ground, or was when it was followed no further.
  bool lands;
  double drop;     // m that this is lower than the take-off.
  double seconds;  // After it.
  PieceId piece;
};
struct MantleBegun {
  Vec3 rim_C, to_C;  // The rim's point; where the foot will stand.
  double height;     // m of the rim over the foot.
  double seconds;    // That it takes.
  bool vaults, crouched;
  PieceId piece;
};
struct MantleRefused {
  enum class Why : std::uint8_t {
    NothingThere,    // No wall within reach, nor a metre farther.
    OutOfReach,      // m to the wall > reach.
    TooHigh,         // m of the rim > highest; infinite where none was found.
    ShelfTooShort,   // m < shortest.
    ShelfTooSteep,   // rad > steepest.
    LeansOver,       // rad > most.
    NoRoomForHands,  // m above the rim < what hands take.
    NoRoom,          // m of head room where it would stand < a crouched body.
    Overhead,        // m that it can rise < m that it would have to.
    OnTheWay,        // m that it can go over < m that it would have to.
    NoLanding,       // m down to ground that can be stood on > deepest.
    SlipsOff,        // m that it would stand beyond an edge > longest overhang.
    State,           // There is a way; no transition of the present state takes it.
  } why;
  double found, allowed;
  Vec3 at_C;
  PieceId piece;
};
struct Caught {
  Vec3 rim_C, foot_C;  // The rim's point; where the foot will hang.
  double height;       // m of the rim over the foot, when it was caught.
  double speed;        // m/s that it had, against the piece.
  PieceId piece;
};
struct LetGo {
  enum class Why : std::uint8_t {
    NoRim,      // It is no longer there.
    TooSteep,   // rad of the shelf > steepest.
    NoRoom,     // For hands: `piece` came to the rim.
    PushedOff,  // By `piece`, which came into the body or into its way.
    NoWall,     // It is no longer there.
    Leans,      // rad of the wall > most.
    Aside,      // By itself: off a ladder, onto `piece` beside it.
  } why;
  double found, allowed;
  PieceId piece;
};
struct Gripped {
  Vec3 hands_C, foot_C;  // On the wall; where the foot will be.
  bool from_above;       // Down over a rim.
  PieceId piece;
};
struct ClimbRefused {
  enum class Why : std::uint8_t {
    Ends,          // There is no more of the wall.
    NotClimbable,  // `piece`.
    LeansBack,     // rad > most_back.
    LeansOver,     // rad > most_over.
    NoRoom,        // `piece` is in the way.
  } why;
  bool holds;  // On the way over a wall; else a press finds none to hold on to.
  double found, allowed;
  PieceId piece;
};
struct RimEnds {  // Along a rim it goes on no further.
  bool blocked;   // By `piece`; else there is no more of it.
  Vec3 at_C;
  PieceId piece;
};
struct MantleBlocked {  // On the way: it lets go where it is.
  double share;         // Of the way, when it was.
  PieceId piece;        // What is in the way.
};
struct Jump {
  enum class From : std::uint8_t { Ground, Skid, Wall, Air, Rim, Climb } from;
  int jump;  // As CharacterState::flight_of.
  double speed, height;
  double late_by;   // s after the ground was left.
  double early_by;  // s that the press was remembered for.
};
struct JumpRefused {
  enum class Why : std::uint8_t {
    NoGround,      // Not on ground, too long since, and there are no jumps in the air.
    AirJumpsUsed,  //
    Skidding,      // On ground that is too steep.
    SameWall,      // The wall was jumped off already.
    NoHeadRoom,    //
    State,         // No transition of the present state takes it.
    NoLanding,     // Guarded: it would not land on ground. See JumpWouldFall.
  } why;
  double since_grounded;  // s since the ground was left; 1e9 after a jump.
  double remembered;      // s for which the press will be remembered; 0: not.
};
struct JumpCut {
  double speed, factor;
};  // The button was let go at this rise speed; gravity times the factor ends the rise.
struct HeadBump {
  double speed, thrown_back;
};                        // A ceiling ended a rise at `speed`, and threw back this much of it.
struct Sweep {            // One sweep of collide and slide.
  Vec3 from_C, motion_C;  // Of the foot.
  double fraction;
  bool hit;  // The rest is meaningful only if it hit.
  PieceId piece;
  Vec3 point_C, normal_C;
  Feature feature;
};
struct Slide {  // What the motion left over became.
  enum class Kind : std::uint8_t { Along, Wall, Ceiling, Crease, Stop } kind;
  Vec3 plane_C;           // The normal that was used.
  Vec3 rest_C;            // What is still to be moved.
  double approach, kept;  // Angle at which the plane was run into, 0 grazing; share of speed that is left.
  ContactKind contact = ContactKind::Wall;  // What was met.
};
struct Instant {  // Within the tick something began that moves the character otherwise from there on.
  enum class Why : std::uint8_t {
    Contact,  // Ground or a wall met in the air, a ceiling met while rising, the foot of a slope; a rim's end.
    Ground,   // What is underfoot ended or became other ground.
    Support,  // The piece underfoot fell away.
    State,    // A transition that moves it otherwise.
    Zone,     // One was entered or left.
    Stick,    // It moved.
    Waits,    // Nothing, but that what else begins waits for the next press, or the end: too much has begun.
  } why;
  double at;  // s after the tick's beginning.
};
struct Exhausted {  // Sliding ended before the motion did: it made no way, or had met too many planes.
  int planes;
  double left;  // m that were not moved.
};
struct Step {  // A step was tried.
  enum class Outcome : std::uint8_t { Taken, TooHigh, NoHeadRoom, ShortTread, NotWalkable, NoGain } outcome;
  double rise, highest;  // rise: as far as it was found.
  PieceId piece;
};
struct Probe {
  double reach, gap;
  bool hit;
  Vec3 from_C;
  PieceId piece;
};
struct Judged {
  Verdict verdict;
  double angle, overhang;
  PieceId piece;
};
struct Snap {
  double distance;
};
struct Crest {
  double falls_away, limit, speed;
};  // Not followed: the ground falls away by more than the limit.
struct Landed {
  double fall;           // m/s against up.
  double before, after;  // m/s: across up, and along the ground then.
};
struct LeftGround {
  double speed;
  Vec3 inherited_C;
};  // speed: across up; inherited: from the piece that was left.

}  // namespace entry

using LedgerEntry =
    std::variant<entry::Reset, entry::Carry, entry::Push, entry::PushOut, entry::Intent, entry::StateChange,
                 entry::Jump, entry::JumpRefused, entry::Sweep, entry::Slide, entry::Step, entry::Probe,
                 entry::Judged, entry::Snap, entry::Crest, entry::LeftGround, entry::JumpCut, entry::HeadBump,
                 entry::StateLoop, entry::ScriptFailed, entry::StanceWaits, entry::LieHeld, entry::RimHeld,
                 entry::JumpWouldFall, entry::MantleBegun, entry::MantleRefused, entry::MantleBlocked,
                 entry::Caught, entry::LetGo, entry::RimEnds, entry::Gripped, entry::ClimbRefused,
                 entry::Exhausted, entry::Instant, entry::Landed, entry::Gravity, entry::Change, entry::Pulled,
                 entry::Upright, entry::RunsOff, entry::ZoneEntered, entry::ZoneLeft, entry::Thrown,
                 entry::ThrowWaits, entry::HomeMoved, entry::BarredFrom>;

struct Ledger {
  std::vector<LedgerEntry> entries;
};

inline constexpr std::array<std::string_view, 11> kChangeNames = {
    "intent", "grip", "wind", "carrier", "jump", "launch", "script", "contact", "ground", "hold", "reset"};

// m/s in the course frame by which the entry says that the velocity against the course was changed.
Vec3 velocity_change(const LedgerEntry& entry);

// Where a tick's change of velocity comes from: by cause, in the order in which each first appears.
struct VelocityPart {
  std::string_view cause;  // "gravity", or one of kChangeNames.
  Vec3 change_C;
};
std::vector<VelocityPart> velocity_parts(const Ledger& ledger);

// Returns where a tick's velocity comes from as a sentence: "velocity (0.00, 0.00, -3.90) to (0.00, -0.33,
// -3.92) m/s: gravity (+0.00, -0.33, +0.00) + intent (+0.00, +0.00, -0.02)". Parts of less than 5 mm/s are left
// out.
std::string velocity_sentence(const Vec3& before_C, const Vec3& after_C, const Ledger& ledger);

// Returns the entry as one JSON object with its `kind` first: lengths in metres, angles in degrees, pieces by
// name.
std::string to_json(const LedgerEntry& entry, const World& world);

// Returns the entry as a sentence with its numbers: "step tried: rise 0.36 m > 0.34 m allowed, refused".
std::string to_sentence(const LedgerEntry& entry, const World& world);

// Whether the entry says that something was asked for or tried and did not happen.
bool is_refusal(const LedgerEntry& entry);

}  // namespace lagniappe
