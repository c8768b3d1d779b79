// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/settings_page.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDir>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QTemporaryFile>
#include <QVBoxLayout>

#include "pages/bindings_sheet.h"
#include "widgets/key_button.h"
#include "widgets/scrolled.h"

namespace lagniappe::app {
namespace {

constexpr int kNameWidth = 210, kFieldWidth = 190, kKeyWidth = 150;

// Under its own name: a shortcut may be none.
QString key_path(const QString& name) { return QString(Preferences::kKeys) + "/" + name; }

QLabel* heading(const QString& text) {
  auto* label = new QLabel(text);
  label->setObjectName("columnTitle");
  label->setContentsMargins(0, 8, 0, 0);
  return label;
}

QLabel* told(const QString& text) {
  auto* label = new QLabel(text);
  label->setObjectName("caption");
  label->setWordWrap(true);
  return label;
}

bool is_plain(const QKeySequence& keys) {
  return keys.count() == 1 && (keys[0].keyboardModifiers() & ~Qt::ShiftModifier) == Qt::NoModifier;
}

}  // namespace

SettingsPage::SettingsPage(Preferences& preferences, Actions& actions, Bindings& bindings, Doors doors,
                           QWidget* parent)
    : Page(parent),
      preferences_(preferences),
      actions_(actions),
      bindings_(bindings),
      doors_(std::move(doors)),
      filter_(new QLineEdit),
      sheet_(new BindingsSheet(preferences, actions, bindings)) {
  setObjectName("page");
  auto* content = new QWidget;
  content->setObjectName("cardList");
  auto* column = new QVBoxLayout(content);
  column->setContentsMargins(24, 18, 24, 18);
  column->setSpacing(8);
  add_preferences(column);
  add_keys(column);
  column->addStretch(1);
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->addWidget(scrolled(content));
}

void SettingsPage::come_up(ViewWidget&) {
  show_keys();
  filter_->setFocus(Qt::OtherFocusReason);
}

void SettingsPage::add_preferences(QVBoxLayout* column) {
  QString group;
  QGridLayout* grid = nullptr;
  for (const PrefRow& row : pref_rows()) {
    if (group != row.group) {
      group = row.group;
      column->addWidget(heading(tr(row.group)));
      grid = new QGridLayout;
      grid->setHorizontalSpacing(12);
      grid->setColumnMinimumWidth(0, kNameWidth);
      grid->setColumnStretch(2, 1);
      column->addLayout(grid);
    }
    QWidget* field = field_for(row);
    field->setObjectName(row.key);
    field->setAccessibleName(tr(row.name));
    field->setAccessibleDescription(tr(row.help));
    auto* name = new QLabel(tr(row.name));
    name->setBuddy(field);
    const int line = grid->rowCount();
    grid->addWidget(name, line, 0);
    grid->addWidget(field, line, 1);
    grid->addWidget(told(tr(row.help) + (row.at_start ? tr(". From the next start on") : QString())), line, 2);
  }
}

QWidget* SettingsPage::field_for(const PrefRow& row) {
  using Kind = PrefRow::Kind;
  if (row.kind == Kind::Folder) return folder_field(row);
  if (row.kind == Kind::Choice) return choice_field(row);
  if (row.kind == Kind::Number) return number_field(row);
  auto* box = new QCheckBox;
  box->setChecked(preferences_.is_on(row.pref));
  connect(box, &QCheckBox::toggled, this, [this, pref = row.pref](bool on) { preferences_.set(pref, on); });
  return box;
}

QWidget* SettingsPage::number_field(const PrefRow& row) {
  auto* box = new QDoubleSpinBox;
  box->setRange(row.low, row.high);
  box->setDecimals(row.low < 1.0 ? 2 : 0);
  box->setSingleStep(row.low < 1.0 ? 0.1 : 1.0);
  box->setSuffix(QString(" ") + QString::fromUtf8(row.unit));
  box->setValue(preferences_.number(row.pref));
  box->setFixedWidth(kFieldWidth);
  box->setKeyboardTracking(false);
  box->setButtonSymbols(QAbstractSpinBox::NoButtons);
  connect(box, &QDoubleSpinBox::valueChanged, this,
          [this, pref = row.pref](double value) { preferences_.set(pref, value); });
  return box;
}

QWidget* SettingsPage::choice_field(const PrefRow& row) {
  auto* box = new QComboBox;
  for (const PrefRow::Word& word : row.words) box->addItem(tr(word.text), word.value);
  const auto show = [this, box, pref = row.pref] {
    box->setCurrentIndex(std::max(box->findData(preferences_.number(pref)), 0));
  };
  show();
  box->setFixedWidth(kFieldWidth);
  connect(box, &QComboBox::activated, this, [this, box, pref = row.pref, first = row.initial](int index) {
    const double value = box->itemData(index).toDouble();
    value == first ? preferences_.set_back(pref) : preferences_.set(pref, value);
  });
  connect(&preferences_, &Preferences::changed, box, show);  // It may be changed elsewhere too.
  return box;
}

QWidget* SettingsPage::folder_field(const PrefRow& row) {
  auto* field = new QLineEdit(preferences_.text(row.pref));
  field->setAccessibleName(tr(row.name));
  auto* choose = new QPushButton(tr("Choose…"));
  auto* box = new QWidget;
  box->setFocusProxy(field);
  box->setFixedWidth(kFieldWidth);
  auto* line = new QVBoxLayout(box);
  line->setContentsMargins(0, 0, 0, 0);
  line->addWidget(field);
  line->addWidget(choose);
  connect(field, &QLineEdit::editingFinished, this,
          [this, field, pref = row.pref] { take_folder(pref, *field); });
  connect(choose, &QPushButton::clicked, this, [this, field, pref = row.pref] {
    const QString folder = doors_.ask_for_folder ? doors_.ask_for_folder(this, tr("Study")) : QString();
    if (folder.isEmpty()) return;
    field->setText(folder);
    take_folder(pref, *field);
  });
  return box;
}

// A folder that cannot be written would lose takes: it is tried first.
void SettingsPage::take_folder(Pref pref, QLineEdit& field) {
  const QString folder = field.text().trimmed(), now = preferences_.text(pref);
  if (folder == now) return;
  if (folder.isEmpty()) {
    preferences_.set_back(pref);
    return field.setText(preferences_.text(pref));
  }
  QTemporaryFile probe(folder + "/.lagniappe-XXXXXX");
  if (QDir::isAbsolutePath(folder) && QDir().mkpath(folder) && probe.open())
    return preferences_.set(pref, folder);
  field.setText(now);
  emit problem(tr("The study stays in %1").arg(now),
               tr("\u201c%1\u201d: it must be a folder with its whole path, that can be written.").arg(folder));
}

void SettingsPage::add_keys(QVBoxLayout* column) {
  column->addWidget(heading(tr("Keys")));
  column->addWidget(told(
      tr("Click one, then press another: a key, a mouse button, a control of a pad. Esc leaves it, Backspace "
         "takes away what drives. Keys that drive are places on the keyboard, whatever letters the layout "
         "has there.")));
  filter_->setPlaceholderText(tr("Find a key or what it does"));
  filter_->setClearButtonEnabled(true);
  filter_->setObjectName("keyFilter");
  filter_->setAccessibleName(filter_->placeholderText());
  auto* all = new QPushButton(tr("All keys as they were at first"));
  all->setObjectName("allKeysBack");
  auto* head = new QHBoxLayout;
  head->addWidget(filter_, 1);
  head->addWidget(all);
  column->addLayout(head);
  column->addWidget(sheet_);
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(12);
  grid->setVerticalSpacing(3);
  grid->setColumnMinimumWidth(0, kKeyWidth);
  grid->setColumnStretch(1, 1);
  column->addLayout(grid);
  for (const ActRow& row : act_rows())
    add_key(
        grid, row.text, tr("%1: %2").arg(tr(row.menu), QString(tr(row.text)).remove("...")),
        [this, act = row.act] { return actions_.key_text(act); },
        [this, &row](const QKeyEvent& event) { return take_shortcut(row, event); },
        [this, act = row.act] { actions_.set_key_back(act); });
  connect(filter_, &QLineEdit::textChanged, this, &SettingsPage::filter_keys);
  connect(sheet_, &BindingsSheet::changed, this, &SettingsPage::keys_changed);
  connect(sheet_, &BindingsSheet::refused, this,
          [this](const QString& why) { emit problem(tr("The key stays as it was"), why); });
  connect(all, &QPushButton::clicked, this, [this] {
    preferences_.settings().remove(Preferences::kKeys);
    bindings_.set_back();
    for (const KeyRow& key : keys_) key.set_back();
    show_keys();
    emit keys_changed();
  });
}

void SettingsPage::add_key(QGridLayout* grid, const QString& name, const QString& text,
                           std::function<QString()> now, std::function<QString(const QKeyEvent&)> take,
                           std::function<void()> set_back) {
  auto* button = new KeyButton([this, take](const QKeyEvent& event) {
    const QString taken = take(event);
    if (!taken.isEmpty()) emit problem(tr("The key stays as it was"), taken);
    show_keys();
    emit keys_changed();
  });
  auto* label = new QLabel(text);
  label->setBuddy(button);
  button->setAccessibleName(text);
  button->setFixedWidth(kKeyWidth);
  const int line = grid->rowCount();
  grid->addWidget(button, line, 0);
  grid->addWidget(label, line, 1);
  keys_.push_back({name, label, button, button, std::move(now), std::move(set_back)});
}

// Returns why it is not taken, or nothing.
QString SettingsPage::take_shortcut(const ActRow& row, const QKeyEvent& event) {
  const QKeySequence keys(event.keyCombination());
  if (keys == QKeySequence(Qt::Key_Backspace) || keys == QKeySequence(Qt::Key_Tab))
    return tr("%1 is for what edits text, and for going round.").arg(keys.toString(QKeySequence::NativeText));
  for (const Binding& row_of_it : bindings_.rows()) {
    const int pressed = keys[0].key();
    if (is_plain(keys) && (row_of_it.code(Slot::Key) == pressed || row_of_it.code(Slot::OtherKey) == pressed))
      return tr("%1 drives: \u201c%2\u201d.").arg(keys.toString(QKeySequence::NativeText), tr(row_of_it.text));
  }
  const QString whose = actions_.set_key(row.act, keys.toString());
  if (!whose.isEmpty())
    return tr("%1 is for \u201c%2\u201d.").arg(keys.toString(QKeySequence::NativeText), whose);
  preferences_.settings().setValue(key_path(row.text), keys.toString());
  return {};
}

void SettingsPage::show_keys() {
  for (const KeyRow& key : keys_) key.button->show_key(key.now());
  sheet_->refresh();
}

void SettingsPage::filter_keys(const QString& wanted) {
  sheet_->filter(wanted.trimmed());
  for (const KeyRow& key : keys_) {
    const QString all = static_cast<QLabel*>(key.label)->text() + " " + key.now();
    const bool fits = all.contains(wanted.trimmed(), Qt::CaseInsensitive);
    key.label->setVisible(fits);
    key.line->setVisible(fits);
  }
}

void restore_keys(Preferences& preferences, Actions& actions, Bindings& bindings) {
  restore_bindings(preferences, bindings);
  for (const ActRow& row : act_rows()) {
    const QString keys = preferences.settings().value(key_path(row.text)).toString();
    if (!keys.isEmpty()) actions.restore_key(row.act, keys);
  }
}

}  // namespace lagniappe::app
