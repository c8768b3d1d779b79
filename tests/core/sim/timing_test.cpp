// SPDX-License-Identifier: MIT
// What is seen of a run, frame by frame. Oracles: closed forms of even motion, counting, and whether a press
// changes what is drawn.
#include "lagniappe/timing.h"

#include <catch2/catch.hpp>

#include "lagniappe/timing_advice.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

constexpr double kSpeed = 5.0;

// Nobody runs here: the foot goes evenly along x.
TickedRun even_run(int tick_rate, double seconds, double speed = kSpeed) {
  TickedRun run{tick_rate, std::vector<InputFrame>(std::size_t(std::lround(seconds * tick_rate))), {}};
  for (std::size_t i = 0; i <= run.inputs.size(); ++i) {
    CharacterState state;
    state.time = double(i) / tick_rate;
    state.foot_C = Vec3(speed * state.time, 0.0, 0.0);
    state.velocity_C = Vec3(speed, 0.0, 0.0);
    run.states.push_back(state);
  }
  return run;
}

std::vector<double> even_frames(double rate, double seconds) {
  DisplayClock clock;
  clock.frames_per_second = rate;
  return frame_times(clock, seconds);
}

Drawing drawn_by(DrawMethod method) {
  Drawing drawing;
  drawing.method = method;
  return drawing;
}

WayFigures figures(const TickedRun& run, double draw_rate, const Drawing& drawing) {
  const Profile profile;
  const ExactWay exact(even_run(kExactTickRate, run.seconds()), profile, true);
  return way_figures(drawn_frames(run, even_frames(draw_rate, run.seconds()), drawing, profile), exact, false);
}

// Rest, then a jump on the move, and a turn.
InputScript jump_script(double press_at) {
  InputScript script;
  InputChange go, down, up;
  go.at = 0.0;
  go.move = Vec2(0.3, 0.8);
  down.at = press_at;
  down.press.set(Action::Jump, true);
  up.at = press_at + 0.05;
  up.release.set(Action::Jump, true);
  script.changes = {go, down, up};
  return script;
}

}  // namespace

TEST_CASE("Interpolation lags one tick, at every draw rate, and shows even motion evenly") {
  for (const int hz : {20, 30, 60, 144}) {
    for (const double draw : {24.0, 30.0, 60.0, 75.0, 144.0, 239.76}) {
      INFO(hz << " ticks/s, " << draw << " frames/s");
      const WayFigures f = figures(even_run(hz, 20.0), draw, drawn_by(DrawMethod::Interpolated));
      CHECK(f.lag == Approx(1.0 / hz).epsilon(1e-6));
      CHECK(f.farthest == Approx(kSpeed / hz).epsilon(1e-6));
      CHECK(f.jitter < 1e-9);
      CHECK(f.pop < 1e-8);
    }
  }
}

TEST_CASE("As ticked: jitter and lag by counting the ticks that each frame shows") {
  for (const int hz : {20, 30, 60, 144}) {
    for (const int draw : {30, 60, 75, 144, 240}) {
      INFO(hz << " ticks/s, " << draw << " frames/s");
      const int seconds = 20;
      double squares = 0.0, behind = 0.0;
      int count = 0, worst = 0;
      for (long n = 1; n + 1 < long(draw) * seconds; ++n) {
        const auto ticks = [&](long frame) { return frame * hz / draw; };
        const long second = ticks(n + 1) - 2 * ticks(n) + ticks(n - 1);
        squares += double(second * second);
        worst = std::max(worst, int(std::abs(second)));
        behind += double(n) / draw - double(ticks(n)) / hz;
        ++count;
      }
      const WayFigures f = figures(even_run(hz, seconds), draw, drawn_by(DrawMethod::AsTicked));
      CHECK(f.jitter == Approx(kSpeed / hz * std::sqrt(squares / count)).epsilon(2e-3).margin(1e-6));
      CHECK(f.pop == Approx(kSpeed / hz * worst).margin(1e-6));
      CHECK(f.lag == Approx(behind / count).margin(2e-4));
    }
  }
  // The best known one: at 60 and 144 two of every 2.4 frames' differences are a whole tick.
  CHECK(figures(even_run(60, 30.0), 144, drawn_by(DrawMethod::AsTicked)).jitter ==
        Approx(kSpeed / 60 * std::sqrt(2.0 / 2.4)).epsilon(2e-3));
}

