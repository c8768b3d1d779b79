// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <algorithm>
#include <charconv>

#include "lagniappe/files.h"
#include "lagniappe/pose_feed.h"
#include "lagniappe/states.h"
#include "motion/upright.h"

namespace lagniappe {
namespace {

constexpr const char* kHeader =
    "tick,time_s,state,foot_x,foot_y,foot_z,vel_x,vel_y,vel_z,up_x,up_y,up_z,yaw_deg,pitch_deg,grounded,"
    "ground_angle_deg,ground_piece,capsule_height_m,slides,stepped,snapped_m,penetration_m,gravity_x,gravity_y,"
    "gravity_z,zones,hold,intent_x,intent_y,intent_z\n";

class Row {
 public:
  explicit Row(std::string& out) : out_(out) {}
  ~Row() { out_ += '\n'; }

  void text(std::string_view value) {
    separate();
    if (value.find_first_of(",\"\r\n") == std::string_view::npos) {
      out_ += value;
      return;
    }
    out_ += '"';
    for (const char c : value) out_ += c == '"' ? "\"\"" : std::string(1, c);
    out_ += '"';
  }
  // The shortest digits that read back to the same bits.
  template <typename T>
  void number(T value) {
    char digits[32];
    const auto end = std::to_chars(digits, digits + sizeof digits, value).ptr;
    separate();
    out_.append(digits, end);
  }
  void vector(const Vec3& v) {
    number(v.x);
    number(v.y);
    number(v.z);
  }

 private:
  void separate() {
    if (!first_) out_ += ',';
    first_ = false;
  }
  std::string& out_;
  bool first_ = true;
};

double ground_angle(const CharacterState& state) {
  if (state.ground.verdict == Verdict::None) return 0.0;
  return degrees(std::acos(std::clamp(dot(state.ground.normal_C, state.judged_up_C()), -1.0, 1.0)));
}

// What pulls in the state, where it is: against up, where the world leaves that to the profile.
Vec3 pull_on(const CharacterState& s, const World& world, const Profile& profile) {
  const StateChart& chart = chart_of(profile);
  const double own = chart.gravity_in(s.state, profile);
  const Felt felt = feel(world, centre_of_mass(profile, s), s.time, own);
  return felt.says ? felt.pull_C : s.up_C() * -own;
}

// Joined by semicolons.
std::string zone_names(const CharacterState& s, const World& world) {
  std::string names;
  for (std::size_t i = 0; i < s.zones.count; ++i) {
    if (i > 0) names += ';';
    names += world.zone(s.zones.id[i], s.time).name;
  }
  return names;
}

// What the tick asked for as it began.
Vec3 intent_in(const Ledger& ledger) {
  for (const LedgerEntry& entry : ledger.entries) {
    if (const auto* intent = std::get_if<entry::Intent>(&entry)) return intent->velocity_C;
  }
  return Vec3(0.0);
}

void add_row(std::string& out, const CharacterState& s, std::size_t i, const World& world,
             const Profile& profile, int tick_rate, const Vec3& intent_C) {
  Row row(out);
  row.number(i);
  row.number(static_cast<double>(i) / tick_rate);
  row.text(chart_of(profile).name_of(s.state));
  row.vector(s.foot_C);
  row.vector(s.velocity_C);
  row.vector(s.up_C());
  row.number(degrees(s.yaw));
  row.number(degrees(s.pitch));
  row.number(int{s.grounded()});
  row.number(ground_angle(s));
  row.text(world.piece_name(s.ground.piece));
  row.number(s.capsule_height);
  row.number(s.slides);
  row.number(int{s.stepped});
  row.number(s.snapped);
  row.number(s.penetration);
  row.vector(pull_on(s, world, profile));
  row.text(zone_names(s, world));
  row.text(world.piece_name(s.hold.piece));
  row.vector(intent_C);
}

}  // namespace

std::string trace_csv(const Run& run, const Take& take, const World& world) {
  std::string out = kHeader;
  for (std::size_t i = 0; i <= run.ticks(); ++i) {
    const Vec3 intent_C = i > 0 ? intent_in(ledger_of(run, take, world, i)) : Vec3(0.0);
    add_row(out, run.state(i), i, world, take.profile, run.tick_rate(), intent_C);
  }
  return out;
}

std::string poses_csv(const Run& run, const Profile& profile) {
  std::string out =
      "tick,time_s,state,pose,time_in_state_s,time_on_ground_s,speed,speed_ratio,rise_speed,stride_phase,"
      "stride_length_m,turn_rate_deg,lean_deg,slope_pitch_deg,slope_roll_deg,landing,crouch,lying,lie_pitch_"
      "deg,hold,hold_phase,hold_rim_x,hold_rim_y,hold_rim_z,hold_from_x,hold_from_y,hold_from_z,hold_to_x,"
      "hold_to_y,hold_to_z,hold_spacing_m,hold_over_rung_m\n";
  for (std::size_t i = 0; i <= run.ticks(); ++i) {
    const PoseFeed f = pose_feed(run.state(i > 0 ? i - 1 : 0), run.state(i), profile, 1.0 / run.tick_rate());
    Row row(out);
    row.number(i);
    row.number(static_cast<double>(i) / run.tick_rate());
    row.text(f.state);
    row.text(f.pose);
    for (const double value :
         {f.time_in_state, f.time_on_ground, f.speed, f.speed_ratio, f.rise_speed, f.stride_phase,
          f.stride_length, degrees(f.turn_rate), degrees(f.lean), degrees(f.slope_pitch), degrees(f.slope_roll),
          f.landing, f.crouch, f.lying, degrees(f.lie_pitch)})
      row.number(value);
    row.text(f.hold);
    row.number(f.hold_phase);
    for (const Vec3& place : {f.hold_rim_P, f.hold_from_P, f.hold_to_P}) row.vector(place);
    row.number(f.hold_spacing);
    row.number(f.hold_over_rung);
  }
  return out;
}

std::string ledger_lines(const Run& run, const Take& take, const World& world) {
  std::string out;
  for (std::size_t tick = 1; tick <= run.ticks(); ++tick) {
    fmt::format_to(std::back_inserter(out), "{{\"tick\":{},\"entries\":[", run.state(tick).tick);
    const Ledger ledger = ledger_of(run, take, world, tick);
    for (std::size_t i = 0; i < ledger.entries.size(); ++i) {
      if (i > 0) out += ',';
      out += to_json(ledger.entries[i], world);
    }
    out += "]}\n";
  }
  return out;
}

}  // namespace lagniappe
