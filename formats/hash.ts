import type { FileHash } from '#core/model/ids.ts';

/** The SHA-256 of bytes, as 64 lower-case hexadecimal digits. */
export async function hashOf(bytes: Uint8Array<ArrayBuffer>): Promise<FileHash> {
  const digest = await crypto.subtle.digest('SHA-256', bytes);
  return Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, '0')).join(
    '',
  ) as FileHash;
}
