// SPDX-License-Identifier: GPL-3.0-or-later
// All that stops and asks: it goes through here, so that tests can answer in the user's place.
#pragma once

#include <QString>
#include <QStringList>
#include <functional>

class QWidget;

namespace lagniappe::app {

struct Doors {
  // Asks for a file; empty if none was chosen.
  std::function<QString(QWidget*, const QString& title, const QString& filter)> ask_for_file;
  // Asks where to write one.
  std::function<QString(QWidget*, const QString& title, const QString& filter, const QString& suggested)>
      ask_where_to_save;
  // What to do about takes that are in memory only, when the window closes.
  enum class Unsaved { TryAgain, Elsewhere, Lose, Stay };
  std::function<Unsaved(QWidget*, const QStringList& names)> ask_about_unsaved = {};
  std::function<QString(QWidget*, const QString& title)> ask_for_folder = {};
};

// The dialogs that people see.
Doors real_doors();

}  // namespace lagniappe::app
