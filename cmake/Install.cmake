# cmake --install: the libraries for find_package(JamPot COMPONENTS ...), the headers, the tool.
include(CMakePackageConfigHelpers)
set(package_folder "${CMAKE_INSTALL_LIBDIR}/cmake/JamPot")

# Each component has its own list of targets, so that one needs nothing that only another uses.
set(components core jampot files draw report)
set(jampot_of_core jampot_core)
set(jampot_of_jampot jampot)
foreach(component files draw report)
  set(jampot_of_${component} jampot_${component})
endforeach()
foreach(component ${components})
  set(library ${jampot_of_${component}})
  set_target_properties(${library} PROPERTIES EXPORT_NAME ${component})
  install(TARGETS ${library} EXPORT JamPot-${component} ARCHIVE DESTINATION ${CMAKE_INSTALL_LIBDIR}
          LIBRARY DESTINATION ${CMAKE_INSTALL_LIBDIR})
  install(EXPORT JamPot-${component} NAMESPACE JamPot:: DESTINATION ${package_folder})
endforeach()
install(DIRECTORY include/jampot "${PROJECT_BINARY_DIR}/include/jampot" DESTINATION ${CMAKE_INSTALL_INCLUDEDIR})
configure_package_config_file(cmake/JamPotConfig.cmake.in JamPotConfig.cmake INSTALL_DESTINATION ${package_folder})
write_basic_package_version_file(JamPotConfigVersion.cmake COMPATIBILITY SameMinorVersion)
install(FILES "${CMAKE_CURRENT_BINARY_DIR}/JamPotConfig.cmake" "${CMAKE_CURRENT_BINARY_DIR}/JamPotConfigVersion.cmake"
        DESTINATION ${package_folder})

# For those who build without CMake: one description for each component. The standard is the caller's choice.
function(jampot_pkg_config name about libraries requires)
  set(PC_NAME ${name})
  set(PC_ABOUT "${about}")
  set(PC_LIBRARIES "${libraries}")
  set(PC_REQUIRES "${requires}")
  configure_file(cmake/jampot.pc.in "${CMAKE_CURRENT_BINARY_DIR}/${name}.pc" @ONLY)
  install(FILES "${CMAKE_CURRENT_BINARY_DIR}/${name}.pc" DESTINATION ${CMAKE_INSTALL_LIBDIR}/pkgconfig)
endfunction()
jampot_pkg_config(jampot-core "models, equilibria and diagrams" "-ljampot_core -lcsv" "eigen3 fmt udunits")
jampot_pkg_config(jampot "with fits and studies" "-ljampot -lceres -lglog" "jampot-core")
jampot_pkg_config(jampot-files "with files" "-ljampot_files" "jampot pugixml xlsxwriter")
jampot_pkg_config(jampot-draw "with figures" "-ljampot_draw" "jampot-files")
jampot_pkg_config(jampot-report "with answers as tables, figures and JSON" "-ljampot_report" "jampot-draw")

if(JAMPOT_BUILD_TOOL)
  install(TARGETS jampot_tool RUNTIME DESTINATION ${CMAKE_INSTALL_BINDIR})
  install(FILES "${CMAKE_BINARY_DIR}/jampot.1" DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
  install(FILES "${CMAKE_BINARY_DIR}/jampot.bash" DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions RENAME jampot)
endif()
