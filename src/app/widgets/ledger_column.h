// SPDX-License-Identifier: GPL-3.0-or-later
// The ledger of one tick as sentences: what was refused stands out. Pointing at a line points at its place in
// the view, and back.
#pragma once

#include <QStringList>
#include <QWidget>
#include <optional>

#include "lagniappe/ledger.h"

class QLabel;
class QListWidget;
class QToolButton;

namespace lagniappe::app {

class LedgerColumn : public QWidget {
  Q_OBJECT
 public:
  explicit LedgerColumn(QWidget* parent = nullptr);

  // `ledger` is that of the tick that led from `before` to `after`; it is empty before the first. `seconds`:
  // from the take's start.
  void show_tick(std::size_t tick, double seconds, const CharacterState& before, const CharacterState& after,
                 const Ledger& ledger, const World& world, std::string_view state);
  void show_nothing(const QString& why);

  // The chosen line, or none. Choosing from outside emits nothing.
  void choose(std::optional<std::size_t> entry);
  std::optional<std::size_t> chosen() const;

  // A piece and the ticks that touched it, told under the ledger; empty text: none.
  void show_piece(const QString& text);

  // The sentences as they are shown.
  QStringList sentences() const;
  QString heading() const;
  QString piece_text() const;

 signals:
  void pointed_at(std::optional<std::size_t> entry);  // By the mouse or the keyboard; none: no longer.
  void refusal_asked(std::size_t entry);              // What is behind a line that tells a refusal.
  void piece_asked(int direction);                    // The touch before (-1) or after (+1) the playhead.
  void piece_left();

 protected:
  void changeEvent(QEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void show_entries(const Ledger& ledger, const World& world);
  void add_velocity_row();
  QString text_to_copy(bool all) const;
  void show_menu(const QPoint& at);
  QWidget* make_piece_bar();

  QLabel *heading_, *summary_, *piece_;
  QListWidget* list_;
  QWidget* piece_bar_;
};

}  // namespace lagniappe::app
