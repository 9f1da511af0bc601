// A stage's state as bytes: "ubbo", a version, then for each part its id, its kind and its numbers, and at
// the end a sum over all that, so that what was cut or damaged is not taken. Numbers are little-endian.
#include <algorithm>
#include <cmath>

#include "../base/bits.hpp"
#include "ubbo/stage/stage.hpp"

namespace ubbo {

namespace {

using Bytes = std::span<const std::uint8_t>;

constexpr std::string_view mark = "ubbo";
constexpr std::uint64_t version = 1;
constexpr std::size_t version_size = 4;
constexpr std::size_t sum_size = 8;

// FNV-1a of 64 bits.
std::uint64_t sum_of(Bytes bytes) {
  std::uint64_t sum = 0xcbf29ce484222325U;
  for (const std::uint8_t byte : bytes) sum = (sum ^ byte) * 0x100000001b3U;
  return sum;
}

class Writer {
 public:
  void number(std::uint64_t value, std::size_t size) {
    for (std::size_t i = 0; i < size; ++i) bytes_.push_back(static_cast<std::uint8_t>(value >> (8 * i)));
  }
  void text(std::string_view text) {
    number(text.size(), 4);
    bytes_.insert(bytes_.end(), text.begin(), text.end());
  }
  std::vector<std::uint8_t> done() {
    number(sum_of(bytes_), sum_size);
    return std::move(bytes_);
  }

 private:
  std::vector<std::uint8_t> bytes_{mark.begin(), mark.end()};
};

// What does not fit is nothing, as is all after it.
class Reader {
 public:
  explicit Reader(Bytes bytes) : left_(bytes) {}
  std::uint64_t number(std::size_t size) {
    std::uint64_t value = 0;
    const Bytes taken = take(size);
    for (std::size_t i = 0; i < taken.size(); ++i) value |= static_cast<std::uint64_t>(taken[i]) << (8 * i);
    return value;
  }
  std::string text() {
    const Bytes taken = take(number(4));
    return {taken.begin(), taken.end()};
  }
  [[nodiscard]] bool sound() const { return sound_; }
  [[nodiscard]] std::size_t left() const { return left_.size(); }

 private:
  Bytes take(std::uint64_t size) {
    sound_ = sound_ && size <= left_.size();
    if (!sound_) return {};
    const Bytes taken = left_.first(static_cast<std::size_t>(size));
    left_ = left_.subspan(taken.size());
    return taken;
  }

  Bytes left_;
  bool sound_ = true;
};

struct SavedPart {
  std::string id;
  std::string kind;
  std::vector<double> values{};
};

std::string fault_of(Bytes saved) {
  if (saved.size() < mark.size() + version_size + sum_size ||
      !std::equal(mark.begin(), mark.end(), saved.begin()))
    return "it is no saved state";
  const Bytes said = saved.first(saved.size() - sum_size);
  if (Reader(saved.last(sum_size)).number(sum_size) != sum_of(said)) return "it is damaged or cut off";
  const std::uint64_t theirs = Reader(said.subspan(mark.size())).number(version_size);
  if (theirs != version) return "its version is another than 1: it was saved by a later Ubbo";
  return {};
}

// "" or what is wrong.
std::string read_saved(Bytes saved, std::vector<SavedPart>& all) {
  if (std::string wrong = fault_of(saved); !wrong.empty()) return "saved state: " + wrong;
  constexpr std::size_t head = mark.size() + version_size;
  Reader in(saved.subspan(head).first(saved.size() - head - sum_size));
  while (in.sound() && in.left() > 0) {
    SavedPart& one = all.emplace_back(SavedPart{in.text(), in.text()});
    for (std::uint64_t count = in.number(4); count > 0 && in.sound(); --count)
      one.values.push_back(from_bits(in.number(8)));
  }
  const bool finite = std::all_of(all.begin(), all.end(), [](const SavedPart& one) {
    return std::all_of(one.values.begin(), one.values.end(),
                       [](double value) { return std::isfinite(value); });
  });
  return in.sound() && finite ? "" : "saved state: it is not as this version of Ubbo saves it";
}

}  // namespace

std::vector<std::uint8_t> Stage::save() const {
  Writer out;
  out.number(version, version_size);
  for (const Part* part : parts()) {
    if (part->id().empty() || part->removing() || part->kind().saved == nullptr) continue;
    out.text(part->id());
    out.text(part->kind().name);
    const std::vector<double> values = part->kind().saved(*part);
    out.number(values.size(), 4);
    for (const double value : values) out.number(bits_of(value + 0.0), 8);
  }
  return out.done();
}

std::string Stage::saved_fault(std::span<const std::uint8_t> saved) {
  std::vector<SavedPart> all;
  return read_saved(saved, all);
}

std::string Stage::restore(std::span<const std::uint8_t> saved, Micros time) {
  std::vector<SavedPart> all;
  if (std::string wrong = read_saved(saved, all); !wrong.empty()) return wrong;
  at(time, [this, all = std::move(all)] {
    immediately([this, &all] {
      for (const SavedPart& one : all) {
        Part* part = find(one.id);
        if (part != nullptr && part->kind().restore != nullptr && one.kind == part->kind().name)
          part->kind().restore(*part, one.values);
      }
    });
  });
  return {};
}

}  // namespace ubbo
