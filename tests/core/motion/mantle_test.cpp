// SPDX-License-Identifier: MIT
// Over rims: the way, its time and its end against places whose heights are known, at any rate and up.
#include <catch2/catch.hpp>

#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

using Why = entry::MantleRefused::Why;

Profile asking(Profile::Mantle::Start start = Profile::Mantle::Start::Button) {
  Profile profile;
  profile.mantle.start = start;
  return profile;
}

// What a drive came to.
struct Way {
  CharacterState end;
  double began = -1.0, ended = -1.0;  // s.
  double deepest = 0.0, fastest = 0.0;
  bool vaulted = false;
  std::vector<Vec3> feet_E;
};

// Stands at `foot_E`, facing -Z, and presses climb at the start; `stick` is held.
Way mantle(const Scene& scene, const Vec3& foot_E, const Profile& profile, int hz, double seconds,
           const Frame& frame = frames().front(), const InputFrame& stick = {}) {
  const TriangleWorld world = scene.world(frame);
  CharacterState state = standing_at(profile, foot_E, 0.0, frame);
  Way way;
  InputFrame input = stick;
  input.pressed.set(Action::Climb, true);
  for (long tick = 0; tick < std::lround(seconds * hz); ++tick) {
    const bool held = state.holding();
    const double before = state.time;
    state = step(state, input, profile, world, 1.0 / hz);
    input.pressed = {};
    way.vaulted = way.vaulted || state.hold.kind == Hold::Kind::Vault;
    if (state.holding() && way.began < 0.0) way.began = before;
    if (held && !state.holding() && way.ended < 0.0) way.ended = state.time;
    way.deepest = std::max(way.deepest, deepest_overlap(state, profile, world));
    way.feet_E.push_back(frame.back(state.foot_C));
  }
  way.end = state;
  return way;
}

std::optional<entry::MantleRefused> refused(const TriangleWorld& world, const Profile& profile,
                                            CharacterState state) {
  Ledger ledger;
  step(state, press(Action::Climb), profile, world, 1.0 / 60, &ledger);
  for (const LedgerEntry& e : ledger.entries) {
    if (const auto* r = std::get_if<entry::MantleRefused>(&e)) return *r;
  }
  return std::nullopt;
}

}  // namespace

TEST_CASE(
    "Any height from a step to the highest is mantled, stands there, and in the time that its way takes") {
  const Profile profile = asking();
  for (const Frame& frame : frames()) {
    for (const double height : {0.36, 0.6, 1.0, 1.5, 1.99}) {
      INFO(frame.name << ", " << height);
      // The wall is 0.1 m before the body's skin.
      const Scene scene = Scene().floor().block({0, 0, -2.4}, {6, height, 4});
      const Way way = mantle(scene, Vec3(0.3, 0, 0), profile, 60, 2.0, frame);
      CHECK(way.end.grounded());
      CHECK(way.end.capsule_height == Approx(1.8).margin(1e-6));
      CHECK(frame.back(way.end.foot_C).y == Approx(height).margin(1e-5));
      CHECK(frame.back(way.end.foot_C).x == Approx(0.3).margin(1e-6));
      CHECK(way.deepest < profile.capsule.margin + 1e-9);
      // Up by the height and 2 mm, over by 0.1 m, the body and 2 mm, down 2 mm.
      const double length = height + 0.002 + 0.1 + 0.602 + 0.002;
      const double takes = std::max(profile.mantle.least_time, profile.mantle.time_per_metre * length);
      CHECK(way.ended - takes < 1.0 / 60 + 1e-6);
      CHECK(way.ended - takes > -1e-6);
    }
  }
}

TEST_CASE("The same way at every tick rate: the end of it is felt at its instant") {
  const Profile profile = asking();
  const Scene scene = Scene().floor().block({0, 0, -2.9}, {6, 1.2, 4});
  const InputFrame forward = push(0, 1);
  const CharacterState fine = mantle(scene, {0, 0, 0}, profile, 480, 2.0, frames().front(), forward).end;
  for (const int hz : {20, 24, 30, 60, 100, 144, 240}) {
    INFO(hz);
    const Way way = mantle(scene, {0, 0, 0}, profile, hz, 2.0, frames().front(), forward);
    CHECK(length(way.end.foot_C - fine.foot_C) < 0.001);
    CHECK(way.end.state == fine.state);
  }
}

