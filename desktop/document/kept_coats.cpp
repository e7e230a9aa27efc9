#include "desktop/document/kept_coats.h"

#include <algorithm>
#include <cstdlib>
#include <filesystem>

#include "core/base/file.h"
#include "core/base/text.h"
#include "core/finish/file.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

fs::path store() {
    const char* data = std::getenv("XDG_DATA_HOME");
    if (data != nullptr && *data != '\0') return fs::path(data) / "lacquer" / "coats";
    const char* home = std::getenv("HOME");
    return fs::path(home != nullptr ? home : "/tmp") / ".local/share/lacquer/coats";
}

}  // namespace

std::vector<KeptCoat> kept_coats() {
    std::vector<KeptCoat> coats;
    std::error_code code;
    for (const fs::directory_entry& entry : fs::directory_iterator(store(), code)) {
        if (entry.path().extension() != ".lacquer") continue;
        coats.push_back({shown_name(entry.path().stem().string()), entry.path().string()});
    }
    std::sort(coats.begin(), coats.end(), [](const KeptCoat& a, const KeptCoat& b) { return a.name < b.name; });
    return coats;
}

Result<Done> keep_coat(const std::string& name, const std::string& text) {
    if (Result<Done> made = make_folder(store().string()); !made) return made.fault();
    const std::string file = identifier_from(name);
    return write_whole_file((store() / ((file.empty() ? "coat" : file) + ".lacquer")).string(), text);
}

Result<std::string> read_kept_coat(const KeptCoat& coat) { return read_whole_file(coat.path, max_file_size); }

}  // namespace lacquer
