//! title Source in
//! group Blend
//! about Shows a picture only where another is.
//! says {source} inside {backdrop}
//! shown source_in(crab, harbour)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what lies above
// T. Porter and T. Duff, "Compositing Digital Images", 1984, operator in.
vec4 source_in(vec4 backdrop, vec4 source) {
    return combine(backdrop, source, backdrop.a, 0);
}
