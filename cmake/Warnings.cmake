# The warnings and sanitizers that every target of this project is built with.
add_library(jampot_warnings INTERFACE)
# GCC 12 warns of what cannot be inside std::string + (GCC bug 105651) and std::variant (105562): hence the two -Wno.
target_compile_options(jampot_warnings INTERFACE -Wall -Wextra -Wpedantic -Wconversion -Wshadow
                       $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict> $<$<CXX_COMPILER_ID:GNU>:-Wno-maybe-uninitialized>)
if(DEFINED ENV{CI})
  target_compile_options(jampot_warnings INTERFACE -Werror)
endif()
if(JAMPOT_SANITIZERS)
  add_compile_options(-fsanitize=${JAMPOT_SANITIZERS} -fno-omit-frame-pointer)
  add_link_options(-fsanitize=${JAMPOT_SANITIZERS})
  if(JAMPOT_SANITIZERS MATCHES undefined)
    add_compile_options(-fno-sanitize-recover=undefined)
  endif()
endif()
if(JAMPOT_BUILD_FUZZ)
  add_compile_options(-fsanitize=fuzzer-no-link)  # so that the fuzzer sees which ways a text takes
endif()
