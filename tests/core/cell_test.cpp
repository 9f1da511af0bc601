#include <optional>
#include <type_traits>
#include <vector>

#include "check.hpp"

using namespace ubbo;

// A part cannot be handed a private copy: it does not compile.
static_assert(std::is_convertible_v<Cell<double>&, Link<double>>);
static_assert(!std::is_constructible_v<Link<double>, double>);
static_assert(!std::is_constructible_v<Link<double>, const Cell<double>&>);
static_assert(!std::is_constructible_v<Link<double>, Cell<double>>);
static_assert(!std::is_copy_constructible_v<Cell<double>> && !std::is_move_constructible_v<Cell<double>>);

TEST_CASE("a change reaches every reader, once, and equal values tell nobody") {
  PROPERTY("writes through either side", [](const std::vector<std::pair<bool, int>>& writes) {
    Cell<int> cell{0};
    const Link<int> link{cell};
    std::vector<int> heard;
    std::vector<int> also_heard;
    const Watch one = cell.watch([&](int v) { heard.push_back(v); });
    const Watch two = link.watch([&](int v) { also_heard.push_back(v); });
    std::vector<int> expected;
    int now = 0;
    for (const auto& [by_link, value] : writes) {
      if (by_link)
        link.set(value);
      else
        cell.set(value);
      if (value != now) expected.push_back(now = value);
      RC_ASSERT(link.get() == value);
    }
    RC_ASSERT(heard == expected);
    RC_ASSERT(also_heard == expected);
  });
}

TEST_CASE("watchers may set the cell, and ones that never agree cannot hang it") {
  Cell<double> cell{0};
  std::vector<double> heard;
  const Watch keeps_below_five = cell.watch([&](double v) { cell.set(std::min(v, 5.0)); });
  const Watch hears = cell.watch([&](double v) { heard.push_back(v); });
  cell.set(9);
  CHECK(cell.get() == 5.0);
  CHECK(heard.back() == 5.0);
  CHECK(cell.cut_short() == 0);

  const Watch never_content = cell.watch([&](double v) { cell.set(v - 1.0); });
  cell.set(4);
  CHECK(cell.cut_short() == 1);
  cell.set(std::nan(""));
  CHECK(cell.cut_short() == 1);  // NaN - 1 is as good as NaN
}

TEST_CASE("watches and links outlive their cell and leave by themselves, even while being told") {
  std::optional<Cell<int>> cell(std::in_place, 1);
  const Link<int> link{*cell};
  int told = 0;
  Watch leaves;
  Watch after;
  leaves = cell->watch([&](int) {
    ++told;
    leaves.stop();
    after.stop();
  });
  after = cell->watch([&](int) { told += 100; });
  const Watch last = cell->watch([&](int) { told += 10; });
  cell->set(2);
  cell->set(3);
  CHECK(told == 1 + 10 + 10);

  std::optional<Watch> newcomer;
  const Watch brings = cell->watch([&](int) { newcomer = cell->watch([&](int) { told = -1; }); });
  cell->set(4);
  CHECK(told == 31);  // the newcomer hears of later changes only
  cell.reset();
  CHECK_FALSE(link.linked());
  link.set(5);
}
