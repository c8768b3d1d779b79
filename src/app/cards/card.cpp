// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/card.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QToolButton>
#include <cmath>

#include "cards/air_jumps_row.h"
#include "cards/drawing_view.h"
#include "cards/jump_locks_row.h"
#include "cards/value_row.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

QToolButton* header_button(const char* icon, const QString& tip) {
  auto* button = new QToolButton;
  button->setObjectName("cardButton");
  button->setIcon(theme::icon(icon));
  button->setIconSize({14, 14});
  button->setToolTip(tip);
  button->setAccessibleName(tip);
  return button;
}

QString figure_text(const Figure& f) {
  const QString unit = f.unit.empty() ? QString() : " " + QString::fromStdString(f.unit);
  return std::isfinite(f.value) ? QString::number(f.value, 'g', 3) + unit : Card::tr("never");
}

}  // namespace

Card::Card(const CardSpec& spec, JumpLocks& locks, ValuesDesk& desk, DriveSession& session, QWidget* parent)
    : QFrame(parent),
      spec_(spec),
      desk_(desk),
      session_(session),
      fold_(header_button("chevron-down", tr("Fold %1").arg(tr(spec.title)))),
      tear_(header_button("external-link", tr("Tear %1 off into a window of its own").arg(tr(spec.title)))),
      count_(new QLabel),
      content_(new QWidget),
      figures_(new QGridLayout) {
  setObjectName("card");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 4, 0, 8);
  column->setSpacing(4);
  column->addWidget(make_header());
  auto* inside = new QVBoxLayout(content_);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(1);
  for (const auto& make : spec.drawings) {
    drawings_.push_back(new DrawingView(make(locks), &desk));
    drawings_.back()->setAccessibleName(tr("Drawing of %1").arg(tr(spec.title)));
    inside->addWidget(drawings_.back());
  }
  const bool jumps = qstrcmp(spec.id, "jump") == 0;
  if (jumps) {
    jump_ = new JumpLocksRow(locks, desk);
    inside->addWidget(jump_);
    rows_ = jump_->rows();
  }
  for (const std::string& path : spec.paths) {
    const bool locked =
        jumps && (path == std::string_view("jump.height") || path == std::string_view("gravity"));
    if (locked) continue;
    rows_.push_back(new ValueRow(path, desk));
    inside->addWidget(rows_.back());
    if (path != std::string_view("jump.air_jumps")) continue;
    air_jumps_ = new AirJumpsRow(desk);
    inside->addWidget(air_jumps_);
  }
  figures_->setContentsMargins(14, 6, 0, 0);
  figures_->setVerticalSpacing(1);
  figures_->setColumnStretch(0, 1);
  inside->addLayout(figures_);
  column->addWidget(content_);
}

QWidget* Card::make_header() {
  auto* header = new QWidget;
  auto* line = new QHBoxLayout(header);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(4);
  auto* title = new QLabel(tr(spec_.title));
  title->setObjectName("cardTitle");
  count_->setObjectName("caption");
  line->addWidget(fold_);
  line->addWidget(title, 1);
  line->addWidget(count_);
  line->addWidget(tear_);
  connect(fold_, &QToolButton::clicked, this, [this] {
    set_folded(!folded_);
    emit folded_changed();
  });
  connect(tear_, &QToolButton::clicked, this, &Card::tear_off_asked);
  return header;
}

void Card::set_folded(bool folded) {
  folded_ = folded;
  content_->setVisible(!folded);
  fold_->setIcon(theme::icon(folded ? "chevron-right" : "chevron-down"));
  if (!folded) show_profiles();
}

void Card::set_torn_off(bool torn) {
  tear_->setIcon(theme::icon(torn ? "undo-2" : "external-link"));
  tear_->setToolTip(torn ? tr("Put it back among the cards")
                         : tr("Tear %1 off into a window of its own").arg(title()));
}

bool Card::search(const QString& words) {
  words_ = words.trimmed();
  bool any = words_.isEmpty() || title().contains(words_, Qt::CaseInsensitive);
  for (const ValueRow* row : rows_) any = any || row->fits(words_);
  content_->setVisible(words_.isEmpty() ? !folded_ : any);
  show_profiles();
  return any;
}

// What does not apply to the chosen model is not in the way, unless it is looked for.
void Card::show_rows() {
  const bool whole = words_.isEmpty() || title().contains(words_, Qt::CaseInsensitive);
  for (ValueRow* row : rows_) row->setVisible(whole ? applies(row->path(), desk_.now()) : row->fits(words_));
  for (DrawingView* drawing : drawings_) drawing->setVisible(whole);
  if (jump_ != nullptr)
    jump_->setVisible(whole || jump_->rows()[0]->fits(words_) || jump_->rows()[1]->fits(words_));
}

void Card::show_profiles() {
  const Profile &now = desk_.now(), &reference = desk_.reference();
  int changed = 0;
  for (ValueRow* row : rows_) {
    row->show_profiles(now, reference);
    changed += row->differs();
  }
  count_->setText(changed > 0 ? tr("%n changed", nullptr, changed)
                              : tr("%n values", nullptr, int(rows_.size())));
  if (!content_->isVisibleTo(this)) return;
  for (DrawingView* drawing : drawings_) drawing->show_profiles(now, reference, session_.tick_rate());
  if (jump_ != nullptr) jump_->show_profiles(now, reference);
  if (air_jumps_ != nullptr) air_jumps_->show_profile(now);
  show_rows();
  show_figures();
}

void Card::show_figures() {
  const int rate = session_.tick_rate();
  const std::vector<Figure> now = figures_of(desk_.now(), rate), then = figures_of(desk_.reference(), rate);
  int at = 0;
  for (const Figure& f : now) {
    if (f.group != spec_.figures) continue;
    if (figures_->itemAtPosition(at, 0) == nullptr) {
      for (const int column : {0, 1}) {
        auto* label = new QLabel;
        label->setObjectName(column == 0 ? "caption" : "figure");
        figures_->addWidget(label, at, column, column == 0 ? Qt::AlignLeft : Qt::AlignRight);
      }
    }
    const auto old = std::find_if(then.begin(), then.end(),
                                  [&](const Figure& o) { return o.group == f.group && o.key == f.key; });
    const bool differs =
        old != then.end() && old->value != f.value && !(std::isnan(old->value) && std::isnan(f.value));
    auto* name = static_cast<QLabel*>(figures_->itemAtPosition(at, 0)->widget());
    auto* value = static_cast<QLabel*>(figures_->itemAtPosition(at, 1)->widget());
    name->setText(QString::fromStdString(f.key).replace('_', ' '));
    value->setText(figure_text(f) + (differs ? tr("  was %1").arg(figure_text(*old)) : QString()));
    for (QLabel* label : {name, value}) label->setToolTip(QString::fromStdString(f.formula));
    name->show();
    value->show();
    ++at;
  }
  for (; figures_->itemAtPosition(at, 0) != nullptr; ++at) {
    for (const int column : {0, 1}) figures_->itemAtPosition(at, column)->widget()->hide();
  }
}

}  // namespace lagniappe::app
