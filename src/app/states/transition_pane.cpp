// SPDX-License-Identifier: GPL-3.0-or-later
#include "states/transition_pane.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "states/guard_words.h"
#include "states/lua_editor.h"
#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kLongestFault = 150;  // Characters.
constexpr int kGuardHeight = 84, kActionHeight = 46;

QLabel* caption(const QString& text) {
  auto* label = new QLabel(text);
  label->setObjectName("caption");
  label->setWordWrap(true);
  return label;
}

}  // namespace

TransitionPane::TransitionPane(StatesDesk& desk, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      title_(new QLabel),
      whose_(caption({})),
      fault_(caption({})),
      parts_(new QLabel),
      fired_(caption({})),
      remark_(caption({})),
      which_(new QComboBox),
      guard_(new LuaEditor(LuaEditor::Kind::Guard)),
      action_(new LuaEditor(LuaEditor::Kind::Action)),
      priority_(new QSpinBox),
      stay_(new QDoubleSpinBox),
      add_(new QPushButton(theme::icon("check"), tr("Add a transition"))),
      remove_(new QPushButton(theme::icon("trash-2"), tr("Remove"))),
      before_(new QPushButton(theme::icon("chevron-left"), {})),
      after_(new QPushButton(theme::icon("chevron-right"), {})),
      base_(new BaseLine),
      editing_(new QWidget),
      firing_row_(nullptr) {
  setObjectName("sidePage");
  setAttribute(Qt::WA_StyledBackground);
  lay_out();
  connect_parts();
  show_cell();
}

void TransitionPane::lay_out() {
  title_->setObjectName("columnTitle");
  title_->setWordWrap(true);
  fault_->setObjectName("fault");
  remark_->setObjectName("drift");
  parts_->setWordWrap(true);
  parts_->setTextFormat(Qt::RichText);
  parts_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  guard_->setFixedHeight(kGuardHeight);
  guard_->setAccessibleName(tr("Guard"));
  action_->setFixedHeight(kActionHeight);
  action_->setAccessibleName(tr("Action"));
  auto* inside = new QVBoxLayout(editing_);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(5);
  for (QWidget* part :
       std::initializer_list<QWidget*>{which_, whose_, caption(tr("Guard: taken when this holds")), guard_,
                                       fault_, parts_, make_numbers(), make_firings()})
    inside->addWidget(part);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(10, 8, 8, 8);
  column->setSpacing(6);
  column->addWidget(title_);
  column->addWidget(remark_);
  column->addWidget(base_);
  column->addWidget(editing_);
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(add_);
  buttons->addWidget(remove_);
  column->addLayout(buttons);
  column->addStretch(1);
}

void TransitionPane::connect_parts() {
  connect(base_, &BaseLine::put_back, this, [this] {
    const auto [from, to] = ends();
    desk_.change(with_put_back(desk_.table(), from, to), tr("put back %1 to %2").arg(qt(from), qt(to)));
  });
  connect(add_, &QPushButton::clicked, this, &TransitionPane::add_transition);
  connect(remove_, &QPushButton::clicked, this, &TransitionPane::remove_transition);
  connect(which_, &QComboBox::currentIndexChanged, this, [this] {
    if (!showing_) show_row();
  });
  connect(guard_, &LuaEditor::edited, this, [this](const QString& text) {
    change_row([&](TransitionSpec& t) { t.guard = text.toStdString(); }, tr("guard"), true);
  });
  connect(guard_, &LuaEditor::fault_changed, this, &TransitionPane::show_fault);
  connect(guard_, &LuaEditor::left, this, &TransitionPane::left);
  connect(action_, &LuaEditor::edited, this, [this](const QString& text) {
    change_row([&](TransitionSpec& t) { t.action = text.trimmed().isEmpty() ? "" : text.toStdString(); },
               tr("action"), true);
  });
  connect(action_, &LuaEditor::fault_changed, this, &TransitionPane::show_fault);
  connect(action_, &LuaEditor::left, this, &TransitionPane::left);
  connect(priority_, &QSpinBox::valueChanged, this,
          [this](int value) { change_row([&](TransitionSpec& t) { t.priority = value; }, tr("priority")); });
  connect(stay_, &QDoubleSpinBox::valueChanged, this, [this](double value) {
    change_row([&](TransitionSpec& t) { t.shortest_stay = value; }, tr("shortest stay"));
  });
  connect(&desk_, &StatesDesk::chosen_changed, this, &TransitionPane::show_cell);
  connect(&desk_, &StatesDesk::table_changed, this, &TransitionPane::show_cell);
  connect(&desk_, &StatesDesk::firings_changed, this, &TransitionPane::show_firings);
  connect(&desk_, &StatesDesk::moved, this, &TransitionPane::show_now);
}

QWidget* TransitionPane::make_numbers() {
  auto* box = new QWidget;
  auto* form = new QFormLayout(box);
  form->setContentsMargins(0, 4, 0, 0);
  form->setVerticalSpacing(4);
  priority_->setRange(-1000, 1000);
  for (QAbstractSpinBox* field : std::initializer_list<QAbstractSpinBox*>{priority_, stay_})
    field->setButtonSymbols(QAbstractSpinBox::NoButtons);
  priority_->setKeyboardTracking(false);
  priority_->setToolTip(tr("Of two that hold, the higher is taken"));
  stay_->setRange(0.0, 3600.0);
  stay_->setDecimals(3);
  stay_->setSingleStep(0.05);
  stay_->setSuffix(" s");
  stay_->setKeyboardTracking(false);
  stay_->setToolTip(tr("How long the state must have lasted. Longer: calmer, and later"));
  form->addRow(tr("Priority"), priority_);
  form->addRow(tr("Shortest stay"), stay_);
  form->addRow(tr("On the way"), action_);
  action_->setToolTip(tr("Lua, done when it is taken: jump(), memory.breath = 0, velocity.up = 3 …"));
  return box;
}

QWidget* TransitionPane::make_firings() {
  firing_row_ = new QWidget;
  auto* line = new QHBoxLayout(firing_row_);
  line->setContentsMargins(0, 4, 0, 0);
  line->addWidget(fired_, 1);
  line->addWidget(before_);
  line->addWidget(after_);
  before_->setToolTip(tr("To the firing before the playhead"));
  after_->setToolTip(tr("To the firing after the playhead"));
  before_->setAccessibleName(before_->toolTip());
  after_->setAccessibleName(after_->toolTip());
  connect(before_, &QPushButton::clicked, this, [this] { go_to_firing(-1); });
  connect(after_, &QPushButton::clicked, this, [this] { go_to_firing(+1); });
  return firing_row_;
}

std::optional<std::size_t> TransitionPane::row() const {
  if (!desk_.chosen()) return std::nullopt;
  const auto& rows = desk_.matrix().cell(desk_.chosen()->source, desk_.chosen()->column).rows;
  const auto at = std::size_t(std::max(which_->currentIndex(), 0));
  return at < rows.size() ? std::optional(rows[at]) : std::nullopt;
}

void TransitionPane::show_cell() {
  const auto& cell = desk_.chosen();
  remark_->hide();
  if (!cell) {
    title_->setText(tr("Choose a cell: its row is left for its column when its guard holds."));
    editing_->hide();
    base_->hide();
    add_->hide();
    remove_->hide();
    return;
  }
  const StateMatrix::Cell& content = desk_.matrix().cell(cell->source, cell->column);
  title_->setText(
      tr("%1 \u2192 %2")
          .arg(qt(desk_.matrix().sources()[cell->source].name), qt(desk_.table().states[cell->column].name)));
  showing_ = true;
  const int kept = which_->currentIndex();
  which_->clear();
  for (const std::size_t r : content.rows)
    which_->addItem(QString("%1  %2")
                        .arg(desk_.table().transitions[r].priority)
                        .arg(qt(desk_.table().transitions[r].guard).simplified().left(40)));
  which_->setCurrentIndex(std::clamp(kept, 0, std::max(which_->count() - 1, 0)));
  which_->setVisible(content.rows.size() > 1);
  which_->setToolTip(tr("Several transitions lead there, in this order"));
  showing_ = false;
  editing_->setVisible(!content.rows.empty());
  add_->setVisible(true);
  remove_->setVisible(!content.rows.empty());
  if (content.shadowed) {
    const bool unfilled = desk_.table().transitions[content.rows.front()].guard.starts_with("false");
    remark_->setText(
        unfilled ? tr("Never taken: its guard is false. Write when it is to be taken.")
                 : tr("Never taken: another transition is asked before it and holds whenever it does."));
    remark_->show();
  }
  show_base();
  show_row();
}

std::pair<std::string, std::string> TransitionPane::ends() const {
  const auto [source, column] = *desk_.chosen();
  return {desk_.matrix().sources()[source].name, desk_.table().states[column].name};
}

// A cell that holds only what a group hands down says nothing of itself.
void TransitionPane::show_base() {
  const auto [from, to] = ends();
  const Standing standing = standing_of(desk_.table(), from, to);
  base_->show_standing(standing, tr("this transition"));
  const auto& content = desk_.matrix().cell(desk_.chosen()->source, desk_.chosen()->column);
  if (standing == Standing::BuiltIn && content.own == 0) base_->hide();
}

void TransitionPane::show_row() {
  const auto at = row();
  if (!at) return;
  showing_ = true;
  const TransitionSpec& t = desk_.table().transitions[*at];
  const bool own = desk_.matrix().is_own(desk_.chosen()->source, *at);
  whose_->setText(own ? QString()
                      : tr("From %1: what is changed here changes it for all its states.").arg(qt(t.from)));
  whose_->setVisible(!own);
  guard_->set_memory(desk_.table().memory);
  action_->set_memory(desk_.table().memory);
  guard_->show_text(qt(t.guard));
  action_->show_text(qt(t.action));
  priority_->setValue(t.priority);
  stay_->setValue(t.shortest_stay);
  showing_ = false;
  if (!guard_->hasFocus() && !action_->hasFocus()) gesture_ = 0;
  show_fault();
  show_now();
  show_firings();
}

void TransitionPane::show_fault() {
  const QString guard = guard_->fault(), action = action_->fault();
  fault_->setText(!guard.isEmpty()    ? tr("%1. The guard before goes on.").arg(guard.left(kLongestFault))
                  : !action.isEmpty() ? tr("Action: %1. The one before goes on.").arg(action)
                                      : failure());
  fault_->setVisible(!fault_->text().isEmpty());
}

// What went wrong while driving is told where it is written.
QString TransitionPane::failure() const {
  const auto at = row();
  if (!at) return {};
  const QString name = qt(transition_name(desk_.chart(), *at));
  const QString action = desk_.failure_of(name + ", on the way"), guard = desk_.failure_of(name);
  return !action.isEmpty() ? tr("Action: %1").arg(action) : guard;
}

void TransitionPane::show_now() {
  const auto at = row();
  if (!at || !isVisible()) return;
  const Recording* read = desk_.subject();
  const auto& source = desk_.matrix().sources()[desk_.chosen()->source];
  // A group's guards are looked at from the state that is now, if it is of the group.
  const StateId from = source.kind == StateMatrix::Source::Kind::State ? source.state : desk_.state_now();
  const StateChart::Transition* t = transition_of(desk_.chart(), from, *at);
  if (read == nullptr || t == nullptr) {
    parts_->setText(read == nullptr ? tr("No take by this table is shown.")
                                    : tr("The present state is not one that it leaves."));
    return guard_->show_parts({});
  }
  const GuardStory story = desk_.story(*t, desk_.tick(), false);
  parts_->setText(tr("At %1, in %2:<br>")
                      .arg(desk_.time_text(desk_.tick()),
                           qt(std::string(desk_.chart().name_of(desk_.state_now()))).toHtmlEscaped()) +
                  story_html(desk_.table().transitions[*at].guard, story));
  guard_->show_parts(guard_->fault().isEmpty() ? story.verdict.parts : std::vector<GuardPart>());
}

QString TransitionPane::parts_text() const { return parts_->text(); }

void TransitionPane::show_firings() {
  if (!desk_.chosen() || !isVisible()) return;
  show_fault();
  const auto firings = desk_.chosen_firings();
  firing_row_->setVisible(desk_.subject() != nullptr);
  const QString times = firings.size() == 1 ? tr("once") : tr("%1 times").arg(firings.size());
  fired_->setText(firings.empty()
                      ? tr("Never fired in this take.")
                      : tr("Fired %1, last at %2.").arg(times, desk_.time_text(firings.back().tick)));
  for (QPushButton* button : {before_, after_}) button->setEnabled(!firings.empty());
}

void TransitionPane::go_to_firing(int direction) {
  std::optional<std::size_t> to;
  for (const Firing& f : desk_.chosen_firings()) {
    if (direction > 0 && f.tick > desk_.tick() && !to) to = f.tick;
    if (direction < 0 && f.tick < desk_.tick()) to = f.tick;
  }
  if (to) desk_.show_tick(*to);
}

void TransitionPane::change_row(const std::function<void(TransitionSpec&)>& change, const QString& what,
                                bool typed) {
  const auto at = row();
  if (showing_ || !at) return;
  StateTable table = desk_.table();
  change(table.transitions[*at]);
  if (table == desk_.table()) return;
  // What is typed without a pause elsewhere is undone at once.
  if (typed && gesture_ == 0) gesture_ = desk_.new_gesture();
  desk_.change(table, tr("%1 of %2").arg(what, qt(transition_name(desk_.chart(), *at))), typed ? gesture_ : 0);
}

void TransitionPane::edit_guard() {
  if (!desk_.chosen()) return;
  if (!row()) add_transition();
  gesture_ = 0;
  guard_->setFocus(Qt::ShortcutFocusReason);
  guard_->selectAll();
}

void TransitionPane::add_transition() {
  if (!desk_.chosen()) return;
  const auto [source, column] = *desk_.chosen();
  StateTable table = desk_.table();
  TransitionSpec t;
  t.from = desk_.matrix().sources()[source].name;
  t.to = table.states[column].name;
  t.guard = "false";  // Never taken until it is filled in.
  const std::string from = t.from, to = t.to;
  table.transitions.push_back(std::move(t));
  if (!desk_.change(table, tr("add %1 to %2").arg(qt(from), qt(to)))) return;
  const auto& rows = desk_.matrix().cell(source, column).rows;
  const auto last = std::find(rows.begin(), rows.end(), desk_.table().transitions.size() - 1);
  if (last != rows.end()) which_->setCurrentIndex(int(last - rows.begin()));
  guard_->setFocus(Qt::ShortcutFocusReason);
  guard_->selectAll();
}

void TransitionPane::remove_transition() {
  const auto at = row();
  if (!at) return;
  StateTable table = desk_.table();
  const QString name = qt(transition_name(desk_.chart(), *at));
  table.transitions.erase(table.transitions.begin() + std::ptrdiff_t(*at));
  desk_.change(table, tr("remove %1").arg(name));
}

}  // namespace lagniappe::app
