/** A photograph as small as it need be: a phone’s own are many megabytes. */

/** Longest side, pixels */
const MOST = 1600;
const QUALITY = 0.8;

/** As JPEG; rejects if it is no picture that the browser reads. */
export async function smaller(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, MOST / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((resolve, reject) =>
    canvas.toBlob((made) => (made ? resolve(made) : reject(new Error('no picture'))), 'image/jpeg', QUALITY),
  );
}
