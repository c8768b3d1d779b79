// SPDX-License-Identifier: MIT
// Saving: on a disk that fails at every call in turn, killed at every call, over links, read-only and shared
// files.
#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <cerrno>

#include "io/disk.h"
#include "lagniappe/files.h"
#include "support/scratch.h"

using namespace lagniappe;
using namespace lagniappe::test;
using Catch::Matchers::Contains;

namespace {

// Fails, or ends the program, at its n-th call, and writes no more than three bytes at once.
class Faulty : public Disk {
 public:
  enum class Fault { None, Full, Kill };
  Faulty(Fault fault, int at) : fault_(fault), at_(at) {}

  int calls() const { return calls_; }

  int open(const char* path, int flags, mode_t mode) override {
    return bad() ? -1 : Disk::open(path, flags, mode);
  }
  int mkostemp(char* pattern, int flags) override { return bad() ? -1 : Disk::mkostemp(pattern, flags); }
  ssize_t write(int file, const void* bytes, std::size_t size) override {
    return bad() ? -1 : Disk::write(file, bytes, std::min<std::size_t>(size, 3));
  }
  int fallocate(int file, off_t size) override { return bad() ? -1 : Disk::fallocate(file, size); }
  int ftruncate(int file, off_t size) override { return bad() ? -1 : Disk::ftruncate(file, size); }
  int fsync(int file) override { return bad() ? -1 : Disk::fsync(file); }
  int fchmod(int file, mode_t mode) override { return bad() ? -1 : Disk::fchmod(file, mode); }
  int fchown(int file, uid_t owner, gid_t group) override {
    return bad() ? -1 : Disk::fchown(file, owner, group);
  }
  int close(int file) override {
    const bool fails = bad();
    const int closed = Disk::close(file);  // A close that fails has closed all the same.
    if (fails) errno = ENOSPC;
    return fails ? -1 : closed;
  }
  int rename(const char* from, const char* to) override { return bad() ? -1 : Disk::rename(from, to); }
  int unlink(const char* path) override { return bad() ? -1 : Disk::unlink(path); }

 private:
  bool bad() {
    if (++calls_ != at_ || fault_ == Fault::None) return false;
    if (fault_ == Fault::Kill) ::_exit(0);
    errno = ENOSPC;
    return true;
  }
  Fault fault_;
  int at_, calls_ = 0;
};

const std::string kOld = "the old whole", kNew = "what is new, a little longer";

int calls_of_a_save(const std::string& path) {
  Faulty disk(Faulty::Fault::None, 0);
  REQUIRE(write_file(path, kNew, disk));
  return disk.calls();
}

mode_t mode_of(const std::string& path) {
  struct stat info {};
  REQUIRE(::lstat(path.c_str(), &info) == 0);
  return info.st_mode & 07777;
}

// The new whole that lies beside a file which had to be written in place.
bool is_beside(const Scratch& scratch, const std::string& whole) {
  for (const auto& file : std::filesystem::directory_iterator(scratch.path("")))
    if (file.path().filename().string().starts_with(".") && content(file.path()) == whole) return true;
  return false;
}

}  // namespace

TEST_CASE(
    "A disk that fails at any call of a save leaves the old file or the new one, and says so in a sentence") {
  const Scratch scratch;
  const int calls = calls_of_a_save(scratch.write("w.json", kOld));
  REQUIRE(calls > 10);
  for (int at = 1; at <= calls; ++at) {
    INFO("call " << at << " of " << calls);
    const std::string path = scratch.write("w.json", kOld);
    Faulty disk(Faulty::Fault::Full, at);
    const auto written = write_file(path, kNew, disk);
    CHECK(content(path) == (written ? kNew : kOld));
    CHECK(scratch.count() == 1);  // Nothing of it stays.
    if (!written)
      CHECK_THAT(written.error().sentence(), Contains("w.json: the file: it cannot be written: No space"));
  }
}

TEST_CASE("A program that is killed at any call of a save leaves the old file or the new one") {
  const Scratch scratch;
  const int calls = calls_of_a_save(scratch.write("w.json", kOld));
  int new_ones = 0;
  for (int at = 1; at <= calls; ++at) {
    INFO("call " << at << " of " << calls);
    const std::string path = scratch.write("w.json", kOld);
    const pid_t child = ::fork();
    if (child == 0) {
      Faulty disk(Faulty::Fault::Kill, at);
      (void)write_file(path, kNew, disk);
      ::_exit(1);
    }
    int status = 0;
    REQUIRE(::waitpid(child, &status, 0) == child);
    REQUIRE(WEXITSTATUS(status) == 0);  // It did die there.
    const std::string now = content(path);
    CHECK((now == kOld || now == kNew));
    new_ones += now == kNew;
    remove_left_temporaries(scratch.path(""));
    CHECK(scratch.count() == 1);
  }
  CHECK(new_ones > 0);
}

