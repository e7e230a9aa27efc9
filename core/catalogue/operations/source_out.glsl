//! title Source out
//! group Blend
//! about Shows a picture only where another is not.
//! says {source} outside {backdrop}
//! shown source_out(crab, harbour)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what lies above
// T. Porter and T. Duff, "Compositing Digital Images", 1984, operator out.
vec4 source_out(vec4 backdrop, vec4 source) {
    return combine(backdrop, source, 1 - backdrop.a, 0);
}
