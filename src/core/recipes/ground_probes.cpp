// SPDX-License-Identifier: MIT
#include "lagniappe/ground_probes.h"

#include <algorithm>
#include <chrono>
#include <cmath>

namespace lagniappe {
namespace {

constexpr double kShortAnswer = 0.1;  // s.

constexpr std::array<GroundProbeFacts, kGroundProbes> kFacts = {{
    {"ball overlap", "a ball at the foot, let down a little",
     "Says yes to walls that it touches from the side, and knows neither distance nor slope."},
    {"short ray", "down the middle, a hand below the foot",
     "Misses the ground where the middle hangs over an edge, and on stairs between two treads."},
    {"long ray", "down the middle, a metre below the foot",
     "Says yes long before one lands, and after one has jumped."},
    {"centre ray", "from the middle of the body to a hand below the foot",
     "As the short ray; and stands on what is between the knees."},
    {"capsule sweep", "the whole body, a hand down",
     "Finds the edges of treads and risers, whose normals are those of no ground."},
    {"ball sweep", "a narrower ball from a step's height over the foot",
     "Begins above low roofs and inside of them, and calls a step's edge ground beside it."},
    {"contact normals", "any face that is touched and not too steep",
     "Says no in every tick in which one hovers by a hair: it flickers on slopes and stairs."},
    {"last normal", "the last move met something not too steep",
     "Who stands still meets nothing; downhill the ground is left in every tick."},
    {"the mover", "the way down was blocked", "A tick late, and no when nothing presses down."},
}};

// One question.
class Question {
 public:
  Question(const CharacterState& before, const CharacterState& now, double dt, const Profile& profile,
           const World& world, const ProbeLengths& lengths)
      : before_(before), now_(now), dt_(dt), profile_(profile), world_(world), lengths_(lengths) {
    moment_.time = now.time;
  }

  ProbeAnswer ask(GroundProbe probe) const {
    const double height = now_.capsule_height;
    switch (probe) {
      case GroundProbe::BallOverlap:
        return ball_overlap();
      case GroundProbe::ShortRay:
        return ray(lengths_.above, lengths_.short_reach);
      case GroundProbe::LongRay:
        return ray(lengths_.above, lengths_.long_reach);
      case GroundProbe::CentreRay:
        return ray(0.5 * height, lengths_.short_reach);
      case GroundProbe::CapsuleSweep:
        return sweep(radius(), height, lengths_.above, lengths_.short_reach);
      case GroundProbe::BallSweep:
        return sweep(ball_radius(), 2.0 * ball_radius(), profile_.ground.highest_step, lengths_.short_reach);
      case GroundProbe::ContactNormals:
        return contact_normals();
      case GroundProbe::LastNormal:
        return last_move(false);
      case GroundProbe::Mover:
        return last_move(true);
    }
    return {};
  }

 private:
  double radius() const { return profile_.capsule.radius; }
  double ball_radius() const { return radius() * lengths_.ball_share; }
  Vec3 up() const { return now_.up_C(); }
  bool walkable(const Vec3& normal_C) const {
    return dot(normal_C, up()) >= std::cos(profile_.ground.steepest_walkable);
  }

  ProbeAnswer ball_overlap() const {
    ProbeAnswer answer;
    answer.radius = ball_radius();
    answer.from_C = answer.to_C = now_.foot_C + up() * (ball_radius() - lengths_.short_reach);
    std::array<WorldContact, 1> found;
    const Segment at{answer.from_C, answer.from_C};
    answer.ground = world_.contacts(at, ball_radius(), found, moment_) > 0;
    if (answer.ground) answer.normal_C = found[0].closest.normal_C;
    return answer;
  }

  ProbeAnswer ray(double above, double below) const {
    ProbeAnswer answer;
    answer.from_C = now_.foot_C + up() * above;
    answer.to_C = now_.foot_C - up() * below;
    const auto hit = world_.cast_ray(answer.from_C, answer.to_C - answer.from_C, moment_);
    if (!hit) return answer;
    answer.distance = hit->hit.fraction * (above + below) - above;
    answer.normal_C = hit->hit.normal_C;
    answer.ground = walkable(answer.normal_C);
    return answer;
  }

  ProbeAnswer sweep(double r, double height, double above, double below) const {
    ProbeAnswer answer;
    answer.radius = r;
    answer.from_C = now_.foot_C + up() * (above + r);
    answer.to_C = now_.foot_C + up() * (r - below);
    const Segment axis = capsule_axis(now_.foot_C + up() * above, up(), r, std::max(height, 2.0 * r));
    const auto hit = world_.sweep(axis, r, -up() * (above + below), moment_);
    if (!hit) return answer;
    answer.distance = hit->hit.fraction * (above + below) - above;
    answer.normal_C = hit->hit.normal_C;
    answer.ground = walkable(answer.normal_C);
    return answer;
  }

