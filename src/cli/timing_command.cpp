// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <charconv>
#include <cmath>
#include <memory>
#include <thread>

#include "commands.h"
#include "lagniappe/timing.h"
#include "script.h"

namespace lagniappe::cli {
namespace {

struct Options {
  Script script;
  std::string take, csv, frames;
  std::vector<int> rates = {20, 30, 60, 144};
  std::vector<double> draw_rates = {30, 60, 144};
  std::vector<std::string> drawings = {"interpolated", "ticked", "ahead", "chase:20", "in-frame"};
  std::vector<std::string> hitches;
  double unevenness = 0.0, catch_up = 0.25, camera_lag = 0.0;
  bool ticked_look = false, no_smoothing = false;
};

// "0.25@1.5".
bool read_hitch(const std::string& text, Hitch& hitch) {
  const char *begin = text.data(), *end = begin + text.size();
  const auto seconds = std::from_chars(begin, end, hitch.seconds);
  if (seconds.ec != std::errc{} || seconds.ptr == end || *seconds.ptr != '@') return false;
  const auto at = std::from_chars(seconds.ptr + 1, end, hitch.at);
  return at.ec == std::errc{} && at.ptr == end && hitch.seconds > 0.0 && hitch.seconds <= 60.0 &&
         hitch.at >= 0.0 && hitch.at <= 86400.0;
}

// Of an option's value, for the parser.
std::string refused_hitch(const std::string& text) {
  Hitch hitch;
  return read_hitch(text, hitch) ? "" : "a hitch is SECONDS@TIME, as 0.25@1.5";
}
std::string refused_drawing(const std::string& text) {
  return drawing_of(text) ? "" : "a drawing is one of interpolated, ticked, ahead, chase:RATE, in-frame";
}

Result<TimingAsk> ask_of(const Options& options) {
  TimingAsk ask;
  ask.tick_rates = options.rates;
  ask.draw_rates = options.draw_rates;
  ask.longest_catch_up = options.catch_up;
  ask.clock.unevenness = options.unevenness;
  ask.drawings.clear();
  for (const std::string& word : options.drawings) {
    Drawing drawing = *drawing_of(word);
    drawing.look_at_draw_rate = !options.ticked_look;
    drawing.eye_smoothing = !options.no_smoothing;
    drawing.camera_lag = options.camera_lag;
    ask.drawings.push_back(drawing);
  }
  for (const std::string& text : options.hitches) read_hitch(text, ask.clock.hitches.emplace_back());
  std::stable_sort(ask.clock.hitches.begin(), ask.clock.hitches.end(),
                   [](const Hitch& a, const Hitch& b) { return a.at < b.at; });
  if (options.frames.empty()) return ask;
  auto lengths = read_frame_lengths(options.frames);
  if (!lengths) return refuse(lengths.error());
  ask.clock.measured = std::move(*lengths);
  // The file says when is drawn, whatever rate is asked for.
  double all = 0.0;
  for (const double length : ask.clock.measured) all += length;
  ask.draw_rates = {static_cast<double>(ask.clock.measured.size()) / all};
  return ask;
}

void print_rows(const std::vector<TimingRow>& rows) {
  fmt::print("{:>7} {:>8} {:<13} {:>7} {:>8} {:>9} {:>8} {:>8} {:>8} {:>9} {:>9} {:>8} {:>9} {:>8} {:>7}\n",
             "ticks/s", "frames/s", "drawing", "lag ms", "far mm", "jitter mm", "pop mm", "in mm", "apart mm",
             "press ms", "waits ms", "eye mm", "eye jit", "look deg", "step us");
  for (const TimingRow& row : rows) {
    const TimingFigures& f = row.figures;
    fmt::print("{:>7} {:>8.4g} {:<13} {:>7.1f} {:>8.1f} {:>9.3f} {:>8.2f} {:>8.2f} {:>8.2f} ", row.tick_rate,
               row.draw_rate, word_of(row.drawing), f.body.lag * 1e3, f.body.farthest * 1e3,
               f.body.jitter * 1e3, f.body.pop * 1e3, f.inside * 1e3, f.apart * 1e3);
    if (f.age.presses > 0) {
      fmt::print("{:>9.1f} {:>9.1f} ", f.age.mean * 1e3, f.age_whole.mean * 1e3);
    } else {
      fmt::print("{:>9} {:>9} ", "-", "-");
    }
    fmt::print("{:>8.1f} {:>9.3f} {:>8.2f} {:>7.2f}\n", f.eye.farthest * 1e3, f.eye.jitter * 1e3,
               degrees(f.look_farthest), row.step_seconds * 1e6);
  }
}

int measure(const Options& options, const TimingSource& source) {
  const auto ask = ask_of(options);
  if (!ask) return fail(ask.error());
  if (source.seconds > kLongestTiming) {
    fmt::print(stderr, "A run of at most {} s is measured; this one has {} s.\n", kLongestTiming,
               source.seconds);
    return kWrongUsage;
  }
  const auto rows = timing_rows(source, *ask, std::max(1u, std::thread::hardware_concurrency()));
  if (!options.csv.empty()) {
    if (const auto written = write_file(options.csv, timing_csv(*rows)); !written) return fail(written.error());
  }
  print_rows(*rows);
  double apart = 0.0, dropped = 0.0;
  for (const TimingRow& row : *rows) {
    if (row.drawing.method != DrawMethod::InFrame) apart = std::max(apart, row.figures.apart);
    dropped = std::max(dropped, row.figures.dropped);
  }
  fmt::print("{:.6g} s; all tick rates within {:.2f} cm of {} ticks/s\n", source.seconds, apart * 1e2,
             kExactTickRate);
  if (dropped > 0.0)
    fmt::print("{:.3f} s at most were not made up for: a frame makes up for {} s\n", dropped, options.catch_up);
  return kFine;
}

int timing(const Options& options) {
  if (!options.take.empty()) {
    const auto take = read_take(options.take);
    if (!take) return fail(take.error());
    const TriangleWorld world = build_world(*take->course);
    return measure(options, source_of(*take, world));
  }
  const Script& script = options.script;
  if (script.course.empty() || script.profile.empty() || script.inputs.empty()) {
    fmt::print(stderr, "There must be a take, or --course, --profile and --inputs.\n");
    return kWrongUsage;
  }
  const auto loaded = load(script);
  if (!loaded) return fail(loaded.error());
  const TriangleWorld world = build_world(loaded->course);
  return measure(options, {start_state(loaded->profile, loaded->home, world), loaded->inputs,
                           seconds_of(script, loaded->inputs), loaded->profile, world});
}

}  // namespace

Command add_timing(CLI::App& app) {
  CLI::App* command = app.add_subcommand(
      "timing", "Measure what is seen of a run: at every tick rate, draw rate and way to draw it");
  auto o = std::make_shared<Options>();
  command->add_option("take", o->take,
                      "A take (*.take); else a run is made of --course, --profile and --inputs");
  add_source_options(*command, o->script, false);
  command->add_option("--hz", o->rates, "Tick rates")
      ->delimiter(',')
      ->check(CLI::Range(10, 480))
      ->capture_default_str();
  command->add_option("--draw", o->draw_rates, "Draw rates in frames per second")
      ->delimiter(',')
      ->check(CLI::Range(1.0, 1000.0))
      ->capture_default_str();
  command->add_option("--drawing", o->drawings, "interpolated, ticked, ahead, chase:RATE (1/s), in-frame")
      ->delimiter(',')
      ->check(CLI::Validator(refused_drawing, ""))
      ->capture_default_str();
  command
      ->add_option("--hitch", o->hitches,
                   "SECONDS@TIME: the first frame after TIME takes so long; may be repeated")
      ->delimiter(',')
      ->check(CLI::Validator(refused_hitch, ""));
  command->add_option("--uneven", o->unevenness, "Share of a frame by which each is longer or shorter, at most")
      ->check(CLI::Range(0.0, 0.95));
  command->add_option("--frames", o->frames,
                      "Measured frames, in place of --draw: a text file with the milliseconds of one a line, "
                      "used over and over");
  command->add_option("--catch-up", o->catch_up, "Seconds of a frame that are made up for at most")
      ->check(CLI::Range(0.001, 10.0))
      ->capture_default_str();
  command
      ->add_option("--camera-lag", o->camera_lag,
                   "Time constant in seconds with which the eye follows the head")
      ->check(CLI::Range(0.0, 10.0));
  command->add_flag("--ticked-look", o->ticked_look,
                    "Draw the look as the body is drawn, not as the hand has turned it by then");
  command->add_flag("--no-smoothing", o->no_smoothing, "Draw steps and snaps as they are");
  command->add_option("--csv", o->csv, "Write the figures of the body as CSV");
  command->footer(
      "lag: the shift in time that best fits the drawn way to the exact one, which is the same inputs at 480 "
      "ticks "
      "a second. far: greatest distance between the two. jitter: root mean square of the drawn way's second "
      "differences, less the exact way's shifted by the lag; pop: the largest. in: deepest drawn overlap. "
      "apart: "
      "the run's own greatest distance from 480. press: mean age of a press when it is first seen; waits: the "
      "same "
      "where a press waits for the next tick to begin.\n\n"
      "Examples:\n"
      "  lagniappe-cli timing stairs.take --hz 30,60 --draw 60,144 --drawing ticked,interpolated\n"
      "  lagniappe-cli timing stairs.take --hitch 0.25@1.5 --csv timing.csv\n\n"
      "Exit code: 0 if it ran, 2 on bad input (one line says which file, where, and what is wrong), 64 on "
      "wrong usage.");
  return {command, [o] { return timing(*o); }};
}

}  // namespace lagniappe::cli
