// SPDX-License-Identifier: GPL-3.0-or-later
#define CATCH_CONFIG_RUNNER
#include <QApplication>
#include <catch2/catch.hpp>

#include "application.h"
#include "support/own_locale.h"

int main(int argc, char** argv) {
  lagniappe::test::set_own_locale();
  lagniappe::test::must_have_wanted_locale();
  lagniappe::app::choose_display();
  QApplication application(argc, argv);
  lagniappe::app::begin_application(application, false);
  return Catch::Session().run(argc, argv);
}
