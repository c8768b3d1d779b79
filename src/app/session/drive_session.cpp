// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/drive_session.h"

#include <cmath>

namespace lagniappe::app {

void DriveSession::set_place(std::shared_ptr<const Place> place) {
  place_ = std::move(place);
  current_ = start_state(profile_, start_home(place_->course), place_->world);
  previous_ = current_;
  last_dt_ = 0.0;
  turned_ = Vec2(0.0);
  pressed_ = {};
  follow(std::nullopt);
  clock_.clear();
}

void DriveSession::begin_at(const Mark& mark) {
  if (!place_) return;
  const std::uint32_t times_put_home = current_.times_put_home;
  current_ = start_state(profile_, {mark.at_C, Quat(1, 0, 0, 0), mark.facing}, place_->world, current_.time);
  current_.times_put_home = times_put_home + 1;  // No picture between there and here.
  previous_ = current_;
  last_dt_ = 0.0;
  follow(std::nullopt);
}

void DriveSession::set_profile(const Profile& profile) {
  profile_ = profile;
  if (!place_) return;
  current_.capsule_height = previous_.capsule_height = profile.capsule.height;
}

void DriveSession::push(Push direction, bool down) { pushed_[static_cast<std::size_t>(direction)] = down; }

void DriveSession::hold(Action action, bool down) {
  if (down && !held_.has(action)) pressed_.set(action, true);
  held_.set(action, down);
}

void DriveSession::turn_by(const Vec2& mouse_counts) { turned_ += mouse_look(profile_.look, mouse_counts); }

void DriveSession::release_all() {
  pushed_ = {};
  held_ = {};
  pressed_ = {};
}

void DriveSession::follow(std::optional<InputScript> script, double seconds) {
  player_.reset();
  script_.reset();
  if (!script) return;
  script_ = std::make_shared<const InputScript>(std::move(*script));
  player_ = std::make_unique<InputPlayer>(*script_, tick_rate());
  script_ticks_left_ = std::lround(seconds * tick_rate());
}

InputFrame DriveSession::take_input() {
  if (player_ && script_ticks_left_-- <= 0) follow(std::nullopt);
  if (player_) return player_->next();
  const auto axis = [&](Push positive, Push negative) {
    return double(pushed_[static_cast<std::size_t>(positive)]) -
           double(pushed_[static_cast<std::size_t>(negative)]);
  };
  InputFrame input;
  input.move = Vec2(axis(Push::Right, Push::Left), axis(Push::Forward, Push::Back));
  input.look_delta = turned_;
  input.held = held_;
  input.pressed = pressed_;
  turned_ = Vec2(0.0);
  pressed_ = {};
  return input;
}

void DriveSession::tick() {
  const double dt = clock_.tick_seconds();
  last_input_ = take_input();
  last_dt_ = dt;
  previous_ = current_;
  current_ = step(previous_, last_input_, profile_, place_->world, dt);
}

void DriveSession::advance(double real_seconds) {
  if (!place_ || paused_) return;
  for (int due = clock_.advance(real_seconds * time_scale_); due > 0; --due) tick();
}

void DriveSession::single_tick() {
  if (place_) tick();
}

void DriveSession::set_tick_rate(int rate) {
  if (rate == tick_rate()) return;
  clock_.set_tick_rate(rate);
  follow(std::nullopt);
}

double DriveSession::drawn_blend() const {
  // A paused session shows the tick it stands on.
  return paused_ || drawing_ == Drawing::AsTicked ? 1.0 : clock_.blend();
}

Pose DriveSession::pose() const { return interpolate(previous_, current_, drawn_blend()); }

Moment DriveSession::moment() const {
  return {previous_.time + (current_.time - previous_.time) * drawn_blend()};
}

Vec2 DriveSession::look() const { return drawn_look(current_, turned_, profile_.look, drawn_blend()); }

Ledger DriveSession::last_ledger() const {
  Ledger ledger;
  if (place_ && last_dt_ > 0.0) step(previous_, last_input_, profile_, place_->world, last_dt_, &ledger);
  return ledger;
}

}  // namespace lagniappe::app
