// SPDX-License-Identifier: GPL-3.0-or-later
#include "states/matrix_view.h"

#include <QKeyEvent>
#include <QPainter>

#include "theme/state_colours.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kNames = 84, kTop = 26;              // Pixels of the headers.
constexpr int kLeastWidth = 46, kMostWidth = 118;  // Of a cell.
constexpr int kLeastHeight = 26, kMostHeight = 52;

}  // namespace

StateHeader::StateHeader(StatesDesk& desk, Qt::Orientation orientation, QWidget* parent)
    : QHeaderView(orientation, parent), desk_(desk) {
  setSectionsClickable(true);
  setSectionResizeMode(QHeaderView::Fixed);
  setHighlightSections(false);
  setMinimumSectionSize(20);
  if (orientation == Qt::Vertical) setSectionsMovable(true);
  connect(this, &QHeaderView::sectionMoved, this, &StateHeader::section_moved);
}

std::optional<StateId> StateHeader::state_of(int section) const {
  const auto at = std::size_t(section);
  if (orientation() == Qt::Horizontal)
    return at < desk_.chart().size() ? std::optional(StateId(at)) : std::nullopt;
  const auto& sources = desk_.matrix().sources();
  const bool state = at < sources.size() && sources[at].kind == StateMatrix::Source::Kind::State;
  return state ? std::optional(sources[at].state) : std::nullopt;
}

// The order is the table's: what was dragged is put back, and the table is asked to change.
void StateHeader::section_moved(int section, int, int to) {
  if (putting_back_) return;
  putting_back_ = true;
  const int from = section;
  moveSection(to, from);
  putting_back_ = false;
  const auto moved = state_of(from), onto = state_of(to);
  if (moved && onto) emit state_moved(std::size_t(*moved), std::size_t(*onto));
}

void StateHeader::paintSection(QPainter* painter, const QRect& rect, int section) const {
  const auto state = state_of(section);
  const QString text = model()->headerData(section, orientation(), Qt::DisplayRole).toString();
  const QRect area = rect.adjusted(1, 1, -2, -2);
  painter->save();
  painter->setRenderHint(QPainter::Antialiasing);
  const QColor colour = state ? theme::state_colour(*state, desk_.chart()) : theme::paper();
  painter->setPen(state ? QPen(Qt::NoPen) : QPen(theme::ink2(), 1, Qt::DashLine));
  painter->setBrush(colour);
  painter->drawRoundedRect(area, 3, 3);
  QFont font = theme::text_font(11, state.has_value());
  font.setItalic(!state);
  painter->setFont(font);
  painter->setPen(state ? theme::ink_on(colour) : theme::ink());
  const bool now =
      state && orientation() == Qt::Vertical && desk_.subject() != nullptr && *state == desk_.state_now();
  const QRect inside = area.adjusted(now ? 16 : 6, 0, -3, 0);
  painter->drawText(inside, Qt::AlignVCenter | Qt::AlignLeft,
                    QFontMetrics(font).elidedText(text, Qt::ElideRight, inside.width()));
  if (now) {
    // Where the playhead is: a mark, and the row's frame.
    const QPointF tip(area.left() + 12.5, area.center().y() + 0.5);
    painter->setPen(Qt::NoPen);
    painter->setBrush(theme::ink_on(colour));
    painter->drawPolygon(QPolygonF({tip, tip + QPointF(-7, -5), tip + QPointF(-7, 5)}));
    painter->setBrush(Qt::NoBrush);
    painter->setPen(QPen(theme::gold(), 2.5));
    painter->drawRoundedRect(area.adjusted(1, 1, -1, -1), 3, 3);
  }
  painter->restore();
}

