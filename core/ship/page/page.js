// A host of a set: draws its passes with WebGL 2, drives them by its play.

const data = JSON.parse(document.getElementById('data').textContent);
const { manifest, shaders, grounds, tape } = data;
const element = (id) => document.getElementById(id);
const canvas = element('picture');
const gl = canvas.getContext('webgl2', { alpha: true, premultipliedAlpha: true, preserveDrawingBuffer: true, antialias: false });

function say(words) { element('said').textContent = words; }

const wholeFrame = `#version 300 es
void main() {
    gl_Position = vec4(gl_VertexID == 1 ? 3.0 : -1.0, gl_VertexID == 2 ? 3.0 : -1.0, 0.0, 1.0);
}
`;

// Display values to linear light (IEC 61966-2-1), as they come from a file.
const decoding = `#version 300 es
precision highp float;
uniform highp sampler2D encoded;
out vec4 colour;
void main() {
    vec4 c = texelFetch(encoded, ivec2(gl_FragCoord.xy), 0);
    vec3 low = c.rgb / 12.92;
    vec3 high = pow((c.rgb + 0.055) / 1.055, vec3(2.4));
    colour = vec4(mix(high, low, lessThanEqual(c.rgb, vec3(0.04045))), c.a);
}
`;

// Linear light to display values on a canvas whose first row is the lowest.
const showing = `#version 300 es
precision highp float;
uniform highp sampler2D finished;
uniform vec2 shown_size;
out vec4 colour;
void main() {
    vec2 where = vec2(gl_FragCoord.x, shown_size.y - gl_FragCoord.y) / shown_size;
    vec4 c = texelFetch(finished, ivec2(where * vec2(textureSize(finished, 0))), 0);
    c = clamp(c, 0.0, 1.0);
    vec3 low = c.rgb * 12.92;
    vec3 high = 1.055 * pow(max(c.rgb, vec3(0.0)), vec3(1.0 / 2.4)) - 0.055;
    vec3 shown = mix(high, low, lessThanEqual(c.rgb, vec3(0.0031308)));
    colour = vec4(shown * c.a, c.a);
}
`;

// Each pixel the mean of those that it covers, whatever the two sizes.
const averaging = `#version 300 es
precision highp float;
uniform highp sampler2D larger;
uniform ivec2 from;
uniform ivec2 to;
out vec4 mean;
void main() {
    ivec2 pixel = ivec2(gl_FragCoord.xy);
    ivec2 begin = pixel * from / to;
    ivec2 end = max(begin + 1, (pixel + 1) * from / to);
    vec4 sum = vec4(0.0);
    for (int y = begin.y; y < end.y; y++) {
        for (int x = begin.x; x < end.x; x++) sum += texelFetch(larger, ivec2(x, y), 0);
    }
    mean = sum / float((end.x - begin.x) * (end.y - begin.y));
}
`;

function compiled(kind, text) {
    const shader = gl.createShader(kind);
    gl.shaderSource(shader, text);
    gl.compileShader(shader);
    if (!gl.getShaderParameter(shader, gl.COMPILE_STATUS)) throw new Error(gl.getShaderInfoLog(shader));
    return shader;
}

function program(text) {
    const made = gl.createProgram();
    gl.attachShader(made, compiled(gl.VERTEX_SHADER, wholeFrame));
    gl.attachShader(made, compiled(gl.FRAGMENT_SHADER, text));
    gl.linkProgram(made);
    if (!gl.getProgramParameter(made, gl.LINK_STATUS)) throw new Error(gl.getProgramInfoLog(made));
    return made;
}

const formats = {
    1: ['R32F', 'RED'], 2: ['RG32F', 'RG'], 4: ['RGBA32F', 'RGBA'],
};

// A picture of floats; `values` may be null.
function picture(width, height, channels, values) {
    const texture = gl.createTexture();
    gl.bindTexture(gl.TEXTURE_2D, texture);
    const [inside, outside] = formats[channels];
    gl.texImage2D(gl.TEXTURE_2D, 0, gl[inside], width, height, 0, gl[outside], gl.FLOAT, values);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MAX_LEVEL, 0);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.NEAREST);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MAG_FILTER, gl.NEAREST);
    return { texture, width, height, channels };
}

let frame = null;

