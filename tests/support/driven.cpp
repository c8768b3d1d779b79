// SPDX-License-Identifier: MIT
#include "support/driven.h"

#include <sstream>

#include "support/plain_numbers.h"

namespace lagniappe::test {
namespace {

constexpr std::string_view kButtons = "jscklf";  // In capitals: pressed.
constexpr Action kActions[] = {Action::Jump,  Action::Sprint, Action::Crouch,
                               Action::Climb, Action::Lie,    Action::Fly};

void add(char key, InputFrame& input) {
  if (key == 'w') input.move.y += 1.0;
  if (key == 'b') input.move.y -= 1.0;
  if (key == 'a') input.move.x -= 1.0;
  if (key == 'd') input.move.x += 1.0;
  const auto at = kButtons.find(static_cast<char>(std::tolower(key)));
  if (at == std::string_view::npos) return;
  input.held.set(kActions[at], true);
  if (std::isupper(key) != 0) input.pressed.set(kActions[at], true);
}

}  // namespace

Driven& Driven::play(const std::string& steps) {
  std::istringstream in(steps);
  for (std::string text; in >> text;) {
    const auto colon = text.find(':');
    InputFrame input;
    for (const char key : text.substr(0, colon)) add(key, input);
    // A tap is let go after its tick.
    InputFrame after = input;
    for (const Action a : kActions) {
      if (input.pressed.has(a)) after.held.set(a, false);
    }
    go(1.0 / hz, input, input.pressed);
    if (colon != std::string::npos) go(number_of(text.substr(colon + 1)), after);
  }
  return *this;
}

}  // namespace lagniappe::test
