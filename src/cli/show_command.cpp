// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <cmath>
#include <memory>

#include "commands.h"
#include "lagniappe/handling.h"
#include "lagniappe/handling_files.h"
#include "lagniappe/profile_fields.h"
#include "piece_sheet.h"
#include "script.h"

namespace lagniappe::cli {
namespace {

struct Options {
  std::string profile, curve, svg, csv;
  std::vector<std::string> set;
  int hz = 60;
  bool json = false, pieces = false, fields = false, zones = false;
};

void print_row(const Profile& profile, const std::string& path, std::string_view unit,
               const std::string& range) {
  const std::string value = value_text(profile, path), standard = value_text(Profile{}, path);
  std::string line =
      fmt::format("{}{:<34} {:>12} {:<6} {:<26}", value == standard ? ' ' : '*', path, value, unit, range);
  if (value != standard) line += fmt::format(" default {}", standard);
  if (const auto note = profile.notes.find(path); note != profile.notes.end())
    line += fmt::format("  ({})", note->second);
  fmt::print("{}\n", line.substr(0, line.find_last_not_of(' ') + 1));
}

std::string range_text(const ProfileField& field, const Profile& profile) {
  const double value = field.typed(profile);
  const std::string sane = fmt::format("{:.6g} .. {:.6g}", field.sane_low, field.sane_high);
  if (value < field.sane_low && !field.below.empty()) return sane + fmt::format("  below: {}", field.below);
  if (value > field.sane_high && !field.above.empty()) return sane + fmt::format("  above: {}", field.above);
  return sane;
}

void print_values(const Profile& profile) {
  fmt::print(
      "{}\n\nvalues (* differs from the default; the range is what walking characters are tuned within)\n",
      profile.name);
  for (const ProfileField& f : profile_fields())
    print_row(profile, path_of(f.section, f.key), text_of(f.unit), range_text(f, profile));
  for (const ProfileCurve& f : profile_curves()) print_row(profile, path_of(f.section, f.key), f.y_unit, "");
  for (const ProfileChoice& f : profile_choices()) {
    std::string words = f.words.empty() ? "true, false" : "";
    for (const std::string_view word : f.words) words += fmt::format("{}{}", words.empty() ? "" : ", ", word);
    print_row(profile, path_of(f.section, f.key), "", words);
  }
}

void print_figures(const Profile& profile, int tick_rate) {
  fmt::print("\nderived, at {} ticks/s\n", tick_rate);
  for (const Figure& f : figures_of(profile, tick_rate)) {
    const std::string value = std::isfinite(f.value) ? fmt::format("{:.6g}", f.value) : "never";
    fmt::print(" {:<34} {:>12} {:<6} {}\n", f.group + "." + f.key, value, f.unit, f.formula);
  }
}

int write_curve(const Options& o, const Profile& profile) {
  const CurveDrawing curve = curve_drawing(profile, o.curve);
  for (const auto& [path, text] : {std::pair{o.svg, curve_svg(curve)}, std::pair{o.csv, curve_csv(curve)}}) {
    if (path.empty()) continue;
    if (const auto written = write_file(path, text); !written) return fail(written.error());
  }
  if (o.svg.empty() && o.csv.empty()) fmt::print("{}", curve_csv(curve));
  return kFine;
}

int show(const Options& o) {
  const auto profile = profile_with(o.profile, o.set);
  if (!profile) return fail(profile.error());
  if (!o.curve.empty()) return write_curve(o, *profile);
  if (o.json) {
    fmt::print("{}", profile_sheet(*profile, o.hz));
    return kFine;
  }
  print_values(*profile);
  print_figures(*profile, o.hz);
  return kFine;
}

}  // namespace

Command add_show(CLI::App& app) {
  CLI::App* command = app.add_subcommand("show", "Show every value of a profile, and what they come to");
  auto o = std::make_shared<Options>();
  auto* profile = command->add_option("PROFILE", o->profile, "Profile (*.profile.json)");
  command
      ->add_flag("--pieces", o->pieces, "Instead, the kinds of pieces that a course may have, with their keys")
      ->excludes(profile);
  command->add_flag("--fields", o->fields, "Instead, the kinds of fields of gravity that a course may have")
      ->excludes(profile)
      ->excludes("--pieces");
  command->add_flag("--zones", o->zones, "Instead, the shapes and effects of zones that a course may have")
      ->excludes(profile)
      ->excludes("--pieces")
      ->excludes("--fields");
  add_set_option(*command, o->set);
  command->add_option("--hz", o->hz, "Tick rate at which ticks are counted")
      ->check(CLI::Range(10, 480))
      ->capture_default_str();
  command->add_flag("--json", o->json, "As JSON, with what every value is for");
  std::vector<std::string> names(curve_names().begin(), curve_names().end());
  command->add_option("--curve", o->curve, "A curve instead, as CSV")->check(CLI::IsMember(names));
  command->add_option("--svg", o->svg, "File for the curve as a picture")->needs("--curve");
  command->add_option("--csv", o->csv, "File for the curve's points")->needs("--curve");
  command->footer(
      "Examples:\n"
      "  lagniappe-cli show profiles/wader.profile.json --set jump.height=1.1\n"
      "  lagniappe-cli show profiles/heron.profile.json --curve arc --svg arc.svg\n"
      "  lagniappe-cli show --pieces\n\n"
      "Exit code: 0 if it was shown, 2 on bad input, 64 on wrong usage.");
  command->callback([o] {
    if (!o->pieces && !o->fields && !o->zones && o->profile.empty()) throw CLI::RequiredError("PROFILE");
  });
  return {command, [o] {
            if (o->fields) return show_fields(o->json);
            if (o->zones) return show_zones(o->json);
            return o->pieces ? show_pieces(o->json) : show(*o);
          }};
}

}  // namespace lagniappe::cli
