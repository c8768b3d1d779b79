// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include "lagniappe/compare.h"
#include "results.h"

namespace lagniappe::cli {
namespace {

void print_table(const Run& first, const Run& second) {
  const RunSummary a = first.summarize(), b = second.summarize();
  fmt::print("side by side      first, second\n");
  for (const RunFigure& figure : run_figures())
    fmt::print("  {:<16}{:>12.{}f}{:>12.{}f}  {}\n", figure.name, figure.get(first, a), figure.digits,
               figure.get(second, b), figure.digits, unit_of(figure));
}

void print_parting(const Compared& first, const Compared& second, std::size_t tick) {
  fmt::print("part              at tick {}, {:.3f} s\n", tick,
             static_cast<double>(tick) / first.run.tick_rate());
  if (tick == 0) return;
  print_tick(first.run, first.take, first.world, tick);
  const std::size_t other = tick_at(first.run, tick, second.run);
  if (other > 0) print_tick(second.run, second.take, second.world, other);
}

std::string piece_text(const World& world, PieceId piece) {
  return piece == kNoPiece ? "in the air" : fmt::format("on \u201c{}\u201d", world.piece_name(piece));
}

}  // namespace

bool print_comparison(const Compared& first, const Compared& second) {
  const bool same_course = first.take.course_identity == second.take.course_identity;
  const Comparison found = compare(first.run, second.run, same_course);
  if (found.identical) {
    fmt::print("identical         yes, in all {} ticks\n", first.run.ticks());
    return true;
  }
  fmt::print("identical         no{}\n",
             found.first_difference
                 ? fmt::format(": tick {} is the first that differs", *found.first_difference)
                 : std::string());
  if (found.parting) print_parting(first, second, *found.parting);
  fmt::print("furthest apart    {:.3f} m at {:.2f} s\n", found.furthest,
             static_cast<double>(found.furthest_at) / first.run.tick_rate());
  if (found.drift) {
    fmt::print("drifted           from {:.2f} s on comparing means little: the first is {}, the second {}\n",
               static_cast<double>(found.drift->tick) / first.run.tick_rate(),
               piece_text(first.world, found.drift->mine), piece_text(second.world, found.drift->other));
  }
  print_table(first.run, second.run);
  return false;
}

}  // namespace lagniappe::cli
