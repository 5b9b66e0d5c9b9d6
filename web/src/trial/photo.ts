/** Photos before they are sent: of a size that the program takes, and of a kind that it reads. */

/** Files larger than this are made smaller here; the program takes up to 8 MB. */
const LARGEST = 3 * 1024 * 1024;
/** The longer side of what is kept, as the program keeps it. */
const LONGEST_SIDE = 2560;

/** The photo as it is sent. What the browser cannot show either is said here, before it is sent. */
export async function readyPhoto(file: File): Promise<Blob> {
  const isHeic = /\.(heic|heif)$/i.test(file.name) || /hei[cf]/.test(file.type);
  if (!isHeic && file.size <= LARGEST) return file;
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file, { imageOrientation: "from-image" });
  } catch {
    throw new Error(
      isHeic
        ? "This is an HEIC photo, which this browser cannot read: set the phone to “most compatible”, or save it as JPEG."
        : "This file cannot be shown as a picture: choose a JPEG, PNG or WebP.",
    );
  }
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  const smaller = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/jpeg", 0.88));
  if (!smaller) throw new Error("The photo could not be made smaller: save it smaller, and choose it again.");
  return smaller;
}
