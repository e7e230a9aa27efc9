out vec4 c;
precision mediump float; const highp float k = 2.0 * 3.14; const ivec2 n = ivec2(3, 4);
void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
const float half_k = k / 2.0; lowp float x = p.x; c = vec4(half_k * x, float(n.x), p);
}
