// SPDX-License-Identifier: GPL-3.0-or-later
#include "timing/recipe_pane.h"

#include <QCheckBox>
#include <QEvent>
#include <QHeaderView>
#include <QLabel>
#include <QPainter>
#include <QPainterPath>
#include <QTreeWidget>
#include <QVBoxLayout>
#include <cmath>

#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kKey = Qt::UserRole;
constexpr double kFoot = 18.0, kTop = 18.0, kLeft = 40.0;  // Pixels.

QString number(double value) {
  if (std::abs(value) < 5e-7) return "0";
  return std::abs(value) >= 100.0 ? QString::number(value, 'f', 0) : QString::number(value, 'g', 3);
}

// Three digits that count, and none left out: such numbers stand below each other.
QString three_digits(double value) {
  const double size = std::abs(value);
  if (size >= 99.95 || size < 0.001) return number(value);
  return QString::number(value, 'f', size >= 9.995 ? 1 : size >= 0.9995 ? 2 : size >= 0.09995 ? 3 : 4);
}

QString with_unit(double value, std::string_view unit) {
  return unit.empty() ? three_digits(value) : QString("%1 %2").arg(three_digits(value), qt(unit));
}

// Where a curve has gone half of its way, first: there the rates are farthest apart.
Vec2 halfway(const RecipeCurve& curve) {
  double low = INFINITY, high = -INFINITY;
  for (const Vec2& p : curve.points) low = std::min(low, p.y), high = std::max(high, p.y);
  const double middle = 0.5 * (low + high);
  const bool rises = curve.points.front().y < middle;
  for (const Vec2& p : curve.points) {
    if ((p.y >= middle) == rises) return p;
  }
  return curve.points.back();
}

QLabel* words(const char* name, bool selectable = false) {
  auto* label = new QLabel;
  label->setObjectName(name);
  label->setWordWrap(true);
  if (selectable) label->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
  return label;
}

}  // namespace

RecipePlot::RecipePlot(QWidget* parent) : QWidget(parent) {
  setMinimumHeight(140);
  setAccessibleName(tr("Curve of the recipe beside ours"));
}

void RecipePlot::show_curves(RecipeCurves curves) {
  curves_ = std::move(curves);
  if (curves_.recipe != nullptr)
    setAccessibleDescription(tr("%1 over time: %2").arg(qt(curves_.recipe->curve), qt(curves_.recipe->scene)));
  update();
}

void RecipePlot::paintEvent(QPaintEvent*) {
  if (curves_.recipe == nullptr) return;
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  double last = 0.0, low = 0.0, high = 1e-6;
  for (const auto* set : {&curves_.theirs, &curves_.ours}) {
    for (const RecipeCurve& curve : *set) {
      for (const Vec2& p : curve.points)
        last = std::max(last, p.x), low = std::min(low, p.y), high = std::max(high, p.y);
    }
  }
  const QRectF area(kLeft, kTop, width() - kLeft - 30.0, height() - kTop - kFoot);
  const auto at = [&](const Vec2& p) {
    return QPointF(area.left() + area.width() * p.x / last,
                   area.bottom() - area.height() * (p.y - low) / (high - low));
  };
  painter.setPen(QPen(theme::rule(), 1));
  painter.drawLine(area.bottomLeft(), area.bottomRight());
  painter.drawLine(area.topLeft(), area.bottomLeft());
  painter.setFont(theme::number_font(10));
  painter.setPen(theme::ink2());
  painter.drawText(QRectF(0, area.top() - 7.0, kLeft - 5.0, 14.0), Qt::AlignRight | Qt::AlignVCenter,
                   number(high));
  painter.drawText(QRectF(0, area.bottom() - 7.0, kLeft - 5.0, 14.0), Qt::AlignRight | Qt::AlignVCenter,
                   number(low));
  painter.drawText(QRectF(area.left(), area.bottom() + 2.0, area.width(), 14.0),
                   Qt::AlignRight | Qt::AlignVCenter, tr("%1 s").arg(number(last)));
  const std::string_view unit = curves_.recipe->curve_unit;
  painter.drawText(
      QRectF(2.0, 0.0, 200.0, 15.0), Qt::AlignLeft | Qt::AlignVCenter,
      unit.empty() ? qt(curves_.recipe->curve) : QString("%1, %2").arg(qt(curves_.recipe->curve), qt(unit)));
  const auto draw = [&](const RecipeCurve& curve, const QPen& pen) {
    QPainterPath path;
    for (std::size_t i = 0; i < curve.points.size(); ++i)
      i == 0 ? path.moveTo(at(curve.points[i])) : path.lineTo(at(curve.points[i]));
    painter.setBrush(Qt::NoBrush);
    painter.setPen(pen);
    painter.drawPath(path);
  };
  for (const RecipeCurve& curve : curves_.ours) draw(curve, QPen(theme::teal(), 2.2));
  // Told apart by their strokes, and by their numbers at the end.
  const Qt::PenStyle styles[] = {Qt::DotLine, Qt::DashLine, Qt::SolidLine};
  for (std::size_t i = 0; i < curves_.theirs.size(); ++i) {
    const RecipeCurve& curve = curves_.theirs[i];
    draw(curve, QPen(theme::brick(), 1.4, styles[i % 3]));
    painter.setPen(theme::brick());
    painter.setFont(theme::number_font(10));
    painter.drawText(QRectF(at(halfway(curve)) + QPointF(3.0, -4.0 + 10.0 * double(i)), QSizeF(30.0, 14.0)),
                     Qt::AlignLeft | Qt::AlignVCenter, QString::number(curve.rate));
  }
  painter.setPen(theme::teal());
  painter.setFont(theme::text_font(11, true));
  painter.drawText(QRectF(0.0, 0.0, width() - 4.0, 15.0), Qt::AlignRight | Qt::AlignVCenter,
                   tr("ours at 30, 60 and 144"));
}

