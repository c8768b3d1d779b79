// SPDX-License-Identifier: GPL-3.0-or-later
#include "keys/key_rule.h"

#include <Qsci/qsciscintilla.h>

#include <QAbstractButton>
#include <QAbstractItemView>
#include <QAbstractSlider>
#include <QAbstractSpinBox>
#include <QApplication>
#include <QComboBox>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QTabBar>
#include <QTextEdit>

namespace lagniappe::app {
namespace {

bool is_one_of(int key, std::initializer_list<int> keys) {
  return std::find(keys.begin(), keys.end(), key) != keys.end();
}

bool enters(int key) { return is_one_of(key, {Qt::Key_Return, Qt::Key_Enter}); }

bool navigates(int key) {
  return is_one_of(key, {Qt::Key_Up, Qt::Key_Down, Qt::Key_Left, Qt::Key_Right, Qt::Key_Home, Qt::Key_End,
                         Qt::Key_PageUp, Qt::Key_PageDown});
}

bool is_plain(const QKeyEvent& event) {
  return !(event.modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
}

bool types(const QKeyEvent& event) {
  const int key = event.key();
  if (!is_plain(event)) return false;
  return (!event.text().isEmpty() && key != Qt::Key_Escape && key != Qt::Key_Tab) || enters(key) ||
         navigates(key) || is_one_of(key, {Qt::Key_Space, Qt::Key_Backspace, Qt::Key_Delete, Qt::Key_Insert}) ||
         (key < 0x80 && key > 0x20);
}

// What keys with Ctrl do to the text at hand.
bool edits(const QKeyEvent& event) {
  for (const auto standard :
       {QKeySequence::Copy, QKeySequence::Cut, QKeySequence::Paste, QKeySequence::SelectAll}) {
    if (event.matches(standard)) return true;
  }
  return (event.modifiers() & Qt::ControlModifier) && !(event.modifiers() & Qt::AltModifier) &&
         (navigates(event.key()) || is_one_of(event.key(), {Qt::Key_Backspace, Qt::Key_Delete}));
}

bool takes_back(const QKeyEvent& event) {
  return event.matches(QKeySequence::Undo) || event.matches(QKeySequence::Redo);
}

bool belongs_to_text(const QWidget& widget, const QKeyEvent& event) {
  // A line takes back what was typed in it; when that is nothing, or done, Undo is the window's.
  const auto* line = qobject_cast<const QLineEdit*>(&widget);
  const bool own_undo =
      line == nullptr || (event.matches(QKeySequence::Undo) ? line->isUndoAvailable() && line->isModified()
                                                            : line->isRedoAvailable());
  return types(event) || edits(event) || (takes_back(event) && own_undo);
}

bool edits_text(const QWidget& widget) {
  if (const auto* line = qobject_cast<const QLineEdit*>(&widget)) return !line->isReadOnly();
  if (const auto* combo = qobject_cast<const QComboBox*>(&widget)) return combo->isEditable();
  if (const auto* text = qobject_cast<const QTextEdit*>(&widget)) return !text->isReadOnly();
  if (const auto* text = qobject_cast<const QPlainTextEdit*>(&widget)) return !text->isReadOnly();
  return qobject_cast<const QAbstractSpinBox*>(&widget) != nullptr ||
         qobject_cast<const QsciScintilla*>(&widget) != nullptr;
}

}  // namespace

bool belongs_to(const QWidget& widget, const QKeyEvent& event) {
  const int key = event.key();
  if (edits_text(widget)) return belongs_to_text(widget, event);
  if (!is_plain(event)) return false;
  if (qobject_cast<const QAbstractItemView*>(&widget) != nullptr)
    return navigates(key) || enters(key) || is_one_of(key, {Qt::Key_Space, Qt::Key_F2, Qt::Key_Delete});
  if (qobject_cast<const QComboBox*>(&widget) != nullptr)
    return navigates(key) || enters(key) || is_one_of(key, {Qt::Key_Space, Qt::Key_F4});
  if (qobject_cast<const QAbstractButton*>(&widget) != nullptr) return enters(key) || key == Qt::Key_Space;
  if (qobject_cast<const QTabBar*>(&widget) != nullptr)
    return is_one_of(key, {Qt::Key_Left, Qt::Key_Right, Qt::Key_Home, Qt::Key_End});
  return qobject_cast<const QAbstractSlider*>(&widget) != nullptr && navigates(key);
}

KeyRule::KeyRule(QObject* application) : QObject(application) {
  application->installEventFilter(this);
  ask_for_plain_repeats();
}

// A press of a key that is down comes again to the same window, marked as the repeat that it is.
bool KeyRule::passes_as_repeat(QObject* window, const QKeyEvent& event) {
  if (event.isAutoRepeat() || down_.press(code_of(event))) return false;
  QKeyEvent repeat(QEvent::KeyPress, event.key(), event.modifiers(), event.nativeScanCode(),
                   event.nativeVirtualKey(), event.nativeModifiers(), event.text(), true,
                   quint16(event.count()), event.device());
  repeat.setTimestamp(event.timestamp());
  QCoreApplication::sendEvent(window, &repeat);
  return true;
}

bool KeyRule::eventFilter(QObject* watched, QEvent* event) {
  const auto* key = static_cast<const QKeyEvent*>(event);
  switch (event->type()) {
    case QEvent::ShortcutOverride:
      if (const auto* widget = qobject_cast<const QWidget*>(watched)) {
        const bool belongs = belongs_to(*widget, *key);
        event->setAccepted(belongs);
        // A line of text would claim more than it has a use for.
        if (belongs || edits_text(*widget)) return true;
      }
      break;
    case QEvent::KeyPress:
      if (watched->isWindowType() && passes_as_repeat(watched, *key)) return true;
      // A button is pressed by Enter as by the space bar.
      if (auto* button = qobject_cast<QAbstractButton*>(watched);
          button != nullptr && enters(key->key()) && is_plain(*key)) {
        if (!key->isAutoRepeat()) button->click();
        return true;
      }
      break;
    case QEvent::KeyRelease:
      if (watched->isWindowType() && !key->isAutoRepeat()) down_.release(code_of(*key));
      break;
    // What is let go elsewhere is not heard of.
    case QEvent::WindowDeactivate:
    case QEvent::ApplicationStateChange:
      down_.clear();
      break;
    default:
      break;
  }
  return QObject::eventFilter(watched, event);
}

}  // namespace lagniappe::app
