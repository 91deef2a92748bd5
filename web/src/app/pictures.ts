// What the server keeps at most; sent no larger, so that a slow network carries it.
const LONG_SIDE_PX = 2048;
const QUALITY = 0.85;

/** A picture of this device as base64: made smaller where this browser can read it, and as it is where only the server may. */
export async function pictureContent(file: File): Promise<string> {
  return base64(await smaller(file).catch(() => file));
}

async function smaller(file: File): Promise<Blob> {
  const bitmap = await createImageBitmap(file, { imageOrientation: "from-image" });
  const scale = Math.min(1, LONG_SIDE_PX / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext("2d")!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return new Promise((done, failed) =>
    canvas.toBlob((blob) => (blob ? done(blob) : failed(new Error("No picture."))), "image/jpeg", QUALITY),
  );
}

/** A file as base64. */
export const base64 = (blob: Blob) =>
  new Promise<string>((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done((reader.result as string).replace(/^[^,]*,/, ""));
    reader.onerror = () => failed(reader.error ?? new Error("The file could not be read."));
    reader.readAsDataURL(blob);
  });
