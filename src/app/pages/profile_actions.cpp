// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/profile_actions.h"

#include <QDir>
#include <QFileInfo>
#include <QInputDialog>
#include <QMenu>

#include "cards/cards_panel.h"
#include "cards/compare_pane.h"
#include "lagniappe/files.h"
#include "lagniappe/handling_files.h"
#include "pages/drive_page.h"

namespace lagniappe::app {

ProfileActions::ProfileActions(HandlingDesk& desk, DrivePage& page, const Actions& actions, Doors doors,
                               QWidget* window)
    : QObject(window), desk_(desk), page_(page), actions_(actions), doors_(std::move(doors)), window_(window) {
  const auto does_on = [this](Act act, auto does) { connect(actions_[act], &QAction::triggered, this, does); };
  does_on(Act::SaveProfile, [this] { save(); });
  does_on(Act::SaveProfileAs, [this] { save_as(); });
  does_on(Act::TakeOver, [this] { desk_.take_over(); });
  does_on(Act::KeepSnapshot, [this] { keep_snapshot(); });
  does_on(Act::CompareProfiles,
          [this] { compare_ && compare_->isVisible() ? compare_->close_pane() : void(compare()); });
  does_on(Act::ChooseReference, [this] { choose_reference(); });
  does_on(Act::SavedAsReference, [this] { desk_.clear_reference(); });
  does_on(Act::ExportConstants, [this] { export_constants(); });
  does_on(Act::ExportCurve, [this] { export_curve(); });
  does_on(Act::FindValue, [&page] { page.find_value(); });
  connect(&page.cards(), &CardsPanel::save_asked, this, &ProfileActions::save);
  connect(&page.cards(), &CardsPanel::menu_asked, this, &ProfileActions::show_menu);
  connect(&desk_, &HandlingDesk::remark, this, &ProfileActions::problem);
}

std::optional<Profile> ProfileActions::read(const QString& path) {
  const auto profile = read_profile(path.toStdString());
  if (profile) return *profile;
  emit problem(tr("%1 was not opened; the profile stays as it was").arg(QFileInfo(path).fileName()),
               QString::fromStdString(profile.error().sentence()));
  return std::nullopt;
}

void ProfileActions::open(const QString& path) {
  const auto profile = read(path);
  if (!profile) return;
  // What was changed and not saved can be had back: by undo, and from the snapshots.
  if (!desk_.is_saved())
    desk_.keep_snapshot(tr("not saved when %1 was opened").arg(QString::fromStdString(profile->name)));
  desk_.open(path, *profile);
  emit opened(path);
  QFile file(path);
  QStringList said;
  if (file.open(QIODevice::ReadOnly)) {
    for (const std::string& word : old_words_in(file.readAll().toStdString()))
      said += QString::fromStdString(word);
  }
  if (!said.isEmpty())
    emit problem(tr("%1 was written with words of before").arg(QFileInfo(path).fileName()),
                 tr("It says the same: %1.").arg(said.join("; ")));
}

void ProfileActions::show_enabled() { actions_[Act::TakeOver]->setEnabled(desk_.differs_from_take()); }

void ProfileActions::save() { desk_.file().isEmpty() ? save_as() : void(desk_.save()); }

void ProfileActions::save_as() {
  const QString suggested = desk_.file().isEmpty()
                                ? QString::fromStdString(desk_.now().name).toLower() + ".profile.json"
                                : desk_.file();
  QString path =
      doors_.ask_where_to_save(window_, tr("Save profile as"), tr(files::kProfiles.filter), suggested);
  if (path.isEmpty()) return;
  if (!path.endsWith(".json")) path += ".profile.json";
  if (desk_.save_as(path)) emit opened(path);
}

void ProfileActions::write(const QString& title, const FileKind& kind, const QString& suggested,
                           const std::function<std::string(bool second)>& text) {
  const QString second = QString(kind.filter).section("(*", -1).section(')', 0, 0);
  const auto written = write_where_asked(doors_, window_, title, kind, suggested, [&](const std::string& path) {
    return write_file(path, text(QString::fromStdString(path).endsWith(second)));
  });
  if (!written) emit problem(tr("It was not written"), QString::fromStdString(written.error().sentence()));
}

void ProfileActions::export_constants() {
  const QString name = QString::fromStdString(desk_.now().name).toLower().replace(' ', '_');
  write(tr("Export constants"), files::kConstants, name + "_handling.h",
        [this](bool json) { return json ? constants_json(desk_.now()) : constants_header(desk_.now()); });
}

void ProfileActions::export_curve() {
  QStringList titles;
  for (const std::string_view name : curve_names())
    titles.append(QString::fromStdString(curve_drawing(desk_.now(), name).title));
  bool ok = false;
  const QString title =
      QInputDialog::getItem(window_, tr("Export a curve"), tr("Which one?"), titles, 0, false, &ok);
  if (!ok) return;
  const CurveDrawing curve = curve_drawing(desk_.now(), curve_names()[std::size_t(titles.indexOf(title))]);
  write(tr("Export a curve"), files::kCurves, QString::fromStdString(curve.name) + ".svg",
        [&](bool table) { return table ? curve_csv(curve) : curve_svg(curve); });
}

ComparePane* ProfileActions::compare() {
  if (!compare_) {
    compare_ = new ComparePane(desk_);
    // Profiles that lie beside the present one are at hand.
    const QFileInfo own(desk_.file());
    for (const QFileInfo& file : own.dir().entryInfoList({"*.profile.json"}, QDir::Files, QDir::Name)) {
      const auto profile = read_profile(file.filePath().toStdString());
      if (profile && file != own) compare_->offer(QString::fromStdString(profile->name), *profile);
    }
    connect(compare_, &ComparePane::closed, &page_, [this] {
      page_.take_from_view(*compare_);
      compare_.clear();
    });
    connect(compare_, &ComparePane::open_asked, this, [this] {
      const QString path = ask_for(doors_, window_, tr("Open a profile to compare with"), files::kProfiles);
      if (path.isEmpty()) return;
      if (const auto profile = read(path)) compare_->add(QString::fromStdString(profile->name), *profile);
    });
  }
  page_.show_beside_view(*compare_, tr("Compare"));
  return compare_;
}

void ProfileActions::choose_reference() {
  const QString path = ask_for(doors_, window_, tr("Mark differences from"), files::kProfiles);
  if (path.isEmpty()) return;
  if (const auto profile = read(path)) desk_.set_reference(*profile, QString::fromStdString(profile->name));
}

void ProfileActions::keep_snapshot() {
  bool ok = false;
  const QString name =
      QInputDialog::getText(window_, tr("Keep the values as they are now"),
                            tr("Name (empty: by the time of day):"), QLineEdit::Normal, {}, &ok);
  if (ok) desk_.keep_snapshot(name.trimmed());
}

void ProfileActions::fill_snapshots(QMenu& menu) {
  for (std::size_t n = 0; n < desk_.snapshots().size(); ++n) {
    const auto count = differences(desk_.snapshots()[n].profile, desk_.now()).size();
    QAction* action = menu.addAction(tr("%1  (%n differ)", nullptr, int(count)).arg(desk_.snapshots()[n].name));
    action->setEnabled(count > 0);
    connect(action, &QAction::triggered, this, [this, n] { desk_.go_back_to(n); });
  }
  if (desk_.snapshots().empty()) menu.addAction(tr("The first change makes one"))->setEnabled(false);
}

void ProfileActions::show_menu(const QPoint& at) {
  QMenu menu(window_);
  menu.addActions({actions_[Act::OpenProfile], actions_[Act::SaveProfile], actions_[Act::SaveProfileAs]});
  menu.addSeparator();
  menu.addAction(actions_[Act::KeepSnapshot]);
  fill_snapshots(*menu.addMenu(tr("Go back to")));
  menu.addSeparator();
  menu.addActions(
      {actions_[Act::CompareProfiles], actions_[Act::ChooseReference], actions_[Act::SavedAsReference]});
  menu.addSeparator();
  menu.addActions({actions_[Act::ExportConstants], actions_[Act::ExportCurve]});
  menu.exec(at);
}

}  // namespace lagniappe::app
