// SPDX-License-Identifier: MIT
#include "lagniappe/remedy.h"

#include <fmt/format.h>

#include <cmath>

#include "lagniappe/profile_fields.h"
#include "lagniappe/states.h"
#include "lagniappe/step.h"

namespace lagniappe {
namespace {

std::string path_behind_mantle(entry::MantleRefused::Why why) {
  using Why = entry::MantleRefused::Why;
  switch (why) {
    case Why::OutOfReach:
      return "mantle.reach";
    case Why::TooHigh:
      return "mantle.highest";
    case Why::ShelfTooSteep:
      return "ground.steepest_walkable";
    case Why::NoRoom:
    case Why::Overhead:
      return "stances.crouched_height";
    case Why::NoLanding:
      return "mantle.deepest_landing";
    case Why::SlipsOff:
      return "ground.longest_overhang";
    default:
      return {};
  }
}

// The value that a refusal goes by; empty where there is none. What helps is more of it, but for treads and the
// crouched height.
std::string path_behind(const LedgerEntry& refused, const CharacterState& before) {
  if (const auto* step = std::get_if<entry::Step>(&refused)) {
    using Outcome = entry::Step::Outcome;
    if (step->outcome == Outcome::TooHigh)
      return before.grounded() ? "ground.highest_step" : "air.highest_step";
    if (step->outcome == Outcome::ShortTread) return "ground.shortest_tread";
    if (step->outcome == Outcome::NotWalkable) return "ground.steepest_walkable";
  }
  if (const auto* jump = std::get_if<entry::JumpRefused>(&refused)) {
    using Why = entry::JumpRefused::Why;
    if (jump->why == Why::NoGround) return jump->since_grounded < 1e6 ? "jump.coyote_time" : "jump.air_jumps";
    if (jump->why == Why::AirJumpsUsed) return "jump.air_jumps";
    if (jump->why == Why::Skidding) return "jump.from_skid";
  }
  if (const auto* mantle = std::get_if<entry::MantleRefused>(&refused)) return path_behind_mantle(mantle->why);
  return {};
}

bool is_same_refusal(const LedgerEntry& a, const LedgerEntry& b) {
  if (!is_refusal(a) || a.index() != b.index()) return false;
  const auto *step_a = std::get_if<entry::Step>(&a), *step_b = std::get_if<entry::Step>(&b);
  return step_a == nullptr || step_a->piece == step_b->piece;
}

// What files have of a unit.
double resolution(Unit unit) {
  if (unit == Unit::Count) return 1.0;
  return unit == Unit::Degrees || unit == Unit::DegreesPerSecond ? 0.1 : 0.001;
}

class Search {
 public:
  Search(const LedgerEntry& refused, const CharacterState& before, const InputFrame& input,
         const Profile& profile, const World& world, double dt, std::string path)
      : refused_(refused),
        before_(before),
        input_(input),
        profile_(profile),
        world_(world),
        dt_(dt),
        path_(path) {
    const auto& own = chart_of(profile).state(before.state).overrides;
    const ProfileField* field = find_field(path_);
    const ProfileChoice* choice = find_choice(path_);
    is_own_ = std::any_of(own.begin(), own.end(), [&](const ResolvedOverride& o) {
      return (field != nullptr && o.field == field) || (choice != nullptr && o.choice_field == choice);
    });
  }

  bool is_own() const { return is_own_; }

  std::optional<double> enough() const {
    const Values now = chart_of(profile_).values_in(before_.state, profile_);
    if (const ProfileChoice* choice = find_choice(path_)) {
      const int other = 1 - choice->get(now);
      return choice->words.empty() && suffices(other) ? std::optional(double(other)) : std::nullopt;
    }
    const ProfileField& field = *find_field(path_);
    const double present = field.typed(now);
    const bool less = path_ == "ground.shortest_tread" || path_ == "stances.crouched_height";
    const double end = less ? field.low : field.high, unit = resolution(field.unit);
    // Away from what it is, farther and farther: much too much of it may be refused for another reason.
    double refused = present;
    for (double way = unit; refused != end; way *= 2.0) {
      const double tried = end > present ? std::min(present + way, end) : std::max(present - way, end);
      if (suffices(tried)) return nearest(refused, tried, unit);
      refused = tried;
    }
    return std::nullopt;
  }

