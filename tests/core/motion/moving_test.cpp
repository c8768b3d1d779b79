// SPDX-License-Identifier: MIT
// Pieces that move: their motion as a function of time, and what they do to a character.
#include <catch2/catch.hpp>

#include "lagniappe/handling.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

using Ease = PieceMotion::Ease;
using Repeat = PieceMotion::Repeat;

const auto kNothing = [](double) { return InputFrame{}; };

PieceMotion motion_of(std::vector<PieceMotion::Key> keys, double period, Repeat repeat = Repeat::Loop) {
  PieceMotion m;
  m.keys = std::move(keys);
  m.period = period;
  m.repeat = repeat;
  return m;
}

PieceMotion lift(double height, double period) {
  return motion_of({{0.0, Vec3(0.0), Vec3(0.0), Ease::Smooth}, {1.0, Vec3(0, height, 0)}}, period,
                   Repeat::BackAndForth);
}

PieceMotion turntable(double period) {
  return motion_of({{0.0}, {1.0, Vec3(0.0), Vec3(2 * kPi, 0, 0)}}, period);
}

// A floor (unless told otherwise) and blocks that move, all in the easy frame.
class MovingScene {
 public:
  explicit MovingScene(bool with_floor = true) {
    if (!with_floor) return;
    builder_.begin_piece("floor");
    add(shape::Block{{200, 1, 200}}, Vec3(0, -1, 0));
  }
  MovingScene& still(const Vec3& at, const Vec3& size) {
    builder_.begin_piece("still");
    add(shape::Block{size}, at);
    return *this;
  }
  MovingScene& moving(const Vec3& at, const Shape& shape, PieceMotion motion, const Vec3& turn = Vec3(0.0)) {
    motion.at_C = at;
    motion.turn = turn;
    builder_.begin_moving_piece("mover", std::move(motion));
    add(shape, Vec3(0.0));
    return *this;
  }
  TriangleWorld world() { return builder_.commit({Box{Vec3(-1e4), Vec3(1e4)}}); }

 private:
  void add(const Shape& shape, const Vec3& at) {
    Piece piece;
    piece.at_C = at;
    piece.shape = shape;
    for (const Triangle& t : triangles_of(piece)) builder_.add(t);
  }
  TriangleWorld::Builder builder_;
};

const Shape kPlate = shape::Block{{3, 0.2, 3}};

CharacterState at(const TriangleWorld& world, const Profile& profile, const Vec3& foot, double yaw = 0.0) {
  return start_state(profile, {foot, Quat(1, 0, 0, 0), yaw}, world);
}

}  // namespace

TEST_CASE("A motion's velocity is the derivative of its pose, wherever it is smooth") {
  Random random(31);
  for (int scene = 0; scene < 200; ++scene) {
    PieceMotion m;
    m.period = random.between(2, 20);
    m.phase = random.between(-1, 1);
    m.repeat = random.below(2) == 0 ? Repeat::Loop : Repeat::BackAndForth;
    m.path = random.below(2) == 0 ? PieceMotion::Path::Straight : PieceMotion::Path::Curved;
    m.pivot_P = random.point(2.0);
    m.at_C = random.point(5.0);
    m.turn = random.point(2.0);
    const int count = 2 + random.below(5);
    for (int i = 0; i < count; ++i)
      m.keys.push_back(
          {double(i) / count, random.point(4.0), random.point(2.0), static_cast<Ease>(random.below(4))});
    const double time = random.between(-50, 50), h = 1e-5;
    const Vec3 point_P = random.point(2.0);
    const RigidPose before = m.pose_at(time - h), now = m.pose_at(time), after = m.pose_at(time + h);
    const Vec3 numeric = (after.point(point_P) - before.point(point_P)) / (2 * h);
    const Vec3 exact = m.velocity_at(time).at(now.point(point_P));
    const Vec3 one_side = (after.point(point_P) - now.point(point_P)) / h;
    INFO(scene);
    // At a key the two sides differ; there the one that comes next is promised.
    CHECK(std::min(length(exact - numeric), length(exact - one_side)) < 1e-2);
    CHECK(length(now.back(now.point(point_P)) - point_P) < 1e-12);
  }
}

