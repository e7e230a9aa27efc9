out vec4 c;
float total = 0.5; int calls = 0; float add(float x) { total += x; calls++; return total; }
void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
float a = add(p.x); a += add(p.y); c = vec4(a, total, float(calls), 1.0);
}
