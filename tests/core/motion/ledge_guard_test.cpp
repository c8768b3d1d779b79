// SPDX-License-Identifier: MIT
// Kept from going over rims. The rims of the places below are known as lines, and distances to them are had by
// plain geometry.
#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

using Guarding = Profile::Ledge::Guard;

struct Edge {
  Vec2 a, b;  // x and z.
};

double distance_to(const Edge& e, const Vec2& p) {
  const Vec2 along = e.b - e.a;
  const double share = std::clamp(glm::dot(p - e.a, along) / glm::dot(along, along), 0.0, 1.0);
  return glm::length(p - (e.a + along * share));
}

struct Plateau {
  const char* name;
  Scene scene;  // Its top at y = 0, nothing below.
  std::vector<Edge> edges;

  double distance(const Vec3& foot_E) const {
    double least = 1e9;
    for (const Edge& e : edges) least = std::min(least, distance_to(e, {foot_E.x, foot_E.z}));
    return least;
  }
};

std::vector<Edge> polygon(const std::vector<Vec2>& corners) {
  std::vector<Edge> edges;
  for (std::size_t i = 0; i < corners.size(); ++i)
    edges.push_back({corners[i], corners[(i + 1) % corners.size()]});
  return edges;
}

std::vector<Plateau> plateaus() {
  std::vector<Plateau> all;
  all.push_back(
      {"square", Scene().block({0, -3, 0}, {8, 3, 8}), polygon({{-4, -4}, {4, -4}, {4, 4}, {-4, 4}})});
  all.push_back({"thin plate", Scene().block({0, -0.02, 0}, {8, 0.02, 8}),
                 polygon({{-4, -4}, {4, -4}, {4, 4}, {-4, 4}})});
  // An L of two blocks with a seam, turned by 45 degrees against the first: an outer corner of 90 degrees all
  // round and an inner one at (0, 0).
  all.push_back({"L", Scene().block({-3, -2, 0}, {6, 2, 12}).block({3, -1, 3}, {6, 1, 6}),
                 polygon({{-6, -6}, {0, -6}, {0, 0}, {6, 0}, {6, 6}, {-6, 6}})});
  // A hole of 2 x 2 m in a floor of four blocks.
  Plateau hole{"hole", Scene().block({0, -1, -4}, {12, 1, 6}).block({0, -1, 4}, {12, 1, 6}), {}};
  hole.scene.block({-3.5, -1, 0}, {5, 1, 2}).block({3.5, -1, 0}, {5, 1, 2});
  hole.edges = polygon({{-1, -1}, {1, -1}, {1, 1}, {-1, 1}});
  for (const Edge& e : polygon({{-6, -7}, {6, -7}, {6, 7}, {-6, 7}})) hole.edges.push_back(e);
  all.push_back(hole);
  return all;
}

// Cut into triangles from its middle, with upright sides.
Plateau round_table(const char* name, int sides) {
  Plateau table{name, {}, {}};
  const auto corner = [&](int i, double y) {
    const double a = 2.0 * kPi * i / sides;
    return Vec3(3.0 * std::cos(a), y, -3.0 * std::sin(a));
  };
  for (int i = 0; i < sides; ++i) {
    const Vec3 a = corner(i, 0), b = corner(i + 1, 0), c = corner(i, -1), d = corner(i + 1, -1);
    table.scene.triangle({Vec3(0.0), a, b}).triangle({a, c, b}).triangle({b, c, d});
    table.edges.push_back({{a.x, a.z}, {b.x, b.z}});
  }
  return table;
}

// A square top whose sides go down at 60 degrees: too steep to walk.
Plateau banked() {
  const double out = 3.0 / std::tan(radians(60.0));
  Plateau bank{"banks", Scene().block({0, -0.5, 0}, {6, 0.5, 6}),
               polygon({{-3, -3}, {3, -3}, {3, 3}, {-3, 3}})};
  for (const Edge& e : bank.edges) {
    const auto foot = [&](const Vec2& p) {
      return Vec3(p.x + std::copysign(out, p.x), -3, p.y + std::copysign(out, p.y));
    };
    const Vec3 a(e.a.x, 0, e.a.y), b(e.b.x, 0, e.b.y);
    bank.scene.triangle({a, b, foot(e.a)}).triangle({b, foot(e.b), foot(e.a)});
  }
  return bank;
}

