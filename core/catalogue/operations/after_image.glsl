//! title After-image
//! group Flow
//! about What was bright stays for a while and fades, as on an old screen.
//! says {now} over what is left of {past}
//! shown after_image(harbour, vec4(vec3(blotch), 1), 0.00000001)
//! value now same colour : what is seen now
//! value past same colour : what there was, such as previous(glow)
//! value share 1 number = 0.2 in 0..1 : what is left of it after a second
same after_image(same now, same past, float share) {
    return max(now, past * pow(clamp(share, 0, 1), tick_length));
}
