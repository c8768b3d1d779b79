// SPDX-License-Identifier: GPL-3.0-or-later
// Finds by a few letters (Ctrl+K): any action, and whatever else has a name.
#pragma once

#include <QFrame>
#include <QIcon>
#include <functional>
#include <vector>

class QAction;
class QLineEdit;
class QListWidget;

namespace lagniappe::app {

struct SearchEntry {
  QString name;
  QString kind;         // "value", "mark"; empty for what is done.
  QString about;        // More words that it is found by.
  QString where = {};   // Where one finds it otherwise: a menu, a card.
  QString beside = {};  // Shown behind the name: its keys, or whether it is on.
  QIcon icon = {};
  bool enabled = true;
  std::function<void()> go;
};

SearchEntry entry_of(QAction& action);

class CommandSearch : public QFrame {
  Q_OBJECT
 public:
  // `entries` is asked whenever the search opens: what can be done may have changed.
  CommandSearch(std::function<std::vector<SearchEntry>()> entries, QWidget* parent);

  void open();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void fill(const QString& wanted);
  void add(const SearchEntry& entry);
  void run_current();

  std::function<std::vector<SearchEntry>()> entries_of_;
  std::vector<SearchEntry> entries_;
  std::vector<const SearchEntry*> found_;
  QLineEdit* field_;
  QListWidget* list_;
};

}  // namespace lagniappe::app
