// SPDX-License-Identifier: GPL-3.0-or-later
#include "timing/ways_pane.h"

#include <QLabel>
#include <QListWidget>
#include <QPainter>
#include <QPainterPath>
#include <QVBoxLayout>

#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kLines = 5;  // Of a ledger.

const QColor& colour_of(std::size_t way) {
  const QColor* colours[] = {&theme::brick(), &theme::gold(), &theme::moss(),
                             &theme::sky(),   &theme::plum(), &theme::teal()};
  return *colours[way % 6];
}

Qt::PenStyle style_of(std::size_t way) {
  constexpr Qt::PenStyle kStyles[] = {Qt::DotLine, Qt::DashLine, Qt::DashDotLine};
  return kStyles[way % 3];
}

}  // namespace

WaysPicture::WaysPicture(TimingDesk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setMinimumHeight(220);
  setAccessibleName(tr("Ways of all tick rates"));
}

void WaysPicture::gather() {
  ways_.clear();
  const TimingStudy* study = desk_.study();
  if (study == nullptr) return update();
  for (std::size_t r = 0; r < study->ask.tick_rates.size(); ++r) {
    const TickedRun& run = desk_.ticks(r);
    Way way;
    way.rate = run.tick_rate;
    for (std::size_t i = 0; i < run.states.size(); ++i) {
      const double moment = double(i) / run.tick_rate;
      const bool same = run.states[i].times_put_home == study->exact->put_home(moment);
      const double apart = same ? length(run.states[i].foot_C - study->exact->foot(moment)) : 0.0;
      way.feet_C.push_back(run.states[i].foot_C);
      way.apart.push_back(apart);
      way.most = std::max(way.most, apart);
      if (apart > kParted && !way.parts_at) way.parts_at = i;
    }
    ways_.push_back(std::move(way));
  }
  update();
}

// Plan: -Z upwards. Elevation: seen along -Z.
void WaysPicture::paint_ways(QPainter& painter, const QRectF& rect, bool plan) const {
  QRectF all;
  const auto flat = [&](const Vec3& p) { return QPointF(p.x, plan ? p.z : -p.y); };
  for (const Way& way : ways_) {
    for (const Vec3& p : way.feet_C) all |= QRectF(flat(p) - QPointF(0.2, 0.2), QSizeF(0.4, 0.4));
  }
  const double scale = std::min((rect.width() - 8.0) / all.width(), (rect.height() - 18.0) / all.height());
  const auto at = [&](const Vec3& p) {
    const QPointF off = flat(p) - all.center();
    return rect.center() + QPointF(0.0, 6.0) + off * scale;
  };
  painter.setPen(theme::ink2());
  painter.setFont(theme::text_font(11));
  painter.drawText(rect, Qt::AlignLeft | Qt::AlignTop, plan ? tr("from above") : tr("from the side"));
  painter.setBrush(Qt::NoBrush);
  for (std::size_t w = 0; w < ways_.size(); ++w) {
    QPainterPath path;
    for (std::size_t i = 0; i < ways_[w].feet_C.size(); ++i)
      i == 0 ? path.moveTo(at(ways_[w].feet_C[i])) : path.lineTo(at(ways_[w].feet_C[i]));
    painter.setPen(QPen(colour_of(w), w == chosen_ ? 2.4 : 1.2, style_of(w)));
    painter.drawPath(path);
    if (!ways_[w].parts_at) continue;
    const QPointF parts = at(ways_[w].feet_C[*ways_[w].parts_at]);
    painter.setPen(QPen(theme::ink(), 1.2));
    painter.drawLine(parts + QPointF(-4, -4), parts + QPointF(4, 4));
    painter.drawLine(parts + QPointF(-4, 4), parts + QPointF(4, -4));
  }
}

void WaysPicture::paint_apart(QPainter& painter, const QRectF& rect) const {
  double most = 1e-3, seconds = desk_.study()->take.seconds();
  for (const Way& way : ways_) most = std::max(most, way.most);
  const QRectF area = rect.adjusted(4, 16, -4, -14);
  painter.setPen(theme::ink2());
  painter.setFont(theme::text_font(11));
  painter.drawText(rect, Qt::AlignLeft | Qt::AlignTop,
                   tr("apart from 480 ticks/s, up to %1 cm").arg(most * 1e2, 0, 'f', 2));
  painter.setFont(theme::number_font(10));
  painter.drawText(rect, Qt::AlignRight | Qt::AlignBottom, seconds_text(seconds, 1));
  painter.setPen(QPen(theme::rule(), 1));
  painter.drawLine(area.bottomLeft(), area.bottomRight());
  for (std::size_t w = 0; w < ways_.size(); ++w) {
    QPainterPath path;
    for (std::size_t i = 0; i < ways_[w].apart.size(); ++i) {
      const QPointF p(area.left() + area.width() * double(i) / (ways_[w].rate * seconds),
                      area.bottom() - area.height() * ways_[w].apart[i] / most);
      i == 0 ? path.moveTo(p) : path.lineTo(p);
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(colour_of(w), w == chosen_ ? 2.4 : 1.2, style_of(w)));
    painter.drawPath(path);
  }
}

