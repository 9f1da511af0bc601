#include <ubbo/tool/run.hpp>

namespace {

bool works() {
  char name[] = "ubbo";
  char version[] = "--version";
  char* words[] = {name, version, nullptr};
  return ubbo::tool::run(2, words) == 0;
}

}  // namespace

int main() { return works() ? 0 : 1; }
