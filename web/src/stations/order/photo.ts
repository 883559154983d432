/** A photo made small enough to send: the outline needs a few pixels to the millimetre, not the twelve of a phone. */

const MOST_PX = 2400;

export interface Small {
  blob: Blob;
  width: number;
  height: number;
}

/** How large a picture is drawn so that no side is longer than `most`. */
export function within(width: number, height: number, most: number): { width: number; height: number } {
  const factor = Math.min(1, most / Math.max(width, height));
  return { width: Math.round(width * factor), height: Math.round(height * factor) };
}

/** The picture upright as the camera meant it, no longer than needed. */
export async function smaller(file: Blob): Promise<Small> {
  const bitmap = await createImageBitmap(file);
  const { width, height } = within(bitmap.width, bitmap.height, MOST_PX);
  const canvas = document.createElement("canvas");
  canvas.width = width;
  canvas.height = height;
  canvas.getContext("2d")?.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  const blob = await new Promise<Blob | null>((done) => {
    canvas.toBlob(done, "image/jpeg", 0.9);
  });
  if (!blob) throw new Error("Can’t open that picture.");
  return { blob, width, height };
}
