#pragma once

/// Everything an app needs from ubbo::core.
#include "ubbo/base/language.hpp"
#include "ubbo/motion/bank.hpp"
#include "ubbo/motion/fewest_stops.hpp"
#include "ubbo/motion/figures.hpp"
#include "ubbo/motion/follower.hpp"
#include "ubbo/motion/layer.hpp"
#include "ubbo/motion/movers.hpp"
#include "ubbo/motion/progress.hpp"
#include "ubbo/motion/timeline.hpp"
#include "ubbo/parts/kinds.hpp"
#include "ubbo/stage/stage.hpp"
