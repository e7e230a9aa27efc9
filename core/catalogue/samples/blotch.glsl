// A mask from 0 to 1 with soft blotches.
vec2 p = uv * vec2(aspect, 1);
return clamp((gradient_noise(p * 4 + 9) * 0.65 + gradient_noise(p * 11) * 0.35 - 0.5) * 2.2 + 0.5, 0, 1);
