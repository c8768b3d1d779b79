// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/transport.h"

#include <QAbstractItemView>
#include <QActionGroup>
#include <QButtonGroup>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QToolButton>

#include "theme/text.h"
#include "widgets/flow_layout.h"

namespace lagniappe::app {
namespace {

const char* const kScaleTexts[] = {"×1", "×½", "×¼", "×⅒"};
constexpr std::array kEvents = {Event::StateChange, Event::Landing,     Event::Jump,          Event::LeftGround,
                                Event::Step,        Event::StepRefused, Event::Wall,          Event::Snap,
                                Event::PushOut,     Event::JumpRefused, Event::Ceiling,       Event::Carried,
                                Event::Pushed,      Event::Mantle,      Event::MantleRefused, Event::LetGo,
                                Event::Caught,      Event::ZoneEntered, Event::ZoneLeft,      Event::Thrown};
constexpr int kOnionSkins[] = {0, 5, 10, 20, 60};
constexpr double kTrailSeconds[] = {2.0, 6.0, 20.0, 60.0};

QToolButton* button_for(QAction* action) {
  auto* button = new QToolButton;
  button->setDefaultAction(action);
  button->setToolButtonStyle(Qt::ToolButtonIconOnly);
  button->setFocusPolicy(Qt::TabFocus);
  button->setIconSize({16, 16});
  return button;
}

QToolButton* menu_button(const QString& text, const QString& tip) {
  auto* button = new QToolButton;
  button->setText(text);
  button->setToolTip(tip);
  button->setPopupMode(QToolButton::InstantPopup);
  button->setFocusPolicy(Qt::TabFocus);
  button->setMenu(new QMenu(button));
  return button;
}

// Entries of which one is chosen.
template <typename Value, typename Chosen>
void add_choices(QMenu* menu, const QString& title, const QList<std::pair<QString, Value>>& entries,
                 const Value& now, const Chosen& chosen) {
  if (!menu->isEmpty()) menu->addSeparator();
  menu->addAction(title)->setEnabled(false);
  auto* group = new QActionGroup(menu);
  for (const auto& [text, value] : entries) {
    QAction* action = menu->addAction(text);
    action->setCheckable(true);
    action->setChecked(value == now);
    group->addAction(action);
    QObject::connect(action, &QAction::triggered, menu, [chosen, value = value] { chosen(value); });
  }
}

}  // namespace

Transport::Transport(DriveSession& session, TakeDesk& desk, const Actions& actions, QWidget* parent)
    : QWidget(parent),
      session_(session),
      desk_(desk),
      scales_(new QButtonGroup(this)),
      rates_(new QComboBox),
      events_(new QComboBox) {
  setObjectName("transport");
  setAttribute(Qt::WA_StyledBackground);
  for (const Event event : kEvents) events_->addItem(qt(kEventNames[static_cast<std::size_t>(event)]));
  events_->setObjectName("events");
  events_->setToolTip(tr("What next and previous event go to"));
  auto* layout = new FlowLayout(this, 4);
  layout->setContentsMargins(10, 4, 10, 4);
  const auto add = [&](std::initializer_list<Act> acts) {
    for (const Act act : acts) layout->addWidget(button_for(actions[act]));
    layout->add_gap(8);
  };
  add({Act::Pause, Act::TickBack, Act::SingleTick, Act::PlayTape, Act::Loop});
  layout->addWidget(events_);
  add({Act::PreviousEvent, Act::NextEvent, Act::NextFinding});
  layout->addWidget(make_scales());
  layout->add_gap(8);
  layout->addWidget(make_rates());
  layout->add_gap(8);
  layout->addWidget(make_curves());
  layout->addWidget(make_trail());
  layout->add_gap(8);
  add({Act::FirstPerson, Act::Capsule, Act::Contacts, Act::Probe, Act::Arrows, Act::Grid});
}

QWidget* Transport::make_scales() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(2);
  for (int i = 0; i < 4; ++i) {
    auto* button = new QToolButton;
    button->setText(QString::fromUtf8(kScaleTexts[i]));
    button->setCheckable(true);
    button->setChecked(i == 0);
    button->setFocusPolicy(Qt::TabFocus);
    button->setToolTip(tr("Time scale: seconds of the run for a second of yours"));
    scales_->addButton(button, i);
    row->addWidget(button);
  }
  connect(scales_, &QButtonGroup::idClicked, this,
          [this](int id) { session_.set_time_scale(DriveSession::kTimeScales[static_cast<std::size_t>(id)]); });
  return box;
}

QWidget* Transport::make_rates() {
  rates_->setEditable(true);
  rates_->setObjectName("tickRate");
  rates_->setInsertPolicy(QComboBox::NoInsert);
  rates_->setMinimumWidth(76);
  rates_->addItems({"20", "30", "60", "120", "144", "240", "480"});
  rates_->setToolTip(
      tr("Tick rate: ticks per second, 10 to 480; by keys also while driving. Fewer: steps get "
         "coarse and the drawn figure lags more; more: costs "
         "time, moves the same. With a take at rest: runs it again at that rate"));
  rates_->setAccessibleName(tr("Tick rate, ticks per second"));
  const auto chosen = [this] {
    take_typed_rate();
    emit typed();
  };
  connect(rates_, &QComboBox::activated, this, chosen);
  connect(rates_->lineEdit(), &QLineEdit::returnPressed, this, chosen);
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(4);
  row->addWidget(rates_);
  row->addWidget(new QLabel(tr("ticks/s")));
  show_tick_rate();
  return box;
}

