// SPDX-License-Identifier: MIT
#include "states/lua_machine.h"

#include <fmt/format.h>

#include <cstdlib>
#include <cstring>
#include <lua.hpp>
#include <map>
#include <unordered_map>

#include "motion/jumping.h"
#include "states/plain_locale.h"
#include "states/words.h"

namespace lagniappe {

// Errors leave C functions by a long jump: none of them may hold anything that has a destructor when it raises.
struct LuaMachine::Inside {
  lua_State* lua = nullptr;
  std::size_t used = 0;
  ScriptHost* host = nullptr;
  const ScriptSet* scripts = nullptr;
  std::vector<int> references;  // Of the chunks' functions; LUA_NOREF where one does not load.
  std::vector<std::string> load_errors;
};

namespace {

using Inside = LuaMachine::Inside;
using Kind = ScriptSet::Kind;

// Looked up by every name that a script reads.
const Signal* signal_called(std::string_view name) {
  static const auto kByName = [] {
    std::unordered_map<std::string_view, const Signal*> map;
    for (const Signal& signal : all_signals()) map.emplace(signal.key, &signal);
    for (const OldSignal& old : kOldSignals) map.emplace(old.was, find_signal(old.is));
    return map;
  }();
  const auto found = kByName.find(name);
  return found == kByName.end() ? nullptr : found->second;
}

void* allocate(void* user, void* block, std::size_t old_size, std::size_t new_size) {
  auto& inside = *static_cast<std::size_t*>(user);
  if (block == nullptr) old_size = 0;
  if (new_size == 0) {
    inside -= old_size;
    std::free(block);
    return nullptr;
  }
  if (new_size > old_size && inside + (new_size - old_size) > kMostScriptMemory) return nullptr;
  void* moved = std::realloc(block, new_size);
  if (moved != nullptr) inside = inside - old_size + new_size;
  return moved;
}

Inside& inside_of(lua_State* lua) { return **static_cast<Inside**>(lua_getextraspace(lua)); }

void stop(lua_State* lua, lua_Debug*) {
  luaL_error(lua, "it takes more than %d instructions in one tick", kMostInstructions);
}

int push_signal(lua_State* lua, const char* name) {
  const Signal* signal = signal_called(name);
  if (signal == nullptr) return luaL_error(lua, "there is no signal '%s'", name);
  const double value = signal->value(inside_of(lua).host->view);
  signal->yes_no ? lua_pushboolean(lua, value != 0.0) : lua_pushnumber(lua, value);
  return 1;
}

// Raises through a field name that is no text.
const char* field_name(lua_State* lua) {
  if (lua_type(lua, 2) != LUA_TSTRING) luaL_error(lua, "a name is expected here");
  return lua_tostring(lua, 2);
}

int read_signal(lua_State* lua) { return push_signal(lua, field_name(lua)); }

// Of a group such as `jump`: its upvalue is "jump.".
int read_grouped(lua_State* lua) {
  char name[96];
  const char* group = lua_tostring(lua, lua_upvalueindex(1));
  const char* field = field_name(lua);
  if (std::strlen(group) + std::strlen(field) >= sizeof name) return luaL_error(lua, "there is no such signal");
  std::strcpy(name, group);
  std::strcat(name, field);
  return push_signal(lua, name);
}

int refuse_write(lua_State* lua) {
  return luaL_error(lua, "nothing can be kept in '%s': use local, or a memory slot of the table",
                    lua_type(lua, 2) == LUA_TSTRING ? lua_tostring(lua, 2) : "?");
}

int slot_of(lua_State* lua) {
  const char* name = field_name(lua);
  const auto& slots = inside_of(lua).scripts->memory;
  for (std::size_t i = 0; i < slots.size(); ++i) {
    if (slots[i] == name) return static_cast<int>(i);
  }
  return luaL_error(lua, "the table has no memory slot '%s'", name);
}

int read_memory(lua_State* lua) {
  lua_pushnumber(lua, inside_of(lua).host->view.state.memory[static_cast<std::size_t>(slot_of(lua))]);
  return 1;
}

ScriptHost& changeable(lua_State* lua) {
  ScriptHost& host = *inside_of(lua).host;
  if (host.state == nullptr) luaL_error(lua, "a guard changes nothing");
  return host;
}

// Nothing but finite numbers gets into a state.
double finite_at(lua_State* lua, int index) {
  const double value = luaL_checknumber(lua, index);
  if (!std::isfinite(value)) luaL_error(lua, "a number that is not finite cannot be used");
  return value;
}

// For velocities and shares: more is a mistake.
double number_at(lua_State* lua, int index) {
  const double value = finite_at(lua, index);
  if (std::abs(value) > 1e6) luaL_error(lua, "a number beyond a million cannot be used");
  return value;
}

int write_memory(lua_State* lua) {
  const auto slot = static_cast<std::size_t>(slot_of(lua));
  changeable(lua).state->memory[slot] = finite_at(lua, 3);
  return 0;
}

// The look's own directions, across up.
Vec3 direction(const CharacterState& state, int axis) {
  const Vec3 up = state.up_C(), forward = look_direction(state.frame_CB, state.yaw, 0.0);
  return axis == 0 ? forward : axis == 1 ? cross(forward, up) : up;
}

int axis_named(lua_State* lua) {
  static const char* const kAxes[] = {"forward", "right", "up"};
  const char* name = field_name(lua);
  for (int i = 0; i < 3; ++i) {
    if (std::strcmp(kAxes[i], name) == 0) return i;
  }
  return luaL_error(lua, "a velocity has forward, right and up, but no '%s'", name);
}

int read_velocity(lua_State* lua) {
  const CharacterState& state = inside_of(lua).host->view.state;
  lua_pushnumber(lua, dot(state.velocity_C, direction(state, axis_named(lua))));
  return 1;
}

int write_velocity(lua_State* lua) {
  const int axis = axis_named(lua);
  CharacterState& state = *changeable(lua).state;
  const Vec3 along = direction(state, axis);
  state.velocity_C += along * (number_at(lua, 3) - dot(state.velocity_C, along));
  return 0;
}

int call_jump(lua_State* lua) {
  ScriptHost& host = changeable(lua);
  jump(*host.context, *host.body, *host.flight, *host.state);
  host.jumped = true;
  return 0;
}

int call_leave_ground(lua_State* lua) {
  ScriptHost& host = changeable(lua);
  lift_off(*host.context, *host.state);
  return 0;
}

int call_steer(lua_State* lua) {
  ScriptHost& host = changeable(lua);
  host.steer = Vec2(number_at(lua, 2), number_at(lua, 1));
  return 0;
}

int call_in_zone(lua_State* lua) {
  lua_pushboolean(lua, in_zone(inside_of(lua).host->view, luaL_checkstring(lua, 1)));
  return 1;
}

int call_entered(lua_State* lua) {
  lua_pushboolean(lua, entered_zone(inside_of(lua).host->view, luaL_checkstring(lua, 1)));
  return 1;
}

int call_gravity(lua_State* lua) {
  changeable(lua).gravity_share = number_at(lua, 1);
  return 0;
}

// Sets t[name] to an empty table that reads and writes through the two functions, for the table t on top.
void add_proxy(lua_State* lua, const char* name, lua_CFunction read, lua_CFunction write) {
  lua_newtable(lua);
  lua_newtable(lua);
  lua_pushfstring(lua, "%s.", name);
  lua_pushcclosure(lua, read, 1);
  lua_setfield(lua, -2, "__index");
  lua_pushcfunction(lua, write);
  lua_setfield(lua, -2, "__newindex");
  lua_setmetatable(lua, -2);
  lua_setfield(lua, -2, name);
}

// Puts what is safe of a library into the table on top: nothing of chance, time, loading or inspecting.
void copy_functions(lua_State* lua, lua_CFunction open, const char* library,
                    std::initializer_list<const char*> names) {
  luaL_requiref(lua, library, open, 0);
  for (const char* name : names) {
    lua_getfield(lua, -1, name);
    lua_setfield(lua, -3, name);
  }
  lua_pop(lua, 1);
}

// An empty table in place of the table on top, which can only be read through it: what is in a table can be
// assigned, what is behind an empty one cannot.
void seal(lua_State* lua) {
  lua_newtable(lua);
  lua_newtable(lua);
  lua_rotate(lua, -3, -1);
  lua_setfield(lua, -2, "__index");
  lua_pushcfunction(lua, refuse_write);
  lua_setfield(lua, -2, "__newindex");
  lua_setmetatable(lua, -2);
}

// Leaves on the stack all that scripts can reach by a name, but for the signals that stand alone.
void push_environment(lua_State* lua) {
  lua_newtable(lua);
  copy_functions(lua, luaopen_base, "_G", {"type", "select", "ipairs", "tonumber", "error", "assert"});
  lua_newtable(lua);  // What `math` reads from.
  copy_functions(lua, luaopen_math, "math",
                 {"abs", "ceil", "floor", "max", "min", "sqrt", "sin", "cos", "tan", "asin", "acos", "atan",
                  "exp", "log", "fmod", "modf", "pi", "huge"});
  seal(lua);
  lua_setfield(lua, -2, "math");

  const char* last = "";
  for (const Signal& signal : all_signals()) {
    const auto dot = signal.key.find('.');
    if (dot == std::string_view::npos || signal.key.substr(0, dot) == last) continue;
    lua_pushlstring(lua, signal.key.data(), dot);
    last = lua_tostring(lua, -1);
    lua_insert(lua, -2);
    add_proxy(lua, last, read_grouped, refuse_write);
    lua_remove(lua, -2);
  }
  add_proxy(lua, "memory", read_memory, write_memory);
  add_proxy(lua, "velocity", read_velocity, write_velocity);
  const luaL_Reg calls[] = {{"jump", call_jump},       {"leave_ground", call_leave_ground},
                            {"steer", call_steer},     {"gravity", call_gravity},
                            {"in_zone", call_in_zone}, {"entered", call_entered}};
  for (const luaL_Reg& call : calls) {
    // `jump` is a group of signals, too: calling it jumps.
    if (lua_getfield(lua, -1, call.name) == LUA_TTABLE) {
      lua_getmetatable(lua, -1);
      lua_pushcfunction(lua, call.func);
      lua_setfield(lua, -2, "__call");
      lua_pop(lua, 2);
      continue;
    }
    lua_pop(lua, 1);
    lua_pushcfunction(lua, call.func);
    lua_setfield(lua, -2, call.name);
  }
}

int make_environment(lua_State* lua) {
  push_environment(lua);
  lua_newtable(lua);
  lua_pushcfunction(lua, read_signal);
  lua_setfield(lua, -2, "__index");
  lua_setmetatable(lua, -2);
  seal(lua);
  return 1;
}

int name_environment(lua_State* lua) {
  push_environment(lua);
  auto& names = *static_cast<std::vector<std::string>*>(lua_touserdata(lua, 1));
  for (lua_pushnil(lua); lua_next(lua, -2) != 0; lua_pop(lua, 1)) names.emplace_back(lua_tostring(lua, -2));
  return 0;
}

std::string source_of(Kind kind, const std::string& text) {
  return kind == Kind::Guard ? "return (" + text + "\n)" : text;
}

// What load_chunk() is given and gives back. Plain: errors jump over it.
struct Loading {
  const char* source;
  std::size_t size;
  const char* name;
  int reference;
};

// Protected, as all that may run out of memory.
int load_chunk(lua_State* lua) {
  auto& loading = *static_cast<Loading*>(lua_touserdata(lua, 1));
  if (luaL_loadbufferx(lua, loading.source, loading.size, loading.name, "t") != LUA_OK) return lua_error(lua);
  loading.reference = luaL_ref(lua, LUA_REGISTRYINDEX);
  return 0;
}

// What an error was raised with. Turning a number into text needs memory that there may not be, and nothing
// protects us here: only texts are taken as they are.
std::string message(lua_State* lua) {
  std::string said = "it failed without a word";
  if (lua_type(lua, -1) == LUA_TSTRING) {
    said = lua_tostring(lua, -1);
  } else if (lua_type(lua, -1) == LUA_TNUMBER) {
    said = fmt::format("it failed with {}", lua_tonumber(lua, -1));
  }
  if (said == "not enough memory")
    said = fmt::format("it needs more than the {} kB of memory that there are", kMostScriptMemory / 1024);
  return said;
}

}  // namespace

LuaMachine::LuaMachine(std::shared_ptr<const ScriptSet> scripts)
    : scripts_(std::move(scripts)), inside_(std::make_unique<Inside>()) {
  inside_->scripts = scripts_.get();
  lua_State* lua = inside_->lua = lua_newstate(allocate, &inside_->used);
  if (lua == nullptr) return;
  *static_cast<Inside**>(lua_getextraspace(lua)) = inside_.get();
  const PlainLocale plain;
  lua_pushcfunction(lua, make_environment);
  const bool made = lua_pcall(lua, 0, 1, 0) == LUA_OK;  // Stays at the bottom of the stack.
  for (const ScriptSet::Chunk& chunk : scripts_->chunks) {
    const std::string source = source_of(chunk.kind, chunk.text), name = "=" + chunk.name;
    Loading loading{source.data(), source.size(), name.c_str(), LUA_NOREF};
    lua_pushcfunction(lua, load_chunk);
    lua_pushlightuserdata(lua, &loading);
    const bool loaded = made && lua_pcall(lua, 1, 0, 0) == LUA_OK;
    inside_->load_errors.push_back(loaded ? std::string() : message(lua));
    inside_->references.push_back(loading.reference);
    lua_settop(lua, 1);
  }
}

LuaMachine::~LuaMachine() {
  if (inside_->lua != nullptr) lua_close(inside_->lua);
}

ScriptResult LuaMachine::run(std::size_t chunk, ScriptHost& host) {
  lua_State* lua = inside_->lua;
  if (lua == nullptr) return {false, "there is no memory for Lua"};
  if (inside_->references[chunk] == LUA_NOREF) return {false, inside_->load_errors[chunk]};
  inside_->host = &host;
  const PlainLocale plain;
  lua_sethook(lua, stop, LUA_MASKCOUNT, kMostInstructions);
  lua_rawgeti(lua, LUA_REGISTRYINDEX, inside_->references[chunk]);
  // Each time anew: a chunk can put another table in place of its _ENV, which would outlive the call.
  lua_pushvalue(lua, 1);
  lua_setupvalue(lua, -2, 1);
  ScriptResult result;
  if (lua_pcall(lua, 0, 1, 0) != LUA_OK) {
    result.error = message(lua);
    lua_pop(lua, 1);
    lua_gc(lua, LUA_GCCOLLECT);
  } else {
    const bool truth = lua_isboolean(lua, -1);
    if (scripts_->chunks[chunk].kind == Kind::Guard && !truth)
      result.error = fmt::format("{}: a guard must come to true or false, not to a {}",
                                 scripts_->chunks[chunk].name, luaL_typename(lua, -1));
    result.holds = truth && lua_toboolean(lua, -1);
    lua_pop(lua, 1);
  }
  inside_->host = nullptr;
  return result;
}

std::optional<std::string> LuaMachine::fault(ScriptSet::Kind kind, const std::string& text) {
  const auto scripts = std::make_shared<ScriptSet>(ScriptSet{{{kind, "line", text}}, {}});
  const LuaMachine machine(scripts);
  if (machine.inside_->lua == nullptr) return "there is no memory for Lua";
  if (machine.inside_->references.front() != LUA_NOREF) return std::nullopt;
  return machine.inside_->load_errors.front();
}

std::vector<std::string> LuaMachine::names() {
  std::vector<std::string> names;
  std::size_t used = 0;
  lua_State* lua = lua_newstate(allocate, &used);
  if (lua == nullptr) return names;
  lua_pushcfunction(lua, name_environment);
  lua_pushlightuserdata(lua, &names);
  if (lua_pcall(lua, 1, 0, 0) != LUA_OK) names.clear();
  lua_close(lua);
  for (const Signal& signal : all_signals()) {
    if (signal.key.find('.') == std::string_view::npos) names.emplace_back(signal.key);
  }
  return names;
}

LuaMachine& LuaMachine::of_thread(const std::shared_ptr<const ScriptSet>& scripts) {
  constexpr std::size_t kMostKept = 8;
  thread_local std::vector<std::unique_ptr<LuaMachine>> machines;
  for (std::size_t i = 0; i < machines.size(); ++i) {
    if (machines[i]->scripts_ != scripts) continue;
    if (i > 0) std::swap(machines[i], machines[0]);
    return *machines[0];
  }
  if (machines.size() >= kMostKept) machines.pop_back();
  machines.insert(machines.begin(), std::make_unique<LuaMachine>(scripts));
  return *machines[0];
}

}  // namespace lagniappe
