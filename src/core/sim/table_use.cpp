// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <algorithm>
#include <random>

#include "lagniappe/step.h"
#include "lagniappe/table_use.h"
#include "states/guards.h"

namespace lagniappe {
namespace {

using Kind = TableFinding::Kind;

constexpr double kFlicker = 0.2;            // s.
constexpr std::size_t kTicksAtMark = 1500;  // Of a random drive.
constexpr std::size_t kBetweenReports = 2048;
constexpr std::size_t kEnough = 600;  // Ticks under which "never" and "always" say nothing.

// Counts a drive tick by tick.
class Counter {
 public:
  Counter(const Profile& profile, const World& world, int tick_rate)
      : use(chart_of(profile)), chart_(chart_of(profile)), world_(world), rate_(tick_rate) {
    values_.reserve(chart_.size());
    for (std::size_t i = 0; i < chart_.size(); ++i) values_.push_back(chart_.values_in(StateId(i), profile));
  }

  // What comes does not go on from what was.
  void begin() {
    last_ = {};
    tick_ = input_changed_ = changed_ = left_ = 0;
  }

  void pass(const CharacterState& before, const InputFrame& input, const CharacterState& after,
            const Ledger& ledger) {
    ++tick_;
    ++use.ticks;
    ++use.ticks_in[index(after.state)];
    if (input.held != last_.held || input.move != last_.move || input.pressed.bits != 0) input_changed_ = tick_;
    last_ = input;
    ask_guards(before, input);
    for (const LedgerEntry& e : ledger.entries) note(e);
  }

  TableUse use;

 private:
  std::size_t index(StateId id) const { return std::min(static_cast<std::size_t>(id), chart_.size() - 1); }

  // As the pass before the motion sees them, each for itself.
  void ask_guards(const CharacterState& before, const InputFrame& input) {
    const double dt = 1.0 / rate_;
    SignalView view{before, before, input, values_[index(before.state)], world_, dt, {before.time + dt}};
    std::string error;
    for (const StateChart::Transition& t : chart_.state(before.state).leaving) {
      ++use.rows[t.row].asked;
      use.rows[t.row].held += t.guard->holds(view, error);
    }
  }

  void note(const LedgerEntry& e) {
    use.loops += std::holds_alternative<entry::StateLoop>(e);
    use.script_failures += std::holds_alternative<entry::ScriptFailed>(e);
    const auto* change = std::get_if<entry::StateChange>(&e);
    if (change == nullptr) return;
    const std::size_t from = index(change->from), to = index(change->to);
    ++use.changes;
    ++use.entered[to];
    if (change->row >= 0) ++use.rows[static_cast<std::size_t>(change->row)].fired[from];
    const bool back = changed_ > 0 && to == left_ && double(tick_ - changed_) <= kFlicker * rate_;
    if (back && input_changed_ < changed_) ++use.flickers[from][to];
    changed_ = tick_;
    left_ = from;
  }

  const StateChart& chart_;
  const World& world_;
  int rate_;
  std::vector<Values> values_;  // In force, by state.
  InputFrame last_;
  std::size_t tick_ = 0, input_changed_ = 0, changed_ = 0, left_ = 0;
};

// What a restless player does: pushes some way for a while, holds and presses this and that, looks about.
// Numbers straight from the generator, since what the library makes of them differs between machines.
class RandomPlayer {
 public:
  RandomPlayer(std::uint64_t seed, int tick_rate) : random_(seed), rate_(tick_rate) {}

  InputFrame next() {
    input_.pressed = {};
    if (--push_left_ <= 0) push();
    if (--hold_left_ <= 0) hold();
    input_.look_delta = Vec2(turn_ / rate_, 0.0);
    return input_;
  }

 private:
  double share() { return static_cast<double>(random_() >> 11) * 0x1p-53; }
  int ticks(double least, double most) { return std::max(1, int((least + (most - least) * share()) * rate_)); }

  void push() {
    const double angle = 2.0 * 3.14159265358979 * share();
    const double size = share() < 0.25 ? 0.0 : share() < 0.3 ? share() : 1.0;
    input_.move = share() < 0.5 ? Vec2(0.0, size) : Vec2(std::sin(angle), std::cos(angle)) * size;
    turn_ = share() < 0.5 ? 0.0 : 4.0 * (share() - 0.5);
    push_left_ = ticks(0.1, 1.5);
  }

  void hold() {
    Buttons held;
    for (const Action a :
         {Action::Jump, Action::Sprint, Action::Crouch, Action::Lie, Action::Climb, Action::Fly}) {
      const double chance = a == Action::Fly ? (flies_ ? 0.6 : 0.02) : a == Action::Lie ? 0.06 : 0.35;
      held.set(a, share() < chance);
    }
    input_.pressed.bits = held.bits & ~input_.held.bits;
    input_.held = held;
    flies_ = flies_ != input_.pressed.has(Action::Fly);
    hold_left_ = ticks(0.05, 0.9);
  }

