//! title Pour
//! group Flow
//! about Pours new colour in through a stamp: all the time, at intervals, or once.
//! says pour {paint} onto {onto} through {stamp}
//! shown pour(harbour, vec4(0.85, 0.25, 0.1, 1), smoothstep(0.3, 0.2, length(uv - 0.5)))
//! value onto same colour : what was there, such as previous(smoke)
//! value paint same colour : what is poured
//! value stamp 1 mask : where, and how much; held to 0..1
//! value every 1 number = 0 in 0..60 s : from one pour to the next; 0 pours all the time, and one longer than the take pours once
same pour(same onto, same paint, float stamp, float every) {
    float now = tick * tick_length + tick_length * 0.001;
    bool pours = every <= 0 || tick < 0.5 || floor(now / every) > floor((now - tick_length) / every);
    return mix(onto, paint, pours ? clamp(stamp, 0, 1) : 0.0);
}
