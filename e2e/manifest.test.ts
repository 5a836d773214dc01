import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/**
 * What a browser asks of an application that is to be put on the home screen: members and values of the Web Application Manifest (W3C), the icons that Chromium wants
 * for that (192 and 512 px, one that may be masked; from memory), and a service worker that answers with no network (`offline.test.ts`).
 */
const dist = join(__dirname, '../app/dist');
const page = readFileSync(join(dist, 'index.html'), 'utf8');
const address = /<link rel="manifest" href="\/([^"]+)"/.exec(page)?.[1] ?? '';

interface Manifest {
  readonly name: string;
  readonly short_name: string;
  readonly id: string;
  readonly start_url: string;
  readonly scope: string;
  readonly display: string;
  readonly background_color: string;
  readonly theme_color: string;
  readonly icons: readonly { src: string; sizes: string; type: string; purpose: string }[];
}
const manifest = () => JSON.parse(readFileSync(join(dist, address), 'utf8')) as Manifest;

/** Width and height, px, as the file itself says. */
function sizeOf(png: Buffer): string {
  expect(png.subarray(1, 4).toString('latin1')).toBe('PNG');
  return `${png.readUInt32BE(16)}x${png.readUInt32BE(20)}`;
}

test('the page names a manifest, which names the application and where it starts', () => {
  const { name, short_name: short, id, start_url: start, scope, display } = manifest();
  expect([name.length > 0, short.length > 0 && short.length <= 12]).toEqual([true, true]);
  expect(
    new URL(start, 'https://cordel.example').href.startsWith(new URL(scope, 'https://cordel.example').href),
  ).toBe(true);
  expect(new URL(id, 'https://cordel.example').origin).toBe('https://cordel.example');
  expect(['standalone', 'minimal-ui', 'fullscreen']).toContain(display);
});

test('its colors are colors, and that of the page around it is the same by day', () => {
  const { background_color: background, theme_color: theme } = manifest();
  for (const color of [background, theme]) expect(color).toMatch(/^#[0-9a-f]{6}$/);
  expect(page).toContain(`content="${theme}"`);
});

test('its icons are there, of the size and kind that it says, one of them to be masked', () => {
  const { icons } = manifest();
  for (const { src, sizes, type } of icons) {
    expect(type).toBe('image/png');
    expect(sizeOf(readFileSync(join(dist, src)))).toBe(sizes);
  }
  const of = (purpose: string) => icons.filter((icon) => icon.purpose === purpose).map((icon) => icon.sizes);
  expect(of('any')).toEqual(expect.arrayContaining(['192x192', '512x512']));
  expect(of('maskable')).toContain('512x512');
});

test('manifest and icons are on the device with everything else', () => {
  const worker = readFileSync(join(dist, 'sw.js'), 'utf8');
  for (const path of [address, 'index.html', ...manifest().icons.map(({ src }) => src.slice(1))])
    expect(worker).toMatch(new RegExp(`["']${path.replaceAll('.', '\\.')}["']`));
});

test('it takes shared files at an address that its service worker answers', () => {
  const { share_target: target } = manifest() as Manifest & {
    share_target: { action: string; method: string; enctype: string; params: { files: { name: string }[] } };
  };
  expect(target).toMatchObject({ action: '/share', method: 'POST', enctype: 'multipart/form-data' });
  const [file] = target.params.files;
  const answers = readFileSync(join(dist, 'share.js'), 'utf8');
  expect(answers).toContain(`.get('${file!.name}')`);
  expect(answers).toContain(`=== '${target.action}'`);
  expect(readFileSync(join(dist, 'sw.js'), 'utf8')).toContain('/share.js');
});
