// SPDX-License-Identifier: GPL-3.0-or-later
// The card of a field or a zone: every key of its row, as its kind has them.
#pragma once

#include <QJsonObject>
#include <QWidget>
#include <functional>
#include <span>

#include "fields/row_choice.h"
#include "lagniappe/document_key.h"
#include "session/course_desk.h"

class QFormLayout;
class QLabel;

namespace lagniappe::app {

class RowCard : public QWidget {
  Q_OBJECT
 public:
  explicit RowCard(CourseDesk& desk, QWidget* parent = nullptr);

  // `gravity`: of the profile, m/s2, for what strengths come to.
  void show_row(const std::optional<RowChoice>& row, double gravity);
  void change(const QString& key, const QJsonValue& value, int gesture = 0);

 signals:
  void refused(const QString& title, const QString& why);

 private:
  // Where a key lies: in the row itself, or in its shape or its effect.
  using Path = QStringList;
  void build();
  void build_field();
  void build_zone();
  void add_keys(const Path& within, std::span<const DocumentKey> keys);
  void add_key(const Path& path, const DocumentKey& key);
  void add_numbers(const QString& label, const Path& path, const QString& unit, int count, const QString& help);
  void add_line(const QString& label, const Path& path, const QString& help, bool list);
  void add_choice(const QString& label, const QStringList& words, const QString& now, const QString& help,
                  const std::function<void(int)>& does);
  void add_row(const QString& label, QWidget* widget, const QString& help);
  void add_pieces();
  void put(const Path& path, const QJsonValue& value, int gesture = 0);
  void put_row(const QJsonObject& row, int gesture = 0);
  QJsonValue value_at(const Path& path) const;
  void show_values();

  CourseDesk& desk_;
  std::optional<RowChoice> shown_;
  QJsonObject row_;
  double gravity_ = 0.0;
  QByteArray form_;  // What the widgets were made for.
  QWidget* body_ = nullptr;
  QFormLayout* rows_ = nullptr;
  std::vector<std::function<void()>> show_;  // Puts the present values into the widgets.
};

// A row of another kind, as much alike as its keys allow; what it needs besides has some size.
QJsonObject of_kind(const QJsonObject& row, const DocumentKind& kind, std::span<const DocumentKind> kinds);
// A row to begin with, at a place.
QJsonObject new_field(const QString& name, const Vec3& at_C);
QJsonObject new_zone(const QString& name, const Vec3& at_C);

}  // namespace lagniappe::app
