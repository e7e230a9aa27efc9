// Its colours.
float light = max(dot(shore_normal, normalize(vec3(0.5, 0.8, 0.4))), 0);
vec3 own = shore_at.w < 0.5 ? vec3(0.25, 0.4, 0.55) : shore_at.w < 1.5 ? vec3(0.55, 0.45, 0.3) : vec3(0.3, 0.31, 0.34);
return shore_at.w < 0.5 ? vec4(own, 1) : vec4(own * (0.25 + light), 1);
