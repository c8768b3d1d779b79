// SPDX-License-Identifier: MIT
// The usual ways to ask for ground, side by side with the verdict of the solver: what each says, where they
// disagree, and how often each flickers. For comparison only: step() uses nothing of this.
#pragma once

#include <array>
#include <functional>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "lagniappe/character_state.h"
#include "lagniappe/profile.h"
#include "lagniappe/world.h"

namespace lagniappe {

enum class GroundProbe : std::uint8_t {
  BallOverlap,
  ShortRay,
  LongRay,
  CentreRay,
  CapsuleSweep,
  BallSweep,
  ContactNormals,
  LastNormal,
  Mover,
};
inline constexpr std::size_t kGroundProbes = 9;

struct GroundProbeFacts {
  std::string_view name;  // "short ray".
  std::string_view how;   // "from 0.10 m above the foot, 0.20 m down".
  std::string_view weak;  // Where it goes wrong, as a sentence.
};
std::span<const GroundProbeFacts, kGroundProbes> ground_probes();  // In the order of GroundProbe.

// m. Where rays and sweeps begin and how far they go.
struct ProbeLengths {
  double above = 0.10;        // Over the foot, rays and sweeps but that from the centre begin.
  double short_reach = 0.10;  // Below the foot: short ray, capsule, contacts.
  double long_reach = 1.00;
  double ball_share = 0.90;  // Of the capsule's radius: the ball's, which is let down by short_reach.
};

struct ProbeAnswer {
  bool ground = false;
  std::optional<double> distance;             // m below the foot; a probe may not know.
  Vec3 normal_C = Vec3(0.0);                  // Of what was found; zero where nothing was.
  Vec3 from_C = Vec3(0.0), to_C = Vec3(0.0);  // Where it asked, and how far; of a ball its centre.
  double radius = 0.0;                        // 0: a ray.
};

// `before` and `now`: states a tick of `dt` seconds apart.
ProbeAnswer ask_for_ground(GroundProbe probe, const CharacterState& before, const CharacterState& now,
                           double dt, const Profile& profile, const World& world,
                           const ProbeLengths& lengths = {});

// One probe over a run.
struct ProbeLane {
  std::vector<std::uint8_t> ground;  // Of each state, 1 or 0; the first is as the second.
  std::size_t disagrees = 0;         // States in which it says other than the solver.
  std::size_t flickers = 0;  // Answers that lasted for less than 0.1 s, while the solver kept to its own.
  double seconds = 0.0;      // Mean cost of a question, as measured.
};
// `state_at`: any of `count` states in a row. Stops, with what it has, once `wanted` says no.
using StateAt = std::function<const CharacterState&(std::size_t)>;
std::array<ProbeLane, kGroundProbes> ask_over_run(const StateAt& state_at, std::size_t count, int tick_rate,
                                                  const Profile& profile, const World& world,
                                                  const ProbeLengths& lengths = {},
                                                  const std::function<bool()>& wanted = {});

}  // namespace lagniappe
