//! title Wall
//! group Scene
//! about A boundary through the world: 0 before it, 1 behind it, rising over a width in metres.
//! says wall at {at} across {towards}, {width} wide
//! shown wall(shore_at.xyz, -0.5, 0.8)
//! value position 3 coordinate : where in the world, metres
//! value at 1 number = 0 in -100..100 m : how far along its way it has come
//! value width 1 number = 1 in 0.001..50 m : over which it rises; half-way it is 0.5
//! value towards 3 number = vec3(1, 0, 0) : its way
float wall(vec3 position, float at, float width, vec3 towards) {
    vec3 way = normalize(towards);
    return clamp((at - dot(position, way)) / max(width, 0.0001) + 0.5, 0, 1);
}
