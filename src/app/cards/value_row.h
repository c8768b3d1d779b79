// SPDX-License-Identifier: GPL-3.0-or-later
// A value of the profile in a card: its name, what is typed, its scale, and what differs.
#pragma once

#include <QWidget>
#include <functional>

#include "lagniappe/profile_fields.h"
#include "session/values_desk.h"

class QComboBox;
class QHBoxLayout;
class QLabel;

namespace lagniappe::app {

class ScaleStrip;
class ValueField;

class ValueRow : public QWidget {
  Q_OBJECT
 public:
  ValueRow(const std::string& path, ValuesDesk& desk, QWidget* parent = nullptr);

  const std::string& path() const { return path_; }
  void lead_with(QWidget* button);  // Before the name.
  // Numbers go there instead of to the desk.
  void assign_by(std::function<void(double value, int gesture)> assign) { assign_ = std::move(assign); }
  void take_focus();
  // A word about the value, and what it would have to be, until it is changed.
  void say(const QString& text, const QString& enough);
  QString said() const;
  void show_profiles(const Profile& now, const Profile& reference);
  bool differs() const { return differs_; }
  bool fits(const QString& search) const;

 protected:
  bool event(QEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void say_no_more();
  void make_number(QHBoxLayout* line);
  void make_choice(QHBoxLayout* line);
  void show_menu(const QPoint& at);
  void assign(const QString& text, int gesture = 0);
  void assign_number(double value, int gesture = 0);
  void slide(double value, int gesture);
  void nudge(double value, int gesture);
  QString tip(const Profile& now, const Profile& reference) const;

  std::string path_;
  ValuesDesk& desk_;
  const ProfileField* field_;
  const ProfileChoice* choice_;
  std::function<void(double, int)> assign_;
  QLabel *name_, *mark_;
  ValueField* number_ = nullptr;
  ScaleStrip* scale_ = nullptr;
  QComboBox* words_ = nullptr;
  QWidget* said_ = nullptr;
  QLabel* said_text_ = nullptr;
  std::string said_of_;  // The value then.
  int gesture_ = 0;
  bool differs_ = false, showing_ = false, shown_ = false;
};

// "ground.response.stop_time" within "ground.response" is "stop time"; elsewhere all of it.
QString value_name(const std::string& path);

}  // namespace lagniappe::app
