// One connection: requests answered one after another, and then, where it is asked for, a web socket. The
// server disconnects clients that are silent for half a minute or send too much.
#include "connection.hpp"

#include <boost/asio/ssl/context.hpp>
#include <boost/beast/core.hpp>
#include <boost/beast/http.hpp>
#include <chrono>
#include <optional>
#include <utility>

#include "viewer.hpp"

namespace ubbo::live {

namespace {

namespace asio = boost::asio;
namespace beast = boost::beast;
namespace http = beast::http;
using Error = beast::error_code;

constexpr std::chrono::seconds patience{30};
constexpr std::uint32_t most_header = 16 * 1024;

std::string_view view(beast::string_view text) { return {text.data(), text.size()}; }

class Connection : public std::enable_shared_from_this<Connection> {
 public:
  Connection(Stream stream, std::shared_ptr<Shared> shared)
      : stream_(std::move(stream)), shared_(std::move(shared)) {
    ++shared_->open;
  }
  ~Connection() {
    if (!moved_) --shared_->open;
  }
  Connection(const Connection&) = delete;
  Connection& operator=(const Connection&) = delete;

  void begin() {
    stream_.next_layer().expires_after(patience);
    stream_.shake_hands(Stream::Then([self = shared_from_this()](const Error& error) {
      if (!error) self->read();
    }));
  }

 private:
  void read() {
    parser_.emplace();
    parser_->header_limit(most_header);
    parser_->body_limit(1024);  // none is asked for
    stream_.next_layer().expires_after(patience);
    http::async_read(stream_, buffer_, *parser_,
                     [self = shared_from_this()](const Error& error, std::size_t) {
                       if (!error) self->answer();
                     });
  }

  void answer() {
    const auto request = parser_->release();
    const Answer answer = shared_->requests->answer({.method = view(request.method_string()),
                                                     .target = view(request.target()),
                                                     .host = view(request[http::field::host]),
                                                     .origin = view(request[http::field::origin]),
                                                     .cookie = view(request[http::field::cookie]),
                                                     .upgrades = wants_web_socket(request)});
    if (shared_->requests->token_was_used()) shared_->token_used();
    if (answer.link) {
      moved_ = true;
      begin_viewer(std::move(stream_), shared_, request);
      return;
    }
    response_.emplace(http::int_to_status(static_cast<unsigned>(answer.status)), request.version());
    response_->set(http::field::content_type, answer.type);
    if (answer.packed) response_->set(http::field::content_encoding, "gzip");
    for (const auto& [name, value] : answer.headers) response_->set(name, value);
    response_->keep_alive(request.keep_alive());
    response_->body().assign(answer.body);
    response_->prepare_payload();
    if (request.method() == http::verb::head) response_->body().clear();
    http::async_write(stream_, *response_, [self = shared_from_this()](const Error& error, std::size_t) {
      if (error) return;
      if (self->response_->keep_alive()) {
        self->read();
        return;
      }
      Error none;
      self->stream_.next_layer().socket().shutdown(asio::ip::tcp::socket::shutdown_send, none);
    });
  }

  Stream stream_;
  std::shared_ptr<Shared> shared_;
  bool moved_ = false;  // it is a viewer's now
  beast::flat_buffer buffer_;
  std::optional<http::request_parser<http::string_body>> parser_;
  std::optional<http::response<http::string_body>> response_;
};

}  // namespace

void serve(asio::ip::tcp::socket socket, asio::ssl::context* encryption,
           const std::shared_ptr<Shared>& shared) {
  std::make_shared<Connection>(Stream(std::move(socket), encryption), shared)->begin();
}

}  // namespace ubbo::live
