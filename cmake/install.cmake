include(CMakePackageConfigHelpers)

set(config_dir ${CMAKE_INSTALL_LIBDIR}/cmake/Ubbo)
install(EXPORT UbboTargets NAMESPACE ubbo:: DESTINATION ${config_dir})
configure_package_config_file(cmake/UbboConfig.cmake.in ${CMAKE_CURRENT_BINARY_DIR}/UbboConfig.cmake
                              INSTALL_DESTINATION ${config_dir})
write_basic_package_version_file(${CMAKE_CURRENT_BINARY_DIR}/UbboConfigVersion.cmake COMPATIBILITY SameMinorVersion)
install(FILES ${CMAKE_CURRENT_BINARY_DIR}/UbboConfig.cmake ${CMAKE_CURRENT_BINARY_DIR}/UbboConfigVersion.cmake
        DESTINATION ${config_dir})

file(RELATIVE_PATH ubbo_up /prefix/${CMAKE_INSTALL_LIBDIR}/pkgconfig /prefix)
configure_file(cmake/ubbo.pc.in ${CMAKE_CURRENT_BINARY_DIR}/ubbo.pc @ONLY)
install(FILES ${CMAKE_CURRENT_BINARY_DIR}/ubbo.pc DESTINATION ${CMAKE_INSTALL_LIBDIR}/pkgconfig)
