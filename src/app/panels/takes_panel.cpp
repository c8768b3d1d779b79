// SPDX-License-Identifier: GPL-3.0-or-later
#include "panels/takes_panel.h"

#include <QAction>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QPushButton>
#include <QStyledItemDelegate>
#include <QToolButton>
#include <QVBoxLayout>
#include <utility>

#include "session/take_names.h"
#include "theme/plain_tip.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kRow = 46, kHeadingRow = 24, kPicture = 42;
enum Role { kFile = Qt::UserRole, kPath, kStar, kSub, kShown, kHeading, kName };

QVariantList points_of(const std::vector<Vec2>& path) {
  QVariantList list;
  for (const Vec2& p : path) list.append(QPointF(p.x, p.y));
  return list;
}

// A take's way, seen from above, with a dot where it ends.
void paint_way(QPainter& painter, const QRectF& r, const QVariantList& points) {
  QPolygonF way;
  for (const QVariant& p : points) way.append(p.toPointF());
  if (way.isEmpty()) return;
  const QRectF box = way.boundingRect();
  const double scale = (r.width() - 8.0) / std::max({box.width(), box.height(), 1.0});
  QTransform fit;
  fit.translate(r.center().x(), r.center().y());
  fit.scale(scale, scale);
  fit.translate(-box.center().x(), -box.center().y());
  way = fit.map(way);
  painter.setPen(QPen(theme::teal(), 1.5));
  painter.setBrush(Qt::NoBrush);
  painter.drawPolyline(way);
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme::teal());
  painter.drawEllipse(way.last(), 2.5, 2.5);
}

class TakeRow : public QStyledItemDelegate {
 public:
  using QStyledItemDelegate::QStyledItemDelegate;

  QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex& index) const override {
    return {120, index.data(kHeading).toBool() ? kHeadingRow : kRow};
  }
  // Its own name is edited, without what tells it from others.
  void setEditorData(QWidget* editor, const QModelIndex& index) const override {
    if (auto* line = qobject_cast<QLineEdit*>(editor)) line->setText(index.data(kName).toString());
  }
  void setModelData(QWidget* editor, QAbstractItemModel* model, const QModelIndex& index) const override {
    const auto* line = qobject_cast<QLineEdit*>(editor);
    if (line != nullptr && line->text() != index.data(kName).toString())
      QStyledItemDelegate::setModelData(editor, model, index);
  }
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    painter->save();
    if (index.data(kHeading).toBool()) {
      painter->setFont(theme::text_font(11, true));
      painter->setPen(theme::ink2());
      painter->drawText(option.rect.adjusted(5, 0, -5, 0), Qt::AlignVCenter, index.data().toString());
      return painter->restore();
    }
    painter->setRenderHint(QPainter::Antialiasing);
    const QRectF r = QRectF(option.rect).adjusted(2, 1, -2, -1);
    const bool chosen = option.state & QStyle::State_Selected;
    painter->setPen(chosen ? QPen(theme::teal(), 1.5) : Qt::NoPen);
    painter->setBrush(chosen || (option.state & QStyle::State_MouseOver) ? theme::colours().field
                                                                         : QColor(Qt::transparent));
    painter->drawRoundedRect(r, 6, 6);
    const QRectF picture(r.left() + 3, r.top() + 1, kPicture, kPicture);
    paint_way(*painter, picture, index.data(kPath).toList());
    const QRectF text = r.adjusted(kPicture + 9, 4, -20, -3);
    const bool shown = index.data(kShown).toBool();
    painter->setFont(theme::text_font(12, shown));
    painter->setPen(theme::ink());
    painter->drawText(text, Qt::AlignTop | Qt::AlignLeft,
                      painter->fontMetrics().elidedText(index.data(Qt::DisplayRole).toString(), Qt::ElideMiddle,
                                                        int(text.width())));
    painter->setFont(theme::text_font(11));
    painter->setPen(theme::ink2());
    painter->drawText(
        text, Qt::AlignBottom | Qt::AlignLeft,
        painter->fontMetrics().elidedText(index.data(kSub).toString(), Qt::ElideRight, int(text.width())));
    if (index.data(kStar).toBool())
      theme::icon("star", theme::gold()).paint(painter, QRect(int(r.right()) - 18, int(r.top()) + 5, 14, 14));
    painter->restore();
  }
};

