//! title Lit
//! group Scene
//! about A sprite in some light; what shines by itself stays as bright as it is.
//! says {sprite} in {light}, shining where {shining}
//! shown lit(crab, vec3(0.25, 0.3, 0.5), blotch)
//! value sprite 4 colour : what is lit
//! value light 3 colour = vec3(1) : that falls on it; 1 leaves it as it is
//! value shining 1 mask = 0 in 0..1 : 1 where it ignores the light
vec4 lit(vec4 sprite, vec3 light, float shining) {
    return vec4(sprite.rgb * mix(light, vec3(1), shining), sprite.a);
}
