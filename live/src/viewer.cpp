// A web socket. The server disconnects clients that read slowly or send too much.
#include "viewer.hpp"

#include <boost/beast/core.hpp>
#include <boost/beast/websocket.hpp>
#include <chrono>
#include <deque>
#include <utility>

namespace ubbo::live {

namespace {

namespace asio = boost::asio;
namespace beast = boost::beast;
namespace http = beast::http;
namespace websocket = beast::websocket;
using Error = beast::error_code;

constexpr std::chrono::seconds patience{30};

class Viewer : public std::enable_shared_from_this<Viewer> {
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
    socket_.next_layer().next_layer().expires_never();
    auto timeout = websocket::stream_base::timeout::suggested(beast::role_type::server);
    timeout.idle_timeout = patience;
    timeout.keep_alive_pings = true;  // a phone that sleeps is let go
    socket_.set_option(timeout);
    socket_.read_message_max(Hub::largest_message);
    socket_.async_accept(request, [self = shared_from_this()](const Error& error) {
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
    socket_.async_read(buffer_, [self = shared_from_this()](const Error& error, std::size_t) {
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
                        [self = shared_from_this()](const Error& error, std::size_t) {
                          if (error || self->waiting_.empty()) return;
                          self->waiting_bytes_ -= self->waiting_.front()->size();
                          self->waiting_.pop_front();
                          if (!self->waiting_.empty() && !self->closing_) self->write();
                        });
  }

  void close() {
    closing_ = true;
    socket_.next_layer().next_layer().cancel();
    Error none;
    socket_.next_layer().next_layer().socket().close(none);
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

}  // namespace

bool wants_web_socket(const http::request<http::string_body>& request) {
  return websocket::is_upgrade(request);
}

void begin_viewer(Stream stream, const std::shared_ptr<Shared>& shared,
                  const http::request<http::string_body>& request) {
  std::make_shared<Viewer>(std::move(stream), shared)->begin(request);
}

}  // namespace ubbo::live
