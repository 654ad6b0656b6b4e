/** A chunk of a PNG; its check sum is left open, as nobody here computes one. */
const chunk = (kind: string, body: Uint8Array): number[] => {
  const head = new DataView(new ArrayBuffer(4));
  head.setUint32(0, body.length);
  return [...new Uint8Array(head.buffer), ...[...kind].map((c) => c.charCodeAt(0)), ...body, 0, 0, 0, 0];
};

/** Bytes of a PNG as far as its chunks go; what they hold draws nothing, and tells one picture from another. */
export const pngBytes = (content: string): Uint8Array<ArrayBuffer> =>
  new Uint8Array([
    ...[0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10],
    ...chunk('IHDR', new Uint8Array(13)),
    ...chunk('IDAT', new TextEncoder().encode(content)),
    ...chunk('IEND', new Uint8Array()),
  ]);
