out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
float w; float f = modf(p.x * 5.0, w); c = vec4(f, w, mod(p.y * 7.0, 3.0), mix(p.x, p.y, 0.25)) + vec4(min(vec3(p, 0.5), 0.4), step(0.5, p.x)) * clamp(vec4(p, p) * 2.0, 0.2, 0.9);
}
