#pragma once

#include <cstddef>

/// How many times this thread has asked for memory so far.
std::size_t allocations();
