// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/cards_panel.h"

#include <QCloseEvent>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QSettings>
#include <QTimer>
#include <QToolButton>

#include "cards/card.h"
#include "cards/card_specs.h"
#include "cards/value_row.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

const char *const kFoldedKey = "cards/folded", *const kLocksKey = "cards/locks";
constexpr int kTornWidth = 330, kTornHeight = 620;

// A window for one card, which goes back when it is closed.
class TornOff : public QScrollArea {
 public:
  TornOff(QWidget* parent, std::function<void()> closed) : QScrollArea(parent), closed_(std::move(closed)) {
    setWindowFlags(Qt::Tool);
    setObjectName("torn");
    setWidgetResizable(true);
    setViewportMargins(10, 6, 10, 6);
    setAttribute(Qt::WA_DeleteOnClose);
    resize(kTornWidth, kTornHeight);
  }

 protected:
  void closeEvent(QCloseEvent* event) override {
    closed_();
    QScrollArea::closeEvent(event);
  }

 private:
  std::function<void()> closed_;
};

}  // namespace

CardsPanel::CardsPanel(HandlingDesk& desk, DriveSession& session, QSettings& settings, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      settings_(settings),
      search_(new QLineEdit),
      state_(new QLabel),
      nothing_(new QLabel(tr("No value is called that, and none is described so."))),
      save_(new QPushButton(tr("Save"))),
      area_(new QScrollArea),
      column_(nullptr) {
  setObjectName("sidePage");
  setAttribute(Qt::WA_StyledBackground);
  const QList<QVariant> locks = settings.value(kLocksKey).toList();
  if (locks.size() == 2 && locks[0] != locks[1])
    locks_ = {static_cast<JumpValue>(locks[0].toInt() & 3), static_cast<JumpValue>(locks[1].toInt() & 3)};
  auto* inside = new QWidget;
  inside->setObjectName("cardList");
  column_ = new QVBoxLayout(inside);
  column_->setContentsMargins(0, 0, 8, 0);
  column_->setSpacing(0);
  const QStringList folded =
      settings.value(kFoldedKey, QStringList{"body", "air", "walls", "look", "flight"}).toStringList();
  for (const CardSpec& spec : card_specs()) {
    auto* card = new Card(spec, locks_, desk, session);
    cards_.push_back(card);
    column_->addWidget(card);
    card->set_folded(folded.contains(spec.id));
    connect(card, &Card::folded_changed, this, &CardsPanel::keep_folds);
    connect(card, &Card::tear_off_asked, this, [this, card] { tear(card); });
  }
  nothing_->setWordWrap(true);
  nothing_->hide();
  column_->addWidget(nothing_);
  column_->addStretch(1);
  area_->setWidget(inside);
  area_->setWidgetResizable(true);
  area_->setFrameShape(QFrame::NoFrame);
  area_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(10, 8, 2, 0);
  column->setSpacing(6);
  column->addWidget(make_head());
  column->addWidget(area_, 1);
  connect(&desk_, &HandlingDesk::changed, this, &CardsPanel::show_all);
  connect(search_, &QLineEdit::textChanged, this, [this](const QString& words) {
    bool any = false;
    for (Card* card : cards_) {
      const bool fits = card->search(words);
      card->setVisible(fits);
      any = any || fits;
    }
    nothing_->setVisible(!any);
  });
  show_all();
}

CardsPanel::~CardsPanel() {
  settings_.setValue(kLocksKey, QList<QVariant>{int(locks_.first), int(locks_.second)});
}

QWidget* CardsPanel::make_head() {
  auto* head = new QWidget;
  auto* rows = new QVBoxLayout(head);
  rows->setContentsMargins(0, 0, 8, 0);
  rows->setSpacing(6);
  search_->setPlaceholderText(tr("Find a value"));
  search_->setClearButtonEnabled(true);
  search_->setObjectName("cardSearch");
  search_->setAccessibleName(search_->placeholderText());
  auto* menu = new QToolButton;
  menu->setObjectName("profileMenu");
  menu->setIcon(theme::icon("sliders-horizontal"));
  menu->setToolTip(tr("Save, compare, go back, export"));
  menu->setAccessibleName(tr("What is done with the profile"));
  connect(menu, &QToolButton::clicked, this,
          [this, menu] { emit menu_asked(menu->mapToGlobal(QPoint(0, menu->height()))); });
  auto* first = new QHBoxLayout;
  first->setSpacing(6);
  first->addWidget(search_, 1);
  first->addWidget(menu);
  rows->addLayout(first);
  state_->setObjectName("caption");
  state_->setWordWrap(true);
  save_->setObjectName("saveProfile");
  save_->setToolTip(tr("Write the changed values into the profile's file"));
  connect(save_, &QPushButton::clicked, this, &CardsPanel::save_asked);
  auto* second = new QHBoxLayout;
  second->addWidget(state_, 1);
  second->addWidget(save_);
  rows->addLayout(second);
  return head;
}

void CardsPanel::show_all() {
  const auto unsaved = desk_.unsaved().size();
  QString text = desk_.is_saved() ? tr("All values are as saved.")
                 : unsaved == 0   ? tr("Notes are not saved.")
                 : unsaved == 1   ? tr("1 value is not saved.")
                                  : tr("%1 values are not saved.").arg(unsaved);
  if (desk_.has_reference()) text += tr(" \u25c6 differs from %1.").arg(desk_.reference_name());
  if (!desk_.has_reference() && unsaved > 0) text += tr(" \u25c6 marks them.");
  if (desk_.feeling()) text = tr("Felt as long as the key is held: %1.").arg(desk_.attended());
  state_->setText(text);
  save_->setEnabled(!desk_.is_saved());
  for (Card* card : cards_) card->show_profiles();
}

void CardsPanel::find_value() {
  search_->setFocus(Qt::ShortcutFocusReason);
  search_->selectAll();
}

void CardsPanel::show_value(const std::string& path) {
  const CardSpec* spec = card_of(path);
  if (spec == nullptr) return;
  search_->clear();
  bring_up(spec->id);
  for (ValueRow* row : card(spec->id)->rows()) {
    if (row->path() != path) continue;
    if (row->isHidden())  // It has no effect as the other values are; found by its words it is shown.
      search_->setText(QString::fromStdString(path).replace('.', ' ').replace('_', ' '));
    row->take_focus();
    // Once what was unfolded has its place.
    QTimer::singleShot(0, row, [area = area_, row] { area->ensureWidgetVisible(row); });
  }
}

void CardsPanel::say_of_value(const std::string& path, const QString& text, const QString& enough) {
  const CardSpec* spec = card_of(path);
  if (spec == nullptr) return;
  for (ValueRow* row : card(spec->id)->rows()) {
    if (row->path() == path) row->say(text, enough);
  }
  show_value(path);
}

Card* CardsPanel::card(const QString& id) const {
  for (Card* card : cards_) {
    if (id == card->id()) return card;
  }
  return nullptr;
}

void CardsPanel::bring_up(const QString& id) {
  Card* wanted = card(id);
  if (wanted == nullptr) return;
  wanted->set_folded(false);
  area_->widget()->layout()->activate();
  area_->widget()->adjustSize();
  area_->verticalScrollBar()->setValue(wanted->y());
}

void CardsPanel::keep_folds() {
  QStringList folded;
  for (const Card* card : cards_) {
    if (card->folded()) folded.append(card->id());
  }
  settings_.setValue(kFoldedKey, folded);
}

void CardsPanel::tear(Card* card) {
  if (auto* torn = dynamic_cast<TornOff*>(card->window())) {
    torn->close();
    return;
  }
  auto* torn = new TornOff(this, [this, card] { put_back(card); });
  torn->setWindowTitle(card->title());
  torn->setWidget(card);
  card->set_torn_off(true);
  card->set_folded(false);
  torn->show();
}

void CardsPanel::put_back(Card* card) {
  if (auto* torn = dynamic_cast<TornOff*>(card->window())) torn->takeWidget();
  const auto at = std::find(cards_.begin(), cards_.end(), card) - cards_.begin();
  int place = 0;
  for (auto i = 0; i < at; ++i) place += cards_[std::size_t(i)]->parentWidget() == area_->widget();
  column_->insertWidget(place, card);
  card->set_torn_off(false);
  card->show();
}

}  // namespace lagniappe::app
