out vec4 c;
void split(in float x, out float whole, inout float rest) { whole = floor(x); rest += x - whole; if (rest > 1.5) return; rest *= 0.5; }
void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
float w, r = 0.75; split(p.x * 5.0, w, r); vec3 v = vec3(0.0); split(p.y * 3.0, v.y, v.z); c = vec4(w, r, v.yz);
}
