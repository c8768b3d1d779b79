// SPDX-License-Identifier: MIT
// Lua itself is the oracle of what a plain guard comes to.
#include "states/expression.h"

#include <catch2/catch.hpp>
#include <lua.hpp>

#include "states/guards.h"
#include "support/plain_numbers.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// A guard of numbers, truths and what joins them; always yes or no.
std::string random_number(Random& random, int depth) {
  switch (depth <= 0 ? random.below(2) : random.below(5)) {
    case 0:
      return std::to_string(random.below(9) - 4);
    case 1:
      return text_of_number(random.between(0.0, 3.0));
    case 2:
      return "(" + random_number(random, depth - 1) + " + " + random_number(random, depth - 1) + ")";
    case 3:
      return random_number(random, depth - 1) + " * " + random_number(random, depth - 1);
    default:
      return random_number(random, depth - 1) + " - " + random_number(random, depth - 1) + " / 4";
  }
}

std::string random_truth(Random& random, int depth) {
  static const char* const kCompare[] = {" < ", " <= ", " > ", " >= ", " == ", " ~= "};
  switch (depth <= 0 ? 0 : random.below(6)) {
    case 1:
      return random_truth(random, depth - 1) + " and " + random_truth(random, depth - 1);
    case 2:
      return random_truth(random, depth - 1) + " or " + random_truth(random, depth - 1);
    case 3:
      return "not (" + random_truth(random, depth - 1) + ")";
    case 4:
      return "(" + random_truth(random, depth - 1) + ")";
    case 5:
      return random.below(2) == 0 ? "true" : "false";
    default:
      return random_number(random, 2) + kCompare[random.below(6)] + random_number(random, 2);
  }
}

struct Lua {
  lua_State* state = luaL_newstate();
  ~Lua() { lua_close(state); }
  bool truth(const std::string& text) const {
    REQUIRE(luaL_dostring(state, ("return (" + text + ")").c_str()) == LUA_OK);
    const bool result = lua_toboolean(state, -1);
    lua_pop(state, 1);
    return result;
  }
};

// Signals of a character at rest, with memory and input to be set.
struct Looked {
  Profile profile;
  TriangleWorld world = Scene().floor().world();
  CharacterState state = start_state(profile, Home{}, world);
  InputFrame input;
  SignalView view() const { return {state, state, input, profile, world, 1.0 / 60, {0.0}}; }
};

std::optional<Expression> plain(const std::string& text, const std::vector<std::string>& memory = {}) {
  auto parsed = Expression::parse(text, memory);
  auto* expression = std::get_if<Expression>(&parsed);
  return expression != nullptr ? std::optional(std::move(*expression)) : std::nullopt;
}

}  // namespace

TEST_CASE("A plain guard comes to what Lua makes of it") {
  const Lua lua;
  const Looked looked;
  Random random(20261123);
  int truths = 0;
  for (int i = 0; i < 3000; ++i) {
    const std::string text = random_truth(random, 4);
    INFO(text);
    const auto guard = plain(text);
    REQUIRE(guard);
    const bool holds = guard->value(looked.view()) != 0.0;
    truths += holds;
    REQUIRE(holds == lua.truth(text));
  }
  CHECK(truths > 500);
  CHECK(truths < 2500);
}

TEST_CASE("What is no guard is refused with place and reason") {
  const auto fault = [](const char* text) { return guard_fault(text, {"stamina"}).value_or("taken"); };
  CHECK(fault("intnet > 0.1") == "line 1, column 1: there is no signal “intnet”; did you mean “intent”?");
  CHECK_THAT(fault("intent > 1 and\n grounded < 2"),
             Catch::StartsWith("line 2, column 2: “grounded” is true or false"));
  CHECK_THAT(fault("intent"), Catch::Contains("a guard must come to true or false"));
  CHECK_THAT(fault("intent >"), Catch::Contains("something is missing at the end"));
  CHECK_THAT(fault("(intent > 1"), Catch::Contains("“)” is missing"));
  CHECK_THAT(fault("memory.stamna > 1"), Catch::Contains("did you mean “stamina”"));
  CHECK_THAT(fault("  "), Catch::Contains("there is no guard"));
  CHECK_THAT(fault("math.abs(intent"), Catch::StartsWith("line "));
  CHECK(fault("memory.stamina > 0.5 or grounded == true") == "taken");
  CHECK(fault("math.abs(intent_right) > 0.5") == "taken");
}