function drawTo(target, made, uniforms) {
    gl.bindFramebuffer(gl.FRAMEBUFFER, target ? frame : null);
    if (target) gl.framebufferTexture2D(gl.FRAMEBUFFER, gl.COLOR_ATTACHMENT0, gl.TEXTURE_2D, target.texture, 0);
    gl.viewport(0, 0, target ? target.width : canvas.width, target ? target.height : canvas.height);
    gl.useProgram(made);
    uniforms(made);
    gl.drawArrays(gl.TRIANGLES, 0, 3);
}

function bind(made, unit, name, from) {
    gl.activeTexture(gl.TEXTURE0 + unit);
    gl.bindTexture(gl.TEXTURE_2D, from.texture);
    gl.uniform1i(gl.getUniformLocation(made, name), unit);
}

const native = manifest.reading === 'native';
const wraps = { clamp: 'CLAMP_TO_EDGE', repeat: 'REPEAT', mirror: 'MIRRORED_REPEAT' };

// How the sampler itself reads it, where the shader leaves that to it.
function filterAs(entry, hasCopies) {
    const linear = entry.filter === 'linear' && filtersFloats;
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_WRAP_S, gl[wraps[entry.wrap]]);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_WRAP_T, gl[wraps[entry.wrap]]);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MAG_FILTER, linear ? gl.LINEAR : gl.NEAREST);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER,
        hasCopies ? (linear ? gl.LINEAR_MIPMAP_LINEAR : gl.NEAREST_MIPMAP_NEAREST) : linear ? gl.LINEAR : gl.NEAREST);
}

// Copies at half the size, a quarter and so on.
function addSmallerCopies(of) {
    let { width, height } = of;
    let level = 0;
    let from = of;
    while (width > 1 || height > 1) {
        const next = { width: Math.max(1, width >> 1), height: Math.max(1, height >> 1) };
        const copy = picture(next.width, next.height, of.channels, null);
        drawTo(copy, averagingProgram, (made) => {
            bind(made, 0, 'larger', from);
            gl.uniform2i(gl.getUniformLocation(made, 'from'), width, height);
            gl.uniform2i(gl.getUniformLocation(made, 'to'), next.width, next.height);
        });
        level += 1;
        gl.activeTexture(gl.TEXTURE0);
        gl.bindTexture(gl.TEXTURE_2D, of.texture);
        const [inside, outside] = formats[of.channels];
        gl.texImage2D(gl.TEXTURE_2D, level, gl[inside], next.width, next.height, 0, gl[outside], gl.FLOAT, null);
        gl.copyTexSubImage2D(gl.TEXTURE_2D, level, 0, 0, 0, 0, next.width, next.height);
        if (from !== of) gl.deleteTexture(from.texture);
        from = copy;
        ({ width, height } = next);
    }
    if (from !== of) gl.deleteTexture(from.texture);
    gl.bindTexture(gl.TEXTURE_2D, of.texture);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MAX_LEVEL, level);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.NEAREST_MIPMAP_NEAREST);
    of.hasCopies = true;
}

let filtersFloats = false;
let averagingProgram = null;
let decodingProgram = null;
let showingProgram = null;
const programs = [];
const pictures = new Map();  // grounds and tables
const playedGrounds = new Map();
let stored = new Map();      // what passes of a frame store
let kept = new Map();        // what ticks leave: now and before

function bytesOf(base64) {
    const text = atob(base64);
    const bytes = new Uint8Array(text.length);
    for (let i = 0; i < text.length; ++i) bytes[i] = text.charCodeAt(i);
    return bytes;
}

async function inflated(bytes) {
    const stream = new Blob([bytes]).stream().pipeThrough(new DecompressionStream('deflate'));
    return new Uint8Array(await new Response(stream).arrayBuffer());
}

// The four bytes of floats stand apart, so that they are packed better.
function floatsOf(planes) {
    const count = planes.length / 4;
    const bytes = new Uint8Array(planes.length);
    for (let i = 0; i < count; ++i) {
        for (let k = 0; k < 4; ++k) bytes[4 * i + k] = planes[k * count + i];
    }
    return new Float32Array(bytes.buffer);
}

