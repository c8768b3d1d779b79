// SPDX-License-Identifier: GPL-3.0-or-later
// The colours, fonts and icons of the interface: one table for widgets, painting and the view.
#pragma once

#include <QColor>
#include <QFont>
#include <QIcon>
#include <QString>

class QApplication;

namespace lagniappe::app::theme {

// The two themes; every colour of the interface is in their one table.
enum class Light { Daylight, Lantern };

struct Colours {
  QColor paper, sheet, field, rule, ink, ink2, teal, teal_deep, gold, brick, moss, plum, sky;
  QColor chosen;                           // Ground of what is chosen in a list.
  QColor warned, warned_ink;               // Ground and text of a warning.
  QColor marked;                           // Text of a mark.
  QColor stick;                            // Of the tape's lane of inputs.
  double view_red, view_green, view_blue;  // Shares of the light in the view.
};
const Colours& colours_of(Light light);
Light light();             // In force.
const Colours& colours();  // Of that one.

inline const QColor& paper() { return colours().paper; }
inline const QColor& sheet() { return colours().sheet; }
inline const QColor& rule() { return colours().rule; }
inline const QColor& ink() { return colours().ink; }
inline const QColor& ink2() { return colours().ink2; }
inline const QColor& teal() { return colours().teal; }
inline const QColor& gold() { return colours().gold; }
inline const QColor& brick() { return colours().brick; }
inline const QColor& moss() { return colours().moss; }
QColor strong_moss();  // For text.
inline const QColor& plum() { return colours().plum; }
inline const QColor& sky() { return colours().sky; }

QFont text_font(int pixels, bool strong = false);
QFont number_font(int pixels);

// An icon of the set in theme/icons, drawn in `colour` (sheet-coloured where it is checked), or in the ink of
// the theme in force.
QIcon icon(const QString& name, const QColor& colour = {});

// Whether the desktop's colours are light on dark: as they were when it was first asked, before ours.
bool desktop_is_dark();

// Sets fonts, and palette and style sheet of a theme. What paints with the colours above is painted anew.
void apply(QApplication& application, Light light);

}  // namespace lagniappe::app::theme
