// SPDX-License-Identifier: MIT
// Drawn frames of a run: when a display draws, and what is seen of the run then, by several methods.
#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "lagniappe/drive.h"
#include "lagniappe/pose.h"

namespace lagniappe {

// One frame that takes longer: the first that is drawn after `at` comes `seconds` after the one before it.
struct Hitch {
  double at = 0.0;
  double seconds = 0.25;
};

// When a display draws.
struct DisplayClock {
  double frames_per_second = 60.0;
  double unevenness = 0.0;  // In [0, 1): the share of a frame by which each is longer or shorter, at most.
  std::uint64_t seed = 1;   // Of that.
  std::vector<double> measured = {};  // s of one frame after the other, over and over; empty: by the rate.
  std::vector<Hitch> hitches = {};    // In order of time.
};

// Returns when frames are drawn, the first at 0, the last before `seconds`.
// REQUIRES: frames_per_second > 0; every measured frame and hitch is longer than 0.
std::vector<double> frame_times(const DisplayClock& clock, double seconds);

enum class DrawMethod : std::uint8_t {
  AsTicked,      // Where the last tick left it.
  Interpolated,  // Between the last two ticks, as far as the frame is past the last one.
  Ahead,         // From the last tick on by its velocity.
  Chase,         // The drawn place follows what is ticked, exponentially at a rate.
  InFrame,       // No ticks: motion in the frame itself, with the frame's time.
};
inline constexpr int kDrawMethods = 5;

struct Drawing {
  DrawMethod method = DrawMethod::Interpolated;
  double chase_rate = 20.0;       // 1/s.
  bool look_at_draw_rate = true;  // Else the look is drawn as the pose is.
  bool eye_smoothing = true;      // Of steps and snaps, as the profile says.
  double camera_lag = 0.0;        // s, time constant with which the eye follows the head. 0: it is there.

  bool operator==(const Drawing&) const = default;
};

// "interpolated", "ticked", "ahead", "chase:20", "in-frame"; and back, nothing where it is none of them.
std::string word_of(const Drawing& drawing);
std::optional<Drawing> drawing_of(std::string_view word);

// Follows a goal exponentially: d' = k (goal - d), where the goal goes straight from one frame's to the next.
// The same at every draw rate, for a goal that does.
class Follower {
 public:
  explicit Follower(double rate) : rate_(rate) {}  // 1/s; infinite: it is there.

  // Returns where it is `seconds` later, when the goal is at `goal_C`; `begins_anew`: it is there at once.
  Vec3 follow(const Vec3& goal_C, double seconds, bool begins_anew);

 private:
  double rate_;
  bool begun_ = false;
  Vec3 goal_C_ = Vec3(0.0), off_C_ = Vec3(0.0);
};

struct DrawnFrame {
  double at;      // s, on the display's clock.
  double moment;  // s of the run that it ought to show: `at` less what was dropped until then.
  Pose pose;
  Vec2 look;               // Yaw and pitch, rad.
  Vec3 eye_C;              // The head's, behind by the camera's lag.
  double smoothed;         // m along up that the pose's foot is off from the true one, by the smoothing.
  double pieces_at;        // s of the run's time at which moving pieces are drawn.
  double blend;            // Of a tick: how far it is past the last one.
  std::uint32_t tick;      // The last one that was run; of in-frame motion the frame's own number.
  std::uint32_t put_home;  // How often what is drawn had been put home.
};

// A run without ledger or examination.
struct TickedRun {
  int tick_rate = 60;
  std::vector<InputFrame> inputs;      // Tick k + 1 is run with inputs[k].
  std::vector<CharacterState> states;  // One more: [0] is the start.

  double seconds() const { return static_cast<double>(inputs.size()) / tick_rate; }
};
TickedRun ticked_run(const CharacterState& start, std::vector<InputFrame> inputs, const Profile& profile,
                     const World& world, int tick_rate);
TickedRun ticked_run(const CharacterState& start, const InputScript& script, const Profile& profile,
                     const World& world, int tick_rate, double seconds);

// Motion in the frame itself: in one step, or in two where a stick changes within it; frames longer than a
// tenth of a second in equal parts.
struct FrameRun {
  std::vector<double> at, moments;     // Of each frame, as in DrawnFrame.
  std::vector<CharacterState> states;  // As of each frame; [0] is the start.
  double dropped = 0.0;                // s.
};
FrameRun run_in_frames(const CharacterState& start, const InputScript& script, const Profile& profile,
                       const World& world, std::span<const double> times, double longest_catch_up = 0.25);

// Returns what is drawn at `times`, as long as the run goes; `dropped`, if given, gets what was not made up
// for, s. REQUIRES: times rise from 0; drawing is not InFrame.
std::vector<DrawnFrame> drawn_frames(const TickedRun& run, std::span<const double> times,
                                     const Drawing& drawing, const Profile& profile,
                                     double longest_catch_up = 0.25, double* dropped = nullptr);
std::vector<DrawnFrame> drawn_frames(const FrameRun& run, const Drawing& drawing, const Profile& profile);

}  // namespace lagniappe
