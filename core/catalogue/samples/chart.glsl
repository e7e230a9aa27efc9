// A sea chart: paper, a grid of straight lines, coasts with lines of equal depth, a course.
vec2 p = (uv - 0.5) * vec2(aspect, 1);
float land = gradient_noise(p * 2.3 + vec2(7.3, 2.1)) * 0.75 + gradient_noise(p * 7 + 4) * 0.25;
vec3 colour = mix(vec3(0.33, 0.56, 0.62), vec3(0.6, 0.74, 0.72), smoothstep(0.2, 0.55, land));
float line = abs(fract(land * 16) - 0.5);
colour *= 1 - 0.25 * smoothstep(0.12, 0.04, line) * step(land, 0.55);
colour = mix(colour, vec3(0.78, 0.62, 0.36), smoothstep(0.548, 0.552, land));
colour = mix(colour, vec3(0.25, 0.16, 0.08), smoothstep(0.012, 0.006, abs(land - 0.55)));
vec2 cell = abs(fract(p * 6 + 0.5) - 0.5) / 6;
colour = mix(colour, vec3(0.12, 0.14, 0.2), smoothstep(0.0045, 0.002, min(cell.x, cell.y)));
float course = abs(p.y * 0.8 + p.x * 0.35 + 0.06);
colour = mix(colour, vec3(0.75, 0.05, 0.03), smoothstep(0.009, 0.005, course) * step(0.35, fract(p.x * 14)));
return vec4(colour, 1);
