// SPDX-License-Identifier: GPL-3.0-or-later
#include "doors.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>

namespace lagniappe::app {
namespace {

Doors::Unsaved ask_about_unsaved(QWidget* parent, const QStringList& names) {
  using Unsaved = Doors::Unsaved;
  QMessageBox box(QMessageBox::Warning, QObject::tr("Takes that are not saved"),
                  QObject::tr("The study cannot be written. In memory only: %1.").arg(names.join("; ")),
                  QMessageBox::NoButton, parent);
  box.setTextFormat(Qt::PlainText);
  const std::pair<QAbstractButton*, Unsaved> buttons[] = {
      {box.addButton(QObject::tr("Try again"), QMessageBox::AcceptRole), Unsaved::TryAgain},
      {box.addButton(QObject::tr("Save elsewhere..."), QMessageBox::AcceptRole), Unsaved::Elsewhere},
      {box.addButton(QObject::tr("Close and lose them"), QMessageBox::DestructiveRole), Unsaved::Lose},
      {box.addButton(QObject::tr("Stay"), QMessageBox::RejectRole), Unsaved::Stay}};
  box.setEscapeButton(buttons[3].first);
  box.exec();
  for (const auto& [button, answer] : buttons)
    if (box.clickedButton() == button) return answer;
  return Unsaved::Stay;
}

}  // namespace

Doors real_doors() {
  return {
      [](QWidget* parent, const QString& title, const QString& filter) {
        return QFileDialog::getOpenFileName(parent, title, {}, filter);
      },
      [](QWidget* parent, const QString& title, const QString& filter, const QString& suggested) {
        return QFileDialog::getSaveFileName(parent, title, suggested, filter);
      },
      ask_about_unsaved,
      [](QWidget* parent, const QString& title) { return QFileDialog::getExistingDirectory(parent, title); }};
}

QString ask_for(const Doors& doors, QWidget* window, const QString& title, const FileKind& kind) {
  return doors.ask_for_file(window, title, QObject::tr(kind.filter));
}

Result<QString> write_where_asked(const Doors& doors, QWidget* window, const QString& title,
                                  const FileKind& kind, const QString& suggested,
                                  const std::function<Result<void>(const std::string& path)>& writes) {
  QString path = doors.ask_where_to_save(window, title, QObject::tr(kind.filter), suggested);
  if (path.isEmpty()) return QString();
  if (QFileInfo(path).suffix().isEmpty()) path += kind.ending;
  const auto written = writes(path.toStdString());
  if (!written) return refuse(written.error());
  return path;
}

}  // namespace lagniappe::app
