// SPDX-License-Identifier: MIT
// Walls that lean, by a hair or by a lot, back or over, are walls like upright ones: the same verdicts, and on
// the flat the same way.
#include <catch2/catch.hpp>
#include <set>

#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

constexpr double kTop = 1.8, kRadius = 0.30;  // Of the capsule that walks here.

// Degrees; positive leans over.
const std::vector<double>& leans() {
  static const std::vector<double> all = {1e-7, -1e-7, 0.01, -0.01, 1.0, -1.0, 8.0, -8.0, 30.0};
  return all;
}

// A wall along z that a capsule of `top` touches whose foot is at x, whichever way the wall leans: at its
// crown, or at its lower round. From y -40 to 40.
void add_wall(Scene& scene, double lean_deg, double x, double side = 1.0, double top = kTop,
              double foot_y = 0.0) {
  const double a = radians(lean_deg);
  const Vec3 out(-side * std::cos(a), -std::sin(a), 0.0), up(-side * std::sin(a), std::cos(a), 0.0);
  const Vec3 centre(x, foot_y + (lean_deg > 0.0 ? top - kRadius : kRadius), 0.0);
  const Vec3 on = centre - out * kRadius;
  const Vec3 low = on - up * 40.0, high = on + up * 40.0, far(0.0, 0.0, 60.0);
  scene.triangle({low - far, low + far, high + far}).triangle({low - far, high + far, high - far});
}

struct Walk {
  std::vector<CharacterState> states;
  std::set<std::string> names;
  int airborne = 0, skids = 0, exhausted = 0, most_slides = 0;
  std::vector<entry::Jump::From> jumps;
  int refused_jumps = 0, bumps = 0;
};

Walk drive(const TriangleWorld& world, const Profile& profile, CharacterState state, int hz, double seconds,
           const std::function<InputFrame(double)>& input) {
  Walk walk;
  walk.states.push_back(state);
  for (long i = 0; i < std::lround(seconds * hz); ++i) {
    Ledger ledger;
    state = step(state, input(static_cast<double>(i) / hz), profile, world, 1.0 / hz, &ledger);
    walk.states.push_back(state);
    walk.names.emplace(chart_of(profile).name_of(state.state));
    walk.airborne += state.ground.verdict == Verdict::None;
    walk.skids += state.ground.verdict == Verdict::Steep || state.state == StateId::Skid;
    walk.most_slides = std::max(walk.most_slides, int(state.slides));
    for (const LedgerEntry& e : ledger.entries) {
      walk.exhausted += std::holds_alternative<entry::Exhausted>(e);
      walk.refused_jumps += std::holds_alternative<entry::JumpRefused>(e);
      walk.bumps += std::holds_alternative<entry::HeadBump>(e);
      if (const auto* jump = std::get_if<entry::Jump>(&e)) walk.jumps.push_back(jump->from);
    }
  }
  return walk;
}

// Another frame for each tick rate: on end, upside down, odd, as it is.
const Frame& frame_for(int hz) { return frames()[static_cast<std::size_t>(7 * hz / 10) % frames().size()]; }

// Pushes for so long along yaw 0 (or back) and to the right.
std::function<InputFrame(double)> steady(double right, double forward) {
  return [=](double) { return push(right, forward); };
}

double apart(const Walk& a, const Walk& b) {
  double most = 0.0;
  for (std::size_t i = 0; i < a.states.size(); ++i)
    most = std::max(most, length(a.states[i].foot_C - b.states[i].foot_C));
  return most;
}

}  // namespace

TEST_CASE(
    "On the flat the way along a wall that leans is the way along an upright one, standing and crouched") {
  const Profile profile;
  for (const double top : {1.8, 1.1}) {
    const auto input = [&](double push_right) {
      return [=](double) {
        InputFrame in = push(push_right, 1.0);
        in.held.set(Action::Crouch, top < 1.8);
        return in;
      };
    };
    for (const double right : {0.05, 0.3, 0.95}) {
      for (const int hz : tick_rates()) {
        const Frame& frame = frame_for(hz);
        const auto walked = [&](double lean) {
          Scene scene;
          scene.floor();
          add_wall(scene, lean, 0.5, 1.0, top);
          const TriangleWorld world = scene.world(frame);
          CharacterState state = start_state(profile, {frame.point(Vec3(0.0)), frame.rotation_CE, 0.0}, world);
          state.capsule_height = top;
          return drive(world, profile, state, hz, 2.0, input(right));
        };
        const Walk upright = walked(0.0);
        CHECK(frame.back(upright.states.back().foot_C).z < -2.5);
        for (const double lean : leans()) {
          INFO("leans over by " << lean << " degrees, " << top << " m tall, stick " << right << ", " << hz
                                << " ticks/s");
          const Walk leaning = walked(lean);
          CHECK(apart(upright, leaning) < 1e-3);
          CHECK(leaning.names == upright.names);
          CHECK(leaning.airborne == 0);
          CHECK(leaning.exhausted == 0);
        }
      }
    }
  }
}

