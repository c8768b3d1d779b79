// SPDX-License-Identifier: MIT
// On worlds that pull: up comes from the place, and everything that is true on a floor is true all round them.
// Oracles: closed forms on balls and circles, conserved energy, the same scene on a floor.
#include <catch2/catch.hpp>

#include "lagniappe/signals.h"
#include "lagniappe/turns.h"
#include "support/driven.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

Field field_of(FieldShape shape, const Vec3& at = Vec3(0.0)) {
  Field field;
  field.id = "World";
  field.shape = std::move(shape);
  field.at_C = at;
  return field;
}

// A piece around the origin that pulls; one begins at `start`.
Course small_world(Shape piece, double base_to_centre, FieldShape field, const Vec3& start, double facing) {
  Course course;
  course.name = "Small world";
  course.pieces.push_back({"World", Vec3(0.0, -base_to_centre, 0.0), Vec3(0.0), "", std::move(piece)});
  course.fields.push_back(field_of(std::move(field)));
  course.gravity = false;
  course.marks.push_back({"start", start, facing});
  return course;
}

Course ball_world(double radius, double facing = 0.3) {
  return small_world(shape::Ball{radius}, radius, field::Ball{radius}, {0.0, radius, 0.0}, facing);
}

Vec3 right_of(const CharacterState& s) { return s.frame_CB * Vec3(std::cos(s.yaw), 0.0, -std::sin(s.yaw)); }

// Nothing slows in the air.
Profile drifting() {
  Profile profile;
  profile.air.response.model = Response::Model::Steady;
  profile.air.response.deceleration = 0.0;
  profile.terminal_speed = 1000.0;
  return profile;
}

// Of a place alone, without anything solid near.
CharacterState in_flight(const Profile& profile, const Vec3& at, const Vec3& velocity, const Vec3& up) {
  CharacterState state = start_state(profile, Home{at, smallest_turn(Vec3(0, 1, 0), up), 0.0});
  state.velocity_C = velocity;
  return state;
}

TriangleWorld empty_world(std::vector<Field> fields, const Vec3& below = Vec3(0.0)) {
  TriangleWorld::Builder builder;
  builder.begin_piece("far away");
  builder.add({{0, -9000, 0}, {1, -9000, 0}, {0, -9000, 1}});
  TriangleWorld::Options options;
  options.limits = Box{Vec3(-10000.0), Vec3(10000.0)};
  options.gravity = FieldSum(std::move(fields), below);
  return builder.commit(std::move(options));
}

}  // namespace

TEST_CASE("All the way round small worlds and back the ground is never lost, and the look is as it was",
          "[long]") {
  struct Round {
    const char* name;
    Course course;
    double speed, once;  // m/s, m.
  };
  const double ring = 2.0 * kPi * (5.0 + 1.5), pill = 2.0 * kPi * 2.5 + 2.0 * 4.0;
  std::vector<Vec3> bends;
  for (int i = 0; i < 8; ++i)
    bends.emplace_back(9.0 * std::cos(i * kPi / 4), i % 2 * 1.5, -9.0 * std::sin(i * kPi / 4));
  Course loop = small_world(shape::Tube{bends, 2.0, true, 0.004}, 0.0,
                            field::Path{SmoothPath(bends, true), 2.0}, {11.0, 0.0, 0.0}, 0.5 * kPi);
  const Round rounds[] = {
      {"ball of 3 m", ball_world(3.0), 4.0, 2.0 * kPi * 3.0},
      {"ball of 3 m, run", ball_world(3.0), 7.0, 2.0 * kPi * 3.0},
      {"ball of 12 m", ball_world(12.0, 1.1), 7.0, 2.0 * kPi * 12.0},
      {"pill, over its ends",
       small_world(shape::Pill{2.5, 4.0}, 4.5, field::Pill{2.5, 4.0}, {0.0, 4.5, 0.0}, 0.7), 5.0, pill},
      {"pill, around it",
       small_world(shape::Pill{2.5, 4.0}, 4.5, field::Pill{2.5, 4.0}, {2.5, 0.0, 0.0}, kPi / 2), 4.0,
       2.0 * kPi * 2.5},
      {"ring, outside",
       small_world(shape::Ring{5.0, 1.5}, 1.5, field::Ring{5.0, 1.5}, {6.5, 0.0, 0.0}, kPi / 2), 4.0, ring},
      {"ring, through its hole",
       small_world(shape::Ring{5.0, 1.5}, 1.5, field::Ring{5.0, 1.5}, {6.5, 0.0, 0.0}, 0.0), 3.0,
       2.0 * kPi * 1.5},
      {"closed loop", std::move(loop), 5.0, 0.0},
  };
  for (const Round& round : rounds) {
    for (const int hz : {20, 24, 60, 144, 240}) {
      INFO(round.name << ", " << hz << " ticks/s");
      Profile profile;
      profile.ground.speed = round.speed;
      const TriangleWorld world = build_world(round.course);
      const FieldSum& fields = *world.fields();
      CharacterState state = start_state(profile, start_home(round.course), world);
      // Down on the faces.
      state = run(state, profile, world, hz, 0.2, [](double) { return InputFrame{}; });
      REQUIRE(state.grounded());
      const Vec3 right = right_of(state);
      const double once = round.once > 0.0 ? round.once : 60.0, seconds = 1.2 * once / round.speed;
      int lost = 0, slow = 0;
      double worst_right = 0.0, lean = 0.0, off = 0.0, begun = state.time;
      const auto see = [&](const CharacterState& s) {
        lost += !s.grounded();
        slow += s.time - begun > 1.0 && std::abs(length(s.velocity_C) - round.speed) > 0.005 * round.speed;
        if (round.once > 0.0) worst_right = std::max(worst_right, length(right_of(s) - right));
        const Vec3 up = -glm::normalize(Vec3(s.pull_C));
        lean = std::max(lean, angle_between(s.up_C(), up));
        off = std::max(off, std::abs(field_at(fields.fields()[0], fields.rest_frame(0), s.foot_C).distance));
      };
      state = run(
          state, profile, world, hz, seconds, [](double) { return push(0, 1); }, see);
      begun = state.time;
      state = run(
          state, profile, world, hz, seconds, [](double) { return push(0, -1); }, see);
      CHECK(lost == 0);
      CHECK(slow == 0);
      CHECK(worst_right < 1e-9);
      CHECK(lean < radians(0.2));
      CHECK(off < 0.004 + 0.004);  // The sag, and an edge under the foot's round.
      CHECK(deepest_overlap(state, profile, world) < profile.capsule.margin);
    }
  }
}

