//! title Fade by
//! group Flow
//! about Leaves a share of a value each second, by as much in each tick as makes that up at any tick rate.
//! says {value} faded to {share} a second
//! shown fade_by(harbour, 0.00000001)
//! value value same colour : what fades, such as previous(smoke)
//! value share 1 number = 0.5 in 0..1 : what is left after a second
same fade_by(same value, float share) {
    return value * pow(clamp(share, 0, 1), tick_length);
}
