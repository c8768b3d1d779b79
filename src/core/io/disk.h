// SPDX-License-Identifier: MIT
// The calls by which files are written: a door, so that tests can let each of them fail, or end the program
// there.
#pragma once

#include <sys/types.h>

#include <string>
#include <string_view>

#include "lagniappe/result.h"

namespace lagniappe {

// Each as the system call of that name: -1 and errno where it fails.
class Disk {
 public:
  virtual ~Disk() = default;
  virtual int open(const char* path, int flags, mode_t mode);
  virtual int mkostemp(char* pattern, int flags);
  virtual ssize_t write(int descriptor, const void* bytes, std::size_t size);
  virtual int fallocate(int descriptor, off_t size);
  virtual int ftruncate(int descriptor, off_t size);
  virtual int fsync(int descriptor);
  virtual int fchmod(int descriptor, mode_t mode);
  virtual int fchown(int descriptor, uid_t owner, gid_t group);
  virtual int close(int descriptor);
  virtual int rename(const char* from, const char* to);
  virtual int unlink(const char* path);

  static Disk& real();
};

// What an errno means, in English like all that we say: strerror() follows the locale.
std::string reason_of(int number);

// write_file() of files.h, through the door.
Result<void> write_file(const std::string& path, std::string_view bytes, Disk& disk);

}  // namespace lagniappe