async function loadGround(ground) {
    if (!ground.is_png) {
        const values = floatsOf(await inflated(bytesOf(ground.bytes)));
        let channels = ground.channels;
        let given = values;
        if (channels === 3) {
            channels = 4;
            given = new Float32Array(values.length / 3 * 4);
            for (let i = 0; i < values.length / 3; ++i) given.set([values[3 * i], values[3 * i + 1], values[3 * i + 2], 1], 4 * i);
        }
        return picture(ground.width, ground.height, channels, given);
    }
    const blob = new Blob([bytesOf(ground.bytes)], { type: 'image/png' });
    const bitmap = await createImageBitmap(blob, { colorSpaceConversion: 'none', premultiplyAlpha: 'none' });
    const encoded = gl.createTexture();
    gl.bindTexture(gl.TEXTURE_2D, encoded);
    gl.pixelStorei(gl.UNPACK_PREMULTIPLY_ALPHA_WEBGL, false);
    gl.pixelStorei(gl.UNPACK_COLORSPACE_CONVERSION_WEBGL, gl.NONE);
    gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA8, gl.RGBA, gl.UNSIGNED_BYTE, bitmap);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.NEAREST);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MAG_FILTER, gl.NEAREST);
    const made = picture(bitmap.width, bitmap.height, 4, null);
    drawTo(made, decodingProgram, (used) => bind(used, 0, 'encoded', { texture: encoded }));
    gl.deleteTexture(encoded);
    return made;
}

// Time and play.

const cueNames = Object.keys(lacquerPlay.cues);
const settings = {};  // of dials that nothing drives, from the beginning on
const held = {};      // of driven dials that a hand holds
let events = [];      // of the tape and of hands, in order of time
let state = lacquerPlay.state();
let values = lacquerPlay.values();
let told = 0;         // how many events play has been told of
let toldUntil = -1;
let time = 0;
let isPlaying = false;
let isBefore = false;
let size = { width: manifest.frame.width, height: manifest.frame.height };

function beginPlay() {
    state = lacquerPlay.state();
    lacquerPlay.init(state);
    for (const [name, value] of Object.entries(settings)) lacquerPlay.sets[name](state, 0, ...value);
    told = 0;
    toldUntil = -1;
}

function tell(event) {
    if (event.cue !== undefined) {
        lacquerPlay.cues[event.cue](state, event.at, event.strength, event.direction, event.x, event.y, event.object);
    } else if (lacquerPlay.sets[event.set]) {
        lacquerPlay.sets[event.set](state, event.at, ...event.value);
    }
}

// All values at a time.
function valuesAt(seconds) {
    if (seconds < toldUntil) beginPlay();
    while (told < events.length && events[told].at <= seconds) tell(events[told++]);
    toldUntil = seconds;
    lacquerPlay.at(state, seconds, values);
    for (const [name, value] of Object.entries(held)) {
        if (Array.isArray(values[name])) values[name].splice(0, value.length, ...value);
        else values[name] = value[0];
    }
    return values;
}

function add(event) {
    let place = events.length;
    while (place > 0 && events[place - 1].at > event.at) --place;
    events.splice(place, 0, event);
    if (event.at < toldUntil || place < told) beginPlay();
}

// Drawing.

function uniformValue(source, seconds, drawn, tick) {
    switch (source) {
        case 'time': return [seconds];
        case 'frame_size': return [size.width, size.height];
        case 'pixel_size': return [1 / size.width, 1 / size.height];
        case 'aspect': return [size.width / size.height];
        case 'lq_drawn_size': return [drawn.width, drawn.height];
        case 'tick': return [tick.since];
        case 'tick_length': return [1 / tickRate];
        case 'tick_part': return [tick.part];
        default: {
            const value = values[data.fields[source]];
            return Array.isArray(value) ? value : [value === undefined ? 0 : value];
        }
    }
}

function setUniform(made, uniform, value) {
    const place = gl.getUniformLocation(made, uniform.name);
    if (place === null) return;
    if (uniform.type === 'float') gl.uniform1f(place, value[0]);
    else if (uniform.type === 'vec2') gl.uniform2f(place, value[0], value[1]);
    else if (uniform.type === 'vec3') gl.uniform3f(place, value[0], value[1], value[2]);
    else if (uniform.type === 'vec4') gl.uniform4f(place, value[0], value[1], value[2], value[3]);
    else gl.uniform1i(place, value[0]);
}

