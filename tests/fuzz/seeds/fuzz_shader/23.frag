out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
mat3 m = mat3(2.0 + p.x, 0.2, 0.3, 0.4, 1.0 + p.y, 0.6, 0.7, 0.8, 3.0); mat4 k = mat4(m); k[3] = vec4(0.1, 0.2, p.x, 2.0); mat4 i = inverse(k);mat3x2 o = outerProduct(p, vec3(p, 1.0)); c = vec4(determinant(m), determinant(k), (inverse(m) * vec3(p, 1.0)).x, (transpose(o) * p).z) + i * vec4(p, 0.5, 1.0) + vec4(matrixCompMult(m, m)[1], 0.0);
}
