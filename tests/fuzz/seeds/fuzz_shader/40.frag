#version 310 es
#extension GL_OES_standard_derivatives : enable
#extension all : warn
#if (0x10 + 010 - 3) * 2 / 2 % 7 != 1 && (1 << 2 >> 1) < 3 && 2 > 1 && 1 <= 1 && 3 >= 2
float a() { return float(__LINE__); }
#endif
out vec4 c; void main() { c = vec4(a()); }