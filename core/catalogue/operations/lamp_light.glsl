//! title Lamp light
//! group Scene
//! about The light that a lamp throws on a sprite which faces this way; several are added up.
//! says light of a lamp at {lamp} on {facing}
//! shown vec4(vec3(0.7, 0.6, 0.5) * lamp_light(shore_normal + vec3(0, 0, 0.01), vec3(0.25, 0.2, 0.25), vec3(1.6, 1.2, 0.8), 0.6), 1)
//! value facing 3 number = vec3(0, 0, 1) : which way the surface faces: right, up, towards you
//! value lamp 3 coordinate = vec3(0.3, 0.2, 0.3) : where it is: across and down the frame, and how far before it in frame heights
//! value colour 3 colour = vec3(1) : of the lamp, brighter than white if wanted
//! value reach 1 number = 0.5 in 0.01..4 : frame heights at which it is half as bright
//! value where 2 coordinate = uv : the places it is drawn at
vec3 lamp_light(vec3 facing, vec3 lamp, vec3 colour, float reach, vec2 where) {
    vec3 to = vec3((lamp.x - where.x) * aspect, where.y - lamp.y, lamp.z);
    float share = 1 / (1 + dot(to, to) / (reach * reach));
    return colour * max(dot(normalize(facing), normalize(to)), 0) * share;
}
