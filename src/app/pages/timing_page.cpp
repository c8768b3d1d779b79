// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/timing_page.h"

#include <qcustomplot.h>

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QSettings>
#include <QStackedLayout>
#include <QTabWidget>
#include <QToolButton>
#include <QVBoxLayout>

#include "pages/exports.h"
#include "pages/kept_splitter.h"
#include "theme/text.h"
#include "theme/theme.h"
#include "timing/feel_bar.h"
#include "timing/matrix_table.h"
#include "timing/phase_pane.h"
#include "timing/probe_pane.h"
#include "timing/recipe_pane.h"
#include "timing/strip_view.h"
#include "timing/timing_desk.h"
#include "timing/ways_pane.h"
#include "viewport/line_pen.h"
#include "viewport/view_widget.h"
#include "widgets/flow_layout.h"
#include "widgets/scrolled.h"

namespace lagniappe::app {
namespace {

constexpr int kSideWidth = 350, kViewHigh = 170;
const char *const kRowsKey = "timing/rows", *const kColumnsKey = "timing/columns";
constexpr QSize kExported(1100, 760);

QToolButton* choice(const QString& text, const QString& tip) {
  auto* button = new QToolButton;
  button->setText(text);
  button->setToolTip(tip);
  button->setCheckable(true);
  button->setToolButtonStyle(Qt::ToolButtonTextOnly);
  return button;
}

// Before a row of buttons, as high as they are.
QLabel* heading(const QString& text) {
  auto* made = new QLabel(text);
  made->setMinimumSize(44, 30);
  return made;
}

QLabel* label(const char* name) {
  auto* made = new QLabel;
  made->setObjectName(name);
  return made;
}

}  // namespace

TimingPage::TimingPage(DriveSession& session, Heart& heart, const Actions& actions, const Doors& doors,
                       QSettings& settings, QWidget* parent)
    : Page(parent),
      session_(session),
      doors_(doors),
      desk_(new TimingDesk(session, this)),
      matrix_(new MatrixTable(*desk_)),
      strips_(new StripView(*desk_)),
      recipes_(new RecipePane(*desk_)),
      probes_(new ProbePane(session)),
      phases_(new PhasePane(session)),
      ways_(new WaysPane(*desk_)),
      feel_(new FeelBar(session, heart, actions)),
      tabs_(new QTabWidget),
      methods_(new QButtonGroup(this)),
      figures_(new QButtonGroup(this)),
      summary_(label("caption")),
      meaning_(label("caption")),
      empty_(label("caption")),
      advice_(new QLabel),
      advice_count_(label("caption")),
      try_(new QPushButton(tr("Try it"))),
      replay_(new QPushButton(tr("Replay both ×1/20"))),
      progress_(new QProgressBar),
      rows_(new KeptSplitter(Qt::Vertical, settings, kRowsKey)),
      columns_(new KeptSplitter(Qt::Horizontal, settings, kColumnsKey)) {
  setObjectName("page");
  columns_->addWidget(make_left(actions));
  columns_->addWidget(make_side());
  columns_->restore({900, kSideWidth});
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->addWidget(columns_);
  connect_parts(actions);
  show_measured();
}

TimingPage::~TimingPage() { desk_->disconnect(this); }

QWidget* TimingPage::make_choices() {
  auto* area = new QWidget;
  auto* column = new QVBoxLayout(area);
  column->setContentsMargins(14, 8, 14, 2);
  column->setSpacing(4);
  auto* methods = new FlowLayout(nullptr, 6);
  methods->addWidget(heading(tr("Drawn")));
  const std::pair<QString, QString> ways[] = {
      {tr("as ticked"), tr("Where the last tick left it")},
      {tr("interpolated"), tr("Between the last two ticks")},
      {tr("ahead"), tr("From the last tick on by its velocity")},
      {tr("chase 20 /s"), tr("The drawn place follows what is ticked, exponentially")},
      {tr("in-frame"), tr("No ticks: motion in the frame itself, with the frame's time")}};
  for (int i = 0; i < int(std::size(ways)); ++i) {
    QToolButton* button = choice(ways[i].first, ways[i].second);
    methods_->addButton(button, i);
    methods->addWidget(button);
  }
  column->addLayout(methods);
  auto* figures = new FlowLayout(nullptr, 6);
  figures->addWidget(heading(tr("Figure")));
  for (std::size_t i = 0; i < shown_figures().size(); ++i) {
    QToolButton* button = choice(tr(shown_figures()[i].name), tr(shown_figures()[i].what));
    figures_->addButton(button, int(i));
    figures->addWidget(button);
  }
  column->addLayout(figures);
  meaning_->setWordWrap(true);
  column->addWidget(meaning_);
  summary_->setWordWrap(true);
  column->addWidget(summary_);
  methods_->button(int(desk_->b().drawing))->setChecked(true);
  figures_->button(int(desk_->figure()))->setChecked(true);
  return area;
}

QWidget* TimingPage::make_left(const Actions&) {
  auto* left = new QWidget;
  auto* column = new QVBoxLayout(left);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  study_area_ = new QWidget;
  auto* study = new QVBoxLayout(study_area_);
  study->setContentsMargins(0, 0, 0, 0);
  study->setSpacing(2);
  auto* upper = new QWidget;
  auto* over = new QVBoxLayout(upper);
  over->setContentsMargins(14, 0, 14, 4);
  over->addWidget(matrix_);
  auto* lower = new QWidget;
  auto* under = new QVBoxLayout(lower);
  under->setContentsMargins(8, 2, 8, 2);
  auto* heading = new QHBoxLayout;
  auto* legend = label("caption");
  legend->setText(tr("line: exact   ○ tick   ● drawn frame, and how far it is off"));
  replay_->setCheckable(true);
  heading->addWidget(legend, 1);
  heading->addWidget(replay_);
  under->addLayout(heading);
  under->addWidget(strips_, 1);
  rows_->addWidget(upper);
  rows_->addWidget(lower);
  rows_->restore({210, 300});
  study->addWidget(make_choices());
  study->addWidget(rows_, 1);
  empty_->setAlignment(Qt::AlignCenter);
  empty_->setWordWrap(true);
  progress_->setTextVisible(false);
  progress_->setFixedHeight(4);
  progress_->setAccessibleName(tr("Measuring"));
  column->addWidget(progress_);
  column->addWidget(empty_, 1);
  column->addWidget(study_area_, 1);
  column->addWidget(feel_);
  auto* advice = new QWidget;
  advice->setObjectName("sidePage");
  advice->setAttribute(Qt::WA_StyledBackground);
  auto* row = new QHBoxLayout(advice);
  row->setContentsMargins(14, 4, 14, 4);
  auto* title = new QLabel(tr("Advice"));
  title->setObjectName("cardTitle");
  row->addWidget(title);
  advice_->setWordWrap(true);
  advice_->setMinimumWidth(120);
  row->addWidget(advice_, 1);
  row->addWidget(try_);
  row->addWidget(advice_count_);
  for (const int by : {-1, 1}) {
    auto* button = new QToolButton;
    button->setArrowType(by < 0 ? Qt::LeftArrow : Qt::RightArrow);
    button->setAccessibleName(by < 0 ? tr("Advice before") : tr("Next advice"));
    connect(button, &QToolButton::clicked, this, [this, by] { next_advice(by); });
    row->addWidget(button);
  }
  column->addWidget(advice);
  return left;
}

QWidget* TimingPage::make_side() {
  auto* side = new QWidget;
  side->setObjectName("sidePage");
  side->setAttribute(Qt::WA_StyledBackground);
  side->setMinimumWidth(kSideWidth);
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  tabs_->setDocumentMode(true);
  tabs_->addTab(scrolled(recipes_), tr("Recipes"));
  tabs_->addTab(scrolled(probes_), tr("Ground"));
  tabs_->addTab(scrolled(phases_), tr("Tick"));
  tabs_->addTab(scrolled(ways_), tr("Ways"));
  column->addWidget(tabs_, 1);
  view_place_ = new QWidget;
  view_place_->setFixedHeight(kViewHigh);
  auto* place = new QVBoxLayout(view_place_);
  place->setContentsMargins(0, 0, 0, 0);
  column->addWidget(view_place_);
  return side;
}

void TimingPage::connect_parts(const Actions& actions) {
  connect(methods_, &QButtonGroup::idClicked, this, [this](int id) { matrix_->set_drawing(std::size_t(id)); });
  connect(figures_, &QButtonGroup::idClicked, this, [this](int id) { desk_->set_figure(std::size_t(id)); });
  connect(desk_, &TimingDesk::measured, this, &TimingPage::show_measured);
  connect(desk_, &TimingDesk::chosen, this, [this] {
    show_meaning();
    show_advice();
  });
  connect(desk_, &TimingDesk::progressed, this, [this](double share) {
    progress_->setRange(0, 1000);
    progress_->setValue(int(1000.0 * share));
  });
  connect(replay_, &QPushButton::toggled, strips_, &StripView::set_replaying);
  connect(strips_, &StripView::replay_changed, replay_, &QPushButton::setChecked);
  connect(try_, &QPushButton::clicked, this, &TimingPage::try_advice);
  connect(actions[Act::ExportTiming], &QAction::triggered, this, &TimingPage::export_figures);
  connect(feel_, &FeelBar::frames_asked, this, &TimingPage::read_frames);
  connect(recipes_, &RecipePane::ways_changed, this, [this] {
    if (view_ != nullptr) view_->draw_anew();
  });
}

// The view is a window into the same place, below the panes.
void TimingPage::come_up(ViewWidget& view) {
  view_ = &view;
  view_least_ = view.minimumWidth();
  view_place_->layout()->addWidget(&view);
  view.set_plain(true);
  view.setMinimumWidth(kSideWidth - 20);
  view.setMinimumHeight(kViewHigh - 20);
  view.set_besides([this](LinePen& pen) { draw_besides(pen); });
  view.show();
  recipes_->come_up();
  refresh();
  matrix_->setFocus(Qt::OtherFocusReason);
}

void TimingPage::go_down() {
  if (view_ == nullptr) return;
  view_->set_besides({});
  view_->setMinimumWidth(view_least_);
  view_ = nullptr;
  strips_->set_replaying(false);
}

void TimingPage::refresh() {
  desk_->refresh();
  feel_->refresh();
  QWidget* shown = tabs_->currentWidget();
  if (shown->isAncestorOf(probes_)) probes_->refresh();
  if (shown->isAncestorOf(phases_)) phases_->refresh();
  if (shown->isAncestorOf(ways_)) ways_->refresh();
  const bool measuring = desk_->busy();
  progress_->setVisible(measuring);
  if (desk_->study() == nullptr)
    empty_->setText(!session_.has_shown() ? tr("Open a course, then drive: what was driven is measured here")
                    : measuring           ? tr("Measuring at six tick rates and five draw rates…")
                                : tr("Nothing was driven yet. Press Enter and drive, or open a take; once it "
                                     "rests it is measured here at every tick rate and draw rate"));
}

void TimingPage::show_measured() {
  const TimingStudy* study = desk_->study();
  study_area_->setVisible(study != nullptr);
  empty_->setVisible(study == nullptr);
  if (study != nullptr) {
    double apart = 0.0;
    for (const TimingRow& row : study->rows) {
      if (row.drawing.method != DrawMethod::InFrame) apart = std::max(apart, row.figures.apart);
    }
    summary_->setText((study->since > 0.0 ? tr("The last %1 s: all tick rates within %2 cm of 480 ticks/s")
                                          : tr("%1 s: all tick rates within %2 cm of 480 ticks/s"))
                          .arg(study->take.seconds(), 0, 'f', 1)
                          .arg(apart * 1e2, 0, 'f', 2));
    show_meaning();
  }
  show_advice();
}

void TimingPage::show_meaning() {
  meaning_->setText(tr(shown_figures()[desk_->figure()].what) + tr(".   A click chooses B, with Shift A.") +
                    (matrix_->has_bars() ? tr("   Bars: steps of frames, line: exact.") : QString()));
}

void TimingPage::show_advice() {
  advices_.clear();
  if (const TimingStudy* study = desk_->study(); study != nullptr)
    advices_ = timing_advice(study->rows, study->row(desk_->b()));
  advised_ = 0;
  next_advice(0);
}

void TimingPage::next_advice(int by) {
  const auto count = int(advices_.size());
  try_->setVisible(count > 0);
  if (count == 0) advice_count_->clear();
  if (count == 0) return advice_->setText(tr("Comes with the figures."));
  advised_ = std::size_t((int(advised_) + by + count) % count);
  const TimingAdvice& advice = advices_[advised_];
  advice_->setText(QString::fromStdString(advice.text));
  advice_count_->setText(tr("%1 of %2").arg(advised_ + 1).arg(count));
  const TimingStudy& study = *desk_->study();
  const TimingRow& now = study.row(desk_->b());
  try_->setEnabled(advice.tick_rate != now.tick_rate || !(advice.drawing == now.drawing));
}

void TimingPage::try_advice() {
  if (advices_.empty()) return;
  const TimingAdvice advice = advices_[advised_];
  const TimingAsk& ask = desk_->study()->ask;
  TimingCell cell = desk_->b();
  const auto rate = std::find(ask.tick_rates.begin(), ask.tick_rates.end(), advice.tick_rate);
  const auto drawing = std::find(ask.drawings.begin(), ask.drawings.end(), advice.drawing);
  if (rate == ask.tick_rates.end() || drawing == ask.drawings.end()) return;
  desk_->compare_with(cell);
  cell.tick_rate = std::size_t(rate - ask.tick_rates.begin());
  cell.drawing = std::size_t(drawing - ask.drawings.begin());
  methods_->button(int(cell.drawing))->setChecked(true);
  matrix_->set_drawing(cell.drawing);
  desk_->choose(cell);
}

void TimingPage::export_figures() {
  const TimingStudy* study = desk_->study();
  if (study == nullptr)
    return emit problem(tr("There is nothing to write yet"), tr("Drive first, or open a take."));
  const auto written = write_where_asked(
      doors_, window(), tr("Export figures or a picture"), files::kTiming, QString("timing.csv"),
      [&](const std::string& path) -> Result<void> {
        if (QString::fromStdString(path).endsWith(".csv")) return write_file(path, timing_csv(study->rows));
        return export_picture(QString::fromStdString(path), kExported, tr("Timing"), [&](QCPPainter& painter) {
          painter.fillRect(QRect(QPoint(), kExported), theme::paper());
          painter.translate(14, 14);
          matrix_->paint(painter, QSizeF(kExported.width() - 28, 300));
          painter.translate(0, 330);
          strips_->paint(painter, QSizeF(kExported.width() - 28, 400));
        });
      });
  if (!written) emit problem(tr("It was not written"), QString::fromStdString(written.error().sentence()));
}

void TimingPage::read_frames() {
  const QString path = ask_for(doors_, window(), tr("Open measured frames"), files::kFrames);
  if (path.isEmpty()) return feel_->set_measured({});
  auto lengths = read_frame_lengths(path.toStdString());
  if (!lengths) {
    feel_->set_measured({});
    return emit problem(tr("The frames could not be read"), QString::fromStdString(lengths.error().sentence()));
  }
  feel_->set_measured(std::move(*lengths));
}

// The exact body and the gap to the drawn one; what the panes have to show in the place.
void TimingPage::draw_besides(LinePen& pen) const {
  QWidget* shown = tabs_->currentWidget();
  if (shown->isAncestorOf(probes_)) probes_->draw(pen);
  const QColor colours[] = {theme::brick(), theme::gold(), theme::plum()};
  std::size_t n = 0;
  for (const auto& way : recipes_->ways()) {
    for (std::size_t i = 1; i < way.size(); ++i)
      pen.line(way[i - 1] + Vec3(0, 0.02, 0), way[i] + Vec3(0, 0.02, 0), colours[n % 3]);
    ++n;
  }
  if (!session_.live()) return;
  const CharacterState& now = session_.current();
  const double radius = session_.shown_profile().capsule.radius;
  const Vec3 exact_C = session_.exact_foot_C(), drawn_C = session_.pose().foot_C;
  pen.capsule(capsule_axis(exact_C, now.up_C(), radius, now.capsule_height), radius, theme::ink());
  const Vec3 high = now.up_C() * (0.5 * now.capsule_height);
  pen.line(exact_C + high, drawn_C + high, theme::brick());
}

}  // namespace lagniappe::app
