out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
float a, b; a = 1.0, b = p.x; for (int i = 0, j = 5; i < j; i++, j--) a += float(i * j); c = vec4(a, b, (a, b), 1.0);
}
