// SPDX-License-Identifier: MIT
// Words for what happened in a run.
#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "lagniappe/run.h"
#include "lagniappe/states.h"
#include "math/ascii.h"

namespace lagniappe {
namespace {

constexpr double kEventWeight = 2.0;  // m of way that a step or a snap on a piece counts as, for naming.
constexpr double kSmallestWay = 0.5;  // m; who goes less has stood.

std::string quoted(std::string_view name) {
  return name.empty() ? "no piece" : fmt::format("\u201c{}\u201d", name);
}

// "sluice-stairs-3" is told as "sluice stairs".
std::string plain(std::string_view name) {
  std::string text(name);
  std::replace_if(
      text.begin(), text.end(), [](char c) { return c == '-' || c == '_'; }, ' ');
  while (!text.empty() && (std::isdigit(static_cast<unsigned char>(text.back())) || text.back() == ' '))
    text.pop_back();
  return text.empty() ? std::string(name) : text;
}

// The place where most happened: the way walked on it, and what it took.
std::string place_of(const Run& run, const World& world) {
  std::map<std::string, double> weight;
  for (std::size_t i = 1; i <= run.ticks(); ++i) {
    const CharacterState& state = run.state(i);
    if (!state.grounded()) continue;
    const Events events = run.events(i);
    const bool busy = events.has(Event::Step) || state.snapped > 0.05 || events.has(Event::Carried);
    weight[plain(world.piece_name(state.ground.piece))] +=
        length(state.foot_C - run.state(i - 1).foot_C) + (busy ? kEventWeight : 0.0);
  }
  const auto most = std::max_element(weight.begin(), weight.end(),
                                     [](const auto& a, const auto& b) { return a.second < b.second; });
  return most == weight.end() ? "in the air" : most->first;
}

// The state with the most to it: the rarer ones, which come later in most tables, tell more than walking does.
std::string manner_of(const Run& run, const StateChart& chart) {
  std::vector<double> weight(chart.size(), 0.0);
  for (std::size_t i = 1; i <= run.ticks(); ++i) {
    const auto state = static_cast<std::size_t>(run.state(i).state);
    if (state < weight.size()) weight[state] += 1.0;
  }
  const auto airborne = [&](std::size_t i) {
    return facts_of(chart.state(StateId(i)).behaviour).place == BehaviourFacts::Place::Air;
  };
  for (std::size_t i = weight.size(); i-- > 0;) {
    if (airborne(i) || weight[i] < 0.2 * run.tick_rate()) continue;
    std::string word(chart.name_of(StateId(i)));
    word.front() = ascii::lower(word.front());
    return word;
  }
  return "stand";
}

std::string range_text(double amount) { return fmt::format("{:.0f} ms", std::abs(amount) * 1000.0); }

}  // namespace

std::string describe(const Run& run, const World& world, const Profile& profile) {
  const RunSummary summary = run.summarize();
  std::string text = place_of(run, world);
  text +=
      ", " + (summary.drive.distance < kSmallestWay ? std::string("stand") : manner_of(run, chart_of(profile)));
  if (summary.jumps > 0) text += summary.jumps == 1 ? ", 1 jump" : fmt::format(", {} jumps", summary.jumps);
  return text + (run.seconds() < 10.0 ? fmt::format(", {:.1f} s", run.seconds())
                                      : fmt::format(", {:.0f} s", run.seconds()));
}

std::vector<Vec2> path_of(const Run& run, std::size_t points) {
  std::vector<Vec2> path;
  const std::size_t count = std::min(points, run.ticks() + 1);
  for (std::size_t i = 0; i < count; ++i) {
    const std::size_t tick = count < 2 ? 0 : i * run.ticks() / (count - 1);
    path.emplace_back(run.state(tick).foot_C.x, run.state(tick).foot_C.z);
  }
  return path;
}

std::string to_sentence(const Finding& f, const World& world, const Profile& profile, int tick_rate) {
  const double seconds = static_cast<double>(f.last - f.first + 1) / tick_rate;
  const std::string piece = quoted(world.piece_name(f.piece));
  switch (f.kind) {
    case Finding::Kind::Flicker:
      if (f.piece == kNoPiece)
        return fmt::format("flicker: {} for only {}, then back as it was", name_of(f.state, profile),
                           range_text(f.amount));
      return fmt::format("flicker: the ground changed and was back as before within {}, on {}",
                         range_text(f.amount), piece);
    case Finding::Kind::Stuck:
      return fmt::format("stuck: for {:.1f} s something was wished for and the character hardly moved, at {}",
                         seconds, piece);
    case Finding::Kind::Pop:
      return fmt::format("pop: the drawn body jumped {:.0f} mm in one tick, on {}", f.amount * 1000.0, piece);
    case Finding::Kind::SpeedLoss:
      return fmt::format("speed loss: {:.2f} m/s lost in one tick on {}, and nothing in the ledger takes speed",
                         f.amount, piece);
    case Finding::Kind::DeepPushOut:
      return fmt::format("deep push-out: {:.0f} mm inside {}", f.amount * 1000.0, piece);
    case Finding::Kind::MissedJump:
      if (f.amount < 0.0)
        return fmt::format("missed jump: pressed {} before landing; the jump buffer is {}",
                           range_text(f.amount), range_text(profile.jump.buffer));
      return fmt::format("missed jump: pressed {} after leaving the ground; the coyote time is {}",
                         range_text(f.amount), range_text(profile.jump.coyote_time));
    case Finding::Kind::DroppedTime:
      return fmt::format("dropped time: {} of real time were left out, the machine could not keep up",
                         range_text(f.amount));
    case Finding::Kind::StateLoop:
      return fmt::format("state loop: from {} the transitions lead round in a circle, and were stopped",
                         name_of(f.state, profile));
    case Finding::Kind::ScriptFailed:
      return "script failed: " + f.note;
    case Finding::Kind::Exhausted:
      return fmt::format("sliding given up: {:.0f} mm of the way were left", f.amount * 1000.0);
    case Finding::Kind::ViewJerk:
      return fmt::format(
          "view jerk: up turned at up to {:.0f}\u00b0/s for {}, at ({:.2f}, {:.2f}, {:.2f}); a longer fade of "
          "the fields there, or a lower upright.turn_rate, is easier on the eye",
          degrees(f.amount), range_text(seconds), f.at_C.x, f.at_C.y, f.at_C.z);
    case Finding::Kind::StuckInAir:
      return fmt::format("at rest in the air: for {:.1f} s {} held the character up, and it is no ground",
                         seconds, piece);
  }
  return {};
}

}  // namespace lagniappe
