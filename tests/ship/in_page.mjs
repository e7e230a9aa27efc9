// Opens a page in headless Chromium and prints what a script gives that runs in it: node in_page.mjs PAGE SCRIPT PROFILE
// The browser is spoken to over a pipe (Chrome DevTools Protocol), so that everything takes its own time.
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';

const [page, script, profile] = process.argv.slice(2);
const browser = spawn('chromium', ['--headless=new', '--no-sandbox', '--disable-quic', '--no-first-run',
    '--disable-background-networking', '--disable-component-update', '--disable-sync', `--user-data-dir=${profile}`,
    '--use-gl=angle', '--use-angle=swiftshader', '--enable-unsafe-swiftshader', '--window-size=1280,800',
    '--remote-debugging-pipe'], { stdio: ['ignore', 'ignore', 'ignore', 'pipe', 'pipe'], env: { ...process.env, HOME: profile } });

function end(code, words) {
    process.stdout.write(words + '\n', () => { browser.kill('SIGKILL'); process.exit(code); });
}

const waiting = new Map();
let number = 0;
let pending = '';
browser.stdio[4].on('data', (bytes) => {
    pending += bytes.toString('utf8');
    for (let cut = pending.indexOf('\0'); cut >= 0; cut = pending.indexOf('\0')) {
        const message = JSON.parse(pending.slice(0, cut));
        pending = pending.slice(cut + 1);
        if (!waiting.has(message.id)) continue;
        const [done, failed] = waiting.get(message.id);
        waiting.delete(message.id);
        message.error ? failed(new Error(message.error.message)) : done(message.result);
    }
});
browser.on('exit', () => end(1, 'failed the browser ended'));

function ask(method, params = {}, sessionId = undefined) {
    number += 1;
    browser.stdio[3].write(JSON.stringify({ id: number, method, params, sessionId }) + '\0');
    return new Promise((done, failed) => waiting.set(number, [done, failed]));
}

try {
    const { targetId } = await ask('Target.createTarget', { url: 'about:blank' });
    const { sessionId } = await ask('Target.attachToTarget', { targetId, flatten: true });
    await ask('Page.enable', {}, sessionId);
    await ask('Page.navigate', { url: `file://${page}#still` }, sessionId);
    const expression = `(async () => {
        const until = async (ready) => { while (!ready()) await new Promise((next) => setTimeout(next, 10)); };
        const lines = [];
        await until(() => document.documentElement && (document.documentElement.dataset.ready === 'yes' ||
            document.getElementById('said')?.textContent));
        ${readFileSync(script, 'utf8')}
        lines.push('said ' + document.getElementById('said').textContent);
        return lines.join('\\n');
    })()`;
    const { result, exceptionDetails } = await ask('Runtime.evaluate', { expression, awaitPromise: true, returnByValue: true }, sessionId);
    if (exceptionDetails) end(1, 'failed ' + (exceptionDetails.exception?.description ?? exceptionDetails.text));
    else end(0, result.value);
} catch (problem) {
    end(1, 'failed ' + problem.message);
}
