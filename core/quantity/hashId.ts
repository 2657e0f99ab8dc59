/** A short id made of a text: the same for the same text, in every file and on every machine (FNV-1a over 64 bits, from memory). */
export function hashId(text: string): string {
  let hash = 0xcbf29ce484222325n;
  for (const byte of new TextEncoder().encode(text)) hash = BigInt.asUintN(64, (hash ^ BigInt(byte)) * 0x100000001b3n);
  return hash.toString(36);
}
