// A small scene, three stones on a beach: where in the world, in metres, and which object.
vec3 eye = vec3(0, 1.3, 4);
vec3 way = vec3((uv.x - 0.5) * aspect, 0.36 - uv.y, -1.1);
float near = 900;
float id = 0;
if (way.y < -0.04) {
    near = -eye.y / way.y;
    id = 1;
}
for (int i = 0; i < 3; i++) {
    vec4 stone = i == 0 ? vec4(-1.05, 0.6, -0.3, 0.85) : i == 1 ? vec4(0.35, 0.5, 0.6, 0.62) : vec4(1.6, 0.9, -2.4, 1.25);
    vec3 from = eye - stone.xyz;
    float a = dot(way, way);
    float b = dot(from, way);
    float inner = b * b - a * (dot(from, from) - stone.w * stone.w);
    float hit = (-b - sqrt(max(inner, 0))) / a;
    if (inner > 0 && hit < near) {
        near = hit;
        id = float(i) + 2;
    }
}
return vec4(eye + way * near, id);
