// SPDX-License-Identifier: MIT
#include <dirent.h>
#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <sys/xattr.h>
#include <unistd.h>

#include <cerrno>
#include <filesystem>
#include <optional>
#include <utility>

#include "io/disk.h"
#include "lagniappe/files.h"

namespace lagniappe {
namespace {

constexpr int kMostLinks = 40;
constexpr std::string_view kTemporary = ".part-";  // And six letters; hidden by a dot before the name.
constexpr std::size_t kLetters = 6;

Error file_error(const std::string& path, const std::string& what, int number = errno) {
  return {path, "the file", what + ": " + reason_of(number)};
}

std::string folder_of(const std::string& path) {
  const std::string folder = std::filesystem::path(path).parent_path().string();
  return folder.empty() ? "." : folder;
}

// Where a path leads, also by a link whose end is not there yet: what is meant is written, not the link.
std::string end_of_links(std::string path) {
  for (int i = 0; i < kMostLinks; ++i) {
    std::string target(4096, '\0');
    const ssize_t size = ::readlink(path.c_str(), target.data(), target.size());
    if (size < 0) return path;
    target.resize(static_cast<std::size_t>(size));
    path = target.starts_with('/') ? target : folder_of(path) + "/" + target;
  }
  return path;
}

bool is_link(const std::string& path) {
  struct stat info {};
  return ::lstat(path.c_str(), &info) == 0 && S_ISLNK(info.st_mode);
}

// The file that is being replaced, as it was.
struct Present {
  bool there = false;
  struct stat info {};
};

Present look_at(const std::string& path) {
  Present present;
  present.there = ::stat(path.c_str(), &present.info) == 0;
  return present;
}

// Asked once: it can only be asked by setting it.
mode_t usual_mode() {
  static const mode_t kMask = [] {
    const mode_t mask = ::umask(0);
    ::umask(mask);
    return mask;
  }();
  return 0666 & ~kMask;
}

// One writing of one file: each step is tried once, and what was begun is taken back where one fails.
class Writing {
 public:
  Writing(const std::string& path, std::string_view bytes, Disk& disk)
      : path_(path), bytes_(bytes), disk_(disk), target_(end_of_links(path)), present_(look_at(target_)) {}

  Result<void> run() {
    if (const auto fault = refusal()) return refuse(*fault);
    if (present_.there && !S_ISREG(present_.info.st_mode)) return into_device();
    if (!make_temporary()) return failed();
    return must_stay() || !keep_owner() ? in_place() : replaced();
  }

 private:
  std::optional<Error> refusal() const {
    if (!present_.there && is_link(target_)) return file_error(path_, "it cannot be written", ELOOP);
    if (!present_.there) return std::nullopt;
    if (S_ISDIR(present_.info.st_mode)) return file_error(path_, "it cannot be written", EISDIR);
    // Who is root may write everything; what is marked as read-only is meant so.
    const bool marked = S_ISREG(present_.info.st_mode) && (present_.info.st_mode & 0222) == 0;
    if (marked || ::faccessat(AT_FDCWD, target_.c_str(), W_OK, AT_EACCESS) != 0)
      return Error{path_, "the file", "it is read-only; save under another name"};
    return std::nullopt;
  }

  // A pipe or a device cannot be replaced. One that nobody reads from would be waited for, for ever.
  Result<void> into_device() {
    file_ = disk_.open(target_.c_str(), O_WRONLY | O_CLOEXEC | O_NONBLOCK, 0);
    if (file_ < 0) return failed();
    ::fcntl(file_, F_SETFL, O_WRONLY);
    return write_all(file_) && close(file_) ? Result<void>() : failed();
  }

  // Private, under a name that nobody can have put there, and locked: whoever can lock one may remove it.
  bool make_temporary() {
    const std::filesystem::path target(target_);
    temporary_ = folder_of(target_) + "/." + target.filename().string() + std::string(kTemporary) +
                 std::string(kLetters, 'X');
    file_ = disk_.mkostemp(temporary_.data(), O_CLOEXEC);
    if (file_ < 0) {
      temporary_.clear();
      return false;
    }
    ::flock(file_, LOCK_EX | LOCK_NB);
    return write_all(file_) && sync(file_);
  }

