// SPDX-License-Identifier: GPL-3.0-or-later
// Two profiles side by side, beside the view: what differs as a table, their drawings over each other, and a
// slider between them. Esc closes it; whether a blend is kept is asked.
#pragma once

#include <QWidget>
#include <vector>

#include "session/handling_desk.h"

class QComboBox;
class QLabel;
class QSlider;
class QTableWidget;

namespace lagniappe::app {

class DrawingView;
struct CardSpec;

class ComparePane : public QWidget {
  Q_OBJECT
 public:
  explicit ComparePane(HandlingDesk& desk, QWidget* parent = nullptr);

  // Adds a profile to choose from; add() also chooses it as the second.
  void offer(const QString& name, const Profile& profile);
  void add(const QString& name, const Profile& profile);
  // Asks first, where a blend would be lost or kept unnoticed.
  void close_pane();

 signals:
  void open_asked();  // A profile from a file, to compare with.
  void closed();

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  struct Choice {
    QString name;
    Profile profile;
  };
  struct Drawn {  // Shown where something on its card differs.
    const CardSpec* card;
    QLabel* title;
    DrawingView* drawing;
  };
  QWidget* make_question();
  bool is_blended() const;
  void end(bool keep);
  QLayout* make_choosing();
  QWidget* make_drawings();
  QLayout* make_blending();
  void set_up_table();
  void fill_choices();
  void show_both();
  void blend(int share);
  const Profile& first() const;
  const Profile& second() const;

  HandlingDesk& desk_;
  std::vector<Choice> choices_, opened_;
  QComboBox *first_, *second_;
  QTableWidget* table_;
  QLabel *said_, *blended_, *asked_;
  QWidget* question_;
  QSlider* slider_;
  std::vector<Drawn> drawings_;
  int gesture_ = 0;
};

}  // namespace lagniappe::app
