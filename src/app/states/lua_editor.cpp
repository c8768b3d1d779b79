// SPDX-License-Identifier: GPL-3.0-or-later
#include "states/lua_editor.h"

#include <Qsci/qsciapis.h>
#include <Qsci/qscilexerlua.h>

#include <QKeyEvent>
#include <QRegularExpression>

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kLettersUntilList = 2;

constexpr double kPoints = 9.0;                               // Scintilla knows no pixels.
constexpr unsigned long kWrong = 8, kHolds = 9, kFails = 10;  // Indicators of ours.

QFont in_points(QFont font) {
  font.setPointSizeF(kPoints);
  return font;
}

// The colours of Lua, from the theme.
void colour(QsciLexer* lexer) {
  const QFont font = in_points(theme::number_font(12));
  lexer->setDefaultFont(font);
  lexer->setFont(font);
  lexer->setPaper(theme::colours().field);
  lexer->setDefaultPaper(theme::colours().field);
  lexer->setColor(theme::ink());
  const std::pair<int, QColor> colours[] = {
      {QsciLexerLua::Keyword, theme::plum()},     {QsciLexerLua::Number, theme::teal()},
      {QsciLexerLua::String, theme::moss()},      {QsciLexerLua::Comment, theme::ink2()},
      {QsciLexerLua::LineComment, theme::ink2()}, {QsciLexerLua::Operator, theme::brick()}};
  for (const auto& [style, colour] : colours) lexer->setColor(colour, style);
}

}  // namespace

LuaEditor::LuaEditor(Kind kind, QWidget* parent) : QsciScintilla(parent), kind_(kind) {
  setObjectName("lua");
  setLexer(new QsciLexerLua(this));
  complete_from({});
  setUtf8(true);
  setEolMode(QsciScintilla::EolUnix);
  for (int margin = 0; margin < 3; ++margin)
    setMarginWidth(margin, kind == Kind::Script && margin == 0 ? 18 : 0);
  if (kind == Kind::Script) setMarginLineNumbers(0, true);
  setMarginsFont(in_points(theme::number_font(9)));
  setWrapMode(QsciScintilla::WrapWord);
  setAutoCompletionSource(QsciScintilla::AcsAPIs);
  setAutoCompletionThreshold(kLettersUntilList);
  setAutoCompletionCaseSensitivity(false);
  setBraceMatching(QsciScintilla::SloppyBraceMatch);
  setFrameShape(QFrame::StyledPanel);
  SendScintilla(SCI_SETHSCROLLBAR, 0ul);
  SendScintilla(SCI_SETTABWIDTH, 2ul);
  indicatorDefine(QsciScintilla::SquiggleIndicator, int(kWrong));
  indicatorDefine(QsciScintilla::StraightBoxIndicator, int(kHolds));
  indicatorDefine(QsciScintilla::StraightBoxIndicator, int(kFails));
  colour_all();
  connect(this, &QsciScintilla::textChanged, this, &LuaEditor::look);
}

void LuaEditor::colour_all() {
  colour(lexer());
  setMarginsBackgroundColor(theme::paper());
  setMarginsForegroundColor(theme::ink2());
  setCaretForegroundColor(theme::ink());
  setSelectionBackgroundColor(theme::colours().chosen);
  setIndicatorForegroundColor(theme::brick(), int(kWrong));
  setIndicatorForegroundColor(theme::moss(), int(kHolds));
  setIndicatorForegroundColor(theme::brick(), int(kFails));
  for (const unsigned long indicator : {kHolds, kFails}) {
    SendScintilla(SCI_INDICSETALPHA, indicator, 34l);
    SendScintilla(SCI_INDICSETOUTLINEALPHA, indicator, 120l);
    SendScintilla(SCI_INDICSETUNDER, indicator, 1l);
  }
}

void LuaEditor::changeEvent(QEvent* event) {
  QsciScintilla::changeEvent(event);
  if (event->type() == QEvent::PaletteChange && lexer() != nullptr) colour_all();
}

void LuaEditor::set_memory(const std::vector<std::string>& slots_of_table) {
  if (slots_of_table == memory_) return;
  memory_ = slots_of_table;
  complete_from(memory_);
}

