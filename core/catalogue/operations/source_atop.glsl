//! title Source atop
//! group Blend
//! about Lays a picture over another, only where that is.
//! says {source} atop {backdrop}
//! shown source_atop(crab, vec4(chart.rgb, stones))
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what lies above
// T. Porter and T. Duff, "Compositing Digital Images", 1984, operator atop.
vec4 source_atop(vec4 backdrop, vec4 source) {
    return combine(backdrop, source, backdrop.a, 1 - source.a);
}
