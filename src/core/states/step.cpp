// SPDX-License-Identifier: MIT
// One tick, in parts: up to the next event it is moved by what was, from there on by what is then. An event is
// the instant of a press or of a stick that moves, of landing or leaving, of other ground, of another way of
// moving.
#include "lagniappe/step.h"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <limits>

#include "lagniappe/handling.h"
#include "lagniappe/turns.h"
#include "motion/footing.h"
#include "motion/footing_change.h"
#include "motion/input_edges.h"
#include "motion/look.h"
#include "motion/moving.h"
#include "motion/reach.h"
#include "motion/upright.h"
#include "motion/velocity_log.h"
#include "motion/wall_contact.h"
#include "motion/zones.h"
#include "states/advance.h"
#include "states/barred.h"
#include "world/neighbourhood.h"

namespace lagniappe {
namespace {

// Parts of a stretch between two presses; what would end the last one waits for its end.
constexpr int kMostParts = 12;
// s that a part lasts at most while one slips off a rim: over the round of the foot the way bends.
constexpr double kSlipTime = 1.0 / 120.0;
// s that a part lasts at least: what happens sooner happens at its beginning.
constexpr double kShortestPart = 1e-5;
// s beyond a contact, so that rounding does not keep it from being met.
constexpr double kIntoContact = 2e-9;
// s after that, so that rounding does not keep it from being there.
constexpr double kIntoEvent = 4e-6;
// s to which the parts of a way that bends beside a wall are halved.
constexpr double kShortestBend = 1.0 / 1920.0;
// s that one flies under one pull of a place: it changes on the way, and is felt at the middle of that time.
constexpr double kLongestFall = 1.0 / 60.0;
// Share of the capsule's radius that is gone over without a look at what is underfoot.
constexpr double kBlindShare = 0.5;

using Why = entry::Instant::Why;

// The way of moving of one state against another's: whether the instant of the change is felt.
bool moves_otherwise(const StateChart::State& a, const StateChart::State& b) {
  const bool own = facts_of(a.behaviour).own_way || facts_of(b.behaviour).own_way;
  if (a.behaviour != b.behaviour && own) return true;
  return a.stance != b.stance || !a.overrides.empty() || !b.overrides.empty();
}

class Tick {
 public:
  // Moves `state`, which is `before` when it begins. All must outlive the tick.
  Tick(const CharacterState& before, const InputFrame& input, const Profile& profile, const World& world,
       double dt, Ledger* ledger, CharacterState& state)
      : before_(before),
        whole_input_(input),
        input_(input),
        profile_(profile),
        chart_(chart_of(profile)),
        world_(world),
        dt_(dt),
        end_(before.time + dt),
        ledger_(ledger),
        values_(chart_.values_in(before.state, profile)),
        values_of_(before.state),
        region_(neighbourhood_of({input, values_, world, dt, nullptr, {}}, before)),
        near_(world, region_, end_),
        state_(state),
        world_pulls_(world.surroundings(before.foot_C, before.time).gravity.has_value()) {}

  void go();
  // The zone that puts home whom the tick moved; kNoZone without.
  ZoneId sent_home_by() const { return sent_home_by_; }

 private:
  // Where the tick is: what a part begins with, and goes back to when it is split.
  struct Place {
    CharacterState state;
    PassMemory memory;
    std::size_t entries;
  };
  Place place() const { return {state_, memory_, ledger_ != nullptr ? ledger_->entries.size() : 0}; }
  void go_back(const Place& place);

  void begin();
  void set_look(double share);
  void take_input(const InputEdges& edges, double share);
  double longest_stretch();
  double longest_fall(double seconds) const;
  void go_until(double time);
  double part(double& until, bool may_split);
  std::optional<double> part_from(const Place& from, double until, bool may_split);
  void run(double until, Ledger* ledger, bool may_stop);
  void pass(bool before_motion, Ledger* ledger);
  // Between these two times something begins.
  struct Between {
    double low, high;
  };
  std::optional<Between> ground_event(const Place& from, double until);
  template <typename Happened>
  Between first_instant(const Place& from, Between between, double within, const Happened& happened);
  const Values& values_in_force();
  std::optional<Between> zone_event(const Place& from, double until);
  StepContext context_of(const World& world, double seconds, Ledger* ledger, const Moment& now);
  bool meet(const CharacterState& from);
  void obey_zones();
  void feel(double ahead);
  void tell_pull();
  void end();

