/** What a browser has and the tests' page lacks. */
import { randomUUID } from 'node:crypto';
import { TextDecoder, TextEncoder } from 'node:util';
import { deserialize, serialize } from 'node:v8';

Object.assign(globalThis.crypto, { randomUUID });
Object.assign(globalThis, {
  TextDecoder,
  TextEncoder,
  structuredClone: (value: unknown): unknown => deserialize(serialize(value)),
  setImmediate: (act: () => void) => setTimeout(act),
  matchMedia: () => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
    // Older words for the same, which libraries still use
    addListener: () => undefined,
    removeListener: () => undefined,
  }),
  ResizeObserver: class {
    observe() {}
    unobserve() {}
    disconnect() {}
  },
});

/** A canvas that can be drawn on, and shows nothing. */
const drawing = new Proxy({}, { get: () => () => ({ width: 0 }), set: () => true });
if (typeof document !== 'undefined') {
  Object.defineProperty(document, 'fonts', { value: { ready: Promise.resolve() } });
  HTMLCanvasElement.prototype.getContext = (() => drawing) as unknown as HTMLCanvasElement['getContext'];
}

// How the page was come to: by its address.
performance.getEntriesByType ??= () => [];

// jsdom works out a style from every rule of every sheet; names and roles need only what stands on the element itself.
if (typeof window !== 'undefined') window.getComputedStyle = (element) => (element as HTMLElement).style;
