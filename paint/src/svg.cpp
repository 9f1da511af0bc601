#include "svg.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <span>

#include "ubbo/base/number_text.hpp"
#include "ubbo/skin/flat.hpp"

namespace ubbo::paint {

std::string hex_of(double channel) {
  constexpr const char* digits = "0123456789ABCDEF";
  const auto byte = static_cast<unsigned>(std::lround(std::clamp(channel, 0.0, 1.0) * 255.0));
  return {digits[byte / 16], digits[byte % 16]};
}

std::string hex(const Colour& colour) {
  return "#" + hex_of(colour.red) + hex_of(colour.green) + hex_of(colour.blue);
}

namespace {

std::string base64(std::string_view bytes) {
  constexpr std::string_view letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
  std::string made;
  for (std::size_t i = 0; i < bytes.size(); i += 3) {
    unsigned three = 0;
    for (std::size_t k = 0; k < 3; ++k)
      three = three << 8U | (i + k < bytes.size() ? static_cast<unsigned char>(bytes[i + k]) : 0U);
    for (std::size_t k = 0; k < 4; ++k)
      made += i + k > bytes.size() ? '=' : letters[three >> (18U - 6U * k) & 63U];
  }
  return made;
}

std::string number(double value) { return number_text(std::fabs(value) < 1e-6 ? 0.0 : value, 6); }

class Writer {
 public:
  explicit Writer(const Images& images) : images_(&images) {}

  void draw(const skin::Picture& picture) {
    for (const skin::Step& step : skin::flat(picture))
      std::visit([this](const auto& one) { draw(one); }, step);
  }
  std::string text;

 private:
  void paint_with(const char* what, const std::optional<Colour>& colour) {
    text += std::string(" ") + what + "=\"" + (colour ? hex(*colour) : "none") + "\"";
    if (colour && colour->alpha < 1.0)
      text += std::string(" ") + what + "-opacity=\"" + number(colour->alpha) + "\"";
  }

  void ink(const skin::Ink& ink) {
    paint_with("fill", ink.fill);
    if (!ink.stroke) return;
    paint_with("stroke", ink.stroke);
    text += " stroke-width=\"" + number(ink.width) + "\"";
    if (ink.dash > 0.0) text += " stroke-dasharray=\"" + number(ink.dash) + "\"";
  }

  void outline(std::span<const Point> points, bool closed) {
    for (const Point& point : points)
      text += (&point == points.data() ? "M" : "L") + number(point.x) + " " + number(point.y);
    if (closed) text += "Z";
  }

  void draw(const skin::Path& path) {
    if (path.points.empty()) return;
    text += "<path d=\"";
    outline(path.points, path.closed);
    text += "\"";
    ink(path.ink);
    text += "/>\n";
  }

  void draw(const skin::Disc& disc) {
    text += "<circle cx=\"" + number(disc.centre.x) + "\" cy=\"" + number(disc.centre.y) + "\" r=\"" +
            number(disc.radius) + "\"";
    ink(disc.ink);
    text += "/>\n";
  }

  void draw(const skin::PlacedText& placed) {
    const skin::Text& words = placed.text;
    text += "<text x=\"" + number(words.at.x) + "\" y=\"" + number(words.at.y) + "\" font-size=\"" +
            number(words.size) + "\"";
    if (words.bold) text += " font-weight=\"600\"";
    if (words.align != skin::Align::left)
      text += std::string(" text-anchor=\"") + (words.align == skin::Align::right ? "end" : "middle") + "\"";
    if (placed.turn != 0.0)
      text += " transform=\"rotate(" + number(placed.turn * 180.0 / std::numbers::pi) + " " +
              number(words.at.x) + " " + number(words.at.y) + ")\"";
    paint_with("fill", words.colour);
    text += ">" + xml_text(words.words) + "</text>\n";
  }

  // Each image stands in the file once for each shape of its box.
  void draw(const skin::PlacedImage& placed) {
    const Box& box = placed.image.box;
    const std::string w = number(box.w);
    const std::string h = number(box.h);
    const std::string key =
        placed.image.name + "|" + number(std::round(100.0 * box.w / std::max(box.h, 1e-9)));
    auto known = symbols_.find(key);
    if (known == symbols_.end()) {
      const std::string bytes = *images_ ? (*images_)(placed.image.name) : std::string();
      known = symbols_.emplace(key, bytes.empty() ? 0 : static_cast<int>(symbols_.size()) + 1).first;
      if (!bytes.empty())
        text += "<symbol id=\"image" + std::to_string(known->second) + "\" viewBox=\"0 0 " + w + " " + h +
                "\" preserveAspectRatio=\"none\"><image width=\"" + w + "\" height=\"" + h +
                "\" preserveAspectRatio=\"xMidYMid slice\" href=\"data:image/" +
                (bytes.starts_with("\x89PNG") ? "png" : "svg+xml") + ";base64," + base64(bytes) +
                "\"/></symbol>\n";
    }
    if (known->second == 0) return;
    text += "<use href=\"#image" + std::to_string(known->second) + "\" x=\"" + number(box.x) + "\" y=\"" +
            number(box.y) + "\" width=\"" + w + "\" height=\"" + h + "\"";
    if (placed.turn != 0.0)
      text += " transform=\"rotate(" + number(placed.turn * 180.0 / std::numbers::pi) + " " +
              number(box.centre().x) + " " + number(box.centre().y) + ")\"";
    text += "/>\n";
  }

  void draw(const skin::Begin& begin) {
    std::string clip;
    if (begin.clip) {
      clip = " clip-path=\"url(#clip" + std::to_string(++clips_) + ")\"";
      text += "<clipPath id=\"clip" + std::to_string(clips_) + "\"><path d=\"";
      outline(*begin.clip, true);
      text += "\"/></clipPath>\n";
    }
    text += "<g" + clip;
    if (begin.opacity < 1.0) text += " opacity=\"" + number(begin.opacity) + "\"";
    text += ">\n";
  }

  void draw(const skin::End&) { text += "</g>\n"; }

  const Images* images_;
  std::map<std::string, int> symbols_;  // by name and shape; 0: there is none
  int clips_ = 0;
};

}  // namespace

std::string xml_text(std::string_view words) {
  std::string made;
  for (const char c : words) {
    if (c == '&')
      made += "&amp;";
    else if (c == '<')
      made += "&lt;";
    else if (c == '>')
      made += "&gt;";
    else if (c == '"')
      made += "&quot;";
    else
      made += static_cast<unsigned char>(c) < 0x20 || c == 0x7f ? ' ' : c;
  }
  return made;
}

std::string svg_of(const skin::Picture& picture, int width, int height, const About& about,
                   const Images& images) {
  Writer writer(images);
  const std::string w = std::to_string(width);
  const std::string h = std::to_string(height);
  writer.text =
      "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" + w +
      "\" height=\"" + h + "\" viewBox=\"0 0 " + w + " " + h +
      "\" role=\"img\" font-family=\"Inter, 'DejaVu Sans', sans-serif\" stroke-linejoin=\"round\" "
      "stroke-linecap=\"round\">\n<title>" +
      xml_text(about.title) + "</title>\n<desc>" + xml_text(about.description) + "</desc>\n";
  writer.draw(picture);
  return writer.text + "</svg>\n";
}

}  // namespace ubbo::paint
