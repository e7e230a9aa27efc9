out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
vec2 a = unpackHalf2x16(packHalf2x16(p * 3.0)); vec2 b = unpackSnorm2x16(packSnorm2x16(p - 0.5)); vec2 d = unpackUnorm2x16(packUnorm2x16(p)); c = vec4(a, b + d);
}
