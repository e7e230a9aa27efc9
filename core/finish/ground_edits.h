// Edits of what a finish reads.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"
#include "core/finish/finish.h"

namespace lacquer {

/// Adds a ground under its name, or one like it that is free together with those of its layers. Gives that name.
struct GroundEdit {
    Finish finish;
    std::string name;
};
GroundEdit add_ground(Finish finish, Ground ground);

/// A ground goes; steps that name it keep their formulas, with a fault. Fault: `edit.unknown`.
Result<Finish> delete_ground(Finish finish, std::string_view name);

/// The names of steps that read any of its pictures, or it itself, from the top, and of droplets that go by it.
std::vector<std::string> readers_of(const Finish& finish, std::string_view ground);

/// Something else in a ground's place, under its name: all that reads it follows. Of a scene's marks nothing changes.
/// Fault: `edit.unknown`.
Result<Finish> replace_ground(Finish finish, std::string_view name, Ground by);

/// Puts an object among those that marks choose, or takes it out. Fault: `edit.unknown` if there are no such marks.
Result<Finish> toggle_mark(Finish finish, std::string_view marks, int id);

/// Looks at a stand-in scene from elsewhere. On a path, the key at `seconds` is changed, or one is put there.
/// Fault: `edit.unknown`.
Result<Finish> set_camera(Finish finish, std::string_view scene, const Camera& camera, double seconds);

/// Puts a key on the camera's path where it is now; the first makes a path of what stood still. Fault: `edit.unknown`.
Result<Finish> put_camera_key(Finish finish, std::string_view scene, double seconds);

}  // namespace lacquer
