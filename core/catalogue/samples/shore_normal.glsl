// Which way the surface faces.
vec3 at = shore_at.xyz;
if (shore_at.w < 0.5) return vec3(0);
if (shore_at.w < 1.5) return vec3(0, 1, 0);
vec3 middle = shore_at.w < 2.5 ? vec3(-1.05, 0.6, -0.3) : shore_at.w < 3.5 ? vec3(0.35, 0.5, 0.6) : vec3(1.6, 0.9, -2.4);
return normalize(at - middle);
