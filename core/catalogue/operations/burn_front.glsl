//! title Burn front
//! group Maths
//! about A front that goes through a picture in an order: what it has passed is gone, and a rim runs before it. At amount 0 nothing has gone, at 1 everything, rim included.
//! says a front through {order} at {amount} with a rim {rim} wide
//! shown burn_front(blotch, 0.5, 0.15).y
//! value order 1 mask : when each pixel goes: 0 first, 1 last
//! value amount 1 number = 0.5 in 0..1 : how far the front has come
//! value rim 1 number = 0.1 in 0..1 : how much of the order the rim takes up
//! value starts 1 choice = 0 of clean, with its rim : whether there is a rim at amount 0
// x is 1 where it has gone, y where it burns and is still there.
vec2 burn_front(float order, float amount, float rim, float starts) {
    bool with_rim = starts >= 0.5;
    // Clean, the rim begins before the picture does, and has to leave it, too.
    float gone_to = with_rim ? amount : amount * (1 + rim) - rim;
    bool gone = amount >= 1 || (amount > 0 && order <= gone_to);
    bool burns = (with_rim || amount > 0) && order < gone_to + rim;
    return vec2(gone ? 1 : 0, burns && !gone ? 1 : 0);
}
