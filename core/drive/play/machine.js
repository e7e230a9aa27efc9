// What depends on how a language keeps numbers; machine.h has the same for C.

const { floor, ceil, trunc, sqrt, exp, expm1, log, log2, pow, sin, cos, tan, asin, acos, atan, atan2 } = Math;
const { sinh, cosh, tanh, asinh, acosh, atanh, abs: fabs } = Math;
const INFINITY = Infinity;
function fmod(a, b) { return a % b; }
function exp2(x) { return Math.pow(2, x); }

// Rounded to single precision.
function lq_f(x) { return Math.fround(x); }

// The low 32 bits of a whole number; what is no number gives 0.
function lq_word(whole) {
    const held = whole < -1e15 ? -1e15 : whole > 1e15 ? 1e15 : whole;
    return (Math.trunc(held) % 4294967296) >>> 0;
}

// 32 bits as a number from -2147483648 to 2147483647.
function lq_whole(word) { return word | 0; }

// One word to one word. M. Jarzynski and M. Olano, "Hash Functions for GPU Rendering", JCGT 9(3), 2020, listing of pcg.
function lq_pcg(v) {
    const state = (Math.imul(v >>> 0, 747796405) + 2891336453) >>> 0;
    const word = Math.imul((state >>> ((state >>> 28) + 4)) ^ state, 277803737) >>> 0;
    return ((word >>> 22) ^ word) >>> 0;
}

// A hash word as a number in 0..1.
function lq_unit(word) { return (word >>> 8) / 16777216; }

// Three words to three, of which this is one; listing of pcg3d, as above.
function lq_pcg3d(x, y, z, which) {
    let a = (Math.imul(x, 1664525) + 1013904223) | 0;
    let b = (Math.imul(y, 1664525) + 1013904223) | 0;
    let c = (Math.imul(z, 1664525) + 1013904223) | 0;
    a = (a + Math.imul(b, c)) | 0;
    b = (b + Math.imul(c, a)) | 0;
    c = (c + Math.imul(a, b)) | 0;
    a ^= a >>> 16;
    b ^= b >>> 16;
    c ^= c >>> 16;
    a = (a + Math.imul(b, c)) | 0;
    b = (b + Math.imul(c, a)) | 0;
    c = (c + Math.imul(a, b)) | 0;
    return (which === 0 ? a : which === 1 ? b : c) >>> 0;
}

// Whole numbers of 32 bits: what runs over goes round.
function lq_add_int(a, b) { return (a + b) | 0; }
function lq_subtract_int(a, b) { return (a - b) | 0; }
function lq_multiply_int(a, b) { return Math.imul(a, b); }
function lq_divide_int(a, b) { return b === 0 ? 0 : (a / b) | 0; }
function lq_remainder_int(a, b) { return b === 0 ? 0 : (a % b) | 0; }
function lq_divide_uint(a, b) { return lq_word(b) === 0 ? 0 : Math.trunc(lq_word(a) / lq_word(b)) | 0; }
function lq_remainder_uint(a, b) { return lq_word(b) === 0 ? 0 : (lq_word(a) % lq_word(b)) | 0; }
function lq_less_uint(a, b) { return lq_word(a) < lq_word(b) ? -1 : 0; }
function lq_from_uint(a) { return Math.fround(lq_word(a)); }
function lq_to_uint(x) { return !(x > 0) ? 0 : x >= 4294967296 ? -1 : Math.trunc(x) | 0; }
function lq_to_int(x) { return x !== x ? 0 : x >= 2147483648 ? 2147483647 : x < -2147483648 ? -2147483648 : Math.trunc(x) | 0; }
function lq_bit_and(a, b) { return a & b; }
function lq_bit_or(a, b) { return a | b; }
function lq_bit_xor(a, b) { return a ^ b; }
function lq_bit_not(a) { return ~a; }
function lq_shift_left(a, b) { return a << b; }
function lq_shift_right(a, b) { return a >> b; }
function lq_shift_right_uint(a, b) { return (a >>> b) | 0; }

// The bits of a single-precision number as a whole one, and back.
const lq_bits = new DataView(new ArrayBuffer(4));
function lq_bits_of(x) {
    lq_bits.setFloat32(0, x);
    return lq_bits.getInt32(0);
}
function lq_of_bits(whole) {
    lq_bits.setInt32(0, whole);
    return lq_bits.getFloat32(0);
}
