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
    target_compile_options(ubbo_flags INTERFACE -Wno-restrict -Wno-maybe-uninitialized -Wno-stringop-overread)  # GCC 12 sees faults in std::string that are none
  else()
    target_compile_options(ubbo_flags INTERFACE -Wno-bitwise-instead-of-logical -Wno-sign-conversion)  # a branch would cost more; as GCC warns
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

# What most sources include is read once for all targets that are compiled alike: by core, skin and words; by the
# other libraries, which also format text; by the tests. No header of ours is among them, nor any other with
# `#pragma once` only: GCC 12 has read one a second time.
function(ubbo_read_once name)
  file(WRITE ${CMAKE_BINARY_DIR}/read_once/${name}.cpp.new "")
  file(COPY_FILE ${CMAKE_BINARY_DIR}/read_once/${name}.cpp.new ${CMAKE_BINARY_DIR}/read_once/${name}.cpp ONLY_IF_DIFFERENT)
  add_library(ubbo_read_once_${name} OBJECT ${CMAKE_BINARY_DIR}/read_once/${name}.cpp)
  target_link_libraries(ubbo_read_once_${name} PRIVATE ubbo_flags)
  target_precompile_headers(ubbo_read_once_${name} PRIVATE ${ARGN})
  ubbo_precompiled(ubbo_read_once_${name})
  ubbo_optimised(ubbo_read_once_${name} ${name})
endfunction()

# With sanitizers, what each test runs through is optimised; the rest takes half the time to compile without.
function(ubbo_optimised target read_once)
  if(UBBO_SANITIZE AND read_once STREQUAL "core")
    target_compile_options(${target} PRIVATE -O1)
  endif()
endfunction()

# What the compiler's cache needs to see through precompiled headers.
function(ubbo_precompiled target)
  if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
    target_compile_options(${target} PRIVATE -fpch-preprocess)
  else()
    target_compile_options(${target} PRIVATE "SHELL:-Xclang -fno-pch-timestamp")
  endif()
endfunction()

# ubbo_light(TARGET core|text|tests|nothing BYTES [file...]): compiles the sources of TARGET in groups of some BYTES, all of even size,
# and the named files in a group of their own. Off where nobody asks, since it hides an #include that is missing.
function(ubbo_light target read_once bytes)
  if(NOT UBBO_LIGHT OR NOT target MATCHES "${UBBO_LIGHT_ONLY}")
    return()
  endif()
  set_target_properties(${target} PROPERTIES UNITY_BUILD ON UNITY_BUILD_MODE GROUP)
  get_target_property(sources ${target} SOURCES)
  get_target_property(folder ${target} SOURCE_DIR)
  list(FILTER sources INCLUDE REGEX "\\.cpp$")
  list(FILTER sources EXCLUDE REGEX "TARGET_OBJECTS")
  list(SORT sources)
  set(all 0)
  foreach(source IN LISTS sources)
    cmake_path(ABSOLUTE_PATH source BASE_DIRECTORY ${folder} OUTPUT_VARIABLE path)
    get_filename_component(name ${source} NAME)
    if(name IN_LIST ARGN)
      set_source_files_properties(${path} TARGET_DIRECTORY ${target} PROPERTIES UNITY_GROUP together)
      continue()
    endif()
    file(SIZE ${path} size)
    set_property(GLOBAL PROPERTY size_of_${path} ${size})
    math(EXPR all "${all} + ${size}")
    list(APPEND paths ${path})
  endforeach()
  math(EXPR groups "(${all} + ${bytes} - 1) / ${bytes}")
  set(before 0)
  foreach(path IN LISTS paths)
    get_property(size GLOBAL PROPERTY size_of_${path})
    # The group in which its middle is.
    math(EXPR group "(${before} + ${size} / 2) * ${groups} / ${all}")
    set_source_files_properties(${path} TARGET_DIRECTORY ${target} PROPERTIES UNITY_GROUP ${group})
    math(EXPR before "${before} + ${size}")
  endforeach()
  ubbo_precompiled(${target})
  ubbo_optimised(${target} ${read_once})
  if(NOT read_once STREQUAL "nothing")
    target_precompile_headers(${target} REUSE_FROM ubbo_read_once_${read_once})
  endif()
endfunction()

function(ubbo_compiled_as_library target)
  if(NOT EMSCRIPTEN)  # where all is one program, and this would only cost
    set_target_properties(${target} PROPERTIES POSITION_INDEPENDENT_CODE ON)
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
  ubbo_compiled_as_library(${target})
  install(TARGETS ${target} EXPORT UbboTargets ARCHIVE DESTINATION ${CMAKE_INSTALL_LIBDIR})
  install(DIRECTORY include/ DESTINATION ${CMAKE_INSTALL_INCLUDEDIR})
endfunction()
