// SPDX-License-Identifier: GPL-3.0-or-later
#include "states/base_line.h"

#include <QHBoxLayout>

namespace lagniappe::app {

BaseLine::BaseLine(QWidget* parent)
    : QWidget(parent), label_(new QLabel), back_(new QPushButton(tr("Put back"))) {
  auto* line = new QHBoxLayout(this);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(6);
  label_->setObjectName("caption");
  label_->setWordWrap(true);
  back_->setToolTip(tr("As the built-in table has it; Ctrl+Z undoes it"));
  line->addWidget(label_, 1);
  line->addWidget(back_);
  connect(back_, &QPushButton::clicked, this, &BaseLine::put_back);
}

void BaseLine::show_standing(Standing standing, const QString& what) {
  show_text(standing == Standing::Alone     ? QString()
            : standing == Standing::BuiltIn ? tr("As the built-in table has %1.").arg(what)
            : standing == Standing::Changed ? tr("The built-in table has %1 otherwise.").arg(what)
                                            : tr("The built-in table does not have %1.").arg(what),
            standing == Standing::Changed);
}

void BaseLine::show_text(const QString& text, bool may_put_back) {
  label_->setText(text);
  back_->setVisible(may_put_back);
  setVisible(!text.isEmpty());
}

}  // namespace lagniappe::app