TEST_CASE("The way round a ball is as long at any tick rate") {
  for (const double radius : {3.0, 12.0}) {
    const Course course = ball_world(radius);
    const TriangleWorld world = build_world(course);
    Vec3 reference(0.0);
    for (const int hz : {480, 240, 120, 60, 30, 24, 20}) {
      INFO(radius << " m, " << hz << " ticks/s");
      const CharacterState end = run(start_state(Profile{}, start_home(course), world), Profile{}, world, hz,
                                     5.0, [](double) { return push(0, 1); });
      if (hz == 480) reference = end.foot_C;
      CHECK(length(end.foot_C - reference) < 0.02);
    }
  }
}

TEST_CASE("Jumps go as high as they are set on every side of a world, and come down where they began") {
  Random random(31);
  struct Side {
    Course course;
    Vec3 at;
  };
  std::vector<Side> sides;
  for (int i = 0; i < 8; ++i) {
    const Vec3 out = random.direction();
    sides.push_back({ball_world(6.0), out * 6.0});
    sides.push_back(
        {small_world(shape::Ring{6.0, 2.0}, 2.0, field::Ring{6.0, 2.0}, Vec3(0, 9, 0), 0.0),
         glm::normalize(Vec3(out.x, 0, out.z)) * 6.0 +
             2.0 * glm::normalize(glm::normalize(Vec3(out.x, 0, out.z)) * 0.6 + Vec3(0, out.y, 0))});
  }
  for (Side& side : sides) {
    side.course.marks[0].at_C = side.at;
    const TriangleWorld world = build_world(side.course);
    for (const int hz : {20, 60, 144}) {
      for (const bool heavy : {false, true}) {
        INFO("at " << side.at.x << " " << side.at.y << " " << side.at.z << ", " << hz << " ticks/s");
        Profile profile;
        if (heavy) profile.gravity = 35.0, profile.jump.fall_factor = 1.6;
        Driven d{build_world(side.course), profile, start_home(side.course)};
        d.hz = hz;
        d.go(0.3, {});
        REQUIRE(d.state.grounded());
        const CharacterState before = d.state;
        double highest = 0.0;
        d.tap(Action::Jump);
        for (int i = 0; i < 2 * hz; ++i) {
          d.go(1.0 / hz, held({Action::Jump}));
          const double rise = dot(d.state.velocity_C, before.up_C());
          const double height = dot(d.state.foot_C - before.foot_C, before.up_C());
          // Between ticks the apex is where the rise is used up.
          if (!d.state.grounded() && rise >= 0.0)
            highest = std::max(highest, height + rise * rise / (2.0 * length(Vec3(d.state.pull_C))));
        }
        const bool slowed = profile.jump.apex_speed > 0.0 && profile.jump.apex_factor < 1.0;
        if (!slowed) CHECK(highest == Approx(profile.jump.height).margin(0.001));
        CHECK(d.state.grounded());
        CHECK(length(d.state.foot_C - before.foot_C) < 0.002);
      }
    }
  }
}

