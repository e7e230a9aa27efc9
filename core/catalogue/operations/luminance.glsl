//! title Luminance
//! group Colour
//! about How bright a colour is to the eye: ITU-R BT.709 weights, in linear light.
//! says luminance of {colour}
//! shown luminance(harbour)
//! value colour 3 colour : what is measured
float luminance(vec3 colour) {
    return dot(colour, vec3(0.2126, 0.7152, 0.0722));
}