const clear = new Float32Array(4);
let clearPicture = null;
let blackPicture = null;  // for what was not there when this was shipped

// Droplets as they were over the tape; at the page's own moment they are there in full.
let groundTime = 0;
function playedPicture(name) {
    const played = playedGrounds.get(name);
    if (!played || Math.abs(groundTime - data.moment) < 0.5 / played.rate) return null;
    return played.frames[Math.min(Math.max(Math.round(groundTime * played.rate), 0), played.frames.length - 1)];
}

async function loadPlayed() {
    for (const played of data.played) {
        const frames = [];
        for (const each of played.frames) frames.push(await loadGround(each));
        if (frames.length) playedGrounds.set(played.name, { rate: played.rate, frames });
    }
    showSoon();
}

function source(entry) {
    return playedPicture(entry.source) || stored.get(entry.source) || kept.get(entry.source) || pictures.get(entry.source) ||
        (entry.kind === 'ground' ? blackPicture : clearPicture);
}

// Draws a pass and gives what it drew. Targets of a frame are used again; those of ticks are handed over.
const targets = new Map();
function drawPass(pass, number, seconds, tick) {
    const width = Math.max(1, Math.round(size.width * pass.scale));
    const height = Math.max(1, Math.round(size.height * pass.scale));
    const write = pass.writes[0];
    const channels = { r32f: 1, rg32f: 2, rgba32f: 4 }[write.format];
    const key = pass.name;
    groundTime = seconds;
    let target = pass.at_each === 'frame' ? targets.get(key) : null;
    if (!target || target.width !== width || target.height !== height || target.hasCopies) {
        if (target) gl.deleteTexture(target.texture);
        target = picture(width, height, channels, null);
        if (pass.at_each === 'frame') targets.set(key, target);
    }
    for (const entry of pass.pictures) {
        const from = source(entry);
        if (entry.smaller_copies && !from.hasCopies) addSmallerCopies(from);
    }
    drawTo(target, programs[number], (made) => {
        pass.pictures.forEach((entry, unit) => {
            const from = source(entry);
            bind(made, unit, entry.name, from);
            if (native) filterAs(entry, from.hasCopies);
        });
        for (const uniform of pass.uniforms) setUniform(made, uniform, uniformValue(uniform.source, seconds, target, tick));
    });
    return target;
}

const tickRate = manifest.ticks ? manifest.ticks.rate : 60;
const mostTicks = 1200;  // that are drawn for one frame
let lastTick = -1;
let beginTick = 0;
let ticksOf = '';

function drop(name) {
    const old = kept.get(name);
    kept.delete(name);
    if (old && ![...kept.values()].includes(old)) gl.deleteTexture(old.texture);
}

function forgetTicks() {
    for (const name of [...kept.keys()]) drop(name);
    lastTick = -1;
    beginTick = 0;
}

function beginsAt(tick) {
    const reset = manifest.ticks.reset;
    if (!reset) return false;
    const until = tick / tickRate;
    const from = (tick - 1) / tickRate;
    return events.some((event) => event.at > from && event.at <= until &&
        (event.cue === reset || (event.set === reset && event.value[0] > 0.5)));
}

function drawTick(tick) {
    if (tick === 0 || beginsAt(tick)) {
        for (const name of [...kept.keys()]) drop(name);
        beginTick = tick;
    }
    const seconds = tick / tickRate;
    valuesAt(seconds);
    const moment = { since: tick - beginTick, part: 0 };
    if (kept.size === 0) {
        const starts = new Map();
        manifest.passes.forEach((pass, number) => {
            if (pass.at_each !== 'start') return;
            const drawn = drawPass(pass, number, seconds, moment);
            stored.set(pass.writes[0].name, drawn);
            starts.set(pass.writes[0].name, drawn);
        });
        for (const step of manifest.ticks.keeps) {
            if (step.starts_by) kept.set(step.previous, starts.get(step.starts_by));
        }
    } else {
        // What was present is previous now.
        for (const step of manifest.ticks.keeps) {
            const present = kept.get(step.present);
            drop(step.previous);
            if (present) kept.set(step.previous, present);
            kept.delete(step.present);
        }
    }
    const drawn = new Map();
    manifest.passes.forEach((pass, number) => {
        if (pass.at_each !== 'tick') return;
        const target = drawPass(pass, number, seconds, moment);
        stored.set(pass.writes[0].name, target);
        drawn.set(pass.writes[0].name, target);
    });
    for (const step of manifest.ticks.keeps) {
        kept.set(step.present, drawn.get(step.step));
        if (!kept.has(step.previous)) kept.set(step.previous, drawn.get(step.step));
        drawn.delete(step.step);
    }
    for (const target of drawn.values()) gl.deleteTexture(target.texture);
    stored = new Map();
    lastTick = tick;
}

