// SPDX-License-Identifier: MIT
#include "io/disk.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cstdio>
#include <cstdlib>
#include <cstring>

namespace lagniappe {

int Disk::open(const char* path, int flags, mode_t mode) { return ::open(path, flags, mode); }
int Disk::mkostemp(char* pattern, int flags) { return ::mkostemp(pattern, flags); }
ssize_t Disk::write(int descriptor, const void* bytes, std::size_t size) {
  return ::write(descriptor, bytes, size);
}
int Disk::fallocate(int descriptor, off_t size) { return ::fallocate(descriptor, 0, 0, size); }
int Disk::ftruncate(int descriptor, off_t size) { return ::ftruncate(descriptor, size); }
int Disk::fsync(int descriptor) { return ::fsync(descriptor); }
int Disk::fchmod(int descriptor, mode_t mode) { return ::fchmod(descriptor, mode); }
int Disk::fchown(int descriptor, uid_t owner, gid_t group) { return ::fchown(descriptor, owner, group); }
int Disk::close(int descriptor) { return ::close(descriptor); }
int Disk::rename(const char* from, const char* to) { return std::rename(from, to); }
int Disk::unlink(const char* path) { return ::unlink(path); }

std::string reason_of(int number) {
  const char* reason = strerrordesc_np(number);
  return reason != nullptr ? reason : "error " + std::to_string(number);
}

Disk& Disk::real() {
  static Disk disk;
  return disk;
}

}  // namespace lagniappe
