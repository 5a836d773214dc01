import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { report } from './figures';

const root = process.env.CORDEL_ROOT!;

/** `npm run demo` when everything is installed and built: until it listens; its memory; and the script of the first load. */
export async function benchStart(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'cordel-bench-'));
  await demo(folder);
  const { ms, rss } = await demo(folder);
  rmSync(folder, { recursive: true });
  const database = await bareDatabase();
  report('npm run demo, second start, until it listens', `${(ms / 1000).toFixed(1)} s`, 'under 5 s');
  report(
    `Resident memory of the server (an open PGlite alone: ${database} MB)`,
    `${rss} MB, ${rss - database} more`,
    'at most 150 MB more',
  );
  const dist = join(root, 'app/dist');
  const zipped = (path: string) => gzipSync(readFileSync(join(dist, path))).length / 1024;
  const page = readFileSync(join(dist, 'index.html'), 'utf8');
  const scripts = '_expo/static/js/web';
  const all = readdirSync(join(dist, scripts)).map((name) => `${scripts}/${name}`);
  const inPage = [...page.matchAll(/src="\/([^"]+\.js)"/g)].map((match) => match[1]!);
  // What the page names, the frame around every screen, and the bench.
  // The listening bench has a file of the same name.
  const isBench = (path: string) =>
    /\/\[slot\]-/.test(path) && readFileSync(join(dist, path), 'utf8').includes('Tap what the machine reads');
  const first = all.filter((path) => inPage.includes(path) || /\/_layout-/.test(path) || isBench(path));
  const sum = (paths: readonly string[]) => paths.reduce((total, path) => total + zipped(path), 0).toFixed(0);
  report('Script until the bench stands, gzipped', `${sum(first)} KB`, 'at most 600 KB');
  report(
    'All script that is kept on the device, gzipped',
    `${sum([...all, ...readdirSync(dist).filter((name) => name.endsWith('.js'))])} KB`,
    'at most 1100 KB',
  );
}

/** Runs the script as a person would, and ends it when it listens. */
function demo(folder: string): Promise<{ ms: number; rss: number }> {
  const began = performance.now();
  const child = spawn(process.execPath, [join(root, 'scripts/demo.mjs')], {
    env: { ...process.env, CORDEL_DATA: folder, PORT: '0', NODE_OPTIONS: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let output = '';
  let ms = 0;
  return new Promise((done) => {
    child.stdout.on('data', (text: Buffer) => {
      output += text.toString();
      if (ms === 0 && output.includes('listens on')) ms = performance.now() - began;
      if (output.includes('Stop with')) child.kill('SIGTERM');
    });
    child.on('close', () => done({ ms, rss: Number(/(\d+) MB of memory/.exec(output)![1]) }));
  });
}

/** MB that a process takes that opens an existing PGlite database and does nothing else. */
function bareDatabase(): Promise<number> {
  const folder = mkdtempSync(join(tmpdir(), 'cordel-bench-'));
  const open = `
    import { PGlite } from '@electric-sql/pglite';
    await PGlite.create(${JSON.stringify(folder)});
    console.log(Math.round(process.memoryUsage().rss / 1e6));
    process.exit(0);`;
  const once = () =>
    new Promise<number>((done) => {
      const child = spawn(process.execPath, ['--input-type=module', '-e', open], {
        cwd: join(root, 'server'),
      });
      let output = '';
      child.stdout.on('data', (text: Buffer) => (output += text.toString()));
      child.on('close', () => done(Number(output)));
    });
  return once()
    .then(once)
    .finally(() => rmSync(folder, { recursive: true, force: true }));
}