  // What would lose something by being replaced: other names of it, rights that a mode does not tell.
  bool must_stay() const {
    return present_.there && (present_.info.st_nlink > 1 ||
                              ::getxattr(target_.c_str(), "system.posix_acl_access", nullptr, 0) > 0);
  }

  bool keep_owner() {
    const struct stat& old = present_.info;
    struct stat now {};
    if (!present_.there || ::fstat(file_, &now) != 0) return true;
    const bool same = old.st_uid == now.st_uid && old.st_gid == now.st_gid;
    return same || disk_.fchown(file_, old.st_uid, old.st_gid) == 0;
  }

  // A reader sees the old or the new whole.
  Result<void> replaced() {
    disk_.fchmod(file_, present_.there ? present_.info.st_mode & 07777 : usual_mode());
    if (!close(file_) || disk_.rename(temporary_.c_str(), target_.c_str()) != 0) return failed();
    temporary_.clear();
    sync_folder();
    return {};
  }

  // The temporary file stays until all is there: whatever happens meanwhile, one of the two is whole.
  Result<void> in_place() {
    const int whole = std::exchange(file_, -1);
    file_ = disk_.open(target_.c_str(), O_WRONLY | O_CLOEXEC, 0);
    // Room is asked for before anything is lost; some file systems cannot say.
    const bool room = file_ >= 0 && (disk_.fallocate(file_, static_cast<off_t>(bytes_.size())) == 0 ||
                                     errno == EOPNOTSUPP || errno == EINVAL || bytes_.empty());
    if (!room) {
      const Result<void> error = failed();
      disk_.close(whole);
      return error;
    }
    const bool fine = write_all(file_) && disk_.ftruncate(file_, static_cast<off_t>(bytes_.size())) == 0 &&
                      sync(file_) && close(file_);
    const Error error{path_, "the file",
                      std::string("it could only be written in part: ") + reason_of(errno) +
                          "; the whole is in " + temporary_};
    if (fine) disk_.unlink(temporary_.c_str());
    if (file_ >= 0) disk_.close(file_);
    disk_.close(whole);
    return fine ? Result<void>() : refuse(error);
  }

  bool write_all(int descriptor) {
    for (std::string_view rest = bytes_; !rest.empty();) {
      const ssize_t n = disk_.write(descriptor, rest.data(), rest.size());
      if (n < 0 && errno == EINTR) continue;
      if (n == 0) errno = ENOSPC;
      if (n <= 0) return false;
      rest.remove_prefix(static_cast<std::size_t>(n));
    }
    return true;
  }
  // Some network file systems have nothing to sync.
  bool sync(int descriptor) { return disk_.fsync(descriptor) == 0 || errno == EINVAL || errno == ENOTSUP; }
  bool close(int& descriptor) { return disk_.close(std::exchange(descriptor, -1)) == 0; }

  void sync_folder() {
    const int folder = disk_.open(folder_of(target_).c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC, 0);
    if (folder < 0) return;
    disk_.fsync(folder);
    disk_.close(folder);
  }

  Result<void> failed() {
    const Error error = file_error(path_, "it cannot be written");
    if (file_ >= 0) disk_.close(file_);
    if (!temporary_.empty()) disk_.unlink(temporary_.c_str());
    return refuse(error);
  }

  const std::string& path_;
  std::string_view bytes_;
  Disk& disk_;
  std::string target_;
  Present present_;
  std::string temporary_;
  int file_ = -1;
};

bool is_temporary(std::string_view name) {
  return name.size() > kTemporary.size() + kLetters + 1 && name.front() == '.' &&
         name.substr(name.size() - kTemporary.size() - kLetters, kTemporary.size()) == kTemporary;
}

}  // namespace

Result<void> write_file(const std::string& path, std::string_view bytes, Disk& disk) {
  return Writing(path, bytes, disk).run();
}

Result<void> write_file(const std::string& path, std::string_view bytes) {
  return write_file(path, bytes, Disk::real());
}

void remove_left_temporaries(const std::string& folder) {
  DIR* listing = ::opendir(folder.c_str());
  if (listing == nullptr) return;
  while (const dirent* entry = ::readdir(listing)) {
    if (!is_temporary(entry->d_name)) continue;
    const std::string path = folder + "/" + entry->d_name;
    if (GrowingFile::is_left_behind(path)) ::unlink(path.c_str());
  }
  ::closedir(listing);
}

}  // namespace lagniappe
