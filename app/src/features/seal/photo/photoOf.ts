/** The longest side of a photo that is kept, px, and how good its JPEG is. */
const longest = 2560;
const quality = 0.85;
/** A larger file is no photo. Bytes */
const largest = 100_000_000;

/** Why a file is not taken as a photo, for the person. */
export class NoPhoto extends Error {}

/**
 * A photo as this device keeps and sends it: drawn anew as JPEG, so that nothing but the picture goes along (no position), at most 2 560 px.
 * @throws NoPhoto where the file's content is no picture that this browser can draw
 */
export async function photoOf(file: Blob): Promise<ArrayBuffer> {
  if (file.size === 0) throw new NoPhoto('This file is empty.');
  if (file.size > largest) throw new NoPhoto('This file is too large for a photo (100 MB at most).');
  const drawn = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch((error: unknown) => {
    throw new NoPhoto('This is no picture that can be read here. A photo is a JPEG, PNG or WebP file.', {
      cause: error,
    });
  });
  try {
    const scale = Math.min(1, longest / Math.max(drawn.width, drawn.height));
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(drawn.width * scale));
    canvas.height = Math.max(1, Math.round(drawn.height * scale));
    const paint = canvas.getContext('2d');
    if (!paint) throw new NoPhoto('This browser cannot draw the photo. Update it, or use another one.');
    paint.fillStyle = '#ffffff';
    paint.fillRect(0, 0, canvas.width, canvas.height);
    paint.imageSmoothingQuality = 'high';
    paint.drawImage(drawn, 0, 0, canvas.width, canvas.height);
    const jpeg = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', quality));
    if (!jpeg)
      throw new NoPhoto('There is not enough memory for this photo. Close other pages and try again.');
    return await jpeg.arrayBuffer();
  } finally {
    drawn.close();
  }
}
