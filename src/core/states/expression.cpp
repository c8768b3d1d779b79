// SPDX-License-Identifier: MIT
#include "states/expression.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>

#include "math/ascii.h"
#include "states/words.h"

namespace lagniappe {

// Recursive descent, in Lua's order of precedence. `TooRich` and `Fault` are thrown: nothing is left of what
// was read so far.
class Expression::Parser {
 public:
  Parser(std::string_view text, const std::vector<std::string>& memory, Expression& out)
      : text_(text), memory_(memory), out_(out) {
    next();
  }

  std::uint16_t whole() {
    const std::uint16_t root = disjunction();
    if (token_ != "") too_rich_or(fmt::format("“{}” is not expected here", token_));
    return root;
  }

 private:
  static constexpr std::size_t kMostNodes = 1000;
  static constexpr int kDeepest = 100;

  [[noreturn]] void fault(const std::string& what) const { throw Fault{begin_, what}; }

  void next() {
    last_end_ = end_;
    while (end_ < text_.size() && ascii::is_blank(text_[end_])) ++end_;
    begin_ = end_;
    if (end_ == text_.size()) {
      token_ = {};
      return;
    }
    const char c = text_[end_];
    if (ascii::is_letter(c) || c == '_') {
      while (end_ < text_.size() && (ascii::is_word(text_[end_]) || text_[end_] == '.')) ++end_;
    } else if (ascii::is_digit(c) || c == '.') {
      read_number();
    } else {
      for (const std::string_view two : {"<=", ">=", "==", "~=", "//", "..", "--", "<<", ">>"}) {
        if (text_.substr(end_, 2) == two) end_ += 1;
      }
      end_ += 1;
    }
    token_ = text_.substr(begin_, end_ - begin_);
  }

  void read_number() {
    if (text_.substr(end_, 2) == "0x" || text_.substr(end_, 2) == "0X") throw TooRich{};
    while (end_ < text_.size()) {
      const char c = text_[end_];
      const bool sign = (c == '+' || c == '-') && (text_[end_ - 1] == 'e' || text_[end_ - 1] == 'E');
      if (!ascii::is_letter(c) && !ascii::is_digit(c) && c != '.' && !(sign && end_ > begin_)) break;
      ++end_;
    }
  }

  std::uint16_t add(Node node) {
    if (out_.nodes_.size() >= kMostNodes) throw TooRich{};
    node.end = static_cast<std::uint32_t>(last_end_);
    out_.nodes_.push_back(std::move(node));
    return static_cast<std::uint16_t>(out_.nodes_.size() - 1);
  }
  Node& at(std::uint16_t node) { return out_.nodes_[node]; }

  // What `and`, `or` and `not` make of numbers is left to Lua.
  void want_truth(std::uint16_t node) {
    if (!at(node).yes_no) throw TooRich{};
  }
  void want_number(std::uint16_t node, std::string_view for_what) {
    if (!at(node).yes_no) return;
    throw Fault{at(node).begin,
                fmt::format("“{}” is true or false, not a number: it cannot be {}",
                            text_.substr(at(node).begin, at(node).end - at(node).begin), for_what)};
  }

  std::uint16_t join(Op op, std::uint16_t left, std::uint16_t right, bool yes_no) {
    Node node{op, yes_no, left, right};
    node.begin = at(left).begin;
    return add(node);
  }

  std::uint16_t disjunction() {
    std::uint16_t left = conjunction();
    while (token_ == "or") {
      next();
      const std::uint16_t right = conjunction();
      want_truth(left), want_truth(right);
      left = join(Op::Or, left, right, true);
    }
    return left;
  }

  std::uint16_t conjunction() {
    std::uint16_t left = comparison();
    while (token_ == "and") {
      next();
      const std::uint16_t right = comparison();
      want_truth(left), want_truth(right);
      left = join(Op::And, left, right, true);
    }
    return left;
  }

  std::optional<Op> compare_op() const {
    if (token_ == "<") return Op::Less;
    if (token_ == "<=") return Op::LessEqual;
    if (token_ == ">") return Op::Greater;
    if (token_ == ">=") return Op::GreaterEqual;
    if (token_ == "==") return Op::Equal;
    if (token_ == "~=") return Op::Unequal;
    return std::nullopt;
  }

  std::uint16_t comparison() {
    std::uint16_t left = sum();
    while (const auto op = compare_op()) {
      const bool same = *op == Op::Equal || *op == Op::Unequal;
      next();
      const std::uint16_t right = sum();
      // Lua finds a truth and a number unequal, which is hardly what is meant.
      if (!same || at(left).yes_no != at(right).yes_no) {
        want_number(left, "compared with a number");
        want_number(right, "compared with a number");
      }
      left = join(*op, left, right, true);
    }
    return left;
  }

