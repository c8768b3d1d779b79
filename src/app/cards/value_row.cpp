// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/value_row.h"

#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QContextMenuEvent>
#include <QHBoxLayout>
#include <QHelpEvent>
#include <QInputDialog>
#include <QLabel>
#include <QMenu>
#include <QToolButton>
#include <QToolTip>
#include <QVBoxLayout>
#include <utility>

#include "cards/scale_strip.h"
#include "cards/value_line.h"
#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

// To the bit, as files have it.
QString exact(double value) { return QString::number(value, 'g', 17); }

}  // namespace

QString value_name(const std::string& path) {
  QString name = QString::fromStdString(path);
  for (const char* known :
       {"capsule.", "ground.", "air.", "jump.", "skid.", "walls.", "look.", "camera.", "fly."}) {
    if (name.startsWith(known)) {
      name.remove(0, int(qstrlen(known)));
      break;
    }
  }
  return name.replace('_', ' ').replace('.', ' ');
}

ValueRow::ValueRow(const std::string& path, ValuesDesk& desk, QWidget* parent)
    : QWidget(parent),
      path_(path),
      desk_(desk),
      field_(find_field(path)),
      choice_(find_choice(path)),
      name_(new QLabel(value_name(path))),
      mark_(new QLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 2, 0, 0);
  column->setSpacing(0);
  auto* line = new QHBoxLayout;
  line->setSpacing(6);
  mark_->setFixedWidth(8);
  mark_->setObjectName("rowMark");
  line->addWidget(mark_);
  line->addWidget(name_, 1);
  column->addLayout(line);
  if (field_ != nullptr) {
    make_number(line);
    column->addWidget(scale_);
  } else {
    make_choice(line);
  }
}

void ValueRow::make_number(QHBoxLayout* line) {
  number_ = new ValueField(QString::fromStdString(path_), qt(text_of(field_->unit)));
  number_->setFixedWidth(104);
  number_->installEventFilter(this);
  scale_ = new ScaleStrip(*field_);
  name_->setBuddy(number_);
  line->addWidget(number_);
  connect_line(
      *number_, desk_, QString::fromStdString(path_), tr("%1 stays as it was").arg(value_name(path_)),
      [this](double value, int gesture) { gesture == 0 ? assign_number(value) : nudge(value, gesture); });
  connect(scale_, &ScaleStrip::dragged, this, [this](double value, bool begins) {
    if (begins || gesture_ == 0) gesture_ = desk_.new_gesture();
    slide(value, gesture_);
  });
}

void ValueRow::slide(double value, int gesture) {
  if (field_->unit == Unit::Count) value = std::round(value);
  assign_number(std::clamp(value, field_->low, field_->high), gesture);
}

// A count moves by at least one.
void ValueRow::nudge(double value, int gesture) {
  const double now = field_->typed(desk_.now());
  const bool count = field_->unit == Unit::Count && std::abs(value - now) < 1.0;
  slide(count ? now + (value > now ? 1.0 : -1.0) : value, gesture);
}

void ValueRow::make_choice(QHBoxLayout* line) {
  words_ = new QComboBox;
  words_->setObjectName(QString::fromStdString(path_));
  words_->setAccessibleName(QString::fromStdString(path_));
  if (choice_->words.empty()) words_->addItems({tr("no"), tr("yes")});
  for (const std::string_view word : choice_->words) words_->addItem(qt(word));
  words_->setFixedWidth(118);
  words_->installEventFilter(this);
  name_->setBuddy(words_);
  line->addWidget(words_);
  connect(words_, &QComboBox::currentIndexChanged, this, [this](int index) {
    if (showing_) return;
    assign(choice_->words.empty() ? (index != 0 ? "true" : "false") : qt(choice_->words[std::size_t(index)]));
  });
}

void ValueRow::assign(const QString& text, int gesture) {
  desk_.assign(QString::fromStdString(path_), text, gesture);
}

void ValueRow::assign_number(double value, int gesture) {
  assign_ ? assign_(value, gesture) : assign(exact(value), gesture);
}

void ValueRow::say(const QString& text, const QString& enough) {
  delete said_;
  said_ = new QFrame;
  said_->setObjectName("drift");
  said_text_ = new QLabel(text);
  said_text_->setWordWrap(true);
  said_of_ = value_text(desk_.now(), path_);
  auto* line = new QHBoxLayout(said_);
  line->setContentsMargins(6, 3, 6, 3);
  line->addWidget(said_text_, 1);
  const auto button = [&](const QString& what, auto does) {
    auto* made = new QToolButton;
    made->setText(what);
    connect(made, &QToolButton::clicked, this, does, Qt::QueuedConnection);
    line->addWidget(made);
  };
  if (!enough.isEmpty()) button(tr("Set it"), [this, enough] { assign(enough); });
  button(tr("Dismiss"), [this] { say_no_more(); });
  layout()->addWidget(said_);
}

void ValueRow::say_no_more() {
  delete std::exchange(said_, nullptr);
  said_text_ = nullptr;
}

QString ValueRow::said() const { return said_text_ == nullptr ? QString() : said_text_->text(); }

void ValueRow::lead_with(QWidget* button) {
  static_cast<QHBoxLayout*>(layout()->itemAt(0)->layout())->insertWidget(1, button);
}

