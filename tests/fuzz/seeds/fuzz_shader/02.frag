out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
c = vec4(float(0x1F) / 64.0, float(017) / 64.0, float(5u) / 8.0, float(1 / 2) + 0.5);
}
