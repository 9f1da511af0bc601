#include "moving_png.hpp"

#include <algorithm>
#include <array>
#include <string_view>
#include <utility>

namespace ubbo::paint {

namespace {

constexpr std::string_view signature = "\x89PNG\r\n\x1a\n";

// CRC-32 as PNG has it: x^32 + x^26 + x^23 + …, bits mirrored.
std::uint32_t crc_of(std::string_view bytes) {
  static constexpr auto table = [] {
    std::array<std::uint32_t, 256> made{};
    for (std::uint32_t n = 0; n < 256; ++n) {
      std::uint32_t c = n;
      for (int bit = 0; bit < 8; ++bit) c = (c & 1U) != 0 ? 0xEDB88320U ^ (c >> 1U) : c >> 1U;
      made[n] = c;
    }
    return made;
  }();
  std::uint32_t crc = 0xFFFFFFFFU;
  for (const char byte : bytes) crc = table[(crc ^ static_cast<unsigned char>(byte)) & 0xFFU] ^ (crc >> 8U);
  return ~crc;
}

std::string be32(std::uint32_t value) {
  return {static_cast<char>(value >> 24U), static_cast<char>(value >> 16U), static_cast<char>(value >> 8U),
          static_cast<char>(value)};
}
std::string be16(std::uint32_t value) { return be32(value).substr(2); }

std::uint32_t read32(std::string_view bytes) {
  std::uint32_t value = 0;
  for (std::size_t i = 0; i < 4; ++i) value = value << 8U | static_cast<unsigned char>(bytes[i]);
  return value;
}

cairo_status_t gather(void* bytes, const unsigned char* data, unsigned length) {
  static_cast<std::string*>(bytes)->append(reinterpret_cast<const char*>(data), length);
  return CAIRO_STATUS_SUCCESS;
}

struct Area {
  int x, y, w, h;
};

// The box outside of which two images of `width` are alike; a pixel where they are alike all over.
Area changed(const std::vector<std::uint32_t>& a, const std::vector<std::uint32_t>& b, int width,
             int height) {
  if (a.empty()) return {0, 0, width, height};
  int left = width, right = -1, top = height, bottom = -1;
  for (int y = 0; y < height; ++y)
    for (int x = 0; x < width; ++x) {
      const auto at =
          static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
      if (a[at] == b[at]) continue;
      left = std::min(left, x);
      right = std::max(right, x);
      top = std::min(top, y);
      bottom = std::max(bottom, y);
    }
  return right < 0 ? Area{0, 0, 1, 1} : Area{left, top, right - left + 1, bottom - top + 1};
}

// The part of an image as a PNG file of its own.
std::string png_of(cairo_surface_t* image, const Area& area) {
  cairo_surface_t* part = cairo_image_surface_create(CAIRO_FORMAT_RGB24, area.w, area.h);
  cairo_t* to = cairo_create(part);
  cairo_set_source_surface(to, image, -area.x, -area.y);
  cairo_paint(to);
  cairo_destroy(to);
  std::string bytes;
  cairo_surface_write_to_png_stream(part, &gather, &bytes);
  cairo_surface_destroy(part);
  return bytes;
}

}  // namespace

MovingPng::MovingPng(int width, int height, std::size_t frames)
    : width_(width), height_(height), frames_(frames) {}

void MovingPng::add_chunk(const char* name, const std::string& data) {
  made_ += be32(static_cast<std::uint32_t>(data.size()));
  const std::string named = name + data;
  made_ += named + be32(crc_of(named));
}

void MovingPng::add(cairo_surface_t* image, Micros time) {
  std::vector<std::uint32_t> now;
  const unsigned char* data = cairo_image_surface_get_data(image);
  const int stride = cairo_image_surface_get_stride(image);
  for (int y = 0; y < height_; ++y) {
    const auto* row = reinterpret_cast<const std::uint32_t*>(data + static_cast<std::ptrdiff_t>(y) * stride);
    now.insert(now.end(), row, row + width_);
  }
  const bool first = before_.empty();
  const Area area = changed(before_, now, width_, height_);
  const std::string png = png_of(image, area);
  before_ = std::move(now);
  const auto u = [](int value) { return static_cast<std::uint32_t>(value); };
  const std::string control = be32(u(area.w)) + be32(u(area.h)) + be32(u(area.x)) + be32(u(area.y)) +
                              be16(static_cast<std::uint32_t>(to_ms(time))) + be16(1000) +
                              std::string(2, '\0');
  bool begun = false;
  for (std::size_t at = signature.size(); at + 12 <= png.size();) {
    const std::uint32_t size = read32(std::string_view(png).substr(at));
    const std::string name = png.substr(at + 4, 4);
    const std::string content = png.substr(at + 8, size);
    if (first && name == "IHDR") {
      made_ = std::string(signature);
      add_chunk("IHDR", content);
      add_chunk("acTL", be32(static_cast<std::uint32_t>(frames_)) + be32(0));
    }
    if (name == "IDAT") {
      if (!std::exchange(begun, true)) add_chunk("fcTL", be32(chunks_++) + control);
      if (first)
        add_chunk("IDAT", content);
      else
        add_chunk("fdAT", be32(chunks_++) + content);
    }
    at += 12 + size;
  }
}

std::string MovingPng::bytes() && {
  add_chunk("IEND", "");
  return std::move(made_);
}

}  // namespace ubbo::paint