void WaysPicture::paintEvent(QPaintEvent*) {
  if (desk_.study() == nullptr || ways_.empty()) return;
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const double wide = width(), upper = height() * 0.6;
  paint_ways(painter, {8.0, 0.0, 0.5 * wide - 12.0, upper}, true);
  paint_ways(painter, {0.5 * wide + 4.0, 0.0, 0.5 * wide - 12.0, upper}, false);
  paint_apart(painter, {8.0, upper + 4.0, wide - 16.0, height() - upper - 4.0});
}

WaysPane::WaysPane(TimingDesk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), picture_(new WaysPicture(desk)), list_(new QListWidget), why_(new QLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  list_->setFixedHeight(140);
  list_->setAccessibleName(tr("Tick rates, and where they part"));
  why_->setObjectName("caption");
  why_->setWordWrap(true);
  why_->setContentsMargins(12, 0, 12, 6);
  why_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  column->addWidget(picture_, 1);
  column->addWidget(list_);
  column->addWidget(why_);
  connect(&desk, &TimingDesk::measured, this, [this] { stale_ = true; });
  connect(list_, &QListWidget::currentRowChanged, this, &WaysPane::show_why);
}

void WaysPane::refresh() {
  if (!std::exchange(stale_, false)) return;
  picture_->gather();
  fill();
}

void WaysPane::fill() {
  list_->clear();
  int worst = 0, row = 0;
  for (const WaysPicture::Way& way : picture_->ways()) {
    QString text = tr("%1 ticks/s: within %2 cm").arg(way.rate).arg(way.most * 1e2, 0, 'f', 2);
    if (way.parts_at) text += tr(", parts at %1").arg(seconds_text(double(*way.parts_at) / way.rate));
    list_->addItem(text);
    if (way.most > picture_->ways()[std::size_t(worst)].most) worst = row;
    ++row;
  }
  if (row > 0) list_->setCurrentRow(worst);
}

QString WaysPane::ledger_words(const TickedRun& run, std::size_t tick) const {
  const TimingStudy& study = *desk_.study();
  Ledger ledger;
  step(run.states[tick - 1], run.inputs[tick - 1], study.take.profile, study.place->world, 1.0 / run.tick_rate,
       &ledger);
  QString text;
  int lines = 0;
  for (const LedgerEntry& entry : ledger.entries) {
    const bool plain =
        std::holds_alternative<entry::Probe>(entry) || std::holds_alternative<entry::Sweep>(entry) ||
        std::holds_alternative<entry::Gravity>(entry) || std::holds_alternative<entry::Change>(entry);
    if (plain || lines == kLines) continue;
    text += QString::fromStdString(to_sentence(entry, study.place->world)) + "\n";
    ++lines;
  }
  return text;
}

void WaysPane::show_why(int row) {
  if (row < 0 || std::size_t(row) >= picture_->ways().size()) return;
  picture_->choose(std::size_t(row));
  const WaysPicture::Way& way = picture_->ways()[std::size_t(row)];
  if (!way.parts_at || *way.parts_at == 0)
    return why_->setText(tr("Never farther than 1 cm from the same inputs at 480 ticks/s."));
  const double moment = double(*way.parts_at) / way.rate;
  const TickedRun& exact = desk_.study()->exact_run;
  const auto there =
      std::clamp<std::size_t>(std::size_t(moment * kExactTickRate + 0.5), 1, exact.inputs.size());
  why_->setText(
      tr("First farther than 1 cm at %1.\nAt %2 ticks/s:\n%3At 480 ticks/s:\n%4")
          .arg(seconds_text(moment))
          .arg(way.rate)
          .arg(ledger_words(desk_.ticks(std::size_t(row)), *way.parts_at), ledger_words(exact, there)));
}

QString WaysPane::why() const { return why_->text(); }

}  // namespace lagniappe::app
