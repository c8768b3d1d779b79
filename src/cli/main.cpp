// SPDX-License-Identifier: MIT
#include <array>
#include <cerrno>
#include <cstdio>
#include <cstring>
#include <exception>

#include "commands.h"

namespace {

// What was printed is only known to have arrived when nothing is left in the buffer.
int all_printed(int code) {
  if (std::fflush(stdout) == 0 && std::ferror(stdout) == 0) return code;
  std::fprintf(stderr, "error: standard output: all of it: it cannot be written: %s\n",
               ::strerrordesc_np(errno));
  return lagniappe::cli::kBadInput;
}

}  // namespace

int main(int argc, char** argv) {
  using namespace lagniappe::cli;
  CLI::App app{
      "Drives characters over courses, runs takes again, explains and compares them. Every command has its own "
      "--help."};
  app.name("lagniappe-cli");
  app.set_version_flag("--version", "lagniappe-cli " LAGNIAPPE_VERSION);
  app.require_subcommand(1);
  const std::array commands = {add_drive(app),   add_explain(app), add_retake(app), add_diff(app),
                               add_convert(app), add_show(app),    add_states(app), add_export(app),
                               add_timing(app),  add_check(app)};
  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& error) {
    return app.exit(error) == 0 ? kFine : kWrongUsage;
  }
  try {
    for (const Command& command : commands) {
      if (command.parsed->parsed()) return all_printed(command.run());
    }
  } catch (const std::bad_alloc&) {
    std::fputs("error: memory: the machine: there is not enough memory for this\n", stderr);
    return kBadInput;
  } catch (const std::exception& error) {
    std::fprintf(stderr, "error: this command: the machine: %s\n", error.what());
    return kBadInput;
  }
  return kWrongUsage;
}
