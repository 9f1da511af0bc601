include(GNUInstallDirs)

set(CMAKE_CXX_STANDARD 20)
set(CMAKE_CXX_STANDARD_REQUIRED ON)
set(CMAKE_CXX_EXTENSIONS OFF)
set(CMAKE_EXPORT_COMPILE_COMMANDS ON)

option(UBBO_STRICT "Warnings are errors" ${PROJECT_IS_TOP_LEVEL})
option(UBBO_LIGHT "Compile several files as one, with precompiled headers" OFF)
set(UBBO_LIGHT_ONLY "" CACHE STRING "With UBBO_LIGHT: only of targets whose name matches this")
option(UBBO_SANITIZE "Address and undefined-behaviour sanitizers" OFF)

add_library(ubbo_flags INTERFACE)
if(EMSCRIPTEN)
  target_compile_options(ubbo_flags INTERFACE -include ${CMAKE_CURRENT_LIST_DIR}/charconv_for_double.hpp)
endif()
if(UBBO_STRICT)
  target_compile_options(ubbo_flags INTERFACE -Wall -Wextra -Wpedantic -Wconversion -Wshadow -Werror)
  if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
    target_compile_options(ubbo_flags INTERFACE -Wno-restrict -Wno-maybe-uninitialized)  # GCC 12 sees faults in std::string that are none
  endif()
endif()
# The same numbers on every processor: a fused multiply-add would round differently.
target_compile_options(ubbo_flags INTERFACE -ffp-contract=off)
if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
  # GCC 12 fuses a*b-c*d beside a*d+c*b even so, where it puts two sums into one register.
  target_compile_options(ubbo_flags INTERFACE -fno-tree-slp-vectorize)
endif()
# Nobody reads errno or the processor's flags after a square root; without them it is one instruction.
target_compile_options(ubbo_flags INTERFACE -fno-math-errno -fno-trapping-math)
if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
  # What the library calls of itself is what it has: without this GCC inlines none of it in position-independent code.
  target_compile_options(ubbo_flags INTERFACE -fno-semantic-interposition)
endif()
# So that an app carries only what it calls, however the files were put together.
target_compile_options(ubbo_flags INTERFACE -ffunction-sections -fdata-sections)
target_link_options(ubbo_flags INTERFACE LINKER:--gc-sections)
if(UBBO_SANITIZE)
  add_compile_options(-fsanitize=address,undefined -fno-sanitize-recover=all -fno-omit-frame-pointer)
  add_link_options(-fsanitize=address,undefined)
  if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
    add_compile_options(-Wno-maybe-uninitialized)  # with sanitizers GCC 12 warns inside the standard library
  endif()
endif()

# ubbo_light(TARGET BATCH header...): what its sources include most is read once, and so many of them are compiled as
# one. Off where nobody asks, since it hides an #include that is missing. No header of ours is among them, nor
# any other that has `#pragma once` only: GCC 12 has read one a second time.
function(ubbo_light target batch)
  if("${ARGN}" MATCHES "ubbo/|\\.hpp\"")
    message(FATAL_ERROR "ubbo_light(${target}): only headers of the system and of packages with include guards, found ${ARGN}")
  endif()
  if(NOT UBBO_LIGHT OR NOT target MATCHES "${UBBO_LIGHT_ONLY}")
    return()
  endif()
  set_target_properties(${target} PROPERTIES UNITY_BUILD ON UNITY_BUILD_BATCH_SIZE ${batch})
  target_precompile_headers(${target} PRIVATE ${ARGN})
  # What the compiler's cache needs to see through precompiled headers.
  if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
    target_compile_options(${target} PRIVATE -fpch-preprocess)
  else()
    target_compile_options(${target} PRIVATE "SHELL:-Xclang -fno-pch-timestamp")
  endif()
endfunction()

# ubbo_library(NAME source...): a static library ubbo::NAME with its headers in include/, installed and exported.
function(ubbo_library name)
  set(target ubbo_${name})
  add_library(${target} STATIC ${ARGN})
  add_library(ubbo::${name} ALIAS ${target})
  target_compile_features(${target} PUBLIC cxx_std_20)
  target_include_directories(${target} PUBLIC $<BUILD_INTERFACE:${CMAKE_CURRENT_SOURCE_DIR}/include>
                                              $<INSTALL_INTERFACE:${CMAKE_INSTALL_INCLUDEDIR}>)
  target_link_libraries(${target} PRIVATE $<BUILD_INTERFACE:ubbo_flags>)
  # Arithmetic in headers comes to the same bits in an app as in the library.
  target_compile_options(${target} INTERFACE $<$<CXX_COMPILER_ID:GNU,Clang,AppleClang>:-ffp-contract=off>)
  set_property(GLOBAL APPEND PROPERTY ubbo_libraries ${name})
  set_target_properties(${target} PROPERTIES EXPORT_NAME ${name})
  if(NOT EMSCRIPTEN)  # where all is one program, and this would only cost
    set_target_properties(${target} PROPERTIES POSITION_INDEPENDENT_CODE ON)
  endif()
  # With sanitizers the rest is compiled without optimisation, in half the time; what each test runs through is not.
  if(UBBO_SANITIZE AND name MATCHES "^(core|skin|words)$")
    target_compile_options(${target} PRIVATE -O1)
  endif()
  install(TARGETS ${target} EXPORT UbboTargets ARCHIVE DESTINATION ${CMAKE_INSTALL_LIBDIR})
  install(DIRECTORY include/ DESTINATION ${CMAKE_INSTALL_INCLUDEDIR})
endfunction()
