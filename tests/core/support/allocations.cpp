// SPDX-License-Identifier: MIT
#include "support/allocations.h"

#include <cstdlib>
#include <new>

namespace {
thread_local std::size_t count = 0;

void* counted(std::size_t size) {
  ++count;
  if (void* p = std::malloc(size == 0 ? 1 : size)) return p;
  throw std::bad_alloc();
}
}  // namespace

void* operator new(std::size_t size) { return counted(size); }
void* operator new[](std::size_t size) { return counted(size); }
void operator delete(void* p) noexcept { std::free(p); }
void operator delete[](void* p) noexcept { std::free(p); }
void operator delete(void* p, std::size_t) noexcept { std::free(p); }
void operator delete[](void* p, std::size_t) noexcept { std::free(p); }

namespace lagniappe::test {
std::size_t allocations() { return count; }
}  // namespace lagniappe::test