RecipePane::RecipePane(TimingDesk& desk, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      job_(*this),
      ways_job_(*this),
      list_(new QTreeWidget),
      plot_(new RecipePlot),
      title_(words("cardTitle")),
      formula_(words("figure", true)),
      figures_(words("figure")),
      fault_(words("caption")),
      instead_(words("figure", true)) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  list_->setHeaderHidden(true);
  list_->setColumnCount(2);
  list_->setRootIsDecorated(true);
  list_->setIndentation(14);
  list_->setMinimumHeight(150);
  list_->setAccessibleName(tr("Recipes"));
  list_->header()->setStretchLastSection(false);
  list_->header()->setSectionResizeMode(0, QHeaderView::Stretch);
  list_->header()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
  column->addWidget(list_, 1);
  auto* below = new QVBoxLayout;
  below->setContentsMargins(12, 0, 12, 6);
  below->setSpacing(4);
  auto* ghosts = new QCheckBox(tr("its ways over the take, in the view"));
  ghosts->setToolTip(
      tr("A plain walker that differs in this part alone, on the take's inputs at 30, 60 and 144 frames a "
         "second"));
  connect(ghosts, &QCheckBox::toggled, this, &RecipePane::set_ghosts);
  for (QWidget* widget :
       std::initializer_list<QWidget*>{title_, formula_, plot_, figures_, fault_, instead_, ghosts})
    below->addWidget(widget);
  column->addLayout(below);
  fill();
  connect(list_, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
    if (item == nullptr) return;
    const QString key = item->data(0, kKey).toString();
    if (const Recipe* recipe = find_recipe(key.toStdString())) choose(*recipe);
  });
  connect(&desk, &TimingDesk::measured, this, &RecipePane::make_ways);
  choose(*find_recipe("blend-fixed"));
}

void RecipePane::fill() {
  QTreeWidgetItem* part = nullptr;
  std::string_view last;
  const auto close = [&] {
    if (part == nullptr) return;
    auto* ours = new QTreeWidgetItem(part, {tr("ours: exact in seconds")});
    ours->setFlags(Qt::ItemIsEnabled);
    ours->setForeground(0, theme::teal());
  };
  for (const Recipe& recipe : recipes()) {
    const std::string_view name = kRecipeParts[std::size_t(recipe.part)];
    if (name != last) {
      close();
      part = new QTreeWidgetItem(list_, {tr("%1").arg(qt(name))});
      part->setFlags(Qt::ItemIsEnabled);
      part->setFirstColumnSpanned(true);
      QFont strong = list_->font();
      strong.setBold(true);
      part->setFont(0, strong);
      last = name;
    }
    auto* item = new QTreeWidgetItem(part, {qt(recipe.name)});
    item->setData(0, kKey, qt(recipe.key));
    item->setToolTip(0, qt(recipe.fault));
    item->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
  }
  close();
  list_->expandAll();
}