TEST_CASE("Motions repeat, begin where they say, and a closed curve through a circle's points stays near it") {
  PieceMotion m = lift(3.0, 8.0);
  CHECK(m.pose_at(0.0).position_C.y == 0.0);
  CHECK(m.pose_at(2.0).position_C.y == Approx(1.5));
  CHECK(m.pose_at(4.0).position_C.y == Approx(3.0));
  CHECK(m.pose_at(6.0).position_C.y == Approx(1.5));
  CHECK(m.pose_at(805.0).position_C.y == Approx(m.pose_at(5.0).position_C.y));
  m.phase = 0.25;
  CHECK(m.pose_at(0.0).position_C.y == Approx(1.5));
  CHECK(m.pose_at(-2.0).position_C.y == Approx(0.0).margin(1e-12));

  PieceMotion wheel;
  wheel.period = 10.0;
  wheel.path = PieceMotion::Path::Curved;
  for (int i = 0; i < 12; ++i)
    wheel.keys.push_back({i / 12.0, Vec3(std::sin(i * kPi / 6), std::cos(i * kPi / 6), 0) * 4.0});
  double worst = 0.0, roughest = 0.0;
  for (double t = 0.0; t < 10.0; t += 0.01) {
    worst = std::max(worst, std::abs(length(wheel.pose_at(t).position_C) - 4.0));
    roughest = std::max(roughest, length(wheel.velocity_at(t).linear_C - wheel.velocity_at(t + 1e-6).linear_C));
  }
  CHECK(worst < 0.02);
  CHECK(roughest < 1e-4);  // No corners.
}

TEST_CASE("A lift carries up and down without a gap, a jitter or a tick in the air") {
  const Profile profile;
  for (const double period : {4.0, 12.0}) {
    for (const int hz : tick_rates()) {
      const TriangleWorld world = MovingScene().moving({0, -0.2, 0}, kPlate, lift(3.0, period)).world();
      const PieceMotion& motion = *world.motion_of(1);
      CharacterState state = at(world, profile, {0.3, 0, 0.4});
      double worst = 0.0;
      int odd = 0;
      run(state, profile, world, hz, 3.0 * period, kNothing, [&](const CharacterState& s) {
        const double top = motion.pose_at(s.time).position_C.y + 0.2;
        worst = std::max(worst, std::abs(s.foot_C.y - std::max(top, 0.0)));
        odd += s.state != StateId::Stand;
        if (s.ground.piece == 1)
          CHECK(s.velocity_C.y == Approx(motion.velocity_at(s.time).linear_C.y).margin(1e-9));
      });
      INFO("period " << period << ", " << hz << " ticks/s");
      CHECK(worst < 1e-7);
      CHECK(odd == 0);
    }
  }
}

TEST_CASE("Ferries and turntables carry who stands on them: place, facing and look, to the closed form") {
  const Profile profile;
  for (const int hz : tick_rates()) {
    INFO(hz << " ticks/s");
    const TriangleWorld table =
        MovingScene(false).moving({0, 0, 0}, shape::Block{{8, 0.2, 8}}, turntable(6.0)).world();
    CharacterState state = at(table, profile, {2.0, 0.2, 0.0}, 0.3);
    state = run(state, profile, table, hz, 2.0, kNothing);
    const double turned = 2.0 * 2 * kPi / 6.0;
    CHECK(length(state.foot_C - (glm::angleAxis(turned, Vec3(0, 1, 0)) * Vec3(2.0, 0, 0) + Vec3(0, 0.2, 0))) <
          1e-6);
    CHECK(wrap_angle(state.yaw - 0.3 - turned) == Approx(0.0).margin(1e-9));
    CHECK(wrap_angle(state.facing - 0.3 - turned) == Approx(0.0).margin(1e-9));
    CHECK(length(state.velocity_C) == Approx(2.0 * 2 * kPi / 6.0).epsilon(1e-6));

    PieceMotion sail = motion_of({{0.0, Vec3(0.0)}, {1.0, Vec3(30, 0, 0)}}, 20.0, Repeat::BackAndForth);
    const TriangleWorld ferry = MovingScene(false).moving({0, 0, 0}, shape::Block{{20, 0.2, 20}}, sail).world();
    // Walking across it: the ferry's way and the walker's add up.
    state = at(ferry, profile, {0, 0.2, 5.0});
    const Vec3 before = state.foot_C;
    state = run(state, profile, ferry, hz, 2.0, [](double) { return push(0, 1); });
    const double walked =
        profile.ground.speed * (2.0 - profile.ground.response.time * (1 - std::exp(-2.0 / 0.1)));
    CHECK(length(state.foot_C - before - Vec3(6.0, 0, -walked)) < 1e-6);
  }
}

