// A mask or height: a soft round hill.
return smoothstep(0.42, 0.05, length((uv - 0.5) * vec2(aspect, 1)));