// What it was driven with, when, and what is noted of it.
QString sub_text(const TakeAbout& about) {
  QStringList parts;
  if (about.tick_rate > 0)
    parts += QObject::tr("%1, %2/s").arg(QString::fromStdString(about.profile)).arg(about.tick_rate);
  parts += recorded_text(about);
  for (const std::string& device : about.devices) parts += QString::fromStdString(device);
  parts += QString::fromStdString(about.note).simplified();
  parts.removeAll(QString());
  return parts.join(", ");
}

}  // namespace

TakesPanel::TakesPanel(TakeDesk& desk, DriveSession& session, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      session_(session),
      list_(new QListWidget),
      filter_(new QLineEdit),
      note_(new QLineEdit),
      empty_(new QLabel(tr("No takes yet. Drive, and what you did is kept here."))),
      unsaved_(new QPushButton),
      aside_(new QPushButton),
      order_(new QComboBox) {
  setObjectName("sidePage");
  setAttribute(Qt::WA_StyledBackground);
  filter_->setPlaceholderText(tr("Find by name or note"));
  filter_->setClearButtonEnabled(true);
  note_->setPlaceholderText(tr("Note on the chosen take"));
  for (QLineEdit* line : {filter_, note_}) line->setAccessibleName(line->placeholderText());
  empty_->setObjectName("caption");
  empty_->setWordWrap(true);
  unsaved_->setObjectName("unsavedTakes");
  make_list();
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(10, 8, 8, 8);
  column->setSpacing(6);
  column->addWidget(filter_);
  column->addLayout(make_head());
  column->addWidget(empty_);
  column->addWidget(unsaved_);
  column->addWidget(list_, 1);
  column->addWidget(note_);
  column->addLayout(make_buttons());
  connect_parts();
  fill();
}

void TakesPanel::make_list() {
  list_->setObjectName("takes");
  list_->setItemDelegate(new TakeRow(list_));
  list_->setEditTriggers(QAbstractItemView::EditKeyPressed);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setToolTip(tr("Double click or Enter opens; F2 renames; Del puts aside"));
  // What can be done with the chosen take stands in its menu too, in words.
  list_->setContextMenuPolicy(Qt::ActionsContextMenu);
  list_->setAccessibleName(tr("Takes"));
}

QHBoxLayout* TakesPanel::make_head() {
  order_->addItems({tr("Newest first"), tr("By day"), tr("By course"), tr("By profile"), tr("By name"),
                    tr("Longest first")});  // As TakeOrder has them.
  order_->setObjectName("takeOrder");
  order_->setAccessibleName(tr("Order of the takes"));
  aside_->setObjectName("takesAside");
  aside_->setCheckable(true);
  aside_->setToolTip(tr("Takes that were put aside: to open, and to bring back"));
  auto* head = new QHBoxLayout;
  head->addWidget(order_, 1);
  head->addWidget(aside_);
  return head;
}

QHBoxLayout* TakesPanel::make_buttons() {
  auto* buttons = new QHBoxLayout;
  buttons->setSpacing(4);
  const auto button = [&](const char* icon, const QString& text, auto does) {
    auto* action = new QAction(theme::icon(icon), text, list_);
    connect(action, &QAction::triggered, this, does);
    list_->addAction(action);
    auto* made = new QToolButton;
    made->setDefaultAction(action);
    made->setToolButtonStyle(Qt::ToolButtonIconOnly);
    made->setAccessibleName(text);
    buttons->addWidget(made);
    return action;
  };
  button("folder-open", tr("Open the chosen take"), [this] { emit open_asked(current_file()); });
  button("pin", tr("Pin the chosen take beside the shown one"), [this] { emit overlay_asked(current_file()); });
  button("pencil", tr("Rename (F2)"), [this] { rename_current(); });
  button("star", tr("Star, or take the star away"), [this] { star_current(); });
  button("history", tr("Write a note"), [this] { begin_note(); });
  put_aside_ = button("trash-2", tr("Put aside (Del); undo has it back"), [this] { put_aside_current(); });
  buttons->addStretch(1);
  return buttons;
}

void TakesPanel::connect_parts() {
  connect(&desk_, &TakeDesk::rested, this, &TakesPanel::fill);
  connect(&desk_, &TakeDesk::shown_changed, this, &TakesPanel::fill);
  connect(&desk_.study(), &Study::changed, this, &TakesPanel::fill);
  connect(unsaved_, &QPushButton::clicked, this, [this] { desk_.study().save_again(); });
  connect(order_, &QComboBox::activated, this, &TakesPanel::fill);
  connect(aside_, &QPushButton::toggled, this, &TakesPanel::fill);
  connect(filter_, &QLineEdit::textChanged, this, &TakesPanel::fill);
  connect(list_, &QListWidget::itemActivated, this, [this] { emit open_asked(current_file()); });
  connect(list_, &QListWidget::currentItemChanged, this, &TakesPanel::show_note);
  connect(list_, &QListWidget::itemChanged, this, [this](QListWidgetItem* item) {
    if (filling_) return;
    const std::string name = item->text().simplified().toStdString();
    if (name.empty()) return fill();
    change(tr("rename a take"), [&](TakeAbout& about) { about.name = name; });
  });
  // What came while a name was being typed is shown when that is done.
  connect(list_->itemDelegate(), &QAbstractItemDelegate::closeEditor, this, &TakesPanel::fill,
          Qt::QueuedConnection);
  connect(note_, &QLineEdit::editingFinished, this, &TakesPanel::note_current);
}

QString TakesPanel::current_file() const {
  return list_->currentItem() == nullptr ? QString() : list_->currentItem()->data(kFile).toString();
}

template <typename F>
void TakesPanel::change(const QString& what, F change_about) {
  const Study::Entry* entry = desk_.study().find(current_file());
  if (entry == nullptr || !entry->trouble.isEmpty()) return;
  TakeAbout about = entry->about;
  change_about(about);
  desk_.change_about(entry->file, about, what);
}

// What is done by keys from another page is done to the list as it is now.
void TakesPanel::rename_current() {
  fill_now();
  if (list_->currentItem() != nullptr) list_->editItem(list_->currentItem());
}

void TakesPanel::star_current() {
  fill_now();
  const QListWidgetItem* item = list_->currentItem();
  if (item != nullptr && item->data(kShown).toBool() && current_file().isEmpty()) return desk_.star_open();
  change(tr("star a take"), [](TakeAbout& about) { about.star = !about.star; });
}

void TakesPanel::note_current() {
  note_->setModified(false);
  const Study::Entry* entry = desk_.study().find(current_file());
  if (entry == nullptr || entry->about.note == note_->text().toStdString()) return;
  change(tr("note on a take"), [this](TakeAbout& about) { about.note = note_->text().toStdString(); });
}

// Of those that lie aside it is the way back.
void TakesPanel::put_aside_current() {
  fill_now();
  const QString file = current_file();
  if (file.isEmpty()) return;
  aside_->isChecked() ? desk_.bring_back(file) : desk_.put_aside(file);
}

void TakesPanel::begin_note() {
  fill_now();
  if (has_current()) note_->setFocus(Qt::OtherFocusReason);
}

void TakesPanel::show_note() {
  const Study::Entry* entry = desk_.study().find(current_file());
  const QString file = entry == nullptr ? QString() : entry->file;
  if (note_->isModified() && file == noted_) return;  // It is being typed.
  noted_ = file;
  note_->setEnabled(entry != nullptr && entry->trouble.isEmpty());
  note_->setText(entry == nullptr ? QString() : QString::fromStdString(entry->about.note));
}

bool TakesPanel::is_renaming() const {
  const QWidget* focus = list_->viewport()->focusWidget();
  return focus != nullptr && focus->hasFocus() && qobject_cast<const QLineEdit*>(focus) != nullptr;
}

void TakesPanel::show_unsaved() {
  const auto count = desk_.study().unsaved_names().size();
  unsaved_->setVisible(count > 0);
  unsaved_->setText(count == 1 ? tr("A take is in memory only: try again")
                               : tr("%1 takes are in memory only: try again").arg(count));
  unsaved_->setToolTip(plain_tip(desk_.study().unsaved_names().join("\n")));
}

void TakesPanel::show_aside() {
  const auto count = desk_.study().aside_count();
  if (count == 0) aside_->setChecked(false);
  aside_->setVisible(count > 0);
  aside_->setText(tr("Aside (%1)").arg(count));
  put_aside_->setText(aside_->isChecked() ? tr("Bring back") : tr("Put aside (Del); undo has it back"));
  put_aside_->setIcon(theme::icon(aside_->isChecked() ? "undo-2" : "trash-2"));
}

void TakesPanel::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  fill_now();
}

