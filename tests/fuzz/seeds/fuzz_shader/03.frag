out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
c = vec4(.5, 1., 1e-1, 2.5E-1f);
}
