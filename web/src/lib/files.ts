/** A file as base64, as archives are sent. */
export async function inBase64(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  return btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''))
}
