out vec4 c;
float f(float x) { return x * 2.0; } vec2 f(vec2 x) { return x * 3.0; } float g(float x); float g(float x) { x += 1.0; return f(x); }
void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
c = vec4(f(p.x), f(p), g(p.y));
}