Profile guarded(Guarding guard = Guarding::Walk) {
  Profile profile;
  profile.ledge.guard = guard;
  return profile;
}

InputFrame turned_push(double yaw_deg, double share = 1.0) {
  return push(-share * std::sin(radians(yaw_deg)), share * std::cos(radians(yaw_deg)));
}

constexpr double kOff = 0.002;  // m that a standing distance may be off.

}  // namespace

TEST_CASE("Pushing at a rim, one stands as far from it as is set, from any side and at any rate") {
  const Plateau plateau = plateaus()[0];
  for (const double least : {0.0, 0.1, 0.25, 0.6}) {
    for (const double soon : {0.0, 0.1}) {
      for (const double speed : {0.9, 4.0, 20.0}) {
        Profile profile = guarded();
        profile.ledge.least_reach = least;
        profile.ledge.reach_time = soon;
        profile.ground.speed = speed;
        const TriangleWorld world = plateau.scene.world();
        for (const int hz : {10, 20, 60, 144}) {
          const double yaw = 17.0 * hz + 90.0 * speed;
          INFO(least << " m, " << soon << " s, " << speed << " m/s, " << hz << " ticks/s");
          // Straight on: towards -z, a little aside.
          const CharacterState s = run(standing_at(profile, {0.3, 0, 0}, radians(yaw)), profile, world, hz, 8.0,
                                       [&](double) { return turned_push(-yaw + 0.3); });
          REQUIRE(s.grounded());
          CHECK(std::abs(plateau.distance(s.foot_C) - least) <= kOff);
        }
      }
    }
  }
}

TEST_CASE("Walking about with any stick and look, one never comes nearer a rim, wherever the place lies",
          "[long]") {
  const Profile profile = guarded();
  for (const Plateau& plateau : plateaus()) {
    for (const Frame& frame : frames()) {
      const TriangleWorld world = plateau.scene.world(frame);
      for (const int hz : {20, 60, 240}) {
        Random random(static_cast<std::uint64_t>(hz) + 7);
        INFO(plateau.name << ", " << frame.name << ", " << hz << " ticks/s");
        double nearest = 1e9, until = 0.0;
        InputFrame input;
        bool fell = false;
        run(
            standing_at(profile, {-3, 0, 3}, 0.4, frame), profile, world, hz, 25.0,
            [&](double t) {
              if (t >= until) {
                until = t + random.between(0.1, 1.5);
                input = turned_push(random.between(-180.0, 180.0), random.between(0.2, 1.0));
                input.turn_rate = {random.between(-3.0, 3.0), random.between(-1.0, 1.0)};
                input.held.set(Action::Sprint, random.below(3) == 0);
              }
              return input;
            },
            [&](const CharacterState& s) {
              nearest = std::min(nearest, plateau.distance(frame.back(s.foot_C)));
              fell = fell || !s.grounded();
            });
        CHECK(!fell);
        CHECK(nearest >= profile.ledge.least_reach - kOff);
      }
    }
  }
}

// Each of these was gone over once: where rims meet at a wide angle, on seams, at a sprint, at few ticks a
// second.
TEST_CASE("Many-sided tables and steep banks hold whoever walks or runs about on them", "[long]") {
  for (const Plateau& plateau : {round_table("seven sides", 7), round_table("48 sides", 48), banked()}) {
    for (const double speed : {1.8, 4.0, 20.0}) {
      for (const double least : {0.1, 0.6}) {
        for (const int hz : {10, 60}) {
          Profile profile = guarded();
          profile.ground.speed = speed;
          profile.ledge.least_reach = least;
          profile.ledge.reach_time = hz == 10 ? 0.0 : 0.1;
          for (const Frame& frame : {frames().front(), frames().back()}) {
            INFO(plateau.name << ", " << speed << " m/s, " << least << " m, " << hz << " ticks/s, "
                              << frame.name);
            const TriangleWorld world = plateau.scene.world(frame);
            Random random(static_cast<std::uint64_t>(1000.0 * speed) + static_cast<std::uint64_t>(hz));
            double until = 0.0, nearest = 1e9;
            InputFrame input;
            run(
                standing_at(profile, Vec3(0.0), 0.3, frame), profile, world, hz, 12.0,
                [&](double t) {
                  if (t >= until) {
                    until = t + random.between(0.1, 1.2);
                    input = turned_push(random.between(-180.0, 180.0), random.between(0.2, 1.0));
                  }
                  return input;
                },
                [&](const CharacterState& s) {
                  nearest = std::min(nearest, plateau.distance(frame.back(s.foot_C)));
                });
            CHECK(nearest >= least - kOff);
          }
        }
      }
    }
  }
}

