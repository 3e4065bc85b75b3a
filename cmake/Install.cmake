# cmake --install: the libraries for find_package(JamPot), the headers, the tool.
include(CMakePackageConfigHelpers)
set(package_folder "${CMAKE_INSTALL_LIBDIR}/cmake/JamPot")

set_target_properties(jampot PROPERTIES EXPORT_NAME jampot)
set_target_properties(jampot_files PROPERTIES EXPORT_NAME files)
set_target_properties(jampot_draw PROPERTIES EXPORT_NAME draw)
install(TARGETS jampot jampot_files jampot_draw EXPORT JamPotTargets ARCHIVE DESTINATION ${CMAKE_INSTALL_LIBDIR})
install(DIRECTORY include/jampot DESTINATION ${CMAKE_INSTALL_INCLUDEDIR})
install(EXPORT JamPotTargets NAMESPACE JamPot:: DESTINATION ${package_folder})
configure_package_config_file(cmake/JamPotConfig.cmake.in JamPotConfig.cmake INSTALL_DESTINATION ${package_folder})
write_basic_package_version_file(JamPotConfigVersion.cmake COMPATIBILITY SameMinorVersion)
install(FILES "${CMAKE_CURRENT_BINARY_DIR}/JamPotConfig.cmake" "${CMAKE_CURRENT_BINARY_DIR}/JamPotConfigVersion.cmake"
        DESTINATION ${package_folder})
# For those who build without CMake. The prefix is that of the installation, known only then.
install(CODE "
  set(PROJECT_VERSION \"${PROJECT_VERSION}\")
  set(PROJECT_DESCRIPTION \"${PROJECT_DESCRIPTION}\")
  set(CMAKE_INSTALL_LIBDIR \"${CMAKE_INSTALL_LIBDIR}\")
  set(CMAKE_INSTALL_INCLUDEDIR \"${CMAKE_INSTALL_INCLUDEDIR}\")
  configure_file(\"${PROJECT_SOURCE_DIR}/cmake/jampot.pc.in\" \"${CMAKE_CURRENT_BINARY_DIR}/jampot.pc\" @ONLY)")
install(FILES "${CMAKE_CURRENT_BINARY_DIR}/jampot.pc" DESTINATION ${CMAKE_INSTALL_LIBDIR}/pkgconfig)
if(JAMPOT_BUILD_TOOL)
  install(TARGETS jampot_tool RUNTIME DESTINATION ${CMAKE_INSTALL_BINDIR})
  install(FILES "${CMAKE_BINARY_DIR}/jampot.1" DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
  install(FILES "${CMAKE_BINARY_DIR}/jampot.bash" DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions RENAME jampot)
endif()
