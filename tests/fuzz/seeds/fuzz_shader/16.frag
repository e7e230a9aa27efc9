out vec4 c;
mat2 turn(float a) { for (int i = 0; i < 5; i++) { for (int j = 0; j < 3; j++) if (float(i * j) > a * 9.0) return mat2(float(i), 0.0, float(j), 1.0); } return mat2(1.0); }
void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
mat2 m = turn(p.x); c = vec4(m[0], m[1]);
}
