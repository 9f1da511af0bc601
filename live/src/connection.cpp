// One connection: requests answered one after another, and then, where it is asked for, a web socket. Whoever
// says nothing for half a minute, says too much, or reads too slowly is let go.
#include "connection.hpp"

#include <boost/asio/bind_executor.hpp>
#include <boost/asio/ssl/stream.hpp>
#include <boost/asio/steady_timer.hpp>
#include <boost/beast/core.hpp>
#include <boost/beast/http.hpp>
#include <boost/beast/ssl.hpp>
#include <boost/beast/websocket.hpp>
#include <boost/beast/websocket/ssl.hpp>
#include <chrono>
#include <deque>
#include <optional>
#include <utility>

namespace ubbo::live {

namespace {

namespace asio = boost::asio;
namespace beast = boost::beast;
namespace http = beast::http;
namespace websocket = beast::websocket;
using Error = beast::error_code;
using Plain = beast::tcp_stream;
using Encrypted = beast::ssl_stream<beast::tcp_stream>;

constexpr std::chrono::seconds patience{30};
constexpr std::uint32_t most_header = 16 * 1024;

std::string_view view(beast::string_view text) { return {text.data(), text.size()}; }

template <class Stream>
class Viewer : public std::enable_shared_from_this<Viewer<Stream>> {
 public:
  Viewer(Stream stream, std::shared_ptr<Shared> shared)
      : socket_(std::move(stream)), shared_(std::move(shared)), number_(shared_->next_viewer()) {}
  ~Viewer() {
    if (joined_) shared_->left(number_);
    --shared_->open;
  }
  Viewer(const Viewer&) = delete;
  Viewer& operator=(const Viewer&) = delete;

  void begin(const http::request<http::string_body>& request) {
    beast::get_lowest_layer(socket_).expires_never();
    auto timeout = websocket::stream_base::timeout::suggested(beast::role_type::server);
    timeout.idle_timeout = patience;
    timeout.keep_alive_pings = true;  // a phone that sleeps is let go
    socket_.set_option(timeout);
    socket_.read_message_max(Hub::largest_message);
    socket_.async_accept(request, [self = this->shared_from_this()](const Error& error) {
      if (error) return;
      self->joined_ = true;
      const std::weak_ptr<Viewer> weak = self;
      self->shared_->joined(
          self->number_,
          [weak](const Hub::Text& text) {
            if (auto viewer = weak.lock()) viewer->send(text);
          },
          [weak] {
            if (auto viewer = weak.lock()) viewer->close();
          });
      self->read();
    });
  }

 private:
  void read() {
    socket_.async_read(buffer_, [self = this->shared_from_this()](const Error& error, std::size_t) {
      if (error) return;
      if (!self->within_rate()) {
        self->shared_->log("a viewer sent too many messages and was let go");
        self->close();
        return;
      }
      const auto data = self->buffer_.cdata();
      const std::string text(static_cast<const char*>(data.data()), data.size());
      self->buffer_.consume(self->buffer_.size());
      if (self->socket_.got_text())
        self->shared_->hub->hear(self->number_, text);
      else
        self->send(
            std::make_shared<const std::string>(R"({"what":"refused","why":"found bytes; takes text"})"));
      self->read();
    });
  }

  bool within_rate() {
    const auto now = std::chrono::steady_clock::now();
    if (now - second_ >= std::chrono::seconds(1)) {
      second_ = now;
      heard_ = 0;
    }
    return ++heard_ <= shared_->settings->messages_a_second;
  }

  void send(const Hub::Text& text) {
    if (closing_) return;
    waiting_bytes_ += text->size();
    if (waiting_bytes_ > shared_->settings->most_waiting) {
      shared_->log("a viewer reads too slowly and was let go");
      close();
      return;
    }
    waiting_.push_back(text);
    if (waiting_.size() == 1) write();
  }

  void write() {
    socket_.text(true);
    socket_.async_write(asio::buffer(*waiting_.front()),
                        [self = this->shared_from_this()](const Error& error, std::size_t) {
                          if (error || self->waiting_.empty()) return;
                          self->waiting_bytes_ -= self->waiting_.front()->size();
                          self->waiting_.pop_front();
                          if (!self->waiting_.empty() && !self->closing_) self->write();
                        });
  }

  void close() {
    closing_ = true;
    beast::get_lowest_layer(socket_).cancel();
    Error none;
    beast::get_lowest_layer(socket_).socket().close(none);
  }

  websocket::stream<Stream> socket_;
  std::shared_ptr<Shared> shared_;
  int number_;
  bool joined_ = false;
  bool closing_ = false;
  beast::flat_buffer buffer_;
  std::deque<Hub::Text> waiting_;
  std::size_t waiting_bytes_ = 0;
  std::chrono::steady_clock::time_point second_{};
  int heard_ = 0;
};

template <class Stream>
class Connection : public std::enable_shared_from_this<Connection<Stream>> {
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
    beast::get_lowest_layer(stream_).expires_after(patience);
    if constexpr (std::is_same_v<Stream, Encrypted>) {
      stream_.async_handshake(asio::ssl::stream_base::server,
                              [self = this->shared_from_this()](const Error& error) {
                                if (!error) self->read();
                              });
    } else {
      read();
    }
  }

 private:
  void read() {
    parser_.emplace();
    parser_->header_limit(most_header);
    parser_->body_limit(1024);  // none is asked for
    beast::get_lowest_layer(stream_).expires_after(patience);
    http::async_read(stream_, buffer_, *parser_,
                     [self = this->shared_from_this()](const Error& error, std::size_t) {
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
                                                     .upgrades = websocket::is_upgrade(request)});
    if (shared_->requests->token_was_used()) shared_->token_used();
    if (answer.link) {
      moved_ = true;
      std::make_shared<Viewer<Stream>>(std::move(stream_), shared_)->begin(request);
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
    http::async_write(stream_, *response_,
                      [self = this->shared_from_this()](const Error& error, std::size_t) {
                        if (error) return;
                        if (self->response_->keep_alive()) {
                          self->read();
                          return;
                        }
                        Error none;
                        beast::get_lowest_layer(self->stream_)
                            .socket()
                            .shutdown(asio::ip::tcp::socket::shutdown_send, none);
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
  if (encryption != nullptr)
    std::make_shared<Connection<Encrypted>>(Encrypted(Plain(std::move(socket)), *encryption), shared)
        ->begin();
  else
    std::make_shared<Connection<Plain>>(Plain(std::move(socket)), shared)->begin();
}

}  // namespace ubbo::live
