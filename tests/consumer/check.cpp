#include <ubbo/check/check.hpp>

namespace {

bool works() { return ubbo::check::check_text("title = \"an empty yard\"", "here").empty(); }

}  // namespace

int main() { return works() ? 0 : 1; }
