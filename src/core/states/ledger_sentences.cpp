// SPDX-License-Identifier: MIT
// Ledger entries as sentences for people.
#include <utility>

#include <fmt/format.h>

#include "lagniappe/ledger.h"
#include "states/ledger_words.h"

namespace lagniappe {
namespace {

// Lengths below this are told in millimetres.
constexpr double kShort = 0.01;

std::string metres(double m) {
  return std::abs(m) < kShort ? fmt::format("{:.2f} mm", m * 1000.0) : fmt::format("{:.3f} m", m);
}
std::string angle(double radians) { return fmt::format("{:.1f}\u00b0", degrees(radians)); }
// With its sign along each axis of the course, and no "-0.00".
std::string signed_parts(const Vec3& v) {
  constexpr double kLeast = 5e-3;
  const auto shown = [](double x) { return std::abs(x) < kLeast ? 0.0 : x; };
  return fmt::format("({:+.2f}, {:+.2f}, {:+.2f})", shown(v.x), shown(v.y), shown(v.z));
}
// m/s.
std::string change(const Vec3& v) {
  if (length(v) < 5e-3) return fmt::format("by {:.3f} mm/s", length(v) * 1000.0);
  return "by " + signed_parts(v) + " m/s";
}
std::string direction(const Vec3& v) { return fmt::format("({:.2f}, {:.2f}, {:.2f})", v.x, v.y, v.z); }

struct Teller {
  const World& world;

  std::string piece(PieceId id) const {
    const std::string_view name = world.piece_name(id);
    return name.empty() ? "no piece" : fmt::format("\u201c{}\u201d", name);
  }