TEST_CASE("Stairs and slopes work on what moves") {
  const Profile profile;
  for (const int hz : {30, 60, 144, 240}) {
    INFO(hz << " ticks/s");
    PieceMotion sail =
        motion_of({{0.0, Vec3(0.0), Vec3(0.0), Ease::Smooth}, {1.0, Vec3(8, 1, 0)}}, 8.0, Repeat::BackAndForth);
    const TriangleWorld world = MovingScene()
                                    .moving({0, 0.1, 0}, shape::Stairs{3, 0.18, 0.28, 8}, sail)
                                    .moving({0, 0.1, -3.1}, shape::Block{{3, 1.44, 4}}, sail)
                                    .world();
    CharacterState state = at(world, profile, {0, 0, 3.0});
    int airborne = 0;
    state = run(
        state, profile, world, hz, 1.7, [&](double) { return push(0, 1); },
        [&](const CharacterState& s) { airborne += !s.grounded(); });
    // The flight drifts aside and up meanwhile; on top is on top.
    const double top = world.motion_of(2)->pose_at(state.time).position_C.y + 1.44;
    CHECK(state.foot_C.y == Approx(top).margin(1e-6));
    CHECK(airborne == 0);
  }
}

TEST_CASE("A jump off a moving piece takes its velocity along as the profile says") {
  Profile profile;
  // Rises at 2 m/s and drifts at 3 m/s for a while.
  PieceMotion rising = motion_of({{0.0}, {1.0, Vec3(12, 8, 0)}}, 8.0, Repeat::BackAndForth);
  const double leap = take_off_speed(profile.gravity, profile.jump.height);
  using Inherits = Profile::Jump::Inherits;
  for (const auto& [inherits, level, up] :
       {std::tuple(Inherits::All, 3.0, 2.0), std::tuple(Inherits::Horizontal, 3.0, 0.0),
        std::tuple(Inherits::None, 0.0, 0.0)}) {
    profile.jump.inherits = inherits;
    for (const int hz : tick_rates()) {
      const TriangleWorld world = MovingScene().moving({0, 0, 0}, kPlate, rising).world();
      CharacterState state = run(at(world, profile, {0, 0.2, 0}), profile, world, hz, 0.5, kNothing);
      REQUIRE(state.grounded());
      state = step(state, press(Action::Jump), profile, world, 1.0 / hz);
      INFO(hz << " ticks/s");
      CHECK(state.velocity_C.x == Approx(level).margin(0.3));
      CHECK(state.velocity_C.y == Approx(leap + up - profile.gravity / hz).margin(1e-6));
    }
  }
}

TEST_CASE("Pieces that come push, however fast and thin they are, and never pass through") {
  const Profile profile;
  for (const double speed : {0.5, 3.0, 12.0, 60.0}) {
    for (const int hz : {20, 60, 240}) {
      // A board 2 cm thin crosses the character's place.
      const double way = 24.0;
      PieceMotion sweep = motion_of({{0.0}, {1.0, Vec3(way, 0, 0)}}, 2.0 * way / speed, Repeat::BackAndForth);
      const TriangleWorld world =
          MovingScene().moving({-10, 0.05, 0}, shape::Block{{0.02, 2.5, 6}}, sweep).world();
      CharacterState state = at(world, profile, {0, 0, 0.2});
      double overlap = 0.0;
      state = run(state, profile, world, hz, way / speed, kNothing, [&](const CharacterState& s) {
        overlap = std::max(overlap, deepest_overlap(s, profile, world));
      });
      INFO(speed << " m/s, " << hz << " ticks/s");
      CHECK(state.foot_C.x == Approx(-10 + way + 0.01 + profile.capsule.radius).margin(1e-3));
      CHECK(state.foot_C.y == Approx(0.0).margin(1e-6));
      CHECK(overlap < profile.capsule.margin);
    }
  }
  // A swinging gate pushes as well, turning about its hinge.
  PieceMotion swing = motion_of({{0.0}, {1.0, Vec3(0.0), Vec3(kPi, 0, 0)}}, 4.0, Repeat::BackAndForth);
  swing.pivot_P = Vec3(-1, 0, 0);
  for (const int hz : {20, 60, 240}) {
    const TriangleWorld world = MovingScene().moving({1, 0.05, 0}, shape::Block{{2, 2.2, 0.1}}, swing).world();
    CharacterState state = at(world, profile, {1.0, 0, -1.0});
    double overlap = 0.0;
    state = run(state, profile, world, hz, 1.9, kNothing, [&](const CharacterState& s) {
      overlap = std::max(overlap, deepest_overlap(s, profile, world));
    });
    INFO(hz << " ticks/s");
    CHECK(state.foot_C.x < -0.5);
    CHECK(overlap < profile.capsule.margin);
  }
}

