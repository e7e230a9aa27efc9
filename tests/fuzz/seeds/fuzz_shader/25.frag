out vec4 c;

void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
float f = p.x * p.x + p.y; c = vec4(dFdx(f), dFdy(f), fwidth(f), 1.0);
}
