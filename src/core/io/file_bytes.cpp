// SPDX-License-Identifier: MIT
#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <filesystem>
#include <utility>

#include "io/disk.h"
#include "io/json_document.h"
#include "lagniappe/files.h"

namespace lagniappe {
namespace {

constexpr off_t kLargestFile = off_t{1} << 30;

class Descriptor {
 public:
  explicit Descriptor(int fd) : fd_(fd) {}
  Descriptor(const Descriptor&) = delete;
  Descriptor& operator=(const Descriptor&) = delete;
  ~Descriptor() {
    if (fd_ >= 0) ::close(fd_);
  }
  int get() const { return fd_; }

 private:
  int fd_;
};

Error file_error(const std::string& path, const std::string& what) {
  return {path, "the file", what + ": " + reason_of(errno)};
}

bool write_all(int fd, std::string_view bytes) {
  while (!bytes.empty()) {
    const ssize_t n = ::write(fd, bytes.data(), bytes.size());
    if (n < 0 && errno == EINTR) continue;
    if (n <= 0) return false;
    bytes.remove_prefix(static_cast<std::size_t>(n));
  }
  return true;
}

void sync_folder(const std::string& path) {
  const std::string folder = std::filesystem::path(path).parent_path().string();
  const Descriptor descriptor(
      ::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
  if (descriptor.get() >= 0) ::fsync(descriptor.get());
}

}  // namespace

Result<std::string> read_text(const std::string& path, std::size_t most) {
  const Descriptor descriptor(::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK));
  if (descriptor.get() < 0) return refuse(file_error(path, "it cannot be opened"));
  struct stat info {};
  if (::fstat(descriptor.get(), &info) != 0) return refuse(file_error(path, "it cannot be read"));
  if (!S_ISREG(info.st_mode)) return refuse({path, "the file", "it is not a plain file"});
  if (most == std::string::npos && info.st_size > kLargestFile)
    return refuse({path, "the file", "it is larger than 1 GiB"});
  std::string bytes(std::min(static_cast<std::size_t>(info.st_size), most), '\0');
  std::size_t have = 0;
  while (have < bytes.size()) {
    const ssize_t n = ::read(descriptor.get(), bytes.data() + have, bytes.size() - have);
    if (n < 0 && errno == EINTR) continue;
    if (n < 0) return refuse(file_error(path, "it cannot be read"));
    if (n == 0) break;
    have += static_cast<std::size_t>(n);
  }
  bytes.resize(have);
  return bytes;
}

Result<GrowingFile> GrowingFile::create(const std::string& path) {
  const int descriptor = ::open(path.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, 0666);
  // Whoever looks whether it was left behind holds it for a moment, which is waited for.
  if (descriptor < 0 || ::flock(descriptor, LOCK_EX) != 0) {
    const Error error = file_error(path, "it cannot be made");
    if (descriptor >= 0) ::close(descriptor);
    return refuse(error);
  }
  sync_folder(path);
  return GrowingFile(descriptor, path);
}

GrowingFile::GrowingFile(GrowingFile&& other) noexcept
    : descriptor_(std::exchange(other.descriptor_, -1)), path_(std::move(other.path_)) {}

GrowingFile& GrowingFile::operator=(GrowingFile&& other) noexcept {
  std::swap(descriptor_, other.descriptor_);
  std::swap(path_, other.path_);
  return *this;
}

GrowingFile::~GrowingFile() {
  if (descriptor_ >= 0) ::close(descriptor_);
}

Result<void> GrowingFile::append(std::string_view bytes) {
  if (!write_all(descriptor_, bytes) || ::fdatasync(descriptor_) != 0)
    return refuse(file_error(path_, "it cannot be written"));
  return {};
}

void GrowingFile::remove() { ::unlink(path_.c_str()); }

bool GrowingFile::is_left_behind(const std::string& path) {
  const Descriptor descriptor(::open(path.c_str(), O_RDONLY | O_CLOEXEC));
  return descriptor.get() >= 0 && ::flock(descriptor.get(), LOCK_EX | LOCK_NB) == 0;
}

}  // namespace lagniappe
