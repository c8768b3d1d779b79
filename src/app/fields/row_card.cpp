// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/row_card.h"

#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QJsonArray>
#include <QJsonDocument>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>

#include "cards/value_field.h"
#include "lagniappe/field_kinds.h"
#include "lagniappe/zone_kinds.h"
#include "theme/plain_tip.h"
#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

const QStringList kFalloffs = {"constant", "linear", "inverse", "inverse-square", "curve"};
constexpr double kFirstSize = 3.0;  // m.

QStringList names_of(std::span<const DocumentKind> kinds) {
  QStringList names;
  for (const DocumentKind& kind : kinds) names += qt(kind.name);
  return names;
}

const DocumentKind& kind_named(std::span<const DocumentKind> kinds, const QString& name) {
  for (const DocumentKind& kind : kinds) {
    if (qt(kind.name) == name) return kind;
  }
  return kinds.front();
}

// What a key that must be there begins with.
QJsonValue first_value(const DocumentKey& key) {
  switch (key.type) {
    case DocumentKey::Type::Size: {
      const double each = key.above_low ? kFirstSize : 0.0;
      return QJsonArray{each, each == 0.0 && key.unit == "m/s" ? 6.0 : each, each};
    }
    case DocumentKey::Type::List:
      return key.name == "points" ? QJsonArray{QJsonArray{-3.0, 0.0, 0.0}, QJsonArray{3.0, 0.0, 0.0}}
                                  : QJsonArray{};
    case DocumentKey::Type::Text:
      return QString();
    case DocumentKey::Type::Flag:
      return false;
    default:
      return key.name == "thickness" || key.name == "times" ? 1.0
                                                            : std::max(key.low, std::min(kFirstSize, key.high));
  }
}

QString words_of(const QJsonArray& list) {
  return QString::fromUtf8(QJsonDocument(list).toJson(QJsonDocument::Compact));
}

}  // namespace

QJsonObject of_kind(const QJsonObject& row, const DocumentKind& kind, std::span<const DocumentKind> kinds) {
  QJsonObject next = row;
  for (const DocumentKind& other : kinds) {
    for (const DocumentKey& key : other.keys) {
      const auto same = [&](const DocumentKey& k) { return k.name == key.name && k.type == key.type; };
      if (std::none_of(kind.keys.begin(), kind.keys.end(), same)) next.remove(qt(key.name));
    }
  }
  next["kind"] = qt(kind.name);
  // A launch needs a velocity although its key does not: it may have a mark instead.
  for (const DocumentKey& key : kind.keys) {
    const bool wanted = key.needed || key.name == "velocity";
    if (wanted && !next.contains(qt(key.name))) next[qt(key.name)] = first_value(key);
  }
  return next;
}

QJsonObject new_field(const QString& name, const Vec3& at_C) {
  return {{"id", name},           {"kind", "ball"}, {"at", QJsonArray{at_C.x, at_C.y, at_C.z}},
          {"radius", kFirstSize}, {"reach", 4.0},   {"fade", 1.0}};
}

QJsonObject new_zone(const QString& name, const Vec3& at_C) {
  return {{"id", name},
          {"at", QJsonArray{at_C.x, at_C.y, at_C.z}},
          {"shape", QJsonObject{{"kind", "box"}, {"size", QJsonArray{2.0, 1.0, 2.0}}}},
          {"effect", QJsonObject{{"kind", "signal"}}}};
}

RowCard::RowCard(CourseDesk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("sidePage");
  setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(14, 6, 14, 8);
  column->setSpacing(4);
  column->addStretch(1);
}

// The widgets stay as long as the row has the same kinds: who types in one goes on.
void RowCard::show_row(const std::optional<RowChoice>& row, double gravity) {
  // What is being typed is of the row that is shown still.
  QWidget* typed_in = QApplication::focusWidget();
  if (row != shown_ && body_ != nullptr && typed_in != nullptr && body_->isAncestorOf(typed_in))
    typed_in->clearFocus();
  const Course* course = desk_.course();
  const bool there = course != nullptr && row && row->index < row_count(*course, row->list);
  shown_ = there ? row : std::nullopt;
  gravity_ = gravity;
  row_ = there ? row_object(*course, *row) : QJsonObject();
  QJsonObject form{{"list", int(row ? int(row->list) : -1)}, {"index", there ? int(row->index) : -1}};
  form["kind"] = row_.value("kind");
  form["shape"] = row_.value("shape").toObject()["kind"];
  form["effect"] = row_.value("effect").toObject()["kind"];
  form["path"] = QString::fromStdString(desk_.path());
  form["absolute"] = row_.contains("acceleration");
  const QByteArray wanted = QJsonDocument(form).toJson(QJsonDocument::Compact);
  if (wanted != form_) {
    form_ = wanted;
    build();
  }
  show_values();
}