// A pull is felt once for each part of a flight: at 20 ticks/s one whole tick of it rose 7 mm too high.
TEST_CASE("A jump in a pull that weakens with height goes as high as its energy takes it, at any tick rate") {
  for (const double radius : {3.0, 6.0, 20.0}) {
    Course course = ball_world(radius);
    course.fields[0].falloff = Field::Falloff::InverseSquare;
    Profile profile;
    profile.jump.fall_factor = profile.jump.apex_factor = 1.0;
    for (const int hz : {20, 24, 30, 60, 75, 144, 240}) {
      INFO(radius << " m, " << hz << " ticks/s");
      Driven d{build_world(course), profile, start_home(course)};
      d.hz = hz;
      d.go(0.5, {});
      const double r0 = radius + profile.capsule.centre_of_mass;
      const double mu = profile.gravity * radius * radius;
      // v0^2 / 2 = mu (1 / r0 - 1 / r), with the speed that takes one to the set height where one stands.
      const double v0_squared = 2.0 * mu / (r0 * r0) * profile.jump.height;
      const double expected = 1.0 / (1.0 / r0 - 0.5 * v0_squared / mu) - r0;
      double highest = 0.0;
      d.tap(Action::Jump);
      for (int i = 0; i < 2 * hz; ++i) {
        d.go(1.0 / hz, held({Action::Jump}));
        const double r = length(d.state.foot_C) + profile.capsule.centre_of_mass;
        const double rise = dot(d.state.velocity_C, d.state.up_C());
        if (!d.state.grounded() && rise >= 0.0)
          highest = std::max(highest, 1.0 / (1.0 / r - 0.5 * rise * rise / mu) - r0);
      }
      CHECK(highest == Approx(expected).margin(0.001));
    }
  }
}

TEST_CASE("Orbits keep their energy, and a throw is the same at any tick rate") {
  Field pull = field_of(field::Ball{2.0});
  pull.falloff = Field::Falloff::InverseSquare;
  const TriangleWorld world = empty_world({pull});
  const Profile profile = drifting();
  const double mu = profile.gravity * 4.0, centre = profile.capsule.centre_of_mass;
  const auto energy = [&](const CharacterState& s) {
    const Vec3 at = s.foot_C + s.up_C() * centre;
    return 0.5 * length_squared(s.velocity_C) - mu / length(at);
  };
  for (const double share : {1.0, 0.8, 1.15}) {  // Of the speed that makes a circle.
    const double radius = 6.0, circle = std::sqrt(mu / radius);
    const Vec3 at(0.0, radius - centre, 0.0);
    CharacterState state = in_flight(profile, at, {share * circle, 0.0, 0.1 * circle}, {0, 1, 0});
    const double before = energy(state);
    double worst = 0.0, turned = 0.0;
    Vec3 last = state.foot_C + state.up_C() * centre;
    while (turned < 100.0 * 2.0 * kPi) {
      state = step(state, {}, profile, world, 1.0 / 60);
      const Vec3 now = state.foot_C + state.up_C() * centre;
      turned += angle_between(glm::normalize(last), glm::normalize(now));
      last = now;
      worst = std::max(worst, std::abs(energy(state) - before) / std::abs(before));
      REQUIRE(state.tick < 2'000'000);
    }
    INFO("at " << share << " of a circle's speed");
    CHECK(worst < 1e-3);
  }
  const auto thrown = [&](int hz) {
    CharacterState state = in_flight(profile, {0.0, 9.0, 0.0}, {3.0, 2.0, -1.0}, {0, 1, 0});
    state = run(state, profile, world, hz, 5.0, [](double) { return InputFrame{}; });
    return state.foot_C + state.up_C() * centre;
  };
  CHECK(length(thrown(30) - thrown(240)) < 0.01);
}

