#pragma once

#include <map>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "hub.hpp"
#include "ubbo/live/page.hpp"

namespace ubbo::live {

/// What of a request for a page counts.
struct Request {
  std::string_view method{};
  std::string_view target{};
  std::string_view host{};
  std::string_view origin{};
  std::string_view cookie{};
  bool upgrades = false;  ///< to a web socket
};

struct Answer {
  int status = 200;
  std::string type = "text/plain; charset=utf-8";
  std::string_view body{};  ///< good until the next request
  bool packed = false;      ///< by gzip
  std::vector<std::pair<std::string, std::string>> headers{};
  bool link = false;  ///< the web socket may be opened
};

/// Answers requests: the page's own files, the scene, and the images it names; nothing else is reachable.
/// Refused are other hosts' names, other sites' origins and, where a token is asked for, who has none.
class Requests {
 public:
  /// `origins`: what the page's address may begin with, such as "http://127.0.0.1:8123". `token`: what an
  /// address must have once; "": none.
  Requests(const Hub& hub, const Source& source, std::span<const PageFile> page,
           std::vector<std::string> origins, std::string token);

  [[nodiscard]] Answer answer(const Request& request);
  /// Another address may be given out: the token of the one before has been used.
  [[nodiscard]] const std::string& token() const { return token_; }
  [[nodiscard]] bool token_was_used() { return std::exchange(used_, false); }

 private:
  [[nodiscard]] bool knows(std::string_view cookie) const;
  Answer refused(int status, std::string_view why);

  const Hub* hub_;
  const Source* source_;
  std::map<std::string, std::string, std::less<>> packed_;  // the page's files by their names
  std::string scene_;                                       // as it was packed
  std::string scene_packed_;
  std::vector<std::string> origins_;
  std::string token_;
  bool used_ = false;
  std::vector<std::string> guests_;  // cookies of who has come by a token
  std::string held_;                 // the body of the last answer, where it is made for it
};

/// A name that nobody guesses: 128 bits from the system, in hexadecimal digits. Throws `std::runtime_error`
/// where there are none.
[[nodiscard]] std::string secret();

/// Packed by gzip (RFC 1952). Throws `std::runtime_error`.
[[nodiscard]] std::string gzip(std::string_view bytes);

}  // namespace ubbo::live
