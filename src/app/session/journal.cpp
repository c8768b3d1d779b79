// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/journal.h"

#include <QCoreApplication>
#include <QDir>
#include <atomic>
#include <utility>

#include "lagniappe/files.h"

namespace lagniappe::app {
namespace {

const char* const kPattern = "*.journal";
constexpr int kMostNames = 10'000;

QString new_name() {
  static std::atomic<int> count{0};
  return QString("%1-%2.journal").arg(QCoreApplication::applicationPid()).arg(++count);
}

}  // namespace

// Only the journal's thread touches it.
class Journal::File {
 public:
  File(QString folder, Take head) : folder_(std::move(folder)), take_(std::move(head)), writer_(take_) {}
  // Returns what went wrong, if anything, the first time.
  QString append(const std::vector<InputFrame>& inputs, const std::vector<PartHashes>& hashes,
                 const std::vector<DroppedTime>& dropped, const std::vector<DeviceUse>& devices) {
    take_.inputs.insert(take_.inputs.end(), inputs.begin(), inputs.end());
    take_.hashes.insert(take_.hashes.end(), hashes.begin(), hashes.end());
    take_.dropped.insert(take_.dropped.end(), dropped.begin(), dropped.end());
    take_.devices = devices;
    if (broken_) return {};
    if (!file_) {
      auto created = create();
      if (!created) return broke(created.error());
      file_ = std::move(*created);
    }
    const auto written = file_->append(writer_.next(take_));
    return written ? QString() : broke(written.error());
  }
  void remove() {
    if (file_) file_->remove();
  }

 private:
  // Where every start gets the same number, as in a container, the journal that a crash left has the name
  // already.
  Result<GrowingFile> create() const {
    for (int i = 0;; ++i) {
      const QString path = QDir(folder_).filePath(new_name());
      auto created = GrowingFile::create(path.toStdString());
      if (created || i == kMostNames || !QFileInfo::exists(path)) return created;
    }
  }
  QString broke(const Error& error) {
    broken_ = true;
    return tr("%1; driving goes on, the take is kept in memory").arg(QString::fromStdString(error.sentence()));
  }

  QString folder_;
  Take take_;
  TakeJournal writer_;
  std::optional<GrowingFile> file_;
  bool broken_ = false;
};

Journal::Journal(const QString& folder, QObject* parent) : QObject(parent), folder_(folder) {
  thread_.setMaxThreadCount(1);
}

Journal::~Journal() { wait(); }

void Journal::wait() { thread_.waitForDone(); }

void Journal::keep(const Recording& recording, std::uint64_t revision) {
  if (file_ == nullptr || revision != revision_) {
    close(false);
    Take head = recording.take;
    head.inputs.clear();
    head.hashes.clear();
    head.undivided_hashes.clear();
    head.parts = present_parts();
    head.dropped.clear();
    head.devices.clear();
    file_ = std::make_shared<File>(folder_, std::move(head));
    revision_ = revision;
    handed_over_ = dropped_handed_over_ = 0;
  }
  const Take& take = recording.take;
  const auto after = [](const auto& list, std::size_t i) {
    return list.begin() + static_cast<std::ptrdiff_t>(i);
  };
  std::vector<InputFrame> inputs(after(take.inputs, handed_over_), take.inputs.end());
  std::vector<PartHashes> hashes;
  for (std::size_t i = handed_over_; i < take.inputs.size(); ++i)
    hashes.push_back(part_hashes(recording.run.state(i + 1), present_parts()));
  std::vector<DroppedTime> dropped(after(take.dropped, dropped_handed_over_), take.dropped.end());
  handed_over_ = take.inputs.size();
  dropped_handed_over_ = take.dropped.size();
  thread_.start([this, file = file_, inputs = std::move(inputs), hashes = std::move(hashes),
                 dropped = std::move(dropped), devices = take.devices] {
    const QString sentence = file->append(inputs, hashes, dropped, devices);
    if (!sentence.isEmpty())
      QMetaObject::invokeMethod(
          this, [this, sentence] { emit failed(sentence); }, Qt::QueuedConnection);
  });
}

void Journal::close(bool until_saved) {
  if (!file_) return;
  const std::shared_ptr<File> file = std::exchange(file_, nullptr);
  if (until_saved) {
    closed_.push_back(file);
  } else {
    thread_.start([file] { file->remove(); });
  }
}

void Journal::drop_closed() {
  for (const auto& file : closed_) thread_.start([file] { file->remove(); });
  closed_.clear();
}

QStringList Journal::left_behind(const QString& folder) {
  QStringList left;
  for (const QFileInfo& info : QDir(folder).entryInfoList({kPattern}, QDir::Files, QDir::Time)) {
    if (GrowingFile::is_left_behind(info.absoluteFilePath().toStdString()))
      left.append(info.absoluteFilePath());
  }
  return left;
}

}  // namespace lagniappe::app
