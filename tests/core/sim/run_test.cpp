// SPDX-License-Identifier: MIT
#include "lagniappe/run.h"
#include "lagniappe/handling.h"

#include <catch2/catch.hpp>

#include "lagniappe/compare.h"
#include "lagniappe/run_signals.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

Take take_of(const CharacterState& start, int hz, double seconds, const Profile& profile,
             const std::function<InputFrame(double)>& input) {
  Take take;
  take.start = start;
  take.tick_rate = hz;
  take.profile = profile;
  for (int i = 0; i < int(std::lround(seconds * hz)); ++i) take.inputs.push_back(input(double(i) / hz));
  return take;
}

Run run_of(const Take& take, const World& world) { return *run_take(take, world); }

std::vector<Finding> of_kind(const Run& run, Finding::Kind kind) {
  std::vector<Finding> all;
  std::copy_if(run.findings().begin(), run.findings().end(), std::back_inserter(all),
               [&](const Finding& f) { return f.kind == kind; });
  return all;
}

InputFrame jump_at(double t, double when, double forward = 0.0) {
  InputFrame input = push(0, forward);
  input.pressed.set(Action::Jump, std::abs(t - when) < 1e-9);
  return input;
}

// Inputs as a hand gives them: holding on for a while, then something else.
Take random_take(std::uint64_t seed, const Profile& profile) {
  Random random(seed);
  InputFrame input;
  return take_of(standing_at(profile, {random.between(-4, 4), 0, random.between(-4, 4)}), 60, 6.0, profile,
                 [&](double) {
                   input.pressed = {};
                   if (random.below(9) == 0) input.move = Vec2(random.between(-1, 1), random.between(-1, 1));
                   if (random.below(40) == 0) input.pressed.set(Action::Jump, true);
                   input.look_delta = Vec2(random.between(-0.05, 0.05), 0.0);
                   return input;
                 });
}

TriangleWorld yard() {
  return Scene()
      .floor()
      .stairs({0, 0, -3}, 3, 0.18, 0.28, 6)
      .block({4, 0, -3}, {2, 0.5, 2})
      .ramp({-4, 0, -3}, {2, 1, 3})
      .world();
}

}  // namespace

TEST_CASE("The same take run again is the same to the bit") {
  const TriangleWorld world = yard();
  for (std::uint64_t seed = 1; seed <= 30; ++seed) {
    Take take = random_take(seed, Profile{});
    const Run run = run_of(take, world);
    keep_hashes(run, take);
    CHECK_FALSE(first_difference(run_of(take, world), take));
    CHECK(compare(run, run_of(take, world)).identical);
    // One input changed by next to nothing is found at its tick.
    InputFrame& changed = take.inputs[200];
    changed.look_delta.x += 1e-13;
    const Comparison other = compare(run, run_of(take, world));
    CHECK_FALSE(other.identical);
    REQUIRE(other.first_difference);
    CHECK(*other.first_difference == 201);
  }
}

TEST_CASE("Going back to a tick and driving on is as though nothing had come after it") {
  const TriangleWorld world = yard();
  for (std::uint64_t seed = 1; seed <= 10; ++seed) {
    const Take take = random_take(seed, Profile{});
    const Run whole = run_of(take, world);
    for (const std::size_t tick : {std::size_t{0}, std::size_t{7}, std::size_t{200}, take.inputs.size()}) {
      const Run back = run_until(whole, take, world, tick);
      const Take part = part_of(take, 0, tick, take.start);
      const Run fresh = run_of(part, world);
      CHECK(compare(back, fresh).identical);
      CHECK(back.touches().size() == fresh.touches().size());
      for (std::size_t i = 1; i <= tick; ++i) REQUIRE(back.events(i) == fresh.events(i));
      // The rest, run from there, is the rest of the whole.
      const Take rest = part_of(take, tick, take.inputs.size(), whole.state(tick));
      CHECK(hash_of(run_of(rest, world).last()) == hash_of(whole.last()));
    }
  }
}