MatrixView::MatrixView(StatesDesk& desk, QWidget* parent) : QTableView(parent), desk_(desk) {
  setObjectName("matrix");
  setAccessibleName(tr("Table of states"));
  auto* across = new StateHeader(desk, Qt::Horizontal, this);
  auto* down = new StateHeader(desk, Qt::Vertical, this);
  setHorizontalHeader(across);
  setVerticalHeader(down);
  setModel(new MatrixModel(desk, this));
  setItemDelegate(new MatrixDelegate(desk, this));
  setShowGrid(false);
  setSelectionMode(QAbstractItemView::SingleSelection);
  setEditTriggers(QAbstractItemView::NoEditTriggers);
  setCornerButtonEnabled(false);
  setHorizontalScrollMode(QAbstractItemView::ScrollPerPixel);
  setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  setFrameShape(QFrame::NoFrame);
  setTabKeyNavigation(false);
  down->setFixedWidth(kNames);
  across->setFixedHeight(kTop);
  across->setToolTip(tr("A click shows the state"));
  down->setToolTip(tr("A click shows the state; drag it to another place in the table"));
  connect(down, &StateHeader::state_moved, this, &MatrixView::state_moved);
  connect(down, &QHeaderView::sectionClicked, this, [this](int section) {
    const auto& source = desk_.matrix().sources()[std::size_t(section)];
    if (source.kind == StateMatrix::Source::Kind::State) emit state_asked(source.state);
  });
  connect(across, &QHeaderView::sectionClicked, this,
          [this](int section) { emit state_asked(StateId(section)); });
  connect(&desk_, &StatesDesk::table_changed, this, [this] {
    shown_now_.reset();
    fit();
    show_chosen();
  });
  connect(&desk_, &StatesDesk::chosen_changed, this, &MatrixView::show_chosen);
  connect(&desk_, &StatesDesk::moved, this, &MatrixView::show_now);
  fit();
}

QRect MatrixView::cell_rect(std::size_t source, std::size_t column) const {
  return visualRect(model()->index(int(source), int(column)));
}

// All of it where there is room; else it scrolls.
void MatrixView::fit() {
  const int columns = std::max(model()->columnCount(), 1), rows = std::max(model()->rowCount(), 1);
  horizontalHeader()->setDefaultSectionSize(
      std::clamp((width() - kNames - 4) / columns, kLeastWidth, kMostWidth));
  verticalHeader()->setDefaultSectionSize(std::clamp((height() - kTop - 4) / rows, kLeastHeight, kMostHeight));
}

// Only the rows that begin or end to be the present state's look different.
void MatrixView::show_now() {
  const auto now = desk_.subject() == nullptr ? std::nullopt : std::optional(desk_.state_now());
  if (now == shown_now_) return;
  const auto& sources = desk_.matrix().sources();
  for (std::size_t row = 0; row < sources.size(); ++row) {
    const StateMatrix::Source& source = sources[row];
    if (source.kind != StateMatrix::Source::Kind::State) continue;
    if (source.state != now && source.state != shown_now_) continue;
    const int y = rowViewportPosition(int(row)), height = rowHeight(int(row));
    viewport()->update(0, y, viewport()->width(), height);
    verticalHeader()->viewport()->update(0, y, verticalHeader()->width(), height);
  }
  shown_now_ = now;
}

void MatrixView::resizeEvent(QResizeEvent* event) {
  fit();
  QTableView::resizeEvent(event);
}

void MatrixView::show_chosen() {
  showing_ = true;
  const auto& cell = desk_.chosen();
  setCurrentIndex(cell ? model()->index(int(cell->source), int(cell->column)) : QModelIndex());
  showing_ = false;
}

void MatrixView::currentChanged(const QModelIndex& current, const QModelIndex& previous) {
  QTableView::currentChanged(current, previous);
  if (showing_ || !current.isValid()) return;
  desk_.choose(CellPlace{std::size_t(current.row()), std::size_t(current.column())});
}

void MatrixView::mouseDoubleClickEvent(QMouseEvent* event) {
  QTableView::mouseDoubleClickEvent(event);
  if (indexAt(event->pos()).isValid()) emit edit_asked();
}

// Moves states, though the window may have another use for it.
bool MatrixView::event(QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride) {
    const auto* key = static_cast<QKeyEvent*>(event);
    const bool moves = key->key() == Qt::Key_Up || key->key() == Qt::Key_Down;
    if (moves && key->modifiers() & Qt::ControlModifier) event->accept();
  }
  return QTableView::event(event);
}

void MatrixView::keyPressEvent(QKeyEvent* event) {
  const bool control = event->modifiers() & Qt::ControlModifier;
  if (event->key() == Qt::Key_Space) return emit edit_asked();
  if (event->key() == Qt::Key_Delete) return emit remove_asked();
  if (control && (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) && desk_.chosen()) {
    const auto& source = desk_.matrix().sources()[desk_.chosen()->source];
    const std::size_t from = std::size_t(source.state), last = desk_.chart().size() - 1;
    const bool up = event->key() == Qt::Key_Up;
    if (source.kind != StateMatrix::Source::Kind::State || (up ? from == 0 : from == last)) return;
    return emit state_moved(from, up ? from - 1 : from + 1);
  }
  QTableView::keyPressEvent(event);
}

}  // namespace lagniappe::app
