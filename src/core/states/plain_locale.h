// SPDX-License-Identifier: MIT
// While one of these lives, this thread's C library speaks the "C" locale: numbers have points, texts are
// compared byte by byte. Other threads, and what the program has set for itself, stay as they are.
#pragma once

#include <locale.h>

namespace lagniappe {

class PlainLocale {
 public:
  PlainLocale() : before_(uselocale(plain())) {}
  ~PlainLocale() { uselocale(before_); }
  PlainLocale(const PlainLocale&) = delete;
  PlainLocale& operator=(const PlainLocale&) = delete;

 private:
  static locale_t plain() {
    static const locale_t kPlain = newlocale(LC_ALL_MASK, "C", nullptr);
    return kPlain;
  }
  locale_t before_;
};

}  // namespace lagniappe
