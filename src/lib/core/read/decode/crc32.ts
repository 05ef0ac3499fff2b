/** Of each byte: what it does to the sum; then what it does from one, two and three bytes before. */
const TABLES = [
  new Uint32Array(256),
  new Uint32Array(256),
  new Uint32Array(256),
  new Uint32Array(256),
];
for (let n = 0; n < 256; n++) {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  TABLES[0][n] = c;
}
for (let k = 1; k < 4; k++)
  for (let n = 0; n < 256; n++) {
    const before = TABLES[k - 1][n];
    TABLES[k][n] = TABLES[0][before & 0xff] ^ (before >>> 8);
  }

/** CRC-32 of bytes (ISO/IEC 13239, as ZIP and gzip use it), four of them at a time. */
export function crc32(bytes: Uint8Array): number {
  const [own, one, two, three] = TABLES;
  let c = 0xffffffff;
  let at = 0;
  for (; at + 4 <= bytes.length; at += 4) {
    c ^= bytes[at] | (bytes[at + 1] << 8) | (bytes[at + 2] << 16) | (bytes[at + 3] << 24);
    c = three[c & 0xff] ^ two[(c >>> 8) & 0xff] ^ one[(c >>> 16) & 0xff] ^ own[c >>> 24];
  }
  for (; at < bytes.length; at++) c = own[(c ^ bytes[at]) & 0xff] ^ (c >>> 8);
  return (c ^ 0xffffffff) >>> 0;
}
