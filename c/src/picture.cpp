#include <algorithm>
#include <cmath>

#include "held.hpp"
#include "ubbo/skin/comb.hpp"
#include "ubbo/skin/flat.hpp"
#include "ubbo/ubbo.h"

namespace ubbo::c {

namespace {

// Steps of a picture as numbers, and the texts that they point into.
class Numbers {
 public:
  Numbers(double* into, std::size_t room, char* texts, std::size_t texts_room)
      : into_(into),
        room_(into == nullptr ? 0 : room),
        texts_(texts),
        texts_room_(texts == nullptr ? 0 : texts_room) {}

  void add(const skin::Path& path) {
    begin(0, path.ink);
    put(path.closed ? 1 : 0);
    put(static_cast<double>(path.points.size()));
    for (const Point point : path.points) add(point);
  }
  void add(const skin::Disc& disc) {
    begin(1, disc.ink);
    add(disc.centre);
    put(disc.radius);
  }
  void add(const skin::PlacedText& placed) {
    put(2);
    put(number_of(placed.text.colour));
    add(placed.text.at);
    put(placed.text.size);
    put(static_cast<double>(placed.text.align));
    put(placed.text.bold ? 1 : 0);
    put(placed.turn);
    add(placed.text.words);
  }
  void add(const skin::PlacedImage& placed) {
    put(3);
    add(Point{placed.image.box.x, placed.image.box.y});
    add(Point{placed.image.box.w, placed.image.box.h});
    put(placed.turn);
    add(placed.image.name);
  }
  void add(const skin::Begin& begin) {
    put(4);
    put(begin.opacity);
    put(begin.clip ? 1 : 0);
    if (begin.clip)
      for (const Point corner : *begin.clip) add(corner);
  }
  void add(const skin::End&) { put(5); }

  [[nodiscard]] std::size_t count() const { return count_; }
  [[nodiscard]] std::size_t texts_size() const { return texts_size_; }

 private:
  static double number_of(const Colour& colour) {
    const auto byte = [](double share) { return std::round(std::clamp(share, 0.0, 1.0) * 255.0); };
    return ((byte(colour.red) * 256.0 + byte(colour.green)) * 256.0 + byte(colour.blue)) * 256.0 +
           byte(colour.alpha);
  }
  static double number_of(const std::optional<Colour>& colour) { return colour ? number_of(*colour) : -1.0; }

  void put(double number) {
    if (count_ < room_) into_[count_] = number;
    ++count_;
  }
  void add(Point point) {
    put(point.x);
    put(point.y);
  }
  void begin(double what, const skin::Ink& ink) {
    put(what);
    put(number_of(ink.fill));
    put(number_of(ink.stroke));
    put(ink.width);
    put(ink.dash);
  }
  void add(const std::string& words) {
    put(static_cast<double>(texts_size_));
    put(static_cast<double>(words.size()));
    for (const char letter : words) {
      if (texts_size_ < texts_room_) texts_[texts_size_] = letter;
      ++texts_size_;
    }
  }

  double* into_;
  std::size_t room_;
  char* texts_;
  std::size_t texts_room_;
  std::size_t count_ = 0;
  std::size_t texts_size_ = 0;
};

}  // namespace

}  // namespace ubbo::c

std::size_t ubbo_picture(ubbo_run number, int dark, double text_scale, double* into, std::size_t room,
                         char* texts, std::size_t texts_room, std::size_t* texts_size) {
  const ubbo::c::Run* run = ubbo::c::runs().find(number);
  if (run == nullptr) return 0;
  return ubbo::c::guarded(std::size_t{0}, [&] {
    const ubbo::skin::Lettering lettering{.scale = std::clamp(text_scale, 1.0, 3.0)};
    ubbo::c::Numbers out(into, room, texts, texts_room);
    for (const ubbo::skin::Step& step : ubbo::skin::flat(ubbo::skin::comb(
             run->run.stage(), dark != 0 ? ubbo::skin::dark : ubbo::skin::day, {}, lettering)))
      std::visit([&out](const auto& one) { out.add(one); }, step);
    if (texts_size != nullptr) *texts_size = out.texts_size();
    return out.count();
  });
}
