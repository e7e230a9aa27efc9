out vec4 c;
float f(float x) { if (x > 0.8) discard; return x; }
void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
if (p.y < 0.2) discard; c = vec4(f(p.x), p.y, 0.5, 1.0);
}
