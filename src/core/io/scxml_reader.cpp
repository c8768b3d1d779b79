// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <map>
#include <pugixml.hpp>

#include "io/json_document.h"
#include "io/old_words.h"
#include "io/states_document.h"
#include "lagniappe/guard.h"
#include "lagniappe/scxml.h"
#include "lagniappe/signals.h"

namespace lagniappe {
namespace {

constexpr std::size_t kMostStatesRead = 1000;  // Before the table says what is too many.
constexpr std::size_t kMostParts = 20'000;     // Of all actions; each is looked at by Lua.
constexpr std::size_t kMostRemarks = 200;
constexpr int kDeepest = 40;

struct Refused {
  std::ptrdiff_t at;  // Byte.
  std::string what;
};

std::string_view local_name(const pugi::xml_node& node) {
  const std::string_view name = node.name();
  const auto colon = name.find(':');
  return colon == std::string_view::npos ? name : name.substr(colon + 1);
}

std::string attribute(const pugi::xml_node& node, const char* name) { return node.attribute(name).as_string(); }

std::vector<std::string> words_of(const std::string& text) {
  std::vector<std::string> words;
  for (std::size_t from = 0; (from = text.find_first_not_of(" \t\r\n", from)) != std::string::npos;) {
    const std::size_t end = std::min(text.find_first_of(" \t\r\n", from), text.size());
    words.push_back(text.substr(from, end - from));
    from = end;
  }
  return words;
}

bool is_state(const pugi::xml_node& node) {
  const std::string_view name = local_name(node);
  return name == "state" || name == "final";
}

bool holds_states(const pugi::xml_node& node) {
  return std::any_of(node.begin(), node.end(), [](const pugi::xml_node& n) { return is_state(n); });
}

class Reader {
 public:
  Reader(std::string_view text, const std::string& file) : text_(text), file_(file) {}

  Result<ScxmlChart> read() {
    if (const auto at = find_no_utf8(text_))
      return refuse({file_, place(std::ptrdiff_t(*at)), "this is no UTF-8; save the chart as UTF-8"});
    pugi::xml_document document;
    const auto parsed =
        document.load_buffer(text_.data(), text_.size(), pugi::parse_default, pugi::encoding_utf8);
    if (!parsed)
      return refuse({file_, place(parsed.offset), fmt::format("it is no XML: {}", parsed.description())});
    try {
      const pugi::xml_node root = document.document_element();
      if (local_name(root) != "scxml")
        fail(root, fmt::format("the outermost element of a state chart is <scxml>, not <{}>", root.name()));
      find_prefix(root);
      read_root(root);
    } catch (const Refused& refused) {
      return refuse({file_, place(refused.at), refused.what});
    }
    return finished();
  }

 private:
  // A transition as it stands in the file: targets are known when all states are.
  struct Row {
    TransitionSpec spec;
    std::string target;
    pugi::xml_node node;
    long order;
  };
  struct Ordered {
    StateSpec spec;
    long order;
  };

  std::string place(std::ptrdiff_t at) const {
    return line_and_column(text_, static_cast<std::size_t>(std::max<std::ptrdiff_t>(at, 0)));
  }
  [[noreturn]] static void fail(const pugi::xml_node& node, const std::string& what) {
    throw Refused{node.offset_debug(), what};
  }
  void remark(const pugi::xml_node& node, const std::string& what) {
    // Each counts its line from the start, and nobody reads thousands.
    if (chart_.remarks.size() > kMostRemarks) return;
    chart_.remarks.push_back(chart_.remarks.size() == kMostRemarks ? "there is more that was left out"
                                                                   : place(node.offset_debug()) + ": " + what);
  }