  const CharacterState& before_;
  const InputFrame& whole_input_;
  InputFrame input_;  // As it is at the instant.
  const Profile& profile_;
  const StateChart& chart_;
  const World& world_;
  double dt_, end_;
  Ledger* ledger_;
  Values values_;
  StateId values_of_;
  Box region_;
  Neighbourhood near_;
  CharacterState& state_;
  PassMemory memory_;
  ZoneId sent_home_by_ = kNoZone;
  double pace_ = 1.0;  // What the zones make of speeds, and which states they bar.
  std::uint64_t barred_ = 0;
  bool world_pulls_;  // It says what does, and where to.
  Felt felt_ = {};    // Since the last look at that, where and when that was.
  Vec3 felt_at_C_ = Vec3(0.0);
  double felt_time_ = -1.0;
  Stop stop_{};         // Of the last run.
  bool rolls_ = false;  // Round the end of a wall, in stretches.
  // s of a part beside a wall where its way bends: grows again, part by part.
  double straight_ = std::numeric_limits<double>::infinity();
  Vec3 pressed_C_ = Vec3(0.0);  // The wall that is pushed against in the air; zero without.
};

const Values& Tick::values_in_force() {
  if (values_of_ != state_.state) values_ = chart_.values_in(state_.state, profile_);
  values_of_ = state_.state;
  return values_;
}

// Looks at what pulls where the character is, or will be `ahead` s from now by its velocity. In the air the
// middle of a part is what makes the part exact to second order: with what pulls there taken as even, going
// half the way, being pulled, and going on is the rule of Verlet, which keeps orbits.
void Tick::feel(double ahead) {
  values_in_force();
  if (!world_pulls_) return;
  const Vec3 at = centre_of_mass(values_, state_) + state_.velocity_C * ahead;
  const double own = chart_.gravity_in(state_.state, profile_), time = state_.time + ahead;
  if (at != felt_at_C_ || time != felt_time_ || own != felt_.own_gravity)
    felt_ = lagniappe::feel(world_, at, time, own);
  felt_at_C_ = at;
  felt_time_ = time;
  values_.gravity = own;
  felt_.apply(values_);
  if (ahead == 0.0) state_.pull_C = felt_.up_C != Vec3(0.0) ? felt_.pull_C : Vec3(0.0);
}

void Tick::go_back(const Place& place) {
  state_ = place.state;
  memory_ = place.memory;
  if (ledger_ != nullptr) ledger_->entries.resize(place.entries, entry::Snap{});
}

void Tick::begin() {
  state_.slides = 0;
  state_.stepped = state_.carried = false;
  state_.snapped = state_.penetration = state_.carried_yaw = 0.0f;
  // From here to the end of the tick the velocity is against the piece underfoot.
  state_.velocity_C -= state_.ground_velocity_C;
  set_look(0.0);
}

// Where that is the instant at which it is set.
void Tick::set_look(double share) {
  if (!whole_input_.look || share_of(whole_input_.look_at) != share) return;
  const Vec2 look = turned_look(*whole_input_.look, Vec2(0.0), values_.look);
  state_.yaw = look.x;
  state_.pitch = look.y;
}

// Buttons, sticks and look as they are from `share` of the tick on.
void Tick::take_input(const InputEdges& edges, double share) {
  const SticksUntil sticks = sticks_at(whole_input_, share);
  if (share > 0.0 && sticks.move != input_.move && ledger_ != nullptr)
    ledger_->entries.emplace_back(entry::Instant{Why::Stick, share * dt_});
  input_.move = sticks.move;
  input_.turn_rate = sticks.turn_rate;
  if (share > 0.0) set_look(share);
  input_.held = edges.held_at(share);
  input_.pressed = edges.pressed_at(share);
  memory_.held_before = state_.held;
  memory_.presses_count = true;
  memory_.inputs_are_settled = false;
  memory_.used_presses.bits &= ~input_.pressed.bits;
  if (input_.pressed.has(Action::Jump)) memory_.jumped = false;
}

StepContext Tick::context_of(const World& world, double seconds, Ledger* ledger, const Moment& now) {
  StepContext context{input_, values_, world, seconds, ledger, now};
  const BehaviourFacts& facts = facts_of(chart_.state(state_.state).behaviour);
  context.throws = facts.held_by_world || chart_.state(state_.state).behaviour == Behaviour::Float;
  context.pace = pace_;
  context.barred = barred_;
  context.felt = felt_;
  return context;
}

void Tick::pass(bool before_motion, Ledger* ledger) {
  feel(0.0);
  const StepContext context = context_of(near_, dt_, ledger, Moment{state_.time});
  TablePass table(profile_, chart_, context, before_, values_, state_, memory_);
  before_motion ? table.before_motion() : table.after_motion();
  values_of_ = state_.state;
}

void Tick::run(double until, Ledger* ledger, bool may_stop) {
  stop_ = Stop{kShortestPart};
  stop_.rolls = rolls_;
  stop_.known_C = pressed_C_;
  const auto run_in = [&](const World& world) {
    const double seconds = until - state_.time;
    feel(held_by_ground(state_) || state_.holding() ? 0.0 : 0.5 * seconds);
    StepContext context = context_of(world, seconds, ledger, Moment{until});
    context.share = seconds / dt_;
    context.stop = may_stop ? &stop_ : nullptr;
    TablePass table(profile_, chart_, context, before_, values_, state_, memory_);
    advance(context, table, state_);
    values_of_ = state_.state;
    if (!world_pulls_) return;
    felt_at_C_ = centre_of_mass(values_, state_);
    felt_time_ = state_.time;
    felt_ = turn_upright(context, state_);
  };
  if (until == end_ || !world_.has_movers()) return run_in(near_);
  run_in(Neighbourhood(world_, region_, until));
}

template <typename Happened>
Tick::Between Tick::first_instant(const Place& from, Between between, double within, const Happened& happened) {
  auto& [low, high] = between;
  while (high - low > within) {
    const double middle = 0.5 * (low + high);
    state_ = from.state;
    memory_ = from.memory;
    run(middle, nullptr, true);
    (happened() ? high : low) = middle;
  }
  return between;
}

// When within a part what is underfoot becomes something else, for who stands or skids.
std::optional<Tick::Between> Tick::ground_event(const Place& from, double until) {
  if (!held_by_ground(from.state)) return std::nullopt;
  const auto change = [&] {
    const FootingChange footing = footing_change(world_, from.state, state_, stop_);
    if (footing.other || !held_by_ground(state_)) return footing;
    const bool lifts = air_lifts(context_of(world_, dt_, nullptr, Moment{state_.time}), state_, 0.0);
    return lifts ? FootingChange{true, kEventTime} : footing;
  };
  const auto changed = [&] { return change().other; };
  const double way = length(stop_.way_C), begin = from.state.time;
  const int looks = static_cast<int>(std::min(way / (kBlindShare * values_.capsule.radius), 8.0)) + 1;
  const FootingChange at_the_end = change();
  if (looks == 1 && !at_the_end.other) return std::nullopt;
  const Place whole = place();
  std::optional<Between> found;
  double low = begin;
  for (int i = 1; i <= looks && !found; ++i) {
    const double time = i < looks ? begin + (until - begin) * i / looks : until;
    if (i < looks) {
      state_ = from.state;
      memory_ = from.memory;
      run(time, nullptr, true);
    }
    const FootingChange here = i < looks ? change() : at_the_end;
    if (here.other) found = first_instant(from, {low, time}, here.within, changed);
    low = time;
  }
  state_ = whole.state;
  memory_ = whole.memory;
  return found;
}

// When within a part a zone is entered or left.
std::optional<Tick::Between> Tick::zone_event(const Place& from, double until) {
  const double radius = values_.capsule.radius;
  const auto changed = [&] { return zones_change(world_, radius, from.state, state_); };
  if (!changed()) return std::nullopt;
  const Place whole = place();
  const Between found = first_instant(from, {from.state.time, until}, kEventTime, changed);
  state_ = whole.state;
  memory_ = whole.memory;
  return found;
}

// What the zones that are touched ask of all that follows.
void Tick::obey_zones() {
  pace_ = pace_in_zones(world_, state_);
  barred_ = barred_states(world_, chart_, state_);
}

// Returns whether the zones did something, after the way from a state.
bool Tick::meet(const CharacterState& from) {
  values_in_force();
  feel(0.0);
  const ZonesMet met = meet_zones(context_of(near_, dt_, ledger_, Moment{state_.time}), from, state_);
  if (sent_home_by_ == kNoZone) sent_home_by_ = met.sends_home;
  if (!met.any) return false;
  obey_zones();
  memory_.inputs_are_settled = false;
  return true;
}

// Goes to `until` or to the event before it, and through the table there. Returns when that was. Where the way
// bends beside a wall `until` is brought nearer.
double Tick::part(double& until, bool may_split) {
  const Place from = place();
  for (;;) {
    if (const auto reached = part_from(from, until, may_split)) return *reached;
    go_back(from);
    straight_ = 0.5 * (until - from.state.time);
    until = from.state.time + straight_;
  }
}

// Nothing where the way bends.
std::optional<double> Tick::part_from(const Place& from, double until, bool may_split) {
  double to = until;
  std::optional<Why> why;
  const auto shorten = [&](double time, Why because) {
    if (time >= to - kShortestPart) return;
    to = std::max(time, from.state.time + kShortestPart);
    why = because;
  };
  // Just before an event on the ground it still is what it was: from there the last bit is gone.
  double still = from.state.time;
  const auto go = [&] {
    if (still > state_.time && still < to) run(still, ledger_, true);
    run(to, ledger_, may_split);
    return from.state.time + stop_.at;
  };
  const auto tell = [&] {
    if (why && ledger_ != nullptr) ledger_->entries.emplace_back(entry::Instant{*why, to - before_.time});
  };
  if (may_split) {
    const double left = until - state_.time;
    shorten(state_.time + until_support_falls(world_, values_in_force(), state_, left), Why::Support);
  }
  const double contact = go();
  if (may_split && stop_.bends && until - from.state.time > kShortestBend) return std::nullopt;
  if (may_split && contact < to) {
    shorten(contact + kIntoContact, Why::Contact);
  } else if (may_split) {
    if (const auto between = ground_event(from, to)) {
      shorten(between->high + kIntoEvent, Why::Ground);
      still = std::min(between->low, to);
    }
  }
  if (may_split) {
    if (const auto between = zone_event(from, to)) shorten(between->high + kIntoEvent, Why::Zone);
    still = std::min(still, to);
  }
  if (state_.time != to || still > from.state.time) {
    go_back(from);
    go();
  }
  tell();
  const bool met = meet(from.state);
  pass(false, ledger_);
  // Landing without a contact is by the touch that counts as one, at the end.
  const bool landed = !from.state.holding() && !held_by_ground(from.state) && held_by_ground(state_);
  if (!may_split || why || met || landed || state_.state == from.state.state ||
      !moves_otherwise(chart_.state(from.state.state), chart_.state(state_.state)))
    return to;
  shorten(first_instant(
              from, {from.state.time, to}, kEventTime,
              [&] {
                pass(false, nullptr);
                return state_.state != from.state.state;
              }).high +
              kIntoEvent,
          Why::State);
  go_back(from);
  go();
  tell();
  meet(from.state);
  pass(false, ledger_);
  return to;
}

// s for which one may go on without a look at how the way bends.
double Tick::longest_stretch() {
  if (state_.ground.verdict == Verdict::Tipping) return kSlipTime;
  const World& now = world_.has_movers() ? world_ : static_cast<const World&>(near_);
  StepContext context{input_, values_in_force(), now, dt_, nullptr, Moment{state_.time}};
  context.felt = felt_;
  const double seconds = until_wall_turns(context, rolls_, state_);
  rolls_ = std::isfinite(seconds);
  return seconds;
}

// An even share of these seconds, so that rounding leaves no rest.
double Tick::longest_fall(double seconds) const {
  if (!world_pulls_ || held_by_ground(state_) || state_.holding()) return seconds;
  return seconds / std::max(std::ceil(seconds / kLongestFall - 1e-6), 1.0);
}

void Tick::go_until(double time) {
  for (int parts = 1; state_.time < time;) {
    const double again = std::max(until_thrown_again(world_, state_) + kIntoEvent, kShortestPart);
    double until = std::min({time, state_.time + std::min(longest_stretch(), straight_),
                             state_.time + longest_fall(time - state_.time), state_.time + again});
    if (parts == kMostParts && ledger_ != nullptr)
      ledger_->entries.emplace_back(entry::Instant{Why::Waits, state_.time - before_.time});
    const double to = part(until, parts < kMostParts);
    parts += to < until;
    straight_ *= 2.0;
    if (stop_.pressed_C != Vec3(0.0)) pressed_C_ = stop_.pressed_C;
    input_.pressed = {};
    memory_.presses_count = false;
    // A jump that was asked for a little while ago begins where it may.
    if (to < time) pass(true, ledger_);
  }
  state_.held = input_.held;
}

void Tick::tell_pull() {
  if (!world_pulls_ || ledger_ == nullptr) return;
  feel(0.0);
  entry::Pulled told{felt_.up_C != Vec3(0.0) ? felt_.pull_C : Vec3(0.0), -1.0, {}, 0};
  if (state_.ground.verdict != Verdict::None && felt_.up_C != Vec3(0.0))
    told.off_ground = angle_between(felt_.up_C, state_.ground.normal_C);
  told.count = static_cast<int>(world_.field_shares(centre_of_mass(values_, state_), state_.time, told.shares));
  ledger_->entries.emplace_back(told);
}

void Tick::go() {
  begin();
  tell_pull();
  state_.zones.entered = 0;
  meet(state_);
  obey_zones();
  const InputEdges edges(whole_input_, before_.held);
  for (int i = 0; i < edges.count(); ++i) {
    take_input(edges, edges.share(i));
    pass(true, ledger_);
    go_until(i + 1 < edges.count() ? before_.time + edges.share(i + 1) * dt_ : end_);
  }
  end();
}

void Tick::end() {
  state_.velocity_C += state_.ground_velocity_C;
  for (std::size_t i = 0; i < state_.since_press.size(); ++i) {
    const bool pressed = whole_input_.pressed.has(static_cast<Action>(i));
    const double ago = (1.0 - (pressed ? share_of(whole_input_.pressed_at[i]) : 0.0)) * dt_;
    state_.since_press[i] = pressed ? static_cast<float>(ago) : state_.since_press[i] + static_cast<float>(dt_);
  }
  ++state_.tick;
}

CharacterState put_home(const StepContext& context, const CharacterState& state, const Vec3& velocity_C,
                        const Profile& profile, const entry::Reset& why) {
  context.note(why);
  CharacterState home = start_state(profile, state.home, context.world, context.now.time);
  home.tick = state.tick + 1;
  home.times_put_home = state.times_put_home + 1;
  home.held = context.input.held;
  tell_change(context, entry::Change::Why::Reset, home.velocity_C - velocity_C);
  return home;
}

}  // namespace

CharacterState step(const CharacterState& before, const InputFrame& input, const Profile& profile,
                    const World& world, double dt, Ledger* ledger) {
  assert(dt > 0.0 && dt <= 0.1 + kTouch);
  const StepContext whole{input, profile, world, dt, ledger, Moment{before.time + dt}};
  if (input.pressed.has(Action::Reset)) return put_home(whole, before, before.velocity_C, profile, {false});
  CharacterState state = before;
  Tick tick(before, input, profile, world, dt, ledger, state);
  tick.go();
  const bool out = !world.limits().contains(state.foot_C);
  const ZoneId zone = out ? kNoZone : tick.sent_home_by();
  if (out || zone != kNoZone) {
    CharacterState from = before;
    from.home = state.home;  // A checkpoint may have moved it.
    state = put_home(whole, from, state.velocity_C, profile, {out, zone});
  }
  return state;
}

}  // namespace lagniappe