TEST_CASE("Copies of a run share it and do not disturb each other") {
  const TriangleWorld world = yard();
  const Take take = random_take(3, Profile{});
  const Run whole = run_of(take, world);
  Run copy = whole;
  copy.truncate(100);
  Ledger ledger;
  copy.pass({}, step(copy.last(), {}, take.profile, world, 1.0 / 60, &ledger), ledger, take.profile);
  CHECK(copy.ticks() == 101);
  CHECK(hash_of(copy.last()) != hash_of(whole.state(101)));
  CHECK(hash_of(whole.state(101)) == hash_of(run_of(take, world).state(101)));
}

TEST_CASE("A run says what happened in each tick, and finds the next and the last time") {
  const TriangleWorld world =
      Scene().floor().stairs({0, 0, -3}, 3, 0.18, 0.28, 6).block({0, 0, -9}, {8, 5, 1}).world();
  const Take take =
      take_of(standing_at({}, {0, 0, 2}), 60, 4.0, {}, [](double t) { return jump_at(t, 0.5, 1.0); });
  const Run run = run_of(take, world);
  const auto jump = run.next(Event::Jump, 0);
  REQUIRE(jump);
  CHECK(*jump == 31);
  const auto landing = run.next(Event::Landing, *jump);
  REQUIRE(landing);
  CHECK_FALSE(run.state(*landing - 1).grounded());
  CHECK(run.state(*landing).grounded());
  const auto step = run.next(Event::Step, *landing);
  REQUIRE(step);
  CHECK(run.previous(Event::Jump, *step) == jump);
  CHECK_FALSE(run.next(Event::Ceiling, 0));
  const RunSummary summary = run.summarize();
  std::size_t landings = 0, in_air = 0;
  for (std::size_t i = 1; i <= run.ticks(); ++i) {
    landings += run.state(i).grounded() && !run.state(i - 1).grounded();
    in_air += !run.state(i).grounded();
  }
  CHECK(summary.landings == landings);
  CHECK(summary.jumps == 1);
  CHECK(summary.drive.airtime == Approx(double(in_air) / 60));
  // Pieces are touched in stretches: floor, flight, wall; the floor again is another stretch.
  CHECK(run.touches().front().piece == 0);
  CHECK(std::any_of(run.touches().begin(), run.touches().end(), [](const Touch& t) { return t.piece == 2; }));
}

TEST_CASE("Running against a wall is found as being stuck, once, with its length") {
  const TriangleWorld world = Scene().floor().block({0, 0, -2}, {8, 3, 1}).world();
  const Take take =
      take_of(standing_at({}, {0, 0, 0}), 60, 4.0, {}, [](double t) { return push(0, t < 3.0 ? 1 : 0); });
  const auto stuck = of_kind(run_of(take, world), Finding::Kind::Stuck);
  REQUIRE(stuck.size() == 1);
  CHECK(stuck[0].amount == Approx(2.6).margin(0.2));
  CHECK(stuck[0].last == 180);
  CHECK(of_kind(run_of(take, Scene().floor().world()), Finding::Kind::Stuck).empty());
}

