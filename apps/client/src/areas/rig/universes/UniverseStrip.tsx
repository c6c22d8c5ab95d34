/** A universe as a strip: what is used, in turns of two shades, and what is free. */
import { useEffect, useRef } from 'react';
import { SLOTS } from '@taxiarch/core/base/address';
import { lastChannel, type Span } from '@taxiarch/core/rig/patch';
import { count, useColour } from '@/ui';

const HEIGHT = 20;

export function UniverseStrip({ spans, marked }: { spans: readonly Span[]; marked?: string | undefined }) {
  const colour = useColour();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    context.fillStyle = colour('raised');
    context.fillRect(0, 0, SLOTS * 2, HEIGHT);
    let reach = 0;
    spans.forEach((span, i) => {
      const { lamp } = span.patched;
      const last = Math.min(SLOTS, lastChannel(span));
      context.fillStyle = lamp.id === marked ? colour('press') : colour(i % 2 === 0 ? 'soft' : 'line');
      context.fillRect((span.channel - 1) * 2, 3, (last - span.channel + 1) * 2 - 1, HEIGHT - 6);
      if (span.channel <= reach) {
        context.fillStyle = colour('fault');
        context.fillRect((span.channel - 1) * 2, 0, (Math.min(reach, last) - span.channel + 1) * 2, HEIGHT);
      }
      reach = Math.max(reach, last);
    });
  }, [spans, marked, colour]);
  return (
    <canvas
      ref={canvas}
      width={SLOTS * 2}
      height={HEIGHT}
      role="img"
      aria-label={`${count(spans.length, 'lamp')} on the strip`}
      style={{ width: '100%', height: HEIGHT, borderRadius: 3 }}
    />
  );
}
