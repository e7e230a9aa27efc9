// Where the world is looked at from.
#pragma once

#include <optional>
#include <vector>

#include "core/base/vec3.h"

namespace lacquer {

/// A camera without lens faults. The world is right-handed, in metres, with y up.
struct Camera {
    Vec3 eye{0, 1.7, 10};
    Vec3 target{0, 1.7, 0};
    double field = 40;  ///< degrees from the picture's lower to its upper border, more than 0 and less than 180
    friend bool operator==(const Camera&, const Camera&) = default;
};

/// The camera's place at a moment of a path.
struct CameraKey {
    double seconds = 0;
    Camera camera;
    friend bool operator==(const CameraKey&, const CameraKey&) = default;
};

/// What the picture's pixels look along: the ray through (u, v), 0..1 across and down, runs in the direction
/// `corner + across * u + down * v`, whose part along the view is 1, so that its length is counted in depth.
struct Rays {
    Vec3 eye;
    Vec3 forward;
    Vec3 corner;
    Vec3 across;
    Vec3 down;
};

/// The rays of a picture whose width is `aspect` times its height.
Rays rays_of(const Camera& camera, double aspect);

/// Where a point of the world lies in the picture.
struct Projected {
    double u = 0;
    double v = 0;
    double depth = 0;  ///< along the view, in metres
};
/// Nothing if the point does not lie before the camera.
std::optional<Projected> project(const Camera& camera, double aspect, Vec3 point);

/// Turned about what it looks at, in degrees; upwards it stops short of the pole.
Camera orbited(const Camera& camera, double right, double up);
/// Nearer to what it looks at (factor below 1) or farther from it.
Camera dollied(const Camera& camera, double factor);
/// Moved sideways and upwards, in shares of the picture's height at what it looks at.
Camera moved(const Camera& camera, double right, double up);

/// The camera at a moment: through all keys, which are in order of time, in smooth curves (Catmull and Rom 1974);
/// before the first and after the last it rests. Without keys, `still`.
Camera camera_at(const Camera& still, const std::vector<CameraKey>& keys, double seconds);

}  // namespace lacquer
