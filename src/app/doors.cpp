// SPDX-License-Identifier: GPL-3.0-or-later
#include "doors.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>

namespace lagniappe::app {
namespace {

using Unsaved = Doors::Unsaved;
struct Answer {
  const char* text;
  QMessageBox::ButtonRole role;
  Unsaved answer;
};

Unsaved ask(QWidget* parent, const QString& title, const QString& sentence,
            std::initializer_list<Answer> answers) {
  QMessageBox box(QMessageBox::Warning, title, sentence, QMessageBox::NoButton, parent);
  box.setTextFormat(Qt::PlainText);
  std::vector<std::pair<QAbstractButton*, Unsaved>> buttons;
  for (const Answer& a : answers) buttons.emplace_back(box.addButton(QObject::tr(a.text), a.role), a.answer);
  box.setEscapeButton(buttons.back().first);
  box.exec();
  for (const auto& [button, answer] : buttons)
    if (box.clickedButton() == button) return answer;
  return Unsaved::Stay;
}

Unsaved ask_about_unsaved(QWidget* parent, const QStringList& names) {
  return ask(parent, QObject::tr("Takes that are not saved"),
             QObject::tr("The study cannot be written. In memory only: %1.").arg(names.join("; ")),
             {{"Try again", QMessageBox::AcceptRole, Unsaved::TryAgain},
              {"Save elsewhere...", QMessageBox::AcceptRole, Unsaved::Elsewhere},
              {"Close and lose them", QMessageBox::DestructiveRole, Unsaved::Lose},
              {"Stay", QMessageBox::RejectRole, Unsaved::Stay}});
}

Unsaved ask_about_courses(QWidget* parent, const QStringList& names) {
  return ask(parent, QObject::tr("Courses that are not saved"),
             QObject::tr("Fields or zones are changed and not saved: %1.").arg(names.join("; ")),
             {{"Save", QMessageBox::AcceptRole, Unsaved::TryAgain},
              {"Close and lose the changes", QMessageBox::DestructiveRole, Unsaved::Lose},
              {"Stay", QMessageBox::RejectRole, Unsaved::Stay}});
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
      [](QWidget* parent, const QString& title) { return QFileDialog::getExistingDirectory(parent, title); },
      ask_about_courses};
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
