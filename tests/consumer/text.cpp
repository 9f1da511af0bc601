#include <ubbo/io/text/number.hpp>

namespace {

bool works() {
  const auto size = ubbo::io::size_of("360x720");
  return size && size->h == 720;
}

}  // namespace

int main() { return works() ? 0 : 1; }
