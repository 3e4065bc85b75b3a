# jampot_embed(<target> <namespace> <file>...): the text of each file as a std::string_view in the library, so that
# an installed library needs no path. data/vapour_pressure.csv becomes <namespace>::vapour_pressure_csv().
function(jampot_embed target namespace)
  set(header "${CMAKE_CURRENT_BINARY_DIR}/embedded/${namespace}.hpp")
  set(source "${CMAKE_CURRENT_BINARY_DIR}/embedded/${namespace}.cpp")
  list(TRANSFORM ARGN PREPEND "${PROJECT_SOURCE_DIR}/" OUTPUT_VARIABLE paths)
  add_custom_command(
    OUTPUT "${header}" "${source}"
    COMMAND ${CMAKE_COMMAND} "-DNAMESPACE=${namespace}" "-DHEADER=${header}" "-DSOURCE=${source}" "-DFILES=${paths}"
            -P "${PROJECT_SOURCE_DIR}/cmake/WriteEmbedded.cmake"
    DEPENDS ${paths} "${PROJECT_SOURCE_DIR}/cmake/WriteEmbedded.cmake"
    VERBATIM)
  target_sources(${target} PRIVATE "${source}" "${header}")
  target_include_directories(${target} PRIVATE "${CMAKE_CURRENT_BINARY_DIR}/embedded")
endfunction()