function drawFrame(seconds) {
    const tick = Math.floor(seconds * tickRate + 1e-6);
    if (manifest.ticks) {
        const now = `${size.width} ${size.height}`;
        if (tick < lastTick || ticksOf !== now) forgetTicks();
        ticksOf = now;
        if (tick - lastTick > mostTicks) lastTick = tick - mostTicks;
        if (toldUntil > (lastTick + 1) / tickRate) beginPlay();
        while (lastTick < tick) drawTick(lastTick + 1);
    }
    valuesAt(seconds);
    const moment = { since: tick - beginTick, part: Math.min(Math.max(seconds * tickRate - tick, 0), 1) };
    stored = new Map();
    let last = null;
    manifest.passes.forEach((pass, number) => {
        if (pass.at_each !== 'frame') return;
        last = drawPass(pass, number, seconds, moment);
        stored.set(pass.writes[0].name, last);
    });
    return last || clearPicture;
}

function show() {
    const finished = drawFrame(time);
    const ground = manifest.grounds.map((each) => pictures.get(each.name)).find((each) => each && each.channels === 4);
    const shown = isBefore && ground ? ground : finished;
    if (canvas.width !== size.width || canvas.height !== size.height) {
        canvas.width = size.width;
        canvas.height = size.height;
    }
    drawTo(null, showingProgram, (made) => {
        bind(made, 0, 'finished', shown);
        gl.uniform2f(gl.getUniformLocation(made, 'shown_size'), canvas.width, canvas.height);
    });
    element('clock').textContent = `${time.toFixed(2)} s`;
    element('time').value = String(time);
    for (const update of updates) update();
}

let wanted = false;
function showSoon() {
    if (wanted) return;
    wanted = true;
    requestAnimationFrame(() => { wanted = false; advance(performance.now()); });
}

let lastNow = 0;
function advance(now) {
    if (isPlaying) {
        time += Math.min((now - lastNow) / 1000, 0.1);
        if (time >= manifest.length) beginAnew();
        showSoon();
    }
    lastNow = now;
    show();
}

// The tape from its beginning, and nothing else.
function beginAnew() {
    time = 0;
    events = tape.slice();
    beginPlay();
    forgetTicks();
}

function setPlaying(plays) {
    isPlaying = plays;
    element('play').textContent = plays ? 'Stop' : 'Play';
    lastNow = performance.now();
    showSoon();
}

// What people do.

const updates = [];

function pressCue(name) {
    const cue = manifest.cues.find((each) => each.name === name);
    add({ at: time, cue: data.cues[name], strength: cue.strength, direction: cue.direction, x: 0.5, y: 0.5, object: 0 });
    say(`${spoken(name)} at ${time.toFixed(2)} s`);
    if (!isPlaying) setPlaying(true);
    showSoon();
}

function spoken(name) { return name.replaceAll('_', ' '); }

function row(into, name, note) {
    const made = document.createElement('div');
    made.className = 'row';
    const label = document.createElement('label');
    label.textContent = spoken(name);
    label.htmlFor = `of-${name}`;
    made.append(label);
    if (note) made.title = note;
    into.append(made);
    return made;
}

function colourText(parts) {
    const byte = (x) => Math.round(255 * (x <= 0.0031308 ? 12.92 * x : 1.055 * Math.pow(Math.min(x, 1), 1 / 2.4) - 0.055));
    return '#' + parts.map((part) => byte(Math.min(Math.max(part, 0), 1)).toString(16).padStart(2, '0')).join('');
}