TEST_CASE("A chase at rate k lags v / k, at every draw rate; ahead of even motion nothing is off") {
  for (const int rate : {30, 60, 144}) {
    Drawing chase = drawn_by(DrawMethod::Chase);
    for (const double k : {5.0, 20.0, 60.0}) {
      chase.chase_rate = k;
      // Drawn at the tick rate, no share of a tick is added.
      const WayFigures f = figures(even_run(rate, 20.0), rate, chase);
      CHECK(f.farthest == Approx(kSpeed / k).epsilon(1e-9));
      CHECK(f.lag == Approx(1.0 / k).epsilon(0.02));
    }
    const WayFigures ahead = figures(even_run(rate, 10.0), 97.0, drawn_by(DrawMethod::Ahead));
    CHECK(std::abs(ahead.lag) < 1e-9);
    CHECK(ahead.farthest < 1e-9);
    CHECK(ahead.jitter < 1e-9);
  }
  // A camera's lag is the same to the eye, and leaves the body alone.
  Drawing lagging = drawn_by(DrawMethod::Ahead);
  lagging.camera_lag = 0.2;
  const Profile profile;
  const ExactWay exact(even_run(kExactTickRate, 20.0), profile, true);
  const auto frames = drawn_frames(even_run(60, 20.0), even_frames(144, 20.0), lagging, profile);
  CHECK(way_figures(frames, exact, true).farthest == Approx(0.2 * kSpeed).epsilon(1e-6));
  CHECK(way_figures(frames, exact, false).farthest < 1e-9);
}

TEST_CASE("A turn is no jitter, and who stands has none") {
  // Round a circle of 2 m, exactly.
  const auto round = [](int hz) {
    TickedRun run = even_run(hz, 12.0);
    for (CharacterState& s : run.states) {
      const double a = kSpeed / 2.0 * s.time;
      s.foot_C = 2.0 * Vec3(std::cos(a), 0.0, std::sin(a));
      s.velocity_C = kSpeed * Vec3(-std::sin(a), 0.0, std::cos(a));
    }
    return run;
  };
  const Profile profile;
  const ExactWay exact(round(kExactTickRate), profile, true);
  const auto frames =
      drawn_frames(round(60), even_frames(60, 12.0), drawn_by(DrawMethod::Interpolated), profile);
  const WayFigures f = way_figures(frames, exact, false);
  CHECK(f.lag == Approx(1.0 / 60).epsilon(1e-3));
  // v2 / r over two ticks is 3.5 mm, of which nothing is left.
  CHECK(f.jitter < 1e-5);
  const WayFigures still = figures(even_run(30, 5.0, 0.0), 144, drawn_by(DrawMethod::AsTicked));
  CHECK(still.farthest == Approx(kSpeed * 5.0).epsilon(0.01));  // Against one who goes.
  const ExactWay stands(even_run(kExactTickRate, 5.0, 0.0), profile, true);
  const WayFigures none = way_figures(
      drawn_frames(even_run(30, 5.0, 0.0), even_frames(144, 5.0), drawn_by(DrawMethod::AsTicked), profile),
      stands, false);
  CHECK(none.lag == 0.0);
  CHECK(none.jitter == 0.0);
}

