// SPDX-License-Identifier: GPL-3.0-or-later
#include "widgets/velocity_row.h"

#include <QListWidget>
#include <QPainter>
#include <cmath>

#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kRows = Qt::UserRole + 1;  // QList<QStringList>: a name, and three numbers.
constexpr int kPixels = 11, kLine = 16, kLeft = 6, kAbove = 5;
constexpr int kColumn = 54, kLeastName = 70;  // Pixels.

QList<QStringList> rows_of(const QVariant& data) { return data.value<QList<QStringList>>(); }

}  // namespace

void VelocityRow::paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const {
  const auto rows = rows_of(index.data(kRows));
  if (rows.isEmpty()) return QStyledItemDelegate::paint(painter, option, index);
  painter->save();
  painter->setPen(theme::ink2());
  const QFont text = theme::text_font(kPixels), numbers = theme::number_font(kPixels);
  const int name = std::max(kLeastName, option.rect.width() - 3 * kColumn - 3 * kLeft);
  QRect line(option.rect.left() + kLeft, option.rect.top() + kAbove, option.rect.width() - kLeft, kLine);
  for (const QStringList& row : rows) {
    painter->setFont(&row == &rows.front() ? theme::text_font(kPixels, true) : text);
    painter->drawText(QRect(line.topLeft(), QSize(name, kLine)), Qt::AlignVCenter, row[0]);
    painter->setFont(numbers);
    for (int i = 1; i < row.size(); ++i)
      painter->drawText(QRect(line.left() + name + (i - 1) * kColumn, line.top(), kColumn, kLine),
                        Qt::AlignVCenter | Qt::AlignRight, row[i]);
    line.translate(0, kLine);
  }
  painter->restore();
}

QSize VelocityRow::sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const {
  const auto rows = rows_of(index.data(kRows)).size();
  if (rows == 0) return QStyledItemDelegate::sizeHint(option, index);
  return {kLeastName + 3 * kColumn, int(rows) * kLine + 2 * kAbove};
}

void show_velocity(QListWidgetItem& item, const Vec3& before_C, const Vec3& after_C, const Ledger& ledger,
                   double least) {
  QList<QStringList> rows{{VelocityRow::tr("m/s in the course"), "x", "y", "z"}};
  const auto add = [&](const QString& what, const Vec3& v) {
    QStringList row{what};
    for (const double x : {v.x, v.y, v.z}) row += QString::number(std::abs(x) < least ? 0.0 : x, 'f', 2);
    rows += row;
  };
  add(VelocityRow::tr("before"), before_C);
  for (const VelocityPart& part : velocity_parts(ledger)) {
    if (length(part.change_C) >= least) add("+ " + qt(part.cause), part.change_C);
  }
  add(VelocityRow::tr("after"), after_C);
  item.setData(kRows, QVariant::fromValue(rows));
  item.setData(Qt::AccessibleTextRole, velocity_text(item));
}

QString velocity_text(const QListWidgetItem& item) {
  QStringList lines;
  for (const QStringList& row : rows_of(item.data(kRows)))
    lines += row[0] + " (" + QStringList(row.mid(1)).join(", ") + ")";
  return lines.join("\n");
}

}  // namespace lagniappe::app