TEST_CASE("What is thin is vaulted, to lower and higher ground, no slower than what is kept of the run-up") {
  Profile profile = asking();
  for (const double behind : {-0.9, 0.0, 0.3}) {
    INFO(behind);
    Scene scene;
    scene.block({0, -2, 8}, {20, 2, 20}).block({0, 0, -2.1}, {6, 0.8, 0.2});
    scene.block({0, behind - 2, -12}, {20, 2, 19.6});
    const TriangleWorld world = scene.world();
    for (const int hz : {30, 144}) {
      Driven d(scene.world(), profile, Home{Vec3(0, 0, 2)});
      d.hz = hz;
      InputFrame run = held({Action::Climb, Action::Sprint}, 0.0, 1.0);
      double slowest = 1e9;
      bool vaulted = false;
      for (int i = 0; i < 2 * hz && !(vaulted && !d.state.holding()); ++i) {
        d.go(1.0 / hz, run);
        if (!d.state.holding()) continue;
        vaulted = vaulted || d.state.hold.kind == Hold::Kind::Vault;
        slowest = std::min(slowest, length(d.state.velocity_C));
      }
      CHECK(vaulted);
      CHECK(d.state.grounded());
      CHECK(d.state.foot_C.y == Approx(behind).margin(1e-4));
      CHECK(slowest >= profile.mantle.kept_speed * profile.ground.sprint_speed - 0.01);
    }
  }
  // Deeper than it lands: it is stood on where that is wide enough, else refused.
  const auto edge = [](double thick) {
    return Scene().block({0, -2, 9.4}, {20, 2, 20}).block({0, -9, -0.6 - 0.5 * thick}, {6, 9.8, thick}).world();
  };
  CHECK(refused(edge(0.1), profile, standing_at(profile, Vec3(0.0)))->why == Why::NoLanding);
  Driven d(edge(0.5), profile);
  d.play("K k:1.5");
  CHECK(d.state.foot_C.y == Approx(0.8).margin(1e-4));
}

TEST_CASE("Every refusal of a mantle is told with its numbers") {
  const Profile profile = asking();
  const auto told = [&](const Scene& scene, const Profile& by) {
    const TriangleWorld world = scene.world();
    const auto found = refused(world, by, standing_at(by, Vec3(0.0)));
    return found ? to_sentence(*found, world) : std::string("nothing");
  };
  const auto wall = [](double height, double thick = 4.0) {
    return Scene().floor().block({0, 0, -0.5 - 0.5 * thick}, {6, height, thick});
  };
  CHECK(told(Scene().floor(), profile) == "mantle refused: no wall within reach");
  CHECK_THAT(told(wall(2.41), profile), Catch::Contains("too high: 2.410 m > 2.000 m"));
  CHECK_THAT(told(wall(9.0), profile), Catch::Contains("no rim up to 2.000 m"));
  CHECK_THAT(told(Scene().floor().block({0, 0, -3}, {6, 1, 4}), profile),
             Catch::Contains("not reached: 0.700 m > 0.450 m"));
  CHECK_THAT(told(wall(1.0).block({0, 1.9, -2.5}, {6, 1, 4}), profile), Catch::Contains("no room to crouch"));
  CHECK_THAT(told(wall(1.0).block({0, 2.0, 0.3}, {6, 1, 1}), profile), Catch::Contains("is overhead"));
  CHECK_THAT(
      told(Scene().floor().block({0, 0, -2.5}, {6, 1, 4}, {0, 0, 0}).block({0, 1.0, -1.0}, {0.4, 0.3, 0.2}),
           profile),
      !Catch::Contains("nothing"));
  Profile never = profile;
  never.mantle.start = Profile::Mantle::Start::Never;
  CHECK(told(wall(1.0), never) == "nothing");
}

TEST_CASE("By the stick it begins where one pushes into the wall, not along it") {
  const Profile profile = asking(Profile::Mantle::Start::Stick);
  const TriangleWorld world = Scene().floor().block({0, 0, -2.5}, {60, 1, 4}).world();
  for (const double degrees_off : {0.0, 30.0, 44.0, 46.0, 80.0}) {
    INFO(degrees_off);
    const double a = radians(degrees_off);
    CharacterState state = standing_at(profile, Vec3(0, 0, 0.3));
    bool held = false;
    state = run(
        state, profile, world, 60, 2.0, [&](double) { return push(std::sin(a), std::cos(a)); },
        [&](const CharacterState& s) { held = held || s.holding(); });
    CHECK(held == (degrees_off < 45.0));
  }
  // A push of less than half asks for nothing.
  CharacterState state = standing_at(profile, Vec3(0, 0, 0.3));
  state = run(state, profile, world, 60, 3.0, [&](double) { return push(0, 0.4); });
  CHECK(state.foot_C.y < 0.1);
}

