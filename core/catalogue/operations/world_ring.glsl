//! title World ring
//! group Scene
//! about A ring about a point of the world, in metres, whatever the camera sees of it.
//! says ring {radius} from {centre}, {width} wide
//! shown world_ring(shore_at.xyz, vec3(0.35, 0, 0.6), 1.4, 0.5)
//! value position 3 coordinate : where in the world, metres
//! value centre 3 coordinate = vec3(0) : of the ring, metres
//! value radius 1 number = 3 in 0..100 m : from its centre to its middle
//! value width 1 number = 1 in 0.001..20 m : from where it begins to where it ends
float world_ring(vec3 position, vec3 centre, float radius, float width) {
    float far = abs(length(position - centre) - radius);
    return 1 - smoothstep(0, max(width, 0.0001) * 0.5, far);
}