TEST_CASE("The body turns no faster than it is set, in the same time at any tick rate, about its middle") {
  Field aside = field_of(field::Uniform{Vec3(5000.0), {1, 0, 0}});
  aside.strength = 0.01;
  const TriangleWorld world = empty_world({aside});
  for (const double smooth : {0.0, 0.3}) {
    Profile profile = drifting();
    profile.upright.turn_rate = radians(60.0);
    profile.upright.time = smooth;
    for (const int hz : {20, 60, 144, 240}) {
      CharacterState state = in_flight(profile, Vec3(0.0), Vec3(0.0), {0, 1, 0});
      const Vec3 middle(0.0, profile.capsule.centre_of_mass, 0.0);
      for (int i = 1; i <= 2 * hz; ++i) {
        state = step(state, {}, profile, world, 1.0 / hz);
        const double t = double(i) / hz, lean = angle_between(state.up_C(), Vec3(-1, 0, 0));
        // At the rate until it eases in, from where it is left by a share per second.
        const double rate = profile.upright.turn_rate, eases = rate * smooth;
        const double linear = (kPi / 2 - eases) / rate;
        const double expected = t < linear     ? kPi / 2 - rate * t
                                : smooth > 0.0 ? eases * std::exp(-(t - linear) / smooth)
                                               : 0.0;
        INFO(smooth << " s, " << hz << " ticks/s, at " << t);
        CHECK(lean == Approx(expected).margin(1e-9));
        const Vec3 now = state.foot_C + state.up_C() * profile.capsule.centre_of_mass;
        const Vec3 fallen(0.5 * 0.01 * profile.gravity * t * t, 0.0, 0.0);
        CHECK(length(now - middle - fallen) < 1e-9);
      }
    }
  }
}

TEST_CASE("What a closed way turned the heading by is a signal, from any home") {
  const TriangleWorld world = empty_world({field_of(field::Ball{3.0})});
  const Profile profile;
  const Signal* signal = find_signal("carried_round");
  REQUIRE(signal != nullptr);
  for (const Frame& frame : frames()) {
    CharacterState state = start_state(profile, Home{frame.origin_C, frame.rotation_CE, 0.7});
    const auto carried = [&] {
      return signal->value({state, state, InputFrame{}, profile, world, 1.0 / 60, Moment{}});
    };
    const auto go = [&](const Vec3& to_E) {
      const Vec3 from = state.up_C(), to = frame.vector(to_E);
      for (int i = 1; i <= 50; ++i) {
        const Vec3 up = smallest_turn(from, to) == Quat(1, 0, 0, 0)
                            ? to
                            : glm::angleAxis(angle_between(from, to) * i / 50.0, axis_between(from, to)) * from;
        state.frame_CB = glm::normalize(smallest_turn(state.up_C(), up) * state.frame_CB);
      }
    };
    INFO(frame.name);
    CHECK(carried() == Approx(0.0).margin(1e-9));
    // There and back nothing is left; round an eighth of the ball, whose corners are square, a right angle is,
    // to the side one went round by.
    go({1, 0, 0});
    CHECK(carried() == Approx(0.0).margin(1e-7));
    go({0, 1, 0});
    CHECK(carried() == Approx(0.0).margin(1e-7));
    for (const Vec3& to : {Vec3(1, 0, 0), Vec3(0, 0, 1), Vec3(0, 1, 0)}) go(to);
    CHECK(std::abs(carried()) == Approx(90.0).margin(1e-6));
    const double one_way = carried();
    for (const Vec3& to : {Vec3(0, 0, 1), Vec3(1, 0, 0), Vec3(0, 1, 0)}) go(to);
    CHECK(carried() == Approx(0.0).margin(1e-6));
    for (const Vec3& to : {Vec3(0, 0, 1), Vec3(1, 0, 0), Vec3(0, 1, 0)}) go(to);
    CHECK(carried() == Approx(-one_way).margin(1e-6));
  }
}