TEST_CASE("A jump pressed a little too early or too late is found, one in time is not") {
  Profile profile;
  const double airtime = 2.0 * take_off_speed(profile.gravity, profile.jump.height) / profile.gravity;
  const TriangleWorld flat = Scene().floor().world();
  const auto press_before_landing = [&](double early) {
    const double when = std::round((0.5 + airtime - early) * 60) / 60;
    return run_of(take_of(standing_at(profile, {0, 0, 0}), 60, 2.5, profile,
                          [&](double t) {
                            InputFrame input = jump_at(t, 0.5);
                            input.pressed.bits |= jump_at(t, when).pressed.bits;
                            return input;
                          }),
                  flat);
  };
  CHECK(of_kind(press_before_landing(0.08), Finding::Kind::MissedJump).empty());
  CHECK(of_kind(press_before_landing(0.40), Finding::Kind::MissedJump).empty());
  const auto early = of_kind(press_before_landing(0.17), Finding::Kind::MissedJump);
  REQUIRE(early.size() == 1);
  CHECK(early[0].amount == Approx(-0.17).margin(0.02));
  CHECK(to_sentence(early[0], flat, profile, 60).find("before landing; the jump buffer is 120 ms") !=
        std::string::npos);

  const TriangleWorld ledge = Scene().block({0, -4, 0}, {6, 4, 6}).block({0, -9, 0}, {60, 1, 60}).world();
  const auto press_after_edge = [&](double late) {
    double left = -1.0;
    return run_of(take_of(standing_at(profile, {0, 0, 0}), 60, 3.0, profile,
                          [&](double t) {
                            // At 4 m/s the edge, 3 m away and an overhang further, is left at about 0.9 s.
                            if (left < 0.0) left = 0.0;
                            return jump_at(t, std::round((0.88 + late) * 60) / 60, 1.0);
                          }),
                  ledge);
  };
  const auto late = of_kind(press_after_edge(0.17), Finding::Kind::MissedJump);
  REQUIRE(late.size() == 1);
  CHECK(late[0].amount > profile.jump.coyote_time);
  CHECK(late[0].amount < 0.2);
  CHECK(of_kind(press_after_edge(0.02), Finding::Kind::MissedJump).empty());
}

TEST_CASE("A step that nothing smooths is found as a pop, a smoothed one is not") {
  const TriangleWorld world = Scene().floor().stairs({0, 0, -3}, 3, 0.18, 0.28, 6).world();
  Profile profile;
  const auto pops = [&](int hz) {
    return of_kind(
        run_of(take_of(standing_at(profile, {0, 0, 0}), hz, 2.0, profile, [](double) { return push(0, 1); }),
               world),
        Finding::Kind::Pop);
  };
  for (const int hz : tick_rates()) {
    CHECK(pops(hz).empty());
  }
  profile.smoothing.time = 0.0;
  CHECK(pops(60).size() >= 5);
}

TEST_CASE("A plain drive over the yard has no findings that it should not have") {
  const TriangleWorld world =
      Scene().floor().stairs({0, 0, -3}, 3, 0.18, 0.28, 6).ramp({-4, 0, -3}, {2, 1, 3}).world();
  for (const int hz : tick_rates()) {
    const Run run = run_of(take_of(standing_at({}, {0, 0, 1}), hz, 5.0, {},
                                   [](double t) { return push(t > 2.0 ? -1 : 0, t < 2.0 ? 1 : 0.2); }),
                           world);
    for (const Finding& f : run.findings()) UNSCOPED_INFO(to_sentence(f, world, {}, hz));
    CHECK(of_kind(run, Finding::Kind::Flicker).empty());
    CHECK(of_kind(run, Finding::Kind::Pop).empty());
    CHECK(of_kind(run, Finding::Kind::SpeedLoss).empty());
    CHECK(of_kind(run, Finding::Kind::MissedJump).empty());
  }
}

