// SPDX-License-Identifier: GPL-3.0-or-later
#include "states/why_pane.h"

#include <QComboBox>
#include <QLabel>
#include <QVBoxLayout>

#include "states/guard_words.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr std::size_t kChain = 5;  // Changes that are told.

QString name_of(const StatesDesk& desk, StateId id) {
  const std::string_view name = desk.chart().name_of(id);
  return QString::fromUtf8(name.data(), qsizetype(name.size())).toHtmlEscaped();
}

QLabel* text_label() {
  auto* label = new QLabel;
  label->setWordWrap(true);
  label->setTextFormat(Qt::RichText);
  label->setTextInteractionFlags(Qt::TextBrowserInteraction);
  label->setAlignment(Qt::AlignTop);
  return label;
}

QLabel* title(const QString& text) {
  auto* label = new QLabel(text);
  label->setObjectName("cardTitle");
  return label;
}

}  // namespace

WhyPane::WhyPane(StatesDesk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), here_(text_label()), there_(text_label()), target_(new QComboBox) {
  setObjectName("sidePage");
  setAttribute(Qt::WA_StyledBackground);
  target_->setAccessibleName(tr("The state that is asked about"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(10, 8, 8, 8);
  column->setSpacing(6);
  column->addWidget(title(tr("Why is it here?")));
  column->addWidget(here_);
  column->addSpacing(8);
  column->addWidget(title(tr("Why is it not in")));
  column->addWidget(target_);
  column->addWidget(there_, 1);
  connect(here_, &QLabel::linkActivated, this,
          [this](const QString& tick) { desk_.show_tick(tick.toULongLong()); });
  connect(target_, &QComboBox::currentIndexChanged, this, &WhyPane::explain);
  connect(&desk_, &StatesDesk::table_changed, this, &WhyPane::show_states);
  connect(&desk_, &StatesDesk::firings_changed, this, &WhyPane::explain);
  connect(&desk_, &StatesDesk::moved, this, &WhyPane::explain);
  show_states();
}

void WhyPane::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  explain();
}

void WhyPane::ask_about(StateId state) { target_->setCurrentIndex(int(state)); }
QString WhyPane::here_text() const { return here_->text(); }
QString WhyPane::there_text() const { return there_->text(); }

void WhyPane::show_states() {
  const QString before = target_->currentText();
  const QSignalBlocker quiet(target_);
  target_->clear();
  for (const StateSpec& s : desk_.table().states) target_->addItem(QString::fromStdString(s.name));
  target_->setCurrentIndex(std::max(target_->findText(before), 0));
  explain();
}

void WhyPane::explain() {
  if (!isVisible()) return;
  if (desk_.subject() == nullptr) {
    here_->setText(tr("No take by this table is shown. Drive, and every change of state can be asked about."));
    return there_->clear();
  }
  here_->setText(here());
  there_->setText(there(StateId(std::max(target_->currentIndex(), 0))));
}

QString WhyPane::here() const {
  const auto& all = desk_.firings();
  const auto end = std::upper_bound(all.begin(), all.end(), desk_.tick(),
                                    [](std::size_t tick, const Firing& f) { return tick < f.tick; });
  const auto count = std::min<std::size_t>(kChain, std::size_t(end - all.begin()));
  QString text =
      tr("At %1 it is in <b>%2</b>.").arg(desk_.time_text(desk_.tick()), name_of(desk_, desk_.state_now()));
  if (count == 0) return text + tr(" It has been since the start.");
  for (auto f = end; f != end - std::ptrdiff_t(count);) {
    --f;
    text += tr("<br><a href='%1' style='color:%2'>%3</a> %4: <code>%5</code>")
                .arg(f->tick)
                .arg(theme::teal().name())
                .arg(desk_.time_text(f->tick), firing_words(desk_, *f).toHtmlEscaped(),
                     firing_guard_words(desk_, *f).toHtmlEscaped());
  }
  return text;
}

QString WhyPane::there(StateId target) const {
  const StateId now = desk_.state_now();
  if (target == now) return tr("It is.");
  QString text;
  for (const StateChart::Transition& t : desk_.chart().state(now).leaving) {
    if (t.to != target) continue;
    const TransitionSpec& spec = desk_.table().transitions[t.row];
    const GuardStory story = desk_.story(t, desk_.tick(), true);
    text += tr("<p><b>%1 to %2</b>, priority %3<br>")
                .arg(QString::fromStdString(spec.from).toHtmlEscaped(),
                     QString::fromStdString(spec.to).toHtmlEscaped())
                .arg(spec.priority);
    const double stayed = desk_.subject()->run.state(desk_.tick()).state_time;
    if (stayed < t.shortest_stay)
      text += tr("\u2717 it has stayed %1 s of %2 s<br>").arg(stayed, 0, 'f', 3).arg(t.shortest_stay);
    text += story_html(spec.guard, story) + "</p>";
  }
  if (text.isEmpty())
    return tr("No transition leads from %1 to %2.").arg(name_of(desk_, now), name_of(desk_, target));
  return text;
}

}  // namespace lagniappe::app
