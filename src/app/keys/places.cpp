// SPDX-License-Identifier: GPL-3.0-or-later
#include "keys/places.h"

#include <QAction>
#include <QGuiApplication>
#include <algorithm>
#include <cstdlib>
#include <string_view>

#if QT_CONFIG(xcb)
#include <xcb/xcb.h>
// A header of C that has a member called as a word of C++.
#define explicit explicit_
#include <xcb/xkb.h>
#undef explicit
#endif

namespace lagniappe::app {
namespace {

// Rows of keycaps, from the scan code of their first.
struct Row {
  quint32 first;
  std::string_view caps;
};
constexpr Row kRows[] = {{10, "1234567890-="}, {24, "QWERTYUIOP[]"}, {38, "ASDFGHJKL;'"}, {52, "ZXCVBNM,./"}};
struct Cap {
  quint32 code;
  int key;
};
constexpr Cap kOthers[] = {{50, Qt::Key_Shift}, {62, Qt::Key_Shift},  {65, Qt::Key_Space}, {111, Qt::Key_Up},
                           {113, Qt::Key_Left}, {114, Qt::Key_Right}, {116, Qt::Key_Down}};
constexpr std::uint32_t kBySymbol = 1u << 31;

}  // namespace

int key_at_place(const QKeyEvent& event) {
  const quint32 code = event.nativeScanCode();
  if (code == 0) return event.key();
  for (const Row& row : kRows) {
    if (code >= row.first && code < row.first + row.caps.size()) return row.caps[code - row.first];
  }
  for (const Cap& cap : kOthers) {
    if (code == cap.code) return cap.key;
  }
  return 0;
}

std::uint32_t code_of(const QKeyEvent& event) {
  return event.nativeScanCode() != 0 ? event.nativeScanCode() : kBySymbol | std::uint32_t(event.key());
}

QKeySequence shortcut_by_place(const QKeyEvent& event) {
  const int key = key_at_place(event);
  const auto modifiers = event.modifiers() & (Qt::ControlModifier | Qt::ShiftModifier | Qt::AltModifier);
  const bool latin = event.key() > 0 && event.key() < 0x80;
  if (key == 0 || key >= 0x80 || (modifiers & ~Qt::ShiftModifier && latin)) return {};
  const auto held = modifiers & ~Qt::ShiftModifier ? modifiers : Qt::KeyboardModifiers();
  return QKeySequence(QKeyCombination(held, Qt::Key(key)));
}

QAction* action_by_place(const QKeyEvent& event, const QList<QAction*>& actions) {
  const QKeySequence meant = shortcut_by_place(event);
  const auto means = [&](const QAction* action) { return action->shortcuts().contains(meant); };
  const auto found = meant.isEmpty() ? actions.end() : std::find_if(actions.begin(), actions.end(), means);
  return found == actions.end() ? nullptr : *found;
}

void ask_for_plain_repeats() {
#if QT_CONFIG(xcb)
  const auto* x11 = qGuiApp->nativeInterface<QNativeInterface::QX11Application>();
  if (x11 == nullptr) return;
  constexpr std::uint32_t kWanted = XCB_XKB_PER_CLIENT_FLAG_DETECTABLE_AUTO_REPEAT;
  const auto asked =
      xcb_xkb_per_client_flags(x11->connection(), XCB_XKB_ID_USE_CORE_KBD, kWanted, kWanted, 0, 0, 0);
  std::free(xcb_xkb_per_client_flags_reply(x11->connection(), asked, nullptr));
#endif
}

}  // namespace lagniappe::app
