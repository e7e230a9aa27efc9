#include "core/finish/collect.h"

#include <filesystem>
#include <map>
#include <set>

#include "core/base/file.h"
#include "core/base/text.h"
#include "core/finish/file.h"
#include "core/finish/file_paths.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

Fault collect_fault(const char* id, const fs::path& where, const std::string& what, const std::string& mend) {
    return {id, what, mend, Place{where.string(), {}, 0, 0}, Severity::fault};
}

// A name that no other file in the folder has: rock.png, rock-2.png and so on.
fs::path free_name_in(const fs::path& folder, const fs::path& wished, const std::set<fs::path>& taken) {
    fs::path name = wished.filename();
    std::error_code code;
    for (int i = 2; taken.contains(folder / name) || fs::exists(folder / name, code); ++i)
        name = wished.stem().string() + "-" + std::to_string(i) + wished.extension().string();
    return folder / name;
}

}  // namespace

Result<Collected> collect(const Finish& finish, const std::string& finish_path, const std::string& folder,
                          const Cancel& cancel, const std::function<void(double)>& progress) {
    std::error_code code;
    const fs::path home = fs::absolute(folder, code).lexically_normal();
    const std::string name = identifier_from(finish.name);
    const fs::path path = home / ((name.empty() ? std::string("finish") : name) + ".lacquer");
    if (fs::exists(path, code))
        return collect_fault("file.exists", path, "a finish of that name lies there already", "choose another folder");
    const fs::path files = home / "files";
    if (const Result<Done> made = make_folder(home.string()); !made) return made.fault();
    Collected done{path.string(), 0, {}};
    const std::vector<std::string> wanted = all_paths(finish);
    std::map<std::string, std::string> copies;
    std::set<fs::path> taken;
    double at = 0;
    for (const std::string& written : wanted) {
        if (cancel.requested())
            return collect_fault("file.stopped", home, "collecting was stopped", "what was copied lies there");
        if (progress) progress(at / static_cast<double>(wanted.size() + 1));
        at += 1;
        const fs::path from = picture_path(finish_path, written);
        if (!fs::is_regular_file(from, code)) {
            done.missing.push_back(written);
            continue;
        }
        if (const Result<Done> made = make_folder(files.string()); !made) return made.fault();
        const fs::path to = free_name_in(files, from, taken);
        if (!fs::copy_file(from, to, code)) {
            return collect_fault("file.unwritable", to, "it cannot be copied: " + code.message(),
                                 "make room, or choose another folder");
        }
        (void)sync_path(to.string());
        taken.insert(to);
        ++done.copied;
        copies[written] = stored_picture_path(path.string(), to.string());
    }
    const Finish moved = with_paths(finish, [&](const std::string& written) {
        const auto copy = copies.find(written);
        return copy == copies.end() ? written : copy->second;
    });
    if (Result<Done> saved = save_finish(path.string(), moved); !saved) return saved.fault();
    if (progress) progress(1);
    return done;
}

}  // namespace lacquer