  std::string operator()(const entry::Reset& e) const {
    return e.out_of_limits ? "put back to the start: the limits of the course were left"
                           : "put back to the start, as asked";
  }
  std::string operator()(const entry::Carry& e) const {
    std::string text = fmt::format("carried {} by {}", metres(length(e.shift_C)), piece(e.piece));
    if (std::abs(e.yaw) > 1e-9) text += fmt::format(", turned by {}", angle(e.yaw));
    return e.blocked ? text + "; something solid was in the way" : text;
  }
  std::string operator()(const entry::Push& e) const {
    const std::string text = fmt::format("pushed {} by {}", metres(length(e.shift_C)), piece(e.piece));
    return e.blocked ? text + "; there was not that much room" : text;
  }
  std::string operator()(const entry::PushOut& e) const {
    if (e.crushed)
      return fmt::format("crushed: {} deep in {}, and no way out within the limit", metres(e.depth),
                         piece(e.piece));
    return fmt::format("pushed out of {}, {} deep", piece(e.piece), metres(e.depth));
  }
  std::string operator()(const entry::Intent& e) const {
    const std::string air = e.air_C == Vec3(0.0)
                                ? std::string()
                                : fmt::format(", against air that moves at {:.2f} m/s towards {}",
                                              length(e.air_C), direction(unit_or(e.air_C, Vec3(0.0))));
    if (e.share <= 0.0) return "intent: to stand" + air;
    return fmt::format("intent: {:.2f} m/s towards {}, {:.0f} % of full speed", length(e.velocity_C),
                       direction(unit_or(e.velocity_C, Vec3(0.0))), e.share * 100.0) +
           air;
  }
  std::string operator()(const entry::Gravity& e) const {
    const std::string text = fmt::format("gravity, {:.2f} m/s\u00b2 in force, changes the velocity {}",
                                         e.gravity, change(e.change_C));
    if (e.apex > 0.0) return fmt::format("{}; the apex is {} further up", text, metres(e.apex));
    return fmt::format("{}; it falls at {:.1f} m/s at most", text, e.terminal_speed);
  }
  std::string operator()(const entry::Change& e) const {
    constexpr std::array<const char*, 9> kWhat = {"the response to the intent",
                                                  "the grip of the surface",
                                                  "the wind",
                                                  "what carries",
                                                  "the jump",
                                                  "the table's script",
                                                  "what was met",
                                                  "the ground underfoot",
                                                  "the reset"};
    return fmt::format("{} changes the velocity {}", kWhat[static_cast<std::size_t>(e.why)],
                       change(e.change_C));
  }
  std::string operator()(const entry::StateChange& e) const {
    const std::string text =
        fmt::format("state: {} \u2192 {}", state_name(e.chart.get(), e.from), state_name(e.chart.get(), e.to));
    return e.row < 0 ? text : text + fmt::format(", because {}", guard_text(e.chart.get(), e.row));
  }
  std::string operator()(const entry::StateLoop& e) const {
    return fmt::format("the states go round in a circle: {} \u2192 {} was not taken, though {} holds",
                       state_name(e.chart.get(), e.from), state_name(e.chart.get(), e.to),
                       guard_text(e.chart.get(), e.row));
  }
  std::string operator()(const entry::Exhausted& e) const {
    return fmt::format("gave up sliding after {} planes, {} of the way left", e.planes, metres(e.left));
  }
  std::string operator()(const entry::Landed& e) const {
    const double gain = e.after - e.before;
    const std::string what = std::abs(gain) < 5e-3
                                 ? "as it was in the air"
                                 : fmt::format("{:.2f} m/s {}", std::abs(gain),
                                               gain < 0.0 ? "of it lost to the slope" : "more by the slope");
    return fmt::format("landed at {:.2f} m/s of fall: {:.2f} m/s along the ground, {}", e.fall, e.after, what);
  }
  std::string operator()(const entry::Instant& e) const {
    if (e.why == entry::Instant::Why::Waits)
      return fmt::format("{:.1f} ms into the tick: too much has begun in it, what else does waits for its end",
                         e.at * 1000.0);
    constexpr std::array<const char*, 4> kWhat = {"something is met", "what is underfoot changes",
                                                  "the piece underfoot falls away", "the state changes"};
    return fmt::format("{:.1f} ms into the tick {}: from here on it moves by that", e.at * 1000.0,
                       kWhat[static_cast<std::size_t>(e.why)]);
  }
  std::string operator()(const entry::ScriptFailed& e) const { return "script failed: " + e.what; }
  std::string operator()(const entry::StanceWaits& e) const {
    using Why = entry::StanceWaits::Why;
    if (e.why == Why::Ceiling)
      return fmt::format("stays {} tall: no room for {} below {}", metres(e.height), metres(e.wanted),
                         piece(e.piece));
    return fmt::format("stays {} long: lying {} would {}", metres(e.height), metres(e.wanted),
                       e.why == Why::Wall ? "enter a wall" : "hang over a drop");
  }
  std::string operator()(const entry::LieHeld& e) const {
    using Why = entry::LieHeld::Why;
    return fmt::format("lying, it does not {}: {}", e.turning ? "turn on" : "go on",
                       e.why == Why::Drop ? "an end would hang over a drop" : "it would enter a wall");
  }
  std::string operator()(const entry::Jump& e) const {
    using From = entry::Jump::From;
    std::string text = fmt::format("jump: leaves at {:.2f} m/s upwards, for {}", e.speed, metres(e.height));
    if (e.from == From::Skid) text += ", off a skid";
    if (e.from == From::Wall) text += ", off a wall";
    if (e.from == From::Air && e.jump == 0) text += ", in the air, the first of the jumps";
    if (e.from == From::Air && e.jump > 0) text += fmt::format(", in the air, air jump {}", e.jump);
    if (e.late_by > 1e-9) text += fmt::format(", {:.0f} ms after the ground was left", e.late_by * 1000.0);
    if (e.early_by > 1e-9) text += fmt::format(", the press remembered for {:.0f} ms", e.early_by * 1000.0);
    return text;
  }
  std::string operator()(const entry::JumpRefused& e) const {
    using Why = entry::JumpRefused::Why;
    std::string text = "jump refused: ";
    const bool left = e.since_grounded < 1e6;
    if (e.why == Why::Skidding) text += "not from ground that is too steep";
    if (e.why == Why::SameWall) text += "this wall was jumped off already";
    if (e.why == Why::NoHeadRoom) text += "no head room";
    if (e.why == Why::State) text += "no transition of this state takes it";
    if (e.why == Why::AirJumpsUsed) text += "in the air, and the air jumps are used up";
    if (e.why == Why::NoGround && left)
      text += fmt::format("the ground was left {:.0f} ms ago, too long", e.since_grounded * 1000.0);
    if (e.why == Why::NoGround && !left) text += "no ground, and no jumps in the air";
    return e.remembered > 0.0 ? text + fmt::format("; remembered for {:.0f} ms", e.remembered * 1000.0) : text;
  }
  std::string operator()(const entry::JumpCut& e) const {
    return fmt::format("jump cut short: let go at {:.2f} m/s upwards, gravity \u00d7{:.2f} until the apex",
                       e.speed, e.factor);
  }
  std::string operator()(const entry::HeadBump& e) const {
    const std::string text = fmt::format("head bumped at {:.2f} m/s", e.speed);
    return e.thrown_back > 0.0 ? text + fmt::format(", thrown back at {:.2f} m/s", e.thrown_back) : text;
  }
  std::string operator()(const entry::Sweep& e) const {
    const double far = length(e.motion_C);
    if (!e.hit) return fmt::format("moved {}: nothing in the way", metres(far));
    return fmt::format("moved {} of {}: met the {} of {}", metres(far * e.fraction), metres(far),
                       word(kFeatures, e.feature), piece(e.piece));
  }
  std::string operator()(const entry::Slide& e) const {
    const std::string left = metres(length(e.rest_C));
    switch (e.kind) {
      case entry::Slide::Kind::Along:
        return fmt::format("goes on along the surface, {} left", left);
      case entry::Slide::Kind::Wall:
        return fmt::format("slides along it: run into at {}, {:.0f} % of the speed kept, {} left",
                           angle(e.approach), e.kept * 100.0, left);
      case entry::Slide::Kind::Ceiling:
        return fmt::format("slides along the ceiling, {} left", left);
      case entry::Slide::Kind::Crease:
        return fmt::format("follows the edge of two faces, {} left", left);
      case entry::Slide::Kind::Stop:
        break;
    }
    return fmt::format("stopped: run into at {}, nothing left to go", angle(e.approach));
  }
  std::string operator()(const entry::Step& e) const {
    using Outcome = entry::Step::Outcome;
    const std::string on = piece(e.piece), rise = metres(e.rise), highest = metres(e.highest);
    switch (e.outcome) {
      case Outcome::Taken:
        return fmt::format("step taken onto {}: rise {} \u2264 {} allowed", on, rise, highest);
      case Outcome::TooHigh:
        return e.rise > e.highest
                   ? fmt::format("step tried on {}: rise {} > {} allowed, refused", on, rise, highest)
                   : fmt::format("step tried on {}: still a wall at {}, refused", on, highest);
      case Outcome::NoHeadRoom:
        return fmt::format("step tried on {}: no head room above the rise of {}, refused", on, rise);
      case Outcome::ShortTread:
        return fmt::format("step tried on {}: the tread above {} is too short, refused", on, rise);
      case Outcome::NotWalkable:
        return fmt::format("step tried on {}: what is on top, {} up, cannot be walked on, refused", on, rise);
      case Outcome::NoGain:
        break;
    }
    return fmt::format("step tried on {}: sliding gets as far, refused", on);
  }
  std::string operator()(const entry::Probe& e) const {
    if (!e.hit) return fmt::format("probed {} down: nothing", metres(e.reach));
    return fmt::format("probed {} down: {} {} below", metres(e.reach), piece(e.piece), metres(e.gap));
  }
  std::string operator()(const entry::Judged& e) const {
    if (e.verdict == Verdict::None) return fmt::format("verdict: {} is no ground", piece(e.piece));
    std::string text = fmt::format("verdict: {}, {} on {}", name_of(e.verdict), angle(e.angle), piece(e.piece));
    if (e.verdict == Verdict::Tipping)
      text += fmt::format(", the centre {} beyond the edge", metres(e.overhang));
    return text;
  }
  std::string operator()(const entry::Snap& e) const {
    return fmt::format("snapped {} down to the ground", metres(e.distance));
  }
  std::string operator()(const entry::Crest& e) const {
    return fmt::format("flew over the crest: the ground falls away by {} > {} allowed at {:.2f} m/s",
                       angle(e.falls_away), angle(e.limit), e.speed);
  }
  std::string operator()(const entry::LeftGround& e) const {
    std::string text = fmt::format("left the ground at {:.2f} m/s", e.speed);
    if (length_squared(e.inherited_C) > 0.0)
      text += fmt::format(", {:.2f} m/s of it from what was stood on", length(e.inherited_C));
    return text;
  }
};

}  // namespace

std::string to_sentence(const LedgerEntry& entry, const World& world) {
  return std::visit(Teller{world}, entry);
}

std::string velocity_sentence(const Vec3& before_C, const Vec3& after_C, const Ledger& ledger) {
  constexpr double kShown = 5e-3;  // m/s.
  std::string text = fmt::format("velocity {} to {} m/s", direction(before_C), direction(after_C));
  bool first = true;
  for (const VelocityPart& part : velocity_parts(ledger)) {
    const Vec3& v = part.change_C;
    if (length(v) < kShown) continue;
    text += fmt::format("{} {} {}", std::exchange(first, false) ? ":" : " +", part.cause, signed_parts(v));
  }
  return first ? text + ": nothing changed it" : text;
}

bool is_refusal(const LedgerEntry& entry) {
  if (const auto* step = std::get_if<entry::Step>(&entry)) return step->outcome != entry::Step::Outcome::Taken;
  if (const auto* push = std::get_if<entry::PushOut>(&entry)) return push->crushed;
  if (const auto* carry = std::get_if<entry::Carry>(&entry)) return carry->blocked;
  if (const auto* push = std::get_if<entry::Push>(&entry)) return push->blocked;
  return std::holds_alternative<entry::JumpRefused>(entry) || std::holds_alternative<entry::StateLoop>(entry) ||
         std::holds_alternative<entry::ScriptFailed>(entry) ||
         std::holds_alternative<entry::Exhausted>(entry) || std::holds_alternative<entry::StanceWaits>(entry) ||
         std::holds_alternative<entry::LieHeld>(entry);
}

}  // namespace lagniappe