TEST_CASE("Along a rim one goes with the speed that goes along it; away and turning stay free") {
  const Profile profile = guarded();
  const TriangleWorld world = Scene().block({0, -3, 0}, {200, 3, 8}).world();
  for (const int hz : tick_rates()) {
    for (const double aside : {20.0, 45.0, 70.0}) {
      INFO(hz << " ticks/s, " << aside << " degrees aside");
      CharacterState s = run(standing_at(profile, {0, 0, -3.7}), profile, world, hz, 1.0,
                             [&](double) { return turned_push(-aside); });
      CHECK(length(s.velocity_C) == Approx(4.0 * std::sin(radians(aside))).epsilon(0.01));
      const double z = s.foot_C.z;
      s = run(s, profile, world, hz, 0.5, [&](double) { return turned_push(180.0); });
      CHECK(s.foot_C.z - z > 1.4);
    }
  }
}

TEST_CASE("Round the corners of a place the way is the same at every rate", "[long]") {
  const Profile profile = guarded();
  for (const Plateau& plateau : plateaus()) {
    const TriangleWorld world = plateau.scene.world();
    const auto drive = [&](int hz) {
      return run(standing_at(profile, {-3, 0, 3}), profile, world, hz, 12.0, [](double t) {
        if (t < 0.25) return InputFrame{};  // Until it stands.
        const double legs[] = {20, -50, -80, -140, 130, 60};
        return turned_push(legs[static_cast<int>(t / 2.0)], 0.8);
      });
    };
    const CharacterState exact = drive(480);
    for (const int hz : {24, 30, 60, 120, 240}) {
      INFO(plateau.name << ", " << hz << " ticks/s");
      CHECK(length(drive(hz).foot_C - exact.foot_C) < 0.01);
    }
  }
}

TEST_CASE("Stairs, slopes and kerbs are walked as if nothing guarded") {
  Scene scene;
  scene.floor(40.0)
      .stairs({0, 0, -3}, 4, 0.3, 0.25, 8)
      .ramp({6, 0, -4}, {4, 3, 4})
      .block({-6, 0, -4}, {4, 0.3, 4});
  scene.block({0, 0, -7.0}, {4, 2.4, 6}).block({6, 0, -8.0}, {4, 3, 4});
  const TriangleWorld world = scene.world();
  Profile free;
  free.ground.steepest_walkable = radians(50.0);
  Profile profile = free;
  profile.ledge.guard = Guarding::Walk;
  for (const double x : {0.0, 6.0, -6.0}) {
    for (const int hz : tick_rates()) {
      INFO("at x = " << x << ", " << hz << " ticks/s");
      // Up, and down again.
      const auto there_and_back = [](double t) { return push(0.0, t < 2.0 ? 1.0 : -1.0); };
      const auto drive = [&](const Profile& p) {
        return run(standing_at(p, {x, 0, 0}), p, world, hz, 4.0, there_and_back);
      };
      CHECK(length(drive(profile).foot_C - drive(free).foot_C) < 1e-9);
    }
  }
}

TEST_CASE("A gap that a body bridges is crossed, a wider one is not") {
  const Profile profile = guarded();
  const double bridged = 2.0 * profile.ground.longest_overhang;
  for (const double gap : {0.02, 0.15, bridged - 0.02, bridged + 0.02, 0.7}) {
    const TriangleWorld world =
        Scene().block({0, -3, 3}, {6, 3, 6}).block({0, -3, -3 - gap}, {6, 3, 6}).world();
    for (const double aside : {0.0, 30.0, -60.0}) {
      for (const int hz : {20, 60, 240}) {
        INFO("gap of " << gap << " m, " << aside << " degrees aside, " << hz << " ticks/s");
        const CharacterState s =
            run(standing_at(profile, {aside / 30.0, 0, 1}), profile, world, hz, 2.5,
                [&](double t) { return turned_push(t < 1.0 ? aside : -0.5 * aside, 0.7); });
        CHECK(s.grounded());
        CHECK((s.foot_C.z < -gap) == (gap < bridged));
      }
    }
  }
}

