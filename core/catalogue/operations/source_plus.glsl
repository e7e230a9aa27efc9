//! title Source plus
//! group Blend
//! about Adds two pictures and their opacities.
//! says {source} plus {backdrop}
//! shown source_plus(crab, vec4(chart.rgb, stones))
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what lies above
// T. Porter and T. Duff, "Compositing Digital Images", 1984, operator plus.
vec4 source_plus(vec4 backdrop, vec4 source) {
    return combine(backdrop, source, 1, 1);
}
