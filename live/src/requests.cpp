#include "requests.hpp"

#include <fmt/format.h>
#include <zlib.h>

#include <algorithm>
#include <array>
#include <cstdint>
#include <random>
#include <stdexcept>

namespace ubbo::live {

namespace {

// Nothing but the page's own scripts runs; the module is compiled, which needs a word of its own. With the
// last two, browsers give finer time stamps.
const std::vector<std::pair<std::string, std::string>>& guards() {
  static const std::vector<std::pair<std::string, std::string>> all{
      {"Content-Security-Policy",
       "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self'; img-src 'self' data:; "
       "font-src 'self'; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"},
      {"X-Content-Type-Options", "nosniff"},
      {"Referrer-Policy", "no-referrer"},
      {"Cache-Control", "no-store"},
      {"Cross-Origin-Opener-Policy", "same-origin"},
      {"Cross-Origin-Embedder-Policy", "require-corp"},
      {"Cross-Origin-Resource-Policy", "same-origin"}};
  return all;
}

constexpr std::string_view cookie_name = "ubbo_guest=";
constexpr std::size_t most_guests = 1000;

std::string_view host_in(std::string_view origin) { return origin.substr(origin.find("://") + 3); }

}  // namespace

std::string secret() {
  std::random_device device;
  std::string text;
  for (int i = 0; i < 4; ++i) text += fmt::format("{:08x}", static_cast<std::uint32_t>(device()));
  return text;
}

std::string gzip(std::string_view bytes) {
  z_stream stream{};
  constexpr int with_gzip = 15 + 16;
  if (deflateInit2(&stream, Z_BEST_COMPRESSION, Z_DEFLATED, with_gzip, 8, Z_DEFAULT_STRATEGY) != Z_OK)
    throw std::runtime_error("gzip could not begin");
  std::string packed(deflateBound(&stream, static_cast<uLong>(bytes.size())), '\0');
  stream.next_in = reinterpret_cast<Bytef*>(const_cast<char*>(bytes.data()));
  stream.avail_in = static_cast<uInt>(bytes.size());
  stream.next_out = reinterpret_cast<Bytef*>(packed.data());
  stream.avail_out = static_cast<uInt>(packed.size());
  const int done = deflate(&stream, Z_FINISH);
  packed.resize(stream.total_out);
  deflateEnd(&stream);
  if (done != Z_STREAM_END) throw std::runtime_error("gzip could not end");
  return packed;
}

Requests::Requests(const Hub& hub, const Source& source, std::span<const PageFile> page,
                   std::vector<std::string> origins, std::string token)
    : hub_(&hub), source_(&source), origins_(std::move(origins)), token_(std::move(token)) {
  for (const PageFile& file : page) packed_.emplace(file.name, gzip(file.bytes));
}

bool Requests::knows(std::string_view cookie) const {
  if (token_.empty()) return true;
  const std::size_t at = cookie.find(cookie_name);
  if (at == std::string_view::npos) return false;
  std::string_view value = cookie.substr(at + cookie_name.size());
  value = value.substr(0, value.find(';'));
  return std::find(guests_.begin(), guests_.end(), value) != guests_.end();
}

Answer Requests::refused(int status, std::string_view why) {
  held_ = fmt::format("{}\n", why);
  return {.status = status, .body = held_, .headers = guards()};
}

Answer Requests::answer(const Request& request) {
  if (request.method != "GET" && request.method != "HEAD") return refused(405, "takes GET");
  // A name that leads here from elsewhere is not taken, so that no other site reads or writes through a
  // browser.
  const bool known_host = std::any_of(origins_.begin(), origins_.end(), [&](const std::string& origin) {
    return host_in(origin) == request.host;
  });
  if (!known_host) return refused(421, "another host's name");
  if (!request.origin.empty() &&
      std::find(origins_.begin(), origins_.end(), request.origin) == origins_.end())
    return refused(403, "another site's page");
  std::string_view path = request.target.substr(0, request.target.find('?'));
  const std::string_view query =
      path.size() < request.target.size() ? request.target.substr(path.size() + 1) : "";
  if (!token_.empty() && !knows(request.cookie)) {
    if (path != "/" || query != "token=" + token_)
      return refused(403, "this address has been used, or lacks its token; ubbo live says the next one");
    if (guests_.size() == most_guests) guests_.erase(guests_.begin());
    guests_.push_back(secret());
    token_ = secret();
    used_ = true;
    Answer answer = refused(303, "come in");
    answer.headers.emplace_back("Location", "/");
    answer.headers.emplace_back(
        "Set-Cookie", fmt::format("{}{}; HttpOnly; SameSite=Strict; Path=/", cookie_name, guests_.back()));
    return answer;
  }
  if (path == "/link") {
    if (!request.upgrades) return refused(426, "takes a web socket");
    // Browsers say where a web socket comes from; who says nothing is none, and is let in as any program is.
    return {.link = true};
  }
  if (path == "/") path = "/index.html";
  if (!path.starts_with('/')) return refused(404, "nothing of that name");
  path.remove_prefix(1);
  const std::string name(path);
  if (name == "scene.json") {
    if (scene_ != hub_->scene()) {
      scene_ = hub_->scene();
      scene_packed_ = gzip(scene_);
    }
    return {.type = type_of(name), .body = scene_packed_, .packed = true, .headers = guards()};
  }
  if (name.starts_with("images/")) {
    held_ = source_->image(name.substr(7));
    if (!held_.empty()) return {.type = type_of(name), .body = held_, .headers = guards()};
  }
  if (const auto found = packed_.find(name); found != packed_.end())
    return {.type = type_of(name), .body = found->second, .packed = true, .headers = guards()};
  return refused(404, "nothing of that name");
}

}  // namespace ubbo::live