void ValueRow::show_profiles(const Profile& now, const Profile& reference) {
  showing_ = true;
  if (said_ != nullptr && value_text(now, path_) != said_of_) say_no_more();
  if (field_ != nullptr) {
    number_->show_value(field_->typed(now));
    scale_->show_values(field_->typed(now), field_->typed(reference));
    differs_ = field_->get(now) != field_->get(reference);
  } else {
    words_->setCurrentIndex(choice_->get(now));
    differs_ = choice_->get(now) != choice_->get(reference);
  }
  // By weight and by a mark, not by colour alone. Setting either lays the row out anew, so only where it
  // changed.
  const QString mark = differs_ ? "\u25c6" : now.notes.contains(path_) ? "\u2022" : "";
  if (mark_->text() != mark) mark_->setText(mark);
  if (name_->font().bold() != differs_ || !shown_) name_->setFont(theme::text_font(12, differs_));
  shown_ = true;
  showing_ = false;
}

bool ValueRow::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QWidget::event(event);
  QToolTip::showText(static_cast<QHelpEvent*>(event)->globalPos(), tip(desk_.now(), desk_.reference()), this);
  return true;
}

QString ValueRow::tip(const Profile& now, const Profile& reference) const {
  const std::string_view help = field_ != nullptr ? field_->help : choice_->help;
  QString text = QString("<b>%1</b><br>%2").arg(QString::fromStdString(path_), qt(help).toHtmlEscaped());
  if (field_ != nullptr) {
    const QString unit = qt(text_of(field_->unit));
    text += tr("<br>Usual: %1 to %2 %3.").arg(field_->sane_low).arg(field_->sane_high).arg(unit);
    if (!field_->below.empty()) text += tr("<br>Below: %1.").arg(qt(field_->below).toHtmlEscaped());
    if (!field_->above.empty()) text += tr("<br>Above: %1.").arg(qt(field_->above).toHtmlEscaped());
    text += tr("<br>Default: %1 %2.").arg(QString::fromStdString(value_text(Profile{}, path_)), unit);
  }
  if (differs_)
    text += tr("<br>%1: %2.").arg(desk_.reference_name(), QString::fromStdString(value_text(reference, path_)));
  if (const auto note = now.notes.find(path_); note != now.notes.end())
    text += tr("<br>Note: %1").arg(QString::fromStdString(note->second).toHtmlEscaped());
  return text;
}

void ValueRow::take_focus() {
  if (number_ != nullptr) number_->setFocus(Qt::ShortcutFocusReason);
  if (words_ != nullptr) words_->setFocus(Qt::ShortcutFocusReason);
}

bool ValueRow::fits(const QString& search) const {
  const std::string_view help = field_ != nullptr ? field_->help : choice_->help;
  const QString all = QString::fromStdString(path_).replace('_', ' ').replace('.', ' ') + " " + qt(help);
  for (const QString& word : search.split(' ', Qt::SkipEmptyParts)) {
    if (!all.contains(word, Qt::CaseInsensitive)) return false;
  }
  return true;
}

void ValueRow::contextMenuEvent(QContextMenuEvent* event) { show_menu(event->globalPos()); }

void ValueRow::show_menu(const QPoint& at) {
  QMenu menu;
  const QString path = QString::fromStdString(path_);
  const auto offer = [&](const QString& text, const QString& value) {
    QAction* action = menu.addAction(tr("%1: %2").arg(text, value));
    action->setEnabled(value != QString::fromStdString(value_text(desk_.now(), path_)));
    connect(action, &QAction::triggered, this, [this, value] { assign(value); });
  };
  offer(tr("Back to the default"), QString::fromStdString(value_text(Profile{}, path_)));
  offer(tr("Back to %1").arg(desk_.saved_name()), QString::fromStdString(value_text(desk_.saved(), path_)));
  menu.addSeparator();
  connect(menu.addAction(tr("Copy")), &QAction::triggered, this, [this] {
    QApplication::clipboard()->setText(QString::fromStdString(value_text(desk_.now(), path_)));
  });
  QAction* paste = menu.addAction(tr("Paste: %1").arg(QApplication::clipboard()->text().left(24)));
  paste->setEnabled(!QApplication::clipboard()->text().isEmpty());
  connect(paste, &QAction::triggered, this, [this] { assign(QApplication::clipboard()->text().trimmed()); });
  menu.addSeparator();
  connect(menu.addAction(tr("Note…")), &QAction::triggered, this, [this, path] {
    const auto old = desk_.now().notes.find(path_);
    bool ok = false;
    const QString note = QInputDialog::getText(
        this, tr("Note on %1").arg(path), tr("It is saved with the profile:"), QLineEdit::Normal,
        old != desk_.now().notes.end() ? QString::fromStdString(old->second) : QString(), &ok);
    if (ok) desk_.set_note(path, note);
  });
  menu.exec(at);
}

bool ValueRow::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::ContextMenu) {
    show_menu(static_cast<QContextMenuEvent*>(event)->globalPos());
    return true;
  }
  if (event->type() == QEvent::KeyPress) {
    auto* key = static_cast<QKeyEvent*>(event);
    const bool control = key->modifiers() & Qt::ControlModifier;
    if (control && key->key() == Qt::Key_Delete)
      return assign(QString::fromStdString(value_text(Profile{}, path_))), true;
    if (control && key->key() == Qt::Key_Backspace)
      return assign(QString::fromStdString(value_text(desk_.saved(), path_))), true;
  }
  return QWidget::eventFilter(watched, event);
}

}  // namespace lagniappe::app
