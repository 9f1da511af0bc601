#include <optional>
#include <stdexcept>
#include <type_traits>
#include <vector>

#include "ubbo/testing/check.hpp"

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

TEST_CASE("a watcher that throws leaves the cell sound: the others are told, and the exception passes on") {
  Cell<int> cell{0};
  int before = 0, after = 0;
  const Watch one = cell.watch([&](int v) { before = v; });
  Watch throws = cell.watch([](int) { throw std::runtime_error("stung"); });
  const Watch two = cell.watch([&](int v) { after = v; });
  CHECK_THROWS_WITH(cell.set(1), "stung");
  CHECK((before == 1 && after == 1));
  throws.stop();
  cell.set(2);
  CHECK((before == 2 && after == 2));
}

TEST_CASE("several changes are seen at once, and what is worked out from them is worked out once") {
  Cell<double> from{2}, to{8};
  int computed = 0;
  Derived<double> width([&](double a, double b) { return ++computed, b - a; }, from, to);
  Derived<bool> wide([](double w) { return w > 5; }, width);
  std::vector<double> seen;
  const Watch watch = width.watch([&](double w) { seen.push_back(w); });
  const Watch both = from.watch([&](double) { CHECK(to.get() - from.get() == 6); });
  computed = 0;
  batch([&] {
    from.set(4);
    batch([&] { to.set(10); });
    CHECK(width.get() == 6);
  });
  CHECK(seen.empty());  // the same width
  CHECK(computed <= 2);
  batch([&] {
    from.set(0);
    to.set(6);
    from.set(0);
  });
  CHECK(seen.empty());
  to.set(4);
  CHECK(seen == std::vector<double>{4});
  CHECK_FALSE(wide.get());
  CHECK_THROWS_WITH(batch([&] {
                      to.set(20);
                      throw std::runtime_error("half-way");
                    }),
                    "half-way");
  CHECK(seen.back() == 20);  // what was changed is told all the same
  const Choice page({"Notes", "Treatment", "Harvest"}, 7);
  CHECK(page.name() == "Harvest");
  CHECK(page.with("Notes").index() == 0);
  CHECK(page.with("Nots") == page);
}