  // The word before the colon of our own attributes: whatever the file binds to our namespace.
  void find_prefix(const pugi::xml_node& root) {
    for (const pugi::xml_attribute& a : root.attributes()) {
      const std::string_view name = a.name();
      if (name.starts_with("xmlns:") && kScxmlNamespace == a.value())
        prefix_ = std::string(name.substr(6)) + ":";
    }
  }
  std::string own(const pugi::xml_node& node, const char* key) const {
    return prefix_.empty() ? "" : attribute(node, (prefix_ + key).c_str());
  }
  bool is_own(const pugi::xml_node& node) const {
    return !prefix_.empty() && std::string_view(node.name()).starts_with(prefix_);
  }
  long order_of(const pugi::xml_node& node) const {
    const std::string text = own(node, "row");
    long order = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), order);
    return error == std::errc() && end == text.data() + text.size() ? order : 1'000'000L + next_++;
  }

  void read_root(const pugi::xml_node& root) {
    chart_.name = attribute(root, "name");
    for (const pugi::xml_node& data : root.child("datamodel").children("data")) {
      chart_.table.memory.push_back(attribute(data, "id"));
      const std::string value = attribute(data, "expr");
      if (!value.empty() && value != "0")
        remark(data, fmt::format("memory slots begin at 0, not at “{}”", value));
    }
    // A single outer state that holds all others is "any".
    pugi::xml_node all = root;
    const auto states = std::count_if(root.begin(), root.end(), is_state);
    if (states == 1 && wraps_all(root.find_child(is_state))) all = root.find_child(is_state);
    if (all != root) {
      name_of(all, std::string(kAnyState));
      read_transitions(all, std::string(kAnyState));
      refuse_actions(all);
    }
    for (const pugi::xml_node& node : all) {
      if (is_state(node)) {
        read_outer(node);
      } else if (node != root.child("datamodel")) {
        pass_over(node);
      }
    }
    read_initial(root, all);
  }

  // One that holds groups, or is called so.
  bool wraps_all(const pugi::xml_node& node) const {
    if (!holds_states(node)) return false;
    return attribute(node, "id") == kAnyState ||
           std::any_of(node.begin(), node.end(), [](const pugi::xml_node& n) { return holds_states(n); });
  }

  std::string name_of(const pugi::xml_node& node, std::string name = {}) {
    const std::string id = attribute(node, "id");
    if (name.empty()) name = own(node, "name");
    if (name.empty()) name = id.empty() ? fmt::format("State {}", names_.size() + 1) : id;
    if (!id.empty() && !names_.emplace(id, name).second)
      fail(node, fmt::format("there are two states “{}”", id));
    if (++states_named_ > kMostStatesRead) fail(node, "there are too many states");
    nodes_[name] = node;
    return name;
  }

  void read_outer(const pugi::xml_node& node) {
    if (!holds_states(node)) return read_state(node, {});
    const std::string group = name_of(node);
    read_transitions(node, group);
    refuse_actions(node);
    for (const pugi::xml_node& child : node) {
      if (!is_state(child)) {
        pass_over(child);
      } else if (holds_states(child)) {
        fail(child, "states are nested in groups, and groups in nothing but “any”: this is one level too deep");
      } else {
        read_state(child, group);
      }
    }
  }

  void refuse_actions(const pugi::xml_node& group) {
    for (const pugi::xml_node& node : group) {
      const std::string_view name = local_name(node);
      if (name == "onentry" || name == "onexit")
        remark(node, "only states have actions on entry and exit, groups have none: it was left out");
    }
  }

  // What a table has no place for.
  void pass_over(const pugi::xml_node& node) {
    if (node.type() != pugi::node_element || is_own(node)) return;
    const std::string_view name = local_name(node);
    if (name == "parallel")
      fail(node, "parallel states cannot be told by one table: a character is in one state");
    if (name == "history") fail(node, "a table remembers no history: lead to the states themselves");
    if (name == "transition" || name == "onentry" || name == "onexit" || name == "initial") return;
    remark(node, fmt::format("<{}> has no meaning here: it was left out", node.name()));
  }