TEST_CASE("On a wall of a small world the gap is kept while up turns: got on from above, down, along and up") {
  Course course = ball_world(6.0);
  course.surfaces.push_back({"ivy", {}});
  course.surfaces.back().surface.climbable = true;
  const Vec3 size(4.0, 4.2, 0.6), base(0.0, 5.5, 0.0);
  course.pieces.push_back({"Ivy wall", base, Vec3(0.0), "ivy", shape::Block{size}});
  const Vec3 low = base - Vec3(0.5 * size.x, 0.0, 0.5 * size.z), high = low + size;
  const auto off_wall = [&](const CharacterState& s,
                            double radius) {  // m from the skin to the block, by samples.
    double nearest = 1e9;
    for (double h = radius; h <= s.capsule_height - radius; h += 0.002) {
      const Vec3 p = s.foot_C + s.up_C() * h;
      nearest = std::min(nearest, length(p - glm::clamp(p, low, high)) - radius);
    }
    return nearest;
  };
  for (const int hz : tick_rates()) {
    INFO(hz << " ticks/s");
    Driven d(build_world(course), {}, Home{{0.0, high.y, 0.0}, Quat(1, 0, 0, 0), 0.0});
    d.hz = hz;
    d.tap(Action::Climb);
    REQUIRE(d.state.hold.kind == Hold::Kind::Descent);
    int settled = 0;
    double farthest = 0.0, nearest = 1.0;
    const double radius = d.profile.capsule.radius;
    for (const Vec2& way : {Vec2(0, 0), Vec2(0, -1), Vec2(1, 0), Vec2(-1, 0.4), Vec2(0, 1)}) {
      for (int i = 0; i < (way == Vec2(0.0) ? 2 * hz : hz); ++i) {
        d.go(1.0 / hz, push(way.x, way.y));
        if (d.state.hold.kind != Hold::Kind::Climb || d.state.hold.phase() < 1.0) continue;
        ++settled;
        farthest = std::max(farthest, off_wall(d.state, radius));
        nearest = std::min(nearest, off_wall(d.state, radius));
      }
    }
    CHECK(settled > 4 * hz);
    CHECK(farthest < d.profile.climb.gap + 5e-4);
    CHECK(nearest > d.profile.climb.gap - 5e-4);
  }
}

TEST_CASE("It turns only as far as it fits, and says so") {
  // A shaft as wide as the body, where the pull goes sideways.
  Course course;
  course.name = "Shaft";
  for (const double x : {-1.0, 1.0})
    course.pieces.push_back(
        {x < 0 ? "Left" : "Right", Vec3(x * 0.95, 0.0, 0.0), Vec3(0.0), "", shape::Block{{1.0, 8.0, 4.0}}});
  course.fields.push_back(field_of(field::Uniform{Vec3(50.0), {1, 0, 0}}));
  course.marks.push_back({"start", Vec3(0.0, 3.0, 0.0), 0.0, Vec3(0, 1, 0)});
  for (const int hz : {20, 60, 240}) {
    Driven d{build_world(course), Profile{}, start_home(course)};
    d.hz = hz;
    bool told = false;
    for (int i = 0; i < hz; ++i) {
      Ledger ledger;
      d.state = step(d.state, {}, d.profile, d.world, 1.0 / hz, &ledger);
      for (const LedgerEntry& e : ledger.entries) {
        const auto* upright = std::get_if<entry::Upright>(&e);
        told = told || (upright != nullptr && !upright->fits);
      }
      CHECK(deepest_overlap(d.state, d.profile, d.world) <= d.profile.capsule.margin);
    }
    CHECK(told);
    CHECK(angle_between(d.state.up_C(), Vec3(-1, 0, 0)) > radians(30.0));
  }
}

TEST_CASE("Between two sheets that nobody fits through one is not turned through them") {
  // A pull that goes sideways, beside a thin wall; fast turns, few ticks.
  Course course;
  course.name = "Sheet";
  course.pieces.push_back({"Sheet", Vec3(0.6, -4.0, 0.0), Vec3(0.0), "", shape::Block{{0.002, 12.0, 12.0}}});
  course.fields.push_back(field_of(field::Uniform{Vec3(60.0), {-1, 0, 0}}));
  course.marks.push_back({"start", Vec3(0.0, 0.0, 0.0), 0.0, Vec3(0, 1, 0)});
  for (const int hz : {10, 20, 60}) {
    Profile profile;
    profile.upright.turn_rate = radians(2000.0);
    CharacterState state = start_state(profile, start_home(course), build_world(course));
    const TriangleWorld world = build_world(course);
    for (int i = 0; i < hz / 2; ++i) {
      state = step(state, {}, profile, world, 1.0 / hz);
      const Segment axis = capsule_axis(state, profile.capsule.radius);
      INFO(hz << " ticks/s, tick " << i);
      CHECK(std::max(axis.a_C.x, axis.b_C.x) < 0.6);
      CHECK(deepest_overlap(state, profile, world) <= profile.capsule.margin);
    }
  }
}

TEST_CASE("Who stands on his head is turned forwards, whichever way the place is turned") {
  for (const Frame& frame : frames()) {
    if (length(frame.origin_C) > 1e5) continue;
    Field down = field_of(field::Uniform{Vec3(2000.0), frame.vector({0, 1, 0})}, frame.origin_C);
    const TriangleWorld world = empty_world({down});
    Profile profile = drifting();
    CharacterState state = start_state(profile, Home{frame.origin_C, frame.rotation_CE, 0.7});
    const Vec3 ahead = look_direction(state.frame_CB, state.facing, 0.0);
    for (int i = 0; i < 15; ++i) state = step(state, {}, profile, world, 1.0 / 60);
    INFO(frame.name);
    CHECK(dot(state.up_C(), ahead) > 0.9);
  }
}

