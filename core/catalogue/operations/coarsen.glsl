//! title Coarsen
//! group Maths
//! about Rounds values to multiples of a size, downwards, upwards or to the nearest, by an amount.
//! says {x} rounded {way} to {size} by {amount}
//! shown coarsen(harbour, 0.2)
//! value x same colour : what is rounded
//! value size 1 number = 0.2 in 0..1 : from one level to the next; 0 changes nothing
//! value way 1 choice = 0 of down, up, nearest : which way
//! value amount 1 number = 1 in 0..1 : how far towards the level; 0 changes nothing
same coarsen(same x, float size, float way, float amount) {
    if (size <= 0) return x;
    same at = x / size;
    same level = way < 0.5 ? floor(at) : way < 1.5 ? ceil(at) : floor(at + 0.5);
    return with_opacity_of(mix(x, level * size, amount), x);
}
