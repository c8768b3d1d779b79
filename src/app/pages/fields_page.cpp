// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/fields_page.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QJsonDocument>
#include <QLabel>
#include <QSettings>
#include <QToolButton>
#include <QVBoxLayout>
#include <cmath>

#include "fields/cut_view.h"
#include "fields/plane_grips.h"
#include "fields/row_card.h"
#include "fields/small_world.h"
#include "fields/strength_plot.h"
#include "pages/kept_splitter.h"
#include "panels/intent_picture.h"
#include "session/carried_round.h"
#include "tape/tape.h"
#include "theme/theme.h"
#include "viewport/line_pen.h"
#include "viewport/view_widget.h"
#include "widgets/scrolled.h"

namespace lagniappe::app {
namespace {

constexpr int kSideWidth = 330, kTapeHeight = 190;
constexpr int kViewWide = 232, kViewHigh = 150, kViewAside = 12;
const char *const kRowsKey = "fields/rows", *const kColumnsKey = "fields/columns";
constexpr int kAcross = 9;       // Strokes in the view across the cut, and up it.
constexpr double kStroke = 0.1;  // m for a m/s2.

// A button for an action, under a shorter name.
QToolButton* plain_button(QAction& action, const QString& text, QWidget* parent = nullptr) {
  auto* button = new QToolButton(parent);
  button->setDefaultAction(&action);
  button->setToolButtonStyle(Qt::ToolButtonTextOnly);
  button->setText(text);
  QObject::connect(&action, &QAction::changed, button, [button, text] { button->setText(text); });
  return button;
}

enum Plotted { AlongLine, Falloff, Stick };

}  // namespace

FieldsPage::FieldsPage(CourseDesk& desk, TakeDesk& takes, DriveSession& session, const Actions& actions,
                       QSettings& settings, QWidget* parent)
    : Page(parent),
      desk_(desk),
      takes_(takes),
      session_(session),
      cut_(new CutView(desk, session)),
      plot_(new StrengthPlot),
      card_(new RowCard(desk)),
      tape_(new Tape(session, nullptr, Tape::Third::Shares)),
      rows_list_(new QComboBox),
      plotted_(new QComboBox),
      intent_(new IntentPicture(session)),
      remark_(new QLabel),
      figures_(new QLabel),
      rows_(new KeptSplitter(Qt::Vertical, settings, kRowsKey)),
      columns_(new KeptSplitter(Qt::Horizontal, settings, kColumnsKey)) {
  setObjectName("page");
  tape_->set_curves({"pull", "up_rate"});
  auto* left = new QWidget;
  auto* column = new QVBoxLayout(left);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  column->addWidget(cut_, 1);
  auto* over = new QHBoxLayout;  // Over the picture, above its legend.
  over->addStretch(1);
  over->setContentsMargins(0, 0, 10, CutView::kLegend + 10);
  for (const auto& [act, text] :
       {std::pair(Act::CutPlayhead, tr("Cut here  H")), std::pair(Act::CutAll, tr("Show all")),
        std::pair(Act::AddField, tr("Add field")), std::pair(Act::AddZone, tr("Add zone"))})
    over->addWidget(plain_button(*actions[act], text));
  auto* on_cut = new QVBoxLayout(cut_);
  on_cut->setContentsMargins(0, 0, 0, 0);
  on_cut->addStretch(1);
  on_cut->addLayout(over);
  rows_->addWidget(left);
  rows_->addWidget(tape_);
  rows_->restore({520, kTapeHeight});
  columns_->addWidget(rows_);
  columns_->addWidget(make_side(actions));
  columns_->restore({900, kSideWidth});
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->addWidget(columns_);
  connect_parts();
}

FieldsPage::~FieldsPage() {
  desk_.disconnect(this);
  takes_.disconnect(this);
}

QWidget* FieldsPage::make_side(const Actions& actions) {
  auto* side = new QWidget;
  side->setObjectName("sidePage");
  side->setAttribute(Qt::WA_StyledBackground);
  side->setMinimumWidth(kSideWidth);
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(0, 8, 0, 0);
  column->setSpacing(4);
  auto* heading = new QHBoxLayout;
  heading->setContentsMargins(14, 0, 14, 0);
  auto* title = new QLabel(tr("Strength over distance"));
  title->setObjectName("cardTitle");
  plotted_->addItems({tr("A to B"), tr("falloff"), tr("the stick")});
  plotted_->setObjectName("plotted");
  plotted_->setAccessibleName(tr("What is drawn"));
  plotted_->setToolTip(
      tr("Along the line from A to B in the cut, or the falloff of the chosen field: its curve's points are "
         "dragged, a double click adds or takes one. By keys: Space chooses a point, the arrows move it, "
         "Insert adds one, Delete takes it"));
  heading->addWidget(title, 1);
  heading->addWidget(plotted_);
  column->addLayout(heading);
  plot_->setFixedHeight(206);
  column->addWidget(plot_);
  auto* chosen = new QHBoxLayout;
  chosen->setContentsMargins(14, 4, 14, 0);
  chosen->setSpacing(6);
  rows_list_->setAccessibleName(tr("Field or zone"));
  rows_list_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  chosen->addWidget(rows_list_, 1);
  chosen->addWidget(plain_button(*actions[Act::CopyRow], tr("Copy")));
  auto* remove = new QToolButton;
  remove->setDefaultAction(actions[Act::RemoveRow]);
  remove->setToolButtonStyle(Qt::ToolButtonIconOnly);
  chosen->addWidget(remove);
  column->addLayout(chosen);
  card_area_ = scrolled(card_);
  column->addWidget(card_area_, 1);
  intent_area_ = scrolled(intent_);
  intent_area_->hide();
  column->addWidget(intent_area_, 1);
  figures_->setObjectName("figure");
  figures_->setWordWrap(true);
  figures_->setContentsMargins(14, 2, 14, 2);
  column->addWidget(figures_);
  remark_->setObjectName("caption");
  remark_->setWordWrap(true);
  auto* lower = new QHBoxLayout;
  lower->setContentsMargins(14, 0, 14, 8);
  lower->addWidget(remark_, 1);
  lower->addWidget(plain_button(*actions[Act::SaveCourse], tr("Save")));
  column->addLayout(lower);
  return side;
}

void FieldsPage::connect_parts() {
  connect(cut_, &CutView::chosen_changed, this, [this] {
    plot_stale_ = true;
    card_->show_row(cut_->chosen(), session_.profile().gravity);
    show_rows();
    show_figures();
  });
  connect(cut_, &CutView::line_changed, this, [this] { plot_stale_ = true; });
  connect(cut_, &CutView::cut_changed, this, [this] {
    if (view_ != nullptr) view_->draw_anew();
  });
  connect(cut_, &CutView::remove_asked, this, &FieldsPage::remove_row);
  connect(cut_, &CutView::add_asked, this, &FieldsPage::add_field);
  connect(plotted_, &QComboBox::activated, this, [this] { show_plot(); });
  connect(rows_list_, &QComboBox::activated, this, [this](int at) {
    const auto fields = int(desk_.course() == nullptr ? 0 : desk_.course()->fields.size());
    cut_->choose_and_show(at < fields ? RowChoice{CourseList::Fields, std::size_t(at)}
                                      : RowChoice{CourseList::Zones, std::size_t(at - fields)});
  });
  connect(&desk_, &CourseDesk::changed, this, [this] {
    cut_->refresh();
    card_->show_row(cut_->chosen(), session_.profile().gravity);
    plot_stale_ = true;
    show_rows();
    show_figures();
    if (view_ != nullptr) view_->draw_anew();
  });
  connect(&takes_, &TakeDesk::ghosts_changed, this, [this] { tape_->set_ghosts(takes_.ghosts()); });
  connect(&takes_, &TakeDesk::values_changed, this, [this] {
    card_->show_row(cut_->chosen(), session_.profile().gravity);
    plot_stale_ = true;
    show_figures();
  });
  connect(card_, &RowCard::refused, this, &FieldsPage::refused);
  connect(&desk_, &CourseDesk::refused, this, &FieldsPage::refused);
  connect(plot_, &StrengthPlot::redraw_asked, this, &FieldsPage::show_plot);
  connect(plot_, &StrengthPlot::curve_changed, this,
          [this, gesture = 0](const QJsonArray& points, bool begins) mutable {
            if (begins || gesture == 0) gesture = desk_.new_gesture();
            card_->change("falloff", points, gesture);
            show_plot();
          });
}

// The view is a window into the same place, in the corner of the cut.
void FieldsPage::come_up(ViewWidget& view) {
  view_ = &view;
  view.setParent(cut_);
  view.set_plain(true);
  view_least_ = view.minimumWidth();
  view.setMinimumSize(kViewWide, kViewHigh);
  view.setMaximumSize(kViewWide, kViewHigh);
  view.setGeometry(kViewAside, kViewAside, kViewWide, kViewHigh);
  grips_ = std::make_unique<PlaneGrips>(*cut_, session_, view);
  view.set_besides([this](LinePen& pen) { draw_besides(pen); });
  view.show();
  view.raise();
  desk_.refresh();
  refresh();
  cut_->setFocus(Qt::OtherFocusReason);
}

void FieldsPage::go_down() {
  if (view_ == nullptr) return;
  view_->set_besides({});
  grips_.reset();
  view_->setMinimumWidth(view_least_);
  view_->setMaximumWidth(QWIDGETSIZE_MAX);
  view_ = nullptr;
}

void FieldsPage::refresh() {
  cut_->refresh();
  tape_->refresh();
  if (listed_ != desk_.edition()) show_rows();
  if (plot_stale_) show_plot();
  if (figures_of_ != std::pair(session_.revision(), session_.playhead()) && !session_.live()) show_figures();
  if (intent_area_->isVisible()) intent_->refresh();
}

void FieldsPage::show_rows() {
  listed_ = desk_.edition();
  rows_list_->clear();
  const Course* course = desk_.course();
  if (course == nullptr) return;
  for (const Field& field : course->fields)
    rows_list_->addItem(tr("field %1").arg(QString::fromStdString(field.id)));
  for (const Zone& zone : course->zones)
    rows_list_->addItem(tr("zone %1").arg(QString::fromStdString(zone.id)));
  const auto& chosen = cut_->chosen();
  const auto fields = int(course->fields.size());
  rows_list_->setCurrentIndex(!chosen ? -1
                                      : int(chosen->index) + (chosen->list == CourseList::Zones ? fields : 0));
  rows_list_->setPlaceholderText(rows_list_->count() == 0 ? tr("no field, no zone yet") : tr("none chosen"));
}

void FieldsPage::show_plot() {
  plot_stale_ = false;
  const bool stick = plotted_->currentIndex() == Stick;
  intent_area_->setVisible(stick);
  plot_->setVisible(!stick);
  card_area_->setVisible(!stick);
  if (stick) intent_->refresh();
  const Course* course = desk_.course();
  if (course == nullptr || cut_->pulls() == nullptr) return plot_->show_nothing();
  const auto& chosen = cut_->chosen();
  const bool field = chosen && chosen->list == CourseList::Fields;
  if (plotted_->currentIndex() == Falloff && field) {
    plot_->show_falloff(*course, *chosen, session_.profile().gravity);
  } else {
    plot_->show_line(*course, *cut_->pulls(), cut_->from_C(), cut_->to_C(), cut_->shown_time());
  }
}

// What the chosen field makes of its world for who runs on it.
void FieldsPage::show_figures() {
  figures_of_ = {session_.revision(), session_.playhead()};
  const Course* course = desk_.course();
  QString text;
  if (course != nullptr && cut_->chosen() && cut_->chosen()->list == CourseList::Fields) {
    const Profile& profile = session_.profile();
    const Field& field = course->fields[cut_->chosen()->index];
    if (const auto world = small_world(field, profile)) {
      text = tr("Once round at %1 m/s: %2 m, %3 s\nRuns off the ground from %4 m/s")
                 .arg(profile.ground.speed, 0, 'g', 3)
                 .arg(world->round, 0, 'f', 1)
                 .arg(world->round / profile.ground.speed, 0, 'f', 1)
                 .arg(world->leaving_speed, 0, 'f', 1);
      if (profile.ground.sprint_speed >= world->leaving_speed)
        text += tr(": sprinting does, %1 m/s").arg(profile.ground.sprint_speed, 0, 'g', 3);
    }
  }
  if (const auto round = carried_round(session_)) {
    if (!text.isEmpty()) text += "\n";
    text += tr("Heading carried round by %1\u00b0 since %2 s")
                .arg(std::abs(degrees(round->angle)), 0, 'f', 0)
                .arg(double(round->since) / session_.shown().run.tick_rate(), 0, 'f', 2);
  }
  figures_->setText(text);
  figures_->setVisible(!text.isEmpty());
  remark_->setText(desk_.course() == nullptr ? QString()
                   : desk_.is_saved()        ? tr("The course is as saved.")
                   : desk_.can_save()        ? tr("Changed, not saved; the take is run again on it.")
                                             : tr("Changed; what is no course document cannot be saved."));
}

void FieldsPage::add_row(const RowChoice& row, const QJsonObject& object, const QString& what) {
  if (!desk_.set_row(row.list, row.index, QJsonDocument(object).toJson(QJsonDocument::Compact), what)) return;
  cut_->refresh();
  cut_->choose(row);
}

void FieldsPage::add_field() {
  if (desk_.course() == nullptr) return;
  add_row({CourseList::Fields, desk_.course()->fields.size()},
          new_field(desk_.free_name(CourseList::Fields, tr("Field")), cut_->cut().middle_C), tr("add a field"));
}

void FieldsPage::add_zone() {
  if (desk_.course() == nullptr) return;
  add_row({CourseList::Zones, desk_.course()->zones.size()},
          new_zone(desk_.free_name(CourseList::Zones, tr("Zone")), cut_->cut().middle_C), tr("add a zone"));
}

void FieldsPage::copy_row() {
  const auto& chosen = cut_->chosen();
  if (!chosen || desk_.course() == nullptr) return;
  QJsonObject copy = row_object(*desk_.course(), *chosen);
  const QString stem = copy["id"].toString();
  copy["id"] = desk_.free_name(chosen->list, stem);
  const Vec3 by = cut_->cut().across_C * 1.0;
  QJsonArray at = copy["at"].toArray();
  for (int i = 0; i < 3; ++i) at[i] = at[i].toDouble() + by[i];
  copy["at"] = at;
  add_row({chosen->list, row_count(*desk_.course(), chosen->list)}, copy, tr("copy %1").arg(stem));
}

void FieldsPage::remove_row() {
  const auto chosen = cut_->chosen();
  if (!chosen) return;
  cut_->choose(std::nullopt);
  desk_.remove_row(chosen->list, chosen->index);
}

// The cut's frame with strokes of the pull over it, shells where reaches end, and the pull on the body.
void FieldsPage::draw_besides(LinePen& pen) const {
  const Pulls* pulls = cut_->pulls();
  if (pulls == nullptr || desk_.course() == nullptr) return;
  const Cut& cut = cut_->cut();
  const Vec3 half_x = cut.across_C * (0.5 * cut_->picture_size().width() / cut.pixels),
             half_y = cut.up_C * (0.5 * cut_->picture_size().height() / cut.pixels);
  const Vec3 a = cut.middle_C - half_x - half_y, b = cut.middle_C + half_x - half_y,
             c = cut.middle_C + half_x + half_y, d = cut.middle_C - half_x + half_y;
  for (const auto& [from, to] : {std::pair(a, b), std::pair(b, c), std::pair(c, d), std::pair(d, a)})
    pen.line(from, to, theme::ink());
  if (grips_) grips_->draw(pen);
  const double time = cut_->shown_time();
  const CharacterState& state = session_.current();
  const auto stroke = [&](const Vec3& at, const QColor& colour, double scale) {
    pen.arrow(at, pulls->at(at, time) * scale, colour);
  };
  for (int i = 0; i < kAcross; ++i) {
    for (int k = 0; k < kAcross; ++k) {
      const double x = (i + 0.5) / kAcross * 2.0 - 1.0, y = (k + 0.5) / kAcross * 2.0 - 1.0;
      stroke(cut.middle_C + half_x * x + half_y * y, theme::ink2(), kStroke);
    }
  }
  // Around the body, where one stands.
  for (int i = -2; i <= 2; ++i) {
    for (int k = -2; k <= 2; ++k)
      stroke(state.foot_C + state.frame_CB * Vec3(i * 1.5, 0.1, k * 1.5), theme::sky(), kStroke * 0.5);
  }
  stroke(state.foot_C + state.up_C() * (0.5 * state.capsule_height), theme::brick(), kStroke);
  for (std::size_t i = 0; i < pulls->fields().size(); ++i) {
    const auto* ball = std::get_if<field::Ball>(&pulls->fields()[i].shape);
    const double reach = reach_of(pulls->fields()[i]);
    if (ball == nullptr || !std::isfinite(reach)) continue;
    const Vec3 at = pulls->frame(i, time).position_C;
    const double radius = ball->radius + reach;
    const QColor colour = row_colour(*desk_.course(), {CourseList::Fields, i});
    for (const auto& [u, v] : {std::pair(Vec3(1, 0, 0), Vec3(0, 1, 0)), std::pair(Vec3(0, 1, 0), Vec3(0, 0, 1)),
                               std::pair(Vec3(0, 0, 1), Vec3(1, 0, 0))})
      pen.arc(at, u * radius, v * radius, 2.0 * kPi, colour);
  }
}

}  // namespace lagniappe::app
