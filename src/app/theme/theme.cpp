// SPDX-License-Identifier: GPL-3.0-or-later
#include "theme/theme.h"

#include <QApplication>
#include <QFile>
#include <QPainter>
#include <QPalette>
#include <QSvgRenderer>

// In a static library resources are only linked when asked for, and the macro must stand outside any namespace.
static void use_resources() { Q_INIT_RESOURCE(resources); }

namespace lagniappe::app::theme {
namespace {

constexpr int kIconSizes[] = {16, 20, 24, 32, 48};

QPixmap drawn(const QString& name, const QColor& colour, int pixels) {
  QFile file(":/icons/" + name + ".svg");
  if (!file.open(QIODevice::ReadOnly)) return {};
  const QByteArray svg = file.readAll().replace("currentColor", colour.name().toLatin1());
  QPixmap pixmap(pixels, pixels);
  pixmap.fill(Qt::transparent);
  QPainter painter(&pixmap);
  QSvgRenderer(svg).render(&painter);
  return pixmap;
}

QString style_sheet() {
  QString sheet = QStringLiteral(R"(
    QWidget { color: @ink; font-family: "Inter"; font-size: 13px; }
    QMainWindow, #page { background: @paper; }
    #topStrip, #rail, #transport { background: @sheet; }
    #topStrip { border-bottom: 1px solid @rule; }
    #rail { border-right: 1px solid @rule; }
    #transport { border-top: 1px solid @rule; }
    #wordmark { font-size: 15px; font-weight: 700; }
    QMenuBar { background: transparent; }
    QMenuBar::item { padding: 6px 9px; border-radius: 6px; background: transparent; }
    QMenuBar::item:selected { background: @paper; }
    QMenu { background: @sheet; border: 1px solid @rule; padding: 4px; }
    QMenu::item { padding: 6px 28px 6px 12px; border-radius: 4px; }
    QMenu::item:selected { background: @teal; color: @sheet; }
    QMenu::item:disabled { color: @ink2; }
    QMenu::separator { height: 1px; background: @rule; margin: 4px 8px; }
    QMenu::icon { padding-left: 8px; }
    QToolButton, QPushButton { background: #FFFFFF; border: 1px solid @rule; border-radius: 8px; padding: 5px 10px; }
    QToolButton:hover, QPushButton:hover { border-color: @teal; }
    QToolButton:focus, QPushButton:focus, QComboBox:focus { border: 2px solid @teal; padding: 4px 9px; }
    QToolButton:checked { background: @teal; border-color: @teal; color: @sheet; }
    QToolButton:disabled, QPushButton:disabled { color: @ink2; background: @paper; }
    QToolButton::menu-indicator { image: none; }
    #chip { border-radius: 14px; padding: 5px 13px; }
    #drive { background: @teal; color: @sheet; border-color: @teal; border-radius: 14px; padding: 5px 14px; font-weight: 600; }
    #drive:hover { background: #0B5A5A; }
    #drive:disabled { background: @paper; color: @ink2; border-color: @rule; }
    #railPage { border: none; border-radius: 8px; padding: 8px 2px; background: transparent; font-size: 11px; }
    #railPage:checked { background: @teal; color: @sheet; }
    #ledger { background: @sheet; border-left: 1px solid @rule; }
    #columnTitle { font-size: 14px; font-weight: 600; }
    #sentences { background: transparent; border: none; font-size: 12px; }
    #sentences::item { padding: 3px 2px; border-bottom: 1px solid @rule; }
    #sentences::item:selected, #commands::item:selected { background: #F3E3C2; color: @ink; border-radius: 4px; }
    #sentences::item:hover, #commands::item:hover { background: @paper; border-radius: 4px; }
    #commands { background: transparent; border: none; }
    #commands::item { padding: 5px 4px; }
    #commandField { font-size: 15px; }
    #takes { background: transparent; border: none; }
    #selection { background: @sheet; color: @ink; font-family: "JetBrains Mono"; font-size: 11px; padding: 3px 12px; border-top: 1px solid @rule; }
    #sidePage { background: @sheet; }
    QTabWidget::pane { border: none; border-left: 1px solid @rule; background: @sheet; }
    QTabBar { background: @sheet; }
    QTabBar::tab { background: @sheet; color: @ink2; padding: 8px 14px; border: none; border-bottom: 2px solid @rule; }
    QTabBar::tab:selected { color: @ink; font-weight: 600; border-bottom: 2px solid @teal; }
    QTabBar::tab:hover { color: @teal; }
    QSplitter::handle { background: @rule; }
    QSplitter::handle:hover { background: @teal; }
    QLineEdit, QDoubleSpinBox { background: #FFFFFF; border: 1px solid @rule; border-radius: 6px; padding: 4px 7px; }
    QDoubleSpinBox { font-family: "JetBrains Mono"; font-size: 11px; padding: 2px 4px; }
    QLineEdit:focus, QDoubleSpinBox:focus { border: 1px solid @teal; }
    #valueList { background: @sheet; }
    #sidePage QScrollArea { background: @sheet; }
    #sidePage QComboBox { font-size: 11px; padding: 2px 6px; }
    #verdict { font-weight: 600; }
    #drift { background: #F6E3DA; color: #7A2C18; border-radius: 6px; padding: 6px; }
    QTableWidget { background: @sheet; border: 1px solid @rule; border-radius: 6px; gridline-color: @rule; }
    QHeaderView::section { background: @paper; color: @ink; border: none; padding: 3px 6px; font-size: 11px; }
    QTableCornerButton::section { background: @paper; border: none; }
    QToolButton[popupMode="2"] { padding-right: 10px; }
    #transport QToolButton { padding: 4px 7px; }
    #transport QComboBox { padding: 3px 8px; }
    #caption { color: @ink2; font-size: 11px; }
    #figures { color: @ink2; font-family: "JetBrains Mono"; font-size: 12px; }
    QComboBox { background: #FFFFFF; border: 1px solid @rule; border-radius: 8px; padding: 5px 10px; font-family: "JetBrains Mono"; font-size: 12px; }
    QComboBox::drop-down { border: none; width: 18px; }
    QComboBox::down-arrow { image: url(:/icons/chevron-down.svg); width: 14px; height: 14px; }
    QComboBox QAbstractItemView { background: @sheet; border: 1px solid @rule; selection-background-color: @teal; selection-color: @sheet; }
    #messageBar { background: @sheet; border: 1px solid @brick; border-left: 5px solid @brick; border-radius: 6px; }
    #busyBar { background: @sheet; border: 1px solid @gold; border-left: 5px solid @gold; border-radius: 6px; }
    #sheet { background: @sheet; border: 1px solid @rule; border-radius: 10px; }
    #sheetTitle { font-size: 16px; font-weight: 700; }
    #sheetGroup { font-weight: 600; color: @teal; }
    #key { font-family: "JetBrains Mono"; font-size: 11px; background: #FFFFFF; border: 1px solid @rule; border-radius: 4px; padding: 0px 6px; }
    #sheet QLabel { font-size: 12px; }
    QPushButton, QToolButton, QTabBar { outline: none; }
    QToolTip { background: @ink; color: @sheet; border: none; padding: 5px 8px; }
    QProgressBar { border: none; background: @rule; height: 4px; border-radius: 2px; }
    QProgressBar::chunk { background: @gold; border-radius: 2px; }
  )");
  const std::pair<const char*, QColor> tokens[] = {{"@paper", kPaper}, {"@sheet", kSheet}, {"@rule", kRule},
                                                   {"@ink2", kInk2},   {"@ink", kInk},     {"@teal", kTeal},
                                                   {"@gold", kGold},   {"@brick", kBrick}};
  for (const auto& [token, colour] : tokens) sheet.replace(QLatin1String(token), colour.name());
  return sheet;
}

}  // namespace

QFont text_font(int pixels, bool strong) {
  QFont font("Inter");
  font.setPixelSize(pixels);
  font.setWeight(strong ? QFont::DemiBold : QFont::Normal);
  return font;
}

QFont number_font(int pixels) {
  QFont font("JetBrains Mono");
  font.setPixelSize(pixels);
  return font;
}

QIcon icon(const QString& name, const QColor& colour) {
  QIcon result;
  for (const int size : kIconSizes) {
    result.addPixmap(drawn(name, colour, size), QIcon::Normal, QIcon::Off);
    result.addPixmap(drawn(name, kSheet, size), QIcon::Normal, QIcon::On);
  }
  return result;
}

void apply(QApplication& application) {
  use_resources();
  application.setStyle("Fusion");
  QPalette palette;
  palette.setColor(QPalette::Window, kPaper);
  palette.setColor(QPalette::Base, kSheet);
  palette.setColor(QPalette::WindowText, kInk);
  palette.setColor(QPalette::Text, kInk);
  palette.setColor(QPalette::ButtonText, kInk);
  palette.setColor(QPalette::Highlight, kTeal);
  palette.setColor(QPalette::HighlightedText, kSheet);
  palette.setColor(QPalette::PlaceholderText, kInk2);
  application.setPalette(palette);
  application.setFont(text_font(13));
  application.setStyleSheet(style_sheet());
}

}  // namespace lagniappe::app::theme
