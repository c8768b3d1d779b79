// SPDX-License-Identifier: GPL-3.0-or-later
#include "doors.h"

#include <QFileDialog>
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

}  // namespace lagniappe::app
