# Writes OUT, a source that gives the page's texts.
file(READ ${HTML} html)
file(READ ${SCRIPT} script)
# A compiler takes only so long a literal at once.
string(LENGTH "${script}" length)
set(parts "")
set(at 0)
while(at LESS length)
  string(SUBSTRING "${script}" ${at} 12000 part)
  string(APPEND parts "        R\"text(${part})text\"\n")
  math(EXPR at "${at} + 12000")
endwhile()
file(WRITE ${OUT} "#include \"core/ship/page/page_text.h\"\n\nnamespace lacquer {\n\nstd::string_view page_html() { return R\"text(${html})text\"; }\n\nstd::string_view page_script() {\n    return\n${parts}    ;\n}\n\n}  // namespace lacquer\n")
