out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
float a, b = p.x; a = b += 0.5; int i = 3; i <<= 2; i |= 1; i %= 7; c = vec4(a, b, float(i), 1.0);
}