TEST_CASE("A wall that leans a little over or back is mantled as an upright one") {
  const Profile profile = asking();
  for (const double lean : {-3.0, -0.0001, 0.0, 0.0001, 3.0, 12.0}) {
    INFO(lean);
    // Turned about the foot of its front face.
    const double a = radians(lean), height = 1.4;
    Scene scene;
    scene.floor();
    const Quat turn = glm::angleAxis(-a, Vec3(1, 0, 0));
    const Vec3 origin(0, 0, lean < -1.0 ? -0.48 : -0.4);
    for (const Triangle& t : triangles_of({"", {0, -1, -2}, Vec3(0.0), "", shape::Block{{6, 1 + height, 4}}})) {
      const auto at = [&](const Vec3& p) { return origin + turn * p; };
      scene.triangle({at(t.v0_C), at(t.v1_C), at(t.v2_C)});
    }
    const Way way = mantle(scene, Vec3(0, 0, 0), profile, 60, 2.5);
    CHECK(way.began == 0.0);
    CHECK(way.end.grounded());
    CHECK(way.end.foot_C.y > 1.2);
    CHECK(way.deepest < profile.capsule.margin + 1e-9);
  }
}

TEST_CASE("From the air any rim over the foot counts, while the button is held") {
  Driven d(Scene().floor().block({0, 0, -2.6}, {6, 2.6, 4}).world(), asking());
  d.play("K");
  CHECK_FALSE(d.state.holding());
  d.play("J kw:0.4");
  CHECK(d.states.contains("Mantle"));
  d.play("kw:1.5");
  CHECK(d.state.foot_C.y == Approx(2.6).margin(1e-4));
}

TEST_CASE("Letting go on the way falls, and something that comes into the way ends it, told") {
  Driven d(Scene().floor().block({0, 0, -2.5}, {6, 1.8, 4}).world(), asking());
  d.play("K k:0.3 kC");
  CHECK_FALSE(d.state.holding());
  CHECK(d.states.contains("Tuck"));
  d.play(":1");
  CHECK(d.state.foot_C.y == Approx(0.0).margin(1e-6));
  CHECK(d.state.capsule_height == Approx(1.8));
}

TEST_CASE("What comes into the way over ends it: back where it fits, falling, and told") {
  TriangleWorld::Builder builder;
  const auto add = [&](const Vec3& size, const Vec3& at) {
    for (const Triangle& t : triangles_of({"", at, Vec3(0.0), "", shape::Block{size}})) builder.add(t);
  };
  builder.begin_piece("floor");
  add({60, 1, 60}, {0, -1, 0});
  add({6, 1, 4}, {0, 0, -2.5});
  PieceMotion motion;
  motion.keys = {{0.0}, {0.02}, {0.03, Vec3(0, 0, 3)}};
  motion.period = 20.0;
  motion.at_C = Vec3(0, 1.1, -5);
  builder.begin_moving_piece("shutter", motion);
  add({6, 2, 3.3}, Vec3(0.0));
  const TriangleWorld world = builder.commit({Box{Vec3(-1e4), Vec3(1e4)}});
  const Profile profile = asking();
  for (const int hz : {20, 60, 144}) {
    INFO(hz);
    CharacterState state = standing_at(profile, Vec3(0.0));
    InputFrame input = press(Action::Climb);
    std::string told;
    for (int i = 0; i < 2 * hz; ++i) {
      Ledger ledger;
      state = step(state, input, profile, world, 1.0 / hz, &ledger);
      input = {};
      CHECK(state.penetration < 1e-3);
      for (const LedgerEntry& e : ledger.entries)
        if (std::holds_alternative<entry::MantleBlocked>(e)) told = to_sentence(e, world);
    }
    CHECK_THAT(told, Catch::StartsWith("lets go after") && Catch::Contains("shutter"));
    CHECK(state.foot_C.y == Approx(0.0).margin(1e-4));
  }
}