void Transport::take_typed_rate() {
  const QString text = rates_->currentText().trimmed();
  bool whole = false;
  const int rate = text.toInt(&whole);
  if (whole && rate >= kLowestTickRate && rate <= kHighestTickRate) return choose_tick_rate(rate);
  emit problem(tr("The tick rate stays at %1").arg(session_.tick_rate()),
               tr("\u201c%1\u201d: it must be a whole number from %2 to %3.")
                   .arg(text)
                   .arg(kLowestTickRate)
                   .arg(kHighestTickRate));
  put_tick_rate();
}

void Transport::step_tick_rate(int by) {
  const int now = session_.tick_rate();
  std::optional<int> next;
  for (int i = 0; i < rates_->count(); ++i) {
    const int rate = rates_->itemText(i).toInt();
    const bool beyond = by > 0 ? rate > now : rate < now;
    if (beyond && (!next || (by < 0) == (rate > *next))) next = rate;
  }
  if (next) choose_tick_rate(*next);
}

QToolButton* Transport::make_curves() {
  QToolButton* button =
      menu_button(tr("Curves"), tr("The curves on the tape: any signals, each with its own axis"));
  curves_menu_ = button->menu();
  for (const Signal& signal : all_signals()) {
    QAction* action = curves_menu_->addAction(qt(signal.name));
    action->setCheckable(true);
    action->setData(qt(signal.key));
    connect(action, &QAction::triggered, this, [this, key = qt(signal.key)](bool on) {
      on ? curves_.append(key) : void(curves_.removeAll(key));
      emit curves_chosen(curves_);
    });
  }
  return button;
}

void Transport::show_curves(const QStringList& keys) {
  curves_ = keys;
  for (QAction* action : curves_menu_->actions()) action->setChecked(keys.contains(action->data().toString()));
}

QToolButton* Transport::make_trail() {
  QToolButton* button = menu_button(tr("Trail"), tr("Colour, length and onion skins of the way in the view"));
  QList<std::pair<QString, QString>> colours = {{tr("one colour"), ""}, {tr("state"), "state"}};
  for (const Signal& signal : all_signals()) colours.append({qt(signal.name), qt(signal.key)});
  add_choices<QString>(button->menu()->addMenu(tr("Colour by")), tr("Colour by"), colours, trail_.colour_by,
                       [this](const QString& key) {
                         trail_.colour_by = key;
                         announce_trail();
                       });
  QList<std::pair<QString, int>> skins;
  for (const int n : kOnionSkins) skins.append({n == 0 ? tr("none") : tr("every %n ticks", nullptr, n), n});
  add_choices<int>(button->menu(), tr("Onion skins"), skins, trail_.onion_skins, [this](int n) {
    trail_.onion_skins = n;
    announce_trail();
  });
  QList<std::pair<QString, double>> reaches;
  for (const double s : kTrailSeconds) reaches.append({tr("%1 s either way").arg(s), s});
  add_choices<double>(button->menu(), tr("Length"), reaches, trail_.seconds, [this](double s) {
    trail_.seconds = s;
    announce_trail();
  });
  return button;
}

void Transport::announce_trail() { emit trail_chosen(trail_.colour_by, trail_.onion_skins, trail_.seconds); }

// As high as its rows are: what lies below must know.
void Transport::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  const int height = layout()->heightForWidth(width());
  if (height == minimumHeight()) return;
  setMinimumHeight(height);
  emit rows_changed();
}

void Transport::step_time_scale(int by) {
  const int id = std::clamp(scales_->checkedId() + by, 0, int(DriveSession::kTimeScales.size()) - 1);
  scales_->button(id)->click();
}

void Transport::choose_tick_rate(int rate) {
  desk_.set_tick_rate(std::clamp(rate, kLowestTickRate, kHighestTickRate));
  put_tick_rate();
}

void Transport::show_tick_rate() {
  if (!rates_->hasFocus() && !rates_->lineEdit()->hasFocus()) put_tick_rate();
}

// The present one is marked in the list, if it is there.
void Transport::put_tick_rate() {
  const QString text = QString::number(session_.tick_rate());
  rates_->setCurrentIndex(rates_->findText(text));
  rates_->setEditText(text);
}

Event Transport::chosen_event() const {
  return kEvents[static_cast<std::size_t>(std::max(events_->currentIndex(), 0))];
}

void Transport::choose_event(Event event) {
  const auto found = std::find(kEvents.begin(), kEvents.end(), event);
  events_->setCurrentIndex(int(found - kEvents.begin()));
}

}  // namespace lagniappe::app
