#include "core/finish/file_paths.h"

#include <algorithm>

#include "core/finish/file.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/variants.h"

namespace lacquer {

namespace {

using Changed = std::function<std::string(const std::string&)>;

void change_grounds(Finish& finish, const Changed& changed) {
    for (Ground& ground : finish.grounds) {
        for (std::string* path : paths_of(ground)) {
            if (!path->empty()) *path = changed(*path);
        }
    }
}

// Patches of things that the finish has are worked out anew; those of others stay as they are.
void take_present(Patches& patches, const Patches& anew, const Finish& finish) {
    std::erase_if(patches, [&](const auto& patch) { return find_ground(finish, patch.first) != nullptr; });
    patches.insert(anew.begin(), anew.end());
}

}  // namespace

Finish with_paths(Finish finish, const Changed& changed) {
    const std::string present = finish.variant;
    Finish plain = switch_variant(std::move(finish), "");
    Finish moved = plain;
    change_grounds(moved, changed);
    if (!moved.shared_dials.empty()) moved.shared_dials = changed(moved.shared_dials);
    // Nothing else of them names files, and there may be a thousand.
    Finish grounds;
    grounds.grounds = plain.grounds;
    Finish moved_grounds;
    moved_grounds.grounds = moved.grounds;
    for (std::size_t i = 0; i < plain.variants.size(); ++i) {
        const Overlay part{{}, {}, plain.variants[i].overlay.grounds, {}};
        if (part.empty()) continue;
        Finish on = with_overlay(grounds, part);
        change_grounds(on, changed);
        take_present(moved.variants.own()[i].overlay.grounds, overlay_between(moved_grounds, on).grounds, plain);
    }
    for (std::size_t i = 0; i < plain.set_aside.size(); ++i) {
        const Overlay part{{}, {}, plain.set_aside[i].overlay.grounds, {}};
        if (part.empty()) continue;
        Finish look = with_whole(grounds, part);
        change_grounds(look, changed);
        Patches anew = whole_overlay(look).grounds;
        std::erase_if(anew, [&](const auto& patch) { return !part.grounds.contains(patch.first); });
        take_present(moved.set_aside.own()[i].overlay.grounds, anew, plain);
    }
    return switch_variant(std::move(moved), present);
}

std::vector<std::string> all_paths(const Finish& finish) {
    std::vector<std::string> paths;
    with_paths(finish, [&](const std::string& path) {
        if (std::find(paths.begin(), paths.end(), path) == paths.end()) paths.push_back(path);
        return path;
    });
    return paths;
}

Finish moved_paths(const Finish& finish, const std::string& from, const std::string& to) {
    return with_paths(finish,
                      [&](const std::string& path) { return stored_picture_path(to, picture_path(from, path)); });
}

}  // namespace lacquer