TEST_CASE("Where nothing pulls one floats: the speed and the up stay, thrust steers, and a pull ends it") {
  Field ball = field_of(field::Ball{3.0});
  ball.reach = 4.0;
  ball.fade = 1.0;
  const TriangleWorld world = empty_world({ball});
  Profile profile = drifting();
  const Vec3 up = glm::normalize(Vec3(1, 2, -1));
  for (const int hz : {20, 60, 240}) {
    CharacterState state = in_flight(profile, {0.0, 30.0, 0.0}, {1.0, -0.5, 0.0}, up);
    const auto name = [&] { return std::string(chart_of(profile).name_of(state.state)); };
    state = run(state, profile, world, hz, 2.0, [](double) { return InputFrame{}; });
    CHECK(name() == "Float");
    CHECK(length(state.velocity_C - Vec3(1.0, -0.5, 0.0)) < 1e-12);
    CHECK(length(state.foot_C - Vec3(2.0, 29.0, 0.0)) < 1e-9);
    CHECK(length(state.up_C() - up) < 1e-12);
    const Vec3 velocity = state.velocity_C, ahead = look_direction(state.frame_CB, state.yaw, state.pitch);
    state = run(state, profile, world, hz, 0.5, [](double) { return push(0, 1); });
    const Vec3 gained = state.velocity_C - velocity;
    CHECK(length(gained) == Approx(0.5 * profile.floating.thrust).epsilon(1e-9));
    CHECK(dot(gained, ahead) > 0.0);
    profile.floating.thrust = 0.0;
    const Vec3 kept = state.velocity_C;
    state = run(state, profile, world, hz, 0.5, [](double) { return push(0, 1); });
    CHECK(length(state.velocity_C - kept) < 1e-12);
    profile.floating.thrust = 3.0;
    state = in_flight(profile, {0.0, 9.0, 0.0}, {0.0, -4.0, 0.0}, up);
    state = run(state, profile, world, hz, 1.2, [](double) { return InputFrame{}; });
    CHECK(name() != "Float");
    CHECK(length(state.pull_C) > 1.0);
  }
}

TEST_CASE("All round a ball what is pushed is where one looks: left is left, and away is away") {
  Random random(77);
  const double radius = 6.0;
  for (int i = 0; i < 40; ++i) {
    Course course = ball_world(radius);
    course.marks[0] = {"start", random.direction() * radius, random.between(-kPi, kPi)};
    const TriangleWorld world = build_world(course);
    CharacterState state = start_state(Profile{}, start_home(course), world);
    const Vec2 stick(random.between(-1, 1), random.between(-1, 1));
    const Vec3 from = state.foot_C, forward = look_direction(state.frame_CB, state.yaw, 0.0),
               right = right_of(state);
    state = run(state, Profile{}, world, 60, 0.25, [&](double) { return push(stick.x, stick.y); });
    const Vec3 went = across(state.foot_C - from, from / length(from));
    const Vec3 wanted = right * stick.x + forward * stick.y;
    CHECK(angle_between(glm::normalize(went), glm::normalize(wanted)) < radians(0.5));
  }
}

TEST_CASE("Whoever runs round a small world faster than it holds him leaves it, and is told at what speed") {
  for (const double radius : {3.0, 8.0}) {
    const double holds = std::sqrt(Profile{}.gravity * radius);
    for (const int hz : {20, 60, 240}) {
      for (const double share : {0.96, 1.06}) {
        INFO(radius << " m, " << hz << " ticks/s, " << share);
        Profile profile;
        profile.ground.speed = holds * share;
        profile.ground.crest_speed = 1000.0;
        const Course course = ball_world(radius);
        const TriangleWorld world = build_world(course);
        CharacterState state = start_state(profile, start_home(course), world);
        std::optional<entry::RunsOff> told;
        for (int i = 0; i < 3 * hz; ++i) {
          Ledger ledger;
          state = step(state, push(0, 1), profile, world, 1.0 / hz, &ledger);
          for (const LedgerEntry& e : ledger.entries) {
            if (const auto* off = std::get_if<entry::RunsOff>(&e); off != nullptr && !told) told = *off;
          }
        }
        CHECK(told.has_value() == (share > 1.0));
        if (told) CHECK(told->most == Approx(holds).epsilon(0.01));
      }
    }
  }
}