TEST_CASE(
    "A file of several names is written in place: it keeps them, and one whole is on the disk at any failure") {
  const Scratch scratch;
  const std::string path = scratch.write("w.json", kOld), other = scratch.path("other.json");
  REQUIRE(::link(path.c_str(), other.c_str()) == 0);
  const int calls = calls_of_a_save(path);
  CHECK(content(other) == kNew);
  for (int at = 1; at <= calls; ++at) {
    INFO("call " << at << " of " << calls);
    scratch.write("w.json", kOld);
    Faulty disk(Faulty::Fault::Full, at);
    const auto written = write_file(path, kNew, disk);
    const std::string now = content(path);
    CHECK((written ? now == kNew : now == kOld || is_beside(scratch, kNew)));
    CHECK(content(other) == now);
    remove_left_temporaries(scratch.path(""));
  }
}

TEST_CASE("Saving through a link writes what it leads to, and the link stays") {
  const Scratch scratch;
  const std::string file = scratch.write("kept/w.json", kOld);
  const auto link = [&](const std::string& to, const std::string& name) {
    REQUIRE(::symlink(to.c_str(), scratch.path(name).c_str()) == 0);
    return scratch.path(name);
  };
  const std::string once = link("kept/w.json", "once.json"), twice = link("once.json", "twice.json");
  REQUIRE(write_file(twice, kNew));
  CHECK(content(file) == kNew);
  for (const std::string& path : {once, twice}) CHECK(std::filesystem::is_symlink(path));
  const std::string ahead = link("kept/not-yet.json", "ahead.json");
  REQUIRE(write_file(ahead, kNew));
  CHECK(std::filesystem::is_symlink(ahead));
  CHECK(content(scratch.path("kept/not-yet.json")) == kNew);
  const std::string round = link("round.json", "round.json");
  const auto written = write_file(round, kNew);
  REQUIRE_FALSE(written);
  CHECK_THAT(written.error().sentence(), Contains("symbolic links"));
}

TEST_CASE("Rights stay as they were; what is read-only, a folder or a pipe that nobody reads is refused") {
  const Scratch scratch;
  const std::string path = scratch.write("w.json", kOld);
  for (const mode_t mode : {0600, 0640, 0664, 0755}) {
    REQUIRE(::chmod(path.c_str(), mode) == 0);
    REQUIRE(write_file(path, kNew));
    CHECK(mode_of(path) == mode);
  }
  REQUIRE(::chmod(path.c_str(), 0444) == 0);
  const auto read_only = write_file(path, kOld);
  REQUIRE_FALSE(read_only);
  CHECK_THAT(read_only.error().sentence(), Contains("read-only"));
  CHECK(content(path) == kNew);
  CHECK_FALSE(write_file(scratch.path(""), kNew));
  REQUIRE(::mkfifo(scratch.path("pipe").c_str(), 0600) == 0);
  const auto pipe = write_file(scratch.path("pipe"), kNew);
  REQUIRE_FALSE(pipe);  // Without waiting.
  CHECK_THAT(pipe.error().sentence(), Contains("it cannot be written"));
}

TEST_CASE("What lies under the name of a temporary file is not written through") {
  const Scratch scratch;
  const std::string victim = scratch.write("victim", kOld), path = scratch.path("w.json");
  REQUIRE(::symlink(victim.c_str(), (path + ".part-" + std::to_string(::getpid())).c_str()) == 0);
  REQUIRE(write_file(path, kNew));
  CHECK(content(victim) == kOld);
  CHECK(content(path) == kNew);
}

TEST_CASE("A file that is being written is not taken for one that was left behind") {
  const Scratch scratch;
  const std::string busy = scratch.write(".w.json.part-abcdef", kNew),
                    left = scratch.write(".w.json.part-ghijkl", kNew);
  const int held = ::open(busy.c_str(), O_RDONLY);
  REQUIRE(::flock(held, LOCK_EX) == 0);
  remove_left_temporaries(scratch.path(""));
  CHECK(std::filesystem::exists(busy));
  CHECK_FALSE(std::filesystem::exists(left));
  ::close(held);
}
