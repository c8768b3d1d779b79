// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/drive_page.h"

#include <QButtonGroup>
#include <QComboBox>
#include <QHBoxLayout>
#include <QIntValidator>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QToolButton>
#include <QVBoxLayout>

#include "viewport/view_widget.h"
#include "widgets/ledger_column.h"

namespace lagniappe::app {
namespace {

const char* const kScaleTexts[] = {"×1", "×½", "×¼", "×⅒"};

QToolButton* button_for(QAction* action, bool with_text) {
  auto* button = new QToolButton;
  button->setDefaultAction(action);
  button->setToolButtonStyle(with_text ? Qt::ToolButtonTextBesideIcon : Qt::ToolButtonIconOnly);
  button->setFocusPolicy(Qt::TabFocus);
  button->setIconSize({16, 16});
  return button;
}

// A captioned group of widgets in the strip.
QVBoxLayout* group(const QString& caption, const QList<QWidget*>& widgets) {
  auto* label = new QLabel(caption);
  label->setObjectName("caption");
  auto* row = new QHBoxLayout;
  row->setSpacing(4);
  for (QWidget* widget : widgets) row->addWidget(widget);
  auto* column = new QVBoxLayout;
  column->setSpacing(4);
  column->addWidget(label);
  column->addLayout(row);
  return column;
}

}  // namespace

DrivePage::DrivePage(DriveSession& session, const Actions& actions, QWidget* parent)
    : QWidget(parent),
      session_(session),
      view_(new ViewWidget(session)),
      ledger_(new LedgerColumn),
      scales_(new QButtonGroup(this)),
      rates_(new QComboBox) {
  setObjectName("page");
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  auto* row = new QHBoxLayout;
  row->setSpacing(0);
  row->addWidget(view_, 1);
  row->addWidget(ledger_);
  layout->addLayout(row, 1);
  ledger_->hide();
  connect(view_, &ViewWidget::frame_passed, this, &DrivePage::show_ledger);
  layout->addWidget(make_transport(actions));
}

// Enter in the field is meant for the field: it must not begin to drive, as it does elsewhere.
bool DrivePage::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter) event->accept();
  }
  return QWidget::eventFilter(watched, event);
}

void DrivePage::show_ledger() {
  const Place* place = session_.place();
  const bool shown = session_.paused() && place != nullptr;
  ledger_->setVisible(shown);
  const std::pair<const Place*, std::uint64_t> tick = {place, session_.current().tick};
  if (!shown || ledger_of_ == tick) return;
  ledger_of_ = tick;
  ledger_->show_tick(session_.current(), session_.last_ledger(), place->world);
}

QWidget* DrivePage::make_transport(const Actions& actions) {
  auto* strip = new QWidget;
  strip->setObjectName("transport");
  strip->setAttribute(Qt::WA_StyledBackground);
  QList<QWidget*> scales;
  for (int i = 0; i < 4; ++i) {
    auto* button = new QToolButton;
    button->setText(QString::fromUtf8(kScaleTexts[i]));
    button->setCheckable(true);
    button->setChecked(i == 0);
    button->setFocusPolicy(Qt::TabFocus);
    button->setToolTip(tr("Time scale: seconds of the run for a second of yours  ( [ and ] )"));
    scales_->addButton(button, i);
    scales.append(button);
  }
  connect(scales_, &QButtonGroup::idClicked, this, [this](int id) {
    session_.set_time_scale(DriveSession::kTimeScales[static_cast<std::size_t>(id)]);
    emit time_changed();
  });

  rates_->setEditable(true);
  rates_->setObjectName("tickRate");
  rates_->setInsertPolicy(QComboBox::NoInsert);
  rates_->setMinimumWidth(86);
  rates_->addItems({"20", "30", "60", "120", "144", "240", "480"});
  rates_->setCurrentText(QString::number(session_.tick_rate()));
  rates_->installEventFilter(this);  // Its line edit passes the focus on to it.
  rates_->lineEdit()->setValidator(new QIntValidator(kLowestTickRate, kHighestTickRate, rates_));
  rates_->setToolTip(
      tr("Ticks per second, 10 to 480. Fewer: steps get coarse and the drawn figure lags more; more: costs "
         "time, moves the same"));
  const auto rate_chosen = [this] {
    choose_tick_rate(rates_->currentText().toInt());
    view_->setFocus(Qt::OtherFocusReason);
  };
  connect(rates_, &QComboBox::activated, this, rate_chosen);
  connect(rates_->lineEdit(), &QLineEdit::returnPressed, this, rate_chosen);

  auto* layout = new QHBoxLayout(strip);
  layout->setContentsMargins(16, 8, 16, 10);
  layout->setSpacing(18);
  layout->addLayout(
      group(tr("Run"), {button_for(actions[Act::Pause], true), button_for(actions[Act::SingleTick], true),
                        button_for(actions[Act::ToStart], false)}));
  layout->addLayout(group(tr("Time scale"), scales));
  layout->addLayout(group(tr("Ticks per second"), {rates_}));
  layout->addStretch(1);
  layout->addLayout(group(tr("Camera"), {button_for(actions[Act::FirstPerson], true)}));
  layout->addLayout(group(tr("Drawing"), {button_for(actions[Act::Interpolated], true)}));
  layout->addLayout(
      group(tr("Show"), {button_for(actions[Act::Capsule], false), button_for(actions[Act::Contacts], false),
                         button_for(actions[Act::Probe], false), button_for(actions[Act::Arrows], false),
                         button_for(actions[Act::Grid], false)}));
  return strip;
}

void DrivePage::step_time_scale(int by) {
  const int id = std::clamp(scales_->checkedId() + by, 0, int(DriveSession::kTimeScales.size()) - 1);
  scales_->button(id)->click();
}

void DrivePage::choose_tick_rate(int rate) {
  const int within = std::clamp(rate, kLowestTickRate, kHighestTickRate);
  session_.set_tick_rate(within);
  rates_->setCurrentText(QString::number(within));
  emit time_changed();
}

}  // namespace lagniappe::app
