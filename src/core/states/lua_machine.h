// SPDX-License-Identifier: MIT
// Lua 5.4, shut in: signals can be read, memory slots and what the host offers can be written, and nothing else
// is there. No files, no clock, no chance, nothing that outlives the call; so many instructions and so much
// memory, and no more. A chunk that fails says why and leaves the machine as it was.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "lagniappe/signals.h"
#include "motion/context.h"

struct lua_State;

namespace lagniappe {

inline constexpr int kMostInstructions = 20'000;           // Of one call.
inline constexpr std::size_t kMostScriptMemory = 1 << 19;  // Bytes of one machine.

// The scripts of one table. Never changes; each thread makes its own machine of it.
struct ScriptSet {
  enum class Kind : std::uint8_t { Guard, Action };
  struct Chunk {
    Kind kind;
    std::string name;  // Where it stands, for messages.
    std::string text;
  };
  std::vector<Chunk> chunks;
  std::vector<std::string> memory;
};

// What a chunk works on.
struct ScriptHost {
  const SignalView& view;
  // What actions may change; null for guards.
  CharacterState* state = nullptr;
  const StepContext* context = nullptr;
  const Body* body = nullptr;
  const Values* flight = nullptr;  // In force in the flight of a jump.
  // What a script asked for.
  bool jumped = false;
  std::optional<Vec2> steer = std::nullopt;  // A push in place of the stick: right, forward.
  double gravity_share = 1.0;
};

struct ScriptResult {
  bool holds = false;  // Of a guard.
  std::string error;   // Empty: it ran. Else what went wrong, with the line.
};

class LuaMachine {
 public:
  explicit LuaMachine(std::shared_ptr<const ScriptSet> scripts);
  ~LuaMachine();
  LuaMachine(const LuaMachine&) = delete;
  LuaMachine& operator=(const LuaMachine&) = delete;

  ScriptResult run(std::size_t chunk, ScriptHost& host);

  // Returns why the text would not load; nothing if it would.
  static std::optional<std::string> fault(ScriptSet::Kind kind, const std::string& text);

  // Every name that a chunk finds something behind, apart from the fields of groups. None can be assigned.
  static std::vector<std::string> names();

  // The calling thread's machine for these scripts; kept for the next call.
  static LuaMachine& of_thread(const std::shared_ptr<const ScriptSet>& scripts);

  struct Inside;

 private:
  std::shared_ptr<const ScriptSet> scripts_;
  std::unique_ptr<Inside> inside_;
};

}  // namespace lagniappe
