# Writes OUT, a source that holds the bytes of FONT.
file(READ ${FONT} bytes HEX)
string(REGEX REPLACE "([0-9a-f][0-9a-f])" "0x\\1," bytes "${bytes}")
file(WRITE ${OUT} "#include \"cli/font.h\"\n\nnamespace lacquer::cli {\n\nnamespace {\n\nconst unsigned char bytes[] = {${bytes}};\n\n}  // namespace\n\nstd::span<const unsigned char> font_file() { return bytes; }\n\n}  // namespace lacquer::cli\n")
