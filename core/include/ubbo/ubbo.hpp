#pragma once

/// Everything an app needs from ubbo::core.
#include "ubbo/parts/pad.hpp"
#include "ubbo/parts/pane.hpp"
#include "ubbo/parts/slider.hpp"
#include "ubbo/stage/stage.hpp"
