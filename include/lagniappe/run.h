// SPDX-License-Identifier: MIT
// A take that has been run: the state after every tick, what happened in it, and what an examination found.
#pragma once

#include <functional>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "lagniappe/blocks.h"
#include "lagniappe/drive.h"
#include "lagniappe/ledger_facts.h"
#include "lagniappe/take.h"

namespace lagniappe {

// A stretch of ticks, both included, in which a piece was touched.
struct Touch {
  PieceId piece;
  std::size_t first, last;
};

// Something that a person should look at.
struct Finding {
  enum class Kind : std::uint8_t {
    Flicker,      // State or ground changed back within 0.2 s, without a change of input.
    Stuck,        // For at least half a second something was wished for and next to nothing came of it.
    Pop,          // The drawn position jumped.
    SpeedLoss,    // On the ground, in one tick, without anything in the ledger that takes speed.
    DeepPushOut,  // A solid was entered by more than 2 cm.
    MissedJump,   // Jump was pressed a little too early or too late, without effect.
    DroppedTime,  // The machine could not keep up.
    StateLoop,    // Transitions would have led round in a circle within a tick.
    ScriptFailed,
    Exhausted,   // Sliding ended before the motion did.
    StuckInAir,  // At rest for at least half a second on what is no ground.
    ViewJerk,    // Up turned so fast that the view is torn round, by nobody's hand.
  } kind;
  std::size_t first, last;  // Ticks, both included.
  double amount;            // m, m/s, rad/s or s, as the kind has it.
  PieceId piece = kNoPiece;
  StateId state = StateId::Stand;
  std::string note = {};  // What a script said.
  Vec3 at_C = Vec3(0.0);  // The foot where a view's turning peaks.
};

std::string to_sentence(const Finding& finding, const World& world, const Profile& profile, int tick_rate);

// What a run comes to, for comparing.
struct RunSummary {
  DriveSummary drive;
  std::size_t landings = 0, refused_steps = 0, jumps = 0;
  double stuck_seconds = 0.0;
  Vec3 end_C = Vec3(0.0);
  StateId end_state = StateId::Stand;
};

class Run;

// What a run came to, row by row: the table that every comparison shows.
struct RunFigure {
  std::string_view name;     // "top speed".
  std::string_view unit;     // "m/s"; empty for counts.
  std::string_view against;  // What it is measured against, where that must be said: "course"; else empty.
  int digits;                // After the point, where there is room for them.
  double (*get)(const Run&, const RunSummary&);
};
std::span<const RunFigure> run_figures();

// Tick 0 is the start; tick k is the state after the k-th step. A copy shares all that it has in common.
class Run {
 public:
  Run(const CharacterState& start, int tick_rate);

  // Adds a tick, and examines it.
  void pass(const InputFrame& input, const CharacterState& after, const Ledger& ledger, const Profile& profile);
  void drop_time(double seconds);  // After the last tick.

  std::size_t ticks() const { return states_.size() - 1; }
  int tick_rate() const { return tick_rate_; }
  double seconds() const { return static_cast<double>(ticks()) / tick_rate_; }
  const CharacterState& state(std::size_t tick) const { return states_[tick]; }
  const CharacterState& last() const { return states_.back(); }
  Events events(std::size_t tick) const { return events_[tick]; }  // None for tick 0.
  std::span<const Touch> touches() const { return touches_; }      // In the order of `first`.
  std::span<const Finding> findings() const { return findings_; }  // In the order in which they were found.
  std::size_t memory_bytes() const;

  // Returns the next tick after (before) `tick` in which the event begins; nothing if there is none.
  std::optional<std::size_t> next(Event event, std::size_t tick) const;
  std::optional<std::size_t> previous(Event event, std::size_t tick) const;

  // Returns what ticks (first, last] came to. REQUIRES: first <= last <= ticks().
  DriveSummary summarize(std::size_t first, std::size_t last) const;
  RunSummary summarize() const;

  // Cuts everything after `tick`.
  void truncate(std::size_t tick);

 private:
  // What the examination remembers from tick to tick; all in ticks, 0 is never.
  struct Watch {
    Vec2 move = Vec2(0.0);          // The last stick.
    std::size_t input_changed = 0;  // Stick or sprint.
    std::size_t state_changed = 0, ground_changed = 0;
    StateId state_before = StateId::Stand;  // Before the last change.
    std::size_t jump_pressed = 0;           // A press that nothing has come of yet.
    double ground_left_for = 0.0;           // s, when it was pressed.
    std::size_t stuck_since = 0;
    std::size_t rests_in_air = 0;  // For how many ticks.
    Vec3 stuck_intent_C = Vec3(0.0);
    std::vector<std::uint32_t> open_touches;  // Indices of touches that the last tick belongs to.
  };
  friend class Examination;

  bool begins(Event event, std::size_t tick) const {
    return events_[tick].has(event) && !events_[tick - 1].has(event);
  }

  int tick_rate_;
  Blocks<CharacterState> states_;
  Blocks<Events> events_;
  std::vector<Touch> touches_;
  std::vector<Finding> findings_;
  Watch watch_;
};

// Returns what the take is with other values: its inputs at another rate, its start fitted to profile and
// world, whose identity the caller knows. `course` may be the take's own. The hashes are left out.
Take retake_of(const Take& take, const Profile& profile, std::shared_ptr<const Course> course,
               std::uint64_t course_identity, const World& world, int tick_rate);

// Gets the share that is done; false stops.
using Progress = std::function<bool(double share)>;

// Runs the take's inputs through its profile over `world`, with a ledger for every tick. Nothing if stopped.
std::optional<Run> run_take(const Take& take, const World& world, const Progress& progress = {});

// Returns the run as it was when `tick` had been passed. REQUIRES: run is run_take(take, world).
Run run_until(const Run& run, const Take& take, const World& world, std::size_t tick);

// Returns the ledger of a tick, had by stepping it again. REQUIRES: 1 <= tick <= run.ticks().
Ledger ledger_of(const Run& run, const Take& take, const World& world, std::size_t tick);

// The first tick whose state is not what the take's hashes say; nothing if all are, or if it has none.
std::optional<std::size_t> first_difference(const Run& run, const Take& take);
void keep_hashes(const Run& run, Take& take);  // Fills take.hashes.

// Returns what happened, for a name: "sluice stairs, sprint, 2 jumps, 12 s".
std::string describe(const Run& run, const World& world, const Profile& profile);
// Returns at most `points` points of the way, for a small picture of it.
std::vector<Vec2> path_of(const Run& run, std::size_t points = 96);

}  // namespace lagniappe