TEST_CASE("A crate that moves and turns is mantled as one at rest, and takes along who is on the way") {
  TriangleWorld::Builder builder;
  const auto add = [&](const Vec3& size, const Vec3& at) {
    for (const Triangle& t : triangles_of({"", at, Vec3(0.0), "", shape::Block{size}})) builder.add(t);
  };
  builder.begin_piece("floor");
  add({60, 1, 60}, {0, -1, 0});
  PieceMotion motion;
  motion.keys = {
      {0.0}, {0.5, Vec3(4, 2, 0), Vec3(radians(90.0), 0, 0)}, {1.0, Vec3(4, 2, 0), Vec3(radians(90.0), 0, 0)}};
  motion.period = 8.0;
  motion.at_C = Vec3(0, 0, -2.5);
  builder.begin_moving_piece("crate", motion);
  add({4, 1.2, 4}, Vec3(0.0));
  const TriangleWorld world = builder.commit({Box{Vec3(-1e4), Vec3(1e4)}});
  const Profile profile = asking();
  for (const int hz : {20, 60, 240}) {
    INFO(hz);
    CharacterState state = standing_at(profile, Vec3(0.0));
    InputFrame input = press(Action::Climb);
    bool held = false;
    for (int i = 0; i < 2 * hz; ++i) {
      state = step(state, input, profile, world, 1.0 / hz);
      input = {};
      held = held || state.holding();
      CHECK(state.penetration < 1e-3);
    }
    CHECK(held);
    CHECK(state.grounded());
    const RigidPose frame = world.piece_frame(1, state.time);
    const Vec3 foot_P = frame.back(state.foot_C);
    CHECK(foot_P.y == Approx(1.2).margin(0.003));
    CHECK(foot_P.x == Approx(0.0).margin(0.05));
    CHECK(foot_P.z == Approx(2.0 - 0.302).margin(0.05));
  }
}

TEST_CASE("The feed tells a game where hands and feet are to be, and how far it is") {
  const Profile profile = asking();
  const TriangleWorld world = Scene().floor().block({0, 0, -2.5}, {6, 1.0, 4}).world();
  CharacterState state = standing_at(profile, Vec3(0.2, 0, 0)), before = state;
  InputFrame input = press(Action::Climb);
  double last = 0.0;
  int ticks = 0;
  for (int i = 0; i < 60; ++i) {
    before = state;
    state = step(state, input, profile, world, 1.0 / 60);
    input = {};
    const PoseFeed feed = pose_feed(before, state, profile, 1.0 / 60);
    if (!state.holding()) {
      CHECK(feed.hold.empty());
      continue;
    }
    ++ticks;
    CHECK(feed.hold == "mantle");
    CHECK(feed.pose == "mantle");
    CHECK(feed.hold_phase > last);
    last = feed.hold_phase;
    CHECK(length(feed.hold_rim_P - Vec3(0.2, 1.0, -0.5)) < 1e-5);
    CHECK(length(feed.hold_from_P - Vec3(0.2, 0, 0)) < 1e-9);
    CHECK(feed.hold_to_P.y == Approx(1.0).margin(1e-4));
  }
  CHECK(ticks > 30);
  CHECK(last > 0.95);
}

TEST_CASE("In random places a mantle goes through nothing and ends in nothing, whatever begins it", "[long]") {
  int begun = 0;
  for (std::uint64_t seed = 0; seed < 220; ++seed) {
    INFO("seed " << seed);
    Random random(seed);
    Scene scene;
    scene.floor(20.0);
    for (int i = 0; i < 10; ++i)
      scene.block({random.between(-2, 2), random.between(-0.5, 1.8), random.between(-3, -0.5)},
                  {random.between(0.1, 2), random.between(0.05, 1.5), random.between(0.1, 2)},
                  {random.between(-180, 180), random.between(-25, 25), random.between(-25, 25)});
    const Frame& frame = frames()[seed % frames().size()];
    const TriangleWorld world = scene.world(frame);
    const Profile profile = asking(Profile::Mantle::Start::Always);
    const int hz = tick_rates()[seed % tick_rates().size()];
    CharacterState state = standing_at(profile, Vec3(0, 0, 0.4), 0.0, frame);
    if (deepest_overlap(state, profile, world) > 0.0) continue;
    const double side = random.between(-0.4, 0.4);
    bool held = false;
    state = run(
        state, profile, world, hz, 2.0, [&](double) { return push(side, 1); },
        [&](const CharacterState& s) {
          if (s.holding() && !held) ++begun;
          if (s.holding() || held) CHECK(deepest_overlap(s, profile, world) < profile.capsule.margin + 1e-6);
          held = s.holding();
          CHECK(s.holding() == (s.state == StateId::Mantle));
        });
  }
  CHECK(begun > 30);
}