void RowCard::show_values() {
  for (const auto& show : show_) show();
}

void RowCard::build() {
  // What has the focus may be what asked for another form: it goes when it is done.
  if (body_ != nullptr) {
    body_->hide();
    body_->deleteLater();
  }
  show_.clear();
  body_ = new QWidget;
  auto* column = new QVBoxLayout(body_);
  column->setContentsMargins(0, 0, 0, 0);
  rows_ = new QFormLayout;
  rows_->setVerticalSpacing(5);
  rows_->setHorizontalSpacing(10);
  rows_->setLabelAlignment(Qt::AlignLeft);
  rows_->setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
  column->addLayout(rows_);
  static_cast<QVBoxLayout*>(layout())->insertWidget(0, body_);
  if (!shown_) {
    auto* none = new QLabel(tr("Choose a field or a zone: click it in the cut, or add one."));
    none->setObjectName("caption");
    none->setWordWrap(true);
    rows_->addRow(none);
    return;
  }
  add_line(tr("Name"), {"id"}, tr("Its own among all of its list"), false);
  shown_->list == CourseList::Fields ? build_field() : build_zone();
}

void RowCard::build_field() {
  const auto kinds = field_kinds();
  const DocumentKind& kind = kind_named(kinds, row_.value("kind").toString());
  add_choice(tr("Kind"), names_of(kinds), row_.value("kind").toString(), qt(kind.help),
             [this, kinds](int choice) { put_row(of_kind(row_, kinds[std::size_t(choice)], kinds)); });
  add_keys({}, kind.keys);
  const bool absolute = row_.contains("acceleration");
  add_numbers(tr("Strength"), {absolute ? "acceleration" : "strength"},
              absolute ? "m/s\u00b2" : "\u00d7 gravity", 1, tr("At its surface; below 0 it pushes away"));
  auto* comes_to = new QLabel;
  comes_to->setObjectName("caption");
  rows_->addRow(QString(), comes_to);
  show_.push_back([this, comes_to] {
    const bool own = row_.contains("acceleration");
    const double strength =
        row_.value(own ? "acceleration" : "strength").toDouble(1.0) * (own ? 1.0 : gravity_);
    comes_to->setText(own ? tr("whatever the profile")
                          : tr("= %1 m/s\u00b2 with this profile").arg(strength, 0, 'f', 2));
  });
  add_choice(tr("Strength is"), {tr("times the profile's gravity"), tr("an acceleration")}, {},
             tr("What its strength is"), [this](int choice) {
               QJsonObject next = row_;
               const bool own = next.contains("acceleration");
               if (own == (choice == 1) || gravity_ <= 0.0) return;
               const double value = next.value(own ? "acceleration" : "strength").toDouble(1.0);
               next.remove(own ? "acceleration" : "strength");
               next[own ? "strength" : "acceleration"] = own ? value / gravity_ : value * gravity_;
               put_row(next);
             });
  static_cast<QComboBox*>(rows_->itemAt(rows_->rowCount() - 1, QFormLayout::FieldRole)->widget())
      ->setCurrentIndex(absolute ? 1 : 0);
  add_choice(tr("Falls off"), kFalloffs, {}, tr("With the distance from its surface; the curve is drawn above"),
             [this](int choice) {
               QJsonObject next = row_;
               next["falloff"] = kFalloffs[choice];
               if (kFalloffs[choice] == "curve")
                 next["falloff"] =
                     QJsonArray{QJsonArray{0.0, 1.0}, QJsonArray{next.value("reach").toDouble(4.0), 0.3}};
               if (kFalloffs[choice] == "linear" && next.value("reach").toDouble() <= 0.0) next["reach"] = 4.0;
               put_row(next);
             });
  auto* falloff =
      static_cast<QComboBox*>(rows_->itemAt(rows_->rowCount() - 1, QFormLayout::FieldRole)->widget());
  show_.push_back([this, falloff] {
    const QJsonValue now = row_.value("falloff");
    falloff->setCurrentIndex(now.isArray() ? 4 : std::max(0, int(kFalloffs.indexOf(now.toString("constant")))));
  });
  add_line(tr("Reach"), {"reach"},
           tr("m from its surface, beyond which it is nothing; empty: without an end, of a box its surface"),
           true);
  add_numbers(tr("Fade"), {"fade"}, "m", 1, tr("The last of its reach, over which it goes"));
  add_choice(tr("Combines"), {"replaces", "adds"}, row_.value("combine").toString("replaces"),
             tr("Replaces what is below it, or is added to that"),
             [this](int choice) { put({"combine"}, choice == 0 ? "replaces" : "adds"); });
  add_numbers(tr("Priority"), {"priority"}, "", 1, tr("Higher ones come later"));
  add_pieces();
  add_numbers(tr("At"), {"at"}, "m", 3, tr("Its centre"));
  add_numbers(tr("Turn"), {"turn"}, "deg", 3, tr("Yaw, pitch, roll"));
}

