//! title Combine
//! group Blend
//! about Adds two pictures, each by its opacity and a share.
//! says {source_share} of {source} and {backdrop_share} of {backdrop}
//! shown combine(harbour, crab, 0.8, 0.5)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what lies above
//! value source_share 1 number = 0.5 in 0..1 : of the source
//! value backdrop_share 1 number = 0.5 in 0..1 : of the backdrop
// T. Porter and T. Duff, "Compositing Digital Images", 1984: their Fa and Fb; straight opacity in and out.
vec4 combine(vec4 backdrop, vec4 source, float source_share, float backdrop_share) {
    return unpremultiply(premultiply(source) * source_share + premultiply(backdrop) * backdrop_share);
}
