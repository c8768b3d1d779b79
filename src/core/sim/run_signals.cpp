// SPDX-License-Identifier: MIT
#include "lagniappe/run_signals.h"

#include "lagniappe/states.h"

namespace lagniappe {

SignalView view_at(const Run& run, const Take& take, const World& world, const Values& values,
                   std::size_t tick) {
  static const InputFrame none;
  const bool first = tick == 0;
  return {run.state(first ? 0 : tick - 1),
          run.state(tick),
          first ? none : take.inputs[tick - 1],
          values,
          world,
          1.0 / run.tick_rate(),
          {run.state(tick).time}};
}

double value_at(const Signal& signal, const Run& run, const Take& take, const World& world, std::size_t tick) {
  const Values values = chart_of(take.profile).values_in(run.state(tick).state, take.profile);
  return signal.value(view_at(run, take, world, values, tick));
}

}  // namespace lagniappe
