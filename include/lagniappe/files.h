// SPDX-License-Identifier: MIT
// Reading documents and models, and writing what a run leaves. No function here throws or prints; a refusal
// names file and place, and nothing half-read is ever returned.
//
// Thread safety: free functions; any number of threads at once.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "lagniappe/course.h"
#include "lagniappe/drive.h"
#include "lagniappe/profile.h"
#include "lagniappe/result.h"
#include "lagniappe/run.h"
#include "lagniappe/take.h"

namespace lagniappe {

// Reads a course document (*.json), or a model (*.glb, *.gltf, *.obj) as a course: each of its meshes' nodes is
// a piece, and the run begins at the node "start", or else on the lowest free place near the middle.
Result<Course> read_course(const std::string& path);
Result<Profile> read_profile(const std::string& path);
Result<InputScript> read_inputs(const std::string& path);

// The same from text; `file` is only used in refusals. Models that a course names are looked up in `folder`.
Result<Course> parse_course(std::string_view text, const std::string& file, const std::string& folder);
Result<Profile> parse_profile(std::string_view text, const std::string& file);
Result<InputScript> parse_inputs(std::string_view text, const std::string& file);

// Reads how long a display's frames took, s: a text with the milliseconds of one frame a line; empty lines and
// those after # are skipped.
Result<std::vector<double>> read_frame_lengths(const std::string& path);
Result<std::vector<double>> parse_frame_lengths(std::string_view text, const std::string& file);

// One node of a model that has triangles, in the model's frame.
struct ModelPart {
  std::string name;  // The node's or object's name; may be empty.
  shape::Triangles mesh;
};
struct ModelMark {
  std::string name;
  Vec3 at_C;
  double facing;  // Yaw in radians of the node's -Z.
};
struct Model {
  std::vector<ModelPart> parts;
  std::vector<ModelMark> nodes;  // Named nodes without a mesh.
  std::size_t dropped = 0;       // Triangles without area or with a coordinate that is not finite.
};
// Returns the profile with one value changed: "ground.speed=5.2", "ground.response.model=steady", curves as
// [[x, y], ...]. Refused as in a file; the assignment stands for the file's name.
Result<Profile> with_value(const Profile& profile, const std::string& assignment);

// Returns the profile as it would be read back, or why it would be refused: values out of their range, or that
// do not fit together. A table of states is compiled again unless it is the
// `known` one: nearly all that this costs.
Result<Profile> checked(const Profile& profile, const StateChart* known = nullptr);

// Returns, each as a sentence, what a profile's text says in words of before: "jump.hang_speed is called
// jump.apex_speed now". They are read all the same.
std::vector<std::string> old_words_in(std::string_view profile_text);

// Returns a profile's text with this profile's values: only what differs is changed or added, every other byte
// stays, so that version control shows a line for each change. Refused where `text` is no profile.
Result<std::string> profile_text(const Profile& profile, std::string_view text, const std::string& file);
// The same as a new document, which names what differs from the defaults.
Result<std::string> profile_text(const Profile& profile);

// Returns a script as an inputs document, a line for each step; what is read back is the same to the bit.
std::string inputs_text(const InputScript& script, const std::string& name);

// Reads every triangle of a glTF 2.0 (.gltf, .glb) or OBJ file: node transforms and repeated meshes applied;
// lists, strips and fans; sparse and quantised positions. Refused if nothing is left.
Result<Model> read_model(const std::string& path);

// Returns what kind of document a JSON file says it is by its heading; empty if it says nothing.
std::string document_kind(const std::string& path);

// Returns what kind of document a file says it is, checks it whole, and gives its refusals. Kinds: "course",
// "profile", "inputs", "take", "model".
Result<std::string> check_file(const std::string& path);

// Writes a trace as CSV, one row per state, numbers that read back to the same bits. Row 0 is the start; the
// intent is what the tick asked for, m/s, 0 where nothing was. REQUIRES: run is run_take(take, world).
std::string trace_csv(const Run& run, const Take& take, const World& world);

// Writes the pose feed of every tick as CSV (pose_feed.h), rows as in the trace; angles in degrees. Row 0
// stands.
std::string poses_csv(const Run& run, const Profile& profile);

// Writes the ledger of every tick as JSON lines, one object per tick with `tick` and `entries`.
std::string ledger_lines(const Run& run, const Take& take, const World& world);

// Takes: CBOR (RFC 8949) with a version and checksums.
std::string take_bytes(const Take& take);
// Refuses what is damaged or cut off, saying how much of it can be recovered.
Result<Take> parse_take(std::string_view bytes, const std::string& file);
// Also reads a take's JSON form.
Result<Take> read_take(const std::string& path);
// Only what people say about a take; the rest of the file is not looked at.
Result<TakeAbout> read_take_about(const std::string& path);

// What there is of a take that was cut off or damaged: every tick before the damage.
struct RecoveredTake {
  Take take;
  bool whole = false;
};
// Refused only where not even the take's start is whole.
Result<RecoveredTake> recover_take(std::string_view bytes, const std::string& file);
Result<RecoveredTake> recover_take(const std::string& path);

// A take as JSON text, for other tools; reads back to the same take.
std::string take_json(const Take& take);
Result<Take> parse_take_json(std::string_view text, const std::string& file);

// Writes a take piece by piece while it is being recorded: what is written so far can be recovered at any time.
class TakeJournal {
 public:
  explicit TakeJournal(const Take& take);

  // Returns the bytes to append for the ticks since the last call; the first call's begin the file. REQUIRES:
  // always the same take, which only grows.
  std::string next(const Take& take);
  // Returns the last bytes: with them the file is a whole take.
  std::string end(const Take& take);

 private:
  std::string head_;  // Not yet handed out.
  std::uint64_t chain_ = 0;
  std::size_t written_ = 0;  // Ticks.
};

// Writes to a new, private file beside `path`, syncs, and puts it in place of `path`: a reader sees the old or
// the new whole. Rights and owner stay; a link stays, and what it leads to is written. Where another owner's
// file, one with several names or one with an access list could not be replaced without losing those, it is
// written in place while the new whole lies beside it. Refused where the file is read-only; the old one is then
// as it was.
Result<void> write_file(const std::string& path, std::string_view bytes);

// Removes what write_file() had begun in a folder when its program was killed.
void remove_left_temporaries(const std::string& folder);

// A new file that grows, synced with every append, and locked for as long as it is open: whoever can lock it
// knows that its writer is gone. Moves, does not copy.
class GrowingFile {
 public:
  // Refused if there is such a file already, or it cannot be made.
  static Result<GrowingFile> create(const std::string& path);
  GrowingFile(GrowingFile&& other) noexcept;
  GrowingFile& operator=(GrowingFile&& other) noexcept;
  ~GrowingFile();

  Result<void> append(std::string_view bytes);  // Returns when it is on the disk.
  void remove();

  // Whether the writer of such a file is gone.
  static bool is_left_behind(const std::string& path);

 private:
  GrowingFile(int descriptor, std::string path) : descriptor_(descriptor), path_(std::move(path)) {}
  int descriptor_ = -1;
  std::string path_;
};

}  // namespace lagniappe
