#include <ubbo/io/take/take.hpp>

namespace {

bool works() {
  const char* take = "time_ms,contact,phase,x,y\n0,1,down,5,5\n40,1,up,5,5\n";
  return ubbo::io::parse_take(take, "here").samples.size() == 2;
}

}  // namespace

int main() { return works() ? 0 : 1; }
