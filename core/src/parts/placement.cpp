#include "ubbo/parts/placement.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

#include "ubbo/base/settings.hpp"

namespace ubbo {

namespace {

constexpr double max_dp = 1e6;
constexpr double max_share = 10.0;

std::string fault_along(const char* start, const char* size, const char* end,
                        const std::optional<Length>& from, const std::optional<Length>& extent,
                        const std::optional<Length>& to) {
  const int given = int{from.has_value()} + int{extent.has_value()} + int{to.has_value()};
  if (given == 3) return joined({start, ", ", size, " and ", end, " are all given; it takes two of them"});
  if (given == 0 || (given == 1 && !extent))
    return joined({"neither ", size, " nor both ", start, " and ", end, "; it takes two of the three"});
  if (extent && !(extent->dp > 0.0 || extent->fraction > 0.0))
    return joined(
        {size, " = ", plain_number(extent->dp), " is no size; it takes more than 0 dp, or a share above 0"});
  return {};
}

// Start and extent along one direction.
std::pair<double, double> lay(const std::optional<Length>& from, const std::optional<Length>& extent,
                              const std::optional<Length>& to, double origin, double room) {
  const double size = extent ? extent->in(room) : room - from->in(room)-to->in(room);
  const double start = from ? from->in(room) : extent && to ? room - to->in(room)-size : 0.0;
  // Shares of shares of shares could come to anything.
  return {std::clamp(origin + start, -max_dp, max_dp), std::clamp(size, 0.0, max_dp)};
}

}  // namespace

std::string fault_of(const Placement& placement) {
  const std::array<std::pair<const char*, const std::optional<Length>*>, 6> all{
      {{"x", &placement.x},
       {"y", &placement.y},
       {"w", &placement.w},
       {"h", &placement.h},
       {"right", &placement.right},
       {"bottom", &placement.bottom}}};
  for (const auto& [name, length] : all) {
    if (!*length) continue;
    if (!(std::fabs((*length)->dp) <= max_dp))
      return joined({name, " = ", plain_number((*length)->dp), "; it takes -1000000 to 1000000 dp"});
    if (!(std::fabs((*length)->fraction) <= max_share))
      return joined({name, " = ", plain_number((*length)->fraction),
                     " of the container; it takes shares of -10 to 10"});
  }
  std::string fault = fault_along("x", "w", "right", placement.x, placement.w, placement.right);
  if (fault.empty()) fault = fault_along("y", "h", "bottom", placement.y, placement.h, placement.bottom);
  return fault;
}

Box laid_out(const Placement& placement, const Box& container) {
  const auto [x, w] = lay(placement.x, placement.w, placement.right, container.x, container.w);
  const auto [y, h] = lay(placement.y, placement.h, placement.bottom, container.y, container.h);
  return {x, y, w, h};
}

}  // namespace ubbo
