// SPDX-License-Identifier: GPL-3.0-or-later
// What is being driven: place, profile, character, clock and held input, without any widget.
#pragma once

#include <array>
#include <memory>
#include <optional>
#include <string>

#include "lagniappe/lagniappe.h"
#include "session/scene_mesh.h"

namespace lagniappe::app {

// A course that is ready to be driven. Never changed after it is made, so it may be shared with other threads.
struct Place {
  std::string path;
  Course course;
  TriangleWorld world;
  SceneMesh drawn;
};

enum class Drawing { Interpolated, AsTicked };

class DriveSession {
 public:
  // The four directions that keys push in.
  enum class Push { Forward, Back, Left, Right };

  static constexpr std::array<double, 4> kTimeScales = {1.0, 0.5, 0.25, 0.1};

  // Puts the character at the place's start, and the place's time back to its beginning.
  void set_place(std::shared_ptr<const Place> place);
  const Place* place() const { return place_.get(); }
  std::shared_ptr<const Place> shared_place() const { return place_; }

  // Puts the character at a mark, where resets then bring it; time goes on.
  void begin_at(const Mark& mark);

  // The character goes on with the new values from where it is.
  void set_profile(const Profile& profile);
  const Profile& profile() const { return profile_; }

  // Input. Held keys hold until let go; presses last until a tick has used them.
  void push(Push direction, bool down);
  void hold(Action action, bool down);
  void turn_by(const Vec2& mouse_counts);  // x right, y down.
  void release_all();
  // Follows the script from now on, at the session's own tick rate, until it is over. Empty: stop following.
  void follow(std::optional<InputScript> script, double seconds = 0.0);
  bool following() const { return script_ != nullptr; }

  // Time.
  void advance(double real_seconds);  // As a drawn frame does. Nothing happens while paused.
  void single_tick();                 // Also, and mostly, while paused.
  void set_paused(bool paused) { paused_ = paused; }
  bool paused() const { return paused_; }
  void set_time_scale(double scale) { time_scale_ = scale; }
  double time_scale() const { return time_scale_; }
  void set_tick_rate(int rate);
  int tick_rate() const { return clock_.tick_rate(); }
  double dropped_seconds() const { return clock_.dropped_seconds(); }
  void set_drawing(Drawing drawing) { drawing_ = drawing; }
  Drawing drawing() const { return drawing_; }

  // What is drawn.
  const CharacterState& current() const { return current_; }
  Pose pose() const;
  // The moment that pose() shows: where moving pieces are drawn.
  Moment moment() const;
  Vec2 look() const;  // The tick's look and what was turned since: no tick lag.

  // The ledger of the last tick, had by stepping it again. Empty before the first.
  Ledger last_ledger() const;

 private:
  InputFrame take_input();
  void tick();
  double drawn_blend() const;

  std::shared_ptr<const Place> place_;
  Profile profile_;
  FixedStepClock clock_{60};
  CharacterState previous_, current_;
  InputFrame last_input_;
  double last_dt_ = 0.0;  // s, of the last tick; the rate may have been changed since.
  std::array<bool, 4> pushed_{};
  Buttons held_, pressed_;
  Vec2 turned_{0.0};  // Look not yet used by a tick.
  std::shared_ptr<const InputScript> script_;
  std::unique_ptr<InputPlayer> player_;
  long script_ticks_left_ = 0;
  double time_scale_ = 1.0;
  bool paused_ = false;
  Drawing drawing_ = Drawing::Interpolated;
};

}  // namespace lagniappe::app