TEST_CASE("The examination finds what a faulty solver would do") {
  // States made by hand: what step() would have to do wrong.
  const Profile profile;
  const CharacterState standing = standing_at(profile, {0, 0, 0});
  const auto walking = [&](double z, double speed) {
    CharacterState s = standing;
    s.state = StateId::Walk;
    s.ground.verdict = Verdict::Walkable;
    s.ground.piece = 0;
    s.foot_C.z = z;
    s.velocity_C = Vec3(0, 0, -speed);
    return s;
  };
  Ledger ledger;
  ledger.entries.push_back(entry::Intent{Vec3(0, 0, -4), 1.0});
  const InputFrame input = push(0, 1);
  Run run(walking(0, 4), 60);
  double z = 0.0;
  const auto pass = [&](CharacterState s) { run.pass(input, s, ledger, profile); };
  for (int i = 0; i < 60; ++i) pass(walking(z -= 4.0 / 60, 4));
  CHECK(run.findings().empty());

  SECTION("speed that nothing takes") {
    pass(walking(z -= 2.0 / 60, 2));
    const auto losses = of_kind(run, Finding::Kind::SpeedLoss);
    REQUIRE(losses.size() == 1);
    CHECK(losses[0].amount == Approx(2.0));
  }
  SECTION("speed that a wall takes is explained") {
    ledger.entries.push_back(entry::Slide{entry::Slide::Kind::Wall, Vec3(0, 0, 1), Vec3(0), 1.0, 0.5});
    pass(walking(z -= 2.0 / 60, 2));
    CHECK(run.findings().empty());
  }
  SECTION("a state for two ticks and back") {
    CharacterState fall = walking(z, 4);
    fall.state = StateId::Fall;
    fall.ground.verdict = Verdict::None;
    ledger.entries.push_back(entry::StateChange{StateId::Walk, StateId::Fall});
    for (int i = 0; i < 2; ++i) {
      fall.foot_C.z = z -= 4.0 / 60;
      pass(fall);
    }
    pass(walking(z -= 4.0 / 60, 4));
    const auto flickers = of_kind(run, Finding::Kind::Flicker);
    REQUIRE(flickers.size() == 1);
    CHECK(flickers[0].first == 61);
    CHECK(flickers[0].state == StateId::Fall);
  }
  SECTION("depth in a solid, as one finding for all its ticks") {
    for (const double depth : {0.05, 0.08, 0.03}) {
      CharacterState s = walking(z -= 4.0 / 60, 4);
      s.penetration = depth;
      pass(s);
    }
    const auto deep = of_kind(run, Finding::Kind::DeepPushOut);
    REQUIRE(deep.size() == 1);
    CHECK(deep[0].amount == Approx(0.08));
    CHECK(deep[0].last - deep[0].first == 2);
  }
  SECTION("time that was dropped") {
    run.drop_time(0.4);
    CHECK(of_kind(run, Finding::Kind::DroppedTime).size() == 1);
  }
  for (const Finding& f : run.findings())
    CHECK_FALSE(to_sentence(f, Scene().floor().world(), profile, 60).empty());
}

TEST_CASE("Inputs at another rate do the same at the same time, and lose no press") {
  Random random(8);
  for (const int from : {20, 30, 60, 144, 240}) {
    for (const int to : {20, 30, 60, 144, 240}) {
      std::vector<InputFrame> inputs;
      Vec2 turned(0.0);
      int presses = 0;
      for (int i = 0; i < from * 3; ++i) {
        InputFrame input = push(i / from, 0.5);
        input.look_delta = Vec2(random.between(-0.1, 0.1), random.between(-0.1, 0.1));
        // Far enough apart that two never fall into one tick.
        if (i % (from / 4) == 3) input.pressed.set(Action::Jump, true), ++presses;
        turned += input.look_delta;
        inputs.push_back(input);
      }
      const auto other = inputs_at_rate(inputs, from, to);
      REQUIRE(other.size() == std::size_t(to * 3));
      int kept = 0;
      Vec2 sum(0.0);
      for (std::size_t i = 0; i < other.size(); ++i) {
        kept += other[i].pressed.has(Action::Jump);
        sum += other[i].look_delta;
        CHECK(other[i].move.x == double(i / std::size_t(to)));
      }
      CHECK(kept == presses);
      CHECK(length(sum - turned) < 1e-9);
    }
  }
}

