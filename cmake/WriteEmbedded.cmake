# Run by jampot_embed at build time. A compiler may limit the length of one literal, so the text goes in as lines.
set(declarations "")
set(definitions "")
foreach(path IN LISTS FILES)
  get_filename_component(name "${path}" NAME)
  string(MAKE_C_IDENTIFIER "${name}" name)
  file(READ "${path}" text)
  string(REPLACE "\\" "\\\\" text "${text}")
  string(REPLACE "\"" "\\\"" text "${text}")
  string(REPLACE "\r" "\\r" text "${text}")
  string(REPLACE "\n" "\\n\"\n    \"" text "${text}")
  string(APPEND declarations "std::string_view ${name}();\n")
  string(APPEND definitions "std::string_view ${name}() {\n  return \"${text}\";\n}\n")
endforeach()
file(WRITE "${HEADER}"
     "#pragma once\n#include <string_view>\nnamespace ${NAMESPACE} {\n${declarations}}  // namespace ${NAMESPACE}\n")
file(WRITE "${SOURCE}"
     "#include \"${NAMESPACE}.hpp\"\nnamespace ${NAMESPACE} {\n${definitions}}  // namespace ${NAMESPACE}\n")
