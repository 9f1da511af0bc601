#pragma once

#if !(defined(_MSVC_LANG) ? _MSVC_LANG >= 202002L : __cplusplus >= 202002L)
#error \
    "Ubbo needs C++20: compile with -std=c++20 or newer (in CMake: target_compile_features(app PRIVATE cxx_std_20))"
#endif