TEST_CASE("A display draws evenly, unevenly, as measured, and with hitches") {
  const auto gaps = [](const std::vector<double>& times) {
    std::vector<double> between;
    for (std::size_t i = 1; i < times.size(); ++i) between.push_back(times[i] - times[i - 1]);
    return between;
  };
  CHECK(even_frames(60, 10.0).size() == 600);
  CHECK(even_frames(60, 10.0)[599] == Approx(599.0 / 60).margin(1e-12));
  DisplayClock clock;
  clock.unevenness = 0.6;
  const auto uneven = frame_times(clock, 60.0);
  CHECK(uneven.size() == Approx(3600).margin(1));
  const auto apart = gaps(uneven);
  const auto [least, most] = std::minmax_element(apart.begin(), apart.end());
  CHECK(*least >= 0.4 / 60 - 1e-12);
  CHECK(*most <= 1.6 / 60 + 1e-12);
  CHECK(*most - *least > 1.0 / 60);
  CHECK(frame_times(clock, 60.0) == uneven);
  clock.seed = 2;
  CHECK(frame_times(clock, 60.0) != uneven);
  clock.measured = {0.010, 0.020, 0.030};
  const auto measured = gaps(frame_times(clock, 0.2));
  for (std::size_t i = 0; i < measured.size(); ++i) CHECK(measured[i] == Approx(0.010 * double(i % 3 + 1)));
  DisplayClock hitching;
  hitching.hitches = {{0.5, 0.25}, {1.0, 0.4}};
  const auto times = frame_times(hitching, 2.0);
  int long_ones = 0;
  for (const double gap : gaps(times)) long_ones += gap > 0.02;
  CHECK(long_ones == 2);
  const auto after = std::upper_bound(times.begin(), times.end(), 0.5 + 1e-9);
  CHECK(*after == Approx(0.75));
}

TEST_CASE("What a hitch does not make up for is dropped, and from then on counts as not having been") {
  const Profile profile;
  DisplayClock clock;
  clock.hitches = {{2.0, 1.0}};
  const auto times = frame_times(clock, 5.0);
  double dropped = 0.0;
  const auto frames =
      drawn_frames(even_run(60, 10.0), times, drawn_by(DrawMethod::Interpolated), profile, 0.25, &dropped);
  CHECK(dropped == Approx(0.75));
  CHECK(frames.back().moment == Approx(frames.back().at - 0.75));
  const ExactWay exact(even_run(kExactTickRate, 10.0), profile, true);
  const WayFigures f = way_figures(frames, exact, false);
  CHECK(f.lag == Approx(1.0 / 60).epsilon(1e-6));
  CHECK(f.jitter < 1e-9);
  // Nothing is dropped where a frame may make up for all of it.
  drawn_frames(even_run(60, 10.0), times, drawn_by(DrawMethod::Interpolated), profile, 2.0, &dropped);
  CHECK(dropped == 0.0);
}

TEST_CASE("Who is put home makes no jitter, and is not drawn in between") {
  const auto put_home = [](int hz) {
    TickedRun run = even_run(hz, 10.0);
    for (CharacterState& s : run.states) {
      if (s.time < 5.0 - 1e-9) continue;
      s.foot_C.x -= 25.0;
      s.times_put_home = 1;
    }
    return run;
  };
  const Profile profile;
  const ExactWay exact(put_home(kExactTickRate), profile, true);
  for (const DrawMethod method : {DrawMethod::AsTicked, DrawMethod::Interpolated, DrawMethod::Ahead}) {
    const auto frames = drawn_frames(put_home(60), even_frames(60, 10.0), drawn_by(method), profile);
    const WayFigures f = way_figures(frames, exact, false);
    CHECK(f.pop < 1e-8);
    CHECK(f.farthest < 0.1);
    for (const DrawnFrame& frame : frames) {
      const double x = frame.pose.foot_C.x;
      CHECK((frame.put_home == 0 ? x <= 25.1 && x >= 0.0 : x <= 25.1 && x >= -0.1));
    }
  }
}