  void read_state(const pugi::xml_node& node, const std::string& group) {
    StateSpec s;
    s.name = name_of(node);
    s.like = own(node, "is");
    s.group = s.like.empty() ? group : own(node, "in");
    s.behaviour = word<Behaviour>(node, "behaviour", behaviour_names());
    s.stance = word<Stance>(node, "stance", kStanceNames);
    s.pose = own(node, "pose");
    s.memory = words_of(own(node, "forgets"));
    for (const pugi::xml_node& child : node) read_part(child, s);
    read_transitions(node, s.name);
    states_.push_back({std::move(s), order_of(node)});
  }

  template <typename Enum, std::size_t kCount>
  std::optional<Enum> word(const pugi::xml_node& node, const char* key,
                           const std::array<std::string_view, kCount>& words) const {
    const std::string text = own(node, key);
    if (text.empty()) return std::nullopt;
    const auto found = std::find(words.begin(), words.end(), text);
    if (found == words.end()) fail(node, fmt::format("“{}” is no {}", text, key));
    return static_cast<Enum>(found - words.begin());
  }

  void read_part(const pugi::xml_node& node, StateSpec& s) {
    const std::string_view name = local_name(node);
    if (is_own(node) && name == "script") {
      s.script = node.text().get();
    } else if (is_own(node) && name == "set") {
      try {
        s.overrides.push_back(override_of(present_path(attribute(node, "path")), attribute(node, "value")));
      } catch (const ReadFailure& failure) {
        fail(node, failure.what);
      }
    } else if (name == "onentry") {
      s.on_entry = action_of(node);
    } else if (name == "onexit") {
      s.on_exit = action_of(node);
    } else {
      pass_over(node);
    }
  }

  // Executable content as Lua.
  std::string action_of(const pugi::xml_node& node) {
    std::string text;
    for (const pugi::xml_node& part : node) {
      if (part.type() != pugi::node_element) continue;
      if (++parts_read_ > kMostParts) fail(part, "there are too many actions");
      const std::string_view name = local_name(part);
      std::string line;
      if (name == "script") {
        line = part.text().get();
      } else if (name == "assign") {
        line = fmt::format("memory.{} = {}", attribute(part, "location"), attribute(part, "expr"));
      }
      if (!line.empty() && !script_fault(line, chart_.table.memory)) {
        text += (text.empty() ? "" : "\n") + line;
      } else {
        remark(part, fmt::format("<{}> cannot be done here: it was left out", part.name()));
      }
    }
    return text;
  }

  void read_transitions(const pugi::xml_node& node, const std::string& from) {
    for (const pugi::xml_node& t : node) {
      if (local_name(t) != "transition") continue;
      const std::vector<std::string> targets = words_of(attribute(t, "target"));
      if (targets.size() > 1) fail(t, "a transition leads to one state, not to several");
      if (targets.empty()) {
        remark(t, "a transition without a target changes no state: it was left out");
        continue;
      }
      if (rows_.size() == kMostTransitionRows)
        fail(t, fmt::format("a table has at most {} transitions", kMostTransitionRows));
      TransitionSpec spec{from, {}, guard_of(t), 0, 0.0, action_of(t)};
      const std::string priority = own(t, "priority"), stay = own(t, "stay");
      if (!priority.empty()) spec.priority = int(number(t, priority, -1000.0, 1000.0));
      if (!stay.empty()) spec.shortest_stay = number(t, stay, 0.0, 3600.0);
      rows_.push_back({std::move(spec), targets.front(), t, order_of(t)});
    }
  }

  static double number(const pugi::xml_node& node, const std::string& text, double low, double high) {
    double value = 0.0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (error != std::errc() || end != text.data() + text.size() || !(value >= low && value <= high))
      fail(node, fmt::format("it must be a number between {} and {}, not “{}”", low, high, text));
    return value;
  }

