// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <pugixml.hpp>
#include <sstream>

#include "io/states_document.h"
#include "lagniappe/scxml.h"
#include "math/ascii.h"

namespace lagniappe {
namespace {

// An XML name for every state and group, unlike all others: letters, digits, '_' and '-'.
class Ids {
 public:
  const std::string& of(const std::string& name) {
    if (const auto found = ids_.find(name); found != ids_.end()) return found->second;
    std::string id;
    for (const char c : name) {
      id += ascii::is_word(c) || c == '-' ? c : '_';
    }
    if (id.empty() || !ascii::is_letter(id.front())) id = "s" + id;
    const std::string plain = id;
    for (int n = 2; taken_.contains(id); ++n) id = fmt::format("{}-{}", plain, n);
    taken_[id] = true;
    return ids_[name] = id;
  }

 private:
  std::map<std::string, std::string> ids_;
  std::map<std::string, bool> taken_;
};

std::string joined(const std::vector<std::string>& names) {
  std::string text;
  for (const std::string& name : names) text += (text.empty() ? "" : " ") + name;
  return text;
}

class Writer {
 public:
  Writer(const StateTable& table, const std::string& name) : table_(table) {
    root_ = document_.append_child("scxml");
    set(root_, "xmlns", "http://www.w3.org/2005/07/scxml");
    set(root_, "xmlns:lag", std::string(kScxmlNamespace));
    set(root_, "version", "1.0");
    set(root_, "datamodel", "lua");
    if (!name.empty()) set(root_, "name", name);
    if (!table.states.empty())
      set(root_, "initial", ids_.of(table.fallback.empty() ? table.states.front().name : table.fallback));
    if (!table.fallback.empty()) set(root_, "lag:fallback", "true");
  }

  std::string text() {
    write_memory();
    pugi::xml_node any = add_state(root_, std::string(kAnyState));
    add_transitions(any, std::string(kAnyState));
    std::map<std::string, pugi::xml_node> groups;
    for (std::size_t i = 0; i < table_.states.size(); ++i) {
      const std::string group = group_of(table_.states[i]);
      pugi::xml_node in = any;
      if (!group.empty()) {
        const auto [at, is_new] = groups.try_emplace(group);
        if (is_new) {
          at->second = add_state(any, group);
          set(at->second, "lag:group", "true");
          add_transitions(at->second, group);
        }
        in = at->second;
      }
      write_state(in, table_.states[i], i);
    }
    std::ostringstream out;
    document_.save(out, "  ");
    // A reader makes plain line ends of what is not written as a character's number.
    std::string text = out.str();
    for (std::size_t at = 0; (at = text.find('\r', at)) != std::string::npos;) text.replace(at, 1, "&#13;");
    return text;
  }

 private:
  static void set(pugi::xml_node node, const char* key, const std::string& value) {
    node.append_attribute(key).set_value(value.c_str());
  }
  static void set_if(pugi::xml_node node, const char* key, const std::string& value) {
    if (!value.empty()) set(node, key, value);
  }
  static void add_script(pugi::xml_node node, const char* within, const std::string& text) {
    if (text.empty()) return;
    if (*within != '\0') node = node.append_child(within);
    node.append_child("script").text().set(text.c_str());
  }

  pugi::xml_node add_state(pugi::xml_node in, const std::string& name) {
    pugi::xml_node node = in.append_child("state");
    const std::string& id = ids_.of(name);
    set(node, "id", id);
    if (id != name) set(node, "lag:name", name);
    return node;
  }

  // Its own, or that of the nearest state it is like.
  std::string group_of(const StateSpec& state) const {
    const StateSpec* at = &state;
    for (std::size_t steps = 0; at->group.empty() && !at->like.empty() && steps < table_.states.size();
         ++steps) {
      const auto other = std::find_if(table_.states.begin(), table_.states.end(),
                                      [&](const StateSpec& s) { return s.name == at->like; });
      if (other == table_.states.end()) break;
      at = &*other;
    }
    return at->group;
  }

  void write_memory() {
    if (table_.memory.empty()) return;
    pugi::xml_node model = root_.append_child("datamodel");
    for (const std::string& slot : table_.memory) {
      pugi::xml_node data = model.append_child("data");
      set(data, "id", slot);
      set(data, "expr", "0");
    }
  }

  void write_state(pugi::xml_node in, const StateSpec& s, std::size_t row) {
    pugi::xml_node node = add_state(in, s.name);
    set(node, "lag:row", std::to_string(row));
    set_if(node, "lag:is", s.like);
    set_if(node, "lag:in", s.group);
    if (s.behaviour) set(node, "lag:behaviour", std::string(facts_of(*s.behaviour).name));
    if (s.stance) set(node, "lag:stance", std::string(kStanceNames[std::size_t(*s.stance)]));
    set_if(node, "lag:pose", s.pose);
    set_if(node, "lag:forgets", joined(s.memory));
    for (const Override& o : s.overrides) {
      pugi::xml_node override_node = node.append_child("lag:set");
      set(override_node, "path", o.path);
      set(override_node, "value", override_text(o));
    }
    if (!s.script.empty()) node.append_child("lag:script").text().set(s.script.c_str());
    add_script(node, "onentry", s.on_entry);
    add_script(node, "onexit", s.on_exit);
    add_transitions(node, s.name);
  }

  void add_transitions(pugi::xml_node node, const std::string& from) {
    for (std::size_t i = 0; i < table_.transitions.size(); ++i) {
      const TransitionSpec& t = table_.transitions[i];
      if (t.from != from) continue;
      pugi::xml_node child = node.append_child("transition");
      set(child, "cond", t.guard);
      set(child, "target", ids_.of(t.to));
      set(child, "lag:row", std::to_string(i));
      if (t.priority != 0) set(child, "lag:priority", std::to_string(t.priority));
      if (t.shortest_stay != 0.0) set(child, "lag:stay", fmt::format("{}", t.shortest_stay));
      add_script(child, "", t.action);
    }
  }

  const StateTable& table_;
  Ids ids_;
  pugi::xml_document document_;
  pugi::xml_node root_;
};

}  // namespace

std::string scxml_text(const StateTable& table, const std::string& name) { return Writer(table, name).text(); }

}  // namespace lagniappe
