#include "ubbo/tool/run.hpp"
#ifdef UBBO_WITH_FIT
#include "ubbo/fit/bezier_fit.hpp"
#endif
#ifdef UBBO_WITH_LIVE
#include "ubbo/tool/live.hpp"
#endif

int main(int argc, char** argv) {
  ubbo::tool::Extras extras;
#ifdef UBBO_WITH_FIT
  extras.fit = ubbo::fit::fit_bezier;
#endif
#ifdef UBBO_WITH_LIVE
  extras.add_live = ubbo::tool::add_live;
#endif
  return ubbo::tool::run(argc, argv, ubbo::shipped_kinds(), {}, extras);
}