  // The condition, or a guard that never holds and says what to fill in.
  std::string guard_of(const pugi::xml_node& t) {
    std::string cond = attribute(t, "cond");
    const std::string event = attribute(t, "event");
    if (!event.empty() && find_signal(event + ".pressed") != nullptr) {
      remark(t, fmt::format("the event “{}” became {}.pressed", event, event));
      cond = cond.empty() ? event + ".pressed" : fmt::format("{}.pressed and ({})", event, cond);
    } else if (!event.empty()) {
      remark(t, fmt::format("there are no events here: fill in a guard for “{}”", event));
      return to_fill_in(cond.empty() ? event : event + ": " + cond);
    }
    if (cond.empty()) return "true";
    const auto fault = guard_fault(cond, chart_.table.memory);
    if (!fault) return cond;
    remark(t, fmt::format("“{}” is no guard here ({}): fill one in", cond, *fault));
    return to_fill_in(cond);
  }

  static std::string to_fill_in(std::string text) {
    for (auto at = text.find("]]"); at != std::string::npos; at = text.find("]]")) text.replace(at, 2, "] ]");
    return fmt::format("false --[[ {} ]]", text);
  }

  // Where a target leads: a state, or the one that a group begins with.
  std::string state_at(const pugi::xml_node& from, const std::string& id) {
    const auto found = names_.find(id);
    if (found == names_.end()) fail(from, fmt::format("there is no state “{}”", id));
    pugi::xml_node node = nodes_[found->second];
    for (int depth = 0; holds_states(node); ++depth) {
      if (depth > kDeepest) fail(from, "it leads round in a circle");
      std::string initial = attribute(node, "initial");
      if (initial.empty()) initial = attribute(node.child("initial").child("transition"), "target");
      const pugi::xml_node first = node.find_child(is_state);
      const auto named = names_.find(initial);
      node = named != names_.end() ? nodes_[named->second] : first;
    }
    for (const auto& [name, at] : nodes_) {
      if (at == node) return name;
    }
    fail(from, fmt::format("there is no state “{}”", id));
  }

  void read_initial(const pugi::xml_node& root, const pugi::xml_node& all) {
    std::string initial = attribute(root, "initial");
    if (initial.empty() && all != root) initial = attribute(all, "initial");
    const bool said = prefix_.empty() || !own(root, "fallback").empty();
    if (!initial.empty() && said) chart_.table.fallback = state_at(root, initial);
  }

  Result<ScxmlChart> finished() {
    const auto by_order = [](const auto& a, const auto& b) { return a.order < b.order; };
    std::stable_sort(states_.begin(), states_.end(), by_order);
    std::stable_sort(rows_.begin(), rows_.end(), by_order);
    for (Ordered& state : states_) chart_.table.states.push_back(std::move(state.spec));
    try {
      for (Row& row : rows_) {
        row.spec.to = state_at(row.node, row.target);
        chart_.table.transitions.push_back(std::move(row.spec));
      }
    } catch (const Refused& refused) {
      return refuse({file_, place(refused.at), refused.what});
    }
    auto made = StateChart::make(chart_.table);
    if (!made) return refuse({file_, "the chart" + made.error().place, made.error().what});
    chart_.table = (*made)->table();
    return std::move(chart_);
  }

  std::string_view text_;
  std::string file_, prefix_;
  ScxmlChart chart_;
  std::vector<Ordered> states_;
  std::vector<Row> rows_;
  std::map<std::string, std::string> names_;     // By id.
  std::map<std::string, pugi::xml_node> nodes_;  // By name.
  std::size_t states_named_ = 0, parts_read_ = 0;
  mutable long next_ = 0;
};

}  // namespace

Result<ScxmlChart> parse_scxml(std::string_view text, const std::string& file) {
  return Reader(text, file).read();
}

Result<ScxmlChart> read_scxml(const std::string& path) {
  return read_text(path).and_then([&](const std::string& text) { return parse_scxml(text, path); });
}

}  // namespace lagniappe