TEST_CASE("A retake with other values parts where they first matter, and says how far") {
  const TriangleWorld world =
      Scene().floor().stairs({0, 0, -3}, 3, 0.18, 0.28, 6).block({0, 0, -13.84}, {3, 1.08, 20}).world();
  Take take = take_of(standing_at({}, {0, 0, 0}), 60, 3.0, {}, [](double) { return push(0, 1); });
  take.course_identity = identity_of(world);
  const Run before = run_of(take, world);
  Profile low = take.profile;
  low.ground.highest_step = 0.1;
  const Run after = run_of(retake_of(take, low, nullptr, take.course_identity, world, 60), world);
  const Comparison found = compare(before, after);
  REQUIRE(found.parting);
  CHECK(before.next(Event::Step, 0) == found.parting);
  CHECK(after.events(*found.parting).has(Event::StepRefused));
  CHECK(found.apart[found.furthest_at] == Approx(found.furthest));
  REQUIRE(found.drift);
  CHECK(found.drift->other == 0);  // Left on the floor.
  const Run faster = run_of(retake_of(take, take.profile, nullptr, take.course_identity, world, 240), world);
  CHECK(faster.ticks() == 720);
  CHECK(compare(before, faster).furthest < 0.1);
  // The same both ways round, whatever the rates.
  const Run slow_low = run_of(retake_of(take, low, nullptr, take.course_identity, world, 20), world);
  const Comparison one = compare(slow_low, faster), other = compare(faster, slow_low);
  CHECK(one.furthest == other.furthest);
  REQUIRE((one.parting && other.parting));
  CHECK(*other.parting == *one.parting * 12);
  CHECK(other.furthest_at == one.furthest_at * 12);
  CHECK(other.apart.size() == (one.apart.size() - 1) * 12 + 1);
  CHECK(double(other.apart[other.furthest_at]) == Approx(other.furthest));
  CHECK_FALSE(compare(before, faster).drift);
}

TEST_CASE("Every signal has a name of its own and a finite value at every tick") {
  const TriangleWorld world = yard();
  const Take take = random_take(5, Profile{});
  const Run run = run_of(take, world);
  for (const Signal& signal : all_signals()) {
    CHECK(find_signal(signal.key) == &signal);
    for (std::size_t tick = 0; tick <= run.ticks(); ++tick)
      REQUIRE(std::isfinite(value_at(signal, run, take, world, tick)));
  }
  CHECK(find_signal("nonsense") == nullptr);
  const Take hop = take_of(standing_at({}, {0, 0, 0}), 60, 1.0, {}, [](double t) { return jump_at(t, 0.1); });
  const Run up = run_of(hop, Scene().floor().world());
  const TriangleWorld flat = Scene().floor().world();
  for (const std::size_t tick : {10u, 20u, 30u})
    CHECK(value_at(*find_signal("distance_to_ground"), up, hop, flat, tick) ==
          Approx(up.state(tick).foot_C.y).margin(1e-6));
}

TEST_CASE("Drawing the legs up in the air, or letting them down, is no pop") {
  const TriangleWorld world = Scene().floor().world();
  for (const int hz : {20, 60, 240}) {
    CharacterState high = standing_at({}, {0, 6, 0});
    const Take take = take_of(high, hz, 1.0, {}, [](double t) {
      InputFrame input;
      input.pressed.set(Action::Crouch, std::abs(t - 0.2) < 1e-6);
      input.held.set(Action::Crouch, t > 0.19 && t < 0.6);
      return input;
    });
    const Run run = run_of(take, world);
    double lowest = 1e9;
    for (std::size_t tick = 0; tick <= run.ticks(); ++tick)
      lowest = std::min(lowest, run.state(tick).capsule_height);
    CHECK(lowest < 1.5);
    CHECK(of_kind(run, Finding::Kind::Pop).empty());
  }
}

