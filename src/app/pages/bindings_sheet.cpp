// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/bindings_sheet.h"

#include <QGridLayout>
#include <QLabel>

#include "widgets/key_button.h"

namespace lagniappe::app {
namespace {

constexpr int kWidth = 132;
constexpr std::array<Slot, kSlotCount> kSlots = {Slot::Key, Slot::OtherKey, Slot::Mouse, Slot::Pad};

struct SlotWords {
  const char *heading, *suffix, *prompt;
};
constexpr SlotWords kWords[kSlotCount] = {{"Key", "", "press a key"},
                                          {"Second key", ", second key", "press a key"},
                                          {"Mouse", ", mouse", "press it on the mouse"},
                                          {"Pad", ", pad", "press it on the pad"}};

const SlotWords& words_of(Slot slot) { return kWords[static_cast<std::size_t>(slot)]; }

// The first key's name is that of before there were others.
QString path_of(const Binding& row, Slot slot) {
  return QString("%1/drive %2%3").arg(Preferences::kKeys, row.text, words_of(slot).suffix);
}

bool is_key(Slot slot) { return slot == Slot::Key || slot == Slot::OtherKey; }

}  // namespace

BindingsSheet::BindingsSheet(Preferences& preferences, const Actions& actions, Bindings& bindings,
                             QWidget* parent)
    : QWidget(parent), preferences_(preferences), actions_(actions), bindings_(bindings) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 6);
  grid->setHorizontalSpacing(6);
  grid->setVerticalSpacing(3);
  grid->setColumnStretch(kSlotCount, 1);
  for (int i = 0; i < kSlotCount; ++i) {
    auto* heading = new QLabel(tr(kWords[i].heading));
    heading->setObjectName("caption");
    grid->addWidget(heading, 0, i);
  }
  for (std::size_t i = 0; i < bindings_.rows().size(); ++i) add_row(*grid, i);
}

void BindingsSheet::add_row(QGridLayout& grid, std::size_t row) {
  const int line = int(row) + 1;
  Row made{new QLabel(tr("Driving: %1").arg(tr(bindings_.rows()[row].text))), new QLabel, {}};
  for (const Slot slot : kSlots) {
    if (!bindings_.rows()[row].takes(slot)) continue;
    KeyButton* button = make_button(row, slot);
    made.buttons[static_cast<std::size_t>(slot)] = button;
    grid.addWidget(button, line, int(slot));
  }
  made.does->setBuddy(made.buttons[made.buttons[0] != nullptr ? 0 : 3]);
  made.conflict->setObjectName("conflict");
  made.conflict->setWordWrap(true);
  auto* words = new QHBoxLayout;
  words->setContentsMargins(6, 0, 0, 0);
  words->setSpacing(14);
  words->addWidget(made.does);
  words->addWidget(made.conflict, 1);
  grid.addLayout(words, line, kSlotCount);
  rows_.push_back(made);
}

KeyButton* BindingsSheet::make_button(std::size_t row, Slot slot) {
  KeyButton::Takes takes;
  if (is_key(slot)) takes.key = [this, row, slot](const QKeyEvent& event) { take_key(row, slot, event); };
  if (slot == Slot::Mouse)
    takes.mouse = [this, row, slot](Qt::MouseButton button) { bind(row, slot, int(button)); };
  takes.none = [this, row, slot] { bind(row, slot, 0); };
  takes.prompt = tr(words_of(slot).prompt);
  auto* button = new KeyButton(std::move(takes));
  button->setFixedWidth(kWidth);
  button->setAccessibleName(tr("Driving: %1").arg(tr(bindings_.rows()[row].text)) + tr(words_of(slot).suffix));
  return button;
}

void BindingsSheet::take_key(std::size_t row, Slot slot, const QKeyEvent& event) {
  const int key = key_at_place(event);
  if (key != 0) return bind(row, slot, key);
  refresh();
  emit refused(tr("That key has no place of its own here."));
}

void BindingsSheet::bind(std::size_t row, Slot slot, int code) {
  bindings_.set(row, slot, code);
  const QString path = path_of(bindings_.rows()[row], slot);
  bindings_.is_set(row, slot) ? preferences_.settings().setValue(path, code)
                              : preferences_.settings().remove(path);
  refresh();
  emit changed();
}

void BindingsSheet::take_pad(PadControl control) {
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    KeyButton* button = rows_[i].buttons[static_cast<std::size_t>(Slot::Pad)];
    if (!button->waits()) continue;
    button->taken();
    return bind(i, Slot::Pad, int(control));
  }
}

void BindingsSheet::refresh() {
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    for (const Slot slot : kSlots) {
      KeyButton* button = rows_[i].buttons[static_cast<std::size_t>(slot)];
      if (button == nullptr) continue;
      button->show_key(code_text(slot, bindings_.rows()[i].code(slot)));
    }
    rows_[i].conflict->setText(conflict_of(i));
  }
}

// What else has what this row has, and which of them does something.
QString BindingsSheet::conflict_of(std::size_t row) const {
  QStringList said;
  for (const Slot slot : kSlots) {
    const int code = bindings_.rows()[row].code(slot);
    const QString name = code_text(slot, code);
    for (const std::size_t other : bindings_.conflicts(row, slot))
      said += (other < row ? tr("! %1 is \u201c%2\u201d already, and does only that")
                           : tr("! %1 is \u201c%2\u201d too: it does only what this line says"))
                  .arg(name, tr(bindings_.rows()[other].text));
    if (!is_key(slot) || code == 0 || !bindings_.is_set(row, slot)) continue;
    for (const QAction* action : actions_.in_order())
      if (action->shortcut() == QKeySequence(code))
        said += tr("while driving, %1 is not \u201c%2\u201d").arg(name, action->text().remove("..."));
  }
  return said.join("; ");
}

QStringList BindingsSheet::conflicts() const {
  QStringList all;
  for (const Row& row : rows_)
    if (!row.conflict->text().isEmpty()) all += row.conflict->text();
  return all;
}

void BindingsSheet::filter(const QString& wanted) {
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    QString all = rows_[i].does->text() + " " + rows_[i].conflict->text();
    for (const Slot slot : kSlots) all += " " + code_text(slot, bindings_.rows()[i].code(slot));
    const bool fits = all.contains(wanted, Qt::CaseInsensitive);
    rows_[i].does->setVisible(fits);
    rows_[i].conflict->setVisible(fits);
    for (KeyButton* button : rows_[i].buttons)
      if (button != nullptr) button->setVisible(fits);
  }
}

void restore_bindings(Preferences& preferences, Bindings& bindings) {
  const QSettings& settings = preferences.settings();
  for (std::size_t i = 0; i < bindings.rows().size(); ++i) {
    for (const Slot slot : kSlots) {
      bool is_number = false;
      const int code = settings.value(path_of(bindings.rows()[i], slot)).toInt(&is_number);
      const bool is_known = slot != Slot::Pad || (code >= 0 && code < kPadControlCount);
      if (is_number && is_known && bindings.rows()[i].takes(slot)) bindings.set(i, slot, code);
    }
  }
}

}  // namespace lagniappe::app
