# Writes OUT, a source that holds the text of each of FILES.
set(text "#include \"core/catalogue/catalogue.h\"\n\nnamespace lacquer {\n\nconst std::vector<OperationFile>& built_in_operation_files() {\n    static const std::vector<OperationFile> files = {\n")
foreach(file IN LISTS FILES)
  get_filename_component(name ${file} NAME_WE)
  file(READ ${file} content)
  string(APPEND text "        {\"${name}\", R\"operation(${content})operation\", \"${name}.glsl\"},\n")
endforeach()
string(APPEND text "    };\n    return files;\n}\n\n}  // namespace lacquer\n")
file(WRITE ${OUT} "${text}")
