//! title Source over
//! group Blend
//! about Lays one picture over another by its opacity.
//! says {source} over {backdrop}
//! shown source_over(harbour, crab)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what lies above
// T. Porter and T. Duff, "Compositing Digital Images", 1984, operator over.
vec4 source_over(vec4 backdrop, vec4 source) {
    return combine(backdrop, source, 1, 1 - source.a);
}
