// SPDX-License-Identifier: GPL-3.0-or-later
#include "widgets/message_bar.h"

#include <algorithm>

#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QStyle>

namespace lagniappe::app {

namespace {
constexpr int kNoteStays = 4000;  // ms; long enough to be read twice.
}

MessageBar::MessageBar(QWidget* parent)
    : QFrame(parent),
      title_(new QLabel),
      sentence_(new QLabel),
      progress_(new QProgressBar),
      button_(new QPushButton),
      accept_(new QPushButton) {
  setObjectName("messageBar");
  auto* texts = new QVBoxLayout;
  title_->setStyleSheet("font-weight: 600;");
  title_->setWordWrap(true);
  sentence_->setWordWrap(true);
  sentence_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  progress_->setRange(0, 0);
  progress_->setTextVisible(false);
  texts->addWidget(title_);
  texts->addWidget(sentence_);
  texts->addWidget(progress_);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(14, 10, 12, 10);
  layout->addLayout(texts, 1);
  layout->addWidget(accept_, 0, Qt::AlignVCenter);
  layout->addWidget(button_, 0, Qt::AlignVCenter);
  accept_->setObjectName("accept");
  connect(accept_, &QPushButton::clicked, this, [this] {
    hide();
    emit accepted();
  });
  connect(this, &MessageBar::accepted, this, [this] {
    if (const auto offered = std::exchange(offered_, nullptr)) offered();
  });
  connect(button_, &QPushButton::clicked, this, [this] {
    const bool cancels = busy_;
    hide();
    offered_ = nullptr;
    if (const auto declined = std::exchange(declined_, nullptr)) declined();
    if (cancels) emit cancel_clicked();  // Who hears of it may have something to say here.
  });
  note_.setSingleShot(true);
  connect(&note_, &QTimer::timeout, this, &MessageBar::hide);
  hide();
}

QString MessageBar::text() const { return title_->text() + "\n" + sentence_->text(); }

void MessageBar::show_as(const char* name, bool busy) {
  busy_ = busy;
  setObjectName(name);
  style()->unpolish(this);
  style()->polish(this);
  progress_->setVisible(busy);
  sentence_->setVisible(!busy);
  button_->setText(busy ? tr("Cancel") : tr("Dismiss"));
  accept_->hide();
  button_->show();
  note_.stop();
  progress_->setRange(0, 0);
  show();
  raise();
}

void MessageBar::settle(const QString& about) {
  if (is_problem() && about == about_) hide();
}

void MessageBar::show_problem(const QString& title, const QString& sentence, const QString& about) {
  about_ = about;
  offered_ = declined_ = nullptr;
  title_->setText(title);
  sentence_->setText(sentence);
  show_as("messageBar", false);
}

void MessageBar::show_offer(const QString& title, const QString& sentence, const QString& accept,
                            std::function<void()> does, std::function<void()> declined) {
  show_problem(title, sentence);
  button_->setText(tr("Not now"));
  accept_->setText(accept);
  offered_ = std::move(does);
  declined_ = std::move(declined);
  accept_->show();
}

void MessageBar::show_progress(double share) {
  progress_->setRange(0, 1000);
  progress_->setValue(int(share * 1000));
}

void MessageBar::show_busy(const QString& what, const QWidget& over, std::optional<double> share) {
  title_->setText(what);
  sentence_->clear();
  if (!busy_ || !isVisible()) show_as("busyBar", true);
  if (share) show_progress(*share);
  stand_over(over);
}

void MessageBar::show_note(const QString& what, const QWidget& over) {
  if (busy_ && isVisible()) return;
  show_problem(what, {});
  show_as("busyBar", false);
  sentence_->hide();
  button_->hide();
  note_.start(kNoteStays);
  stand_over(over);
}

void MessageBar::stand_over(const QWidget& under) {
  constexpr int kWidest = 420, kGap = 14, kFrame = 48;
  const int text = title_->fontMetrics().horizontalAdvance(title_->text()) + kFrame;
  const int width = note_.isActive() ? std::min(text, kWidest) : kWidest;
  const QPoint corner = under.mapTo(parentWidget(), QPoint(under.width() - width - kGap, kGap));
  setFixedWidth(width);
  adjustSize();
  move(std::max(corner.x(), kGap), corner.y());
  raise();
}

}  // namespace lagniappe::app