// Ours is in a colour of the theme.
void RecipePane::changeEvent(QEvent* event) {
  QWidget::changeEvent(event);
  if (event->type() != QEvent::PaletteChange) return;
  for (int p = 0; p < list_->topLevelItemCount(); ++p) {
    QTreeWidgetItem* part = list_->topLevelItem(p);
    part->child(part->childCount() - 1)->setForeground(0, theme::teal());
  }
}

void RecipePane::come_up() {
  if (std::exchange(up_, true)) return;
  job_.start([this](const NewestJob::Handle& handle) {
    std::vector<RecipeWorst> worst;
    for (const Recipe& recipe : recipes()) {
      if (!handle.wanted()) return;
      worst.push_back(worst_of(recipe));
    }
    handle.finish([this, worst] { show_worst(worst); });
  });
}

void RecipePane::show_worst(std::vector<RecipeWorst> worst) {
  std::size_t n = 0;
  for (int p = 0; p < list_->topLevelItemCount(); ++p) {
    QTreeWidgetItem* part = list_->topLevelItem(p);
    // The last one is ours.
    for (int i = 0; i + 1 < part->childCount(); ++i, ++n) {
      const Recipe& recipe = recipes()[n];
      part->child(i)->setText(1, with_unit(worst[n].figure, recipe.figure_unit));
      part->child(i)->setToolTip(1, tr("%1: %2 at %3 frames a second; ours %4")
                                        .arg(qt(recipe.figure), with_unit(worst[n].figure, recipe.figure_unit))
                                        .arg(worst[n].rate)
                                        .arg(with_unit(worst[n].ours, recipe.figure_unit)));
    }
  }
}

void RecipePane::choose(const Recipe& recipe) {
  if (chosen_ == &recipe) return;
  chosen_ = &recipe;
  for (int p = 0; p < list_->topLevelItemCount(); ++p) {
    for (int i = 0; i < list_->topLevelItem(p)->childCount(); ++i) {
      QTreeWidgetItem* item = list_->topLevelItem(p)->child(i);
      if (item->data(0, kKey).toString() == qt(recipe.key)) list_->setCurrentItem(item);
    }
  }
  show_chosen();
  make_ways();
}

void RecipePane::show_chosen() {
  const Recipe& recipe = *chosen_;
  RecipeCurves curves{&recipe, {}, {}};
  for (const int rate : kRecipeRates) {
    curves.theirs.push_back(recipe_curve(recipe, rate));
    curves.ours.push_back(our_curve(recipe, rate));
  }
  title_->setText(qt(recipe.name));
  formula_->setText(qt(recipe.formula));
  QString rows = tr("%1, %2:").arg(qt(recipe.figure), qt(recipe.scene));
  for (std::size_t i = 0; i < kRecipeRates.size(); ++i)
    rows += tr("\n%1 frames/s: %2   ours %3")
                .arg(kRecipeRates[i], 3)
                .arg(with_unit(curves.theirs[i].figure, recipe.figure_unit),
                     with_unit(curves.ours[i].figure, recipe.figure_unit));
  figures_->setText(rows);
  fault_->setText(qt(recipe.fault));
  instead_->setText(tr("Instead: %1").arg(qt(recipe.instead)));
  plot_->show_curves(std::move(curves));
}

QString RecipePane::told() const {
  return title_->text() + "\n" + formula_->text() + "\n" + figures_->text() + "\n" + fault_->text() + "\n" +
         instead_->text();
}

void RecipePane::set_ghosts(bool ghosts) {
  ghosts_ = ghosts;
  make_ways();
}

void RecipePane::make_ways() {
  ways_job_.give_up();
  ways_.clear();
  emit ways_changed();
  if (!ghosts_ || desk_.study() == nullptr) return;
  ways_job_.start([this, study = desk_.shared_study(), recipe = chosen_](const NewestJob::Handle& handle) {
    std::vector<std::vector<Vec3>> ways;
    for (const int rate : kRecipeRates) {
      if (!handle.wanted()) return;
      ways.push_back(recipe_way(*recipe, study->source(), rate));
    }
    handle.finish([this, ways = std::move(ways)] {
      ways_ = ways;
      emit ways_changed();
    });
  });
}

}  // namespace lagniappe::app
