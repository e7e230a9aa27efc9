out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
mat3 m = mat3(p.x, 0.2, 0.3, 0.4, p.y, 0.6, 0.7, 0.8, 0.9); vec3 v = m * vec3(p, 1.0); v += vec3(p, 0.5) * m;mat2x3 n = mat2x3(p.x, 1.0, 2.0, 3.0, p.y, 5.0); vec3 w = n * p; vec2 q = w * n;mat4 k = mat4(2.0); k[1] = vec4(p, p); k[3][2] = p.x; vec4 r = k * vec4(p, 0.0, 1.0);c = vec4(v.xy * 0.1, q * 0.01) + r * 0.1 + vec4((mat3(k) * m)[1], mat2(m)[1].x);
}
