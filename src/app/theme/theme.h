// SPDX-License-Identifier: GPL-3.0-or-later
// The colours, fonts and icons of the interface: one table for widgets, painting and the view.
#pragma once

#include <QColor>
#include <QFont>
#include <QIcon>
#include <QString>

class QApplication;

namespace lagniappe::app::theme {

inline const QColor kPaper(0xF4, 0xF0, 0xE6), kSheet(0xFB, 0xF8, 0xF1), kRule(0xD9, 0xD2, 0xC2),
    kInk(0x20, 0x30, 0x3A), kInk2(0x5D, 0x6A, 0x6C), kTeal(0x0F, 0x6E, 0x6E), kGold(0xD9, 0x96, 0x2B),
    kBrick(0xB4, 0x49, 0x2F), kMoss(0x5F, 0x7F, 0x3A), kPlum(0x6F, 0x4C, 0x7C), kSky(0x4E, 0x7F, 0xA6);

QFont text_font(int pixels, bool strong = false);
QFont number_font(int pixels);

// An icon of the set in theme/icons, drawn in `colour` (and paper-coloured where it is checked).
QIcon icon(const QString& name, const QColor& colour = kInk);

// Sets palette, fonts and style sheet.
void apply(QApplication& application);

}  // namespace lagniappe::app::theme
