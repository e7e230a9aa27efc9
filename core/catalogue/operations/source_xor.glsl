//! title Source xor
//! group Blend
//! about Shows two pictures where only one of them is.
//! says {source} or else {backdrop}
//! shown source_xor(crab, vec4(chart.rgb, stones))
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what lies above
// T. Porter and T. Duff, "Compositing Digital Images", 1984, operator xor.
vec4 source_xor(vec4 backdrop, vec4 source) {
    return combine(backdrop, source, 1 - backdrop.a, 1 - source.a);
}