void RowCard::build_zone() {
  const auto part = [this](const QString& label, const QString& key, std::span<const DocumentKind> kinds) {
    const QJsonObject now = row_.value(key).toObject();
    const DocumentKind& kind = kind_named(kinds, now["kind"].toString());
    add_choice(label, names_of(kinds), now["kind"].toString(), qt(kind.help), [this, key, kinds](int choice) {
      QJsonObject next = row_;
      next[key] = of_kind(next.value(key).toObject(), kinds[std::size_t(choice)], kinds);
      put_row(next);
    });
    add_keys({key}, kind.keys);
  };
  part(tr("Shape"), "shape", zone_shape_kinds());
  part(tr("Effect"), "effect", zone_effect_kinds());
  add_pieces();
  add_numbers(tr("At"), {"at"}, "m", 3, tr("The centre of its base"));
  add_numbers(tr("Turn"), {"turn"}, "deg", 3, tr("Yaw, pitch, roll"));
}

void RowCard::add_pieces() {
  QStringList words = {tr("nothing")};
  for (const Piece& piece : desk_.course()->pieces) words += QString::fromStdString(piece.id);
  const QString on = row_.value("on").toString();
  add_choice(tr("Moves with"), words, on.isEmpty() ? words.front() : on, tr("A piece that carries it"),
             [this](int choice) {
               QJsonObject next = row_;
               next.remove("on");
               if (choice > 0)
                 next["on"] = QString::fromStdString(desk_.course()->pieces[std::size_t(choice - 1)].id);
               put_row(next);
             });
}

void RowCard::add_keys(const Path& within, std::span<const DocumentKey> keys) {
  for (const DocumentKey& key : keys) add_key(within + Path{qt(key.name)}, key);
}

void RowCard::add_key(const Path& path, const DocumentKey& key) {
  QString label = qt(key.name).replace('_', ' ');
  label[0] = label[0].toUpper();
  const QString help = qt(key.help);
  switch (key.type) {
    case DocumentKey::Type::Number:
    case DocumentKey::Type::Whole:
      return add_numbers(label, path, qt(key.unit), 1, help);
    case DocumentKey::Type::Size:
      return add_numbers(label, path, qt(key.unit), 3, help);
    case DocumentKey::Type::List:
      return add_line(label, path, help, true);
    case DocumentKey::Type::Text:
      return add_line(label, path, help, false);
    case DocumentKey::Type::Flag: {
      auto* box = new QCheckBox;
      box->setAccessibleName(label);
      connect(box, &QCheckBox::clicked, this, [this, path](bool on) { put(path, on); });
      show_.push_back([this, box, path] { box->setChecked(value_at(path).toBool()); });
      return add_row(label, box, help);
    }
  }
}

