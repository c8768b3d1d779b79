// SPDX-License-Identifier: GPL-3.0-or-later
#include "panels/ghosts_panel.h"

#include <QGridLayout>
#include <QHeaderView>
#include <QInputDialog>
#include <QLabel>
#include <QMenu>
#include <QPainter>
#include <QProgressBar>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include "theme/state_colours.h"
#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

QString piece_text(const Place& place, PieceId piece) {
  const std::string_view name = place.world.piece_name(piece);
  return name.empty() ? GhostsPanel::tr("in the air")
                      : GhostsPanel::tr("on %1").arg(QString::fromUtf8(name.data(), qsizetype(name.size())));
}

// A short piece of the line that a run has everywhere else.
QIcon line_icon(const theme::RunStyle& style) {
  QPixmap pixmap(26, 12);
  pixmap.fill(Qt::transparent);
  QPainter painter(&pixmap);
  painter.setPen(QPen(style.colour, 2.5, style.pen));
  painter.drawLine(1, 6, 25, 6);
  return QIcon(pixmap);
}

QString figure_name(const RunFigure& figure) {
  return figure.against.empty() ? qt(figure.name) : qt(figure.name) + ", " + qt(figure.against);
}

QString figure_text(const RunFigure& figure, const Run& run, const RunSummary& summary) {
  constexpr int kMostDigits = 2;
  const QString number = QString::number(figure.get(run, summary), 'f', std::min(figure.digits, kMostDigits));
  return figure.unit.empty() ? number : number + " " + qt(figure.unit);
}

QPushButton* button(const char* icon, const QString& text, const QString& tip) {
  auto* made = new QPushButton(theme::icon(icon), text);
  made->setToolTip(tip);
  return made;
}

}  // namespace

QString verdict_text(const Recording& shown, const Ghost& ghost) {
  const Comparison& c = ghost.against;
  const int rate = shown.run.tick_rate();
  if (c.identical) return GhostsPanel::tr("Identical, to the bit, in all %1 ticks.").arg(shown.run.ticks());
  QString text;
  if (c.first_difference)
    text = GhostsPanel::tr("Tick %1 is the first that differs. ").arg(*c.first_difference);
  if (!c.parting) return text + GhostsPanel::tr("Never more than a millimetre apart.");
  return text + GhostsPanel::tr("They part at tick %1, %2; furthest apart %3 m at %4.")
                    .arg(*c.parting)
                    .arg(seconds_text(double(*c.parting) / rate))
                    .arg(c.furthest, 0, 'f', 2)
                    .arg(seconds_text(double(c.furthest_at) / rate));
}

