// SPDX-License-Identifier: MIT
#include "states/guards.h"

#include <fmt/format.h>

#include <algorithm>

#include "motion/jumping.h"

namespace lagniappe {
namespace {

constexpr std::size_t kLongestText = 20'000;
constexpr std::string_view kJustJump = "jump()";

using Kind = ScriptSet::Kind;

std::string place_in(const std::string& text, std::size_t at) {
  const std::string_view before = std::string_view(text).substr(0, at);
  const auto line = 1 + std::count(before.begin(), before.end(), '\n');
  const auto start = before.rfind('\n');
  return fmt::format("line {}, column {}", line, at - (start == std::string_view::npos ? 0 : start + 1) + 1);
}

// Lua's "line:3: unexpected symbol" as a sentence with a place.
std::string told(const std::string& message) {
  const auto colon = message.find(": ");
  if (!message.starts_with("line:") || colon == std::string::npos) return message;
  return fmt::format("line {}: {}", message.substr(5, colon - 5), message.substr(colon + 2));
}

bool is_blank(const std::string& text) { return text.find_first_not_of(" \t\r\n") == std::string::npos; }

std::optional<std::string> text_fault(const std::string& text, const char* what) {
  if (is_blank(text)) return fmt::format("line 1: there is no {}", what);
  if (text.size() > kLongestText) return fmt::format("line 1: it is longer than {} bytes", kLongestText);
  return std::nullopt;
}

std::size_t add_chunk(ScriptSet& scripts, Kind kind, const std::string& name, const std::string& text) {
  scripts.chunks.push_back({kind, name, text});
  return scripts.chunks.size() - 1;
}

// What is plain, whether Lua is needed, or what is wrong.
tl::expected<std::optional<Expression>, std::string> read_guard(const std::string& text,
                                                                const std::vector<std::string>& memory) {
  if (const auto fault = text_fault(text, "guard")) return tl::unexpected<std::string>(*fault);
  auto parsed = Expression::parse(text, memory);
  if (const auto* fault = std::get_if<Expression::Fault>(&parsed))
    return tl::unexpected<std::string>(place_in(text, fault->at) + ": " + fault->what);
  if (auto* plain = std::get_if<Expression>(&parsed)) {
    if (plain->yes_no()) return std::optional(std::move(*plain));
    return tl::unexpected<std::string>(
        "line 1: a guard must come to true or false, and this is a number: compare it with something");
  }
  if (const auto fault = LuaMachine::fault(Kind::Guard, text)) return tl::unexpected<std::string>(told(*fault));
  return std::optional<Expression>();
}

}  // namespace

tl::expected<std::shared_ptr<const Guard>, std::string> Guard::make(const std::string& text,
                                                                    const std::string& name,
                                                                    const std::shared_ptr<ScriptSet>& scripts) {
  auto read = read_guard(text, scripts->memory);
  if (!read) return tl::unexpected<std::string>(read.error());
  auto guard = std::make_shared<Guard>();
  guard->length_ = text.size();
  for (std::size_t i = 0; i < kActionNames.size(); ++i) {
    const bool asks = text.find(std::string(kActionNames[i]) + ".pressed") != std::string::npos;
    guard->asks_for_presses_.set(static_cast<Action>(i), asks);
  }
  guard->plain_ = std::move(*read);
  if (!guard->plain_) {
    guard->chunk_ = add_chunk(*scripts, Kind::Guard, name, text);
    guard->scripts_ = scripts;
  }
  return guard;
}

bool Guard::run(const SignalView& view, std::string& error) const {
  ScriptHost host{view};
  ScriptResult result = LuaMachine::of_thread(scripts_).run(chunk_, host);
  error = std::move(result.error);
  return result.holds;
}

GuardVerdict Guard::explain(const SignalView& view) const {
  GuardVerdict verdict;
  verdict.holds = holds(view, verdict.error);
  if (plain_) {
    verdict.parts = plain_->parts(view);
  } else {
    verdict.parts = {{0, length_, verdict.holds}};
  }
  return verdict;
}

tl::expected<std::shared_ptr<const ScriptAction>, std::string> ScriptAction::make(
    const std::string& text, const std::string& name, const std::shared_ptr<ScriptSet>& scripts) {
  if (const auto fault = script_fault(text, scripts->memory)) return tl::unexpected<std::string>(*fault);
  auto action = std::make_shared<ScriptAction>();
  action->only_jumps_ = text == kJustJump;
  if (!action->only_jumps_) {
    action->chunk_ = add_chunk(*scripts, Kind::Action, name, text);
    action->scripts_ = scripts;
  }
  return action;
}

std::string ScriptAction::run(ScriptHost& host) const {
  if (!only_jumps_) return LuaMachine::of_thread(scripts_).run(chunk_, host).error;
  jump(*host.context, *host.body, *host.flight, *host.state);
  host.jumped = true;
  return {};
}

GuardVerdict explain(const StateChart&, const StateChart::Transition& transition, const SignalView& view) {
  return transition.guard->explain(view);
}

std::optional<std::string> guard_fault(const std::string& guard, const std::vector<std::string>& memory) {
  const auto read = read_guard(guard, memory);
  return read ? std::nullopt : std::optional(read.error());
}

std::optional<std::string> script_fault(const std::string& script, const std::vector<std::string>&) {
  if (const auto fault = text_fault(script, "action")) return fault;
  const auto fault = LuaMachine::fault(Kind::Action, script);
  return fault ? std::optional(told(*fault)) : std::nullopt;
}

}  // namespace lagniappe
