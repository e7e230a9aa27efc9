#include "core/ship/set.h"

#include <fcntl.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cstdio>
#include <cstring>
#include <filesystem>
#include <system_error>

#include "core/base/file.h"
#include "core/finish/json_tree.h"
#include "core/ship/manifest.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

Fault stopped() { return {"ship.stopped", "shipping was stopped", "", {}, Severity::warning}; }

Fault folder_fault(const std::string& folder, const std::string& message, const std::string& mend) {
    return {"ship.folder", message, mend, {folder, {}, 0, 0}, Severity::fault};
}

Fault unwritable_set(const std::string& folder, const std::string& why) {
    return {"file.unwritable",
            "the set cannot be written: " + why,
            "choose another folder",
            {folder, {}, 0, 0},
            Severity::fault};
}

// Letters, digits, dots, lines and slashes, no part of dots only: so that nothing leaves the folder, whatever a finish
// is called.
bool is_safe_path(const std::string& path) {
    const auto is_safe = [](char c) {
        return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '-' ||
               c == '.' || c == '/';
    };
    if (path.empty() || path.front() == '/' || !std::all_of(path.begin(), path.end(), is_safe)) return false;
    const auto is_dots = [](const fs::path& part) {
        const std::string text = part.string();
        return text.empty() || std::all_of(text.begin(), text.end(), [](char c) { return c == '.'; });
    };
    const fs::path parts(path);
    return std::none_of(parts.begin(), parts.end(), is_dots);
}

// Only what a manifest of ours says is a set; an empty folder may become one.
Result<bool> holds_set(const std::string& folder) {
    std::error_code code;
    const fs::file_status status = fs::symlink_status(folder, code);
    if (!fs::exists(status)) return false;
    if (!fs::is_directory(status))
        return folder_fault(folder, "there is something here that is no folder", "choose another folder");
    if (fs::is_empty(folder, code) && !code) return true;
    constexpr std::size_t most = 16U << 20U;
    const Result<std::string> text = read_whole_file((fs::path(folder) / manifest_file).string(), most);
    const Result<Json> manifest = text ? json_from_text(*text, folder) : Result<Json>(text.fault());
    if (manifest && manifest->find("lacquer_set") != nullptr) return true;
    return folder_fault(folder, "this folder holds something other than a set of Lacquer's",
                        "choose an empty folder, or a new name");
}

// Both names change their places at once, so that nobody ever finds neither.
bool exchange(const fs::path& a, const fs::path& b) {
    return renameat2(AT_FDCWD, a.c_str(), AT_FDCWD, b.c_str(), RENAME_EXCHANGE) == 0;
}

}  // namespace

Result<ShippedFiles> set_files(const ShipMaterial& material, const std::vector<const ShipOutput*>& outputs,
                               const Cancel& cancel, const ShipProgress& progress) {
    ShippedFiles files;
    // What is left out is no target of this set.
    std::vector<const ShipOutput*> written_as;
    for (std::size_t k = 0; k < outputs.size(); ++k) {
        if (cancel.requested()) return stopped();
        if (progress)
            progress(static_cast<double>(k) / static_cast<double>(outputs.size()), std::string(outputs[k]->title));
        if (outputs[k]->unless != nullptr && !outputs[k]->unless(material).empty()) continue;
        Result<ShippedFiles> written = outputs[k]->write(material, cancel);
        if (!written) return written.fault();
        written_as.push_back(outputs[k]);
        for (ShippedFile& file : *written) files.push_back(std::move(file));
    }
    files.push_back({manifest_file, readable_json(manifest_of(material, written_as, files))});
    if (progress) progress(1, "");
    return files;
}

Result<Done> write_set(const std::string& folder, const ShippedFiles& files) {
    for (const ShippedFile& file : files) {
        if (is_safe_path(file.path)) continue;
        return Fault{"ship.path",
                     "'" + file.path + "' would lie outside the set",
                     "tell us of it",
                     {folder, {}, 0, 0},
                     Severity::fault};
    }
    fs::path target = fs::path(folder).lexically_normal();
    if (!target.has_filename()) target = target.parent_path();
    const Result<bool> there = holds_set(target.string());
    if (!there) return there.fault();
    std::error_code code;
    const fs::path parent = target.has_parent_path() ? target.parent_path() : fs::path(".");
    if (Result<Done> with_parent = make_folder(parent.string()); !with_parent) return with_parent.fault();
    // Beside the target, so that it is on the same disk.
    std::string made = (parent / ("." + target.filename().string() + ".new-XXXXXX")).string();
    if (mkdtemp(made.data()) == nullptr) return unwritable_set(folder, std::strerror(errno));
    const fs::path fresh(made);
    fs::permissions(fresh,
                    fs::perms::owner_all | fs::perms::group_read | fs::perms::group_exec | fs::perms::others_read |
                        fs::perms::others_exec,
                    code);
    const auto give_up = [&](const Fault& fault) {
        fs::remove_all(fresh, code);
        return fault;
    };
    for (const ShippedFile& file : files) {
        const fs::path path = fresh / file.path;
        if (Result<Done> with_folder = make_folder(path.parent_path().string()); !with_folder)
            return give_up(with_folder.fault());
        if (Result<Done> written = write_whole_file(path.string(), file.bytes); !written)
            return give_up(written.fault());
    }
    if (!*there) {
        fs::rename(fresh, target, code);
        if (code) return give_up(unwritable_set(folder, code.message()));
        (void)sync_path(parent.string());
        return Done{};
    }
    if (!exchange(fresh, target)) return give_up(unwritable_set(folder, std::strerror(errno)));
    // The old one goes only once the new one stands in its place for good.
    (void)sync_path(parent.string());
    fs::remove_all(fresh, code);
    return Done{};
}

}  // namespace lacquer
