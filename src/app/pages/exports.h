// SPDX-License-Identifier: GPL-3.0-or-later
// Files for other tools and for people: pictures, traces, ledgers.
#pragma once

#include <QSize>
#include <QString>
#include <functional>

#include "lagniappe/result.h"

class QPainter;
class QCPPainter;

namespace lagniappe::app {

// Paints a picture of `size` into a file: SVG, PDF or PNG, as its ending says. `paint` gets a painter that may
// be of a drawing without pixels.
Result<void> export_picture(const QString& path, const QSize& size, const QString& title,
                            const std::function<void(QCPPainter&)>& paint);

}  // namespace lagniappe::app
