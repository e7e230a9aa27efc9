//! title Reaction
//! group Flow
//! about Two substances that feed on each other make spots, stripes and mazes by themselves.
//! says {substances} react, fed by {feed}, taken by {kill}
//! shown reaction(vec2(1 - blotch, blotch), 0.035, 0.065)
//! picture substances 2 number : the food in the first number, the eater in the second, such as previous(reef)
//! value feed 1 number = 0.035 in 0..0.1 : food that comes in
//! value kill 1 number = 0.065 in 0..0.1 : eaters that are taken out
//! value pace 1 number = 480 in 0..480 a second : how fast it goes
//! stage reaction repeat 8
// Gray and Scott, "Autocatalytic reactions in the isothermal, continuous stirred tank reactor", Chem. Eng. Sci. 39 (1984); with
// the rates of spreading of Pearson, "Complex Patterns in a Simple System", Science 261 (1993): 2e-5 and 1e-5 on a grid of
// 2.5 / 256, from memory.
vec2 reaction(sampler2D substances, float feed, float kill, float pace) {
    vec2 one = 1 / vec2(textureSize(reaction));
    float step_length = clamp(pace * tick_length / 8, 0, 1);
    vec2 here = texture(reaction, uv);
    vec2 round = texture(reaction, uv + vec2(one.x, 0)) + texture(reaction, uv - vec2(one.x, 0)) +
                 texture(reaction, uv + vec2(0, one.y)) + texture(reaction, uv - vec2(0, one.y)) - here * 4;
    float eaten = here.x * here.y * here.y;
    vec2 change = vec2(0.2097152, 0.1048576) * round + vec2(feed * (1 - here.x) - eaten, eaten - (feed + kill) * here.y);
    return here + change * step_length;
}
