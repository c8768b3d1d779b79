// SPDX-License-Identifier: GPL-3.0-or-later
// What is being driven, and the take that it leaves: place, values, clock, held input and playhead, without any
// widget.
//
// There is always one recording. Its open end is driven on; its playhead says which tick is shown. Time goes on
// (ticks are recorded) unless the session is paused or rests; then the playhead may be anywhere, and driving on
// from there keeps what was before it.
#pragma once

#include <array>
#include <functional>
#include <memory>
#include <optional>
#include <string>

#include "session/held_input.h"
#include "session/in_frame_body.h"
#include "session/recording.h"

namespace lagniappe::app {

// Ticks of a take, both included.
struct Stretch {
  std::size_t first, last;
  bool operator==(const Stretch&) const = default;
};

class DriveSession {
 public:
  // The eye by whose picture sticks and keys are meant; none: by the look.
  void see_by(const std::optional<Eye>& eye) { seen_by_ = eye; }

  // The four directions that keys push in.
  using Push = HeldInput::Push;

  static constexpr std::array<double, 4> kTimeScales = {1.0, 0.5, 0.25, 0.1};

  // Is called with a recording that is left for another one: the time to save it.
  void on_left(std::function<void(const Recording&)> left) { left_ = std::move(left); }

  // Puts the character at the place's start, and the place's time back to its beginning.
  void set_place(std::shared_ptr<const Place> place);
  const Place* place() const { return shown_ ? shown_->place.get() : nullptr; }
  std::shared_ptr<const Place> shared_place() const { return shown_ ? shown_->place : nullptr; }

  // The place has become another, as when its file was changed: the character goes on where it is, as a new
  // take.
  void move_to(std::shared_ptr<const Place> place);

  // Puts the character at a mark, where resets then bring it; time goes on.
  void begin_at(const Mark& mark);

  // The values to drive with. While time goes on, the character goes on with them from where it is, as a new
  // take; else the recording stays as it is.
  void set_profile(const Profile& profile);
  const Profile& profile() const { return profile_; }
  void set_profile_file(const std::string& path) { profile_file_ = path; }  // Where it comes from, for takes.

  // Shows a finished recording, from its start. It is drawn with its own values; those to drive with stay as
  // they are, but for the tick rate, which becomes its own.
  void show(Recording recording);
  const Recording& shown() const { return *shown_; }  // REQUIRES: place() is not null.
  bool has_shown() const { return shown_ != nullptr; }
  bool is_open() const { return open_; }                // The recording is still being driven.
  std::uint64_t revision() const { return revision_; }  // Another number: another recording.
  // What the shown take is called, noted and marked with.
  void set_about(const TakeAbout& about) { shown_->take.about = about; }
  void set_file(const QString& file) { shown_->file = file; }

  // The recording is over: it is handed to on_left(), and driving on makes another that goes on from it.
  void finish() { leave(); }

  // Input. Held keys hold until let go; presses last until a tick has used them.
  // `since_frame`: s of real time after the last advance(), at which the key or button went down or up.
  void push(Push direction, bool down, double since_frame = 0.0);
  void hold(Action action, bool down, double since_frame = 0.0);
  void turn_by(const Vec2& mouse_counts);  // x right, y down.
  // Sticks, raw.
  void steer(const Sticks& sticks, double since_frame = 0.0);
  // What the hands are on from now on; takes say it of the ticks in which something is done.
  void drive_with(const std::string& device) { device_ = device; }
  void release_all();
  // Follows the script from now on, at the session's own tick rate, until it is over. Empty: stop following.
  void follow(std::optional<InputScript> script, double seconds = 0.0);
  bool following() const { return script_ != nullptr; }