TEST_CASE("Every part of a guard is told with what it compares") {
  Looked looked;
  looked.input.move = Vec2(0.0, 0.5);
  const std::string text = "grounded and (intent > 0.9 or not steep)";
  const auto guard = plain(text);
  REQUIRE(guard);
  const auto parts = guard->parts(looked.view());
  REQUIRE(parts.size() == 3);
  const auto words = [&](const GuardPart& p) { return text.substr(p.begin, p.end - p.begin); };
  CHECK(words(parts[0]) == "grounded");
  CHECK(parts[0].holds);
  CHECK_THAT(words(parts[1]), Catch::Contains("intent > 0.9"));
  CHECK_FALSE(parts[1].holds);
  CHECK(parts[1].compares);
  CHECK(parts[1].left == Approx((0.5 - 0.12) / 0.88));
  CHECK(parts[1].right == 0.9);
  CHECK_THAT(words(parts[2]), Catch::Contains("not steep"));
  CHECK(parts[2].holds);
}

TEST_CASE("Every signal can be asked by a guard, plain and in Lua, and both say the same") {
  Looked looked;
  looked.input.move = Vec2(0.3, 0.5);
  for (const Signal& signal : all_signals()) {
    INFO(signal.key);
    CHECK_FALSE(signal.help.empty());
    const std::string key(signal.key);
    const std::string guard = signal.yes_no ? key + " == true" : key + " <= 0.25";
    const auto scripts = std::make_shared<ScriptSet>();
    const auto easy = Guard::make(guard, "easy", scripts);
    // A call is not plain: this one goes through Lua.
    const auto rich = Guard::make("select(1, " + guard + ")", "rich", scripts);
    REQUIRE(easy);
    REQUIRE(rich);
    std::string error;
    CHECK((*easy)->holds(looked.view(), error) == (*rich)->holds(looked.view(), error));
    CHECK(error.empty());
  }
}

TEST_CASE("Hostile Lua is stopped within its budget and says why, and the machine goes on") {
  const Looked looked;
  const auto runs = [&](const std::string& body) {
    const auto guard = Guard::make("(function() " + body + " end)()", "guard", std::make_shared<ScriptSet>());
    if (!guard) return guard.error();
    std::string error;
    CHECK_FALSE((*guard)->holds(looked.view(), error));
    return error;
  };
  CHECK_THAT(runs("while true do end"), Catch::Contains("more than 20000 instructions"));
  CHECK_THAT(runs("local s = 'x' for i = 1, 40 do s = s .. s end return s"), Catch::Contains("memory"));
  CHECK_THAT(runs("local t = {} for i = 1, 1e9 do t[i] = {} end"),
             Catch::Contains("memory") || Catch::Contains("instructions"));
  CHECK_FALSE(runs("local function f(n) return 1 + f(n + 1) end return f(1) > 0").empty());
  CHECK_THAT(runs("return ('x'):rep(1e9) == ''"), Catch::Contains("attempt to index a string"));
  for (const char* gone :
       {"io", "os", "load", "require", "print", "pcall", "setmetatable", "getmetatable", "rawset", "pairs",
        "next", "collectgarbage", "coroutine", "debug", "string", "tostring", "_G"}) {
    INFO(gone);
    CHECK_THAT(runs(std::string("return ") + gone + " ~= nil"), Catch::Contains("there is no signal"));
  }
  CHECK_THAT(runs("math.random = 3 return true"), Catch::Contains("nothing can be kept"));
  CHECK_THAT(runs("return math.random() > 0"), Catch::Contains("nil value"));
  CHECK_THAT(runs("kept = 1 return true"), Catch::Contains("nothing can be kept in 'kept'"));
  CHECK_THAT(runs("velocity.up = 5 return true"), Catch::Contains("a guard changes nothing"));
  CHECK_THAT(runs("jump() return true"), Catch::Contains("a guard changes nothing"));
  CHECK_THAT(runs("return 5"), Catch::Contains("must come to true or false"));
  // After all of that it still works.
  const auto fine = Guard::make("math.max(intent, 0) == 0", "fine", std::make_shared<ScriptSet>());
  REQUIRE(fine);
  std::string error;
  CHECK((*fine)->holds(looked.view(), error));
  CHECK(error.empty());
}
