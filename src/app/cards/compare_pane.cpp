// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/compare_pane.h"

#include <QComboBox>
#include <QFrame>
#include <QGridLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QTableWidget>
#include <QVBoxLayout>
#include <algorithm>

#include "cards/card_specs.h"
#include "cards/drawing_view.h"
#include "theme/plain_tip.h"
#include "theme/text.h"

namespace lagniappe::app {
namespace {

constexpr int kSteps = 100, kValueWidth = 76, kMostRows = 14;

}  // namespace

ComparePane::ComparePane(HandlingDesk& desk, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      first_(new QComboBox),
      second_(new QComboBox),
      table_(new QTableWidget(0, 3)),
      said_(new QLabel),
      blended_(new QLabel),
      asked_(new QLabel),
      question_(make_question()),
      slider_(new QSlider(Qt::Horizontal)) {
  setObjectName("sidePage");
  setAttribute(Qt::WA_StyledBackground);
  first_->setObjectName("first profile");
  second_->setObjectName("second profile");
  first_->setAccessibleName(tr("First profile"));
  second_->setAccessibleName(tr("Second profile"));
  said_->setObjectName("caption");
  said_->setWordWrap(true);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(10, 8, 8, 8);
  column->setSpacing(6);
  column->addWidget(question_);
  column->addLayout(make_choosing());
  column->addLayout(make_blending());
  column->addWidget(said_);
  set_up_table();
  column->addWidget(table_);
  column->addWidget(make_drawings());
  column->addStretch(1);
  fill_choices();
  connect(&desk_, &HandlingDesk::snapshots_changed, this, &ComparePane::fill_choices);
  second_->setCurrentIndex(std::min(1, second_->count() - 1));
  show_both();
}

QWidget* ComparePane::make_question() {
  auto* box = new QFrame;
  box->setObjectName("drift");
  asked_->setWordWrap(true);
  auto *keep = new QPushButton(tr("Keep it")), *back = new QPushButton(tr("Put mine back"));
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(keep);
  buttons->addWidget(back);
  auto* column = new QVBoxLayout(box);
  column->addWidget(asked_);
  column->addLayout(buttons);
  connect(keep, &QPushButton::clicked, this, [this] { end(true); });
  connect(back, &QPushButton::clicked, this, [this] { end(false); });
  box->setFocusProxy(keep);
  box->hide();
  return box;
}

bool ComparePane::is_blended() const {
  return gesture_ != 0 && !differences(choices_.front().profile, desk_.now()).empty();
}

void ComparePane::close_pane() {
  if (!is_blended()) return emit closed();
  asked_->setText(tr("You drive with a blend, %1. Keep it as %2's values?")
                      .arg(blended_->text(), QString::fromStdString(desk_.now().name)));
  question_->show();
  question_->setFocus(Qt::OtherFocusReason);
}

void ComparePane::end(bool keep) {
  if (!keep) {
    Profile before = choices_.front().profile;
    before.name = desk_.now().name;
    before.notes = desk_.now().notes;
    (void)desk_.set(before, tr("put the blend back"));
  }
  question_->hide();
  emit closed();
}

// Of the question Esc says that one goes on comparing.
void ComparePane::keyPressEvent(QKeyEvent* event) {
  if (event->key() != Qt::Key_Escape) return QWidget::keyPressEvent(event);
  question_->isVisible() ? question_->hide() : close_pane();
}

QLayout* ComparePane::make_choosing() {
  auto *open = new QPushButton(tr("Open another…")), *close = new QPushButton(tr("Close"));
  close->setToolTip(tr("Esc"));
  auto* grid = new QGridLayout;
  grid->setSpacing(5);
  grid->setColumnStretch(1, 1);
  int row = 0;
  for (const auto& [name, box] : {std::pair{tr("first"), first_}, std::pair{tr("second"), second_}}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(12);
    box->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    grid->addWidget(new QLabel(name), row, 0);
    grid->addWidget(box, row++, 1, 1, 2);
  }
  grid->addWidget(open, row, 1);
  grid->addWidget(close, row, 2);
  connect(open, &QPushButton::clicked, this, &ComparePane::open_asked);
  connect(close, &QPushButton::clicked, this, &ComparePane::close_pane);
  connect(first_, &QComboBox::currentIndexChanged, this, &ComparePane::show_both);
  connect(second_, &QComboBox::currentIndexChanged, this, &ComparePane::show_both);
  return grid;
}

void ComparePane::set_up_table() {
  table_->verticalHeader()->hide();
  table_->horizontalHeader()->setTextElideMode(Qt::ElideRight);
  table_->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  table_->setTabKeyNavigation(false);
  table_->setAccessibleName(tr("What differs"));
}

QWidget* ComparePane::make_drawings() {
  auto* sheet = new QWidget;
  sheet->setObjectName("cardList");
  auto* column = new QVBoxLayout(sheet);
  column->setContentsMargins(0, 0, 0, 0);
  static const JumpLocks locks;
  for (const CardSpec& spec : card_specs()) {
    for (const auto& make : spec.drawings) {
      auto* title = new QLabel(tr(spec.title));
      title->setObjectName("cardTitle");
      auto* drawing = new DrawingView(make(locks), nullptr);
      drawing->cover_reference();
      drawings_.push_back({&spec, title, drawing});
      column->addWidget(title);
      column->addWidget(drawing);
    }
  }
  column->addStretch(1);
  return sheet;
}

QLayout* ComparePane::make_blending() {
  slider_->setObjectName("blend");
  slider_->setRange(0, kSteps);
  slider_->setAccessibleName(tr("Between the first and the second profile"));
  slider_->setToolTip(tr(
      "Drives with what lies between the two: numbers and curves in proportion, choices from the nearer one"));
  auto* line = new QHBoxLayout;
  line->addWidget(new QLabel(tr("first")));
  line->addWidget(slider_, 1);
  line->addWidget(new QLabel(tr("second")));
  auto* whole = new QVBoxLayout;
  blended_->setObjectName("figure");
  whole->addLayout(line);
  whole->addWidget(blended_);
  connect(slider_, &QSlider::sliderPressed, this, [this] { gesture_ = desk_.new_gesture(); });
  connect(slider_, &QSlider::valueChanged, this, &ComparePane::blend);
  return whole;
}

void ComparePane::offer(const QString& name, const Profile& profile) {
  opened_.push_back({name, profile});
  fill_choices();
}

void ComparePane::add(const QString& name, const Profile& profile) {
  offer(name, profile);
  second_->setCurrentText(name);
}

// The values as they are now stay the same while one blends: they are taken when the window opens.
void ComparePane::fill_choices() {
  const QString was_first = first_->currentText(), was_second = second_->currentText();
  const QString mine = QString::fromStdString(desk_.now().name);
  const Choice now =
      choices_.empty() ? Choice{tr("%1, before blending").arg(mine), desk_.now()} : choices_.front();
  choices_ = {now, {tr("%1, as saved").arg(mine), desk_.saved()}};
  choices_.insert(choices_.end(), opened_.begin(), opened_.end());
  for (const Snapshot& s : desk_.snapshots()) choices_.push_back({s.name, s.profile});
  bool same = true;
  for (QComboBox* box : {first_, second_}) {
    const QSignalBlocker quiet(box);
    box->clear();
    for (const Choice& choice : choices_) box->addItem(choice.name);
    const int old = box->findText(box == first_ ? was_first : was_second);
    box->setCurrentIndex(old >= 0 ? old : box == first_ ? 0 : 1);
    same = same && old >= 0;
  }
  // A snapshot more, as the first blend makes one, begins nothing anew.
  if (!same) show_both();
}

const Profile& ComparePane::first() const {
  return choices_[std::size_t(std::max(first_->currentIndex(), 0))].profile;
}
const Profile& ComparePane::second() const {
  return choices_[std::size_t(std::max(second_->currentIndex(), 0))].profile;
}

void ComparePane::show_both() {
  const auto found = differences(first(), second());
  said_->setText(
      found.empty()
          ? tr("Nothing differs. Choose another profile, or open one.")
          : tr("Differences: %1. Solid lines are the first's, dashed ones the second's.").arg(found.size()));
  table_->setRowCount(int(found.size()));
  for (int i = 0; i < int(found.size()); ++i) {
    const ProfileDifference& d = found[std::size_t(i)];
    const QString unit = d.unit.empty() ? QString() : " " + qt(d.unit);
    const QString texts[] = {QString::fromStdString(d.path), QString::fromStdString(d.from) + unit,
                             QString::fromStdString(d.to) + unit};
    for (int column = 0; column < 3; ++column) {
      auto* item = new QTableWidgetItem(texts[column]);
      item->setToolTip(plain_tip(texts[0] + ": " + texts[1] + ", " + texts[2]));
      table_->setItem(i, column, item);
    }
  }
  table_->setHorizontalHeaderLabels({tr("value"), first_->currentText(), second_->currentText()});
  table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Interactive);
  table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  for (const int column : {1, 2}) table_->setColumnWidth(column, kValueWidth);
  // As high as its rows: the pane scrolls, not two things in one another.
  const int rows = std::min(int(found.size()), kMostRows);
  table_->setFixedHeight(table_->horizontalHeader()->sizeHint().height() + rows * table_->rowHeight(0) + 4);
  table_->setVisible(!found.empty());
  for (const Drawn& d : drawings_) {
    const bool differs =
        std::any_of(found.begin(), found.end(), [&](const auto& f) { return card_of(f.path) == d.card; });
    d.title->setVisible(differs);
    d.drawing->setVisible(differs);
    d.drawing->show_profiles(first(), second());
  }
  const QSignalBlocker quiet(slider_);
  slider_->setValue(0);
  blended_->setText({});
  slider_->setEnabled(!found.empty());
}

void ComparePane::blend(int share) {
  if (gesture_ == 0 || !slider_->isSliderDown()) gesture_ = desk_.new_gesture();
  Profile between = blended(first(), second(), double(share) / kSteps);
  between.name = desk_.now().name;
  between.notes = desk_.now().notes;
  if (desk_.set(between, tr("blend"), gesture_))
    blended_->setText(share == 0 ? first_->currentText()
                                 : tr("%1 % %2").arg(share).arg(second_->currentText()));
}

}  // namespace lagniappe::app
