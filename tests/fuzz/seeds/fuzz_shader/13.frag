out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
int n = 0; bool t = p.x > 0.5 && n++ == 0; float v = p.y > 0.5 ? (n += 10, 0.25) : float(n -= 3); c = vec4(float(n), v, t, 1.0);
}