 private:
  bool suffices(double value) const {
    Ledger ledger;
    step(before_, input_, with(value), world_, dt_, &ledger);
    // Onto what is stepped within the tick, it matters not how often that was tried.
    const auto* tried = std::get_if<entry::Step>(&refused_);
    const auto is_taken = [&](const LedgerEntry& e) {
      const auto* taken = std::get_if<entry::Step>(&e);
      return taken != nullptr && tried != nullptr && taken->piece == tried->piece && !is_refusal(e);
    };
    return std::any_of(ledger.entries.begin(), ledger.entries.end(), is_taken) ||
           std::none_of(ledger.entries.begin(), ledger.entries.end(),
                        [&](const LedgerEntry& e) { return is_same_refusal(e, refused_); });
  }

  Profile with(double value) const {
    Profile changed = profile_;
    if (is_own_) {
      StateTable table = chart_of(profile_).table();
      auto& own = table.states[static_cast<std::size_t>(before_.state)].overrides;
      std::erase_if(own, [&](const Override& o) { return o.path == path_; });
      Override mine;
      mine.path = path_;
      mine.number = value;
      own.push_back(mine);
      if (auto chart = StateChart::make(std::move(table))) changed.states = *chart;
    } else if (const ProfileChoice* choice = find_choice(path_)) {
      choice->set(changed, static_cast<int>(value));
    } else {
      find_field(path_)->set_typed(changed, value);
    }
    return changed;
  }

  // Between what is refused and what is enough: what is just enough, on the grid of `unit`.
  double nearest(double refused, double enough, double unit) const {
    constexpr int kHalvings = 40;
    const bool more = enough > refused;
    for (int i = 0; i < kHalvings && std::abs(enough - refused) > 0.01 * unit; ++i) {
      const double middle = 0.5 * (refused + enough);
      (suffices(middle) ? enough : refused) = middle;
    }
    const double steps = more ? std::ceil(enough / unit - 1e-6) : std::floor(enough / unit + 1e-6);
    const double rounded = steps * unit;
    return suffices(rounded) ? rounded : rounded + (more ? unit : -unit);
  }

  const LedgerEntry& refused_;
  const CharacterState& before_;
  const InputFrame& input_;
  const Profile& profile_;
  const World& world_;
  double dt_;
  std::string path_;
  bool is_own_ = false;
};

}  // namespace

std::optional<Remedy> remedy_of(const LedgerEntry& refused, const CharacterState& before,
                                const InputFrame& input, const Profile& profile, const World& world,
                                double dt) {
  const std::string path = is_refusal(refused) ? path_behind(refused, before) : "";
  if (path.empty()) return std::nullopt;
  const Search search(refused, before, input, profile, world, dt, path);
  return Remedy{path, search.enough(), search.is_own() ? std::optional(before.state) : std::nullopt};
}

std::string to_sentence(const Remedy& remedy) {
  if (!remedy.enough) return "no value of it would have been enough here";
  if (const ProfileChoice* choice = find_choice(remedy.path))
    return fmt::format("\u201c{}\u201d would have been enough",
                       choice->words.empty() && *remedy.enough != 0.0 ? "yes" : "no");
  const ProfileField& field = *find_field(remedy.path);
  const int digits = field.unit == Unit::Count ? 0 : field.is_angle() ? 1 : 3;
  const std::string_view unit = text_of(field.unit);
  return fmt::format("{:.{}f}{}{} would have been enough", *remedy.enough, digits, unit.empty() ? "" : " ",
                     unit);
}

}  // namespace lagniappe