  ProbeAnswer contact_normals() const {
    constexpr double kTouched = 2e-3;  // m.
    ProbeAnswer answer;
    answer.radius = radius();
    answer.from_C = answer.to_C = now_.foot_C + up() * radius();
    std::array<WorldContact, 8> found;
    const std::size_t count =
        world_.contacts(capsule_axis(now_, radius()), radius() + kTouched, found, moment_);
    for (std::size_t i = 0; i < count && !answer.ground; ++i) {
      if (!walkable(found[i].closest.normal_C)) continue;
      answer.ground = true;
      answer.normal_C = found[i].closest.normal_C;
      answer.distance = found[i].closest.distance - radius();
    }
    return answer;
  }

  // The tick's motion once more, as a plain mover makes it: by the velocity, and what gravity adds in the air.
  ProbeAnswer last_move(bool by_way) const {
    const double fall = before_.grounded() ? profile_.gravity * dt_ * dt_ : 0.5 * profile_.gravity * dt_ * dt_;
    const Vec3 motion_C =
        before_.velocity_C * dt_ - before_.up_C() * (by_way || !before_.grounded() ? fall : 0.0);
    ProbeAnswer answer;
    answer.radius = radius();
    answer.from_C = before_.foot_C + before_.up_C() * radius();
    answer.to_C = answer.from_C + motion_C;
    Moment then = moment_;
    then.time = before_.time;
    if (length(motion_C) < 1e-9) return answer;
    const auto hit = world_.sweep(capsule_axis(before_, radius()), radius(), motion_C, then);
    if (!hit) return answer;
    answer.normal_C = hit->hit.normal_C;
    answer.ground =
        by_way ? dot(motion_C, up()) < 0.0 && dot(answer.normal_C, up()) > 0.1 : walkable(answer.normal_C);
    return answer;
  }

  const CharacterState &before_, &now_;
  double dt_;
  const Profile& profile_;
  const World& world_;
  const ProbeLengths& lengths_;
  Moment moment_;
};

// Answers of less than kShortAnswer, between two others, during which the solver's is the same throughout.
std::size_t flickers_of(const std::vector<std::uint8_t>& ground, const std::vector<std::uint8_t>& solver,
                        int tick_rate) {
  std::size_t flickers = 0, begin = 0;
  for (std::size_t i = 1; i < ground.size(); ++i) {
    if (ground[i] == ground[i - 1]) continue;
    const bool brief = begin > 0 && static_cast<double>(i - begin) < kShortAnswer * tick_rate;
    bool steady = true;
    for (std::size_t k = begin > 0 ? begin - 1 : 0; k < i; ++k) steady = steady && solver[k] == solver[i];
    flickers += brief && steady;
    begin = i;
  }
  return flickers;
}

}  // namespace

std::span<const GroundProbeFacts, kGroundProbes> ground_probes() { return kFacts; }

ProbeAnswer ask_for_ground(GroundProbe probe, const CharacterState& before, const CharacterState& now,
                           double dt, const Profile& profile, const World& world, const ProbeLengths& lengths) {
  return Question(before, now, dt, profile, world, lengths).ask(probe);
}

std::array<ProbeLane, kGroundProbes> ask_over_run(const StateAt& state_at, std::size_t count, int tick_rate,
                                                  const Profile& profile, const World& world,
                                                  const ProbeLengths& lengths,
                                                  const std::function<bool()>& wanted) {
  constexpr std::size_t kAskEvery = 4096;
  std::array<ProbeLane, kGroundProbes> lanes;
  std::vector<std::uint8_t> solver(count);
  for (std::size_t i = 0; i < count; ++i) solver[i] = state_at(i).grounded();
  for (std::size_t p = 0; p < kGroundProbes; ++p) {
    ProbeLane& lane = lanes[p];
    lane.ground.resize(count);
    const auto begin = std::chrono::steady_clock::now();
    for (std::size_t i = 1; i < count; ++i) {
      if (wanted && i % kAskEvery == 0 && !wanted()) return lanes;
      lane.ground[i] =
          ask_for_ground(GroundProbe(p), state_at(i - 1), state_at(i), 1.0 / tick_rate, profile, world, lengths)
              .ground;
    }
    const std::chrono::duration<double> took = std::chrono::steady_clock::now() - begin;
    if (count > 1) {
      lane.ground[0] = lane.ground[1];
      lane.seconds = took.count() / static_cast<double>(count - 1);
    }
    for (std::size_t i = 1; i < count; ++i) lane.disagrees += lane.ground[i] != solver[i];
    lane.flickers = flickers_of(lane.ground, solver, tick_rate);
  }
  return lanes;
}

}  // namespace lagniappe
