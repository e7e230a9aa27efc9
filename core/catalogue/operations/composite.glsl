//! title Composite
//! group Blend
//! about Lays one picture over another, in colours that a blend has made of both where they meet.
//! says {source} over {backdrop} as {blended}
//! shown composite(harbour, crab, vec3(0.2, 0.9, 1))
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what lies above
//! value blended 3 colour : the colour where both are
//! value amount 1 number = 1 in 0..1 : how much of the source; 0 leaves the backdrop
// W3C Compositing and Blending Level 1, chapter 5 with source-over; straight opacity in and out.
vec4 composite(vec4 backdrop, vec4 source, vec3 blended, float amount) {
    float above = source.a * amount;
    float opacity = above + backdrop.a * (1 - above);
    vec3 colour = mix(source.rgb, blended, backdrop.a) * above + backdrop.rgb * backdrop.a * (1 - above);
    if (above == 0) return backdrop;
    return unpremultiply(vec4(colour, opacity));
}
