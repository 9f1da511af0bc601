# Installs the build into a folder, moves that folder, and builds an app against each library there: compiled with what
# pkg-config says, linked once by that and once by CMake, where nothing is to be found of what only others need.
set(there ${BUILD}/consumer)
file(REMOVE_RECURSE ${there})
function(must)
  execute_process(COMMAND ${ARGN} COMMAND_ERROR_IS_FATAL ANY OUTPUT_QUIET)
endfunction()
must(${CMAKE_COMMAND} --install ${BUILD} --prefix ${there}/first)
file(RENAME ${there}/first ${there}/prefix)
file(GLOB_RECURSE package ${there}/prefix/ubbo.pc)
get_filename_component(package_dir ${package} DIRECTORY)
set(ENV{PKG_CONFIG_PATH} ${package_dir})

file(GLOB apps ${SOURCE}/*.cpp)
foreach(app IN LISTS apps)
  get_filename_component(component ${app} NAME_WE)
  set(library ubbo-${component})
  set(without CLI11 nlohmann_json)
  if(component STREQUAL "core")
    set(library ubbo)
  endif()
  if(component MATCHES "^(core|words|skin|text|file)$")
    list(APPEND without fmt)
  endif()
  if(component MATCHES "^(core|words|skin|text|file|motion|take|fit)$")
    list(APPEND without tomlplusplus)
  endif()
  if(NOT component MATCHES "^(fit|paint|tool)$")
    list(APPEND without PkgConfig)
  endif()
  string(REPLACE ";" "+" without "${without}")
  foreach(what IN ITEMS cflags libs)
    execute_process(COMMAND pkg-config --${what} ${library} OUTPUT_VARIABLE ${what} COMMAND_ERROR_IS_FATAL ANY
                    OUTPUT_STRIP_TRAILING_WHITESPACE)
    separate_arguments(${what})
  endforeach()
  must(${CXX} -std=c++20 ${cflags} -c ${app} -o ${there}/${component}.o)
  must(${CXX} ${there}/${component}.o ${libs} -o ${there}/by_pkg_config)
  must(${there}/by_pkg_config)
  must(${CMAKE_COMMAND} -S ${SOURCE} -B ${there}/${component} -G Ninja -DCMAKE_PREFIX_PATH=${there}/prefix
       -DCMAKE_CXX_COMPILER=${CXX} -DCOMPONENT=${component} -DWITHOUT=${without} -DOBJECT=${there}/${component}.o)
  must(${CMAKE_COMMAND} --build ${there}/${component})
  must(${there}/${component}/app)
endforeach()

# An app's own kind of part, tried by the suite.
must(${CMAKE_COMMAND} -S ${SOURCE}/suite -B ${there}/suite -G Ninja -DCMAKE_PREFIX_PATH=${there}/prefix
     -DCMAKE_CXX_COMPILER=${CXX} -DEXAMPLES=${SOURCE}/../../examples)
must(${CMAKE_COMMAND} --build ${there}/suite)
set(ENV{RC_PARAMS} "seed=2026 max_success=20")
must(${there}/suite/own_kind -w NoTests "the suite has*")
must(${there}/suite/own_kind -w NoTests "a part of any kind*,whatever happens*")

# An app that CMake compiles too, and wants no component in particular.
must(${CMAKE_COMMAND} -S ${SOURCE} -B ${there}/compiled -G Ninja -DCMAKE_PREFIX_PATH=${there}/prefix
     -DCMAKE_CXX_COMPILER=${CXX} -DCOMPONENT=replay -DSOURCE=${SOURCE}/replay.cpp)
must(${CMAKE_COMMAND} --build ${there}/compiled)
must(${there}/compiled/app)
