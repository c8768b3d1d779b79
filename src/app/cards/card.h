// SPDX-License-Identifier: GPL-3.0-or-later
// A card: drawings, values, and the figures that they come to. It can be folded, and torn off into a window of
// its own.
#pragma once

#include <QFrame>
#include <vector>

#include "cards/card_specs.h"
#include "session/drive_session.h"
#include "session/values_desk.h"

class QGridLayout;
class QLabel;
class QToolButton;

namespace lagniappe::app {

class AirJumpsRow;
class DrawingView;
class JumpLocksRow;
class ValueRow;

class Card : public QFrame {
  Q_OBJECT
 public:
  Card(const CardSpec& spec, JumpLocks& locks, ValuesDesk& desk, DriveSession& session,
       QWidget* parent = nullptr);

  QString title() const { return tr(spec_.title); }
  const char* id() const { return spec_.id; }
  void set_folded(bool folded);
  bool folded() const { return folded_; }
  void set_torn_off(bool torn);  // Only how its button looks.

  // Shows the values that fit the words, and unfolds; empty: all. Returns whether any fit.
  bool search(const QString& words);
  void show_profiles();

  const std::vector<DrawingView*>& drawings() const { return drawings_; }
  const std::vector<ValueRow*>& rows() const { return rows_; }

 signals:
  void folded_changed();
  void tear_off_asked();

 private:
  QWidget* make_header();
  void show_rows();
  void show_figures();

  const CardSpec& spec_;
  ValuesDesk& desk_;
  DriveSession& session_;
  QToolButton *fold_, *tear_;
  QLabel* count_;
  QWidget* content_;
  QGridLayout* figures_;
  std::vector<DrawingView*> drawings_;
  std::vector<ValueRow*> rows_;
  JumpLocksRow* jump_ = nullptr;
  AirJumpsRow* air_jumps_ = nullptr;
  QString words_;
  bool folded_ = false;
};

}  // namespace lagniappe::app
