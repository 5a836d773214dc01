import { createHash } from 'node:crypto';
import { sharp } from './sharp';

/** The longest side of a picture as it is kept, and of the small one for lists and reports, px. */
const longest = 2560;
const longestSmall = 960;
/** More is no photo: 100 million, where phones take 12 to 50 (200 at most, which they put together to fewer). px */
const mostPixels = 100_000_000;

export interface ReadPicture {
  /** JPEG without anything but the picture: no position, no maker, no time. */
  readonly whole: Uint8Array;
  readonly small: Uint8Array;
  /** Of `whole`, in hexadecimal digits. */
  readonly sha256: string;
  readonly width: number;
  readonly height: number;
}

/** Why something is not taken as a picture, for the person who sent it. */
export class NoPicture extends Error {}

/** What the first bytes of a file say that it is, whatever it is called. */
function kindOf(bytes: Uint8Array): 'jpeg' | 'png' | 'webp' | 'heic' | null {
  const text = (from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return 'jpeg';
  if (text(0, 8) === '\x89PNG\r\n\x1a\n') return 'png';
  if (text(0, 4) === 'RIFF' && text(8, 12) === 'WEBP') return 'webp';
  if (text(4, 8) === 'ftyp') return 'heic';
  return null;
}

/**
 * A photo as it is kept: decoded and written anew, so that what else was in the file is gone; turned the way it was held, sRGB, at most 2 560 px.
 * @throws NoPicture where its content is no JPEG, PNG or WebP, is broken or too large
 */
export async function readPicture(bytes: Uint8Array): Promise<ReadPicture> {
  const kind = kindOf(bytes);
  if (kind === 'heic')
    throw new NoPicture('This is a HEIC or AVIF picture. Set the camera to JPEG ("most compatible").');
  if (!kind) throw new NoPicture('This is no picture. A photo is a JPEG, PNG or WebP file.');
  try {
    const image = sharp()(bytes, { limitInputPixels: mostPixels, failOn: 'truncated' }).autoOrient();
    const { data, info } = await image
      .flatten({ background: '#ffffff' })
      .resize(longest, longest, { fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
    const small = await sharp()(data)
      .resize(longestSmall, longestSmall, { fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 74 })
      .toBuffer();
    const sha256 = createHash('sha256').update(data).digest('hex');
    return { whole: data, small, sha256, width: info.width, height: info.height };
  } catch (error) {
    const large = error instanceof Error && /pixel limit/i.test(error.message);
    throw new NoPicture(
      large
        ? `This picture has more than ${mostPixels / 1e6} million pixels. Take it smaller.`
        : 'This picture is broken and cannot be read. Take it again.',
      { cause: error },
    );
  }
}
