#version 300 es
// Borrowed light: the lamp's beams sweep through fog over a picture, broken by the panes of the lamp room.
precision highp float;

uniform sampler2D scene;
uniform float time;
uniform vec2 resolution;
uniform float beamWidth;      // 0.02..0.6 how wide a beam is
uniform float turnSpeed;      // 0..2 turns in ten seconds
uniform int panes;            // 3..12 of the lamp room
uniform vec3 lampColour;      // of the light that the fog keeps
uniform float fogDepth;       // 0..1 how much of the light the fog keeps

out vec4 colour;

#define PI 3.14159265
#define TAU (2.0 * PI)
#define BEAMS 3
#define SOFTLY(edge, x) smoothstep(0.0, (edge), (x))

const vec2 lamp = vec2(0.487, 0.875);
const float strengths[BEAMS] = float[BEAMS](1.0, 0.55, 0.3);

struct Ray {
    float angle;
    float far;
};

mat2 turned(float angle) {
    float c = cos(angle), s = sin(angle);
    return mat2(c, s, -s, c);
}

float grain(vec2 p) {
    vec2 cell = floor(p), part = fract(p);
    part = part * part * (3.0 - 2.0 * part);
    float corner[4];
    for (int i = 0; i < 4; i++) {
        vec2 at = cell + vec2(float(i & 1), float(i >> 1));
        corner[i] = fract(52.9829189 * fract(dot(at, vec2(0.06711056, 0.00583715))));
    }
    return mix(mix(corner[0], corner[1], part.x), mix(corner[2], corner[3], part.x), part.y);
}

void towards(vec2 p, out Ray ray) {
    ray.angle = atan(p.y, p.x);
    ray.far = length(p);
}

float beam(Ray ray, int which) {
    float middle = TAU * float(which) / float(BEAMS) + time * turnSpeed * TAU / 10.0;
    float off = abs(mod(ray.angle - middle + PI, TAU) - PI);
    return strengths[which] * (1.0 - SOFTLY(beamWidth, off)) / (1.0 + 3.0 * ray.far);
}

void main() {
    vec2 uv = gl_FragCoord.xy / resolution;
    vec2 p = (uv - lamp) * vec2(resolution.x / resolution.y, 1.0);
    Ray ray;
    towards(p, ray);
    float light = 0.0;
    for (int i = 0; i < BEAMS; i++) light += beam(ray, i);
    float bars = SOFTLY(0.35, abs(sin(ray.angle * float(panes) * 0.5)));
    vec2 drift = turned(0.4) * p * 6.0 + vec2(time * 0.3, 0.0);
    float fog = 0.6 * grain(drift) + 0.4 * grain(drift * 2.3 + 7.0);
    float lit = light * mix(1.0, bars, exp(-2.0 * ray.far)) * mix(1.0, fog, fogDepth);
    vec3 seen = texture(scene, uv).rgb;
    colour = vec4(seen * (0.75 + 0.5 * lit) + lampColour * lit * fogDepth, 1.0);
}
