// lacquer-cli completion: what bash needs to complete verbs and options, from the table that help is written from.
#include <fmt/core.h>

#include <CLI/CLI.hpp>

#include "cli/verbs.h"

namespace lacquer::cli {

namespace {

// The options of a verb, parted by blanks.
std::string options_of(const Verb& verb) {
    CLI::App app;
    app.set_help_flag("-h,--help");
    (void)verb.offer(app);
    std::string words;
    for (const CLI::Option* option : app.get_options()) {
        for (const std::string& name : option->get_snames()) words += " -" + name;
        for (const std::string& name : option->get_lnames()) words += " --" + name;
    }
    return words.empty() ? words : words.substr(1);
}

Result<Outcome> print_completion() {
    std::string names;
    std::string cases;
    for (const Verb& verb : verbs()) {
        names += (names.empty() ? "" : " ") + std::string(verb.name);
        cases += fmt::format("        {}) words=\"{}\" ;;\n", verb.name, options_of(verb));
    }
    fmt::print(R"(# Completes lacquer-cli in bash: source <(lacquer-cli completion)
_lacquer_cli() {{
    local here="${{COMP_WORDS[COMP_CWORD]}}" words=""
    if [ "$COMP_CWORD" -eq 1 ]; then
        COMPREPLY=($(compgen -W "{}" -- "$here"))
        return
    fi
    case "${{COMP_WORDS[1]}}" in
{}    esac
    COMPREPLY=($(compgen -W "$words" -- "$here") $(compgen -f -- "$here"))
}}
complete -o filenames -F _lacquer_cli lacquer-cli
)",
               names, cases);
    return Outcome::done;
}

}  // namespace

Run offer_completion(CLI::App&) { return print_completion; }

}  // namespace lacquer::cli
