// SPDX-License-Identifier: GPL-3.0-or-later
#include "states/state_pane.h"

#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "cards/card.h"
#include "session/table_edits.h"
#include "states/lua_editor.h"
#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kActionHeight = 42, kScriptHeight = 130;

template <std::size_t kCount>
void fill_words(QComboBox& box, const std::array<std::string_view, kCount>& words) {
  box.addItem(StatePane::tr("as what it is like"));
  for (const std::string_view word : words) box.addItem(qt(word));
}

std::vector<std::string> words_of(const QString& text) {
  std::vector<std::string> words;
  for (const QString& word : text.split(' ', Qt::SkipEmptyParts)) words.push_back(word.toStdString());
  return words;
}

QString joined(const std::vector<std::string>& words) {
  QStringList list;
  for (const std::string& word : words) list.append(qt(word));
  return list.join(' ');
}

QPushButton* button(const char* icon, const QString& text, const QString& tip) {
  auto* made = new QPushButton(theme::icon(icon), text);
  made->setToolTip(tip);
  return made;
}

}  // namespace

StatePane::StatePane(StatesDesk& desk, HandlingDesk& handling, DriveSession& session, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      session_(session),
      values_(new StateValues(desk, handling, this)),
      name_(new QLineEdit),
      group_(new QLineEdit),
      pose_(new QLineEdit),
      forgets_(new QLineEdit),
      slots_(new QLineEdit),
      like_(new QComboBox),
      behaviour_(new QComboBox),
      stance_(new QComboBox),
      fallback_(new QComboBox),
      enter_(new LuaEditor(LuaEditor::Kind::Action)),
      exit_(new LuaEditor(LuaEditor::Kind::Action)),
      script_(new LuaEditor(LuaEditor::Kind::Script)),
      script_label_(new QLabel(tr("Script: Lua, run in every tick"))),
      overrides_(new QLabel),
      fault_(new QLabel),
      add_(button("check", tr("Add"), tr("A new state after this one"))),
      copy_(
          button("columns-2", tr("Duplicate"), tr("The same again under another name, with its transitions"))),
      remove_(
          button("trash-2", tr("Delete"), tr("With its transitions; what is like it keeps what it had of it"))),
      base_(new BaseLine),
      gone_(new BaseLine),
      inside_(nullptr) {
  setObjectName("sidePage");
  setAttribute(Qt::WA_StyledBackground);
  auto* inside = new QWidget;
  inside->setObjectName("cardList");
  inside_ = new QVBoxLayout(inside);
  inside_->setContentsMargins(10, 8, 8, 8);
  inside_->setSpacing(6);
  inside_->addWidget(make_buttons());
  inside_->addWidget(make_form());
  overrides_->setObjectName("caption");
  overrides_->setWordWrap(true);
  inside_->addWidget(overrides_);
  inside_->addWidget(make_table_form());
  inside_->addStretch(1);
  auto* area = new QScrollArea;
  area->setWidget(inside);
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->addWidget(area);
  connect_fields();
  connect(&desk_, &StatesDesk::table_changed, this, &StatePane::show_spec);
  connect(&desk_, &StatesDesk::firings_changed, this, [this] {
    if (isVisible() && !enter_->hasFocus() && !exit_->hasFocus() && !script_->hasFocus()) show_fault(failure());
  });
  show_spec();
}

QWidget* StatePane::make_buttons() {
  auto* box = new QWidget;
  auto* line = new QHBoxLayout(box);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(4);
  for (QPushButton* made : {add_, copy_, remove_}) line->addWidget(made);
  connect(add_, &QPushButton::clicked, this, &StatePane::add);
  connect(copy_, &QPushButton::clicked, this, &StatePane::duplicate);
  connect(remove_, &QPushButton::clicked, this, &StatePane::remove);
  return box;
}

QWidget* StatePane::make_form() {
  auto* box = new QWidget;
  auto* form = new QFormLayout(box);
  form->setContentsMargins(0, 0, 0, 0);
  form->setVerticalSpacing(4);
  fill_words(*behaviour_, behaviour_names());
  for (std::size_t i = 0; i < kBehaviourCount; ++i)
    behaviour_->setItemData(int(i) + 1, qt(facts_of(Behaviour(i)).help), Qt::ToolTipRole);
  fill_words(*stance_, kStanceNames);
  name_->setAccessibleName(tr("Name of the state"));
  name_->setObjectName("stateName");
  like_->setToolTip(tr("It is that state, save for what is said here"));
  group_->setToolTip(tr("States of a group share the transitions that begin at it"));
  group_->setPlaceholderText(tr("none"));
  behaviour_->setToolTip(tr("What code moves the capsule. Script: the Lua below"));
  stance_->setToolTip(tr("What the capsule becomes, as far as there is room"));
  pose_->setToolTip(tr("A word for the figure and for a game's animation"));
  forgets_->setToolTip(tr("Memory slots that entering sets to 0, with blanks between"));
  forgets_->setPlaceholderText(tr("no slots"));
  fault_->setObjectName("fault");
  fault_->setWordWrap(true);
  for (LuaEditor* editor : {enter_, exit_}) editor->setFixedHeight(kActionHeight);
  script_->setFixedHeight(kScriptHeight);
  enter_->setAccessibleName(tr("Action on entering"));
  exit_->setAccessibleName(tr("Action on leaving"));
  script_->setAccessibleName(tr("Script"));
  form->addRow(tr("Name"), name_);
  form->addRow(base_);
  form->addRow(tr("Is like"), like_);
  form->addRow(tr("Group"), group_);
  form->addRow(tr("Behaviour"), behaviour_);
  form->addRow(tr("Stance"), stance_);
  form->addRow(tr("Pose"), pose_);
  form->addRow(tr("Entering"), enter_);
  form->addRow(tr("Leaving"), exit_);
  form->addRow(tr("Forgets"), forgets_);
  form->addRow(script_label_);
  form->addRow(script_);
  form->addRow(fault_);
  return box;
}

// What is not one state's.
QWidget* StatePane::make_table_form() {
  auto* box = new QWidget;
  auto* form = new QFormLayout(box);
  form->setContentsMargins(0, 8, 0, 0);
  form->setVerticalSpacing(4);
  auto* title = new QLabel(tr("The whole table"));
  title->setObjectName("cardTitle");
  slots_->setPlaceholderText(tr("no slots"));
  slots_->setAccessibleName(tr("Memory slots of the table"));
  slots_->setToolTip(
      tr("Numbers that guards and scripts keep, by their names with blanks between: memory.breath"));
  fallback_->setToolTip(tr("Where one begins in the air, and goes when a script fails"));
  form->addRow(title);
  form->addRow(gone_);
  form->addRow(tr("Slots"), slots_);
  form->addRow(tr("Falls back to"), fallback_);
  take_line(slots_, [this] {
    StateTable table = desk_.table();
    table.memory = words_of(slots_->text());
    if (table != desk_.table() && !desk_.change(table, tr("slots of the table"))) show_spec();
  });
  connect(fallback_, &QComboBox::activated, this, [this](int at) {
    StateTable table = desk_.table();
    table.fallback = table.states[std::size_t(at)].name;
    if (table != desk_.table()) desk_.change(table, tr("where it falls back to"));
  });
  return box;
}

void StatePane::connect_fields() {
  connect(base_, &BaseLine::put_back, this, [this] {
    const QString name = qt(spec().name);
    desk_.change(with_put_back(desk_.table(), spec().name), tr("put back %1").arg(name));
  });
  connect(gone_, &BaseLine::put_back, this, [this] {
    desk_.change(with_states_put_back(desk_.table()),
                 tr("put back %1").arg(joined(states_gone(desk_.table()))));
  });
  take_line(name_, [this] { rename_to(name_->text().trimmed().toStdString()); });
  const auto text_field = [this](QLineEdit* field, const QString& what, std::string StateSpec::*member) {
    take_line(field, [this, field, what, member] {
      change_state([&](StateSpec& s) { s.*member = field->text().trimmed().toStdString(); }, what);
    });
  };
  text_field(group_, tr("group"), &StateSpec::group);
  text_field(pose_, tr("pose"), &StateSpec::pose);
  take_line(forgets_, [this] {
    change_state([&](StateSpec& s) { s.memory = words_of(forgets_->text()); }, tr("slots"));
  });
  connect(like_, &QComboBox::activated, this, [this](int at) {
    change_state([&](StateSpec& s) { s.like = at == 0 ? "" : like_->itemText(at).toStdString(); },
                 tr("likeness"));
  });
  connect(behaviour_, &QComboBox::activated, this, [this](int at) {
    change_state(
        [&](StateSpec& s) {
          s.behaviour = at == 0 ? std::nullopt : std::optional(Behaviour(at - 1));
          // A script state has a script: this one lets the stick do what it does.
          if (s.behaviour && facts_of(*s.behaviour).scripted && s.script.empty())
            s.script = "steer(intent_forward, intent_right)";
        },
        tr("behaviour"));
  });
  connect(stance_, &QComboBox::activated, this, [this](int at) {
    change_state([&](StateSpec& s) { s.stance = at == 0 ? std::nullopt : std::optional(Stance(at - 1)); },
                 tr("stance"));
  });
  const auto lua_field = [this](LuaEditor* editor, const QString& what, std::string StateSpec::*member) {
    connect(editor, &LuaEditor::edited, this, [this, what, member](const QString& text) {
      if (gesture_ == 0) gesture_ = desk_.new_gesture();
      change_state([&](StateSpec& s) { s.*member = text.trimmed().isEmpty() ? "" : text.toStdString(); }, what,
                   gesture_);
    });
    connect(editor, &LuaEditor::fault_changed, this, [this, editor, what] {
      show_fault(editor->fault().isEmpty() ? failure()
                                           : tr("%1: %2. The one before goes on.").arg(what, editor->fault()));
    });
  };
  lua_field(enter_, tr("action on entering"), &StateSpec::on_entry);
  lua_field(exit_, tr("action on leaving"), &StateSpec::on_exit);
  lua_field(script_, tr("script"), &StateSpec::script);
}

void StatePane::show_fault(const QString& text) {
  fault_->setText(text);
  fault_->setVisible(!text.isEmpty());
}

// What went wrong while driving is told where it is written.
QString StatePane::failure() const {
  const QString name = qt(spec().name);
  const std::pair<QString, QString> scripts[] = {{tr("Action on entering"), "entering " + name},
                                                 {tr("Action on leaving"), "leaving " + name},
                                                 {tr("Script"), name}};
  for (const auto& [what, script] : scripts) {
    const QString failed = desk_.failure_of(script);
    if (!failed.isEmpty()) return what + ": " + failed;
  }
  return {};
}

// The cards of Drive, without those whose values no state may have of its own.
void StatePane::make_cards() {
  for (const CardSpec& card_spec : card_specs()) {
    const bool all = std::all_of(card_spec.paths.begin(), card_spec.paths.end(),
                                 [](const std::string& path) { return StateValues::may_differ(path); });
    if (!all) continue;
    auto* made = new Card(card_spec, locks_, *values_, session_);
    made->set_folded(true);
    connect(made, &Card::tear_off_asked, made, [made] { made->set_folded(!made->folded()); });
    cards_.push_back(made);
    inside_->insertWidget(inside_->count() - 2, made);  // Before what is the table's.
    connect(values_, &ValuesDesk::changed, made, &Card::show_profiles);
  }
}

Card* StatePane::card(const QString& id) const {
  for (Card* made : cards_) {
    if (id == made->id()) return made;
  }
  return nullptr;
}

void StatePane::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  if (cards_.empty()) make_cards();
  show_spec();
}

