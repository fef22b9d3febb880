// Two pictures as one PNG, with words under each.
const GAP_PX = 16;
const LINE_PX = 22;

/** Each picture with its name and its settings. */
export async function joined(
  pictures: (Blob | ImageData)[],
  words: (readonly [string, string])[],
): Promise<Blob> {
  const bitmaps = await Promise.all(pictures.map((picture) => createImageBitmap(picture)));
  const width = bitmaps.reduce((sum, { width }) => sum + width + GAP_PX, GAP_PX);
  const height = Math.max(...bitmaps.map(({ height }) => height)) + 3 * GAP_PX + 2 * LINE_PX;
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext("2d");
  if (!context) throw new Error("this browser draws no pictures");
  context.fillStyle = "#6e6e6e";
  context.fillRect(0, 0, width, height);
  let left = GAP_PX;
  bitmaps.forEach((bitmap, index) => {
    const [name = "", settings = ""] = words[index] ?? [];
    context.drawImage(bitmap, left, GAP_PX);
    context.fillStyle = "#fff";
    const below = height - GAP_PX - LINE_PX;
    context.font = "600 16px sans-serif";
    context.fillText(name, left, below, bitmap.width);
    context.font = "14px sans-serif";
    context.fillText(settings, left, below + LINE_PX, bitmap.width);
    left += bitmap.width + GAP_PX;
  });
  return canvas.convertToBlob({ type: "image/png" });
}
