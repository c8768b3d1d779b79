// SPDX-License-Identifier: MIT
#include "lagniappe/ledger.h"

#include <algorithm>

#include <nlohmann/json.hpp>

#include "states/ledger_words.h"

namespace lagniappe {
namespace {

using Json = nlohmann::ordered_json;

Json list(const Vec3& v) { return Json::array({v.x, v.y, v.z}); }

struct Writer {
  const World& world;

  std::string piece(PieceId id) const { return std::string(world.piece_name(id)); }

  Json operator()(const entry::Reset& e) const {
    return {{"kind", "reset"}, {"out_of_limits", e.out_of_limits}};
  }
  Json operator()(const entry::PushOut& e) const {
    return {{"kind", "push_out"}, {"depth_m", e.depth}, {"crushed", e.crushed}, {"piece", piece(e.piece)}};
  }
  Json operator()(const entry::Carry& e) const {
    return {{"kind", "carry"},
            {"piece", piece(e.piece)},
            {"shift", list(e.shift_C)},
            {"yaw_deg", degrees(e.yaw)},
            {"blocked", e.blocked}};
  }
  Json operator()(const entry::Push& e) const {
    return {{"kind", "push"},           {"piece", piece(e.piece)},    {"shift", list(e.shift_C)},
            {"point", list(e.point_C)}, {"normal", list(e.normal_C)}, {"blocked", e.blocked}};
  }
  Json operator()(const entry::Intent& e) const {
    Json json = {{"kind", "intent"}, {"velocity", list(e.velocity_C)}, {"share", e.share}};
    if (e.air_C != Vec3(0.0)) json["air"] = list(e.air_C);
    return json;
  }
  Json operator()(const entry::Gravity& e) const {
    return {{"kind", "gravity"},
            {"change", list(e.change_C)},
            {"gravity", e.gravity},
            {"terminal_speed", e.terminal_speed},
            {"apex_m", e.apex}};
  }
  Json operator()(const entry::Change& e) const {
    return {{"kind", "velocity"}, {"why", word(kChangeNames, e.why)}, {"change", list(e.change_C)}};
  }
  Json operator()(const entry::StateChange& e) const {
    Json json = {{"kind", "state"},
                 {"from", state_name(e.chart.get(), e.from)},
                 {"to", state_name(e.chart.get(), e.to)}};
    if (e.row >= 0) json["guard"] = guard_text(e.chart.get(), e.row);
    return json;
  }
  Json operator()(const entry::StateLoop& e) const {
    return {{"kind", "state_loop"},
            {"from", state_name(e.chart.get(), e.from)},
            {"to", state_name(e.chart.get(), e.to)},
            {"guard", guard_text(e.chart.get(), e.row)}};
  }
  Json operator()(const entry::Exhausted& e) const {
    return {{"kind", "exhausted"}, {"planes", e.planes}, {"left_m", e.left}};
  }
  Json operator()(const entry::Landed& e) const {
    return {{"kind", "landed"}, {"fall", e.fall}, {"before", e.before}, {"after", e.after}};
  }
  Json operator()(const entry::Instant& e) const {
    return {{"kind", "instant"}, {"why", word(kInstants, e.why)}, {"at_s", e.at}};
  }
  Json operator()(const entry::ScriptFailed& e) const { return {{"kind", "script_failed"}, {"what", e.what}}; }
  Json operator()(const entry::StanceWaits& e) const {
    return {{"kind", "stance_waits"},
            {"why", word(kStanceWaits, e.why)},
            {"wanted_m", e.wanted},
            {"height_m", e.height},
            {"piece", piece(e.piece)}};
  }
  Json operator()(const entry::LieHeld& e) const {
    return {{"kind", "lie_held"}, {"why", word(kLieHolds, e.why)}, {"turning", e.turning}};
  }
  Json operator()(const entry::Jump& e) const {
    return {{"kind", "jump"},          {"from", word(kJumpsFrom, e.from)},
            {"jump", e.jump},          {"speed", e.speed},
            {"height_m", e.height},    {"late_by_s", e.late_by},
            {"early_by_s", e.early_by}};
  }
  Json operator()(const entry::JumpRefused& e) const {
    Json json = {{"kind", "jump_refused"}, {"why", word(kJumpRefusals, e.why)}, {"remembered_s", e.remembered}};
    if (e.since_grounded < 1e6) json["since_grounded_s"] = e.since_grounded;
    return json;
  }
  Json operator()(const entry::Sweep& e) const {
    Json json = {{"kind", "sweep"}, {"from", list(e.from_C)}, {"motion", list(e.motion_C)}, {"hit", e.hit}};
    if (!e.hit) return json;
    json["fraction"] = e.fraction;
    json["piece"] = piece(e.piece);
    json["point"] = list(e.point_C);
    json["normal"] = list(e.normal_C);
    json["feature"] = word(kFeatures, e.feature);
    return json;
  }
  Json operator()(const entry::Slide& e) const {
    return {{"kind", "slide"},
            {"on", word(kSlideKinds, e.kind)},
            {"plane", list(e.plane_C)},
            {"rest", list(e.rest_C)},
            {"approach_deg", degrees(e.approach)},
            {"kept", e.kept},
            {"contact", word(kContactKindNames, e.contact)}};
  }
  Json operator()(const entry::Step& e) const {
    return {{"kind", "step"},
            {"outcome", word(kStepOutcomes, e.outcome)},
            {"rise_m", e.rise},
            {"highest_m", e.highest},
            {"piece", piece(e.piece)}};
  }
  Json operator()(const entry::Probe& e) const {
    Json json = {{"kind", "probe"}, {"from", list(e.from_C)}, {"reach_m", e.reach}, {"hit", e.hit}};
    if (!e.hit) return json;
    json["gap_m"] = e.gap;
    json["piece"] = piece(e.piece);
    return json;
  }
  Json operator()(const entry::Judged& e) const {
    return {{"kind", "verdict"},
            {"ground", name_of(e.verdict)},
            {"angle_deg", degrees(e.angle)},
            {"overhang_m", e.overhang},
            {"piece", piece(e.piece)}};
  }
  Json operator()(const entry::Snap& e) const { return {{"kind", "snap"}, {"distance_m", e.distance}}; }
  Json operator()(const entry::Crest& e) const {
    return {{"kind", "crest"},
            {"falls_away_deg", degrees(e.falls_away)},
            {"limit_deg", degrees(e.limit)},
            {"speed", e.speed}};
  }
  Json operator()(const entry::LeftGround& e) const {
    return {{"kind", "left_ground"}, {"speed", e.speed}, {"inherited", list(e.inherited_C)}};
  }
  Json operator()(const entry::JumpCut& e) const {
    return {{"kind", "jump_cut"}, {"speed", e.speed}, {"factor", e.factor}};
  }
  Json operator()(const entry::HeadBump& e) const {
    return {{"kind", "head_bump"}, {"speed", e.speed}, {"thrown_back", e.thrown_back}};
  }
};

}  // namespace

std::string to_json(const LedgerEntry& entry, const World& world) {
  return std::visit(Writer{world}, entry).dump(-1, ' ', false, Json::error_handler_t::replace);
}

Vec3 velocity_change(const LedgerEntry& entry) {
  if (const auto* gravity = std::get_if<entry::Gravity>(&entry)) return gravity->change_C;
  if (const auto* change = std::get_if<entry::Change>(&entry)) return change->change_C;
  return Vec3(0.0);
}

std::vector<VelocityPart> velocity_parts(const Ledger& ledger) {
  std::vector<VelocityPart> parts;
  for (const LedgerEntry& entry : ledger.entries) {
    const auto* change = std::get_if<entry::Change>(&entry);
    if (change == nullptr && !std::holds_alternative<entry::Gravity>(entry)) continue;
    const std::string_view cause = change ? kChangeNames[static_cast<std::size_t>(change->why)] : "gravity";
    const auto same = [&](const VelocityPart& part) { return part.cause == cause; };
    auto part = std::find_if(parts.begin(), parts.end(), same);
    if (part == parts.end()) part = parts.insert(part, {cause, Vec3(0.0)});
    part->change_C += velocity_change(entry);
  }
  return parts;
}

}  // namespace lagniappe
