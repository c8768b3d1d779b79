// SPDX-License-Identifier: GPL-3.0-or-later
#include "timing/probe_pane.h"

#include <QEvent>
#include <QHeaderView>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QTableWidget>
#include <QVBoxLayout>

#include "lagniappe/turns.h"
#include "theme/text.h"
#include "theme/theme.h"
#include "viewport/line_pen.h"

namespace lagniappe::app {
namespace {

constexpr int kLane = 12;  // Pixels.
enum Column { Name, Says, Distance, Normal, Cost, Wrong, Flickers, kColumns };

QString verdict(bool ground) { return ground ? QObject::tr("yes") : QObject::tr("no"); }

}  // namespace

ProbeLanes::ProbeLanes(DriveSession& session, QWidget* parent) : QWidget(parent), session_(session) {
  setFixedHeight(kLane * int(kGroundProbes + 1) + 4);
  setAccessibleName(tr("Answers over the take"));
}

void ProbeLanes::show_lanes(std::shared_ptr<const Lanes> lanes) {
  lanes_ = std::move(lanes);
  update();
}

void ProbeLanes::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), theme::paper());
  if (!lanes_ || lanes_->solver.size() < 2) return;
  const double wide = double(width()) / double(lanes_->solver.size() - 1);
  const auto lane = [&](const std::vector<std::uint8_t>& ground, int row, const QColor& colour) {
    std::size_t begin = 0;
    for (std::size_t i = 1; i <= ground.size(); ++i) {
      if (i < ground.size() && ground[i] == ground[begin]) continue;
      const double x = double(begin) * wide;
      if (ground[begin] != 0)
        painter.fillRect(QRectF(x, row * kLane + 2.0, std::max(double(i - begin) * wide, 1.0), kLane - 4.0),
                         colour);
      begin = i;
    }
  };
  lane(lanes_->solver, 0, theme::teal());
  for (std::size_t p = 0; p < kGroundProbes; ++p) {
    lane(lanes_->probes[p].ground, int(p) + 1, theme::ink2());
    // Where it says other than the solver, on the line below.
    for (std::size_t i = 0; i < lanes_->solver.size(); ++i) {
      if (lanes_->probes[p].ground[i] == lanes_->solver[i]) continue;
      painter.fillRect(QRectF(double(i) * wide, (double(p) + 2.0) * kLane - 2.0, std::max(wide, 1.0), 2.0),
                       theme::brick());
    }
  }
  painter.setPen(QPen(theme::brick(), 1));
  const double x = double(session_.playhead()) * wide;
  painter.drawLine(QPointF(x, 0.0), QPointF(x, height()));
}

void ProbeLanes::mousePressEvent(QMouseEvent* event) {
  if (!lanes_ || session_.live()) return;
  const double share = std::clamp(event->position().x() / std::max(width(), 1), 0.0, 1.0);
  session_.set_playhead(std::size_t(std::lround(share * double(lanes_->solver.size() - 1))));
  update();
}

void ProbeLanes::mouseMoveEvent(QMouseEvent* event) {
  if (event->buttons() & Qt::LeftButton) mousePressEvent(event);
}

