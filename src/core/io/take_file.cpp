// SPDX-License-Identifier: MIT
// A take is a CBOR map {lagniappe: "take", version: 1, about, head, checksum, parts}. `about`, `head` and each
// part are byte strings that hold the CBOR of what take_document.h describes. `parts` is an array of
// [checksum, byte string] whose length is not said beforehand: a journal is a take whose end is not yet
// written. `checksum` is over about and head; each part's goes on from the one before it, so that no part can
// be missing or out of place.
#include <fmt/format.h>

#include <fstream>
#include <functional>

#include "io/take_document.h"
#include "lagniappe/files.h"
#include "math/hash.h"

namespace lagniappe {
namespace {

constexpr std::size_t kMostDepth = 24;
constexpr std::size_t kTicksPerPart = 4096;
constexpr char kOpenList = '\x9f', kEndOfList = '\xff', kMapOfSix = '\xa6';

std::string cbor(const Json& json) {
  std::string bytes;
  Json::to_cbor(json, nlohmann::detail::output_adapter<char>(bytes));
  return bytes;
}

Json packed(const std::string& bytes) { return Json::binary({bytes.begin(), bytes.end()}); }

std::string_view view_of(const Json::binary_t& bytes) {
  return {reinterpret_cast<const char*>(bytes.data()), bytes.size()};
}

// Collects a CBOR document's outer values as they come, so that what was whole before a damage is kept. Also
// stops the parser, which recurses, before hostile bytes nest too deep for the stack.
class Unpacker : public nlohmann::json_sax<Json> {
 public:
  explicit Unpacker(bool about_only) : about_only_(about_only) {}

  std::string kind;
  std::uint64_t version = 0, checksum = 0;
  Json::binary_t about, head;
  std::vector<std::pair<std::uint64_t, Json::binary_t>> parts;
  bool stopped_early = false;

  bool null() override { return false; }
  bool boolean(bool) override { return false; }
  bool number_integer(number_integer_t) override { return false; }
  bool number_float(number_float_t, const string_t&) override { return false; }
  bool number_unsigned(number_unsigned_t value) override {
    if (depth_ == 3 && key_ == "parts") {
      parts.emplace_back(value, Json::binary_t());
    } else if (key_ == "version") {
      version = value;
    } else if (key_ == "checksum") {
      checksum = value;
    } else {
      return false;
    }
    return true;
  }
  bool string(string_t& value) override {
    if (depth_ != 1 || key_ != "lagniappe") return false;
    kind = value;
    return true;
  }
  bool binary(binary_t& value) override {
    if (depth_ == 3 && !parts.empty()) {
      parts.back().second = std::move(value);
    } else if (key_ == "about") {
      about = std::move(value);
      stopped_early = about_only_;
    } else if (key_ == "head") {
      head = std::move(value);
    } else {
      return false;
    }
    return !stopped_early;
  }
  bool key(string_t& value) override {
    key_ = value;
    return depth_ == 1;
  }
  bool start_object(std::size_t) override { return ++depth_ == 1; }
  bool start_array(std::size_t) override { return ++depth_ <= 3 && key_ == "parts"; }
  bool end_object() override { return depth_-- > 0; }
  bool end_array() override { return depth_-- > 0; }
  bool parse_error(std::size_t, const std::string&, const nlohmann::detail::exception&) override {
    return false;
  }

 private:
  bool about_only_;
  std::size_t depth_ = 0;
  std::string key_;
};

// Only counts how deep a document nests.
class DepthGuard : public nlohmann::json_sax<Json> {
 public:
  bool null() override { return true; }
  bool boolean(bool) override { return true; }
  bool number_integer(number_integer_t) override { return true; }
  bool number_unsigned(number_unsigned_t) override { return true; }
  bool number_float(number_float_t, const string_t&) override { return true; }
  bool string(string_t&) override { return true; }
  bool binary(binary_t&) override { return true; }
  bool key(string_t&) override { return true; }
  bool start_object(std::size_t) override { return ++depth_ <= kMostDepth; }
  bool start_array(std::size_t) override { return ++depth_ <= kMostDepth; }
  bool end_object() override { return depth_-- > 0; }
  bool end_array() override { return depth_-- > 0; }
  bool parse_error(std::size_t, const std::string&, const nlohmann::detail::exception&) override {
    return false;
  }

 private:
  std::size_t depth_ = 0;
};

constexpr auto kCbor = nlohmann::detail::input_format_t::cbor;

Json unpacked(const Json::binary_t& bytes, const char* place) {
  DepthGuard guard;
  if (!Json::sax_parse(bytes, &guard, kCbor)) throw ReadFailure{place, "it is no whole CBOR document"};
  return Json::from_cbor(bytes);
}

TakeAbout unpacked_about(const Unpacker& file) {
  const Json about = unpacked(file.about, "/about");
  return read_about(JsonCursor(about, "/about"));
}

void check_kind(const Unpacker& file) {
  if (file.kind != "take")
    throw ReadFailure{"", "this is no take: it should be CBOR that begins with \"lagniappe\": \"take\""};
  if (file.version != 1)
    throw ReadFailure{"/version", fmt::format("version 1 can be read, this is version {}", file.version)};
}

// What comes before the inputs. Without it there is nothing to recover.
Take unpacked_head(const Unpacker& file) {
  check_kind(file);
  Hash hash;
  hash.add(view_of(file.about));
  hash.add(view_of(file.head));
  if (file.head.empty() || hash.value() != file.checksum)
    throw ReadFailure{"/head",
                      "the checksum does not fit: the start of this take is damaged or cut off, nothing of it "
                      "can be recovered"};
  const Json head = unpacked(file.head, "/head");
  Take take = read_head(JsonCursor(head, "/head"));
  take.about = unpacked_about(file);
  return take;
}

// Reads the parts up to the first that is damaged; returns whether the take's own end was reached.
bool read_parts(const Unpacker& file, Take& take) {
  std::uint64_t chain = file.checksum;
  for (const auto& [checksum, bytes] : file.parts) {
    Hash hash(chain);
    hash.add(view_of(bytes));
    chain = hash.value();
    if (chain != checksum) return false;
    const Json part = unpacked(bytes, "/parts");
    if (read_part(JsonCursor(part, "/parts"), take)) return true;
  }
  return false;
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
    Unpacker unpacker(false);
    const bool closed = Json::sax_parse(bytes.begin(), bytes.end(), &unpacker, kCbor);
    RecoveredTake recovered{unpacked_head(unpacker), false};
    recovered.whole = read_parts(unpacker, recovered.take) && closed;
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
  std::ifstream stream(path, std::ios::binary);  // Read no further than is needed.
  if (!stream) return refuse({path, "the file", "it cannot be opened"});
  TakeAbout about;
  const auto read = guarded(path, [&] {
    Unpacker unpacker(true);
    Json::sax_parse(stream, &unpacker, kCbor);
    check_kind(unpacker);
    about = unpacked_about(unpacker);
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
  return document.dump() + "\n";
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
    return take;
  });
}

}  // namespace lagniappe
