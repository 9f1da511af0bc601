#pragma once

#include <array>
#include <boost/asio/buffer.hpp>
#include <boost/asio/ssl/context.hpp>
#include <boost/beast/core/tcp_stream.hpp>
#include <boost/beast/websocket/teardown.hpp>
#include <cstddef>
#include <memory>
#include <utility>

namespace ubbo::live {

/// A connection's bytes, plain or encrypted. HTTP and web sockets are templates over their stream; with this
/// class the compiler makes them once and not for TLS again.
class Stream {
 public:
  using Tcp = boost::beast::tcp_stream;
  using Error = boost::beast::error_code;
  using executor_type = Tcp::executor_type;
  using next_layer_type = Tcp;

  /// Encrypted where there is a context for it.
  Stream(boost::asio::ip::tcp::socket socket, boost::asio::ssl::context* encryption);
  Stream(Stream&&) noexcept;
  Stream& operator=(Stream&&) noexcept;
  ~Stream();

  [[nodiscard]] Tcp& next_layer();
  [[nodiscard]] const Tcp& next_layer() const;
  [[nodiscard]] executor_type get_executor() { return next_layer().get_executor(); }

  /// What happens when reading or writing is done; called once.
  class Then {
   public:
    template <class Handler>
    explicit Then(Handler&& handler)
        : call_(std::make_unique<Of<std::decay_t<Handler>>>(std::forward<Handler>(handler))) {}
    void operator()(const Error& error, std::size_t bytes = 0) {
      const auto call = std::move(call_);
      call->run(error, bytes);
    }

   private:
    struct Call {
      virtual ~Call() = default;
      virtual void run(const Error& error, std::size_t bytes) = 0;
    };
    template <class Handler>
    struct Of final : Call {
      explicit Of(Handler given) : handler(std::move(given)) {}
      void run(const Error& error, std::size_t bytes) override {
        Handler now(std::move(handler));
        if constexpr (std::is_invocable_v<Handler&, const Error&, std::size_t>)
          now(error, bytes);
        else
          now(error);
      }
      Handler handler;
    };
    std::unique_ptr<Call> call_;
  };

  /// The first few buffers of any sequence: `some` may be less than all.
  template <class Buffer>
  class Few {
   public:
    using value_type = Buffer;
    using const_iterator = const Buffer*;
    template <class Sequence>
    explicit Few(const Sequence& all) {
      for (auto at = boost::asio::buffer_sequence_begin(all);
           at != boost::asio::buffer_sequence_end(all) && count_ < few_.size(); ++at)
        if (const Buffer one = *at; one.size() > 0) few_[count_++] = one;
    }
    [[nodiscard]] const Buffer* begin() const { return few_.data(); }
    [[nodiscard]] const Buffer* end() const { return few_.data() + count_; }

   private:
    std::array<Buffer, 8> few_{};
    std::size_t count_ = 0;
  };

  template <class Buffers, class Handler>
  auto async_read_some(const Buffers& buffers, Handler&& handler) {
    return boost::asio::async_initiate<Handler, void(Error, std::size_t)>(
        [this](auto&& then, const Buffers& into) {
          read(Few<boost::asio::mutable_buffer>(into), Then(std::forward<decltype(then)>(then)));
        },
        handler, buffers);
  }
  template <class Buffers, class Handler>
  auto async_write_some(const Buffers& buffers, Handler&& handler) {
    return boost::asio::async_initiate<Handler, void(Error, std::size_t)>(
        [this](auto&& then, const Buffers& from) {
          write(Few<boost::asio::const_buffer>(from), Then(std::forward<decltype(then)>(then)));
        },
        handler, buffers);
  }
  /// At once where nothing is encrypted.
  void shake_hands(Then then);
  /// Ends both directions in good order.
  void end(boost::beast::role_type role, Then then);

 private:
  struct Inside;

  void read(const Few<boost::asio::mutable_buffer>& into, Then then);
  void write(const Few<boost::asio::const_buffer>& from, Then then);

  std::unique_ptr<Inside> inside_;
};

/// For web sockets.
template <class Handler>
void async_teardown(boost::beast::role_type role, Stream& stream, Handler&& handler) {
  stream.end(role, Stream::Then(std::forward<Handler>(handler)));
}

}  // namespace ubbo::live
