/** Files written so that a power cut leaves either the old or the new one, whole. */
import { closeSync, fsyncSync, openSync, renameSync, writeSync } from 'node:fs';
import { dirname } from 'node:path';

/** Makes a file's entry in its folder as lasting as its content. Not every system can, or needs to. */
export function syncFolder(path: string): void {
  try {
    const folder = openSync(dirname(path), 'r');
    fsyncSync(folder);
    closeSync(folder);
  } catch {
    // Windows opens no folders; its file system keeps the entry with the file.
  }
}

/** All of `bytes`, and onto the disk. */
export function writeAll(file: number, bytes: Uint8Array, at: number | null = null): void {
  let written = 0;
  while (written < bytes.length)
    written += writeSync(file, bytes, written, bytes.length - written, at === null ? null : at + written);
  fsyncSync(file);
}

/** Writes a file beside its place and then puts it there. */
export function writeWhole(path: string, content: string | Uint8Array): void {
  const beside = `${path}.new`;
  const file = openSync(beside, 'w');
  try {
    writeAll(file, typeof content === 'string' ? Buffer.from(content) : content);
  } finally {
    closeSync(file);
  }
  renameSync(beside, path);
  syncFolder(path);
}