TEST_CASE("A take's inputs go through a document and give the same way again") {
  const TriangleWorld world = yard();
  for (int seed = 1; seed < 20; ++seed) {
    Take take = random_take(std::uint64_t(seed), Profile{});
    Random random{std::uint64_t(seed) + 100};
    take.tick_rate = std::vector<int>{20, 60, 144}[std::size_t(seed % 3)];
    Buttons held;
    for (InputFrame& input : take.inputs) {
      input.pressed = {};
      for (std::size_t i = 0; i + 1 < kActionCount; ++i) {
        const auto action = static_cast<Action>(i);
        const int what = random.below(20);
        input.pressed.set(action, what == 0 || what == 1);
        if (what <= 1) input.pressed_at[i] = static_cast<float>(random.below(4)) / 4.0f;
        if (what == 0 || what == 2) input.released_at[i] = static_cast<float>(random.below(4)) / 4.0f;
        // A press that is let go of in its tick, or in a later one.
        if (what == 0 && input.released_at[i] < input.pressed_at[i]) input.released_at[i] = input.pressed_at[i];
        if (what == 1 && held.has(action)) input.released_at[i] = 0.25f * input.pressed_at[i];
        if (what <= 2) held.set(action, what == 1);
      }
      input.held = held;
      if (random.below(6) == 0)
        input.earlier[0] = {Vec2(random.between(-1, 1), 1.0), Vec2(random.between(-2, 2), 0.0), 0.25f};
      if (input.earlier[0].until > 0.0f && random.below(2) == 0)
        input.earlier[1] = {Vec2(0.0, random.between(-1, 1)), Vec2(0.0), 0.75f};
      if (random.below(20) == 0) input.look = Vec2(random.between(-3, 3), 0.0), input.look_at = 0.5f;
    }
    const InputScript script = script_of(take);
    CHECK(script.end() == take.seconds());
    const auto read = parse_inputs(inputs_text(script, "a \"way\""), "way.inputs.json");
    REQUIRE(read);
    REQUIRE(read->changes.size() == script.changes.size());
    Take again = take;
    again.inputs = frames_of(*read, take.tick_rate, take.seconds());
    REQUIRE(again.inputs.size() == take.inputs.size());
    for (std::size_t i = 0; i < take.inputs.size(); ++i) {
      INFO("seed " << seed << ", tick " << i);
      REQUIRE(again.inputs[i].held == take.inputs[i].held);
      REQUIRE(again.inputs[i].pressed == take.inputs[i].pressed);
      REQUIRE(again.inputs[i].move == take.inputs[i].move);
      for (const double share : {0.0, 0.25, 0.5, 0.75})
        REQUIRE(sticks_at(again.inputs[i], share).move == sticks_at(take.inputs[i], share).move);
    }
    const Run was = run_of(take, world), is = run_of(again, world);
    CHECK(compare(was, is).furthest < 1e-6);
  }
}

TEST_CASE("Running a take can be stopped") {
  const Take take = take_of(standing_at({}, {0, 0, 0}), 60, 60.0, {}, [](double) { return push(0, 1); });
  const TriangleWorld world = Scene().floor(1000).world();
  double last = -1.0;
  CHECK_FALSE(run_take(take, world, [&](double share) {
    CHECK(share >= last);
    last = share;
    return share < 0.5;
  }));
  CHECK(last < 0.9);
}

TEST_CASE("A run is named after what happened") {
  const TriangleWorld world = yard();
  const Take take = take_of(standing_at({}, {0, 0, 0}), 60, 12.0, {}, [](double t) {
    InputFrame input = jump_at(t, 0.5, t < 3 ? 1 : 0);
    input.held.set(Action::Sprint, true);
    return input;
  });
  const std::string name = describe(run_of(take, world), world, take.profile);
  INFO(name);
  CHECK(name.find("sprint") != std::string::npos);
  CHECK(name.find("1 jump") != std::string::npos);
  CHECK(name.find("12 s") != std::string::npos);
  CHECK(path_of(run_of(take, world), 50).size() == 50);
}

TEST_CASE(
    "What looks like a finding and is none: a jump in long ticks, a walkway that goes along, a press while "
    "lying") {
  const Profile profile;
  const TriangleWorld floor = Scene().floor().world();
  for (const int hz : {10, 20, 60}) {
    const Take jump =
        take_of(standing_at(profile, {0, 0, 0}), hz, 2.0, profile, [](double t) { return jump_at(t, 1.0); });
    CHECK(of_kind(run_of(jump, floor), Finding::Kind::Pop).empty());
  }
  const Take lying = take_of(start_state(profile, Home{}, floor), 60, 3.0, profile, [](double t) {
    InputFrame input = jump_at(t, 2.0);
    input.pressed.set(Action::Lie, t == 0.0);
    return input;
  });
  CHECK(of_kind(run_of(lying, floor), Finding::Kind::MissedJump).empty());

  Course course;
  Piece walkway{"walkway", {0, 0, -18}, Vec3(0.0), "", shape::Block{{6, 0.1, 30}}};
  walkway.motion = PieceMotion{{{0.0}, {1.0, Vec3(0, 0, -120)}}, 60.0};
  course.pieces = {{"floor", {0, -1, 0}, Vec3(0.0), "", shape::Block{{200, 1, 200}}}, walkway};
  const TriangleWorld world = build_world(course);
  const Take onto =
      take_of(start_state(profile, Home{}, world), 60, 1.6, profile, [](double) { return push(0, 1); });
  const Run run = run_of(onto, world);
  CHECK(run.last().ground.piece == 1);
  CHECK(of_kind(run, Finding::Kind::SpeedLoss).empty());
}

