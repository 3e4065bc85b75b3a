# The warnings and sanitizers that every target of this project is built with.
add_library(jampot_warnings INTERFACE)
# GCC 12 warns of what cannot be inside std::string + (GCC bug 105651) and std::variant (105562): hence the two -Wno.
target_compile_options(jampot_warnings INTERFACE -Wall -Wextra -Wpedantic -Wconversion -Wshadow -Wno-restrict
                       -Wno-maybe-uninitialized)
if(DEFINED ENV{CI})
  target_compile_options(jampot_warnings INTERFACE -Werror)
endif()
if(JAMPOT_SANITIZE)
  add_compile_options(-fsanitize=address,undefined -fno-sanitize-recover=undefined -fno-omit-frame-pointer)
  add_link_options(-fsanitize=address,undefined)
endif()
