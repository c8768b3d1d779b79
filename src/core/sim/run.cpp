// SPDX-License-Identifier: MIT
#include "lagniappe/run.h"
#include "lagniappe/states.h"

#include <algorithm>

#include "sim/examination.h"

namespace lagniappe {
namespace {

constexpr double kLongestMemory = 2.0;  // s: no examination looks further back.
constexpr std::size_t kTicksPerReport = 1024;

}  // namespace

Run::Run(const CharacterState& start, int tick_rate) : tick_rate_(tick_rate) {
  states_.push_back(start);
  events_.push_back({});
}

void Run::pass(const InputFrame& input, const CharacterState& after, const Ledger& ledger,
               const Profile& profile) {
  Examination(*this, input, states_.back(), after, ledger, profile).examine();
  states_.push_back(after);
}

void Run::drop_time(double seconds) {
  findings_.push_back({Finding::Kind::DroppedTime, ticks(), ticks(), seconds});
}

std::size_t Run::memory_bytes() const {
  return states_.memory_bytes() + events_.memory_bytes() + touches_.capacity() * sizeof(Touch) +
         findings_.capacity() * sizeof(Finding);
}

std::optional<std::size_t> Run::next(Event event, std::size_t tick) const {
  for (std::size_t i = tick + 1; i <= ticks(); ++i) {
    if (begins(event, i)) return i;
  }
  return std::nullopt;
}

std::optional<std::size_t> Run::previous(Event event, std::size_t tick) const {
  for (std::size_t i = std::min(tick, ticks() + 1); i-- > 1;) {
    if (begins(event, i)) return i;
  }
  return std::nullopt;
}

DriveSummary Run::summarize(std::size_t first, std::size_t last) const {
  SummaryMeter meter(states_[first], tick_rate_);
  for (std::size_t i = first + 1; i <= last; ++i) meter.pass(states_[i - 1], states_[i]);
  return meter.summary();
}

RunSummary Run::summarize() const {
  RunSummary summary{summarize(0, ticks())};
  for (std::size_t i = 1; i <= ticks(); ++i) {
    summary.landings += begins(Event::Landing, i);
    summary.refused_steps += begins(Event::StepRefused, i);
    summary.jumps += begins(Event::Jump, i);
  }
  for (const Finding& finding : findings_) {
    if (finding.kind == Finding::Kind::Stuck) summary.stuck_seconds += finding.amount;
  }
  summary.end_C = last().foot_C;
  summary.end_state = last().state;
  return summary;
}

void Run::truncate(std::size_t tick) {
  states_.truncate(tick + 1);
  events_.truncate(tick + 1);
  std::erase_if(touches_, [&](const Touch& t) { return t.first > tick; });
  std::erase_if(findings_, [&](const Finding& f) { return f.last > tick; });
  watch_ = {};
  // Those that the last tick belongs to go on if the next one touches the same.
  for (std::uint32_t i = 0; i < touches_.size(); ++i) {
    if (touches_[i].last >= tick) watch_.open_touches.push_back(i);
    touches_[i].last = std::min(touches_[i].last, tick);
  }
}

std::optional<Run> run_take(const Take& take, const World& world, const Progress& progress) {
  Run run(take.start, take.tick_rate);
  Ledger ledger;
  auto drop = take.dropped.begin();
  for (std::size_t i = 0; i < take.inputs.size(); ++i) {
    for (; drop != take.dropped.end() && drop->after_tick <= i; ++drop) run.drop_time(drop->seconds);
    ledger.entries.clear();
    run.pass(take.inputs[i],
             step(run.last(), take.inputs[i], take.profile, world, 1.0 / take.tick_rate, &ledger), ledger,
             take.profile);
    const bool report = progress && i % kTicksPerReport == 0;
    if (report && !progress(static_cast<double>(i) / static_cast<double>(take.inputs.size())))
      return std::nullopt;
  }
  return run;
}

Run run_until(const Run& run, const Take& take, const World& world, std::size_t tick) {
  const auto memory = static_cast<std::size_t>(kLongestMemory * run.tick_rate());
  const std::size_t from = tick > memory ? tick - memory : 0;
  Run again = run;
  again.truncate(from);
  Ledger ledger;
  for (std::size_t i = from; i < tick; ++i) {
    ledger.entries.clear();
    again.pass(take.inputs[i],
               step(again.last(), take.inputs[i], take.profile, world, 1.0 / take.tick_rate, &ledger), ledger,
               take.profile);
  }
  return again;
}

Ledger ledger_of(const Run& run, const Take& take, const World& world, std::size_t tick) {
  Ledger ledger;
  step(run.state(tick - 1), take.inputs[tick - 1], take.profile, world, 1.0 / take.tick_rate, &ledger);
  return ledger;
}

std::optional<std::size_t> first_difference(const Run& run, const Take& take) {
  const std::size_t count = std::min(run.ticks(), take.hashes.size());
  for (std::size_t i = 0; i < count; ++i) {
    if (part_hashes(run.state(i + 1), take.parts) != take.hashes[i]) return i + 1;
  }
  const std::size_t undivided = std::min(run.ticks(), take.undivided_hashes.size());
  for (std::size_t i = 0; i < undivided; ++i) {
    if (undivided_hash(run.state(i + 1)) != take.undivided_hashes[i]) return i + 1;
  }
  return std::nullopt;
}

void keep_hashes(const Run& run, Take& take) {
  // What it was recorded with stays its proof.
  if (std::max(take.hashes.size(), take.undivided_hashes.size()) == run.ticks()) return;
  take.undivided_hashes.clear();
  if (take.parts != present_parts()) take.hashes.clear();
  take.parts = present_parts();
  take.hashes.reserve(run.ticks());
  for (std::size_t i = take.hashes.size(); i < run.ticks(); ++i)
    take.hashes.push_back(part_hashes(run.state(i + 1), take.parts));
}

Take retake_of(const Take& take, const Profile& profile, std::shared_ptr<const Course> course,
               std::uint64_t course_identity, const World& world, int tick_rate) {
  Take other = take;
  other.profile = profile;
  other.profile_identity = identity_of(profile);
  other.course_identity = course_identity;
  other.inputs = inputs_at_rate(take.inputs, take.tick_rate, tick_rate);
  other.tick_rate = tick_rate;
  other.parts = present_parts();
  other.hashes.clear();
  other.undivided_hashes.clear();
  const auto at_rate = [&](std::uint64_t tick) {
    return tick * static_cast<std::uint64_t>(tick_rate) / static_cast<std::uint64_t>(take.tick_rate);
  };
  for (DroppedTime& drop : other.dropped) drop.after_tick = at_rate(drop.after_tick);
  other.devices.clear();
  for (const DeviceUse& use : take.devices) note_device(other.devices, at_rate(use.from_tick), use.device);
  CharacterState& start = other.start;
  start = fitted_to(profile, take.profile, start);
  if (other.course_identity != take.course_identity) {
    // Pieces may have other numbers: what is underfoot is found anew.
    const Home at{start.foot_C, start.frame_CB, start.yaw};
    start.ground = start_state(profile, at, world, start.time).ground;
  }
  other.course = std::move(course);
  return other;
}

}  // namespace lagniappe