function colourParts(text) {
    return [1, 3, 5].map((k) => {
        const x = parseInt(text.slice(k, k + 2), 16) / 255;
        return x <= 0.04045 ? x / 12.92 : Math.pow((x + 0.055) / 1.055, 2.4);
    });
}

function shownNumber(value, unit) {
    const digits = Math.abs(value) >= 100 ? 0 : Math.abs(value) >= 10 ? 1 : 2;
    return value.toFixed(digits) + (unit ? ` ${unit}` : '');
}

// A dial or signal: `change` is told of new values.
function control(into, thing, change) {
    const made = row(into, thing.name, thing.note);
    const input = document.createElement('input');
    const output = document.createElement('output');
    input.id = `of-${thing.name}`;
    const field = data.fields[thing.name];
    const now = () => { const value = values[field]; return Array.isArray(value) ? Array.from(value) : [value]; };
    if (thing.as === 'switch') input.type = 'checkbox';
    else if (thing.as === 'colour') input.type = 'color';
    else {
        input.type = 'range';
        input.min = thing.least;
        input.max = thing.most;
        input.step = thing.as === 'integer' ? 1 : thing.increment || 'any';
    }
    const read = () => thing.as === 'switch' ? [input.checked ? 1 : 0]
        : thing.as === 'colour' ? colourParts(input.value) : [Number(input.value)];
    input.addEventListener('input', () => { change(read()); showSoon(); });
    if (thing.driven_by) {
        made.classList.add('driven');
        made.title = `${thing.note || ''} Driven by ${thing.driven_by}. Drag to hold it, double-click to let it go.`;
        made.addEventListener('dblclick', () => { delete held[field]; showSoon(); });
    }
    made.append(input, output);
    updates.push(() => {
        const value = now();
        if (document.activeElement !== input || thing.driven_by) {
            if (thing.as === 'switch') input.checked = value[0] !== 0;
            else if (thing.as === 'colour') input.value = colourText(value);
            else input.value = String(value[0]);
        }
        output.textContent = thing.as === 'colour' || thing.as === 'switch' ? ''
            : thing.as === 'integer' ? String(Math.round(value[0])) : shownNumber(value[0], thing.unit);
    });
}

function build() {
    element('name').textContent = manifest.name;
    element('brief').textContent = manifest.brief;
    element('brief').title = manifest.brief;
    element('about').textContent = data.about;
    manifest.cues.forEach((cue, number) => {
        const pad = document.createElement('button');
        pad.textContent = (number < 9 ? `${number + 1}  ` : '') + spoken(cue.name);
        pad.addEventListener('click', () => pressCue(cue.name));
        element('pads').append(pad);
    });
    element('cue-part').hidden = manifest.cues.length === 0;
    for (const signal of manifest.signals) {
        if (signal.as === 'place') continue;
        control(element('signals'), signal, (value) => add({ at: time, set: data.fields[signal.name], value }));
    }
    const places = manifest.signals.filter((signal) => signal.as === 'place');
    if (places.length > 0) {
        const hint = document.createElement('p');
        hint.textContent = `Drag on the picture to move ${places.map((each) => spoken(each.name)).join(', ')}.`;
        element('signals').append(hint);
        const move = (event) => {
            const box = canvas.getBoundingClientRect();
            const value = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
            for (const place of places) add({ at: time, set: data.fields[place.name], value });
            showSoon();
        };
        canvas.addEventListener('pointerdown', (event) => { canvas.setPointerCapture(event.pointerId); move(event); });
        canvas.addEventListener('pointermove', (event) => { if (event.buttons !== 0) move(event); });
        canvas.style.touchAction = 'none';
    }
    element('signal-part').hidden = manifest.signals.length === 0;
    for (const dial of data.dials) {
        const field = data.fields[dial.name];
        control(element('dials'), dial, (value) => {
            if (dial.driven_by) { held[field] = value; return; }
            settings[field] = value;
            beginPlay();
        });
    }
    element('dial-part').hidden = data.dials.length === 0;
    const shapes = { 'As made': [manifest.frame.width, manifest.frame.height], '16:9': [16, 9], '21:9': [21, 9], '4:3': [4, 3], '1:1': [1, 1], '9:16': [9, 16] };
    for (const name of Object.keys(shapes)) element('shape').append(new Option(name, name));
    element('shape').addEventListener('change', () => {
        const [wide, high] = shapes[element('shape').value];
        const own = manifest.frame;
        const shorter = Math.min(own.width, own.height);
        size = element('shape').value === 'As made' ? { width: own.width, height: own.height }
            : { width: Math.round(shorter * Math.max(1, wide / high)), height: Math.round(shorter * Math.max(1, high / wide)) };
        showSoon();
    });
    element('time').max = manifest.length;
    element('time').addEventListener('input', () => { time = Number(element('time').value); showSoon(); });
    element('play').addEventListener('click', () => setPlaying(!isPlaying));
    element('before').addEventListener('click', () => setBefore(!isBefore));
    element('full').addEventListener('click', fillScreen);
    document.addEventListener('keydown', onKey);
}