TEST_CASE("Up and down a slope along a wall that leans one goes on as along an upright one") {
  const Profile profile;
  for (const double slope : {20.0, -20.0}) {
    for (const double share : {1.0, 0.5}) {
      for (const int hz : tick_rates()) {
        const auto walked = [&](double lean) {
          Scene scene;
          const double t = std::tan(radians(slope));
          const Vec3 far(0, -60 * t, 60), near(0, 60 * t, -60), side(40, 0, 0);
          scene.triangle({far - side, far + side, near + side})
              .triangle({far - side, near + side, near - side});
          add_wall(scene, lean, 0.6);
          const TriangleWorld world = scene.world();
          const double lift = profile.capsule.radius * (1.0 / std::cos(radians(slope)) - 1.0);
          const CharacterState state = start_state(profile, {Vec3(0, lift, 0), Quat(1, 0, 0, 0), 0.0}, world);
          return drive(world, profile, state, hz, 1.5, steady(0.3 * share, share));
        };
        const Walk upright = walked(0.0);
        for (const double lean : leans()) {
          INFO("slope " << slope << ", leans over by " << lean << " degrees, stick " << share << ", " << hz
                        << " ticks/s");
          const Walk leaning = walked(lean);
          CHECK(leaning.airborne == 0);
          CHECK(leaning.skids == 0);
          CHECK(leaning.exhausted == 0);
          CHECK(leaning.most_slides <= 3);
          // Where the slope takes a wall that leans to the side, one goes a little aside with it.
          const Vec3 end = leaning.states.back().foot_C, wanted = upright.states.back().foot_C;
          CHECK(std::abs(end.z - wanted.z) < (std::abs(lean) < 0.1 ? 1e-3 : 0.12 * std::abs(wanted.z)));
        }
      }
    }
  }
}

TEST_CASE("Up and down stairs beside a wall that leans nobody leaves the ground, skids or is held") {
  const Profile profile;
  for (const bool up : {true, false}) {
    for (const double right : {0.1, 0.3}) {
      for (const int hz : tick_rates()) {
        const Frame& frame = frame_for(hz);
        const auto walked = [&](double lean) {
          Scene scene;
          scene.floor().stairs({0, 0, -4}, 8, 0.17, 0.3, 10).block({0, 0, -25.5}, {8, 1.7, 40});
          // Touches the standing capsule halfway up, so that it is met on the way whichever way it leans.
          add_wall(scene, lean, 0.8, 1.0, kTop, 0.85);
          const TriangleWorld world = scene.world(frame);
          const Home home = up ? Home{frame.point({0, 0, -1}), frame.rotation_CE, 0.0}
                               : Home{frame.point({0, 1.7, -7}), frame.rotation_CE, kPi};
          const CharacterState state = start_state(profile, home, world);
          return drive(world, profile, state, hz, 2.5, steady(up ? right : -right, 1.0));
        };
        const Walk upright = walked(0.0);
        CHECK(upright.airborne == 0);
        for (const double lean : leans()) {
          if (std::abs(lean) > 20.0) continue;  // Closes the stair.
          INFO((up ? "up" : "down") << ", leans over by " << lean << " degrees, stick " << right << ", " << hz
                                    << " ticks/s");
          const Walk leaning = walked(lean);
          CHECK(leaning.airborne == 0);
          CHECK(leaning.skids == 0);
          CHECK(leaning.exhausted == 0);
          const Vec3 end = frame.back(leaning.states.back().foot_C),
                     wanted = frame.back(upright.states.back().foot_C);
          CHECK(std::abs(end.y - wanted.y) < 1e-3);
        }
      }
    }
  }
}

