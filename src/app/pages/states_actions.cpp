// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/states_actions.h"

#include <QFileInfo>

#include "lagniappe/files.h"
#include "lagniappe/scxml.h"
#include "pages/states_page.h"
#include "states/findings_pane.h"
#include "states/state_pane.h"
#include "states/transition_pane.h"
#include "tape/tape.h"

namespace lagniappe::app {
namespace {

constexpr std::size_t kMostRemarks = 3;  // That the message names.

}  // namespace

StatesActions::StatesActions(StatesDesk& desk, HandlingDesk& handling, StatesPage& page, const Actions& actions,
                             Doors doors, QWidget* window)
    : QObject(window), desk_(desk), handling_(handling), doors_(std::move(doors)), window_(window) {
  // All but the files happen on the page.
  const auto does_on = [&](Act act, auto does) {
    connect(actions[act], &QAction::triggered, this, [this, does] {
      emit page_asked();
      does();
    });
  };
  does_on(Act::EditGuard, [&page] {
    page.show_transition();
    page.transition().edit_guard();
  });
  does_on(Act::AddTransition, [&page] {
    page.show_transition();
    page.transition().add_transition();
  });
  does_on(Act::NextFiring, [&page] { page.transition().go_to_firing(+1); });
  does_on(Act::PreviousFiring, [&page] { page.transition().go_to_firing(-1); });
  const auto of_state = [&page](auto does) {
    return [&page, does] {
      page.show_state(page.state().state());
      (page.state().*does)();
    };
  };
  does_on(Act::AddState, of_state(&StatePane::add));
  does_on(Act::RenameState, of_state(&StatePane::rename));
  does_on(Act::DuplicateState, of_state(&StatePane::duplicate));
  does_on(Act::DeleteState, of_state(&StatePane::remove));
  does_on(Act::WhyState, [&page] { page.show_why(); });
  does_on(Act::CheckTable, [this, &page] {
    page.show_findings();
    desk_.check();
  });
  connect(actions[Act::ZoomIn], &QAction::triggered, this, [&page] { page.tape().zoom(0.5); });
  connect(actions[Act::ZoomOut], &QAction::triggered, this, [&page] { page.tape().zoom(2.0); });
  connect(actions[Act::ShowAll], &QAction::triggered, this, [&page] { page.tape().show_all(); });
  connect(actions[Act::ReadChart], &QAction::triggered, this, [this] {
    const QString path = ask_for(doors_, window_, tr("Read a state chart"), files::kCharts);
    if (!path.isEmpty()) read_chart(path);
  });
  connect(actions[Act::WriteChart], &QAction::triggered, this, &StatesActions::write_chart);
}

void StatesActions::read_chart(const QString& path) {
  const auto chart = read_scxml(path.toStdString());
  const QString name = QFileInfo(path).fileName();
  if (!chart)
    return emit problem(tr("%1 was not read; the table stays as it was").arg(name),
                        QString::fromStdString(chart.error().sentence()));
  if (!desk_.change(chart->table, tr("table from %1").arg(name))) return;
  emit page_asked();
  if (chart->remarks.empty()) return;
  QStringList said;
  for (std::size_t i = 0; i < std::min(chart->remarks.size(), kMostRemarks); ++i)
    said.append(QString::fromStdString(chart->remarks[i]));
  const auto more = chart->remarks.size() - std::size_t(said.size());
  if (more > 0)
    said.append(tr("and %1 more, each a guard that is false or a word that was left out").arg(more));
  emit problem(tr("%1 was read, with things to fill in").arg(name), said.join("; ") + ".");
}

void StatesActions::write_chart() {
  const Profile& profile = handling_.now();
  const auto written = write_where_asked(
      doors_, window_, tr("Write the state chart"), files::kCharts,
      QString::fromStdString(profile.name).toLower() + ".scxml",
      [&](const std::string& path) { return write_file(path, scxml_text(desk_.table(), profile.name)); });
  if (!written) emit problem(tr("It was not written"), QString::fromStdString(written.error().sentence()));
}

}  // namespace lagniappe::app
