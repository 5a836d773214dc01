import type { MiddlewareHandler } from 'hono';
import { getMimeType } from 'hono/utils/mime';
import { readdir, readFile } from 'node:fs/promises';
import { join, relative, sep } from 'node:path';
import { brotliCompress, constants, gzip } from 'node:zlib';
import { promisify } from 'node:util';

interface WebFile {
  readonly type: string;
  readonly plain: Uint8Array<ArrayBuffer>;
  readonly gzip: Uint8Array<ArrayBuffer> | null;
  readonly br: Uint8Array<ArrayBuffer> | null;
}

const squeezable = /\.(html|js|css|json|svg|ttf|txt|webmanifest)$/;

/** Names with a content hash never change what they mean. */
const hashed = /[.-][0-9a-f]{20,}\./;

/**
 * The exported web app, read once at the start. A request is looked up among these names; no path of a request reaches the file
 * system. Any other page address gets the app's one page, which finds its own screen.
 */
export async function webFiles(folder: string): Promise<MiddlewareHandler> {
  const files = new Map<string, WebFile>();
  const entries = await readdir(folder, { recursive: true, withFileTypes: true });
  await Promise.all(
    entries
      .filter((entry) => entry.isFile() && !entry.name.startsWith('.'))
      .map(async (entry) => {
        const path = join(entry.parentPath, entry.name);
        files.set(`/${relative(folder, path).split(sep).join('/')}`, await load(path));
      }),
  );
  const page = files.get('/index.html');
  if (!page) throw new Error(`No web app in ${folder}. Export it first.`);

  return async (context, next) => {
    // What is shared to the application is for its service worker; where there is none yet, the page says that nothing came.
    if (context.req.method === 'POST' && context.req.path === '/share')
      return context.redirect('/share', 303);
    if (context.req.method !== 'GET' && context.req.method !== 'HEAD') return next();
    const path = decodeURIComponentSafe(context.req.path);
    const found = files.get(path);
    const lastPart = path.slice(path.lastIndexOf('/') + 1);
    if (!found && lastPart.includes('.')) return next();
    const file = found ?? page;

    const accepted = context.req.header('Accept-Encoding') ?? '';
    const encoding = (['br', 'gzip'] as const).find((name) => file[name] && accepted.includes(name));
    context.header('Content-Type', file.type);
    context.header('Vary', 'Accept-Encoding');
    context.header(
      'Cache-Control',
      hashed.test(path) && found ? 'public, max-age=31536000, immutable' : 'no-cache',
    );
    if (encoding) context.header('Content-Encoding', encoding);
    return context.body(encoding ? file[encoding]! : file.plain);
  };
}

async function load(path: string): Promise<WebFile> {
  const plain = new Uint8Array(await readFile(path));
  const squeeze = squeezable.test(path) && plain.length > 1000;
  return {
    type: getMimeType(path) ?? 'application/octet-stream',
    plain,
    gzip: squeeze ? new Uint8Array(await promisify(gzip)(plain, { level: 6 })) : null,
    br: squeeze
      ? new Uint8Array(
          await promisify(brotliCompress)(plain, { params: { [constants.BROTLI_PARAM_QUALITY]: 5 } }),
        )
      : null,
  };
}

function decodeURIComponentSafe(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