  std::uint16_t sum() {
    std::uint16_t left = product();
    while (token_ == "+" || token_ == "-") {
      const Op op = token_ == "+" ? Op::Add : Op::Subtract;
      next();
      const std::uint16_t right = product();
      want_number(left, "added"), want_number(right, "added");
      left = join(op, left, right, false);
    }
    return left;
  }

  std::uint16_t product() {
    std::uint16_t left = unary();
    while (token_ == "*" || token_ == "/") {
      const Op op = token_ == "*" ? Op::Multiply : Op::Divide;
      next();
      const std::uint16_t right = unary();
      want_number(left, "multiplied"), want_number(right, "multiplied");
      left = join(op, left, right, false);
    }
    return left;
  }

  std::uint16_t unary() {
    if (token_ != "not" && token_ != "-") return primary();
    if (++depth_ > kDeepest) throw TooRich{};
    const bool negation = token_ == "not";
    Node node{negation ? Op::Not : Op::Negate, negation};
    node.begin = static_cast<std::uint32_t>(begin_);
    next();
    node.left = unary();
    --depth_;
    negation ? want_truth(node.left) : want_number(node.left, "negated");
    return add(node);
  }

  std::uint16_t primary() {
    if (token_ == "") fault("something is missing at the end");
    if (token_ == "(") return parenthesis();
    const char c = token_.front();
    if (ascii::is_digit(c) || (c == '.' && token_.size() > 1 && token_ != "..")) return number();
    if (ascii::is_letter(c) || c == '_') return name();
    // Strings, tables, lengths and comments are for Lua.
    if (std::string_view("\"'{[#~").find(c) != std::string_view::npos || token_ == "--") throw TooRich{};
    fault(fmt::format("“{}” is not expected here", token_));
  }

  std::uint16_t parenthesis() {
    if (++depth_ > kDeepest) throw TooRich{};
    const auto begin = static_cast<std::uint32_t>(begin_);
    next();
    const std::uint16_t inner = disjunction();
    if (token_ != ")") too_rich_or("a “)” is missing");
    next();
    --depth_;
    at(inner).begin = begin;
    at(inner).end = static_cast<std::uint32_t>(last_end_);
    check_follows();
    return inner;
  }

  std::uint16_t number() {
    double value = 0.0;
    const char* last = token_.data() + token_.size();
    const auto [end, error] = std::from_chars(token_.data(), last, value);
    if (error == std::errc::result_out_of_range) throw TooRich{};  // Lua knows what it comes to.
    if (error != std::errc() || end != last) fault(fmt::format("“{}” is no number", token_));
    Node node{Op::Number, false};
    node.begin = static_cast<std::uint32_t>(begin_);
    node.number = value;
    next();
    const std::uint16_t added = add(node);
    check_follows();
    return added;
  }

  std::uint16_t name() {
    const std::string_view word = token_;
    Node node{Op::Signal, false};
    node.begin = static_cast<std::uint32_t>(begin_);
    if (word == "true" || word == "false") {
      node = {Op::Truth, true, 0, 0, node.begin};
      node.number = word == "true";
    } else if (word.starts_with("memory.")) {
      node.op = Op::Memory;
      node.number = slot(word.substr(7));
    } else if (const Signal* signal = find_signal(word)) {
      node.signal = signal;
      node.yes_no = signal->yes_no;
    } else if (word == "in_zone" || word == "entered") {
      return of_zone(std::move(node), word == "in_zone" ? Op::InZone : Op::Entered);
    } else if (is_lua_word(word)) {
      throw TooRich{};
    } else {
      fault(fmt::format("there is no signal “{}”{}", word, did_you_mean(word, signal_names(memory_))));
    }
    next();
    const std::uint16_t added = add(node);
    check_follows();
    return added;
  }

  // in_zone("Vent"). What is more than a plain name is left to Lua.
  std::uint16_t of_zone(Node node, Op op) {
    next();
    if (token_ != "(") fault("a zone is asked for as in in_zone(\"Vent\")");
    while (end_ < text_.size() && ascii::is_blank(text_[end_])) ++end_;
    const char quote = end_ < text_.size() ? text_[end_] : ' ';
    if (quote != '"' && quote != '\'') throw TooRich{};
    const std::size_t from = end_ + 1, to = text_.find(quote, from);
    if (to == std::string_view::npos) throw TooRich{};
    node.op = op;
    node.yes_no = true;
    node.zone = text_.substr(from, to - from);
    if (node.zone.find('\\') != std::string::npos) throw TooRich{};
    end_ = to + 1;
    next();
    if (token_ != ")") throw TooRich{};
    next();
    const std::uint16_t added = add(std::move(node));
    check_follows();
    return added;
  }

