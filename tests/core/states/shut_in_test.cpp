// SPDX-License-Identifier: MIT
// What a script can reach, and that nothing it does outlives the call but for the state that it was given.
#include <catch2/catch.hpp>

#include "motion/context.h"
#include "states/guards.h"
#include "states/lua_machine.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// One machine with chunks that are run on one state.
struct Machine {
  Profile profile;
  TriangleWorld world = Scene().floor().world();
  CharacterState state = standing_at(profile, Vec3(0.0));
  InputFrame input;
  std::shared_ptr<ScriptSet> scripts = std::make_shared<ScriptSet>();
  std::optional<LuaMachine> machine;

  std::size_t add(ScriptSet::Kind kind, const std::string& text) {
    scripts->chunks.push_back({kind, "chunk", text});
    return scripts->chunks.size() - 1;
  }
  ScriptResult run(std::size_t chunk) {
    if (!machine) machine.emplace(scripts);
    const Values values = profile;
    const SignalView view{state, state, input, values, world, 1.0 / 60.0, Moment{}};
    const StepContext context{input, values, world, 1.0 / 60.0, nullptr, Moment{}};
    ScriptHost host{view};
    const Body body(context, state);
    host.state = &state;
    host.context = &context;
    host.body = &body;
    return machine->run(chunk, host);
  }
};

}  // namespace

TEST_CASE("No name that a script can see can be given another value, nor can what is behind it") {
  const std::vector<std::string> names = LuaMachine::names();
  REQUIRE(names.size() > 40);
  for (const char* wanted : {"select", "math", "memory", "velocity", "jump", "steer", "speed", "grounded"})
    CHECK(std::count(names.begin(), names.end(), wanted) == 1);
  for (const std::string& name : names) {
    INFO(name);
    Machine m;
    const std::size_t assigns = m.add(ScriptSet::Kind::Action, name + " = 7"),
                      puts_in = m.add(ScriptSet::Kind::Action, name + ".kept = 7"),
                      asks = m.add(ScriptSet::Kind::Guard, "type(" + name + ") == type(" + name + ")"),
                      is_seven = m.add(ScriptSet::Kind::Guard, name + " == 7");
    CHECK_THAT(m.run(assigns).error, Catch::Contains("nothing can be kept in '" + name + "'"));
    CHECK_FALSE(m.run(puts_in).error.empty());
    const ScriptResult there = m.run(asks);
    CHECK(there.error.empty());
    CHECK(there.holds);
    CHECK_FALSE(m.run(is_seven).holds);
  }
}

TEST_CASE("An environment that a script puts in place of its own is gone with the call") {
  Machine m;
  const std::size_t counts = m.add(
      ScriptSet::Kind::Action, "local v, s = velocity, speed v.up = s _ENV = {velocity = v, speed = s + 1}");
  for (int i = 0; i < 3; ++i) {
    CHECK(m.run(counts).error.empty());
    CHECK(length(m.state.velocity_C) == 0.0);
  }
}

TEST_CASE("A script that counts its calls in what it can see counts nothing: equal states give equal results") {
  for (const char* counter : {"select = (type(select) == 'number' and select or 0) + 1 velocity.up = select",
                              "math.pi = math.pi + 1 velocity.up = math.pi", "memory = {} velocity.up = 1"}) {
    INFO(counter);
    Machine m;
    const std::size_t chunk = m.add(ScriptSet::Kind::Action, counter);
    const std::uint64_t before = hash_of(m.state);
    for (int i = 0; i < 3; ++i) CHECK_FALSE(m.run(chunk).error.empty());
    CHECK(hash_of(m.state) == before);
  }
}

TEST_CASE("An error that is no text, with the memory full, is contained and told") {
  Machine m;
  const std::string fill = "local t = {} for i = 1, 1e7 do t[i] = i end ";
  const std::size_t full = m.add(ScriptSet::Kind::Action, fill),
                    number = m.add(ScriptSet::Kind::Action, "error(12345)"),
                    table = m.add(ScriptSet::Kind::Action, "error({})"),
                    nothing = m.add(ScriptSet::Kind::Action, "error()"),
                    deep = m.add(ScriptSet::Kind::Action, "local function f() error(f()) end f()");
  for (int i = 0; i < 3; ++i) {
    CHECK_FALSE(m.run(full).error.empty());
    CHECK_THAT(m.run(number).error, Catch::Contains("12345"));
    CHECK_FALSE(m.run(table).error.empty());
    CHECK_FALSE(m.run(nothing).error.empty());
    CHECK_FALSE(m.run(deep).error.empty());
  }
}

TEST_CASE("A table with more scripts than there is memory says so for those that do not fit") {
  Machine m;
  std::string long_text = "local x = 1";
  for (int i = 0; i < 1500; ++i) long_text += " x = x + " + std::to_string(i) + ".5";
  for (int i = 0; i < 60; ++i) m.add(ScriptSet::Kind::Action, long_text);
  CHECK(m.run(0).error.empty());
  CHECK_THAT(m.run(59).error, Catch::Contains("memory"));
  CHECK(m.run(0).error.empty());
}

TEST_CASE("Texts are compared byte by byte, and numbers become texts with a point, whatever the locale") {
  Machine m;
  CHECK(m.run(m.add(ScriptSet::Kind::Guard, "'Z' < 'a' and '\\u{e4}' > 'z'")).holds);
  Machine n;
  CHECK(n.run(n.add(ScriptSet::Kind::Guard,
                    "1.5 .. '' == '1.5' and tonumber('2.25') == 2.25 and tonumber('2,25') == nil"))
            .holds);
}

TEST_CASE("What is not plain goes to Lua, wherever in the guard it stands") {
  for (const char* guard :
       {"speed > 2^2", "5 % 2 > speed", "speed > 7 // 2", "speed > 3 -- fast", "speed < 1e999"}) {
    INFO(guard);
    CHECK_FALSE(guard_fault(guard, {}));
  }
  CHECK(guard_fault("speed > 3 4", {}));
  CHECK(guard_fault("speed > 1.2.3", {}));
}
