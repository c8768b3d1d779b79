// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/compare_window.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QSlider>
#include <QTableWidget>
#include <algorithm>

#include "cards/card_specs.h"
#include "cards/drawing_view.h"
#include "theme/plain_tip.h"
#include "theme/text.h"

namespace lagniappe::app {
namespace {

constexpr int kDrawingWidth = 300, kSteps = 100;

}  // namespace

CompareWindow::CompareWindow(HandlingDesk& desk, QWidget* parent)
    : QWidget(parent, Qt::Window),
      desk_(desk),
      first_(new QComboBox),
      second_(new QComboBox),
      table_(new QTableWidget(0, 4)),
      said_(new QLabel),
      blended_(new QLabel),
      slider_(new QSlider(Qt::Horizontal)) {
  setObjectName("page");
  setAttribute(Qt::WA_StyledBackground);
  setWindowTitle(tr("Compare profiles"));
  resize(980, 640);
  first_->setObjectName("first profile");
  second_->setObjectName("second profile");
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(14, 12, 14, 12);
  grid->setSpacing(8);
  grid->addLayout(make_choosing(), 0, 0, 1, 2);
  grid->addWidget(said_, 1, 0, 1, 2);
  set_up_table();
  grid->addWidget(table_, 2, 0);
  grid->addWidget(make_drawings(), 2, 1);
  grid->addLayout(make_blending(), 3, 0, 1, 2);
  fill_choices();
  connect(&desk_, &HandlingDesk::snapshots_changed, this, &CompareWindow::fill_choices);
  second_->setCurrentIndex(std::min(1, second_->count() - 1));
  show_both();
}

QLayout* CompareWindow::make_choosing() {
  auto* open = new QPushButton(tr("Open another…"));
  auto* line = new QHBoxLayout;
  line->addWidget(first_, 1);
  line->addWidget(new QLabel(tr("beside")));
  line->addWidget(second_, 1);
  line->addWidget(open);
  connect(open, &QPushButton::clicked, this, &CompareWindow::open_asked);
  connect(first_, &QComboBox::currentIndexChanged, this, &CompareWindow::show_both);
  connect(second_, &QComboBox::currentIndexChanged, this, &CompareWindow::show_both);
  return line;
}

void CompareWindow::set_up_table() {
  table_->setHorizontalHeaderLabels({tr("value"), tr("first"), tr("second"), tr("unit")});
  table_->verticalHeader()->hide();
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setMinimumWidth(440);
}

QWidget* CompareWindow::make_drawings() {
  auto* sheet = new QWidget;
  sheet->setObjectName("cardList");
  auto* column = new QVBoxLayout(sheet);
  static const JumpLocks locks;
  for (const CardSpec& spec : card_specs()) {
    for (const auto& make : spec.drawings) {
      auto* title = new QLabel(tr(spec.title));
      title->setObjectName("cardTitle");
      auto* drawing = new DrawingView(make(locks), nullptr);
      drawing->cover_reference();
      drawing->setMinimumWidth(kDrawingWidth);
      drawings_.push_back({&spec, title, drawing});
      column->addWidget(title);
      column->addWidget(drawing);
    }
  }
  column->addStretch(1);
  auto* area = new QScrollArea;
  area->setWidget(sheet);
  area->setWidgetResizable(true);
  area->setMinimumWidth(kDrawingWidth + 40);
  return area;
}

QLayout* CompareWindow::make_blending() {
  slider_->setObjectName("blend");
  slider_->setRange(0, kSteps);
  slider_->setAccessibleName(tr("Between the first and the second profile"));
  slider_->setToolTip(tr(
      "Drives with what lies between the two: numbers and curves in proportion, choices from the nearer one"));
  blended_->setMinimumWidth(120);
  auto* line = new QHBoxLayout;
  line->addWidget(new QLabel(tr("Drive between them:  first")));
  line->addWidget(slider_, 1);
  line->addWidget(new QLabel(tr("second")));
  line->addWidget(blended_);
  connect(slider_, &QSlider::sliderPressed, this, [this] { gesture_ = desk_.new_gesture(); });
  connect(slider_, &QSlider::valueChanged, this, &CompareWindow::blend);
  return line;
}

void CompareWindow::offer(const QString& name, const Profile& profile) {
  opened_.push_back({name, profile});
  fill_choices();
}

void CompareWindow::add(const QString& name, const Profile& profile) {
  offer(name, profile);
  second_->setCurrentText(name);
}

// The values as they are now stay the same while one blends: they are taken when the window opens.
void CompareWindow::fill_choices() {
  const QString was_first = first_->currentText(), was_second = second_->currentText();
  const Choice now =
      choices_.empty() ? Choice{tr("values when this was opened"), desk_.now()} : choices_.front();
  choices_ = {now, {tr("as saved"), desk_.saved()}};
  choices_.insert(choices_.end(), opened_.begin(), opened_.end());
  for (const Snapshot& s : desk_.snapshots()) choices_.push_back({s.name, s.profile});
  for (QComboBox* box : {first_, second_}) {
    const QSignalBlocker quiet(box);
    box->clear();
    for (const Choice& choice : choices_) box->addItem(choice.name);
    const int old = box->findText(box == first_ ? was_first : was_second);
    box->setCurrentIndex(old >= 0 ? old : box == first_ ? 0 : 1);
  }
  show_both();
}

const Profile& CompareWindow::first() const {
  return choices_[std::size_t(std::max(first_->currentIndex(), 0))].profile;
}
const Profile& CompareWindow::second() const {
  return choices_[std::size_t(std::max(second_->currentIndex(), 0))].profile;
}

void CompareWindow::show_both() {
  const auto found = differences(first(), second());
  said_->setText(found.empty() ? tr("Nothing differs. Choose another profile, or open one.")
                               : tr("Differences: %1. Solid lines: first; dashed: second.").arg(found.size()));
  table_->setRowCount(int(found.size()));
  for (int i = 0; i < int(found.size()); ++i) {
    const ProfileDifference& d = found[std::size_t(i)];
    const QString texts[] = {QString::fromStdString(d.path), QString::fromStdString(d.from),
                             QString::fromStdString(d.to), qt(d.unit)};
    for (int column = 0; column < 4; ++column) {
      auto* item = new QTableWidgetItem(texts[column]);
      item->setToolTip(plain_tip(texts[column]));
      table_->setItem(i, column, item);
    }
  }
  table_->resizeColumnsToContents();
  table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
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
}

void CompareWindow::blend(int share) {
  if (gesture_ == 0 || !slider_->isSliderDown()) gesture_ = desk_.new_gesture();
  Profile between = blended(first(), second(), double(share) / kSteps);
  between.name = desk_.now().name;
  between.notes = desk_.now().notes;
  if (desk_.set(between, tr("blend"), gesture_)) blended_->setText(tr("%1 % second").arg(share));
}

}  // namespace lagniappe::app