TEST_CASE("What stands at a rim is a wall, and no rim lies behind it") {
  Profile profile = guarded();
  profile.ledge.least_reach = 0.6;
  const TriangleWorld world = Scene().block({0, -3, 0}, {8, 3, 8}).block({0, 0, -4.1}, {8, 1, 0.2}).world();
  const CharacterState s =
      run(standing_at(profile, Vec3(0.0)), profile, world, 60, 3.0, [](double) { return push(0, 1); });
  CHECK(s.foot_C.z == Approx(-4.0 + profile.capsule.radius).margin(1e-3));
}

TEST_CASE("On a plate that moves and turns a rim is where it has gone") {
  const Profile profile = guarded();
  TriangleWorld::Builder builder;
  PieceMotion motion;
  motion.keys = {{0.0}, {1.0, Vec3(30, 6, 0), Vec3(3.0, 0, 0)}};
  motion.period = 10.0;
  builder.begin_moving_piece("plate", motion);
  Piece piece;
  piece.shape = shape::Block{{6, 0.3, 6}};
  piece.at_C = {0, -0.3, 0};
  for (const Triangle& t : triangles_of(piece)) builder.add(t);
  const TriangleWorld world = builder.commit({Box{Vec3(-1e4), Vec3(1e4)}});
  for (const int hz : tick_rates()) {
    for (const double yaw : {0.0, 50.0, 90.0, 200.0}) {
      INFO(hz << " ticks/s, " << yaw);
      CharacterState s = standing_at(profile, Vec3(0.0));
      for (int i = 0; i < 5 * hz; ++i) {
        s = step(s, turned_push(yaw), profile, world, 1.0 / hz);
        const Vec3 on = world.piece_frame(0, s.time).back(s.foot_C);
        REQUIRE(s.grounded());
        REQUIRE(std::max(std::abs(on.x), std::abs(on.z)) <= 3.0 - profile.ledge.least_reach + 0.004);
      }
    }
  }
}

TEST_CASE("Beyond the distance that is kept, or beyond the rim, only the way out is closed") {
  const Profile profile = guarded();
  const TriangleWorld world = Scene().block({0, -3, 0}, {8, 3, 8}).world();
  for (const double beyond : {-0.15, -0.02, 0.05, 0.12}) {
    for (const int hz : tick_rates()) {
      INFO(beyond << " m beyond, " << hz << " ticks/s");
      const CharacterState from = run(standing_at(profile, {0, 0, -4 - beyond}), profile, world, hz, 0.3,
                                      [](double) { return InputFrame{}; });
      REQUIRE(from.grounded());
      const auto drive = [&](double yaw) {
        return run(from, profile, world, hz, 0.5, [&](double) { return turned_push(yaw); });
      };
      CHECK(std::abs(drive(0.0).foot_C.z - from.foot_C.z) < kOff);
      CHECK(drive(0.0).grounded());
      CHECK(drive(90.0).foot_C.x - from.foot_C.x < -1.4);
      CHECK(drive(90.0).grounded());
      CHECK(drive(180.0).foot_C.z - from.foot_C.z > 1.4);
    }
  }
}

TEST_CASE("A guard that is told to refuses jumps that would not land, and lets those that do") {
  const Profile profile = guarded(Guarding::WalkAndJump);
  const TriangleWorld world = Scene()
                                  .block({0, -9, 0}, {8, 9, 8})
                                  .block({0, -9, -6.5}, {8, 9, 2})
                                  .block({0, -10, 0}, {80, 1, 80})
                                  .world();
  for (const int hz : tick_rates()) {
    const auto drive = [&](double yaw, double jump_at) {
      bool left = false;
      const CharacterState s = run(
          standing_at(profile, {0, 0, -2.5}), profile, world, hz, 3.0,
          [&](double t) {
            InputFrame input = turned_push(yaw);
            if (t >= jump_at && t < jump_at + 1.0 / hz)
              input = press(Action::Jump), input.move = turned_push(yaw).move;
            return input;
          },
          [&](const CharacterState& state) { left = left || !state.grounded(); });
      return std::pair(s, left);
    };
    INFO(hz << " ticks/s");
    const auto [across, flew] = drive(0.0, 0.2);
    CHECK(flew);
    CHECK(across.foot_C.z < -5.5);
    CHECK(across.foot_C.y == Approx(0.0).margin(1e-6));
    const auto [kept, went] = drive(90.0, 0.8);
    CHECK(!went);
    CHECK(kept.foot_C.x == Approx(-4.0 + profile.ledge.least_reach).margin(kOff));
    // Straight up at the rim, and pushed out only then.
    bool fell = false;
    CharacterState s = standing_at(profile, {-3.7, 0, 0});
    s = run(
        s, profile, world, hz, 2.0,
        [&](double t) {
          InputFrame input = t < 1.0 / hz ? press(Action::Jump) : push(-1, 0);
          return input;
        },
        [&](const CharacterState& state) { fell = fell || state.foot_C.y < -0.5; });
    CHECK(!fell);
  }
}

