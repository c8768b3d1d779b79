// SPDX-License-Identifier: GPL-3.0-or-later
#include "timing/feel_bar.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QToolButton>

#include "theme/text.h"
#include "widgets/flow_layout.h"

namespace lagniappe::app {
namespace {

constexpr const char* kWays[] = {"interpolated", "ticked", "ahead", "chase:20", "in-frame"};
constexpr double kSomeTime = 1.5, kLeastHitch = 0.08, kMostHitch = 0.3;  // s.

QToolButton* step_button(QAction& action, const QString& text) {
  auto* button = new QToolButton;
  button->setDefaultAction(&action);
  button->setToolButtonStyle(Qt::ToolButtonTextOnly);
  button->setText(text);
  QObject::connect(&action, &QAction::changed, button, [button, text] { button->setText(text); });
  return button;
}

}  // namespace

FeelBar::FeelBar(DriveSession& session, Heart& heart, const Actions& actions, QWidget* parent)
    : QWidget(parent),
      session_(session),
      heart_(heart),
      method_(new QComboBox),
      kinds_(new QComboBox),
      length_(new QDoubleSpinBox),
      rates_(new QLabel),
      words_(new QLabel) {
  auto* row = new FlowLayout(this, 6);
  row->setContentsMargins(14, 4, 14, 4);
  auto* title = new QLabel(tr("Feel it"));
  title->setObjectName("cardTitle");
  // As high as what stands beside them.
  for (QLabel* text : {title, rates_, words_}) text->setMinimumHeight(30);
  row->addWidget(title);
  for (const auto& [act, text] :
       {std::pair(Act::FewerTicks, tr("ticks −")), std::pair(Act::MoreTicks, tr("+"))})
    row->addWidget(step_button(*actions[act], text));
  for (const auto& [act, text] :
       {std::pair(Act::FewerFrames, tr("frames −")), std::pair(Act::MoreFrames, tr("+"))})
    row->addWidget(step_button(*actions[act], text));
  rates_->setObjectName("figure");
  row->addWidget(rates_);
  method_->setAccessibleName(tr("How what is driven is drawn"));
  for (const char* word : kWays) method_->addItem(word);
  method_->setToolTip(
      tr("How what is driven is drawn. In-frame: a body that moves with each frame's own time is driven beside "
         "the "
         "ticks and drawn; what is recorded is the ticks"));
  row->addWidget(method_);
  kinds_->setAccessibleName(tr("Hitches"));
  kinds_->addItems({tr("no hitches"), tr("at random"), tr("measured…")});
  kinds_->setToolTip(tr("Frames that take longer: now and then by chance, or as a file of frame lengths says"));
  row->addWidget(kinds_);
  length_->setRange(0.02, 2.0);
  length_->setSingleStep(0.05);
  length_->setValue(0.25);
  length_->setSuffix(tr(" s"));
  length_->setAccessibleName(tr("Length of a hitch"));
  row->addWidget(length_);
  row->addWidget(step_button(*actions[Act::Hitch], tr("Hitch  %1").arg(actions.key_text(Act::Hitch))));
  words_->setObjectName("figure");
  row->addWidget(words_);
  connect(method_, &QComboBox::activated, this, &FeelBar::choose_method);
  connect(kinds_, &QComboBox::activated, this, [this](int kind) {
    if (Hitches(kind) == Hitches::Measured) emit frames_asked();
    next_random_ = 0.0;
  });
  connect(actions[Act::Hitch], &QAction::triggered, this, &FeelBar::hitch);
}

FeelBar::Hitches FeelBar::hitches() const { return Hitches(kinds_->currentIndex()); }

void FeelBar::set_measured(std::vector<double> lengths) {
  measured_ = std::move(lengths);
  frame_ = 0;
  if (measured_.empty()) kinds_->setCurrentIndex(int(Hitches::None));
}

void FeelBar::choose_method(int row) {
  Drawing drawing = *drawing_of(kWays[row]);
  session_.set_drawing(drawing);
}

void FeelBar::show_drawing() {
  for (int i = 0; i < method_->count(); ++i) {
    if (drawing_of(kWays[i])->method == session_.drawing().method) method_->setCurrentIndex(i);
  }
}

void FeelBar::hitch() { heart_.skip(length_->value()); }

void FeelBar::delay_next() {
  if (hitches() == Hitches::Measured && !measured_.empty()) {
    heart_.skip(measured_[frame_++ % measured_.size()]);
  } else if (hitches() == Hitches::Random) {
    const auto chance = [this] {
      seed_ = seed_ * 6364136223846793005ull + 1442695040888963407ull;
      return double(seed_ >> 11) * 0x1p-53;
    };
    if (heart_.now() >= next_random_) {
      if (next_random_ > 0.0) heart_.skip(kLeastHitch + (kMostHitch - kLeastHitch) * chance());
      next_random_ = heart_.now() + kSomeTime * (0.3 + 1.4 * chance());
    }
  }
}

void FeelBar::refresh() {
  show_drawing();
  rates_->setText(heart_.limit() > 0
                      ? tr("%1 ticks/s, %2 frames/s").arg(session_.tick_rate()).arg(heart_.limit())
                      : tr("%1 ticks/s, frames as the screen").arg(session_.tick_rate()));
  gap_ = session_.live() ? length(session_.pose().foot_C -
                                  session_.drawn_state().up_C() * session_.drawn_state().eye_offset -
                                  session_.exact_foot_C())
                         : 0.0;
  const double speed = length(session_.current().velocity_C);
  QString text = tr("drawn %1 cm off").arg(gap_ * 1e2, 0, 'f', 1);
  if (speed > 0.1) text += tr(", %1 ms").arg(gap_ / speed * 1e3, 0, 'f', 0);
  if (session_.dropped_seconds() > 0.0) text += tr("; %1 s dropped").arg(session_.dropped_seconds(), 0, 'f', 2);
  words_->setText(text);
  if (session_.live()) delay_next();
}

}  // namespace lagniappe::app