TEST_CASE("A lift that comes up under a fall is landed on, and one that is stepped on carries") {
  const Profile profile;
  for (const int hz : tick_rates()) {
    INFO(hz << " ticks/s");
    const TriangleWorld world = MovingScene().moving({0, 0, 0}, kPlate, lift(4.0, 2.0)).world();
    CharacterState state = start_state(profile, {Vec3(0, 6, 0), Quat(1, 0, 0, 0), 0.0});
    const PieceMotion& motion = *world.motion_of(1);
    double below = 0.0;
    state = run(state, profile, world, hz, 6.0, kNothing, [&](const CharacterState& s) {
      below = std::min(below, s.foot_C.y - (motion.pose_at(s.time).position_C.y + 0.2));
    });
    CHECK(below > -profile.capsule.margin);
    CHECK(state.ground.piece == 1);

    // Stepping onto a lift in motion.
    const TriangleWorld steps = MovingScene().moving({0, 0.02, -3}, kPlate, lift(1.0, 8.0)).world();
    state = at(steps, profile, {0, 0, 0});
    int airborne = 0;
    state = run(
        state, profile, steps, hz, 0.55, [](double) { return push(0, 1); },
        [&](const CharacterState& s) { airborne += !s.grounded(); });
    CHECK(state.ground.piece == 1);
    CHECK(airborne == 0);
  }
}

TEST_CASE(
    "Two pieces that close squeeze: the character is reported crushed, stays sound, and walks on afterwards") {
  const Profile profile;
  for (const int hz : {20, 60, 240}) {
    INFO(hz << " ticks/s");
    // A ram from above leaves half a metre at its lowest, far too little.
    PieceMotion ram = motion_of({{0.0}, {1.0, Vec3(0, -3, 0)}}, 6.0, Repeat::BackAndForth);
    const TriangleWorld world = MovingScene().moving({0, 3.5, 0}, kPlate, ram).world();
    CharacterState state = at(world, profile, {0, 0, 0});
    int crushed = 0;
    double farthest = 0.0;
    state = run(state, profile, world, hz, 6.0, kNothing, [&](const CharacterState& s) {
      crushed += s.crushed;
      REQUIRE(is_finite(s.foot_C));
      farthest = std::max(farthest, length(s.foot_C));
    });
    CHECK(crushed > hz / 2);
    CHECK(farthest < 0.2);
    CHECK_FALSE(state.crushed);
    state = run(state, profile, world, hz, 0.5, [](double) { return push(0, 1); });
    CHECK(state.foot_C.z < -1.0);
  }
}

TEST_CASE("A start deep inside solids is pushed out within the limit, or reported") {
  Profile profile;
  profile.capsule.longest_push_out = 0.2;
  const TriangleWorld world = Scene().floor().block({2, 0, 0}, {3, 3, 3}).world();
  const auto pushed = [&](double x) {
    return step(start_state(profile, {Vec3(x, 0, 0), Quat(1, 0, 0, 0), 0.0}), {}, profile, world, 1.0 / 60);
  };
  CHECK_FALSE(pushed(0.35).crushed);  // 15 cm in.
  CHECK(pushed(0.35).foot_C.x == Approx(0.2).margin(1e-9));
  CHECK(pushed(0.45).crushed);  // 25 cm in.
  CHECK(pushed(0.45).foot_C.x == Approx(0.45).margin(1e-9));
}

TEST_CASE("Put home where a lift stood at the start, one stands on it only if it is there now") {
  const Profile profile;
  const TriangleWorld world = MovingScene().moving({0, 0, 0}, kPlate, lift(3.0, 4.0)).world();
  CharacterState state = at(world, profile, {0, 0.2, 0});
  REQUIRE(state.ground.piece == 1);
  state = run(state, profile, world, 60, 2.0, kNothing);  // The lift is at the top.
  const CharacterState away = step(state, press(Action::Reset), profile, world, 1.0 / 60);
  CHECK_FALSE(away.grounded());
  CHECK(away.velocity_C == Vec3(0.0));
  state = run(state, profile, world, 60, 2.0 - 1.0 / 60, kNothing);  // And down again with the next tick.
  const CharacterState back = step(state, press(Action::Reset), profile, world, 1.0 / 60);
  CHECK(back.ground.piece == 1);
}

TEST_CASE("A character carried into a wall stays there while the ferry goes on under it") {
  const Profile profile;
  PieceMotion sail = motion_of({{0.0}, {1.0, Vec3(10, 0, 0)}}, 10.0, Repeat::BackAndForth);
  for (const int hz : {30, 60, 240}) {
    const TriangleWorld world = MovingScene()
                                    .moving({0, 0, 0}, shape::Block{{20, 0.2, 4}}, sail)
                                    .still({4, 0.25, 0}, {1, 3, 6})
                                    .world();
    CharacterState state = at(world, profile, {0, 0.2, 0});
    state = run(state, profile, world, hz, 3.0, kNothing);
    INFO(hz << " ticks/s");
    CHECK(state.foot_C.x == Approx(3.5 - profile.capsule.radius).margin(1e-4));
    CHECK(state.grounded());
    CHECK_FALSE(state.crushed);
  }
}
