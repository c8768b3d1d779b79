// SPDX-License-Identifier: GPL-3.0-or-later
#define CATCH_CONFIG_RUNNER
#include <QApplication>
#include <catch2/catch.hpp>

#include "theme/theme.h"
#include "viewport/canvas.h"

int main(int argc, char** argv) {
  lagniappe::app::choose_opengl();
  QApplication application(argc, argv);
  lagniappe::app::theme::apply(application);
  return Catch::Session().run(argc, argv);
}
