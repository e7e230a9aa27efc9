#include "core/finish/ground_edits.h"

#include <algorithm>
#include <set>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/ground_pictures.h"

namespace lacquer {

namespace {

/// Keys nearer in time than this are one.
constexpr double same_moment = 1e-3;

Fault no_ground(std::string_view name, const char* what) {
    return {"edit.unknown",
            "there is no " + std::string(what) + " '" + shown_name(name) + "'",
            "choose one that is there",
            {std::string(name), {}, 0, 0},
            Severity::fault};
}

Ground* find(Finish& finish, std::string_view name) {
    const auto found = std::find_if(finish.grounds.begin(), finish.grounds.end(),
                                    [&](const Ground& ground) { return ground.name == name; });
    return found != finish.grounds.end() ? &*found : nullptr;
}

bool are_free(const Finish& finish, const Ground& ground) {
    const std::vector<GroundPicture> pictures = ground_pictures(ground);
    return std::none_of(pictures.begin(), pictures.end(), [&](const GroundPicture& picture) {
        return picture.name.size() > max_name_length || is_name_taken(finish, picture.name);
    });
}

}  // namespace

GroundEdit add_ground(Finish finish, Ground ground) {
    // The longest layer's name must still be a name.
    constexpr std::size_t longest_suffix = 9;
    if (ground_pictures(ground).size() > 1) ground.name = ground.name.substr(0, max_name_length - longest_suffix - 3);
    const std::string wish = ground.name;
    ground.name = free_name(finish, wish);
    for (int n = 2; !are_free(finish, ground); ++n) ground.name = wish + "_" + std::to_string(n);
    const std::string name = ground.name;
    finish.grounds.push_back(std::move(ground));
    return {std::move(finish), name};
}

Result<Finish> delete_ground(Finish finish, std::string_view name) {
    if (std::erase_if(finish.grounds, [&](const Ground& ground) { return ground.name == name; }) == 0)
        return no_ground(name, "ground");
    return finish;
}

std::vector<std::string> readers_of(const Finish& finish, std::string_view ground) {
    const Ground* own = find_ground(finish, ground);
    if (own == nullptr) return {};
    std::set<std::string> reading;
    for (std::string& step : users_of(finish, ground)) reading.insert(std::move(step));
    for (const GroundPicture& picture : ground_pictures(*own)) {
        for (std::string& step : users_of(finish, picture.name)) reading.insert(std::move(step));
    }
    std::vector<std::string> ordered;
    for_each_step(finish, [&](const Coat&, const Step& step) {
        if (reading.contains(step.name)) ordered.push_back(step.name);
    });
    return ordered;
}

Result<Finish> replace_ground(Finish finish, std::string_view name, Ground by) {
    Ground* ground = find(finish, name);
    if (ground == nullptr) return no_ground(name, "ground");
    by.name = ground->name;
    *ground = std::move(by);
    return finish;
}

Result<Finish> toggle_mark(Finish finish, std::string_view marks, int id) {
    Ground* ground = find(finish, marks);
    if (ground == nullptr || ground->kind != GroundKind::marks) return no_ground(marks, "set of marks");
    const auto at = std::lower_bound(ground->ids.begin(), ground->ids.end(), id);
    if (at != ground->ids.end() && *at == id) {
        ground->ids.erase(at);
    } else {
        ground->ids.insert(at, id);
    }
    return finish;
}

Result<Finish> set_camera(Finish finish, std::string_view scene, const Camera& camera, double seconds) {
    Ground* ground = find(finish, scene);
    if (ground == nullptr || ground->kind != GroundKind::scene) return no_ground(scene, "scene");
    auto& path = ground->scene.path;
    if (path.empty()) {
        ground->scene.camera = camera;
        return finish;
    }
    const auto at = std::find_if(path.begin(), path.end(),
                                 [&](const CameraKey& key) { return key.seconds > seconds - same_moment; });
    if (at != path.end() && at->seconds < seconds + same_moment) {
        at->camera = camera;
    } else {
        path.insert(at, {seconds, camera});
    }
    return finish;
}

Result<Finish> put_camera_key(Finish finish, std::string_view scene, double seconds) {
    Ground* ground = find(finish, scene);
    if (ground == nullptr || ground->kind != GroundKind::scene) return no_ground(scene, "scene");
    const Camera now = camera_at(ground->scene.camera, ground->scene.path, seconds);
    if (ground->scene.path.empty()) {
        ground->scene.path.push_back({seconds, now});
        return finish;
    }
    return set_camera(std::move(finish), scene, now, seconds);
}

}  // namespace lacquer
