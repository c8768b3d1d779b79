// SPDX-License-Identifier: GPL-3.0-or-later
#include "states/matrix_model.h"

#include <QPainter>
#include <QRegularExpression>
#include <QTextLayout>
#include <cmath>

#include "theme/state_colours.h"
#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kGuardPixels = 10, kMostLines = 3;
constexpr int kCountWidth = 14;  // Kept free for the number, in the last line.
constexpr std::size_t kMostLaidOut = 2000;
constexpr int kHeat = 110;  // Alpha of the cell that fired most.

QString guards_of(const StatesDesk& desk, const StateMatrix::Cell& cell) {
  QStringList guards;
  for (const std::size_t row : cell.rows) guards.append(qt(desk.table().transitions[row].guard).simplified());
  return guards.join("\n");
}

// Long names may be broken behind a dot or a stroke.
QString breakable(QString text) {
  static const QRegularExpression kJoint("(?<=[a-z])([._])(?=[a-z])");
  return text.replace(kJoint, "\\1\u200b");
}

// As many lines as fit, broken between words where that is possible; the last is narrower, and ends in dots if
// more would follow.
QStringList lines_of(const QString& text, const QFont& font, int width, int most, int last_width) {
  const QFontMetrics metrics(font);
  QStringList lines;
  for (const QString& paragraph : text.split('\n')) {
    QTextLayout layout(paragraph, font);
    QTextOption wrap;
    wrap.setWrapMode(QTextOption::WrapAtWordBoundaryOrAnywhere);
    layout.setTextOption(wrap);
    layout.beginLayout();
    for (QTextLine line = layout.createLine(); line.isValid(); line = layout.createLine()) {
      line.setLineWidth(width);
      lines.append(paragraph.mid(line.textStart(), line.textLength()).trimmed());
    }
    layout.endLayout();
  }
  if (lines.size() < most || (lines.size() == most && metrics.horizontalAdvance(lines.last()) <= last_width))
    return lines;
  const QString rest = lines.mid(most - 1).join(' ');
  lines = lines.mid(0, most - 1);
  lines.append(metrics.elidedText(rest, Qt::ElideRight, last_width));
  return lines;
}

}  // namespace

MatrixModel::MatrixModel(StatesDesk& desk, QObject* parent) : QAbstractTableModel(parent), desk_(desk) {
  connect(&desk_, &StatesDesk::table_changed, this, [this] {
    beginResetModel();
    endResetModel();
  });
  const auto look_anew = [this] {
    if (rowCount() > 0) emit dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
  };
  connect(&desk_, &StatesDesk::firings_changed, this, look_anew);
}

int MatrixModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : int(desk_.matrix().sources().size());
}

int MatrixModel::columnCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : int(desk_.matrix().columns());
}

QVariant MatrixModel::data(const QModelIndex& index, int role) const {
  const auto source = std::size_t(index.row()), column = std::size_t(index.column());
  if (!index.isValid() || source >= desk_.matrix().sources().size()) return {};
  if (role == Qt::DisplayRole) return guards_of(desk_, desk_.matrix().cell(source, column));
  if (role == Qt::ToolTipRole) return tip(source, column);
  return {};
}

QString MatrixModel::tip(std::size_t source, std::size_t column) const {
  const StateMatrix::Cell& cell = desk_.matrix().cell(source, column);
  const QString from = qt(desk_.matrix().sources()[source].name), to = qt(desk_.table().states[column].name);
  QString text = tr("<b>%1 to %2</b>").arg(from.toHtmlEscaped(), to.toHtmlEscaped());
  if (cell.rows.empty()) return text + tr("<br>No transition; Space adds one.");
  for (const std::size_t row : cell.rows) {
    const TransitionSpec& t = desk_.table().transitions[row];
    text += tr("<br><code>%1</code>").arg(qt(t.guard).toHtmlEscaped());
    if (!desk_.matrix().is_own(source, row)) text += tr("  from %1").arg(qt(t.from).toHtmlEscaped());
  }
  if (cell.shadowed) text += tr("<br>Never taken: another is asked before it and holds whenever it does.");
  if (desk_.subject() != nullptr)
    text += cell.fired == 1 ? tr("<br>Fired once.") : tr("<br>Fired %1 times.").arg(cell.fired);
  return text;
}

QVariant MatrixModel::headerData(int section, Qt::Orientation orientation, int role) const {
  if (role != Qt::DisplayRole || section < 0) return {};
  const auto at = std::size_t(section);
  if (orientation == Qt::Horizontal)
    return at < desk_.table().states.size() ? qt(desk_.table().states[at].name) : QString();
  const auto& sources = desk_.matrix().sources();
  return at < sources.size() ? qt(sources[at].name) : QString();
}

