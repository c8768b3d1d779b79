// SPDX-License-Identifier: GPL-3.0-or-later
// What a person prefers, on one page: the rows of Preferences, then all keys.
#pragma once

#include <vector>

#include "devices/bindings.h"
#include "doors.h"
#include "pages/page.h"
#include "session/preferences.h"

class QGridLayout;
class QLabel;
class QLineEdit;
class QVBoxLayout;

namespace lagniappe::app {

class BindingsSheet;
class KeyButton;

class SettingsPage : public Page {
  Q_OBJECT
 public:
  SettingsPage(Preferences& preferences, Actions& actions, Bindings& bindings, Doors doors,
               QWidget* parent = nullptr);

  Act act() const override { return Act::SettingsPage; }
  QString name() const override { return tr("Settings"); }
  void come_up(ViewWidget& view) override;
  BindingsSheet& bindings_sheet() { return *sheet_; }

 signals:
  void problem(const QString& title, const QString& sentence);
  void keys_changed();

 private:
  struct KeyRow {
    QString name;  // In the settings file, and what is searched.
    QWidget *label, *line;
    KeyButton* button;
    std::function<QString()> now;
    std::function<void()> set_back;
  };
  void add_preferences(QVBoxLayout* column);
  QWidget* field_for(const PrefRow& row);
  QWidget* number_field(const PrefRow& row);
  QWidget* choice_field(const PrefRow& row);
  QWidget* folder_field(const PrefRow& row);
  void take_folder(Pref pref, QLineEdit& field);
  void add_keys(QVBoxLayout* column);
  void add_key(QGridLayout* grid, const QString& name, const QString& text, std::function<QString()> now,
               std::function<QString(const QKeyEvent&)> take, std::function<void()> set_back);
  QString take_shortcut(const ActRow& row, const QKeyEvent& event);
  void show_keys();
  void filter_keys(const QString& wanted);

  Preferences& preferences_;
  Actions& actions_;
  Bindings& bindings_;
  Doors doors_;
  QLineEdit* filter_;
  BindingsSheet* sheet_;
  std::vector<KeyRow> keys_;
};

// Brings back the keys that were chosen.
void restore_keys(Preferences& preferences, Actions& actions, Bindings& bindings);

}  // namespace lagniappe::app
