# Installs the build into a folder, moves that folder, and builds and runs apps against it.
set(there ${BUILD}/consumer)
file(REMOVE_RECURSE ${there})
function(must)
  execute_process(COMMAND ${ARGN} COMMAND_ERROR_IS_FATAL ANY OUTPUT_QUIET)
endfunction()
must(${CMAKE_COMMAND} --install ${BUILD} --prefix ${there}/first)
file(RENAME ${there}/first ${there}/prefix)
must(${CMAKE_COMMAND} -S ${SOURCE} -B ${there}/build -G Ninja -DCMAKE_PREFIX_PATH=${there}/prefix
     -DCMAKE_CXX_COMPILER=${CXX})
must(${CMAKE_COMMAND} --build ${there}/build)
must(${there}/build/app)
must(${there}/build/reader)

# Where nothing of what the other libraries need is to be found.
must(${CMAKE_COMMAND} -S ${SOURCE}/light -B ${there}/light -G Ninja -DCMAKE_PREFIX_PATH=${there}/prefix
     -DCMAKE_CXX_COMPILER=${CXX} -DCMAKE_DISABLE_FIND_PACKAGE_fmt=ON -DCMAKE_DISABLE_FIND_PACKAGE_tomlplusplus=ON
     -DCMAKE_DISABLE_FIND_PACKAGE_PkgConfig=ON)
must(${CMAKE_COMMAND} --build ${there}/light)
must(${there}/light/light)

file(GLOB_RECURSE package ${there}/prefix/ubbo.pc)
get_filename_component(package_dir ${package} DIRECTORY)
set(ENV{PKG_CONFIG_PATH} ${package_dir})
foreach(app IN ITEMS app light/light)
  set(libraries ubbo)
  if(app STREQUAL "light/light")
    set(libraries ubbo-words ubbo-skin)
  endif()
  execute_process(COMMAND pkg-config --cflags --libs ${libraries} OUTPUT_VARIABLE flags COMMAND_ERROR_IS_FATAL ANY
                  OUTPUT_STRIP_TRAILING_WHITESPACE)
  separate_arguments(flags)
  must(${CXX} -std=c++20 ${SOURCE}/${app}.cpp ${flags} -o ${there}/by_pkg_config)
  must(${there}/by_pkg_config)
endforeach()
foreach(library IN ITEMS file io paint show)
  must(pkg-config --exists --print-errors ubbo-${library})
endforeach()
