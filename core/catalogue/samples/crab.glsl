// A crab as a sprite: clear around it, with an ugly colour hidden where it is clear.
vec2 p = (uv - 0.5) * vec2(aspect, 1);
p.x = abs(p.x);
float shell = length(p * vec2(1, 1.45) - vec2(0, 0.04)) - 0.21;
float legs = 1;
for (int i = 0; i < 4; i++) {
    float k = float(i);
    vec2 knee = vec2(0.33 + 0.02 * k, -0.02 + 0.075 * k);
    vec2 root = vec2(0.15, 0.02 + 0.03 * k);
    vec2 toe = knee + vec2(0.06, 0.11 + 0.01 * k);
    vec2 a = p - root;
    vec2 b = knee - root;
    legs = min(legs, length(a - b * clamp(dot(a, b) / dot(b, b), 0, 1)) - 0.02);
    a = p - knee;
    b = toe - knee;
    legs = min(legs, length(a - b * clamp(dot(a, b) / dot(b, b), 0, 1)) - 0.014);
}
vec2 arm = p - vec2(0.17, -0.04);
vec2 reach = vec2(0.14, -0.18);
float claw = length(arm - reach * clamp(dot(arm, reach) / dot(reach, reach), 0, 1)) - 0.026;
vec2 grip = p - vec2(0.33, -0.28);
float hand = max(length(grip * vec2(1, 0.8)) - 0.095, -(length((grip - vec2(-0.03, -0.09)) * vec2(1.6, 0.9)) - 0.075));
claw = min(claw, hand);
float stalk = length(p - vec2(0.07, clamp(p.y, -0.16, 0))) - 0.012;
float eye = length(p - vec2(0.07, -0.175)) - 0.03;
float body = min(min(shell, legs), min(claw, min(stalk, eye)));
vec3 colour = mix(vec3(0.75, 0.17, 0.05), vec3(0.32, 0.04, 0.03), smoothstep(-0.12, 0.14, p.y));
colour = mix(colour, vec3(0.95, 0.5, 0.25), smoothstep(0.52, 0.62, gradient_noise(p * 17 + 5)) * step(shell, 0));
colour = mix(colour, vec3(0.24, 0.03, 0.02), smoothstep(0.0, 0.012, abs(shell + 0.012) - 0.002) < 0.5 ? 0.8 : 0.0);
colour = mix(colour, vec3(0.9, 0.88, 0.8), step(eye, 0));
colour = mix(colour, vec3(0.02), step(length(p - vec2(0.075, -0.18)), 0.014));
float there = smoothstep(0.003, -0.003, body);
return vec4(there > 0 ? colour : vec3(0.1, 0.9, 0.25), there);