TEST_CASE("Who falls already is let jump in the air, wherever that lands") {
  Profile profile = guarded(Guarding::WalkAndJump);
  profile.jump.air_jumps = 1;
  const TriangleWorld world = Scene().block({0, -60, 0}, {80, 1, 80}).world();
  for (const int hz : tick_rates()) {
    INFO(hz << " ticks/s");
    bool rose = false;
    run(
        standing_at(profile, Vec3(0.0)), profile, world, hz, 1.0,
        [&](double t) { return t >= 0.5 && t < 0.5 + 1.0 / hz ? press(Action::Jump) : InputFrame{}; },
        [&](const CharacterState& s) { rose = rose || s.velocity_C.y > 1.0; });
    CHECK(rose);
  }
}

TEST_CASE("What a guard refuses is told with its numbers") {
  const Profile profile = guarded(Guarding::WalkAndJump);
  const TriangleWorld world = Scene().block({0, -9, 0}, {8, 9, 8}).block({0, -10, 0}, {80, 1, 80}).world();
  CharacterState s =
      run(standing_at(profile, {0, 0, 0}, 0.0), profile, world, 60, 2.0, [](double) { return push(0, 1); });
  Ledger ledger;
  InputFrame input = press(Action::Jump);
  input.move = {0.0, 1.0};
  step(s, input, profile, world, 1.0 / 60.0, &ledger);
  const entry::RimHeld* held = nullptr;
  const entry::JumpWouldFall* falls = nullptr;
  for (const LedgerEntry& entry : ledger.entries) {
    if (const auto* e = std::get_if<entry::RimHeld>(&entry)) held = e;
    if (const auto* e = std::get_if<entry::JumpWouldFall>(&entry)) falls = e;
  }
  REQUIRE(held != nullptr);
  CHECK(length(held->rim_C - Vec3(0, 0, -4)) < 1e-3);
  CHECK(length(held->inward_C - Vec3(0, 0, 1)) < 1e-3);
  CHECK(held->taken > 0.2);
  REQUIRE(falls != nullptr);
  CHECK(falls->lands);
  CHECK(falls->drop == Approx(9.0).margin(1e-3));
  CHECK(falls->landing_C.z < -4.0);
  // By conservation of energy: up, and down 9 m more.
  const double g = profile.gravity, h = profile.jump.height;
  CHECK(falls->seconds == Approx(std::sqrt(2 * h / g) + std::sqrt(2 * (h + 9) / g)).margin(0.02));
  CHECK(to_sentence(*falls, world).find("9.000 m below the take-off") != std::string::npos);
}

TEST_CASE("Lying, feet and head stay from rims as well") {
  const Profile profile;
  const Plateau plateau = plateaus()[2];
  const TriangleWorld world = plateau.scene.world();
  const double half = 0.5 * (profile.stances.lying_length - 2.0 * profile.capsule.radius);
  for (const int hz : tick_rates()) {
    Random random(static_cast<std::uint64_t>(hz));
    CharacterState s = run(standing_at(profile, {-3, 0, 3}), profile, world, hz, 2.0, [&](double t) {
      return t >= 0.5 && t < 0.5 + 1.0 / hz ? press(Action::Lie) : InputFrame{};
    });
    REQUIRE(s.lying());
    double until = 0.0, nearest = 1e9;
    InputFrame input;
    run(
        s, profile, world, hz, 60.0,
        [&](double t) {
          if (t >= until) until = t + random.between(0.5, 3.0), input = turned_push(random.between(-180, 180));
          return input;
        },
        [&](const CharacterState& state) {
          for (const double end : {-half, half}) {
            const Vec3 at = state.foot_C + look_direction(state.frame_CB, state.facing, 0.0) * end;
            nearest = std::min(nearest, plateau.distance(at));
          }
        });
    INFO(hz << " ticks/s");
    CHECK(nearest >= -1e-9);
  }
}