  std::mt19937_64 random_;
  int rate_;
  InputFrame input_;
  double turn_ = 0.0;
  bool flies_ = false;
  int push_left_ = 0, hold_left_ = 0;
};

}  // namespace

TableUse::TableUse(const StateChart& chart)
    : ticks_in(chart.size()),
      entered(chart.size()),
      rows(chart.table().transitions.size(), Row{0, 0, std::vector<std::size_t>(chart.size())}),
      flickers(chart.size(), std::vector<std::size_t>(chart.size())) {}

std::size_t TableUse::Row::fired_in_all() const {
  std::size_t sum = 0;
  for (const std::size_t n : fired) sum += n;
  return sum;
}

void TableUse::add(const TableUse& other) {
  const auto add_all = [](std::vector<std::size_t>& to, const std::vector<std::size_t>& from) {
    for (std::size_t i = 0; i < to.size(); ++i) to[i] += from[i];
  };
  ticks += other.ticks, changes += other.changes;
  loops += other.loops, script_failures += other.script_failures;
  add_all(ticks_in, other.ticks_in);
  add_all(entered, other.entered);
  for (std::size_t i = 0; i < rows.size(); ++i) {
    rows[i].asked += other.rows[i].asked;
    rows[i].held += other.rows[i].held;
    add_all(rows[i].fired, other.rows[i].fired);
  }
  for (std::size_t i = 0; i < flickers.size(); ++i) add_all(flickers[i], other.flickers[i]);
}

std::vector<Firing> firings_of(const Run& run, const Take& take, const World& world, std::size_t first) {
  std::vector<Firing> firings;
  for (std::size_t tick = std::max<std::size_t>(first, 1); tick <= run.ticks(); ++tick) {
    if (!run.events(tick).has(Event::StateChange)) continue;
    for (const LedgerEntry& e : ledger_of(run, take, world, tick).entries) {
      const auto* change = std::get_if<entry::StateChange>(&e);
      if (change == nullptr) continue;
      const auto row = change->row < 0 ? std::nullopt : std::optional(static_cast<std::size_t>(change->row));
      firings.push_back({tick, change->from, change->to, row});
    }
  }
  return firings;
}

TableUse use_of(const Run& run, const Take& take, const World& world, const Progress& progress) {
  Counter counter(take.profile, world, run.tick_rate());
  for (std::size_t tick = 1; tick <= run.ticks(); ++tick) {
    if (progress && tick % kBetweenReports == 0 && !progress(double(tick) / double(run.ticks()))) break;
    const bool changed = run.events(tick).has(Event::StateChange);
    counter.pass(run.state(tick - 1), take.inputs[tick - 1], run.state(tick),
                 changed ? ledger_of(run, take, world, tick) : Ledger{});
  }
  return std::move(counter.use);
}

TableUse drive_randomly(const Profile& profile, std::span<const Home> homes, const World& world,
                        const RandomDrive& drive, const Progress& progress) {
  Counter counter(profile, world, drive.tick_rate);
  RandomPlayer player(drive.seed, drive.tick_rate);
  CharacterState state;
  Ledger ledger;
  for (std::size_t tick = 0; tick < drive.ticks; ++tick) {
    if (tick % kTicksAtMark == 0) {
      state = start_state(profile, homes[tick / kTicksAtMark % homes.size()], world);
      counter.begin();
    }
    if (progress && tick % kBetweenReports == 0 && !progress(double(tick) / double(drive.ticks))) break;
    const InputFrame input = player.next();
    ledger.entries.clear();
    const CharacterState before = state;
    state = step(before, input, profile, world, 1.0 / drive.tick_rate, &ledger);
    counter.pass(before, input, state, ledger);
  }
  return std::move(counter.use);
}

std::vector<TableFinding> findings_of(const TableUse& use, const StateChart& chart) {
  std::vector<TableFinding> found;
  const auto name = [&](std::size_t i) { return std::string(chart.name_of(StateId(i))); };
  for (std::size_t i = 0; i < chart.size(); ++i) {
    if (use.ticks_in[i] == 0 && use.entered[i] == 0)
      found.push_back({Kind::NeverEntered, StateId(i), {}, {}, fmt::format("{} was never entered.", name(i))});
  }
  for (std::size_t row = 0; row < use.rows.size(); ++row) {
    const TableUse::Row& r = use.rows[row];
    const std::string called = transition_name(chart, row);
    const bool judged = r.asked >= kEnough && (r.held == 0 || r.held == r.asked);
    const bool never = judged && r.held == 0 && r.fired_in_all() == 0;  // Not even after the motion.
    if (r.fired_in_all() == 0 && !never)
      found.push_back({Kind::NeverFired,
                       {},
                       {},
                       row,
                       r.asked == 0
                           ? fmt::format("{} was never asked.", called)
                           : fmt::format("{} never fired; its guard was asked in {} ticks and held in {}.",
                                         called, r.asked, r.held)});
    if (!judged || (r.held == 0 && !never)) continue;
    found.push_back(
        {never ? Kind::NeverHolds : Kind::AlwaysHolds,
         {},
         {},
         row,
         fmt::format("The guard of {} {} held, in {} ticks.", called, never ? "never" : "always", r.asked)});
  }
  for (std::size_t a = 0; a < chart.size(); ++a) {
    for (std::size_t b = a + 1; b < chart.size(); ++b) {
      const std::size_t times = use.flickers[a][b] + use.flickers[b][a];
      if (times == 0) continue;
      found.push_back({Kind::Flickers,
                       StateId(a),
                       StateId(b),
                       {},
                       fmt::format("{} and {} flickered {} without new input.", name(a), name(b),
                                   times == 1 ? "once" : fmt::format("{} times", times))});
    }
  }
  if (use.loops > 0)
    found.push_back({Kind::Loops,
                     {},
                     {},
                     {},
                     fmt::format("In {} ticks transitions would have led round in a circle.", use.loops)});
  return found;
}

}  // namespace lagniappe