void TakesPanel::fill() {
  show_unsaved();
  stale_ = true;
  if (isVisible()) fill_now();
}

void TakesPanel::fill_now() {
  if (!stale_ || is_renaming() || filling_) return;
  stale_ = false;
  filling_ = true;
  show_aside();
  const QString current = current_file(), wanted = filter_->text();
  const QSignalBlocker quiet(list_);
  list_->clear();
  if (!aside_->isChecked()) fill_open(wanted);
  fill_takes(aside_->isChecked() ? desk_.study().aside() : desk_.study().entries(), wanted, current);
  empty_->setVisible(list_->count() == 0);
  filling_ = false;
  show_note();
}

// What is being driven, until it is one of them.
void TakesPanel::fill_open(const QString& wanted) {
  if (!wanted.isEmpty() || !session_.has_shown() || !session_.is_open() || !is_worth_keeping(session_.shown()))
    return;
  auto* item =
      new QListWidgetItem(tr("Being driven, %1 s").arg(session_.shown().run.seconds(), 0, 'f', 0), list_);
  item->setData(kSub, tr("kept here when it ends"));
  item->setData(kPath, points_of(path_of(session_.shown().run)));
  item->setData(kStar, session_.shown().take.about.star);
  item->setData(kShown, true);
}

void TakesPanel::fill_takes(const std::vector<Study::Entry>& entries, const QString& wanted,
                            const QString& current) {
  const QStringList names = told_apart(entries);
  for (const TakeGroup& group : grouped(entries, names, TakeOrder(order_->currentIndex()))) {
    bool headed = group.heading.isEmpty();
    for (const std::size_t i : group.entries) {
      const Study::Entry& entry = entries[i];
      const QString name = names[qsizetype(i)];
      const QString sub = entry.trouble.isEmpty() ? sub_text(entry.about) : entry.trouble;
      if (!wanted.isEmpty() && !(name + " " + sub).contains(wanted, Qt::CaseInsensitive)) continue;
      if (!std::exchange(headed, true)) {
        auto* heading = new QListWidgetItem(group.heading, list_);
        heading->setFlags(Qt::NoItemFlags);
        heading->setData(kHeading, true);
      }
      auto* item = new QListWidgetItem(name, list_);
      if (!aside_->isChecked()) item->setFlags(item->flags() | Qt::ItemIsEditable);
      item->setData(kFile, entry.file);
      item->setData(kName, QString::fromStdString(entry.about.name));
      item->setData(kPath, points_of(entry.about.path));
      item->setData(kStar, entry.about.star);
      item->setData(kSub, sub);
      item->setData(kShown, session_.has_shown() && session_.shown().file == entry.file);
      item->setToolTip(plain_tip(name + "\n" + sub + "\n" + entry.file));
      item->setData(Qt::AccessibleTextRole,
                    name + ", " + sub + (entry.about.star ? tr(", starred") : QString()));
      if (entry.file == current) list_->setCurrentItem(item);
    }
  }
}

}  // namespace lagniappe::app
