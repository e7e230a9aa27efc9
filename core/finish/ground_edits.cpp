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

SceneView* find_view(Finish& finish, std::string_view name) {
    Ground* ground = find(finish, name);
    auto* scene = ground != nullptr ? ground->as<SceneGround>() : nullptr;
    return scene != nullptr ? &scene->view : nullptr;
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
    for (const Ground& other : finish.grounds) {
        if (reading.contains(other.name)) ordered.push_back(other.name);
    }
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
    auto* own = ground != nullptr ? ground->as<MarksGround>() : nullptr;
    if (own == nullptr) return no_ground(marks, "set of marks");
    const auto at = std::lower_bound(own->ids.begin(), own->ids.end(), id);
    if (at != own->ids.end() && *at == id) {
        own->ids.erase(at);
    } else {
        own->ids.insert(at, id);
    }
    return finish;
}

Result<Finish> set_camera(Finish finish, std::string_view scene, const Camera& camera, double seconds) {
    SceneView* view = find_view(finish, scene);
    if (view == nullptr) return no_ground(scene, "scene");
    auto& path = view->path;
    if (path.empty()) {
        view->camera = camera;
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
    SceneView* view = find_view(finish, scene);
    if (view == nullptr) return no_ground(scene, "scene");
    const Camera now = camera_at(view->camera, view->path, seconds);
    if (view->path.empty()) {
        view->path.push_back({seconds, now});
        return finish;
    }
    return set_camera(std::move(finish), scene, now, seconds);
}

}  // namespace lacquer
