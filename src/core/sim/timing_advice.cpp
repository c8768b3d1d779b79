// SPDX-License-Identifier: MIT
#include "lagniappe/timing_advice.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace lagniappe {
namespace {

constexpr double kFeltLag = 0.012;    // s that nobody calls late.
constexpr double kSeenJitter = 2e-3;  // m that nobody calls uneven.
constexpr double kSeenInside = 5e-3;  // m.
constexpr double kMuchSooner = 4e-3;  // s.

class Adviser {
 public:
  Adviser(const std::vector<TimingRow>& rows, const TimingRow& now) : rows_(rows), now_(now) {}

  std::vector<TimingAdvice> all() {
    uneven();
    late();
    enters();
    waits();
    dropped();
    if (said_.empty())
      say(fmt::format("At {} ticks/s and {:g} frames/s {} is even to {:.1f} mm and {:.0f} ms late: nothing "
                      "here would be "
                      "seen to be better.",
                      now_.tick_rate, now_.draw_rate, word_of(now_.drawing), now_.figures.body.jitter * 1e3,
                      now_.figures.body.lag * 1e3),
          now_);
    return std::move(said_);
  }

 private:
  // The cell with another method, or tick rate, else as now.
  const TimingRow* other(int tick_rate, DrawMethod method) const {
    const auto found = std::find_if(rows_.begin(), rows_.end(), [&](const TimingRow& row) {
      return row.tick_rate == tick_rate && row.draw_rate == now_.draw_rate && row.drawing.method == method;
    });
    return found == rows_.end() ? nullptr : &*found;
  }
  const TimingRow* with(DrawMethod method) const { return other(now_.tick_rate, method); }
  // The next higher tick rate that there is.
  const TimingRow* quicker() const {
    const TimingRow* best = nullptr;
    for (const TimingRow& row : rows_) {
      if (row.tick_rate <= now_.tick_rate || row.draw_rate != now_.draw_rate || !(row.drawing == now_.drawing))
        continue;
      if (row.tick_rate >= 2 * now_.tick_rate && (best == nullptr || row.tick_rate < best->tick_rate))
        best = &row;
    }
    return best;
  }

  void say(const std::string& text, const TimingRow& then) {
    said_.push_back({text, then.tick_rate, then.drawing});
  }

  void uneven() {
    const TimingFigures& f = now_.figures;
    const TimingRow* even = with(DrawMethod::Interpolated);
    if (f.body.jitter < kSeenJitter || even == nullptr || even->figures.body.jitter > 0.5 * f.body.jitter)
      return;
    say(fmt::format("{} at {} ticks/s and {:g} frames/s is uneven by {:.1f} mm; interpolated by {:.2f} mm, for "
                    "{:.1f} ms "
                    "more lag.",
                    word_of(now_.drawing), now_.tick_rate, now_.draw_rate, f.body.jitter * 1e3,
                    even->figures.body.jitter * 1e3, (even->figures.body.lag - f.body.lag) * 1e3),
        *even);
  }

  void late() {
    const TimingRow* sooner = quicker();
    const double lag = now_.figures.body.lag;
    if (lag < kFeltLag || sooner == nullptr || now_.drawing.method == DrawMethod::InFrame) return;
    if (sooner->figures.body.lag > 0.8 * lag) return late_by_method(lag);
    // What more ticks cost, of the time of a frame: by the one measure of which there are more ticks.
    const double cost = (sooner->tick_rate - now_.tick_rate) * sooner->step_seconds / now_.draw_rate;
    const bool halves = sooner->figures.body.lag < 0.6 * lag;
    say(fmt::format(
            "At {} ticks/s {} lags {:.0f} ms; {} would {} and cost {:.2g} ms a frame.", now_.tick_rate,
            word_of(now_.drawing), lag * 1e3, sooner->tick_rate,
            halves ? std::string("halve it") : fmt::format("make it {:.0f}", sooner->figures.body.lag * 1e3),
            cost * 1e3),
        *sooner);
  }

  // Where ticks are not what it waits for.
  void late_by_method(double lag) {
    const TimingRow* sooner = with(DrawMethod::Interpolated);
    if (sooner == nullptr || sooner->figures.body.lag > 0.8 * lag) return;
    say(fmt::format("{} lags {:.0f} ms at any tick rate; interpolated {:.0f} ms, and is as even.",
                    word_of(now_.drawing), lag * 1e3, sooner->figures.body.lag * 1e3),
        *sooner);
  }

  void enters() {
    const TimingFigures& f = now_.figures;
    const TimingRow* outside = with(DrawMethod::Interpolated);
    if (f.inside < kSeenInside || outside == nullptr || outside->figures.inside > 0.5 * f.inside) return;
    say(fmt::format("{} draws the body {:.1f} cm into what is solid (at {:.2f} s); interpolated {:.1f} cm.",
                    word_of(now_.drawing), f.inside * 1e2, f.inside_at, outside->figures.inside * 1e2),
        *outside);
  }

  void waits() {
    const TimingFigures& f = now_.figures;
    const double sooner = f.age_whole.mean - f.age.mean;
    if (f.age.presses == 0 || sooner < kMuchSooner) return;
    say(fmt::format("A press is seen after {:.0f} ms in the mean; if it waited for the next tick it would be "
                    "{:.0f} ms: "
                    "keep its instant in the input frame.",
                    f.age.mean * 1e3, f.age_whole.mean * 1e3),
        now_);
  }

  void dropped() {
    if (now_.figures.dropped <= 0.0) return;
    say(fmt::format(
            "{:.2f} s were not made up for: the longest frame is longer than what a frame makes up for.",
            now_.figures.dropped),
        now_);
  }

  const std::vector<TimingRow>& rows_;
  const TimingRow& now_;
  std::vector<TimingAdvice> said_;
};

}  // namespace

std::vector<TimingAdvice> timing_advice(const std::vector<TimingRow>& rows, const TimingRow& now) {
  return Adviser(rows, now).all();
}

}  // namespace lagniappe
