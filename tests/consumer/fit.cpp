#include <ubbo/fit/bezier_fit.hpp>

namespace {

bool works() { return ubbo::fit::fit_bezier(ubbo::Curve::ease()).error == 0.0; }

}  // namespace

int main() { return works() ? 0 : 1; }