void RowCard::add_numbers(const QString& label, const Path& path, const QString& unit, int count,
                          const QString& help) {
  auto* line = new QWidget;
  auto* row = new QHBoxLayout(line);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(4);
  static const char* const kParts[] = {"x", "y", "z"};
  for (int i = 0; i < count; ++i) {
    const bool last = i + 1 == count;
    auto* field =
        new ValueField(count == 1 ? label : label + " " + kParts[i], last && count == 1 ? unit : QString());
    const auto change = [this, path, i, count](double value, int gesture) {
      if (count == 1) return put(path, value, gesture);
      QJsonArray list = value_at(path).toArray();
      while (list.size() < count) list.append(0.0);
      list[i] = value;
      put(path, list, gesture);
    };
    connect(field, &ValueField::entered, this, [change](double value) { change(value, 0); });
    connect(field, &ValueField::nudged, this, [this, change, gesture = 0](double value, bool begins) mutable {
      if (begins || gesture == 0) gesture = desk_.new_gesture();
      change(value, gesture);
    });
    connect(field, &ValueField::refused, this,
            [this, label](const QString& why) { emit refused(tr("%1 stays as it was").arg(label), why); });
    show_.push_back([this, field, path, i, count] {
      const QJsonValue now = value_at(path);
      field->show_value(count == 1 ? now.toDouble() : now.toArray()[i].toDouble());
    });
    row->addWidget(field, 1);
  }
  add_row(label, line, help + (unit.isEmpty() ? QString() : " (" + unit + ")"));
}

// A text; or JSON, where the key is a list or may be left empty.
void RowCard::add_line(const QString& label, const Path& path, const QString& help, bool json) {
  auto* line = new QLineEdit;
  line->setObjectName(label);
  line->setAccessibleName(label);
  connect(line, &QLineEdit::editingFinished, this, [this, line, path, label, json] {
    if (!line->isModified()) return;
    line->setModified(false);
    const QString text = line->text().trimmed();
    if (!json)
      return put(path, text.isEmpty() && path.last() != "id" ? QJsonValue(QJsonValue::Undefined) : text);
    if (text.isEmpty()) return put(path, QJsonValue::Undefined);
    const QJsonDocument read = QJsonDocument::fromJson(("[" + text + "]").toUtf8());
    if (!read.isArray() || read.array().size() != 1) {
      emit refused(tr("%1 stays as it was").arg(label),
                   tr("\u201c%1\u201d is no number and no list").arg(text));
      return show_values();
    }
    put(path, read.array().first());
  });
  show_.push_back([this, line, path] {
    if (line->isModified() && line->hasFocus()) return;
    const QJsonValue now = value_at(path);
    const QString text = now.isArray()    ? words_of(now.toArray())
                         : now.isDouble() ? QString::number(now.toDouble(), 'g', 8)
                                          : now.toString();
    if (line->text() != text) line->setText(text), line->setCursorPosition(0);
  });
  add_row(label, line, help);
}

void RowCard::add_choice(const QString& label, const QStringList& words, const QString& now,
                         const QString& help, const std::function<void(int)>& does) {
  auto* choice = new QComboBox;
  choice->setAccessibleName(label);
  choice->setObjectName(label);
  choice->addItems(words);
  choice->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  choice->setMinimumContentsLength(8);
  choice->setCurrentIndex(std::max(0, int(words.indexOf(now))));
  connect(choice, &QComboBox::activated, this, does);
  add_row(label, choice, help);
}

void RowCard::add_row(const QString& label, QWidget* widget, const QString& help) {
  auto* name = new QLabel(label);
  name->setToolTip(plain_tip(help));
  widget->setToolTip(plain_tip(help));
  rows_->addRow(name, widget);
}

QJsonValue RowCard::value_at(const Path& path) const {
  QJsonValue value = row_;
  for (const QString& key : path) value = value.toObject()[key];
  return value;
}

void RowCard::change(const QString& key, const QJsonValue& value, int gesture) { put({key}, value, gesture); }

void RowCard::put(const Path& path, const QJsonValue& value, int gesture) {
  const auto set = [&](QJsonObject object, const QString& key, const QJsonValue& to) {
    to.isUndefined() ? object.remove(key) : void(object[key] = to);
    return object;
  };
  put_row(path.size() == 1 ? set(row_, path[0], value)
                           : set(row_, path[0], set(row_.value(path[0]).toObject(), path[1], value)),
          gesture);
}

void RowCard::put_row(const QJsonObject& row, int gesture) {
  if (!shown_) return;
  const QByteArray text = QJsonDocument(row).toJson(QJsonDocument::Compact);
  const QString name = row_name(*desk_.course(), *shown_);
  if (!desk_.set_row(shown_->list, shown_->index, text, tr("change %1").arg(name), gesture)) show_values();
}

}  // namespace lagniappe::app
