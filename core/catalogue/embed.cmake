# Writes OUT, a source in which FUNCTION, declared in HEADER, gives the text of each of FILES.
set(text "#include \"core/catalogue/${HEADER}\"\n\nnamespace lacquer {\n\nconst std::vector<OperationFile>& ${FUNCTION}() {\n    static const std::vector<OperationFile> files = {\n")
foreach(file IN LISTS FILES)
  get_filename_component(name ${file} NAME_WE)
  file(READ ${file} content)
  string(APPEND text "        {\"${name}\", R\"glsl(${content})glsl\", \"${name}.glsl\"},\n")
endforeach()
string(APPEND text "    };\n    return files;\n}\n\n}  // namespace lacquer\n")
file(WRITE ${OUT} "${text}")
