out vec4 c;
#define TWICE(x) ((x) * 2.0)
#define N 3
#define SUM(a, b) \
 ((a) + (b))
void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
c = vec4(TWICE(p.x), SUM(p.y, TWICE(p.x)), float(N), 1.0);
}
