#pragma once

#include <boost/beast/http/message.hpp>
#include <boost/beast/http/string_body.hpp>
#include <memory>

#include "connection.hpp"
#include "stream.hpp"

namespace ubbo::live {

/// Whether a request asks for a web socket.
[[nodiscard]] bool wants_web_socket(
    const boost::beast::http::request<boost::beast::http::string_body>& request);

/// Answers that request, and keeps the web socket until it ends.
void begin_viewer(Stream stream, const std::shared_ptr<Shared>& shared,
                  const boost::beast::http::request<boost::beast::http::string_body>& request);

}  // namespace ubbo::live
