// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QScrollArea>

namespace lagniappe::app {

// A pane that scrolls where there is too little room for it: what it holds, or comes to say, must not make the
// window higher than the screen.
inline QScrollArea* scrolled(QWidget* pane) {
  auto* area = new QScrollArea;
  area->setWidget(pane);
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  return area;
}

}  // namespace lagniappe::app
