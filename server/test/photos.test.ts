import { factVersion, type Photo } from '@cordel/core';
import type { AsBuilt } from '@cordel/core/asBuilt';
import { createHash, randomUUID } from 'node:crypto';
import { crc32, deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { newProjectOn, oneServer, type ProblemBody } from './journey';
import { readPdf } from './pdf';
import { request } from './process';

/** Pictures over real HTTP: what is kept of them, and what is not taken. */

let api: string;
oneServer((_, address) => (api = address));

/** A photo with some grain, as a phone takes them, lying on its side, with where and by which phone it was taken. */
let photoOfPhone: Buffer;
beforeAll(async () => {
  const grain = { type: 'gaussian' as const, mean: 128, sigma: 20 };
  photoOfPhone = await sharp({
    create: { width: 3000, height: 2250, channels: 3, background: '#804020', noise: grain },
  })
    .jpeg({ quality: 80 })
    .withExif({
      IFD0: { Make: 'Made up', Model: 'Phone' },
      IFD3: { GPSLatitudeRef: 'S', GPSLatitude: '23/1 30/1 0/1', GPSLongitudeRef: 'W' },
    })
    .withMetadata({ orientation: 6 })
    .toBuffer();
}, 60_000);

/** A PNG that says that it has 900 million pixels, in a few bytes. */
function bomb(): Buffer {
  const chunk = (name: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(name), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.from([0, 0, 0x75, 0x30, 0, 0, 0x75, 0x30, 8, 2, 0, 0, 0]);
  return Buffer.concat([
    Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(1000))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}
const plain = (format: 'jpeg' | 'png' | 'webp' | 'gif' | 'tiff', width = 40) =>
  sharp({ create: { width, height: 30, channels: 4, background: { r: 200, g: 40, b: 20, alpha: 0.5 } } })
    .toFormat(format)
    .toBuffer();

const bytes = { 'Content-Type': 'application/octet-stream' };
async function put(
  project: string,
  body: Uint8Array | string,
  { id = randomUUID() as string, headers = bytes as Record<string, string> } = {},
) {
  const address = `${project}/photos/${id}`;
  const answer = await fetch(address, { method: 'PUT', headers, body: body as never });
  return { id, address, status: answer.status, body: (await answer.json()) as ProblemBody };
}
const got = async (address: string) => {
  const answer = await fetch(address);
  return { answer, bytes: Buffer.from(await answer.arrayBuffer()) };
};
const taken = (closureId: string, id: string, caption = ''): Photo => ({
  v: factVersion('photo'),
  id,
  kind: 'photo',
  madeAt: '2026-04-15T06:00:00.000Z',
  by: 'Rui',
  device: null,
  subject: { on: 'closure', closureId },
  body: { did: 'taken', of: { what: 'closure' }, caption },
});

test('a photo of a phone is kept upright, at most 2 560 px, without its position or anything else', async () => {
  const { project } = await newProjectOn(api);
  const raw = photoOfPhone;
  expect((await sharp(raw).metadata()).exif?.length).toBeGreaterThan(0);
  const { status, address } = await put(project, raw);
  expect(status).toBe(201);
  const { answer, bytes: whole } = await got(address);
  expect(answer.headers.get('Content-Type')).toBe('image/jpeg');
  expect(answer.headers.get('X-Content-Type-Options')).toBe('nosniff');
  const { format, width, height, exif, xmp, iptc, orientation } = await sharp(whole).metadata();
  expect({ format, width, height, exif, xmp, iptc, orientation }).toEqual({
    format: 'jpeg',
    width: 1920,
    height: 2560,
    exif: undefined,
    xmp: undefined,
    iptc: undefined,
    orientation: undefined,
  });
  // Long enough that the grain does not say it by chance.
  expect(whole.includes('Exif\0\0') || whole.includes('Made up')).toBe(false);
  const small = await sharp((await got(`${address}?size=small`)).bytes).metadata();
  expect([small.width, small.height]).toEqual([720, 960]);
});

test.each(['png', 'webp', 'jpeg'] as const)(
  'a %s is taken by its content, whatever it is called',
  async (format) => {
    const { project } = await newProjectOn(api);
    const { status, address } = await put(project, await plain(format));
    expect(status).toBe(201);
    const { format: kept, width } = await sharp((await got(address)).bytes).metadata();
    // Not made larger than it is.
    expect([kept, width]).toEqual(['jpeg', 40]);
  },
);

test('what hangs behind a picture is gone', async () => {
  const { project } = await newProjectOn(api);
  const script = Buffer.from('<script>alert(1)</script><?php echo 1 ?>');
  const { status, address } = await put(project, Buffer.concat([await plain('jpeg'), script]));
  expect(status).toBe(201);
  expect((await got(address)).bytes.includes('script')).toBe(false);
});

describe('is not taken, with words, and nothing is stored:', () => {
  const svg = '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><script>alert(1)</script></svg>';
  const heic = Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypheic0000mif1heic')]);
  test.each<[string, () => Promise<Uint8Array | string>, string]>([
    ['an SVG with a script', async () => svg, 'no picture'],
    ['a page', async () => '<!doctype html><script>alert(1)</script>', 'no picture'],
    [
      'a JPEG by its first bytes only',
      async () => Buffer.concat([Buffer.from([255, 216, 255]), Buffer.from(svg)]),
      'broken',
    ],
    ['half a photo', async () => photoOfPhone.subarray(0, 400_000), 'broken'],
    ['an animation', () => plain('gif'), 'no picture'],
    ['a TIFF', () => plain('tiff'), 'no picture'],
    ['what a phone keeps by itself', async () => heic, 'HEIC'],
    ['nothing', async () => '', 'no picture'],
    ['a picture of 900 million pixels in a few bytes', async () => bomb(), 'million pixels'],
  ])('%s', async (_, make, words) => {
    const { project } = await newProjectOn(api);
    const { status, address, body } = await put(project, await make());
    expect([status, body.detail]).toEqual([422, expect.stringContaining(words)]);
    expect((await fetch(address)).status).toBe(404);
  });

  test('more than 25 MB, said or not said beforehand', async () => {
    const { project } = await newProjectOn(api);
    const large = Buffer.alloc(25 * 1024 * 1024 + 1, 255);
    expect((await put(project, large)).status).toBe(413);
    const pieces = new ReadableStream({
      start(controller) {
        for (let at = 0; at < large.length; at += 1 << 20)
          controller.enqueue(large.subarray(at, at + (1 << 20)));
        controller.close();
      },
    });
    const answer = await fetch(`${project}/photos/${randomUUID()}`, {
      method: 'PUT',
      headers: bytes,
      body: pieces,
      duplex: 'half',
    } as RequestInit);
    expect(answer.status).toBe(413);
  });

  test('from a page of another address, or as another type of content', async () => {
    const { project } = await newProjectOn(api);
    const jpeg = await plain('jpeg');
    const foreign = { ...bytes, Origin: 'http://elsewhere.example' };
    expect((await put(project, jpeg, { headers: foreign })).status).toBe(403);
    for (const type of ['text/plain', 'application/json', 'image/svg+xml'])
      expect((await put(project, jpeg, { headers: { 'Content-Type': type } })).status).toBe(415);
  });

  test('for a project that is not here, under no identifier, or under one that another project has', async () => {
    const { project } = await newProjectOn(api);
    const jpeg = await plain('jpeg');
    expect((await put(`${api}/projects/${randomUUID()}`, jpeg)).status).toBe(404);
    expect((await put(project, jpeg, { id: 'x' })).status).toBe(400);
    const { id } = await put(project, jpeg);
    const other = await newProjectOn(api);
    expect((await put(other.project, jpeg, { id })).status).toBe(409);
    expect((await fetch(`${other.project}/photos/${id}`)).status).toBe(404);
  });
});

test('sent again, and by several at once, the first one counts', async () => {
  const { project } = await newProjectOn(api);
  const { id, address } = await put(project, await plain('jpeg', 40));
  const first = (await got(address)).bytes;
  const again = await Promise.all(
    [50, 60, 70].map(async (width) => put(project, await plain('png', width), { id })),
  );
  expect(again.map(({ status }) => status)).toEqual([200, 200, 200]);
  expect((await got(address)).bytes.equals(first)).toBe(true);
  const fresh = randomUUID();
  const race = await Promise.all(
    [50, 60, 70].map(async (width) => put(project, await plain('png', width), { id: fresh })),
  );
  expect(race.every(({ status }) => status < 300)).toBe(true);
});

test('the record names the picture by its SHA-256, and the report has it with its words', async () => {
  const { project, closureId, post } = await newProjectOn(api);
  const { id, address } = await put(project, photoOfPhone);
  const missing = randomUUID();
  const words = `${'Eighth opening, after its cap was tightened: '.repeat(4)}the end`;
  await post([taken(closureId, id, words), taken(closureId, missing)]);
  const built = (await request<AsBuilt>(`${project}/record/json`)).body;
  const { photos } = built.closures.find((one) => one.id === closureId)!;
  const sha256 = createHash('sha256')
    .update((await got(address)).bytes)
    .digest('hex');
  expect(photos!.map((one) => [one.id, one.shows, one.picture])).toEqual(
    [
      [id, 'The closure', { sha256, width: 1920, height: 2560 }],
      [missing, 'The closure', null],
    ].sort(([a], [b]) => (a! < b! ? -1 : 1)),
  );
  const { pages, images } = await readPdf(
    new Uint8Array(await (await fetch(`${project}/record/pdf?closure=${closureId}`)).arrayBuffer()),
  );
  const page = pages.findIndex((text) => text.includes('Photos'));
  expect(pages[page]).toContain('the end');
  expect(pages[page]).toContain('not on the server yet');
  expect(images).toEqual([{ page: page + 1, width: 720, height: 960 }]);
});