void MatrixDelegate::paint(QPainter* painter, const QStyleOptionViewItem& option,
                           const QModelIndex& index) const {
  const auto source = std::size_t(index.row()), column = std::size_t(index.column());
  const StateMatrix& matrix = desk_.matrix();
  if (source >= matrix.sources().size() || column >= matrix.columns()) return;
  const StateMatrix::Cell& cell = matrix.cell(source, column);
  const StateMatrix::Source& from = matrix.sources()[source];
  const QRect area = option.rect.adjusted(1, 1, -2, -2);
  painter->save();
  painter->setRenderHint(QPainter::Antialiasing);
  painter->setClipRect(option.rect);
  const bool empty = cell.rows.empty();
  if (empty) {
    if (cell.itself) painter->fillRect(area, QBrush(theme::rule(), Qt::BDiagPattern));
    painter->setPen(QPen(theme::rule(), 1, Qt::DotLine));
    painter->drawRect(area);
  } else {
    QColor heat = theme::gold();
    const double most = double(std::max<std::size_t>(matrix.most_fired(), 1));
    heat.setAlpha(
        cell.fired == 0 ? 0 : int(kHeat * std::min(1.0, std::log1p(double(cell.fired)) / std::log1p(most))));
    painter->setPen(QPen(theme::rule(), 1));
    painter->setBrush(theme::sheet());
    painter->drawRoundedRect(area, 3, 3);
    painter->setBrush(heat);
    painter->drawRoundedRect(area, 3, 3);
    if (cell.shadowed) painter->fillRect(area, QBrush(theme::brick(), Qt::FDiagPattern));
    paint_guards(*painter, area.adjusted(4, 1, -3, -1), cell);
    paint_count(*painter, area.adjusted(3, 2, -4, -1), cell);
  }
  const bool active = from.kind == StateMatrix::Source::Kind::State && desk_.subject() != nullptr &&
                      from.state == desk_.state_now();
  painter->setBrush(Qt::NoBrush);
  if (active) {
    QColor glow = theme::state_colour(from.state, matrix.chart());
    painter->setPen(QPen(glow, 2));
    painter->drawLine(option.rect.topLeft(), option.rect.topRight());
    painter->drawLine(option.rect.bottomLeft(), option.rect.bottomRight());
  }
  if (option.state & QStyle::State_Selected) {
    painter->setPen(QPen(theme::gold(), 2));
    painter->drawRoundedRect(area, 3, 3);
  }
  painter->restore();
}

// Laid out once for a text and its room.
const QStringList& MatrixDelegate::lines(const QString& text, const QFont& font, int width, int most) const {
  if (laid_out_.size() > kMostLaidOut) laid_out_.clear();
  QStringList& lines = laid_out_[{text, width, most, font.italic()}];
  if (lines.isEmpty()) lines = lines_of(breakable(text), font, width, most, width - kCountWidth);
  return lines;
}

// What a group hands down is paler and leans.
void MatrixDelegate::paint_guards(QPainter& painter, const QRect& area, const StateMatrix::Cell& cell) const {
  QFont font = theme::number_font(kGuardPixels);
  font.setItalic(cell.own == 0);
  painter.setFont(font);
  painter.setPen(cell.own == 0 ? theme::ink2() : theme::ink());
  const int height = QFontMetrics(font).height() - 2;
  const int most = std::clamp(area.height() / height, 1, kMostLines);
  int y = area.top();
  for (const QString& line : lines(guards_of(desk_, cell), font, area.width(), most)) {
    painter.drawText(QRect(area.left(), y, area.width(), height + 2), Qt::AlignLeft | Qt::AlignTop, line);
    y += height;
  }
}

void MatrixDelegate::paint_count(QPainter& painter, const QRect& area, const StateMatrix::Cell& cell) const {
  if (desk_.subject() == nullptr) return;
  const QFont font = theme::number_font(10);
  const QString text = QString::number(cell.fired);
  const QFontMetrics metrics(font);
  const QRect at(area.right() - metrics.horizontalAdvance(text) - 3, area.bottom() - metrics.height() + 2,
                 metrics.horizontalAdvance(text) + 5, metrics.height() - 1);
  painter.setPen(Qt::NoPen);
  painter.setBrush(cell.fired > 0 ? theme::teal() : theme::paper());
  painter.drawRoundedRect(at, 3, 3);
  painter.setFont(font);
  painter.setPen(cell.fired > 0 ? theme::sheet() : theme::brick());
  painter.drawText(at, Qt::AlignCenter, text);
}

}  // namespace lagniappe::app
