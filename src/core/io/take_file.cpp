// SPDX-License-Identifier: MIT
// A take is a CBOR map {lagniappe: "take", version: 1, about, head, checksum, parts}. `about`, `head` and each
// part are byte strings that hold the CBOR of what take_document.h describes. `parts` is an array of
// [checksum, byte string] whose length is not said beforehand: a journal is a take whose end is not yet
// written. `checksum` is over about and head; each part's goes on from the one before it, so that no part can
// be missing or out of place.
#include <fmt/format.h>

#include <functional>

#include "io/cbor.h"
#include "io/take_document.h"
#include "lagniappe/files.h"
#include "math/hash.h"

namespace lagniappe {
namespace {

constexpr std::size_t kMostDepth = 24;
constexpr std::size_t kLongestAbout = 1 << 20;  // Bytes in which a take's heading and about are.
constexpr std::size_t kTicksPerPart = 4096;
constexpr char kOpenList = '\x9f', kEndOfList = '\xff', kMapOfSix = '\xa6';

std::string cbor(const Json& json) {
  std::string bytes;
  Json::to_cbor(json, nlohmann::detail::output_adapter<char>(bytes));
  return bytes;
}

Json packed(const std::string& bytes) { return Json::binary({bytes.begin(), bytes.end()}); }

// The outer values of a take's file, as far as they are whole: what comes before a damage is kept.
struct Frame {
  std::string_view kind, about, head;  // Into the file's bytes.
  std::uint64_t version = 0, checksum = 0;
  std::vector<std::pair<std::uint64_t, std::string_view>> parts;
  bool closed = false;  // The end was reached, and nothing comes behind it.
};

void read_parts_of(CborCursor& cursor, Frame& frame) {
  std::uint64_t two = 0, checksum = 0;
  std::string_view bytes;
  std::uint64_t count = 0;
  const bool open = cursor.open_array();
  if (!open && !cursor.array(count)) return;
  for (std::uint64_t i = 0; open || i < count; ++i) {
    if (open && cursor.end_of_open()) break;
    if (!cursor.array(two) || two != 2 || !cursor.number(checksum) || !cursor.binary(bytes)) return;
    frame.parts.emplace_back(checksum, bytes);
  }
  frame.closed = cursor.at_end();
}

// Keys in any order, but for the parts, which come last.
Frame frame_of(std::string_view bytes) {
  Frame frame;
  CborCursor cursor(bytes);
  std::uint64_t count = 0;
  if (!cursor.map(count)) return frame;
  std::string_view key;
  while (cursor.text(key)) {
    if (key == "parts") {
      read_parts_of(cursor, frame);
      break;
    }
    const bool fine = key == "lagniappe"  ? cursor.text(frame.kind)
                      : key == "version"  ? cursor.number(frame.version)
                      : key == "checksum" ? cursor.number(frame.checksum)
                      : key == "about"    ? cursor.binary(frame.about)
                      : key == "head"     ? cursor.binary(frame.head)
                                          : false;
    if (!fine) break;
  }
  return frame;
}

Json unpacked(std::string_view bytes, const char* place) {
  if (!is_plain_cbor(bytes, kMostDepth))
    throw ReadFailure{place, "it is no whole CBOR document, or nests too deep"};
  return Json::from_cbor(bytes.begin(), bytes.end());
}

TakeAbout unpacked_about(const Frame& file) {
  const Json about = unpacked(file.about, "/about");
  return read_about(JsonCursor(about, "/about"));
}

void check_kind(const Frame& file) {
  if (file.kind != "take")
    throw ReadFailure{"", "this is no take: it should be CBOR that begins with \"lagniappe\": \"take\""};
  if (file.version != 1)
    throw ReadFailure{"/version", fmt::format("version 1 can be read, this is version {}", file.version)};
}

// What comes before the inputs. Without it there is nothing to recover.
Take unpacked_head(const Frame& file) {
  check_kind(file);
  Hash hash;
  hash.add(file.about);
  hash.add(file.head);
  if (file.head.empty() || hash.value() != file.checksum)
    throw ReadFailure{"/head",
                      "the checksum does not fit: the start of this take is damaged or cut off, nothing of it "
                      "can be recovered"};
  const Json head = unpacked(file.head, "/head");
  Take take = read_head(JsonCursor(head, "/head"));
  take.about = unpacked_about(file);
  return take;
}

bool read_sound_parts(const Frame& file, Take& take) {
  std::uint64_t chain = file.checksum;
  for (const auto& [checksum, bytes] : file.parts) {
    Hash hash(chain);
    hash.add(bytes);
    chain = hash.value();
    if (chain != checksum) return false;
    const Json part = unpacked(bytes, "/parts");
    if (read_part(JsonCursor(part, "/parts"), take)) return true;
  }
  return false;
}

// Reads the parts up to the first that is damaged; returns whether the take's own end was reached.
bool read_parts(const Frame& file, Take& take) {
  const bool ended = read_sound_parts(file, take);
  forget_unproved(take);
  return ended;
}

// A part as it stands in the file; `chain` becomes its checksum.
std::string part_bytes(const Json& json, std::uint64_t& chain) {
  const std::string bytes = cbor(json);
  Hash hash(chain);
  hash.add(bytes);
  chain = hash.value();
  return cbor(Json::array({chain, packed(bytes)}));
}

bool is_take_json(std::string_view bytes) { return bytes.substr(0, 64).find('{') < 8; }

Result<RecoveredTake> guarded(const std::string& file, const std::function<RecoveredTake()>& read) {
  try {
    return read();
  } catch (const ReadFailure& failure) {
    return refuse({file, failure.pointer.empty() ? "the whole take" : failure.pointer, failure.what});
  } catch (const nlohmann::json::exception&) {
    return refuse({file, "the whole take", "it is no whole CBOR document; it seems to be cut off or damaged"});
  }
}

Result<Take> whole_only(Result<RecoveredTake> recovered, const std::string& file) {
  if (!recovered) return refuse(recovered.error());
  if (recovered->whole) return std::move(recovered->take);
  const Take& take = recovered->take;
  return refuse({file, fmt::format("after tick {}", take.inputs.size()),
                 fmt::format("the take is damaged or cut off here; the {:.2f} s before it can be recovered",
                             take.seconds())});
}

}  // namespace

TakeJournal::TakeJournal(const Take& take) {
  const std::string about = cbor(about_json(take.about)), head = cbor(head_json(take));
  Hash hash;
  hash.add(about);
  hash.add(head);
  chain_ = hash.value();
  head_ = std::string(1, kMapOfSix) + cbor("lagniappe") + cbor("take") + cbor("version") + cbor(1) +
          cbor("about") + cbor(packed(about)) + cbor("head") + cbor(packed(head)) + cbor("checksum") +
          cbor(chain_) + cbor("parts") + kOpenList;
}

std::string TakeJournal::next(const Take& take) {
  std::string bytes = std::exchange(head_, {});
  while (written_ < take.inputs.size()) {
    const std::size_t last = std::min(take.inputs.size(), written_ + kTicksPerPart);
    bytes += part_bytes(part_json(take, written_, last), chain_);
    written_ = last;
  }
  return bytes;
}

std::string TakeJournal::end(const Take& take) {
  const std::string rest = next(take);
  return rest + part_bytes(end_json(take), chain_) + kEndOfList;
}

std::string take_bytes(const Take& take) { return TakeJournal(take).end(take); }

Result<RecoveredTake> recover_take(std::string_view bytes, const std::string& file) {
  return guarded(file, [&] {
    const Frame frame = frame_of(bytes);
    RecoveredTake recovered{unpacked_head(frame), false};
    recovered.whole = read_parts(frame, recovered.take) && frame.closed;
    recovered.take.about.ticks = recovered.take.inputs.size();
    return recovered;
  });
}

Result<Take> parse_take(std::string_view bytes, const std::string& file) {
  return whole_only(recover_take(bytes, file), file);
}

Result<Take> read_take(const std::string& path) {
  return read_text(path).and_then([&](const std::string& bytes) {
    return is_take_json(bytes) ? parse_take_json(bytes, path) : parse_take(bytes, path);
  });
}

Result<RecoveredTake> recover_take(const std::string& path) {
  return read_text(path).and_then([&](const std::string& bytes) { return recover_take(bytes, path); });
}

Result<TakeAbout> read_take_about(const std::string& path) {
  const auto bytes = read_text(path, kLongestAbout);  // No further than is needed.
  if (!bytes) return refuse(bytes.error());
  TakeAbout about;
  const auto read = guarded(path, [&] {
    const Frame frame = frame_of(*bytes);
    check_kind(frame);
    about = unpacked_about(frame);
    return RecoveredTake{};
  });
  return read ? Result<TakeAbout>(about) : refuse(read.error());
}

std::string take_json(const Take& take) {
  const Json parts = {part_json(take, 0, take.inputs.size()), end_json(take)};
  const Json document = {{"lagniappe", "take"},
                         {"version", 1},
                         {"about", about_json(take.about)},
                         {"head", head_json(take)},
                         {"parts", parts}};
  return dumped(document) + "\n";
}

Result<Take> parse_take_json(std::string_view text, const std::string& file) {
  return read_document(text, file, "take", [](const JsonCursor& document) {
    document.only_keys({"about", "head", "parts"});
    Take take = read_head(document.at("head"));
    take.about = read_about(document.at("about"));
    bool ended = false;
    for (const JsonCursor& part : document.at("parts").elements()) {
      if (ended) part.fail("nothing may come after the end");
      ended = read_part(part, take);
    }
    if (!ended)
      document.at("parts").fail("the end is missing: the last part should say how many ticks there are");
    forget_unproved(take);
    return take;
  });
}

}  // namespace lagniappe
