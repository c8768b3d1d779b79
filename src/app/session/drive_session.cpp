// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/drive_session.h"

#include <cmath>

namespace lagniappe::app {
namespace {

constexpr double kStillFor = 0.5;        // s without motion until a session that nobody attends rests.
constexpr double kLongestCoasting = 10;  // s until it rests anyway: it may stand on something that moves.
constexpr double kStillSpeed = 1e-3;     // m/s.
const char* const kInputsFile = "a file of inputs";

}  // namespace

void DriveSession::leave() {
  if (shown_ && open_ && left_) left_(*shown_);
  open_ = false;
}

void DriveSession::begin(const CharacterState& start, std::shared_ptr<const Place> place) {
  leave();
  shown_ = std::make_unique<Recording>(begin_recording(start, std::move(place), profile_, tick_rate()));
  shown_->take.profile_file = profile_file_;
  playhead_ = 0;
  open_ = true;
  playing_ = resting_ = false;
  still_for_ = unattended_for_ = 0.0;
  loop_.reset();
  ++revision_;
}

void DriveSession::set_place(std::shared_ptr<const Place> place) {
  const CharacterState start = start_state(profile_, start_home(place->course), place->world);
  turned_ = Vec2(0.0);
  hands_.release_buttons();
  follow(std::nullopt);
  clock_.clear();
  dropped_before_ = 0.0;
  begin(start, std::move(place));
}

void DriveSession::begin_at(const Mark& mark) {
  if (!shown_) return;
  const CharacterState& now = current();
  CharacterState start =
      start_state(profile_, home_of(shown_->place->course, mark), shown_->place->world, now.time);
  start.times_put_home = now.times_put_home + 1;  // No picture between there and here.
  follow(std::nullopt);
  begin(start, shown_->place);
}

void DriveSession::move_to(std::shared_ptr<const Place> place) {
  if (!shown_) return set_place(std::move(place));
  const CharacterState& now = current();
  CharacterState start = start_state(profile_, Home{now.foot_C, now.frame_CB, now.yaw}, place->world, now.time);
  start.home = start_home(place->course);
  start.pitch = now.pitch;
  start.times_put_home = now.times_put_home;
  follow(std::nullopt);
  begin(start, std::move(place));
}

bool DriveSession::values_are_shown() const {
  return profile_identity_ == shown_->take.profile_identity && tick_rate() == shown_->take.tick_rate;
}

void DriveSession::set_profile(const Profile& profile) {
  profile_ = profile;
  profile_identity_ = identity_of(profile);
  if (!shown_) return;
  if (shown_->run.ticks() == 0 || (live() && !values_are_shown())) {
    begin(fitted_to(profile_, shown_->take.profile, current()), shown_->place);
  }
}

void DriveSession::set_tick_rate(int rate) {
  if (rate == tick_rate()) return;
  clock_.set_tick_rate(rate);
  follow(std::nullopt);
  if (shown_ && live()) begin(current(), shown_->place);
}

void DriveSession::show(Recording recording) {
  leave();
  clock_.set_tick_rate(recording.take.tick_rate);
  clock_.clear();
  dropped_before_ = 0.0;
  follow(std::nullopt);
  release_all();
  turned_ = Vec2(0.0);
  shown_ = std::make_unique<Recording>(std::move(recording));
  playhead_ = 0;
  playing_ = false;
  resting_ = true;
  loop_.reset();
  ++revision_;
}

template <typename Do>
void DriveSession::by_hand(double since_frame, Do act) {
  const double since = since_frame * time_scale_;
  act(hands_, clock_.waiting_seconds() + since);
  if (in_frame_.state()) act(in_frame_.hands(), since);
}

void DriveSession::push(Push direction, bool down, double since_frame) {
  by_hand(since_frame, [&](HeldInput& hands, double at) { hands.push(direction, down, at); });
}

void DriveSession::hold(Action action, bool down, double since_frame) {
  by_hand(since_frame, [&](HeldInput& hands, double at) { hands.hold(action, down, at); });
}

void DriveSession::steer(const Sticks& sticks, double since_frame) {
  by_hand(since_frame, [&](HeldInput& hands, double at) { hands.steer(sticks, at); });
}

void DriveSession::turn_by(const Vec2& mouse_counts) { turned_ += mouse_look(profile_.look, mouse_counts); }

void DriveSession::release_all() {
  hands_.release_all();
  in_frame_.hands().release_all();
}

void DriveSession::follow(std::optional<InputScript> script, double seconds) {
  player_.reset();
  script_.reset();
  if (!script) return;
  script_ = std::make_shared<const InputScript>(std::move(*script));
  player_ = std::make_unique<InputPlayer>(*script_, tick_rate());
  script_ticks_left_ = std::lround(seconds * tick_rate());
}

// Of `due` ticks the first: it turns by its share of what was turned.
InputFrame DriveSession::take_input(int due) {
  if (player_ && script_ticks_left_-- <= 0) follow(std::nullopt);
  InputFrame input;
  hands_.deal(clock_.tick_seconds(), profile_.look, input);
  if (player_) return player_->next();
  if (seen_by_) sticks_in_view(*seen_by_, current().frame_CB, current().yaw, input);
  input.look_delta = turned_ / double(due);
  turned_ -= input.look_delta;
  return input;
}

// Driving on: at an open end under the same values the recording grows; else another begins that keeps what was
// before the playhead, if it can still be told under the present values.
void DriveSession::go_on_from_playhead() {
  if (playhead_ >= kMostTicks)
    return begin(fitted_to(profile_, shown_->take.profile, current()), shown_->place);
  if (open_ && playhead_ == shown_->run.ticks() && values_are_shown()) return;
  if (!values_are_shown()) return begin(fitted_to(profile_, shown_->take.profile, current()), shown_->place);
  leave();
  auto branch = std::make_unique<Recording>(
      Recording{part_of(shown_->take, 0, playhead_, shown_->take.start),
                shown_->place,
                run_until(shown_->run, shown_->take, shown_->place->world, playhead_),
                {}});
  branch->take.about = {};
  branch->take.about.recorded = now_text();
  shown_ = std::move(branch);
  open_ = true;
  loop_.reset();
  ++revision_;
}

void DriveSession::tick(int due) {
  go_on_from_playhead();
  Recording& recording = *shown_;
  const InputFrame input = take_input(due);
  ledger_.entries.clear();
  const CharacterState after = step(recording.run.last(), input, recording.take.profile, recording.place->world,
                                    clock_.tick_seconds(), &ledger_);
  const bool named = player_ != nullptr || !device_.empty();
  if (named && has_input(input, recording.take.profile))
    note_device(recording.take.devices, recording.take.inputs.size(), player_ ? kInputsFile : device_);
  recording.take.inputs.push_back(input);
  recording.run.pass(input, after, ledger_, recording.take.profile);
  playhead_ = recording.run.ticks();
}

void DriveSession::watch_rest() {
  const CharacterState& now = current();
  const bool still = now.grounded() && length(now.velocity_C) < kStillSpeed;
  still_for_ = still ? still_for_ + clock_.tick_seconds() : 0.0;
  unattended_for_ += clock_.tick_seconds();
  if (attended_ || player_) unattended_for_ = 0.0;
  resting_ = unattended_for_ > kLongestCoasting || (unattended_for_ > 0.0 && still_for_ > kStillFor);
}

bool DriveSession::advance(double real_seconds) {
  if (!shown_) return false;
  if (playing_) play_on(real_seconds * time_scale_);
  if (player_ && !paused_) resting_ = false;
  if (!live()) {
    hands_.settle();
    in_frame_.end();
    return playing_;
  }
  for (int due = clock_.advance(real_seconds * time_scale_); due > 0 && live(); --due) {
    tick(due);
    watch_rest();
  }
  chase(real_seconds * time_scale_);
  move_in_frame();
  const double dropped = clock_.dropped_seconds() - dropped_before_;
  if (dropped <= 0.0) return true;
  dropped_before_ = clock_.dropped_seconds();
  hands_.drop(dropped);
  in_frame_.hands().drop(dropped);
  shown_->take.dropped.push_back({shown_->run.ticks(), dropped});
  shown_->run.drop_time(dropped);
  return true;
}

// As far as the ticks have gone and what waits for the next; what is dropped of their time is dropped of its
// own.
void DriveSession::move_in_frame() {
  if (drawing_.method != DrawMethod::InFrame || player_ || !live()) return in_frame_.end();
  if (!in_frame_.is_of(drawn_of())) in_frame_.begin(current(), drawn_of(), hands_);
  in_frame_.go_on(current().time + clock_.waiting_seconds(), look(), seen_by_, shown_profile(),
                  shown_->place->world);
}

void DriveSession::play_on(double seconds) {
  const std::size_t first = loop_ ? loop_->first : 0, last = loop_ ? loop_->last : shown_->run.ticks();
  play_at_ += seconds * shown_->run.tick_rate();
  if (play_at_ > double(last)) {
    if (!loop_ || last <= first) {
      play(false);
      play_at_ = double(last);
    } else {
      play_at_ = double(first) + std::fmod(play_at_ - double(last), double(last - first));
    }
  }
  // A tick that is reached but for rounding is that tick.
  constexpr double kRounding = 1e-6;
  const double reached = std::max(std::ceil(play_at_ - kRounding), 0.0);
  playhead_ = std::min(static_cast<std::size_t>(reached), shown_->run.ticks());
}

void DriveSession::play(bool playing) {
  if (!shown_) return;
  playing_ = playing;
  if (!playing) return;
  resting_ = true;
  const std::size_t first = loop_ ? loop_->first : 0, last = loop_ ? loop_->last : shown_->run.ticks();
  if (playhead_ >= last || playhead_ < first) playhead_ = first;
  play_at_ = double(playhead_);
}

void DriveSession::set_playhead(std::size_t tick) {
  if (!shown_) return;
  if (live()) resting_ = true;
  playing_ = false;
  playhead_ = std::min(tick, shown_->run.ticks());
}

void DriveSession::single_tick() {
  if (!shown_) return;
  if (playing_ || playhead_ < shown_->run.ticks()) return set_playhead(playhead_ + 1);
  // Time stands still: what is held is held from its beginning.
  hands_.press_now(clock_.waiting_seconds() + 1.0);
  hands_.settle();
  if (open_) tick(1);
}

void DriveSession::tick_back() {
  if (playhead_ > 0) set_playhead(playhead_ - 1);
}

void DriveSession::set_paused(bool paused) {
  paused_ = paused;
  if (!paused && attended_) resting_ = false;
}

void DriveSession::set_attended(bool attended) {
  attended_ = attended;
  unattended_for_ = still_for_ = 0.0;
  if (!attended) return;
  resting_ = playing_ = false;
}

const CharacterState& DriveSession::previous() const {
  return shown_ ? shown_->run.state(playhead_ > 0 ? playhead_ - 1 : 0) : nowhere_;
}

double DriveSession::drawn_blend() const {
  if (drawing_.method != DrawMethod::Interpolated) return 1.0;
  if (playing_) return playhead_ == 0 ? 1.0 : 1.0 - (double(playhead_) - play_at_);
  // Where time stands still, the tick under the playhead is shown.
  return live() ? clock_.blend() : 1.0;
}

void DriveSession::set_drawing(const Drawing& drawing) {
  drawing_ = drawing;
  chaser_ = Follower(drawing.chase_rate);
  in_frame_.end();
}

// The drawn place follows what is ticked.
void DriveSession::chase(double seconds) {
  const auto of = drawn_of();
  chased_C_ = chaser_.follow(interpolate(current(), current(), 1.0).foot_C, seconds,
                             std::exchange(chased_of_, of) != of);
}

Pose DriveSession::pose() const {
  if (in_frame()) return interpolate(drawn_state(), drawn_state(), 1.0);
  Pose pose = interpolate(previous(), current(), drawn_blend());
  if (!live()) return pose;
  if (drawing_.method == DrawMethod::Ahead) pose.foot_C += current().velocity_C * clock_.waiting_seconds();
  if (drawing_.method == DrawMethod::Chase) pose.foot_C = chased_C_;
  return pose;
}

Vec3 DriveSession::exact_foot_C() const {
  if (!shown_ || !live() || clock_.waiting_seconds() <= 0.0) return current().foot_C;
  const double seconds = clock_.waiting_seconds();
  InputFrame input;
  if (player_ && !shown_->take.inputs.empty()) {
    const InputFrame& last = shown_->take.inputs.back();
    input.move = last.move;
    input.held = last.held;
  } else if (!player_) {
    HeldInput hands = hands_;
    hands.deal(seconds, profile_.look, input);
    input.look_delta = turned_;
    if (seen_by_) sticks_in_view(*seen_by_, current().frame_CB, current().yaw, input);
  }
  return step(current(), input, shown_profile(), shown_->place->world, seconds).foot_C;
}

Moment DriveSession::moment() const {
  if (in_frame()) return {drawn_state().time};
  return {previous().time + (current().time - previous().time) * drawn_blend()};
}

Vec2 DriveSession::look() const {
  Vec2 turned = turned_;
  if (live() && !player_) turned += hands_.turned(clock_.waiting_seconds(), profile_.look);
  return drawn_look(current(), turned, profile_.look, drawn_blend());
}

Ledger DriveSession::last_ledger() const { return shown_ ? ledger_at(*shown_, playhead_) : Ledger{}; }

}  // namespace lagniappe::app