// What is typed stays, whatever is shown meanwhile, and belongs to the state that was shown then.
void StatePane::take_line(QLineEdit* line, std::function<void()> commit) {
  lines_.emplace_back(line, [this, line, commit = std::move(commit)] {
    if (showing_ || !line->isModified()) return;
    line->setModified(false);
    commit();
  });
  connect(line, &QLineEdit::editingFinished, this, lines_.back().second);
}

void StatePane::commit_lines() {
  for (const auto& [line, commit] : lines_) commit();
}

void StatePane::show_line(QLineEdit& line, const QString& text) {
  if (!line.isModified() && line.text() != text) line.setText(text);
}

void StatePane::rename_to(const std::string& name) {
  if (name == spec().name) return;
  const QString before = qt(spec().name);
  const auto renamed = with_state_renamed(desk_.table(), std::size_t(state()), name);
  if (!desk_.change(renamed, tr("rename %1").arg(before))) name_->setText(before);
}

void StatePane::show_state(StateId state) {
  commit_lines();
  gesture_ = 0;
  values_->show_state(state);
  show_spec();
}

void StatePane::show_spec() {
  if (std::size_t(state()) >= desk_.chart().size()) values_->show_state(StateId(desk_.chart().size() - 1));
  const StateSpec& s = spec();
  const StateChart::State& made = desk_.chart().state(state());
  showing_ = true;
  show_line(*name_, qt(s.name));
  show_line(*group_, qt(s.group));
  if (s.group.empty() && !made.group.empty())
    group_->setPlaceholderText(tr("%1, as what it is like").arg(qt(made.group)));
  if (made.group.empty()) group_->setPlaceholderText(tr("none"));
  show_line(*pose_, qt(s.pose));
  pose_->setPlaceholderText(qt(made.pose));
  show_line(*forgets_, joined(s.memory));
  show_line(*slots_, joined(desk_.table().memory));
  fallback_->clear();
  for (const StateSpec& state_spec : desk_.table().states) fallback_->addItem(qt(state_spec.name));
  fallback_->setCurrentIndex(int(desk_.chart().fallback()));
  like_->clear();
  like_->addItem(tr("nothing else"));
  for (const StateSpec& other : desk_.table().states) {
    if (other.name != s.name) like_->addItem(qt(other.name));
  }
  like_->setCurrentIndex(s.like.empty() ? 0 : std::max(like_->findText(qt(s.like)), 0));
  behaviour_->setCurrentIndex(s.behaviour ? 1 + int(*s.behaviour) : 0);
  stance_->setCurrentIndex(s.stance ? 1 + int(*s.stance) : 0);
  const bool scripted = facts_of(made.behaviour).scripted;
  for (LuaEditor* editor : {enter_, exit_, script_}) editor->set_memory(desk_.table().memory);
  enter_->show_text(qt(s.on_entry));
  exit_->show_text(qt(s.on_exit));
  script_->show_text(qt(s.script));
  script_->setVisible(scripted);
  script_label_->setVisible(scripted);
  remove_->setEnabled(desk_.chart().size() > 1);
  overrides_->setText(
      s.overrides.empty()
          ? tr("All values are the profile's. What is changed on a card here is so in %1 only.").arg(qt(s.name))
      : s.overrides.size() == 1 ? tr("One value is its own; a card marks it.")
                                : tr("%1 values are its own; a card marks them.").arg(s.overrides.size()));
  show_fault(failure());
  show_base();
  showing_ = false;
  for (Card* made_card : cards_) made_card->show_profiles();
}

