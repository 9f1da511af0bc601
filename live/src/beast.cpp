// What Beast defines once for all that include it.
#include <boost/beast/src.hpp>