TEST_CASE("The age of a press is when it first changes what is drawn") {
  const TriangleWorld world = Scene().floor().world();
  const Profile profile;
  const CharacterState start = start_state(profile, Home{}, world);
  Random random(19);
  for (const int hz : {20, 60, 144}) {
    for (const double draw : {30.0, 60.0, 144.0}) {
      const auto times = even_frames(draw, 1.5);
      for (int i = 0; i < 12; ++i) {
        const double press_at = i < 3 ? 0.5 + i / 60.0 : random.between(0.3, 1.0);
        for (const bool whole : {false, true}) {
          for (const DrawMethod method : {DrawMethod::AsTicked, DrawMethod::Interpolated, DrawMethod::Ahead,
                                          DrawMethod::Chase, DrawMethod::InFrame}) {
            const bool in_frame = method == DrawMethod::InFrame;
            // Waiting for the next tick is pressing when that begins.
            const double effective = !whole     ? press_at
                                     : in_frame ? *std::lower_bound(times.begin(), times.end(), press_at - 1e-9)
                                                : std::ceil(press_at * hz - 1e-6) / hz;
            const auto drawn = [&](const InputScript& script) {
              return in_frame ? drawn_frames(run_in_frames(start, script, profile, world, times),
                                             drawn_by(method), profile)
                              : drawn_frames(ticked_run(start, script, profile, world, hz, 1.5), times,
                                             drawn_by(method), profile);
            };
            const auto with = drawn(jump_script(effective)), without = drawn(jump_script(50.0));
            std::size_t first = 0;
            while (first < with.size() && length(with[first].pose.foot_C - without[first].pose.foot_C) < 1e-9)
              ++first;
            REQUIRE(first < with.size());
            const std::array presses = {press_at};
            const PressAge age = press_age(with, presses, method, hz, whole);
            INFO(hz << " ticks/s, " << draw << " frames/s, pressed at " << press_at << ", method "
                    << int(method) << (whole ? ", waits" : ""));
            REQUIRE(age.presses == 1);
            CHECK(age.mean == Approx(with[first].at - press_at).margin(1e-9));
          }
        }
      }
    }
  }
}

TEST_CASE("In-frame motion by exact steps stays with 480 ticks a second, however uneven its frames") {
  const TriangleWorld world = Scene().floor().world();
  const Profile profile;
  const CharacterState start = start_state(profile, Home{}, world);
  InputScript script = jump_script(1.234);
  InputChange round;
  round.at = 2.0;
  round.turn = Vec2(radians(90.0), 0.0);
  script.changes.push_back(round);
  const double seconds = 6.0;
  const ExactWay exact(ticked_run(start, script, profile, world, kExactTickRate, seconds), profile, true);
  for (const double rate : {24.0, 60.0, 144.0}) {
    for (const double unevenness : {0.0, 0.9}) {
      DisplayClock clock;
      clock.frames_per_second = rate;
      clock.unevenness = unevenness;
      clock.hitches = {{3.0, 0.23}};
      const FrameRun run = run_in_frames(start, script, profile, world, frame_times(clock, seconds));
      INFO(rate << " frames/s, uneven by " << unevenness);
      CHECK(run.dropped == 0.0);
      CHECK(farthest_apart(run, exact) < 0.01);
    }
  }
  CHECK(farthest_apart(ticked_run(start, script, profile, world, 20, seconds), exact) < 0.01);
}

TEST_CASE("Going ahead draws the body into a wall; between two ticks it never is") {
  const Profile profile;
  InputScript script;
  InputChange go;
  go.move = Vec2(0.0, 1.0);
  script.changes = {go};
  const auto times = even_frames(240, 4.0);
  double deepest = 0.0;
  for (const double wall : {-6.0, -6.05, -6.1, -6.15}) {
    const TriangleWorld world = Scene().floor().block({0, 0, wall}, {20, 4, 1}).world();
    const CharacterState start = start_state(profile, Home{}, world);
    const TickedRun run = ticked_run(start, script, profile, world, 20, 4.0);
    const auto inside = [&](DrawMethod method) {
      return deepest_inside(drawn_frames(run, times, drawn_by(method), profile), profile, world);
    };
    const auto ahead = inside(DrawMethod::Ahead);
    // No deeper than one goes in the tick in which it is met.
    CHECK(ahead.depth <= profile.ground.speed / 20);
    if (ahead.depth > deepest) CHECK(ahead.moment > 1.0);
    deepest = std::max(deepest, ahead.depth);
    CHECK(inside(DrawMethod::Interpolated).depth <= profile.capsule.margin);
    CHECK(inside(DrawMethod::AsTicked).depth <= profile.capsule.margin);
  }
  CHECK(deepest > 0.1);
}

