#include "stream.hpp"

#include <boost/beast/ssl.hpp>
#include <boost/beast/websocket/ssl.hpp>
#include <variant>

namespace ubbo::live {

namespace asio = boost::asio;
namespace beast = boost::beast;

struct Stream::Inside {
  using Encrypted = beast::ssl_stream<Tcp>;
  std::variant<Tcp, Encrypted> of;
};

Stream::Stream(asio::ip::tcp::socket socket, asio::ssl::context* encryption)
    : inside_(encryption == nullptr ? new Inside{Tcp(std::move(socket))}
                                    : new Inside{Inside::Encrypted(Tcp(std::move(socket)), *encryption)}) {}
Stream::Stream(Stream&&) noexcept = default;
Stream& Stream::operator=(Stream&&) noexcept = default;
Stream::~Stream() = default;

Stream::Tcp& Stream::next_layer() {
  if (auto* encrypted = std::get_if<Inside::Encrypted>(&inside_->of)) return encrypted->next_layer();
  return std::get<Tcp>(inside_->of);
}
const Stream::Tcp& Stream::next_layer() const {
  return const_cast<Stream*>(this)->next_layer();  // NOLINT: nothing is changed
}

void Stream::read(const Few<asio::mutable_buffer>& into, Then then) {
  std::visit([&](auto& stream) { stream.async_read_some(into, std::move(then)); }, inside_->of);
}
void Stream::write(const Few<asio::const_buffer>& from, Then then) {
  std::visit([&](auto& stream) { stream.async_write_some(from, std::move(then)); }, inside_->of);
}
void Stream::shake_hands(Then then) {
  if (auto* encrypted = std::get_if<Inside::Encrypted>(&inside_->of))
    encrypted->async_handshake(asio::ssl::stream_base::server,
                               [then = std::move(then)](const Error& error) mutable { then(error); });
  else
    then(Error{});
}
void Stream::end(beast::role_type role, Then then) {
  auto done = [then = std::move(then)](const Error& error) mutable { then(error); };
  if (auto* encrypted = std::get_if<Inside::Encrypted>(&inside_->of))
    beast::async_teardown(role, *encrypted, std::move(done));
  else
    beast::websocket::async_teardown(role, std::get<Tcp>(inside_->of).socket(), std::move(done));
}

}  // namespace ubbo::live