TEST_CASE("Beside a wall that leans one jumps, and in the air it is a wall: no ceiling, no skid") {
  Profile profile;
  profile.jump.from_wall = true;
  profile.jump.head_bump = 0.25;
  for (const int hz : tick_rates()) {
    for (const double right : {0.0, 0.5, 1.0}) {
      for (const double lean : {0.0, 1e-7, -1e-7, 0.01, -0.01, 1.0, -1.0, 3.0, 8.0, -8.0, 30.0}) {
        INFO("leans over by " << lean << " degrees, stick " << right << ", " << hz << " ticks/s");
        Scene scene;
        scene.floor();
        add_wall(scene, lean, 0.2);
        const TriangleWorld world = scene.world();
        const CharacterState state = start_state(profile, {Vec3(0.0), Quat(1, 0, 0, 0), 0.0}, world);
        const Walk walk = drive(world, profile, state, hz, 3.0, [&](double t) {
          InputFrame in = push(t < 0.6 ? 1.0 : right, 0.0);
          in.pressed.set(Action::Jump, std::abs(t - 0.6) < 0.5 / hz || std::abs(t - 0.8) < 0.5 / hz);
          in.held.set(Action::Jump, t > 0.59 && t < 0.9);
          return in;
        });
        REQUIRE_FALSE(walk.jumps.empty());
        CHECK(walk.jumps.front() == entry::Jump::From::Ground);
        CHECK(walk.bumps == 0);
        CHECK(walk.skids == 0);
        // Who goes on pushing against it jumps off it.
        if (right == 1.0 && lean <= 0.01) {
          REQUIRE(walk.jumps.size() == 2);
          CHECK(walk.jumps[1] == entry::Jump::From::Wall);
        }
        CHECK(walk.states.back().grounded());
      }
    }
  }
}

TEST_CASE("In a corner of walls that lean one stands still") {
  const Profile profile;
  for (const int hz : tick_rates()) {
    for (const double lean : {1e-7, -1e-7, 0.01, -0.01, 1.0, -1.0, 8.0, -8.0}) {
      INFO("leans over by " << lean << " degrees, " << hz << " ticks/s");
      Scene scene;
      scene.floor();
      add_wall(scene, lean, 0.5);
      const double a = radians(lean);
      const Vec3 out(0, -std::sin(a), std::cos(a)), up(0, std::cos(a), std::sin(a)), far(40, 0, 0);
      const Vec3 on = Vec3(0, lean > 0.0 ? kTop - kRadius : kRadius, -0.5) - out * kRadius;
      scene.triangle({on - far - up * 9.0, on + far - up * 9.0, on + far + up * 9.0})
          .triangle({on - far - up * 9.0, on + far + up * 9.0, on - far + up * 9.0});
      const TriangleWorld world = scene.world();
      const CharacterState state = start_state(profile, {Vec3(0.0), Quat(1, 0, 0, 0), 0.0}, world);
      const Walk walk = drive(world, profile, state, hz, 1.5, steady(0.7, 1.0));
      CHECK(length(walk.states.back().foot_C - Vec3(0.5, 0, -0.5)) < 2e-3);
      CHECK(length(walk.states.back().velocity_C) < 1e-6);
      CHECK(walk.airborne == 0);
      CHECK(walk.skids == 0);
    }
  }
}

TEST_CASE("Lying along a wall that leans one crawls as along an upright one") {
  const Profile profile;
  for (const int hz : tick_rates()) {
    const auto crawled = [&](double lean) {
      Scene scene;
      scene.floor();
      add_wall(scene, lean, 0.75, 1.0, 2.0 * kRadius);
      const TriangleWorld world = scene.world();
      const CharacterState state = start_state(profile, {Vec3(0.0), Quat(1, 0, 0, 0), 0.0}, world);
      return drive(world, profile, state, hz, 4.0, [&](double t) {
        InputFrame in = t < 1.2 ? InputFrame{} : push(0.6, 1.0);
        in.pressed.set(Action::Lie, t == 0.0);
        return in;
      });
    };
    const Walk upright = crawled(0.0);
    CHECK(upright.states.back().state == StateId::Lie);
    CHECK(upright.states.back().foot_C.z < -1.0);
    for (const double lean : leans()) {
      INFO("leans over by " << lean << " degrees, " << hz << " ticks/s");
      const Walk leaning = crawled(lean);
      CHECK(leaning.names == upright.names);
      CHECK(leaning.airborne == 0);
      CHECK(apart(upright, leaning) < 1e-3);
    }
  }
}
