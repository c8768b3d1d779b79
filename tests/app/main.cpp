// SPDX-License-Identifier: GPL-3.0-or-later
#define CATCH_CONFIG_RUNNER
#include <QApplication>
#include <QSurfaceFormat>
#include <catch2/catch.hpp>

#include "theme/theme.h"

int main(int argc, char** argv) {
  QSurfaceFormat format;
  format.setVersion(3, 3);
  format.setProfile(QSurfaceFormat::CoreProfile);
  format.setDepthBufferSize(24);
  QSurfaceFormat::setDefaultFormat(format);
  QApplication application(argc, argv);
  lagniappe::app::theme::apply(application);
  return Catch::Session().run(argc, argv);
}
