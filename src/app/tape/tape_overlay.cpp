// SPDX-License-Identifier: GPL-3.0-or-later
#include "tape/tape_overlay.h"

#include <QPainter>

#include "theme/theme.h"

namespace lagniappe::app {

TapeOverlay::TapeOverlay(QWidget* parent) : QWidget(parent) {
  setAttribute(Qt::WA_TransparentForMouseEvents);
  setAttribute(Qt::WA_NoSystemBackground);
}

void TapeOverlay::show_content(const Content& content) {
  if (content == content_) return;
  // Mostly only the playhead moves.
  Content moved = content_;
  moved.playhead = content.playhead;
  const auto column = [&](const std::optional<double>& x) {
    return x ? QRect(int(*x) - 6, 0, 12, height()) : QRect();
  };
  const bool only_playhead = moved == content;
  const QRegion changed = QRegion(column(content_.playhead)) + column(content.playhead);
  content_ = content;
  only_playhead ? update(changed) : update();
}

void TapeOverlay::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  paint(painter, content_);
}

void TapeOverlay::paint(QPainter& painter, const Content& content) {
  painter.setRenderHint(QPainter::Antialiasing);
  if (!content.message.isEmpty()) {
    painter.fillRect(content.area, theme::sheet());
    painter.setFont(theme::text_font(13));
    painter.setPen(theme::ink2());
    return painter.drawText(content.area, Qt::AlignCenter, content.message);
  }
  for (const Label& label : content.labels) {
    painter.setFont(theme::text_font(11, label.strong));
    painter.setPen(label.strong ? theme::ink() : theme::ink2());
    painter.drawText(QRectF(8, label.y - 8, content.area.left() - 14, 16), Qt::AlignVCenter | Qt::AlignLeft,
                     label.text);
  }
  if (content.focused) {
    painter.setPen(QPen(theme::teal(), 2.0));
    painter.drawRoundedRect(QRectF(content.area).adjusted(-3, -3, 3, -1), 4, 4);
  }
  painter.setClipRect(QRectF(content.area).adjusted(-5, -6, 5, 0));
  if (content.selection) {
    const QRectF r(QPointF(content.selection->first, content.area.top()),
                   QPointF(content.selection->second, content.area.bottom()));
    QColor fill = theme::teal();
    fill.setAlpha(34);
    painter.fillRect(r, fill);
    painter.setPen(
        QPen(theme::teal(), content.loops ? 2.0 : 1.0, content.loops ? Qt::SolidLine : Qt::DashLine));
    painter.drawLine(r.topLeft(), r.bottomLeft());
    painter.drawLine(r.topRight(), r.bottomRight());
  }
  if (content.parting) {
    const QPointF top(*content.parting, content.area.top());
    painter.setPen(QPen(theme::gold(), 1.5, Qt::DashLine));
    painter.drawLine(top, QPointF(top.x(), content.area.bottom()));
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme::gold());
    painter.drawPolygon(QPolygonF({top, top + QPointF(-5, -6), top + QPointF(5, -6)}));
  }
  if (!content.playhead) return;
  painter.setPen(QPen(theme::brick(), 1.5));
  painter.drawLine(QPointF(*content.playhead, content.area.top()),
                   QPointF(*content.playhead, content.area.bottom()));
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme::brick());
  painter.drawEllipse(QPointF(*content.playhead, content.area.top() - 1.0), 4.5, 4.5);
}

}  // namespace lagniappe::app