ProbePane::ProbePane(DriveSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      job_(*this),
      table_(new QTableWidget(int(kGroundProbes) + 1, kColumns)),
      lanes_(new ProbeLanes(session)),
      words_(new QLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  table_->setHorizontalHeaderLabels(
      {tr("asks by"), tr("says"), tr("m"), tr("slope"), tr("µs"), tr("≠"), tr("brief")});
  table_->horizontalHeaderItem(Wrong)->setToolTip(
      tr("Ticks of the take in which it says other than the solver"));
  table_->horizontalHeaderItem(Flickers)->setToolTip(
      tr("Answers that lasted for less than 0.1 s while the solver kept to its own"));
  table_->verticalHeader()->hide();
  table_->verticalHeader()->setDefaultSectionSize(22);
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->setShowGrid(false);
  table_->setAccessibleName(tr("Ways to ask for ground"));
  table_->horizontalHeader()->setMinimumSectionSize(20);
  table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
  for (const auto& [at, wide] : {std::pair(Says, 44), std::pair(Distance, 46), std::pair(Normal, 40),
                                 std::pair(Cost, 40), std::pair(Wrong, 36), std::pair(Flickers, 36)})
    table_->setColumnWidth(at, wide);
  table_->horizontalHeader()->setSectionResizeMode(Name, QHeaderView::Stretch);
  table_->setMinimumHeight(120);
  for (int row = 0; row < table_->rowCount(); ++row) {
    for (int c = 0; c < kColumns; ++c) {
      auto* item = new QTableWidgetItem;
      if (c != Name) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
      table_->setItem(row, c, item);
    }
  }
  table_->item(0, Name)->setText(tr("the solver"));
  for (std::size_t p = 0; p < kGroundProbes; ++p) {
    table_->item(int(p) + 1, Name)->setText(qt(ground_probes()[p].name));
    table_->item(int(p) + 1, Name)->setToolTip(qt(ground_probes()[p].how));
  }
  words_->setObjectName("caption");
  words_->setWordWrap(true);
  words_->setContentsMargins(12, 0, 12, 4);
  connect(table_, &QTableWidget::currentCellChanged, this, [this](int row) {
    if (row <= 0)
      return words_->setText(
          tr("The solver's verdict is one judgement of what bears the body, used everywhere."));
    const GroundProbeFacts& facts = ground_probes()[std::size_t(row - 1)];
    words_->setText(tr("%1: %2. %3").arg(qt(facts.name), qt(facts.how), qt(facts.weak)));
  });
  column->addWidget(table_, 1);
  column->addWidget(lanes_);
  column->addWidget(words_);
  table_->setCurrentCell(2, 0);
}

void ProbePane::refresh() {
  if (!session_.has_shown()) return;
  const std::pair now(session_.revision(), session_.playhead());
  if (shown_ != now) {
    shown_ = now;
    show_answers();
    lanes_->update();
  }
  if (!session_.live()) ask_over_take();
}

// In other colours all is said again.
void ProbePane::changeEvent(QEvent* event) {
  QWidget::changeEvent(event);
  if (event->type() == QEvent::PaletteChange) shown_ = {};
}

void ProbePane::show_answers() {
  const CharacterState& state = session_.current();
  const double dt = 1.0 / session_.shown().run.tick_rate();
  const auto slope = [&](const Vec3& normal_C) {
    return normal_C == Vec3(0.0)
               ? QString("-")
               : QString("%1°").arg(degrees(angle_between(normal_C, state.up_C())), 0, 'f', 0);
  };
  table_->item(0, Says)->setText(verdict(state.grounded()));
  table_->item(0, Normal)->setText(state.ground.verdict == Verdict::None ? "-" : slope(state.ground.normal_C));
  for (std::size_t p = 0; p < kGroundProbes; ++p) {
    answers_[p] = ask_for_ground(GroundProbe(p), session_.previous(), state, dt, session_.shown_profile(),
                                 session_.place()->world);
    const int row = int(p) + 1;
    const bool wrong = answers_[p].ground != state.grounded();
    table_->item(row, Says)->setText(verdict(answers_[p].ground) + (wrong ? tr(" ≠") : QString()));
    table_->item(row, Says)->setForeground(wrong ? theme::brick() : theme::ink());
    table_->item(row, Distance)
        ->setText(answers_[p].distance
                      ? QString::number(std::round(*answers_[p].distance * 1e3) / 1e3 + 0.0, 'f', 3)
                      : QString("-"));
    table_->item(row, Normal)->setText(slope(answers_[p].normal_C));
  }
}

void ProbePane::ask_over_take() {
  const Recording& shown = session_.shown();
  const std::pair of(session_.revision(), shown.run.ticks());
  if (asked_ == of) return;
  asked_ = of;
  job_.start([this, shown](const NewestJob::Handle& handle) {
    auto lanes = std::make_shared<ProbeLanes::Lanes>();
    const std::size_t count = shown.run.ticks() + 1;
    for (std::size_t i = 0; i < count; ++i) lanes->solver.push_back(shown.run.state(i).grounded());
    lanes->probes = ask_over_run([&](std::size_t i) -> const CharacterState& { return shown.run.state(i); },
                                 count, shown.run.tick_rate(), shown.take.profile, shown.place->world, {},
                                 [&] { return handle.wanted(); });
    handle.finish([this, lanes] {
      lanes_->show_lanes(lanes);
      for (std::size_t p = 0; p < kGroundProbes; ++p) {
        const ProbeLane& lane = lanes->probes[p];
        table_->item(int(p) + 1, Cost)->setText(QString::number(lane.seconds * 1e6, 'f', 2));
        table_->item(int(p) + 1, Wrong)->setText(QString::number(lane.disagrees));
        table_->item(int(p) + 1, Flickers)->setText(QString::number(lane.flickers));
      }
    });
  });
}

void ProbePane::draw(LinePen& pen) const {
  const int chosen = table_->currentRow() - 1;
  const Vec3 up = session_.current().up_C();
  for (int p = 0; p < int(kGroundProbes); ++p) {
    const ProbeAnswer& answer = answers_[std::size_t(p)];
    if (answer.from_C == answer.to_C && answer.radius == 0.0) continue;
    const QColor colour = p != chosen ? theme::rule() : answer.ground ? theme::moss() : theme::brick();
    if (p != chosen && answer.radius > 0.0) continue;
    pen.line(answer.from_C, answer.to_C, colour);
    if (answer.radius > 0.0) {
      const Vec3 u = LinePen::across_any(up), v = cross(up, u);
      for (const Vec3& at : {answer.from_C, answer.to_C}) {
        pen.arc(at, u * answer.radius, v * answer.radius, 2.0 * kPi, colour);
        pen.arc(at, u * answer.radius, up * answer.radius, 2.0 * kPi, colour);
      }
    }
    if (answer.distance) pen.star(session_.current().foot_C - up * *answer.distance, 0.06, colour);
    if (p == chosen && answer.normal_C != Vec3(0.0)) pen.arrow(answer.to_C, answer.normal_C * 0.4, colour);
  }
}

}  // namespace lagniappe::app
