// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/exports.h"

#include <qcustomplot.h>

#include <QBuffer>
#include <QPdfWriter>
#include <QSvgGenerator>

#include "lagniappe/files.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr double kSharper = 2.0;    // Pixels of a PNG for one of the drawing.
constexpr int kPdfResolution = 96;  // Dots per inch: a drawing's pixel is one.

QByteArray svg(const QSize& size, const QString& title, const std::function<void(QCPPainter&)>& paint) {
  QByteArray bytes;
  QBuffer buffer(&bytes);
  QSvgGenerator generator;
  generator.setOutputDevice(&buffer);
  generator.setSize(size);
  generator.setViewBox(QRect(QPoint(), size));
  generator.setTitle(title);
  QCPPainter painter(&generator);
  painter.setMode(QCPPainter::pmVectorized);
  paint(painter);
  painter.end();
  return bytes;
}

QByteArray pdf(const QSize& size, const QString& title, const std::function<void(QCPPainter&)>& paint) {
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  QPdfWriter writer(&buffer);
  writer.setTitle(title);
  writer.setResolution(kPdfResolution);
  writer.setPageSize(
      QPageSize(QSizeF(size) * 72.0 / kPdfResolution, QPageSize::Point, title, QPageSize::ExactMatch));
  writer.setPageMargins(QMarginsF());
  QCPPainter painter(&writer);
  painter.setMode(QCPPainter::pmVectorized);
  paint(painter);
  painter.end();
  return bytes;
}

QByteArray png(const QSize& size, const std::function<void(QCPPainter&)>& paint) {
  QImage image(size * kSharper, QImage::Format_RGB32);
  image.setDevicePixelRatio(kSharper);
  image.fill(theme::colours().field);
  QCPPainter painter(&image);
  paint(painter);
  painter.end();
  QByteArray bytes;
  QBuffer buffer(&bytes);
  image.save(&buffer, "PNG");
  return bytes;
}

}  // namespace

Result<void> export_picture(const QString& path, const QSize& size, const QString& title,
                            const std::function<void(QCPPainter&)>& paint) {
  QByteArray bytes;
  if (path.endsWith(".svg", Qt::CaseInsensitive)) {
    bytes = svg(size, title, paint);
  } else if (path.endsWith(".pdf", Qt::CaseInsensitive)) {
    bytes = pdf(size, title, paint);
  } else if (path.endsWith(".png", Qt::CaseInsensitive)) {
    bytes = png(size, paint);
  } else {
    return refuse({path.toStdString(), "the file's name", "a picture is written as .svg, .pdf or .png"});
  }
  return write_file(path.toStdString(), {bytes.constData(), std::size_t(bytes.size())});
}

}  // namespace lagniappe::app