TEST_CASE("Nobody is brought onto what is no ground, or slips off where there is none to stand on") {
  const Profile profile = asking();
  const auto told = [&](Surface surface, double slope) {
    TriangleWorld::Builder builder;
    const auto add = [&](const Vec3& at, const Vec3& turn, const Vec3& size, const Surface& of) {
      for (const Triangle& t : triangles_of({"", at, turn, "", shape::Block{size}})) builder.add(t, of);
    };
    builder.begin_piece("floor");
    add({0, -1, 0}, Vec3(0.0), {40, 1, 40}, {});
    builder.begin_piece("crate");
    add({0, 0, -2.6}, {0, radians(slope), 0}, {6, 1, 4}, surface);
    const TriangleWorld world = builder.commit({Box{Vec3(-1e4), Vec3(1e4)}});
    const auto r = refused(world, profile, standing_at(profile, Vec3(0.0)));
    return r ? std::optional(r->why) : std::nullopt;
  };
  CHECK_FALSE(told({}, 0.0));
  CHECK(told({Surface::Walk::ByAngle, false}, 0.0) == Why::NoLanding);
  CHECK(told({Surface::Walk::Never}, 0.0) == Why::NoLanding);
  CHECK_FALSE(told({Surface::Walk::ByAngle, true, false, 0.12}, 0.0));
  // Behind a rail the foot's side would come down on a post, with nothing under its middle.
  const TriangleWorld post =
      Scene().floor().block({0, 0, -0.6}, {3, 0.9, 0.08}).block({0.28, 0, -1.0}, {0.08, 0.6, 0.08}).world();
  const auto r = refused(post, profile, standing_at(profile, Vec3(0.0)));
  REQUIRE(r);
  CHECK(r->why == Why::SlipsOff);
}

TEST_CASE("Pushed askew against a wall one goes straight over it, and turns to it") {
  const Profile profile = asking();
  for (const double askew : {-30.0, -15.0, 0.0, 25.0, 35.0}) {
    INFO(askew);
    const double a = radians(askew);
    const Scene scene = Scene().floor().block({0, 0, -2.6}, {8, 1.1, 4});
    const Way way =
        mantle(scene, Vec3(0, 0, 0), profile, 60, 0.5, frames().front(), push(std::sin(a), std::cos(a)));
    CHECK(way.end.holding());
    CHECK(way.end.foot_C.x == Approx(0.0).margin(0.005));
    CHECK(wrap_angle(way.end.facing) == Approx(0.0).margin(1e-6));
  }
}

TEST_CASE("On a lift that rises and sinks a crate that rides along is mantled as one at rest") {
  for (const double rise : {3.0, -3.0}) {
    for (const int hz : {20, 60, 144}) {
      INFO(rise << " m, " << hz << " ticks/s");
      TriangleWorld::Builder builder;
      const auto add = [&](const Vec3& size, const Vec3& at) {
        for (const Triangle& t : triangles_of({"", at, Vec3(0.0), "", shape::Block{size}})) builder.add(t);
      };
      PieceMotion motion;
      motion.keys = {{0.0}, {0.5, Vec3(1.0, rise, 0)}, {1.0}};
      motion.period = 6.0;
      builder.begin_moving_piece("lift", motion);
      add({12, 1, 12}, {0, -1, 0});
      builder.begin_moving_piece("crate", motion);
      add({4, 1.2, 4}, {0, 0, -2.6});
      const TriangleWorld world = builder.commit({Box{Vec3(-1e4), Vec3(1e4)}});
      const Profile profile = asking();
      CharacterState state = start_state(profile, Home{}, world);
      InputFrame input;
      double held_for = 0.0;
      bool blocked = false;
      for (int i = 0; i < 2 * hz; ++i) {
        if (i == hz / 4) input = press(Action::Climb);
        Ledger ledger;
        state = step(state, input, profile, world, 1.0 / hz, &ledger);
        input = {};
        held_for += state.holding() ? 1.0 / hz : 0.0;
        for (const LedgerEntry& e : ledger.entries)
          blocked = blocked || std::holds_alternative<entry::MantleBlocked>(e);
      }
      CHECK_FALSE(blocked);
      CHECK(state.grounded());
      // The same way, and the same time, as at rest.
      const Vec3 foot_P = world.piece_frame(1, state.time).back(state.foot_C);
      CHECK(foot_P.y == Approx(1.2).margin(1e-4));
      CHECK(foot_P.z == Approx(-0.6 - 0.302).margin(1e-3));
      const double takes = profile.mantle.time_per_metre * (1.2 + 0.002 + 0.3 + 0.602 + 0.002);
      CHECK(held_for == Approx(takes).margin(1.0 / hz + 1e-6));
    }
  }
}
