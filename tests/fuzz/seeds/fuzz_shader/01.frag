out vec4 c;
#ifdef GL_ES
#define A 1
#else
#error no
#endif
#if A == 1 && defined(GL_ES) && !defined(B)
#define C 0.5
#elif 1
#define C 0.1
#endif
#undef A
#ifndef A
#define D 0.25
#endif
#if 0
nonsense here @ $ 'x
#endif
void main() {
    vec2 p = gl_FragCoord.xy / vec2(32.0, 18.0);
c = vec4(C, D, float(__VERSION__) / 1000.0, 1.0);
}
