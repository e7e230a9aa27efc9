out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
vec3 v = vec3(p, 0.5); bvec3 b = lessThan(v, vec3(0.4)); c = vec4(any(b), all(not(b)), float(equal(ivec2(p * 4.0), ivec2(1)).x), mix(v, vec3(1.0), b).x);
}
