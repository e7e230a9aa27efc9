//! title Mean brightness
//! group Colour
//! about The mean of red, green and blue.
//! says mean of {colour}
//! shown mean_brightness(harbour)
//! value colour 3 colour : what is measured
float mean_brightness(vec3 colour) {
    return (colour.r + colour.g + colour.b) / 3;
}
