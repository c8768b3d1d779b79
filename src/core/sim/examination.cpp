// SPDX-License-Identifier: MIT
#include "sim/examination.h"

#include <algorithm>
#include <cmath>

#include "lagniappe/states.h"

namespace lagniappe {
namespace {

constexpr double kFlickerTime = 0.2;                      // s.
constexpr double kMissedJumpTime = 0.2;                   // s before landing, or after leaving the ground.
constexpr double kStuckTime = 0.5;                        // s.
constexpr double kStuckShare = 0.05;                      // Of the wished way; less is hardly moving.
constexpr double kSmallestMove = 0.01;                    // m/s; less is at rest.
constexpr double kSmallestIntent = 0.5;                   // m/s; who asks for less is not stuck.
constexpr double kJerkRate = radians(200.0);              // rad/s.
constexpr double kOneJerk = 0.25;                         // s between two turns that are felt as one.
constexpr double kSmallestPop = 0.04;                     // m.
constexpr double kShortestSmoothing = 0.02;               // s; a shorter time constant is not seen as smooth.
constexpr double kDeepPushOut = 0.02;                     // m.
constexpr double kLossShare = 0.08, kSmallestLoss = 0.3;  // Of the speed; m/s.
constexpr double kSmallestLeft = 1e-3;                    // m of a way.
constexpr double kSameDirection = 0.95;                   // Cosine.

template <typename... Cases>
struct Overloaded : Cases... {
  using Cases::operator()...;
};
template <typename... Cases>
Overloaded(Cases...) -> Overloaded<Cases...>;

// From the nearest point of the segment.
Vec3 way_from_segment(const Vec3& p, const Vec3& a, const Vec3& b) {
  const Vec3 ab = b - a;
  const double square = length_squared(ab);
  const double t = square > 0.0 ? std::clamp(dot(p - a, ab) / square, 0.0, 1.0) : 0.0;
  return p - a - ab * t;
}

}  // namespace

Examination::Examination(Run& run, const InputFrame& input, const CharacterState& before,
                         const CharacterState& after, const Ledger& ledger, const Profile& profile)
    : run_(run),
      watch_(run.watch_),
      input_(input),
      before_(before),
      after_(after),
      ledger_(ledger),
      profile_(profile),
      tick_(run.states_.size()),
      dt_(1.0 / run.tick_rate()) {}

std::size_t Examination::ticks_of(double seconds) const {
  return static_cast<std::size_t>(std::ceil(seconds / dt_ - 1e-9));
}

void Examination::add(Finding finding) { run_.findings_.push_back(finding); }

void Examination::touch(PieceId piece) {
  if (piece == kNoPiece) return;
  for (const std::uint32_t i : watch_.open_touches) {
    if (run_.touches_[i].piece != piece) continue;
    run_.touches_[i].last = tick_;
    return;
  }
  watch_.open_touches.push_back(static_cast<std::uint32_t>(run_.touches_.size()));
  run_.touches_.push_back({piece, tick_, tick_});
}

// One that is told again in the next tick goes on.
void Examination::add_once(Finding::Kind kind, StateId state, const std::string& note) {
  for (auto f = run_.findings_.rbegin(); f != run_.findings_.rend(); ++f) {
    if (f->kind != kind || f->note != note || f->state != state) continue;
    if (tick_ - f->last > ticks_of(kFlickerTime)) break;
    f->last = tick_;
    return;
  }
  add({kind, tick_, tick_, 0.0, kNoPiece, state, note});
}

void Examination::close_touches() {
  std::erase_if(watch_.open_touches, [&](std::uint32_t i) { return run_.touches_[i].last < tick_; });
}

void Examination::read_ledger() {
  // Events and touches are said in the rows; here is what only findings ask for.
  const auto read = Overloaded{
      [&](const entry::Carry& e) { took_speed_ |= e.blocked; },
      [&](const entry::Push&) { took_speed_ = true; },
      [&](const entry::PushOut&) { took_speed_ = true; },
      [&](const entry::Intent& e) { intent_C_ = e.velocity_C; },
      [&](const entry::Landed& e) { landing_loss_ = std::max(e.before - e.after, 0.0), landed_at_ = e.before; },
      [&](const entry::Slide& e) { took_speed_ |= e.kind != entry::Slide::Kind::Along; },
      [&](const entry::StateLoop& e) { add_once(Finding::Kind::StateLoop, e.from, {}); },
      [&](const entry::Exhausted& e) {
        if (e.left < kSmallestLeft) return;
        add_once(Finding::Kind::Exhausted, after_.state, {});
        run_.findings_.back().amount = std::max(run_.findings_.back().amount, e.left);
      },
      [&](const entry::ScriptFailed& e) { add_once(Finding::Kind::ScriptFailed, after_.state, e.what); },
      [&](const entry::LieHeld&) { took_speed_ = held_back_ = true; },
      [&](const entry::RimHeld&) { took_speed_ = held_back_ = true; },
      [](const auto&) {},
  };
  for (const LedgerEntry& entry : ledger_.entries) {
    touch(touched_piece(entry));
    add_events(entry, before_, events_);
    std::visit(read, entry);
  }
  if (after_.grounded()) events_.set(Event::OnGround);
  if (after_.grounded() && !before_.grounded()) events_.set(Event::Landing);
  if (!after_.grounded() && before_.grounded()) events_.set(Event::LeftGround);
}

void Examination::find_flicker() {
  const bool state_changed = after_.state != before_.state;
  const bool ground_changed = after_.grounded() != before_.grounded();
  const auto since = [&](std::size_t change) { return static_cast<double>(tick_ - change) * dt_; };
  const bool asked = within(watch_.input_changed, 2.0 * kFlickerTime) || events_.has(Event::Jump) ||
                     events_.has(Event::PutHome);
  if (state_changed && !asked && after_.state == watch_.state_before &&
      within(watch_.state_changed, kFlickerTime)) {
    add({Finding::Kind::Flicker, watch_.state_changed, tick_, since(watch_.state_changed), kNoPiece,
         before_.state});
  } else if (ground_changed && !state_changed && !asked && within(watch_.ground_changed, kFlickerTime)) {
    add({Finding::Kind::Flicker, watch_.ground_changed, tick_, since(watch_.ground_changed),
         after_.ground.piece, after_.state});
  }
  if (state_changed) {
    // A jump was asked for: what follows it is no way back.
    watch_.state_before = events_.has(Event::Jump) ? after_.state : before_.state;
    watch_.state_changed = tick_;
  }
  if (ground_changed) watch_.ground_changed = tick_;
}

void Examination::find_stuck() {
  const Vec3 up = after_.up_C();
  const Vec3 moved = across(after_.foot_C - before_.foot_C - after_.ground_velocity_C * dt_, up);
  // Who is kept from a rim is told so in the ledger.
  const bool stuck = !held_back_ && length(intent_C_) >= kSmallestIntent &&
                     length(moved) < kStuckShare * length(intent_C_) * dt_;
  if (!stuck) {
    watch_.stuck_since = 0;
    return;
  }
  // Who turns on the spot wishes for another way all the time, and is not stuck.
  if (watch_.stuck_since == 0 || dot(intent_C_, watch_.stuck_intent_C) <= 0.0) {
    watch_.stuck_since = tick_;
    watch_.stuck_intent_C = intent_C_;
  }
  const std::size_t ticks = tick_ - watch_.stuck_since + 1;
  const double seconds = static_cast<double>(ticks) * dt_;
  if (ticks == ticks_of(kStuckTime)) {
    const PieceId piece = run_.touches_.empty() ? kNoPiece : run_.touches_.back().piece;
    add({Finding::Kind::Stuck, watch_.stuck_since, tick_, seconds, piece, after_.state});
  } else if (ticks > ticks_of(kStuckTime)) {
    for (auto f = run_.findings_.rbegin(); f != run_.findings_.rend(); ++f) {
      if (f->kind != Finding::Kind::Stuck) continue;
      f->last = tick_;
      f->amount = seconds;
      return;
    }
  }
}

void Examination::find_stuck_in_air() {
  const Vec3 moved = after_.foot_C - before_.foot_C;
  const bool held = facts_of(chart_of(profile_).state(after_.state).behaviour).held_by_world;
  if (!held || after_.ground.verdict != Verdict::None || length(moved) > kSmallestMove * dt_) {
    watch_.rests_in_air = 0;
    return;
  }
  if (watch_.rests_in_air++ < ticks_of(kStuckTime)) return;
  add_once(Finding::Kind::StuckInAir, after_.state, {});
  if (!run_.touches_.empty()) run_.findings_.back().piece = run_.touches_.back().piece;
}

// A pop is what neither the velocities before and after nor the eye's smoothing explain of the drawn motion.
void Examination::find_pop() {
  if (events_.has(Event::PutHome) || events_.has(Event::Pushed) || events_.has(Event::PushOut)) return;
  const bool smooth = profile_.smoothing.time >= kShortestSmoothing;
  const double kept = smooth ? std::exp(-dt_ / profile_.smoothing.time) : 1.0;
  const auto jumped_at = [&](double height) {
    const Vec3 went = after_.foot_C + after_.up_C() * height - before_.foot_C - before_.up_C() * height;
    return way_from_segment(went, before_.velocity_C * dt_, after_.velocity_C * dt_);
  };
  Vec3 jumped = jumped_at(0.0);
  // A body that turns against the pull does so about its foot or its centre of mass: that stays.
  if (after_.frame_CB != before_.frame_CB) {
    const Vec3 middle = jumped_at(profile_.capsule.centre_of_mass);
    if (length(middle) < length(jumped)) jumped = middle;
  }
  // What is left at the tick's end of what the eye was set back by in it, at its end or sooner.
  const Vec3 left = smooth ? after_.up_C() * (after_.eye_offset - before_.eye_offset * kept) : Vec3(0.0);
  // Where a flight begins or ends, what gravity did within the tick lies outside of both velocities.
  const double pull = std::max(profile_.gravity, length(Vec3(after_.pull_C)));
  const double bend = 0.5 * pull * dt_ * dt_;
  // Nor is it one that legs are drawn up or let down there.
  const double stance = std::abs(after_.capsule_height - before_.capsule_height);
  const double jump = length(way_from_segment(-jumped, left, left / kept)) -
                      (before_.grounded() && after_.grounded() ? 0.0 : bend + stance);
  if (jump > kSmallestPop) add({Finding::Kind::Pop, tick_, tick_, jump, after_.ground.piece, after_.state});
}

void Examination::find_speed_loss() {
  if (landing_loss_ > std::max(kSmallestLoss, kLossShare * landed_at_) &&
      length(intent_C_) >= landed_at_ - 0.01)
    return add({Finding::Kind::SpeedLoss, tick_, tick_, landing_loss_, after_.ground.piece, after_.state});
  const bool plain =
      before_.grounded() && after_.grounded() && before_.state == after_.state &&
      facts_of(chart_of(profile_).state(after_.state).behaviour).place == BehaviourFacts::Place::Ground &&
      length_squared(after_.wall_normal_C) == 0.0;
  if (!plain || took_speed_) return;
  // From one piece to another both are against the one that bears now: stepping onto what goes along loses
  // nothing.
  const bool same_piece = before_.ground.piece == after_.ground.piece;
  const Vec3 from = before_.velocity_C - (same_piece ? before_ : after_).ground_velocity_C,
             to = after_.velocity_C - after_.ground_velocity_C;
  const double speed = length(from), wished = length(intent_C_);
  const double loss = speed - length(to);
  const bool wanted_on = wished >= speed - 0.01 && dot(intent_C_, from) > kSameDirection * wished * speed;
  if (wanted_on && loss > std::max(kSmallestLoss, kLossShare * speed))
    add({Finding::Kind::SpeedLoss, tick_, tick_, loss, after_.ground.piece, after_.state});
}

void Examination::find_deep_push_out() {
  if (after_.penetration <= kDeepPushOut) return;
  if (!run_.findings_.empty()) {
    Finding& before = run_.findings_.back();
    if (before.kind == Finding::Kind::DeepPushOut && before.last + 1 == tick_) {
      before.last = tick_;
      before.amount = std::max(before.amount, double(after_.penetration));
      return;
    }
  }
  PieceId piece = kNoPiece;
  for (const LedgerEntry& entry : ledger_.entries) {
    if (const auto* out = std::get_if<entry::PushOut>(&entry)) piece = out->piece;
  }
  add({Finding::Kind::DeepPushOut, tick_, tick_, after_.penetration, piece, after_.state});
}

// By the body alone: what the hand turned it meant. One finding from where it begins to where it is over.
void Examination::find_view_jerk() {
  if (events_.has(Event::PutHome)) return;
  const Vec3 was = before_.up_C(), is = after_.up_C();
  const double rate = std::atan2(length(cross(was, is)), dot(was, is)) / dt_;
  if (rate < kJerkRate) return;
  const auto open = std::find_if(run_.findings_.rbegin(), run_.findings_.rend(), [&](const Finding& f) {
    return f.kind == Finding::Kind::ViewJerk && f.last + ticks_of(kOneJerk) >= tick_;
  });
  if (open == run_.findings_.rend()) {
    Finding jerk{Finding::Kind::ViewJerk, tick_, tick_, rate, after_.ground.piece, after_.state};
    jerk.at_C = after_.foot_C;
    return add(std::move(jerk));
  }
  open->last = tick_;
  if (rate <= open->amount) return;
  open->amount = rate;
  open->at_C = after_.foot_C;
}

void Examination::find_missed_jump() {
  if (events_.has(Event::Jump) || events_.has(Event::PutHome)) {
    watch_.jump_pressed = 0;
    return;
  }
  if (input_.pressed.has(Action::Jump)) {
    // On the ground it is the state that does not take it.
    watch_.jump_pressed = before_.grounded() ? 0 : tick_;
    watch_.ground_left_for = before_.may_jump_late ? before_.since_grounded : -1.0;
  }
  if (watch_.jump_pressed == 0) return;
  const double age = static_cast<double>(tick_ - watch_.jump_pressed) * dt_;
  // One more tick after landing: that is when a remembered press is used.
  const bool landed = before_.grounded() && after_.grounded() && tick_ > watch_.jump_pressed;
  const bool late = watch_.ground_left_for >= 0.0 && watch_.ground_left_for <= kMissedJumpTime;
  const Finding missed = {
      Finding::Kind::MissedJump, watch_.jump_pressed, watch_.jump_pressed, 0.0, kNoPiece, after_.state};
  if (landed) {
    if (age - dt_ <= kMissedJumpTime) add(missed), run_.findings_.back().amount = -(age - dt_);
    watch_.jump_pressed = 0;
  } else if (age > kMissedJumpTime) {
    if (late) add(missed), run_.findings_.back().amount = watch_.ground_left_for;
    watch_.jump_pressed = 0;
  }
}

void Examination::examine() {
  const bool buttons = input_.held != before_.held || input_.pressed.bits != 0;
  if (buttons || input_.move != watch_.move || tick_ == 1) watch_.input_changed = tick_;
  watch_.move = input_.move;
  read_ledger();
  find_flicker();
  find_stuck();
  find_stuck_in_air();
  find_pop();
  find_speed_loss();
  find_deep_push_out();
  find_view_jerk();
  find_missed_jump();
  close_touches();
  run_.events_.push_back(events_);
}

}  // namespace lagniappe