  // Time.
  bool advance(double real_seconds);  // As a drawn frame does. Returns whether anything goes on.
  // Forward: the next recorded tick, or, at an open end, a new one with what is held now.
  void single_tick();
  void tick_back();
  void set_paused(bool paused);
  bool paused() const { return paused_; }
  // Whether somebody drives. Without one, time stands still once the character does: the session rests.
  void set_attended(bool attended);
  bool resting() const { return resting_; }
  bool live() const { return !paused_ && !resting_; }
  // The end of it: frames that still come drive nothing on.
  void stand_still() {
    follow(std::nullopt);
    set_paused(true);
  }
  void set_time_scale(double scale) { time_scale_ = scale; }
  double time_scale() const { return time_scale_; }
  void set_tick_rate(int rate);
  int tick_rate() const { return clock_.tick_rate(); }  // To drive with.
  double dropped_seconds() const { return clock_.dropped_seconds(); }
  // How what is driven is drawn. What moves in the frame itself is driven beside the ticks, which are recorded.
  void set_drawing(const Drawing& drawing);
  const Drawing& drawing() const { return drawing_; }

  // The playhead. Setting it rests the session.
  std::size_t playhead() const { return playhead_; }
  void set_playhead(std::size_t tick);
  // Plays the recording from the playhead on, or stops that; in a loop over `loop` if there is one.
  void play(bool playing);
  bool playing() const { return playing_; }
  void set_loop(std::optional<Stretch> loop) { loop_ = loop; }
  const std::optional<Stretch>& loop() const { return loop_; }

  // What is drawn: the tick under the playhead, and what moves in the frame itself where that is chosen and
  // driven.
  bool in_frame() const { return live() && in_frame_.state(); }
  const CharacterState& drawn_state() const { return in_frame() ? *in_frame_.state() : current(); }
  const CharacterState& current() const { return shown_ ? shown_->run.state(playhead_) : nowhere_; }
  const CharacterState& previous() const;  // A tick before current().
  InFrameBody::Of drawn_of() const { return {revision_, current().times_put_home}; }
  Pose pose() const;
  // Where the foot is now, exactly: the last tick's state driven on for as long as it waits for the next.
  Vec3 exact_foot_C() const;
  // The moment that pose() shows: where moving pieces are drawn.
  Moment moment() const;
  Vec2 look() const;  // The tick's look and what was turned since: no tick lag.
  // The values that the shown recording was driven with, and their table of states.
  const Profile& shown_profile() const { return shown_ ? shown_->take.profile : profile_; }
  const StateChart& chart() const { return chart_of(shown_profile()); }

  // The ledger of the tick under the playhead, had by stepping it again. Empty for the start.
  Ledger last_ledger() const;

 private:
  InputFrame take_input(int due);
  template <typename Do>
  void by_hand(double since_frame, Do act);
  void tick(int due);
  void begin(const CharacterState& start, std::shared_ptr<const Place> place);
  void leave();
  void go_on_from_playhead();
  bool values_are_shown() const;
  void watch_rest();
  void play_on(double seconds);
  double drawn_blend() const;
  void chase(double seconds);
  void move_in_frame();

  std::unique_ptr<Recording> shown_;
  std::size_t playhead_ = 0;
  bool open_ = false;
  std::uint64_t revision_ = 0;
  std::function<void(const Recording&)> left_;
  CharacterState nowhere_;
  Ledger ledger_;  // Of the tick that is being done.

  Profile profile_;
  std::string profile_file_;
  std::uint64_t profile_identity_ = identity_of(Profile{});
  FixedStepClock clock_{60};
  double dropped_before_ = 0.0;  // s, already in the recording.
  HeldInput hands_;
  std::string device_;
  Vec2 turned_{0.0};  // Look not yet used by a tick.
  std::optional<Eye> seen_by_;
  std::shared_ptr<const InputScript> script_;
  std::unique_ptr<InputPlayer> player_;
  long script_ticks_left_ = 0;

  double time_scale_ = 1.0;
  bool paused_ = false, attended_ = true, resting_ = false, playing_ = false;
  double still_for_ = 0.0, unattended_for_ = 0.0;  // s.
  double play_at_ = 0.0;                           // Ticks, between two.
  std::optional<Stretch> loop_;
  Drawing drawing_;
  Follower chaser_{INFINITY};
  Vec3 chased_C_{0.0};
  InFrameBody::Of chased_of_{};
  InFrameBody in_frame_;
};

}  // namespace lagniappe::app