void LuaEditor::complete_from(const std::vector<std::string>& slots_of_table) {
  auto* apis = new QsciAPIs(lexer());  // The lexer takes it over, and drops the one before.
  for (const Signal& s : all_signals()) apis->add(QString::fromUtf8(s.key.data(), qsizetype(s.key.size())));
  for (const std::string& slot : slots_of_table) apis->add("memory." + QString::fromStdString(slot));
  for (const char* word : {"and", "or", "not", "true", "false", "math.abs", "math.max", "math.min"})
    apis->add(word);
  if (kind_ != Kind::Guard) {
    for (const char* call : {"jump()", "leave_ground()", "steer(forward, right)", "gravity(share)",
                             "velocity.forward", "velocity.right", "velocity.up"})
      apis->add(call);
  }
  apis->prepare();
}

void LuaEditor::show_text(const QString& shown) {
  if (shown == told_ && hasFocus()) return;
  if (shown != text()) {
    showing_ = true;
    int line = 0, index = 0;
    getCursorPosition(&line, &index);
    setText(shown);
    if (hasFocus()) setCursorPosition(line, index);
    showing_ = false;
  }
  told_ = shown;
  look();
}

void LuaEditor::mark(unsigned long indicator, std::size_t begin, std::size_t end) {
  SendScintilla(SCI_SETINDICATORCURRENT, indicator);
  SendScintilla(SCI_INDICATORFILLRANGE, static_cast<unsigned long>(begin), static_cast<long>(end - begin));
}

void LuaEditor::look() {
  const std::string now = text().toStdString();
  const bool may_be_empty = kind_ != Kind::Guard && now.find_first_not_of(" \t\n") == std::string::npos;
  const auto wrong = may_be_empty           ? std::nullopt
                     : kind_ == Kind::Guard ? guard_fault(now, memory_)
                                            : script_fault(now, memory_);
  clearIndicatorRange(0, 0, lines(), 0, int(kWrong));
  if (wrong) {
    const auto place =
        QRegularExpression("line (\\d+)(?:, column (\\d+))?").match(QString::fromStdString(*wrong));
    const int line = std::clamp(place.captured(1).toInt() - 1, 0, std::max(lines() - 1, 0));
    const auto begin = std::size_t(positionFromLineIndex(line, 0));
    const std::size_t from =
        place.captured(2).isEmpty() ? begin : begin + std::size_t(place.captured(2).toInt() - 1);
    const auto end = std::size_t(SendScintilla(SCI_GETLINEENDPOSITION, static_cast<unsigned long>(line)));
    mark(kWrong, std::min(from, end > 0 ? end - 1 : 0), std::max(end, from + 1));
  }
  const QString fault = wrong ? QString::fromStdString(*wrong) : QString();
  if (fault != fault_) {
    fault_ = fault;
    emit fault_changed();
  }
  if (showing_ || wrong || text() == told_) return;
  told_ = text();
  emit edited(told_);
}

void LuaEditor::show_parts(const std::vector<GuardPart>& parts) {
  for (const auto indicator : {kHolds, kFails}) clearIndicatorRange(0, 0, lines(), 0, int(indicator));
  for (const GuardPart& part : parts) mark(part.holds ? kHolds : kFails, part.begin, part.end);
}

// The package asks the screen below the caret for its size, and crashes where a window hangs over the edge and
// there is none.
bool LuaEditor::list_would_be_on_a_screen() const {
  const long at = SendScintilla(SCI_GETCURRENTPOS);
  const QPoint caret(int(SendScintilla(SCI_POINTXFROMPOSITION, 0UL, at)),
                     int(SendScintilla(SCI_POINTYFROMPOSITION, 0UL, at)));
  const QPoint below = caret + QPoint(0, int(SendScintilla(SCI_TEXTHEIGHT, 0UL)));
  const auto is_on_one = [this](const QPoint& p) {
    return QGuiApplication::screenAt(viewport()->mapToGlobal(p)) != nullptr;
  };
  return is_on_one(caret) && is_on_one(below);
}

void LuaEditor::keyPressEvent(QKeyEvent* event) {
  setAutoCompletionThreshold(list_would_be_on_a_screen() ? kLettersUntilList : -1);
  const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
  const bool listed = SendScintilla(SCI_AUTOCACTIVE) != 0;
  if (!listed && (event->key() == Qt::Key_Escape || (enter && (event->modifiers() & Qt::ControlModifier))))
    return emit left();
  // The next field, not a blank.
  if (!listed && event->key() == Qt::Key_Tab) return void(focusNextPrevChild(true));
  if (event->key() == Qt::Key_Backtab) return void(focusNextPrevChild(false));
  QsciScintilla::keyPressEvent(event);
}

}  // namespace lagniappe::app