TEST_CASE("A world that circles takes along who stands on it, walks round it and jumps on it") {
  Course course = ball_world(4.0);
  PieceMotion motion;
  motion.period = 20.0;
  motion.path = PieceMotion::Path::Curved;
  for (int i = 0; i < 8; ++i) {
    const double a = 2.0 * kPi * i / 8;
    motion.keys.push_back({i / 8.0, Vec3(10.0 * std::cos(a), 0.0, 10.0 * std::sin(a))});
  }
  course.pieces[0].motion = motion;
  course.fields[0].on = "World";
  const TriangleWorld world = build_world(course);
  const Vec3 from_middle = world.piece_frame(0, 0.0).position_C;
  course.marks[0] = {"start", from_middle + Vec3(0.0, 8.0, 0.0), 0.4, Vec3(0, 1, 0)};
  for (const int hz : {30, 60, 144}) {
    CharacterState state = start_state(Profile{}, start_home(course), world);
    const auto height = [&] {
      return length(state.foot_C - world.piece_frame(0, state.time).point(Vec3(0.0, 4.0, 0.0))) - 4.0;
    };
    INFO(hz << " ticks/s");
    for (int i = 0; i < 20 * hz; ++i) {
      const double t = state.time;
      InputFrame input = t < 3.0 ? InputFrame{} : push(0, 1);
      if (t > 12.0 && i % (2 * hz) == 0) {
        input.pressed.set(Action::Jump, true);
        input.held.set(Action::Jump, true);
      }
      state = step(state, input, Profile{}, world, 1.0 / hz);
      CHECK(std::abs(height()) < (t > 12.0 ? 1.7 : 0.01));
      if (t < 12.0) CHECK(state.grounded());
    }
  }
}

TEST_CASE("Driven at random over the Orrery nobody gets into anything, is lost or is no number", "[long]") {
  const auto course = read_course(LAGNIAPPE_SOURCE_DIR "/courses/orrery.course.json");
  REQUIRE(course);
  const TriangleWorld world = build_world(*course);
  std::set<std::string> states, grounds;
  for (std::size_t m = 0; m < course->marks.size(); ++m) {
    Random random(40 + m);
    const int hz = tick_rates()[m % tick_rates().size()];
    Profile profile;
    profile.mantle.start = Profile::Mantle::Start::Button;
    CharacterState state = start_state(profile, home_of(*course, course->marks[m]), world);
    InputFrame input;
    double deepest = 0.0;
    for (int i = 0; i < 25 * hz; ++i) {
      input.pressed = {};
      input.look_delta = Vec2(0.0);
      if (random.below(hz / 2) == 0) {
        input = push(random.between(-1, 1), random.between(-0.5, 1));
        for (const Action a : {Action::Jump, Action::Sprint, Action::Crouch, Action::Climb}) {
          const bool down = random.below(4) == 0;
          input.held.set(a, down);
          input.pressed.set(a, down);
        }
        input.look_delta = {random.between(-2, 2), random.between(-0.5, 0.5)};
      }
      state = step(state, input, profile, world, 1.0 / hz);
      REQUIRE(is_finite(state.foot_C));
      REQUIRE(is_finite(state.velocity_C));
      REQUIRE(std::abs(glm::length(state.frame_CB) - 1.0) < 1e-9);
      if (i % 89 == 0 && !state.crushed) deepest = std::max(deepest, deepest_overlap(state, profile, world));
      states.emplace(chart_of(profile).name_of(state.state));
      if (state.grounded()) grounds.emplace(world.piece_name(state.ground.piece));
    }
    INFO(course->marks[m].id << ", " << hz << " ticks/s");
    CHECK(deepest < profile.capsule.margin);
  }
  for (const char* state : {"Walk", "Sprint", "Rise", "Fall", "Float", "Crouch"}) CHECK(states.contains(state));
  CHECK(grounds.size() > 7);
}

