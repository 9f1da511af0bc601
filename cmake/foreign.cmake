# For another platform than this machine: libraries that are headers only come from this machine's own packages, the
# cross compiler's system folder has none.
set(there ${CMAKE_BINARY_DIR}/headers)
file(MAKE_DIRECTORY ${there})
foreach(folder IN ITEMS fmt toml++ nlohmann)
  file(CREATE_LINK /usr/include/${folder} ${there}/${folder} SYMBOLIC)
endforeach()
foreach(library IN ITEMS fmt::fmt nlohmann_json::nlohmann_json tomlplusplus::tomlplusplus)
  add_library(${library} INTERFACE IMPORTED GLOBAL)
  target_include_directories(${library} SYSTEM INTERFACE ${there})
endforeach()
# Without locales and what nobody calls, which a page would carry.
target_compile_definitions(fmt::fmt INTERFACE FMT_HEADER_ONLY FMT_STATIC_THOUSANDS_SEPARATOR=0
                           FMT_USE_INT128=0 FMT_USE_LONG_DOUBLE=0 FMT_USE_FLOAT=0)
target_compile_definitions(tomlplusplus::tomlplusplus INTERFACE TOML_ENABLE_FORMATTERS=0 TOML_FLOAT_CHARCONV=1
                           TOML_INT_CHARCONV=1)

# WebAssembly by Debian's emscripten: the standalone kind, which needs no script of emscripten's beside it.
if(EMSCRIPTEN)
  set(CMAKE_EXECUTABLE_SUFFIX ".wasm")
  # Without run-time types, which nothing here asks for and a page would carry by name.
  add_compile_options(-fwasm-exceptions $<$<COMPILE_LANGUAGE:CXX>:-fno-rtti>)
  add_link_options(-fwasm-exceptions -sSTANDALONE_WASM -sALLOW_MEMORY_GROWTH)
endif()
