// SPDX-License-Identifier: GPL-3.0-or-later
#include "panels/values_panel.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>
#include <QWheelEvent>
#include <cmath>

#include "lagniappe/files.h"
#include "lagniappe/profile_fields.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

QString qt(std::string_view text) { return QString::fromUtf8(text.data(), qsizetype(text.size())); }

// "ground/response" and "stop_time" are told as "ground response: stop time".
QString row_name(std::string_view section, std::string_view key) {
  QString name = qt(section).replace('/', ' ');
  name += name.isEmpty() ? qt(key) : ": " + qt(key);
  return name.replace('_', ' ');
}

// Does not take the wheel while the mouse only passes by.
class Number : public QDoubleSpinBox {
 public:
  Number() {
    setFocusPolicy(Qt::StrongFocus);
    setButtonSymbols(QAbstractSpinBox::NoButtons);
  }

 protected:
  void wheelEvent(QWheelEvent* event) override {
    hasFocus() ? QDoubleSpinBox::wheelEvent(event) : event->ignore();
  }
  QString textFromValue(double value) const override { return QString::number(value, 'g', 6); }
};

// A twentieth of the value, rounded to 1, 2 or 5.
double nudge_of(double value) {
  const double wanted = std::max(std::abs(value) / 20.0, 1e-4),
               power = std::pow(10.0, std::floor(std::log10(wanted)));
  const double part = wanted / power;
  return power * (part < 1.5 ? 1.0 : part < 3.5 ? 2.0 : part < 7.5 ? 5.0 : 10.0);
}

}  // namespace

ValuesPanel::ValuesPanel(TakeDesk& desk, DriveSession& session, QWidget* parent)
    : QWidget(parent), desk_(desk), session_(session), filter_(new QLineEdit) {
  filter_->setPlaceholderText(tr("Find a value"));
  filter_->setClearButtonEnabled(true);
  auto* inside = new QWidget;
  inside->setObjectName("valueList");
  auto* grid = new QGridLayout(inside);
  grid->setContentsMargins(0, 0, 6, 0);
  grid->setHorizontalSpacing(6);
  grid->setVerticalSpacing(3);
  grid->setColumnStretch(0, 1);
  for (const ProfileField& field : profile_fields()) add_field(*grid, field);
  for (const ProfileChoice& choice : profile_choices()) add_choice(*grid, choice);
  grid->setRowStretch(int(rows_.size()), 1);
  auto* area = new QScrollArea;
  area->setWidget(inside);
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setObjectName("sidePage");
  setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(10, 8, 4, 8);
  column->setSpacing(6);
  column->addWidget(filter_);
  column->addWidget(area, 1);
  connect(filter_, &QLineEdit::textChanged, this, &ValuesPanel::filter);
  connect(&desk_, &TakeDesk::values_changed, this, &ValuesPanel::show_values);
  connect(&desk_, &TakeDesk::shown_changed, this, &ValuesPanel::show_values);
  show_values();
}

void ValuesPanel::add_row(QGridLayout& grid, Row row, QWidget* editor) {
  const int at = int(rows_.size());
  row.label = new QLabel(row.name);
  row.label->setBuddy(editor);
  row.label->setWordWrap(true);
  editor->setObjectName(row.name);
  editor->setAccessibleName(row.name);
  editor->setFixedWidth(118);
  row.widgets = {row.label, editor};
  grid.addWidget(row.label, at, 0);
  grid.addWidget(editor, at, 1);
  rows_.push_back(std::move(row));
}

void ValuesPanel::add_field(QGridLayout& grid, const ProfileField& field) {
  auto* number = new Number;
  const double scale = field.is_angle() ? degrees(1.0) : 1.0;  // To what is typed.
  number->setDecimals(6);
  number->setRange(field.low, field.high);
  number->setKeyboardTracking(false);
  const QString unit = qt(text_of(field.unit));
  if (!unit.isEmpty()) number->setSuffix(" " + unit);
  Row row;
  row.name = row_name(field.section, field.key);
  const auto value = [field](const Profile& p) { return field.get(p); };
  row.show = [number, value, scale](const Profile& p) {
    number->setValue(value(p) * scale);
    number->setSingleStep(nudge_of(value(p) * scale));
  };
  row.differs = [value](const Profile& a, const Profile& b) { return value(a) != value(b); };
  connect(number, &QDoubleSpinBox::valueChanged, this, [this, field, name = row.name](double typed) {
    assign(name, field.section, field.key, QString::number(typed, 'g', 17));
  });
  number->setToolTip(tr("%1 to %2 %3. Arrow keys and wheel change it; the take is run again at once")
                         .arg(field.low, 0, 'g', 6)
                         .arg(field.high, 0, 'g', 6)
                         .arg(unit));
  add_row(grid, std::move(row), number);
}

void ValuesPanel::add_choice(QGridLayout& grid, const ProfileChoice& choice) {
  auto* box = new QComboBox;
  if (choice.words.empty()) {
    box->addItems({tr("no"), tr("yes")});
  } else {
    for (const std::string_view word : choice.words) box->addItem(qt(word));
  }
  box->setFocusPolicy(Qt::StrongFocus);
  Row row;
  row.name = row_name(choice.section, choice.key);
  row.show = [box, choice](const Profile& p) { box->setCurrentIndex(choice.get(p)); };
  row.differs = [choice](const Profile& a, const Profile& b) { return choice.get(a) != choice.get(b); };
  connect(box, &QComboBox::currentIndexChanged, this, [this, choice, name = row.name](int index) {
    const QString word =
        choice.words.empty() ? (index != 0 ? "true" : "false") : qt(choice.words[std::size_t(index)]);
    assign(name, choice.section, choice.key, word);
  });
  add_row(grid, std::move(row), box);
}

// Through the reader of profiles, so that values which do not fit together are refused here as they are in a
// file.
void ValuesPanel::assign(const QString& name, std::string_view section, std::string_view key,
                         const QString& text) {
  if (showing_) return;
  const QString path = (section.empty() ? QString() : qt(section).replace('/', '.') + ".") + qt(key);
  const auto profile = with_value(session_.profile(), (path + "=" + text).toStdString());
  if (profile) return desk_.set_profile(*profile, name);
  emit desk_.problem(tr("%1 stays as it was").arg(name), QString::fromStdString(profile.error().sentence()));
  show_values();
}

void ValuesPanel::show_values() {
  showing_ = true;
  for (const Row& row : rows_) {
    row.show(session_.profile());
    // What differs from the shown take is told by weight and by a mark.
    const bool differs = session_.has_shown() && row.differs(session_.profile(), session_.shown_profile());
    row.label->setText(differs ? "• " + row.name : row.name);
    row.label->setFont(theme::text_font(12, differs));
  }
  showing_ = false;
}

void ValuesPanel::filter(const QString& text) {
  for (const Row& row : rows_) {
    for (QWidget* widget : row.widgets) widget->setVisible(row.name.contains(text, Qt::CaseInsensitive));
  }
}

}  // namespace lagniappe::app
