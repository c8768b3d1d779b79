// SPDX-License-Identifier: GPL-3.0-or-later
#include "theme/theme.h"

#include <QApplication>
#include <QFile>
#include <QGuiApplication>
#include <QIconEngine>
#include <QPainter>
#include <QPalette>
#include <QPixmapCache>
#include <QSvgRenderer>
#include <algorithm>

// In a static library resources are only linked when asked for, and the macro must stand outside any namespace.
static void use_resources() { Q_INIT_RESOURCE(resources); }

namespace lagniappe::app::theme {
namespace {

constexpr double kDisabled = 0.4;  // Opacity of the icon of what cannot be done.

QPixmap drawn(const QString& name, const QColor& colour, int pixels) {
  QFile file(":/icons/" + name + ".svg");
  if (!file.open(QIODevice::ReadOnly)) return {};
  const QByteArray svg = file.readAll().replace("currentColor", colour.name().toLatin1());
  QPixmap pixmap(pixels, pixels);
  pixmap.fill(Qt::transparent);
  QPainter painter(&pixmap);
  painter.setOpacity(colour.alphaF());
  QSvgRenderer(svg).render(&painter);
  return pixmap;
}

// Draws itself in the colours of the moment.
class ThemeIcon : public QIconEngine {
 public:
  ThemeIcon(QString name, const QColor& colour) : name_(std::move(name)), colour_(colour) {}
  QIconEngine* clone() const override { return new ThemeIcon(*this); }
  void paint(QPainter* painter, const QRect& rect, QIcon::Mode mode, QIcon::State state) override {
    const double fine = painter->device()->devicePixelRatioF();
    painter->drawPixmap(rect, pixmap((QSizeF(rect.size()) * fine).toSize(), mode, state));
  }
  QPixmap pixmap(const QSize& size, QIcon::Mode mode, QIcon::State state) override {
    QColor colour = state == QIcon::On ? sheet() : colour_.isValid() ? colour_ : ink();
    if (mode == QIcon::Disabled) colour.setAlphaF(kDisabled);
    const QString key =
        QString("lagniappe %1 %2 %3").arg(name_, colour.name(QColor::HexArgb)).arg(size.width());
    QPixmap made;
    if (QPixmapCache::find(key, &made)) return made;
    made = drawn(name_, colour, std::min(size.width(), size.height()));
    QPixmapCache::insert(key, made);
    return made;
  }

 private:
  QString name_;
  QColor colour_;
};

Light in_force = Light::Daylight;

QString style_sheet() {
  QFile file(":/style.qss");
  if (!file.open(QIODevice::ReadOnly)) return {};
  QString text = QString::fromUtf8(file.readAll());
  const Colours& c = colours();
  // A name that begins with another comes before it.
  const std::pair<const char*, QColor> tokens[] = {
      {"@paper", c.paper},   {"@sheet", c.sheet},  {"@field", c.field},         {"@rule", c.rule},
      {"@ink2", c.ink2},     {"@ink", c.ink},      {"@teal-deep", c.teal_deep}, {"@teal", c.teal},
      {"@gold", c.gold},     {"@brick", c.brick},  {"@chosen", c.chosen},       {"@warned-ink", c.warned_ink},
      {"@warned", c.warned}, {"@marked", c.marked}};
  text.replace("@arrow", in_force == Light::Daylight ? "arrow-daylight" : "arrow-lantern");
  for (const auto& [token, colour] : tokens) text.replace(QLatin1String(token), colour.name());
  return text;
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

QIcon icon(const QString& name, const QColor& colour) { return QIcon(new ThemeIcon(name, colour)); }

const Colours& colours_of(Light light) {
  static const Colours kDaylight = {.paper = {0xF4, 0xF0, 0xE6},
                                    .sheet = {0xFB, 0xF8, 0xF1},
                                    .field = {0xFF, 0xFF, 0xFF},
                                    .rule = {0xD9, 0xD2, 0xC2},
                                    .ink = {0x20, 0x30, 0x3A},
                                    .ink2 = {0x5D, 0x6A, 0x6C},
                                    .teal = {0x0F, 0x6E, 0x6E},
                                    .teal_deep = {0x0B, 0x5A, 0x5A},
                                    .gold = {0xD9, 0x96, 0x2B},
                                    .brick = {0xB4, 0x49, 0x2F},
                                    .moss = {0x5F, 0x7F, 0x3A},
                                    .plum = {0x6F, 0x4C, 0x7C},
                                    .sky = {0x4E, 0x7F, 0xA6},
                                    .chosen = {0xF3, 0xE3, 0xC2},
                                    .warned = {0xF6, 0xE3, 0xDA},
                                    .warned_ink = {0x7A, 0x2C, 0x18},
                                    .marked = {0x8A, 0x5E, 0x14},
                                    .stick = {0x9F, 0xB0, 0xAC},
                                    .view_red = 1.0,
                                    .view_green = 1.0,
                                    .view_blue = 1.0};
  static const Colours kLantern = {.paper = {0x1C, 0x1B, 0x18},
                                   .sheet = {0x25, 0x23, 0x1F},
                                   .field = {0x2F, 0x2C, 0x27},
                                   .rule = {0x46, 0x41, 0x38},
                                   .ink = {0xEE, 0xE7, 0xD9},
                                   .ink2 = {0xAC, 0xA5, 0x96},
                                   .teal = {0x56, 0xBA, 0xB0},
                                   .teal_deep = {0x7A, 0xCF, 0xC6},
                                   .gold = {0xE3, 0xAC, 0x4F},
                                   .brick = {0xE4, 0x84, 0x68},
                                   .moss = {0x9F, 0xBC, 0x72},
                                   .plum = {0xBC, 0x9F, 0xCC},
                                   .sky = {0x84, 0xB5, 0xDA},
                                   .chosen = {0x4A, 0x3D, 0x22},
                                   .warned = {0x4A, 0x2C, 0x22},
                                   .warned_ink = {0xF2, 0xBE, 0xAC},
                                   .marked = {0xE0, 0xB4, 0x6A},
                                   .stick = {0x7E, 0x93, 0x8F},
                                   .view_red = 0.50,
                                   .view_green = 0.50,
                                   .view_blue = 0.54};
  return light == Light::Daylight ? kDaylight : kLantern;
}

Light light() { return in_force; }

QColor strong_moss() { return in_force == Light::Daylight ? moss().darker(125) : moss(); }

const Colours& colours() { return colours_of(in_force); }

bool desktop_is_dark() {
  static const bool dark = [] {
    const QPalette palette = QGuiApplication::palette();
    return palette.color(QPalette::Window).lightness() < palette.color(QPalette::WindowText).lightness();
  }();
  return dark;
}

void apply(QApplication& application, Light wanted) {
  use_resources();
  in_force = wanted;
  application.setStyle("Fusion");
  QPalette palette;
  palette.setColor(QPalette::Window, paper());
  palette.setColor(QPalette::Base, sheet());
  palette.setColor(QPalette::AlternateBase, paper());
  palette.setColor(QPalette::Button, sheet());
  palette.setColor(QPalette::WindowText, ink());
  palette.setColor(QPalette::Text, ink());
  palette.setColor(QPalette::ButtonText, ink());
  palette.setColor(QPalette::Link, teal());
  palette.setColor(QPalette::Highlight, teal());
  palette.setColor(QPalette::HighlightedText, sheet());
  palette.setColor(QPalette::PlaceholderText, ink2());
  application.setPalette(palette);
  application.setFont(text_font(13));
  application.setStyleSheet(style_sheet());
}

}  // namespace lagniappe::app::theme