  double slot(std::string_view name) const {
    for (std::size_t i = 0; i < memory_.size(); ++i) {
      if (memory_[i] == name) return static_cast<double>(i);
    }
    fault(fmt::format("the table has no memory slot “{}”{}", name, did_you_mean(name, memory_)));
  }

  // A call or an index needs Lua; so do the operators that are not here.
  void check_follows() const {
    for (const std::string_view rich :
         {"(", "[", "{", ":", "..", "//", "%", "^", "&", "|", "<<", ">>", "--", "~"}) {
      if (token_ == rich) throw TooRich{};
    }
    if (!token_.empty() && (token_.front() == '"' || token_.front() == '\'')) throw TooRich{};
  }
  [[noreturn]] void too_rich_or(const std::string& what) const {
    check_follows();
    fault(what);
  }

  std::string_view text_;
  const std::vector<std::string>& memory_;
  Expression& out_;
  std::string_view token_;
  std::size_t begin_ = 0, end_ = 0, last_end_ = 0;
  int depth_ = 0;
};

std::variant<Expression, Expression::TooRich, Expression::Fault> Expression::parse(
    std::string_view text, const std::vector<std::string>& memory) {
  try {
    Expression expression;
    Parser parser(text, memory, expression);
    expression.root_ = parser.whole();
    expression.of_input_ = std::all_of(expression.nodes_.begin(), expression.nodes_.end(), [](const Node& n) {
      return n.op != Op::Memory && n.op != Op::InZone && n.op != Op::Entered &&
             (n.signal == nullptr || n.signal->of_input);
    });
    return expression;
  } catch (const TooRich& rich) {
    return rich;
  } catch (const Fault& fault) {
    return fault;
  }
}

double Expression::eval(std::uint16_t index, const SignalView& view) const {
  const Node& n = nodes_[index];
  switch (n.op) {
    case Op::Number:
    case Op::Truth:
      return n.number;
    case Op::Signal:
      return n.signal->value(view);
    case Op::Memory:
      return view.state.memory[static_cast<std::size_t>(n.number)];
    case Op::Or:
      return eval(n.left, view) != 0.0 || eval(n.right, view) != 0.0;
    case Op::And:
      return eval(n.left, view) != 0.0 && eval(n.right, view) != 0.0;
    case Op::Not:
      return eval(n.left, view) == 0.0;
    case Op::Less:
      return eval(n.left, view) < eval(n.right, view);
    case Op::LessEqual:
      return eval(n.left, view) <= eval(n.right, view);
    case Op::Greater:
      return eval(n.left, view) > eval(n.right, view);
    case Op::GreaterEqual:
      return eval(n.left, view) >= eval(n.right, view);
    case Op::Equal:
      return eval(n.left, view) == eval(n.right, view);
    case Op::Unequal:
      return eval(n.left, view) != eval(n.right, view);
    case Op::Add:
      return eval(n.left, view) + eval(n.right, view);
    case Op::Subtract:
      return eval(n.left, view) - eval(n.right, view);
    case Op::Multiply:
      return eval(n.left, view) * eval(n.right, view);
    case Op::Divide:
      return eval(n.left, view) / eval(n.right, view);
    case Op::Negate:
      return -eval(n.left, view);
    case Op::InZone:
      return in_zone(view, n.zone);
    case Op::Entered:
      return entered_zone(view, n.zone);
  }
  return 0.0;
}

std::vector<GuardPart> Expression::parts(const SignalView& view) const {
  std::vector<GuardPart> parts;
  add_parts(root_, view, parts);
  return parts;
}

void Expression::add_parts(std::uint16_t index, const SignalView& view, std::vector<GuardPart>& parts) const {
  const Node& n = nodes_[index];
  if (n.op == Op::And || n.op == Op::Or) {
    add_parts(n.left, view, parts);
    add_parts(n.right, view, parts);
    return;
  }
  GuardPart part{n.begin, n.end, eval(index, view) != 0.0};
  const bool compares = n.op >= Op::Less && n.op <= Op::Unequal;
  if (compares && !nodes_[n.left].yes_no) {
    part.compares = true;
    part.left = eval(n.left, view);
    part.right = eval(n.right, view);
  }
  parts.push_back(part);
}

}  // namespace lagniappe