TEST_CASE("The look is where the hand has turned it by then; drawn with the body it is as late as that") {
  const TriangleWorld world = Scene().floor().world();
  const Profile profile;
  InputScript script;
  InputChange turn;
  turn.turn = Vec2(radians(90.0), 0.0);
  script.changes = {turn};
  const CharacterState start = start_state(profile, Home{}, world);
  const ExactWay exact(ticked_run(start, script, profile, world, kExactTickRate, 3.0), profile, true);
  const TickedRun run = ticked_run(start, script, profile, world, 30, 3.0);
  const auto off = [&](bool at_draw_rate, DrawMethod method) {
    Drawing drawing = drawn_by(method);
    drawing.look_at_draw_rate = at_draw_rate;
    return degrees(look_farthest(drawn_frames(run, even_frames(144, 3.0), drawing, profile), exact));
  };
  CHECK(off(true, DrawMethod::Interpolated) < 0.01);
  CHECK(off(false, DrawMethod::Interpolated) == Approx(90.0 / 30).epsilon(0.01));
  CHECK(off(false, DrawMethod::AsTicked) < 90.0 / 30);
  CHECK(off(false, DrawMethod::AsTicked) > 0.7 * 90.0 / 30);
}

TEST_CASE("A player that is asked for stretches as long as ticks gives the same input") {
  Random random(5);
  InputScript script;
  for (int i = 0; i < 60; ++i) {
    InputChange change;
    change.at = i < 30 ? i / 30.0 : script.changes.back().at + random.between(0.0, 0.08);
    if (random.below(2) == 0) change.move = Vec2(random.between(-1, 1), random.between(-1, 1));
    (random.below(2) == 0 ? change.press : change.release).set(Action::Jump, true);
    script.changes.push_back(change);
  }
  for (const int hz : {20, 60, 144}) {
    InputPlayer ticks(script, hz), stretches(script);
    for (int i = 0; i < 3 * hz; ++i) {
      const InputFrame a = ticks.next(), b = stretches.next(1.0 / hz);
      CHECK(a.move == b.move);
      CHECK(a.held.bits == b.held.bits);
      CHECK(a.pressed.bits == b.pressed.bits);
      const auto jump = std::size_t(Action::Jump);
      CHECK(a.pressed_at[jump] == Approx(b.pressed_at[jump]).margin(1e-5));
    }
  }
}

TEST_CASE("A matrix is the same on one thread and on two, and can be stopped") {
  const TriangleWorld world = Scene().floor().stairs({0, 0, -9}, 9.0, 0.2, 0.3, 8).world();
  const Profile profile;
  const InputScript script = jump_script(1.1);
  const TimingSource source{start_state(profile, Home{}, world), script, 3.0, profile, world};
  TimingAsk ask;
  ask.drawings = {*drawing_of("ticked"), *drawing_of("chase:12.5"), *drawing_of("in-frame")};
  ask.clock.hitches = {{1.0, 0.6}};
  const auto one = timing_rows(source, ask, 1), two = timing_rows(source, ask, 2);
  REQUIRE((one && two));
  REQUIRE(one->size() == 4 * 3 * 3);
  for (std::size_t i = 0; i < one->size(); ++i) {
    const TimingRow &a = (*one)[i], &b = (*two)[i];
    CHECK(a.tick_rate == ask.tick_rates[i / 9]);
    CHECK(a.draw_rate == ask.draw_rates[i / 3 % 3]);
    CHECK(a.drawing == ask.drawings[i % 3]);
    CHECK(a.figures.body.jitter == b.figures.body.jitter);
    CHECK(a.figures.body.lag == b.figures.body.lag);
    CHECK(a.figures.inside == b.figures.inside);
    CHECK(a.figures.apart < 0.01);
    CHECK(a.figures.dropped == Approx(0.35));
    CHECK(a.figures.age.presses == 1);
    CHECK(a.figures.age.worst <= a.figures.age_whole.worst);
    CHECK(a.step_seconds > 0.0);
  }
  CHECK_FALSE(timing_rows(source, ask, 2, [](double) { return false; }));
  double last = 0.0;
  timing_rows(source, ask, 1, [&](double share) {
    CHECK(share >= last);
    last = share;
    return true;
  });
  CHECK(last == Approx(1.0));
}

