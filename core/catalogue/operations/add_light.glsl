//! title Add light
//! group Blend
//! about Adds light to a picture and leaves its opacity.
//! says {picture} and {amount} of {light}
//! shown add_light(harbour, vec3(1, 0.5, 0.15) * hill, 0.8)
//! value picture 4 colour : what is lit
//! value light 3 colour : what is added
//! value amount 1 number = 1 in 0..4 : times as much
vec4 add_light(vec4 picture, vec3 light, float amount) {
    return vec4(picture.rgb + light * amount, picture.a);
}
