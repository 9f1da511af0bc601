#include "ubbo/io/expectation.hpp"

#include <fmt/format.h>

#include <cmath>
#include <cstdlib>
#include <sstream>

namespace ubbo::io {

std::vector<std::string> unmet_expectations(SceneRun& run, const Take& take) {
  std::vector<std::string> unmet;
  std::istringstream list(take.note("expectation"));
  for (std::string entry; std::getline(list, entry, ',');) {
    std::istringstream words(entry);
    std::string name;
    std::string equals;
    double wanted = 0.0;
    const Cell<double>* cell = nullptr;
    if (!(words >> name >> equals >> wanted) || equals != "=")
      unmet.push_back(fmt::format("'{}' does not read; takes CELL = NUMBER", entry));
    else if ((cell = run.cell(name)) == nullptr)
      unmet.push_back(fmt::format("the scene has no cell '{}'", name));
    else if (!(std::fabs(cell->get() - wanted) <= 1e-9))
      unmet.push_back(fmt::format("{} is {:.6g}, not {:.6g}", name, cell->get(), wanted));
  }
  return unmet;
}

}  // namespace ubbo::io
