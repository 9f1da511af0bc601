#include <exception>
#include <ubbo/file/read.hpp>

namespace {

bool works() {
  try {
    return ubbo::file::read("no/such/yard.toml").empty();
  } catch (const std::exception&) {
    return true;
  }
}

}  // namespace

int main() { return works() ? 0 : 1; }
