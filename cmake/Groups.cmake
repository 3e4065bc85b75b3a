# Files compiled together: what they include is read once, and the code of headers generated once, for a group instead
# of for each file. From an empty folder a build takes half the time; after a change of one file it takes longer.
option(JAMPOT_GROUPS "Compile files in groups: faster from an empty folder, slower after a change" ON)

# For words, tables and whatever else costs compiling, not running: -Og takes two thirds of the time of -O1.
set(JAMPOT_QUICK_TO_COMPILE $<$<CONFIG:Release>:-Og>)

# These files of a library make one group.
function(jampot_group library name)
  set_target_properties(${library} PROPERTIES UNITY_BUILD ${JAMPOT_GROUPS} UNITY_BUILD_MODE GROUP)
  set_source_files_properties(${ARGN} PROPERTIES UNITY_GROUP ${name})
endfunction()

# The files of each room that no group has taken yet, in groups of at most so many. Small rooms that stand
# together: "basis|substance".
function(jampot_group_rooms library most)
  get_target_property(sources ${library} SOURCES)
  foreach(room IN LISTS ARGN)
    string(REPLACE "|" "_" group "${room}")
    set(count 0)
    set(number 1)
    foreach(source IN LISTS sources)
      get_source_file_property(taken "${source}" UNITY_GROUP)
      get_source_file_property(alone "${source}" SKIP_PRECOMPILE_HEADERS)
      if(NOT source MATCHES "^(${room})/" OR taken OR alone)
        continue()
      endif()
      if(count EQUAL most)
        set(count 0)
        math(EXPR number "${number} + 1")
      endif()
      math(EXPR count "${count} + 1")
      jampot_group(${library} "${group}_${number}" "${source}")
    endforeach()
  endforeach()
endfunction()