TEST_CASE(
    "Over stairs, crates and a terrace on a ball, and from world to world, nothing pops, flickers or sticks") {
  const auto course = read_course(LAGNIAPPE_SOURCE_DIR "/courses/orrery.course.json");
  REQUIRE(course);
  const TriangleWorld world = build_world(*course);
  for (const char* from : {"start", "crossing", "shelf", "bolster", "loop"}) {
    const auto mark =
        std::find_if(course->marks.begin(), course->marks.end(), [&](const Mark& m) { return m.id == from; });
    REQUIRE(mark != course->marks.end());
    for (const int hz : {30, 60, 144}) {
      Take take;
      take.start = start_state(take.profile, home_of(*course, *mark), world);
      take.tick_rate = hz;
      for (int i = 0; i < 6 * hz; ++i) {
        take.inputs.push_back(i < hz / 3 ? InputFrame{} : push(0, 1));
        take.inputs.back().pressed.set(Action::Jump, i == hz);
      }
      const auto run = run_take(take, world);
      REQUIRE(run);
      INFO(from << ", " << hz << " ticks/s");
      for (const Finding& f : run->findings()) {
        INFO(to_sentence(f, world, take.profile, hz));
        const bool blocked = f.kind == Finding::Kind::Stuck;  // In front of a wall that is too high.
        // Between two balls up turns as in a corner: the eye feels that.
        const bool corner = f.kind == Finding::Kind::ViewJerk && std::string(from) == "crossing";
        CHECK((blocked || corner));
      }
    }
  }
}

TEST_CASE("Where the course says that the profile's gravity pulls down, all is as where it says nothing") {
  auto course = read_course(LAGNIAPPE_SOURCE_DIR "/courses/tidewheel.course.json");
  REQUIRE(course);
  course->fields.clear();
  Course says = *course;
  says.marks.push_back({"aside", Vec3(0.0), 0.0, Vec3(1, 0, 0)});
  const TriangleWorld plain = build_world(*course), told = build_world(says);
  REQUIRE(plain.fields() == nullptr);
  REQUIRE(told.fields() != nullptr);
  Random random(5);
  for (std::size_t m = 0; m < course->marks.size(); ++m) {
    const Home home = home_of(*course, course->marks[m]);
    CharacterState a = start_state(Profile{}, home, plain), b = start_state(Profile{}, home, told);
    InputFrame input;
    for (int i = 0; i < 240; ++i) {
      if (i % 15 == 0) {
        input = push(random.between(-1, 1), random.between(-0.4, 1));
        input.pressed.set(Action::Jump, random.below(3) == 0);
        input.held.set(Action::Jump, random.below(2) == 0);
        input.held.set(Action::Sprint, random.below(2) == 0);
        input.look_delta = {random.between(-1, 1), 0.0};
      } else {
        input.pressed = {};
        input.look_delta = Vec2(0.0);
      }
      a = step(a, input, Profile{}, plain, 1.0 / 60);
      b = step(b, input, Profile{}, told, 1.0 / 60);
      REQUIRE(a.foot_C == b.foot_C);
      REQUIRE(a.velocity_C == b.velocity_C);
      REQUIRE(a.frame_CB == b.frame_CB);
      REQUIRE(a.state == b.state);
    }
  }
}

TEST_CASE("The tours of the Orrery come back to their marks at every tick rate, the round ones on the ground") {
  const std::string source = LAGNIAPPE_SOURCE_DIR;
  const auto course = read_course(source + "/courses/orrery.course.json");
  REQUIRE(course);
  const TriangleWorld world = build_world(*course);
  const auto profile = read_profile(source + "/profiles/warden.profile.json");
  REQUIRE(profile);
  struct Tour {
    std::string mark;
    double from_mark;  // m at most, at its end.
    bool jumps;
  };
  const Tour tours[] = {{"bolster", 0.6, false},  {"hoop", 0.6, false}, {"hollow", 0.6, false},
                        {"crossing", 0.9, false}, {"loop", 2.0, false}, {"table", 0.9, true}};
  for (const Tour& tour : tours) {
    const auto script = read_inputs(source + "/takes/orrery-" + tour.mark + ".inputs.json");
    REQUIRE(script);
    const auto mark = std::find_if(course->marks.begin(), course->marks.end(),
                                   [&](const Mark& m) { return m.id == tour.mark; });
    REQUIRE(mark != course->marks.end());
    for (const int hz : {20, 60, 144, 240}) {
      INFO(tour.mark << ", " << hz << " ticks/s");
      InputPlayer player(*script, hz);
      CharacterState state = start_state(*profile, home_of(*course, *mark), world);
      double farthest = 0.0;
      bool in_the_air = false;
      for (int tick = 0; tick < int((script->end() + 1.5) * hz); ++tick) {
        state = step(state, player.next(), *profile, world, 1.0 / hz);
        farthest = std::max(farthest, length(state.foot_C - mark->at_C));
        in_the_air = in_the_air || (tick > hz / 5 && !state.grounded());  // It first settles on its mark.
      }
      CHECK(in_the_air == tour.jumps);
      CHECK(farthest > 3.9);
      CHECK(length(state.foot_C - mark->at_C) < tour.from_mark);
      CHECK(dot(state.up_C(), state.judged_up_C()) > 0.9999);
    }
  }
}
