# Behind Ceres stand sparse solvers, which no fit of ours asks for; Ceres names them all the same. Loading them as
# shared libraries was two thirds of the time until the tool's first answer. Where the system has them as archives, and
# these link, a program takes out of them the few functions it needs. An installed Jam Pot finds Ceres for itself and
# is not touched by this.
include(CheckCXXSourceCompiles)

function(jampot_archives_behind_ceres)
  set(behind "")
  foreach(name IN ITEMS spqr cholmod cxsparse amd camd ccolamd colamd suitesparseconfig lapack blas f77blas atlas)
    find_library(JAMPOT_ARCHIVE_${name} NAMES lib${name}.a)
    mark_as_advanced(JAMPOT_ARCHIVE_${name})
    if(JAMPOT_ARCHIVE_${name})
      list(APPEND behind ${JAMPOT_ARCHIVE_${name}})
    endif()
  endforeach()
  # Of the compiler, but not on its usual path; the archive of the Fortran library comes with the compiler of Fortran.
  foreach(name IN ITEMS gfortran quadmath gomp)
    execute_process(COMMAND ${CMAKE_CXX_COMPILER} -print-file-name=lib${name}.a OUTPUT_VARIABLE found
                    OUTPUT_STRIP_TRAILING_WHITESPACE)
    if(IS_ABSOLUTE "${found}")
      list(APPEND behind ${found})
    elseif(name STREQUAL "gfortran")
      find_library(JAMPOT_FORTRAN NAMES libgfortran.so.5)
      mark_as_advanced(JAMPOT_FORTRAN)
      if(JAMPOT_FORTRAN)
        list(APPEND behind ${JAMPOT_FORTRAN})
      endif()
    endif()
  endforeach()
  find_library(JAMPOT_METIS NAMES metis libmetis.so.5)
  mark_as_advanced(JAMPOT_METIS)
  if(JAMPOT_METIS)
    list(APPEND behind ${JAMPOT_METIS})
  endif()
  list(APPEND behind ${CMAKE_DL_LIBS})

  set(CMAKE_REQUIRED_LIBRARIES ${behind} Threads::Threads)
  check_cxx_source_compiles("
    extern \"C\" { int cholmod_start(void*); int cholmod_factorize(void*, void*, void*); int cs_di_spfree(void*);
                   void dpotrf_(); void dgels_(); }
    int main(int argc, char**) {
      dpotrf_(); dgels_();
      return cholmod_start(nullptr) + cholmod_factorize(nullptr, nullptr, nullptr) + cs_di_spfree(&argc);
    }" JAMPOT_ARCHIVES_LINK)
  if(NOT JAMPOT_ARCHIVES_LINK)
    return()
  endif()
  get_target_property(links Ceres::ceres INTERFACE_LINK_LIBRARIES)
  list(FILTER links EXCLUDE REGEX "SuiteSparse|CXSparse|/lib(lapack|blas|f77blas|atlas)\\.so")
  set_target_properties(Ceres::ceres PROPERTIES INTERFACE_LINK_LIBRARIES "${links};${behind}")
endfunction()

# Archives of Debian are no position-independent code, as a shared library of ours would need.
if(NOT BUILD_SHARED_LIBS)
  jampot_archives_behind_ceres()
endif()
