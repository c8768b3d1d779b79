// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/clean_end.h"

#include <fcntl.h>
#include <unistd.h>

#include <QSocketNotifier>
#include <csignal>

namespace lagniappe::app {
namespace {

int told[2] = {-1, -1};  // A pipe: the one thing that a handler may write to.

void tell(int) {
  const char byte = 1;
  (void)!::write(told[1], &byte, 1);
}

}  // namespace

CleanEnd::CleanEnd(QObject* parent) : QObject(parent) {
  if (::pipe2(told, O_CLOEXEC | O_NONBLOCK) != 0) return;
  auto* heard = new QSocketNotifier(told[0], QSocketNotifier::Read, this);
  connect(heard, &QSocketNotifier::activated, this, [this] {
    char byte;
    while (::read(told[0], &byte, 1) == 1) {
    }
    emit asked();
  });
  struct sigaction action {};
  action.sa_handler = tell;
  action.sa_flags = SA_RESTART;
  for (const int signal : {SIGTERM, SIGHUP, SIGINT}) ::sigaction(signal, &action, nullptr);
}

}  // namespace lagniappe::app
