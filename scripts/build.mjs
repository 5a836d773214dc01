/** Builds what runs: the server's bundle and the exported web app, each only when its sources changed. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { root, say } from './lib.mjs';
import { buildServiceWorker } from './serviceWorker.mjs';

const require = createRequire(import.meta.url);

/**
 * Takes a moment, so it is simply done each time. The packages are bundled too: to find and read their several hundred files took half of a
 * start. The embedded database stays outside, since it reads files beside its own.
 */
export async function buildServer() {
  const { build } = require('esbuild');
  await build({
    entryPoints: {
      main: join(root, 'server/src/main.ts'),
      importWorker: join(root, 'server/src/import/importWorker.ts'),
      reportWorker: join(root, 'server/src/report/reportWorker.ts'),
      backup: join(root, 'server/src/backupMain.ts'),
    },
    outdir: join(root, 'server/dist'),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    // So do those that make documents, which only a thread of their own loads, when one is asked for.
    external: ['@electric-sql/pglite', 'pg-native', 'pdfkit', 'exceljs', 'sharp', '@expo-google-fonts/*'],
    // Where a package has modules as well, those: some of the others look for their own files while they run.
    mainFields: ['module', 'main'],
    // What is left of the older kind of package asks for Node's own modules in its own way.
    banner: {
      js: "import { createRequire as requireFrom } from 'node:module';\nconst require = requireFrom(import.meta.url);",
    },
    logLevel: 'warning',
  });
}

const dist = join(root, 'app/dist');
const stamp = join(dist, '.built-from');

const exportEnvironment = {
  EXPO_OFFLINE: '1',
  EXPO_NO_TELEMETRY: '1',
  CI: '1',
  NODE_ENV: 'production',
  // Leaves out what is imported but not used: without both the icons alone are 2.9 MB.
  EXPO_UNSTABLE_METRO_OPTIMIZE_GRAPH: '1',
  EXPO_UNSTABLE_TREE_SHAKING: '1',
};

/** Exports the web app unless the one that is there was made from the same files. */
export async function exportApp() {
  const wanted = fingerprint([
    'app',
    'core',
    'package-lock.json',
    'scripts/build.mjs',
    'scripts/serviceWorker.mjs',
  ]);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  say('Exporting the web app; this takes about a minute, only when its sources changed …');
  rmSync(dist, { recursive: true, force: true });
  await run('npx', ['expo', 'export', '-p', 'web', '--output-dir', 'dist'], join(root, 'app'));
  await buildWorkers();
  await buildServiceWorker(dist);
  writeFileSync(stamp, wanted);
}

/**
 * Web workers are bundled beside the app: Metro's tree shaking, which the app needs, loses what `new Worker(new URL(…))` names.
 */
async function buildWorkers() {
  const { build } = require('esbuild');
  await build({
    entryPoints: [
      'plan',
      'projectFile',
      'machine/machine',
      'machine/log',
      'judge/judge',
      'nights/nights',
    ].map((name) => join(root, `app/src/data/${name}.worker.ts`)),
    outdir: dist,
    entryNames: '[name]',
    // What several of them need is in files that they share.
    splitting: true,
    chunkNames: 'worker-[hash]',
    bundle: true,
    minify: true,
    platform: 'browser',
    format: 'esm',
    target: 'es2022',
    logLevel: 'warning',
  });
}

function fingerprint(places) {
  const hash = createHash('sha256');
  const visit = (path) => {
    hash
      .update(path)
      .update('\0')
      .update(readFileSync(join(root, path)));
  };
  const walk = (path) => {
    for (const entry of readdirSync(join(root, path), { withFileTypes: true }).sort((a, b) =>
      a.name < b.name ? -1 : 1,
    )) {
      const inner = `${path}/${entry.name}`;
      if (entry.isDirectory()) {
        if (!['node_modules', 'dist', '.expo', '.cordel'].includes(entry.name)) walk(inner);
      } else if (!/\.test\.tsx?$|^expo-env\.d\.ts$/.test(entry.name)) visit(inner);
    }
  };
  for (const place of places) (place.includes('.') ? visit : walk)(place);
  return hash.digest('hex');
}

function run(command, args, cwd) {
  return new Promise((done, fail) => {
    const child = spawn(command, args, {
      cwd,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...exportEnvironment },
    });
    let output = '';
    child.stdout.on('data', (text) => (output += text));
    child.stderr.on('data', (text) => (output += text));
    child.on('close', (code) =>
      code === 0 ? done() : fail(new Error(`${command} ${args.join(' ')} failed:\n${output}`)),
    );
  });
}
