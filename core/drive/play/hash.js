// One word to one word. M. Jarzynski and M. Olano, "Hash Functions for GPU Rendering", JCGT 9(3), 2020, listing of pcg.
function lq_pcg(v) {
    const state = (Math.imul(v >>> 0, 747796405) + 2891336453) >>> 0;
    const word = Math.imul((state >>> ((state >>> 28) + 4)) ^ state, 277803737) >>> 0;
    return ((word >>> 22) ^ word) >>> 0;
}

// A hash word as a number in 0..1.
function lq_unit(word) {
    return (word >>> 8) / 16777216;
}

// The low 32 bits of a whole number.
function lq_word(whole) {
    const held = Math.trunc(Math.min(Math.max(whole, -1e15), 1e15)) % 4294967296;
    return held >>> 0;
}
