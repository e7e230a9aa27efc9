//! title Crease lines
//! group Scene
//! about Paints lines where the scene's depth jumps or its surface folds.
//! says lines {width} wide along edges and creases on {picture}
//! shown crease_lines(shore_view, shore_depth, shore_normal, 2, vec3(0.02))
//! picture picture 4 colour : what is painted on
//! picture depth 1 number : metres from the camera
//! picture normal 3 number : which way surfaces face
//! value width 1 number = 1.5 in 0.5..8 px : of the line
//! value colour 3 colour = vec3(0) : of the line
//! value jump 1 number = 0.05 in 0.001..1 : share of its depth by which it jumps
//! value fold 1 number = 35 in 1..180 deg : by which the surface turns
//! value reach 1 number = 30 in 1..1000 m : beyond it folds are left out, for they would flicker
//! value opacity 1 opacity = 1 in 0..1 : of the line
vec4 crease_lines(sampler2D picture, sampler2D depth, sampler2D normal, float width, vec3 colour, float jump, float fold, float reach, float opacity) {
    vec4 here = texture(picture, uv);
    vec2 x = vec2(pixel_size.x * width * 0.5, 0);
    vec2 y = vec2(0, pixel_size.y * width * 0.5);
    float own = texture(depth, uv);
    // How far from straight: a slope seen along its length does not count as a jump.
    float bent = max(abs(texture(depth, uv + x) + texture(depth, uv - x) - own * 2), abs(texture(depth, uv + y) + texture(depth, uv - y) - own * 2));
    float jumps = smoothstep(jump * 0.7, jump * 1.3, bent / max(own, 0.001));
    float across = dot(texture(normal, uv + x), texture(normal, uv - x));
    float down = dot(texture(normal, uv + y), texture(normal, uv - y));
    bool sky = dot(texture(normal, uv), texture(normal, uv)) < 0.25;
    // By cosines: they fall as the angle grows.
    float sharp = cos(radians(min(fold * 1.2, 180)));
    float blunt = cos(radians(min(fold * 0.8, 179)));
    float folds = sky ? 0.0 : (1 - smoothstep(sharp, blunt, min(across, down))) * (1 - smoothstep(reach * 0.8, reach * 1.2, own));
    float line = max(jumps, folds) * opacity;
    return composite(here, vec4(colour, line), colour, 1);
}
