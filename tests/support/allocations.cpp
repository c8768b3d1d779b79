// SPDX-License-Identifier: MIT
#include "support/allocations.h"

#include <cstdlib>
#include <new>

namespace {
thread_local std::size_t count = 0;
}

#if defined(__SANITIZE_ADDRESS__)

// The sanitizer has its own operators, which must stay; it offers a hook instead. GCC ships no header for it.
extern "C" int __sanitizer_install_malloc_and_free_hooks(void (*malloc_hook)(const volatile void*, std::size_t),
                                                         void (*free_hook)(const volatile void*));

namespace {
void on_malloc(const volatile void*, std::size_t) { ++count; }
void on_free(const volatile void*) {}
[[maybe_unused]] const int hooked = __sanitizer_install_malloc_and_free_hooks(on_malloc, on_free);
}  // namespace

#else

namespace {
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

#endif

namespace lagniappe::test {
std::size_t allocations() { return count; }
}  // namespace lagniappe::test
