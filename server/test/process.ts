import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const root = join(__dirname, '..', '..');

export interface ServerProcess {
  readonly url: string;
  readonly folder: string;
  readonly process: ChildProcess;
  /** Everything it printed. */
  output(): string;
  /** Ends it politely. */
  stop(): Promise<void>;
  /** Ends it at once, as a power cut would. */
  kill(): Promise<void>;
}

const folders: string[] = [];

/** A data folder with an empty shelf or with the demo, ready to open. Removed by `removeFolders`. */
export function dataFolder(kind: 'empty' | 'demo'): string {
  const folder = bareFolder();
  cpSync(join(process.env.CORDEL_TEST_TEMPLATES!, kind), folder, { recursive: true });
  return folder;
}

/** A folder in which no server has ever run. */
export function bareFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'cordel-test-'));
  folders.push(folder);
  return folder;
}

export function removeFolders(): void {
  for (const folder of folders.splice(0)) rmSync(folder, { recursive: true, force: true });
}

/** Starts the built server and does not wait for it. */
export function spawnServer(folder: string, environment: Record<string, string> = {}) {
  return spawn(process.execPath, ['--enable-source-maps', join(root, 'server/dist/main.js')], {
    env: { ...process.env, HOST: '', PORT: '0', NODE_OPTIONS: '', ...environment, CORDEL_DATA: folder },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
}

/** Starts the built server as a process of its own and waits until it listens. Rejects with its output when it ends before that. */
export function startServer(
  folder: string,
  environment: Record<string, string> = {},
): Promise<ServerProcess> {
  const child = spawnServer(folder, environment);
  let output = '';
  const ended = new Promise<void>((done) => child.once('close', () => done()));
  const end = async (signal: 'SIGTERM' | 'SIGKILL') => {
    child.kill(signal);
    await ended;
  };
  return new Promise((done, fail) => {
    const hear = (text: Buffer) => {
      output += text.toString();
      const url = /listens on (http:\S+)/.exec(output)?.[1];
      if (url)
        done({
          url,
          folder,
          process: child,
          output: () => output,
          stop: () => end('SIGTERM'),
          kill: () => end('SIGKILL'),
        });
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    void ended.then(() => fail(new Error(`The server ended: ${output}`)));
  });
}

export interface Answer<T = unknown> {
  readonly status: number;
  readonly body: T;
  readonly headers: Headers;
}

/** One request; JSON in and out. */
export async function request<T = unknown>(url: string, method = 'GET', body?: unknown): Promise<Answer<T>> {
  const response = await fetch(url, {
    method,
    ...(body === undefined
      ? {}
      : {
          headers: { 'Content-Type': 'application/json' },
          body: typeof body === 'string' ? body : JSON.stringify(body),
        }),
  });
  const text = await response.text();
  const json = /json/.test(response.headers.get('Content-Type') ?? '');
  return { status: response.status, body: (json ? JSON.parse(text) : text) as T, headers: response.headers };
}
