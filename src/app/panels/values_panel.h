// SPDX-License-Identifier: GPL-3.0-or-later
// Every number and choice of the profile, to be changed while the shown take is run again.
#pragma once

#include <QWidget>
#include <functional>

#include "session/take_desk.h"

class QGridLayout;
class QLabel;
class QLineEdit;

namespace lagniappe::app {

class ValuesPanel : public QWidget {
  Q_OBJECT
 public:
  ValuesPanel(TakeDesk& desk, DriveSession& session, QWidget* parent = nullptr);

 private:
  struct Row {
    QString name;
    std::vector<QWidget*> widgets;
    std::function<void(const Profile&)> show;  // Sets the editor.
    std::function<bool(const Profile&, const Profile&)> differs;
    QLabel* label;
  };
  void add_field(QGridLayout& grid, const ProfileField& field);
  void add_choice(QGridLayout& grid, const ProfileChoice& choice);
  void add_row(QGridLayout& grid, Row row, QWidget* editor);
  void assign(const QString& name, std::string_view section, std::string_view key, const QString& text);
  void show_values();
  void filter(const QString& text);

  TakeDesk& desk_;
  DriveSession& session_;
  std::vector<Row> rows_;
  QLineEdit* filter_;
  bool showing_ = false;
};

}  // namespace lagniappe::app
