//! title Oozing
//! group Droplets
//! about An opacity that oozes: layers that drift through one another, made hard by a power, lifted by a gain, held to 0..1.
//! says let {cover} ooze by {layers}, power {power}, gain {gain}
//! shown oozing(smoothstep(0.45, 0.3, length(uv - 0.5)), blotch, 2, 2.5)
//! value cover 1 mask : where there is something to ooze
//! value layers 1 mask : what drifts, 0..1, such as drifting_layers(0.3, time, 1, 1)
//! value power 1 number = 2 in 0.1..8 : 2 squares it: 0.5 becomes 0.25
//! value gain 1 number = 2 in 0..10 : how many times as much is left of it
float oozing(float cover, float layers, float power, float gain) {
    return cover * clamp(pow(max(layers, 0), power) * gain, 0, 1);
}
