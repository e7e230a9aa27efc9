out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
vec4 v = vec4(p, 0.5, 1.0); v.zx = v.yy; v.rg += v.ba; vec3 w = v.stp; w.yz *= 2.0; c = vec4(w, v.w);
}
