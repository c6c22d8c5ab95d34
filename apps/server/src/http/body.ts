/** Bodies of requests, read without trust: never more than is allowed, and JSON no deeper than it need be. */
import { ProblemError } from '../problemError';

const MIB = 1024 * 1024;
/** JSON is nested no deeper than this. */
const MOST_DEPTH = 64;

const sizeOf = (bytes: number): string => (bytes >= MIB ? `${bytes / MIB} MB` : `${bytes / 1024} KB`);

/** The whole body, refused as soon as it is longer than `most` bytes. */
export async function readBody(request: NodeJS.ReadableStream, most: number): Promise<Buffer> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > most)
      throw new ProblemError('too-large', `This is larger than ${sizeOf(most)}, the most that is read here.`);
    parts.push(part);
  }
  return Buffer.concat(parts);
}

/** How deep the brackets of a JSON text go; text within quotes does not count. */
function depthOf(text: string): number {
  let depth = 0;
  let deepest = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i += 1) {
    const code = text.charCodeAt(i);
    if (quoted) {
      if (code === 0x5c) i += 1;
      else if (code === 0x22) quoted = false;
    } else if (code === 0x22) quoted = true;
    else if (code === 0x5b || code === 0x7b) deepest = Math.max(deepest, (depth += 1));
    else if (code === 0x5d || code === 0x7d) depth -= 1;
  }
  return deepest;
}

/** JSON of a body; an empty one is an empty object. */
export function parseJson(bytes: Uint8Array): unknown {
  if (bytes.length === 0) return {};
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new ProblemError('not-understood', 'The request is not written in UTF-8.');
  }
  if (depthOf(text) > MOST_DEPTH)
    throw new ProblemError('not-understood', `The request is nested deeper than ${MOST_DEPTH}.`);
  try {
    return JSON.parse(text);
  } catch {
    throw new ProblemError('not-understood', 'The request is not well-formed JSON.');
  }
}
