out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
int n = 0; float x = p.x; while (x < 3.0) { x *= 1.5; x += 0.1; if (n++ > 4) break; } int k = 0; do { k++; if (k == 3) continue; x += 0.01; } while (k < 5);float y = p.y; while ((y += 0.3) < 2.0) { if (y > 1.5) continue; n++; } c = vec4(x, float(n), y, float(k));
}