function setBefore(before) {
    isBefore = before;
    element('before').setAttribute('aria-pressed', String(before));
    showSoon();
}

function fillScreen() {
    if (document.fullscreenElement) document.exitFullscreen();
    else if (element('stage').requestFullscreen) element('stage').requestFullscreen();
}

function step(frames) {
    setPlaying(false);
    time = Math.min(Math.max(time + frames / 60, 0), manifest.length);
    showSoon();
}

function onKey(event) {
    if (event.ctrlKey || event.altKey || event.metaKey) return;
    const inField = event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement;
    const onButton = event.target instanceof HTMLButtonElement;
    const digit = Number(event.key);
    if (event.key === ' ' && !onButton && !(inField && event.target.type === 'checkbox')) setPlaying(!isPlaying);
    else if (digit >= 1 && digit <= manifest.cues.length && digit <= 9) pressCue(manifest.cues[digit - 1].name);
    else if (event.key === 'b' || event.key === 'B') setBefore(!isBefore);
    else if (event.key === 'f' || event.key === 'F') fillScreen();
    else if (event.key === 'Home' && !inField) { beginAnew(); showSoon(); }
    else if (event.key === 'ArrowLeft' && !inField) step(-1);
    else if (event.key === 'ArrowRight' && !inField) step(1);
    else return;
    event.preventDefault();
}

// What tests and scripts look at: the finished picture at a time, as floats, rows from the top.
function readAt(seconds) {
    const finished = drawFrame(seconds);
    const floats = new Float32Array(finished.width * finished.height * 4);
    gl.bindFramebuffer(gl.FRAMEBUFFER, frame);
    gl.framebufferTexture2D(gl.FRAMEBUFFER, gl.COLOR_ATTACHMENT0, gl.TEXTURE_2D, finished.texture, 0);
    gl.readPixels(0, 0, finished.width, finished.height, gl.RGBA, gl.FLOAT, floats);
    return { width: finished.width, height: finished.height, floats };
}

async function start() {
    if (!gl) return say('This browser has no WebGL 2, which the effect is drawn with.');
    if (!gl.getExtension('EXT_color_buffer_float')) return say('This device cannot draw to pictures of floats.');
    filtersFloats = gl.getExtension('OES_texture_float_linear') !== null;
    frame = gl.createFramebuffer();
    gl.bindVertexArray(gl.createVertexArray());
    gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1);
    averagingProgram = program(averaging);
    decodingProgram = program(decoding);
    showingProgram = program(showing);
    clearPicture = picture(1, 1, 4, clear);
    blackPicture = picture(1, 1, 4, new Float32Array([0, 0, 0, 1]));
    for (const pass of manifest.passes) programs.push(program(shaders[pass.name]));
    for (const ground of grounds) pictures.set(ground.name, await loadGround(ground));
    build();
    beginAnew();
    window.lacquer = { readAt, press: pressCue, setSize: (width, height) => { size = { width, height }; } };
    show();
    document.documentElement.dataset.ready = 'yes';
    // #at=0.9 shows a moment and stays there; #still stays at the beginning.
    const moment = /at=([\d.]+)/.exec(location.hash);
    if (moment) {
        time = Math.min(Number(moment[1]), manifest.length);
        show();
    } else if (!matchMedia('(prefers-reduced-motion: reduce)').matches && !location.hash.includes('still')) {
        setPlaying(true);
    }
    await loadPlayed();
    document.documentElement.dataset.whole = 'yes';
}

start().catch((problem) => say(`The effect does not run here: ${problem.message}`));