// What of the state, and of the table, is as it is built in.
void StatePane::show_base() {
  base_->show_standing(standing_of(desk_.table(), spec().name), tr("this state"));
  const std::vector<std::string> gone = states_gone(desk_.table());
  gone_->show_text(
      gone.empty() ? QString() : tr("Deleted here, but in the built-in table: %1.").arg(joined(gone)),
      !gone.empty());
}

void StatePane::change_state(const std::function<void(StateSpec&)>& change, const QString& what, int gesture) {
  if (showing_) return;
  StateTable table = desk_.table();
  change(table.states[std::size_t(state())]);
  if (table == desk_.table()) return;
  if (!desk_.change(table, tr("%1 of %2").arg(what, qt(spec().name)), gesture)) show_spec();
}

void StatePane::rename() {
  name_->setFocus(Qt::ShortcutFocusReason);
  name_->selectAll();
}

void StatePane::add() {
  commit_lines();
  const std::size_t at = std::size_t(state()) + 1;
  if (!desk_.change(with_state_added(desk_.table(), at), tr("add a state"))) return;
  show_state(StateId(at));
  rename();
}

void StatePane::duplicate() {
  commit_lines();
  const std::size_t at = std::size_t(state());
  if (desk_.change(with_state_copied(desk_.table(), at), tr("duplicate %1").arg(qt(spec().name))))
    show_state(StateId(at + 1));
}

void StatePane::remove() {
  commit_lines();
  if (desk_.chart().size() < 2) return;
  const std::size_t at = std::size_t(state());
  const StateTable without = without_state(desk_.table(), at);
  if (desk_.change(without, tr("delete %1").arg(qt(spec().name)))) show_state(StateId(at > 0 ? at - 1 : 0));
}

void StatePane::move(std::size_t from, std::size_t to) {
  commit_lines();
  const QString name = qt(desk_.table().states[from].name);
  if (desk_.change(with_state_moved(desk_.table(), from, to), tr("move %1").arg(name))) show_state(StateId(to));
}

}  // namespace lagniappe::app
