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
  QFile file(":/style.qss");
  if (!file.open(QIODevice::ReadOnly)) return {};
  QString sheet = QString::fromUtf8(file.readAll());
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