TEST_CASE("Who rests on what is no ground and cannot get off, and who gave up sliding, is found") {
  Profile profile;
  profile.air.speed = 0.0;
  Course course;
  course.surfaces = {{"thorns", {Surface::Walk::ByAngle, false, false, 1.0}}};
  course.pieces = {{"bed", {0, -1, 0}, Vec3(0.0), "thorns", shape::Block{{20, 1, 20}}}};
  const TriangleWorld world = build_world(course);
  const Take take =
      take_of(standing_at(profile, {0, 0.2, 0}), 60, 3.0, profile, [](double) { return InputFrame{}; });
  const auto resting = of_kind(run_of(take, world), Finding::Kind::StuckInAir);
  REQUIRE(resting.size() == 1);
  CHECK(to_sentence(resting[0], world, profile, 60).find("no ground") != std::string::npos);

  Run run(standing_at(profile, {0, 0, 0}), 60);
  Ledger ledger;
  ledger.entries.push_back(entry::Exhausted{5, 0.02});
  run.pass({}, run.last(), ledger, profile);
  const auto given_up = of_kind(run, Finding::Kind::Exhausted);
  REQUIRE(given_up.size() == 1);
  CHECK(given_up[0].amount == Approx(0.02));
}

TEST_CASE("Where up turns so fast that the view is torn round, it is said once, with where that peaks") {
  // A box at whose side the pull turns by a right angle: at once, and over four metres.
  const auto box = [](double fade) {
    Course course;
    course.pieces = {{"floor", {0, -1, 0}, Vec3(0.0), "", shape::Block{{60, 1, 60}}}};
    Field field;
    field.id = "Aside";
    field.shape = field::Uniform{{20, 20, 20}, Vec3(1, 0, 0)};
    field.at_C = {0, 0, -20};
    field.reach = fade;
    field.fade = fade;
    course.fields = {field};
    course.marks = {{"start", {0, 0, 0}, 0.0}};
    return build_world(course);
  };
  const Profile profile;
  const auto jerks = [&](double fade, int hz) {
    const TriangleWorld world = box(fade);
    const Take take =
        take_of(start_state(profile, Home{}, world), hz, 3.0, profile, [](double) { return push(0, 1); });
    const Run run = run_of(take, world);
    const auto found = of_kind(run, Finding::Kind::ViewJerk);
    for (const Finding& jerk : found) {
      CHECK_THAT(to_sentence(jerk, world, profile, hz), Catch::StartsWith("view jerk: up turned at up to "));
      CHECK(jerk.at_C.z == Approx(-10.0).margin(1.5));
      CHECK(degrees(jerk.amount) > 200.0);
      CHECK(degrees(jerk.amount) < degrees(profile.upright.turn_rate) + 1.0);
    }
    return found.size();
  };
  for (const int hz : {20, 60, 240}) {
    INFO(hz);
    CHECK(jerks(0.0, hz) == 1);
    CHECK(jerks(6.0, hz) == 0);
  }
  // What the hand turns is meant.
  Course floor;
  floor.pieces = {{"floor", {0, -1, 0}, Vec3(0.0), "", shape::Block{{60, 1, 60}}}};
  const TriangleWorld plain = build_world(floor);
  const Take turned = take_of(start_state(profile, Home{}, plain), 60, 1.0, profile, [](double) {
    InputFrame input;
    input.look_delta = Vec2(0.2, 0.0);
    return input;
  });
  CHECK(of_kind(run_of(turned, plain), Finding::Kind::ViewJerk).empty());
}
