// SPDX-License-Identifier: GPL-3.0-or-later
// Work that is over in a moment on a usual disk, and may take long on a slow one or over a network.
#pragma once

#include <QEventLoop>
#include <QTimer>
#include <chrono>
#include <future>

namespace lagniappe::app {

// Does it on another thread and returns what it returns. Where it takes longer than a frame the window lives on
// meanwhile; only what people do to it waits.
template <typename Work>
auto patiently(Work work) {
  using namespace std::chrono_literals;
  auto result = std::async(std::launch::async, std::move(work));
  if (result.wait_for(30ms) == std::future_status::ready) return result.get();
  QEventLoop loop;
  QTimer look;
  QObject::connect(&look, &QTimer::timeout, &loop, [&] {
    if (result.wait_for(0ms) == std::future_status::ready) loop.quit();
  });
  look.start(10);
  loop.exec(QEventLoop::ExcludeUserInputEvents);
  return result.get();
}

}  // namespace lagniappe::app
