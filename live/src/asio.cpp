// What Asio defines once for all that include it.
#include <boost/asio/impl/src.hpp>
#include <boost/asio/ssl/impl/src.hpp>
