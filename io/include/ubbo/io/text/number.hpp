#pragma once

#include "ubbo/words/number.hpp"

namespace ubbo::io {

using words::plain;
using words::rounded;

}  // namespace ubbo::io
