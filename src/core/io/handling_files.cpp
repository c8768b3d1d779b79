// SPDX-License-Identifier: MIT
#include "lagniappe/handling_files.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "io/exact_degrees.h"
#include "io/json_document.h"
#include "lagniappe/handling.h"
#include "lagniappe/profile_fields.h"

namespace lagniappe {
namespace {

using Sheet = nlohmann::ordered_json;  // Its keys stay in order.

constexpr int kPoints = 120;
constexpr int kReferenceRate = 60;  // ticks/s that constants count ticks at.
constexpr std::string_view kNames[] = {"walk", "air", "jump", "jump-cut", "arc", "slopes", "walls"};

template <typename F>
std::vector<Vec2> sampled(double from, double to, const F& f) {
  std::vector<Vec2> points;
  for (int i = 0; i <= kPoints; ++i) {
    const double x = from + (to - from) * i / kPoints;
    points.emplace_back(x, f(x));
  }
  return points;
}

CurveDrawing push_drawing(std::string name, std::string title, const PushCurve& push) {
  return {std::move(name), std::move(title), "time (s)", "speed (m/s)",
          sampled(0.0, 2.0, [&](double t) { return push.speed_at(t); })};
}

CurveDrawing jump_drawing(const Profile& profile, std::string_view name, double released) {
  const JumpArc arc = jump_arc(profile, 0, released);
  const double along = name == "arc" ? walking_speed(profile) : 1.0;
  CurveDrawing drawing{std::string(name), "Height of a jump over time", "time (s)", "height (m)", {}};
  if (name == "jump-cut") drawing.title = "Height of a jump that is let go of at once, over time";
  if (name == "arc") drawing.title = "Height of a jump over the way at walking speed", drawing.x = "way (m)";
  drawing.points = sampled(0.0, arc.airtime, [&](double t) { return jump_height_at(profile, 0, t, released); });
  for (Vec2& p : drawing.points) p.x *= along;
  return drawing;
}

// Units as parts of names.
std::string_view suffix_of(std::string_view unit) {
  constexpr std::pair<std::string_view, std::string_view> kSuffixes[] = {
      {"m", "_m"},           {"s", "_s"},         {"m/s", "_m_per_s"},
      {"m/s2", "_m_per_s2"}, {"deg", "_deg"},     {"deg/s", "_deg_per_s"},
      {"%", "_percent"},     {"ticks", "_ticks"}, {"counts", "_counts"}};
  for (const auto& [text, suffix] : kSuffixes) {
    if (text == unit) return suffix;
  }
  return "";
}

std::string identifier(std::string_view path, std::string_view unit) {
  std::string name(path);
  for (char& c : name) c = c == '.' || c == '-' ? '_' : c;
  return name + std::string(suffix_of(unit));
}

Sheet points_of(const Curve& curve) {
  Sheet points = Sheet::array();
  for (int i = 0; i < curve.count; ++i) points.push_back({curve.points[i].x, curve.points[i].y});
  return points;
}

double written(const ProfileField& field, const Profile& profile) {
  return field.is_angle() ? exact_degrees(field.get(profile)) : field.get(profile);
}

// Infinity has no JSON; null says that it is never reached.
Sheet number_of(double value) { return std::isfinite(value) ? Sheet(value) : Sheet(nullptr); }

Sheet figures_json(const Profile& profile, int tick_rate) {
  Sheet list = Sheet::array();
  for (const Figure& f : figures_of(profile, tick_rate))
    list.push_back({{"group", f.group},
                    {"figure", f.key},
                    {"value", number_of(f.value)},
                    {"unit", f.unit},
                    {"formula", f.formula}});
  return list;
}

constexpr std::string_view kHowAJumpGoes =
    "A jump sets the rise speed to jump.take_off_speed. Per tick of dt seconds, under a gravity a: height += v "
    "dt - a "
    "dt^2 / 2, v -= a dt, split at the instant where a changes. a is gravity; gravity apex_factor while |v| <= "
    "apex_speed; "
    "gravity fall_factor below that (below 0 without hang); 0 at terminal_speed. If the button is let go while "
    "v > 0, "
    "a is gravity take_off_speed^2 / (2 gravity height lowest_share) until v = 0, and there is no hang.";

}  // namespace

std::span<const std::string_view> curve_names() { return kNames; }

CurveDrawing curve_drawing(const Profile& p, std::string_view name) {
  if (name == "walk") return push_drawing("walk", "Speed on the ground of a push of 1 s", walking_push(p, 1.0));
  if (name == "air")
    return push_drawing("air", "Speed in the air of a push of 1 s",
                        PushCurve(p.air.response, p.air.speed, 1.0));
  if (name == "slopes") {
    const double most = degrees(p.ground.steepest_walkable);
    return {"slopes", "Speed over the slope, uphill positive", "slope (deg)", "speed (m/s)",
            sampled(-most, most, [&](double x) { return walking_speed(p) * p.ground.slope_speed.at(x); })};
  }
  if (name == "walls")
    return {"walls", "Share of the speed kept over the angle of approach", "approach (deg)", "share kept",
            sampled(0.0, 90.0, [&](double x) { return p.walls.kept.at(x); })};
  return jump_drawing(p, name, name == "jump-cut" ? 0.0 : -1.0);
}

std::string curve_csv(const CurveDrawing& curve) {
  std::string text = fmt::format("{},{}\n", curve.x, curve.y);
  for (const Vec2& p : curve.points) text += fmt::format("{},{}\n", p.x, p.y);
  return text;
}

std::string curve_svg(const CurveDrawing& curve) {
  constexpr double kWidth = 640.0, kHeight = 320.0, kLeft = 64.0, kBelow = 48.0, kTop = 40.0, kRight = 24.0;
  Vec2 low = curve.points.front(), high = low;
  for (const Vec2& p : curve.points) low = glm::min(low, p), high = glm::max(high, p);
  low.y = std::min(low.y, 0.0);
  const Vec2 size = glm::max(high - low, Vec2(1e-9));
  Vec2 scale((kWidth - kLeft - kRight) / size.x, (kHeight - kBelow - kTop) / size.y);
  if (curve.x == "way (m)") scale = Vec2(std::min(scale.x, scale.y));
  const auto at = [&](const Vec2& p) {
    return Vec2(kLeft + (p.x - low.x) * scale.x, kHeight - kBelow - (p.y - low.y) * scale.y);
  };
  std::string line;
  for (const Vec2& p : curve.points)
    line += fmt::format("{}{:.2f},{:.2f}", line.empty() ? "" : " ", at(p).x, at(p).y);
  const Vec2 corner = at(low), far = at(high);
  return fmt::format(
      "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}\" height=\"{1}\" viewBox=\"0 0 {0} {1}\" "
      "font-family=\"Inter, sans-serif\" font-size=\"13\" fill=\"#20303A\">\n"
      "<rect width=\"{0}\" height=\"{1}\" fill=\"#FBF8F1\"/>\n<text x=\"{2}\" y=\"24\">{3}</text>\n"
      "<path d=\"M{2},{7} V{4} H{5}\" fill=\"none\" stroke=\"#5D6A6C\"/>\n"
      "<polyline points=\"{6}\" fill=\"none\" stroke=\"#0F6E6E\" stroke-width=\"2\"/>\n"
      "<text x=\"{2}\" y=\"{8}\">{9:.4g}</text>\n<text x=\"{5}\" y=\"{8}\" text-anchor=\"end\">{10:.4g} "
      "{11}</text>\n"
      "<text x=\"{12}\" y=\"{7}\" text-anchor=\"end\">{13:.4g}</text>\n<text x=\"{12}\" y=\"{4}\" "
      "text-anchor=\"end\">{14:.4g}</text>\n"
      "<text x=\"{2}\" y=\"{15}\">{16}</text>\n</svg>\n",
      kWidth, kHeight, kLeft, curve.title, corner.y, far.x, line, far.y, corner.y + 18.0, low.x, high.x,
      curve.x, kLeft - 6.0, high.y, low.y, far.y - 6.0, curve.y);
}

std::string profile_sheet(const Profile& profile, int tick_rate) {
  const Profile plain;
  Sheet values = Sheet::array();
  const auto add = [&](const auto& field, Sheet value, Sheet standard, Sheet more) {
    const std::string path = path_of(field.section, field.key);
    Sheet entry = {{"path", path}, {"value", std::move(value)}, {"default", std::move(standard)}};
    entry.update(more);
    entry["help"] = field.help;
    if (const auto note = profile.notes.find(path); note != profile.notes.end()) entry["note"] = note->second;
    values.push_back(std::move(entry));
  };
  for (const ProfileField& f : profile_fields())
    add(f, written(f, profile), written(f, plain),
        {{"unit", text_of(f.unit)},
         {"range", {f.low, f.high}},
         {"sane", {f.sane_low, f.sane_high}},
         {"below", f.below},
         {"above", f.above},
         {"whole", f.unit == Unit::Count}});
  for (const ProfileCurve& f : profile_curves())
    add(f, points_of(f.get(profile)), points_of(f.get(plain)),
        {{"x", {f.lowest_x, f.highest_x}},
         {"y", {f.lowest_y, f.highest_y}},
         {"x_unit", f.x_unit},
         {"y_unit", f.y_unit}});
  for (const ProfileChoice& f : profile_choices()) {
    const auto text = [&](int v) {
      return f.words.empty() ? Sheet(v != 0) : Sheet(f.words[static_cast<std::size_t>(v)]);
    };
    add(f, text(f.get(profile)), text(f.get(plain)), {{"words", f.words}});
  }
  const Sheet sheet = {{"name", profile.name},
                       {"tick_rate", tick_rate},
                       {"values", values},
                       {"figures", figures_json(profile, tick_rate)}};
  return dumped(sheet, 2) + "\n";
}

std::string constants_json(const Profile& profile) {
  Sheet json = {{"name", profile.name}, {"how_a_jump_goes", kHowAJumpGoes}};
  for (const ProfileField& f : profile_fields())
    json["values"][identifier(path_of(f.section, f.key), text_of(f.unit))] = written(f, profile);
  for (const ProfileCurve& f : profile_curves())
    json["curves"][path_of(f.section, f.key)] = {
        {"x_unit", f.x_unit}, {"y_unit", f.y_unit}, {"points", points_of(f.get(profile))}};
  for (const ProfileChoice& f : profile_choices())
    json["choices"][path_of(f.section, f.key)] = value_text(profile, path_of(f.section, f.key));
  for (const Figure& f : figures_of(profile, kReferenceRate)) {
    if (f.unit == "ticks") continue;
    json["figures"][identifier(f.group + "." + f.key, f.unit)] = {{"value", number_of(f.value)},
                                                                  {"formula", f.formula}};
  }
  return dumped(json, 2) + "\n";
}

std::string constants_header(const Profile& profile) {
  std::string text = fmt::format(
      "// Handling of \"{}\", made by lagniappe-cli export. Units are in the names; angles are in "
      "degrees.\n//\n",
      profile.name);
  std::string line = "//";
  for (std::size_t at = 0; at < kHowAJumpGoes.size();) {
    const std::size_t end = std::min(kHowAJumpGoes.find(' ', at), kHowAJumpGoes.size());
    const std::string_view word = kHowAJumpGoes.substr(at, end - at);
    if (line.size() + word.size() > 100) text += line + "\n", line = "//";
    line += " " + std::string(word);
    at = end + 1;
  }
  text += line + "\n#pragma once\n\nnamespace handling {\n\n";
  for (const ProfileField& f : profile_fields())
    text += fmt::format("inline constexpr double {} = {};  // {}\n",
                        identifier(path_of(f.section, f.key), text_of(f.unit)),
                        dumped(Sheet(written(f, profile))), f.help);
  for (const ProfileCurve& f : profile_curves()) {
    const Curve& curve = f.get(profile);
    const std::string name = identifier(path_of(f.section, f.key), "");
    text += fmt::format(
        "\n// {} Straight lines between points (x{}{}, y{}{}).\ninline constexpr int {}_count = {};\n", f.help,
        f.x_unit.empty() ? "" : " in ", f.x_unit, f.y_unit.empty() ? "" : " in ", f.y_unit, name, curve.count);
    text += fmt::format("inline constexpr double {}[{}][2] = {{", name, std::max(curve.count, 1));
    for (int i = 0; i < curve.count; ++i)
      text += fmt::format("{}{{{}, {}}}", i > 0 ? ", " : "", curve.points[i].x, curve.points[i].y);
    text += "};\n";
  }
  text += "\n";
  for (const ProfileChoice& f : profile_choices())
    text += fmt::format("inline constexpr const char* {} = \"{}\";  // {}\n",
                        identifier(path_of(f.section, f.key), ""),
                        value_text(profile, path_of(f.section, f.key)), f.help);
  text += "\n// Derived: what the values come to.\n";
  for (const Figure& f : figures_of(profile, kReferenceRate)) {
    if (f.unit == "ticks") continue;
    const std::string value = std::isfinite(f.value) ? dumped(Sheet(f.value)) : "1e308";
    text += fmt::format("inline constexpr double derived_{} = {};  // {}\n",
                        identifier(f.group + "." + f.key, f.unit), value, f.formula);
  }
  return text + "\n}  // namespace handling\n";
}

}  // namespace lagniappe
