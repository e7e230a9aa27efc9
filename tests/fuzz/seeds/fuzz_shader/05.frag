out vec4 c;
struct Light { vec3 colour; float size; }; struct Pair { Light a; Light b; int n[2]; };
void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
Pair s; s.a = Light(vec3(p, 0.5), 2.0); s.b = s.a; s.b.size *= p.x; s.n[1] = 3; Pair t = s; t.a.colour.x += 1.0;c = vec4(t.a.colour * t.b.size, float(t.n[1]) * (s.a == t.b ? 1.0 : 0.5) + s.a.colour.x);
}
