// SPDX-License-Identifier: MIT
#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>

#include "support/own_locale.h"

int main(int argc, char** argv) {
  lagniappe::test::set_own_locale();
  lagniappe::test::must_have_wanted_locale();
  return Catch::Session().run(argc, argv);
}
