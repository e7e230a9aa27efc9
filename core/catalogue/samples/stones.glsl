// A mask of hard shapes: stones on the beach, 0 or 1 but for their smooth edges.
vec2 p = (uv - 0.5) * vec2(aspect, 1);
float near = length((p - vec2(-0.33, 0.02)) * vec2(1, 1.3)) - 0.2;
near = min(near, length((p - vec2(0.27, 0.13)) * vec2(1, 1.4)) - 0.24);
near = min(near, length(p - vec2(0.12, -0.27)) - 0.13);
near = min(near, length(p - vec2(0.6, -0.2)) - 0.09);
return smoothstep(0.003, -0.003, near + (gradient_noise(p * 8) - 0.5) * 0.08);
