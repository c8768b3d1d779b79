// SPDX-License-Identifier: MIT
// Guards that are plain enough to be worked out without Lua: comparisons and arithmetic of signals, memory
// slots and numbers, and questions about zones, joined by `and`, `or` and `not`. What they come to is what
// Lua 5.4 makes of them.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "lagniappe/guard.h"
#include "lagniappe/signals.h"

namespace lagniappe {

class Expression {
 public:
  struct Fault {
    std::size_t at;  // Byte.
    std::string what;
  };
  struct TooRich {};  // Needs Lua.

  // `memory` are the names of the slots.
  static std::variant<Expression, TooRich, Fault> parse(std::string_view text,
                                                        const std::vector<std::string>& memory);

  bool yes_no() const { return nodes_[root_].yes_no; }
  // Whether what it comes to is known from the tick's sticks and held buttons alone, so that no motion changes
  // it.
  bool is_of_input() const { return of_input_; }
  double value(const SignalView& view) const { return eval(root_, view); }

  // Its parts, that is what `and`, `or` and `not` join, in the order of the text.
  std::vector<GuardPart> parts(const SignalView& view) const;

 private:
  enum class Op : std::uint8_t {
    Number,
    Truth,
    Signal,
    Memory,
    Or,
    And,
    Not,
    Less,
    LessEqual,
    Greater,
    GreaterEqual,
    Equal,
    Unequal,
    Add,
    Subtract,
    Multiply,
    Divide,
    Negate,
    InZone,
    Entered,
  };
  struct Node {
    Op op;
    bool yes_no;
    std::uint16_t left = 0, right = 0;
    std::uint32_t begin = 0, end = 0;  // Bytes of the text.
    double number = 0.0;               // Or the slot.
    const Signal* signal = nullptr;
    std::string zone = {};
  };
  class Parser;

  double eval(std::uint16_t node, const SignalView& view) const;
  void add_parts(std::uint16_t node, const SignalView& view, std::vector<GuardPart>& parts) const;

  std::vector<Node> nodes_;
  std::uint16_t root_ = 0;
  bool of_input_ = false;
};

}  // namespace lagniappe
