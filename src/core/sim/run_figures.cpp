// SPDX-License-Identifier: MIT
#include "lagniappe/run.h"

namespace lagniappe {
namespace {

constexpr RunFigure kFigures[] = {
    {"duration", "s", "", 3, [](const Run& run, const RunSummary&) { return run.seconds(); }},
    {"distance", "m", "", 3, [](const Run&, const RunSummary& s) { return s.drive.distance; }},
    {"top speed", "m/s", "course", 3, [](const Run&, const RunSummary& s) { return s.drive.top_speed; }},
    {"highest point", "m", "", 3, [](const Run&, const RunSummary& s) { return s.drive.highest_point; }},
    {"airtime", "s", "", 3, [](const Run&, const RunSummary& s) { return s.drive.airtime; }},
    {"landings", "", "", 0, [](const Run&, const RunSummary& s) { return double(s.landings); }},
    {"refused steps", "", "", 0, [](const Run&, const RunSummary& s) { return double(s.refused_steps); }},
    {"stuck", "s", "", 2, [](const Run&, const RunSummary& s) { return s.stuck_seconds; }},
    {"findings", "", "", 0, [](const Run& run, const RunSummary&) { return double(run.findings().size()); }},
    {"end x", "m", "", 3, [](const Run&, const RunSummary& s) { return s.end_C.x; }},
    {"end y", "m", "", 3, [](const Run&, const RunSummary& s) { return s.end_C.y; }},
    {"end z", "m", "", 3, [](const Run&, const RunSummary& s) { return s.end_C.z; }},
};

}  // namespace

std::span<const RunFigure> run_figures() { return kFigures; }

}  // namespace lagniappe
