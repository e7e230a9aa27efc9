out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
vec3 v = vec3(p, 0.5); int i = int(p.x * 3.0); v[i] = 0.9; v[2] += 0.1; c = vec4(v, v[i]);
}
