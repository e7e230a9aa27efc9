out vec4 c;
const float weights[3] = float[3](0.2, 0.5, 0.3);
void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
float a[4]; for (int i = 0; i < 4; i++) a[i] = p.x * float(i); int at = int(p.y * 4.0); a[at] += 1.0;vec2[] v = vec2[](p, p.yx); float sum = 0.0; for (int i = 0; i < weights.length(); ++i) sum += weights[i] * a[i];c = vec4(sum, a[at], v[at / 2].x, float(a.length()));
}
