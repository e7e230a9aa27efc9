out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
int i = 2; int a = i++; int b = ++i; float f = p.x; float g = f--; c = vec4(float(a + 10 * b), float(i), f, g);
}