TEST_CASE("Drawings are named and known by name; measured frames are read, and refused by line") {
  for (const char* word : {"interpolated", "ticked", "ahead", "chase:20", "chase:7.5", "in-frame"})
    CHECK(word_of(drawing_of(word).value()) == word);
  CHECK(drawing_of("chase")->chase_rate == 20.0);
  for (const char* word :
       {"", "chase:", "chase:0", "chase:-3", "chase:inf", "chase:nan", "chase:5x", "ahead:20", "smooth"})
    CHECK_FALSE(drawing_of(word));
  CHECK(parse_frame_lengths("# ms\n16.7\r\n\n 33.4 \n7", "f").value() == std::vector{0.0167, 0.0334, 0.007});
  const auto refusal = [](const char* text) { return parse_frame_lengths(text, "f.txt").error().sentence(); };
  CHECK(refusal("16\nfast\n") ==
        "f.txt: line 2: a frame's length in milliseconds is wanted, alone on its line");
  CHECK(refusal("16, 17") == "f.txt: line 1: a frame's length in milliseconds is wanted, alone on its line");
  CHECK(refusal("\n\n-4") == "f.txt: line 3: a frame takes 0.01 to 60000 ms, not -4");
  CHECK(refusal("nan").find("not nan") != std::string::npos);
  CHECK(refusal("# nothing\n") == "f.txt: the file: there is no frame in it");
}

TEST_CASE(
    "Advice is computed: its numbers are those of the rows, and it is silent where there is none to give") {
  const TriangleWorld world = Scene().floor().world();
  const Profile profile;
  const TimingSource source{start_state(profile, Home{}, world), jump_script(1.11), 3.0, profile, world};
  TimingAsk ask;
  ask.tick_rates = {30, 60, 240};
  ask.draw_rates = {144};
  ask.drawings = {*drawing_of("ticked"), *drawing_of("interpolated"), *drawing_of("in-frame")};
  auto rows = *timing_rows(source, ask, 2);
  for (TimingRow& row : rows) row.step_seconds = 1e-6;
  const auto row = [&](int hz, const char* word) -> const TimingRow& {
    return *std::find_if(rows.begin(), rows.end(), [&](const TimingRow& r) {
      return r.tick_rate == hz && r.drawing == *drawing_of(word);
    });
  };
  const auto says = [&](const TimingRow& now, const std::string& part) {
    for (const TimingAdvice& a : timing_advice(rows, now)) {
      if (a.text.find(part) != std::string::npos) return true;
    }
    return false;
  };
  CHECK(says(row(30, "interpolated"), "At 30 ticks/s interpolated lags 33 ms; 60 would halve it and cost"));
  const auto late = timing_advice(rows, row(30, "interpolated")).front();
  CHECK(late.tick_rate == 60);
  // 30 more ticks a second of a microsecond each, in 144 frames.
  CHECK(late.text.find("cost 0.00021 ms a frame") != std::string::npos);
  CHECK(late.drawing == *drawing_of("interpolated"));
  CHECK(says(row(30, "ticked"), "ticked at 30 ticks/s and 144 frames/s is uneven by"));
  CHECK(timing_advice(rows, row(30, "ticked")).front().drawing == *drawing_of("interpolated"));
  CHECK(says(row(30, "interpolated"), "A press is seen after"));
  const auto none = timing_advice(rows, row(240, "interpolated"));
  CHECK(none.size() == 1);
  CHECK(none.front().text.find("nothing here would be seen to be better") != std::string::npos);
  TimingRow drops = row(240, "interpolated");
  drops.figures.dropped = 0.4;
  CHECK(says(drops, "0.40 s were not made up for"));
}
