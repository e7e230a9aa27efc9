float a;
#version 300 es
