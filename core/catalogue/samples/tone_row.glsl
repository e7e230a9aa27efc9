// A table of one dimension: dark blues, warm lights.
float x = uv.x;
return vec4(smoothstep(0.0, 0.8, x), x * x * 0.9 + x * 0.1, mix(0.12, 0.7, x), 1);
