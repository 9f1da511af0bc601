#include "ubbo/io/replay/expectation.hpp"

#include <fmt/format.h>

#include <sstream>

namespace ubbo::io {

std::vector<std::string> unmet_expectations(SceneRun& run, const Take& take) {
  std::vector<std::string> unmet;
  std::istringstream list(take.note("expectation"));
  for (std::string entry; std::getline(list, entry, ',');) {
    std::istringstream words(entry);
    std::string name;
    std::string equals;
    std::string wanted;
    if (!(words >> name >> equals) || equals != "=" || !std::getline(words >> std::ws, wanted)) {
      unmet.push_back(fmt::format("'{}' does not read; takes CELL = VALUE", entry));
      continue;
    }
    wanted.erase(wanted.find_last_not_of(" \t") + 1);
    const SceneRun::Named* cell = run.find_cell(name);
    if (cell == nullptr) {
      unmet.push_back(fmt::format("the scene has no cell '{}'", name));
      continue;
    }
    const CellValue held = cell->value();
    const auto value = read_value(wanted, held);
    if (!value)
      unmet.push_back(fmt::format("{} = {} does not read; takes {}", name, wanted, what_value_takes(held)));
    else if (!same_value(held, *value))
      unmet.push_back(fmt::format("{} is {}, not {}", name, shown(held), shown(*value)));
  }
  return unmet;
}

}  // namespace ubbo::io