namespace {

// Before a rim that lies in the direction of -z: what becomes of a push, by where one faces and how one moves.
enum class Gets { Held, Along, Away };
struct Cell {
  const char* facing;
  double yaw_deg;
  const char* push;
  Vec2 stick;  // Right and forward.
  Gets gets;
};
const double kHalf = std::sqrt(0.5);
const Cell kCells[] = {
    {"out", 0, "forward", {0, 1}, Gets::Held},
    {"out", 0, "back", {0, -1}, Gets::Away},
    {"out", 0, "left", {-1, 0}, Gets::Along},
    {"out", 0, "right", {1, 0}, Gets::Along},
    {"out", 0, "forward-left", {-kHalf, kHalf}, Gets::Along},
    {"in", 180, "forward", {0, 1}, Gets::Away},
    {"in", 180, "back", {0, -1}, Gets::Held},
    {"in", 180, "left", {-1, 0}, Gets::Along},
    {"in", 180, "right", {1, 0}, Gets::Along},
    {"in", 180, "back-right", {kHalf, -kHalf}, Gets::Along},
    {"along", -90, "forward", {0, 1}, Gets::Along},
    {"along", -90, "back", {0, -1}, Gets::Along},
    {"along", -90, "left", {-1, 0}, Gets::Held},
    {"along", -90, "right", {1, 0}, Gets::Away},
    {"along", -90, "forward-left", {-kHalf, kHalf}, Gets::Along},
};
struct Mode {
  const char* name;
  std::optional<Action> held, pressed;
  double before;  // m from the rim.
  double seconds;
  double least_way;  // m that is gone where nothing holds.
};
const Mode kModes[] = {{"walking", {}, {}, 0.3, 1.0, 1.5},
                       {"sprinting", Action::Sprint, {}, 0.3, 1.0, 2.5},
                       {"crouched", Action::Crouch, {}, 0.3, 1.0, 0.6},
                       {"lying", {}, Action::Lie, 1.4, 3.0, 0.6},
                       {"jumping", {}, Action::Jump, 0.3, 0.5, 0.8}};

}  // namespace

TEST_CASE("At a rim each push, way of moving and facing moves one or is held, as written down") {
  const Profile profile = guarded(Guarding::WalkAndJump);
  const TriangleWorld world = Scene().block({0, -9, 0}, {80, 9, 80}).block({0, -10, 0}, {400, 1, 400}).world();
  for (const Cell& cell : kCells) {
    for (const Mode& mode : kModes) {
      for (const int hz : tick_rates()) {
        INFO("facing " << cell.facing << ", " << cell.push << ", " << mode.name << ", " << hz << " ticks/s");
        const double rim = -40.0, begin = 1.5;
        bool left_ground = false;
        const CharacterState from = standing_at(profile, {0, 0, rim + mode.before}, radians(cell.yaw_deg));
        const CharacterState s = run(
            from, profile, world, hz, begin + mode.seconds,
            [&](double t) {
              InputFrame input;
              if (t >= begin) input.move = cell.stick;
              if (mode.held) input.held.set(*mode.held, true);
              const bool lies = mode.pressed == Action::Lie;
              const double at = lies ? 0.5 : begin;
              if (mode.pressed && t >= at - 1e-9 && t < at + 1.0 / hz - 1e-9)
                input.pressed.set(*mode.pressed, true);
              return input;
            },
            [&](const CharacterState& state) {
              left_ground = left_ground || (state.time > 1.0 && !state.grounded());
            });
        const double out = from.foot_C.z - s.foot_C.z, along = std::abs(s.foot_C.x - from.foot_C.x);
        const double half = s.lying() ? 0.58 : 0.0;
        CHECK(s.foot_C.y > -0.01);
        CHECK(out <= mode.before - profile.ledge.least_reach + half + kOff);
        if (cell.gets == Gets::Along) CHECK(along > kHalf * mode.least_way);
        if (cell.gets == Gets::Away) CHECK(out < -mode.least_way);
        if (cell.gets == Gets::Held) CHECK(along < 0.02);
        if (mode.pressed == Action::Jump) {
          const bool outwards = cell.gets == Gets::Held || std::abs(cell.stick.x * cell.stick.y) > 0.1;
          CHECK(left_ground != outwards);
        } else {
          CHECK(!left_ground);
        }
      }
    }
  }
}
