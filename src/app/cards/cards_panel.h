// SPDX-License-Identifier: GPL-3.0-or-later
// All cards in a column, with what is done to the profile as a whole above them.
#pragma once

#include <QWidget>
#include <vector>

#include "cards/drawings.h"
#include "session/handling_desk.h"

class QLabel;
class QLineEdit;
class QPushButton;
class QScrollArea;
class QSettings;
class QVBoxLayout;

namespace lagniappe::app {

class Card;

class CardsPanel : public QWidget {
  Q_OBJECT
 public:
  CardsPanel(HandlingDesk& desk, DriveSession& session, QSettings& settings, QWidget* parent = nullptr);
  ~CardsPanel() override;

  void find_value();  // Puts the keyboard into the search.
  // Unfolds the value's card and scrolls to it; the keyboard goes to its row, which has one but for curves.
  void show_value(const std::string& path);
  // The same, with what is to be said of it beside it, see ValueRow::say().
  void say_of_value(const std::string& path, const QString& text, const QString& enough);
  Card* card(const QString& id) const;
  void bring_up(const QString& id);  // Unfolds the card and scrolls to it.

 signals:
  void save_asked();
  void menu_asked(const QPoint& global);

 private:
  QWidget* make_head();
  void show_all();
  void tear(Card* card);
  void put_back(Card* card);
  void keep_folds();

  HandlingDesk& desk_;
  QSettings& settings_;
  JumpLocks locks_;
  QLineEdit* search_;
  QLabel *state_, *nothing_;
  QPushButton* save_;
  QScrollArea* area_;
  QVBoxLayout* column_;
  std::vector<Card*> cards_;
};

}  // namespace lagniappe::app
