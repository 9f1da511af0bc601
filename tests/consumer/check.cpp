#include <ubbo/io/check/check.hpp>

namespace {

bool works() { return ubbo::io::check_text("title = \"an empty yard\"", "here").empty(); }

}  // namespace

int main() { return works() ? 0 : 1; }
