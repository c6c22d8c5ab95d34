/** The plan's two canvases, drawn anew as packets come and as a person moves about. */
import { useEffect, useMemo, useRef, type RefObject } from 'react';
import type { UniverseFrame } from '@taxiarch/core/whole/contract';
import type { Spot } from '@taxiarch/core/rig/stage';
import { feed } from '@/data/feed';
import { useColour } from '@/ui';
import type { Camera, Size } from './camera';
import { drawLights, drawOutlines, receive, type Mark, type Region, type Scene } from './drawPlan';
import { LightLayer, inkOf } from './lightLayer';

const LAYER = { position: 'absolute', inset: 0, width: '100%', height: '100%' } as const;

/** At most so many pictures a second. */
const FRAME_MS = 1000 / 31;

/** What moves under a finger, many times a second: looked at with each picture, and no cause to render. */
export interface Moving {
  readonly camera: RefObject<Camera>;
  /** Metres by which the chosen are being dragged */
  readonly drag: RefObject<Spot>;
  readonly box: RefObject<readonly [Spot, Spot] | undefined>;
  /** Set when one of these has changed */
  readonly dirty: RefObject<boolean>;
}

/** The last frame of every universe that the plan shows; `changed` are the keys of those that came since it was cleared. */
function useLevels(keys: readonly number[]) {
  const store = useRef({ frames: new Map<number, UniverseFrame>(), changed: new Set<number>() });
  const which = keys.join();
  useEffect(() => {
    const { current } = store;
    const stops = which
      .split(',')
      .filter((key) => key !== '')
      .map((key) =>
        feed.watch(Number(key), (frame) => {
          current.frames.set(Number(key), frame);
          current.changed.add(Number(key));
        }),
      );
    return () => stops.forEach((stop) => stop());
  }, [which]);
  return store;
}

interface Props {
  readonly size: Size;
  readonly marks: readonly Mark[];
  readonly regions: readonly Region[];
  readonly chosen: ReadonlySet<string>;
  /** The key on the wire of each show universe */
  readonly keyOf: ReadonlyMap<number, number>;
  readonly moving: Moving;
  /** What it shows, in words */
  readonly label: string;
}

export function PlanPicture({ size, marks, regions, chosen, keyOf, moving, label }: Props) {
  const lightLayer = useRef<HTMLCanvasElement>(null);
  const outlineLayer = useRef<HTMLCanvasElement>(null);
  const keys = useMemo(() => [...new Set(marks.flatMap((mark) => mark.keys))].sort((a, b) => a - b), [marks]);
  const levels = useLevels(keys);
  const colour = useColour();
  const [ground, line, soft, text, press] = (['ground', 'line', 'soft', 'text', 'press'] as const).map(colour);

  useEffect(() => {
    const { camera, drag, box, dirty } = moving;
    const below = lightLayer.current?.getContext('2d', { alpha: false });
    const above = outlineLayer.current?.getContext('2d');
    if (!below || !above || size.width === 0) return;
    const ratio = Math.min(2, devicePixelRatio);
    for (const { canvas } of [below, above]) {
      canvas.width = size.width * ratio;
      canvas.height = size.height * ratio;
    }
    above.setTransform(ratio, 0, 0, ratio, 0, 0);
    const inks = { ground: ground!, line: line!, soft: soft!, text: text!, press: press! };
    const layer = new LightLayer(below.createImageData(below.canvas.width, below.canvas.height), ratio, inks.ground);
    const dark = inkOf(inks.line);
    const { current: store } = levels;
    /** By show universe, gathered once a picture */
    const heard: (Uint8Array | undefined)[] = [];
    const levelAt = (universe: number, channel: number) => heard[universe]?.[channel - 1];
    let due = 0;
    let frame = 0;
    let first = true;
    const draw = (now: number) => {
      frame = requestAnimationFrame(draw);
      const moved = first || dirty.current;
      if ((!moved && store.changed.size === 0) || now < due) return;
      // Counted on from when it was due, so that a late picture does not delay those after it.
      due = Math.max(due + FRAME_MS, now - FRAME_MS);
      const scene: Scene = { marks, regions, chosen, drag: drag.current, box: box.current };
      for (const [universe, key] of keyOf) heard[universe] = store.frames.get(key)?.values;
      for (const mark of marks)
        if (first || mark.keys.some((key) => store.changed.has(key))) receive(mark, layer, levelAt, dark);
      drawLights(layer, size, camera.current, scene);
      layer.show(below);
      if (moved) drawOutlines(above, size, camera.current, scene, inks);
      dirty.current = first = false;
      store.changed.clear();
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [size, marks, regions, chosen, keyOf, levels, moving, ground, line, soft, text, press]);

  return (
    <>
      <canvas ref={lightLayer} aria-hidden style={LAYER} />
      <canvas ref={outlineLayer} role="img" aria-label={label} style={LAYER} />
    </>
  );
}
