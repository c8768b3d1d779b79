// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/rail.h"

#include <QToolButton>
#include <QVBoxLayout>

namespace lagniappe::app {

QWidget* make_rail(const std::vector<Page*>& pages, const Actions& actions) {
  auto* rail = new QWidget;
  rail->setObjectName("rail");
  rail->setAttribute(Qt::WA_StyledBackground);
  rail->setFixedWidth(64);
  auto* layout = new QVBoxLayout(rail);
  layout->setContentsMargins(3, 10, 3, 10);
  for (const Page* page : pages) {
    auto* button = new QToolButton;
    button->setObjectName("railPage");
    button->setDefaultAction(actions[page->act()]);
    actions[page->act()]->setIconText(page->name());
    button->setIconSize({22, 22});
    button->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
    button->setFocusPolicy(Qt::TabFocus);
    button->setFixedSize(58, 56);
    layout->addWidget(button);
  }
  layout->addStretch(1);
  return rail;
}

}  // namespace lagniappe::app
