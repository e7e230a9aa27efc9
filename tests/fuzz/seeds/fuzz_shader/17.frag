out vec4 c;
int pick(int i) { switch (i) { case 0: return 7; case 1: case 2: i += 10; break; default: i = 50; case 4: i++; } return i; }
void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
float s = 0.0; for (int i = 0; i < 6; i++) { switch (i) { case 3: continue; case 4: s += 0.5; break; default: s += 1.0; } s += 0.1; }c = vec4(float(pick(int(p.x * 6.0))), float(pick(2)), s, 1.0);
}
