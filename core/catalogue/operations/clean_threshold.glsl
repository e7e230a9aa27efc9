//! title Clean threshold
//! group Maths
//! about 0 below an edge and 1 above it, antialiased: the change is a pixel wide wherever it runs.
//! says {x} cleanly above {edge}
//! shown clean_threshold(blotch, 0.5)
//! value x 1 number : what is compared
//! value edge 1 number = 0.5 in 0..1 : where it changes
float clean_threshold(float x, float edge) {
    return clamp((x - edge) / max(length(vec2(dFdx(x), dFdy(x))), 0.000001) + 0.5, 0, 1);
}