GhostsPanel::GhostsPanel(TakeDesk& desk, DriveSession& session, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      session_(session),
      verdict_(new QLabel),
      drift_(new QLabel),
      progress_(new QProgressBar),
      keep_(button("check", tr("Keep this"), tr("Make the retake a take of its own"))),
      put_back_(button("undo-2", tr("Put back"), tr("Back to the values that the take was driven with"))),
      pin_(button("pin", tr("Pin"), tr("Keep this ghost beside the take while the values change on"))),
      why_(button("search", tr("Why they part"), tr("Both ledgers of the tick at which they part"))),
      unchanged_(button("repeat", tr("Run it unchanged"), tr("It must be identical, to the bit"))),
      cancel_(button("x", tr("Cancel"), tr("Give the retake up"))),
      table_(new QTableWidget) {
  for (QLabel* label : {verdict_, drift_}) {
    label->setWordWrap(true);
    label->setTextInteractionFlags(Qt::TextSelectableByMouse);
  }
  verdict_->setObjectName("verdict");
  drift_->setObjectName("drift");
  progress_->setTextVisible(false);
  table_->setObjectName("figures");
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setSelectionMode(QAbstractItemView::NoSelection);
  table_->horizontalHeader()->setIconSize(QSize(26, 12));
  table_->horizontalHeader()->setContextMenuPolicy(Qt::CustomContextMenu);
  table_->setToolTip(tr("Double click a pinned ghost's heading to name it, right click for more"));
  auto* buttons = new QGridLayout;
  buttons->setSpacing(4);
  int at = 0;
  for (QPushButton* made : {keep_, put_back_, pin_, why_}) {
    buttons->addWidget(made, at / 2, at % 2);
    ++at;
  }
  setObjectName("sidePage");
  setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(10, 8, 8, 8);
  column->setSpacing(6);
  column->addWidget(verdict_);
  column->addWidget(drift_);
  column->addWidget(progress_);
  column->addWidget(cancel_);
  column->addLayout(buttons);
  column->addWidget(unchanged_);
  column->addWidget(table_, 1);
  connect(keep_, &QPushButton::clicked, &desk_, &TakeDesk::keep_ghost);
  connect(put_back_, &QPushButton::clicked, &desk_, &TakeDesk::put_back);
  connect(pin_, &QPushButton::clicked, &desk_, &TakeDesk::pin);
  connect(why_, &QPushButton::clicked, this, &GhostsPanel::parting_asked);
  connect(unchanged_, &QPushButton::clicked, &desk_, &TakeDesk::retake_unchanged);
  connect(cancel_, &QPushButton::clicked, &desk_, &TakeDesk::cancel_retake);
  connect(&desk_, &TakeDesk::ghosts_changed, this, &GhostsPanel::show_ghosts);
  connect(&desk_, &TakeDesk::rested, this, &GhostsPanel::show_ghosts);
  connect(&desk_, &TakeDesk::retake_progress, this, &GhostsPanel::show_progress);
  connect(table_->horizontalHeader(), &QHeaderView::sectionDoubleClicked, this, &GhostsPanel::rename_pin);
  connect(table_->horizontalHeader(), &QHeaderView::customContextMenuRequested, this,
          [this](const QPoint& where) {
            const int column_at = table_->horizontalHeader()->logicalIndexAt(where);
            const int pin = column_at - 1 - (desk_.current_ghost() ? 1 : 0);
            if (pin < 0) return;
            QMenu menu;
            menu.addAction(tr("Name it..."), this, [this, column_at] { rename_pin(column_at); });
            menu.addAction(tr("Take it out"), this, [this, pin] { desk_.unpin(std::size_t(pin)); });
            menu.exec(table_->horizontalHeader()->mapToGlobal(where));
          });
  show_ghosts();
}

QString GhostsPanel::verdict() const { return verdict_->text(); }

void GhostsPanel::rename_pin(int column) {
  const int pin = column - 1 - (desk_.current_ghost() ? 1 : 0);
  if (pin < 0) return;
  const QString before = table_->horizontalHeaderItem(column)->toolTip();
  const QString name = QInputDialog::getText(this, tr("Name the ghost"), tr("Name"), QLineEdit::Normal, before);
  if (!name.simplified().isEmpty()) desk_.name_pin(std::size_t(pin), name.simplified());
}

void GhostsPanel::show_progress(double share) {
  progress_->setRange(0, 1000);
  progress_->setValue(int(share * 1000));
  progress_->show();
  cancel_->show();
  verdict_->setText(tr("Running the take again: %1 %").arg(int(share * 100)));
}

void GhostsPanel::show_ghosts() {
  const auto ghost = desk_.current_ghost();
  progress_->hide();
  cancel_->hide();
  for (QPushButton* b : {keep_, put_back_, pin_}) b->setEnabled(ghost != nullptr && !ghost->against.identical);
  why_->setEnabled(ghost != nullptr && ghost->against.parting.has_value());
  unchanged_->setEnabled(session_.has_shown() && session_.shown().run.ticks() > 0);
  drift_->hide();
  if (!ghost) {
    verdict_->setText(
        tr("Change a value, the tick rate or the course: the take is run again at once, and stands "
           "here beside itself."));
  } else {
    verdict_->setText(tr("%1. %2").arg(ghost->name, verdict_text(session_.shown(), *ghost)));
    if (const auto& drift = ghost->against.drift) {
      drift_->setText(tr("Drifted: from %1 on comparing means little. The take is %2, the retake %3.")
                          .arg(seconds_text(drift->tick, session_.shown().run.tick_rate()),
                               piece_text(*session_.place(), drift->mine),
                               piece_text(*ghost->recording->place, drift->other)));
      drift_->show();
    }
  }
  fill_table();
}

void GhostsPanel::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  fill_table();
}

// Figures of whole runs: only where they are seen.
void GhostsPanel::fill_table() {
  if (!isVisible()) return;
  table_->clear();
  if (!session_.has_shown()) return;
  struct Column {
    QString name;
    const Recording* recording;
    theme::RunStyle style;
  };
  std::vector<Column> columns = {{tr("take"), &session_.shown(), theme::shown_style()}};
  const auto ghosts = desk_.ghosts();
  for (std::size_t g = 0; g < ghosts.size(); ++g)
    columns.push_back({ghosts[g]->name, ghosts[g]->recording.get(), theme::ghost_style(g)});
  table_->setColumnCount(int(columns.size()));
  table_->setRowCount(int(run_figures().size()));
  for (int row = 0; row < table_->rowCount(); ++row)
    table_->setVerticalHeaderItem(row, new QTableWidgetItem(figure_name(run_figures()[std::size_t(row)])));
  for (int at = 0; at < table_->columnCount(); ++at) {
    const Column& column = columns[std::size_t(at)];
    auto* heading = new QTableWidgetItem(line_icon(column.style), at == 0 ? column.name : QString());
    heading->setToolTip(column.name);
    table_->setHorizontalHeaderItem(at, heading);
    const RunSummary summary = column.recording->run.summarize();
    for (int row = 0; row < table_->rowCount(); ++row) {
      auto* item =
          new QTableWidgetItem(figure_text(run_figures()[std::size_t(row)], column.recording->run, summary));
      item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
      item->setFont(theme::number_font(11));
      const bool differs = at > 0 && item->text() != table_->item(row, 0)->text();
      if (differs)
        item->setForeground(theme::light() == theme::Light::Daylight ? column.style.colour.darker(150)
                                                                     : column.style.colour);
      table_->setItem(row, at, item);
    }
  }
  table_->horizontalHeader()->setSectionResizeMode(columns.size() < 4 ? QHeaderView::Stretch
                                                                      : QHeaderView::ResizeToContents);
  table_->verticalHeader()->setDefaultSectionSize(22);
}

}  // namespace lagniappe::app
