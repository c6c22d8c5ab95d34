/** Lining up the chosen lamps: grid, line or arc, with a preview of every place. */
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { refuse, type Result } from '@taxiarch/core/base/result';
import type { Plan } from '@taxiarch/core/show/edit';
import { arc, grid, line, putAt, type Spot, type View as PlanSide } from '@taxiarch/core/rig/stage';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Choice, Field } from '@/ui';
import { metresFrom, wholeFrom } from '@/data/numbers';

const SHAPES = [
  { value: 'grid', label: 'Grid' },
  { value: 'line', label: 'Line' },
  { value: 'arc', label: 'Arc' },
] as const;
type Shape = (typeof SHAPES)[number]['value'];

/** `a; b` as two numbers of metres. */
function readSpot(text: string): Spot | undefined {
  const [a, b, ...more] = text.split(';').map(metresFrom);
  return a === undefined || b === undefined || more.length > 0 ? undefined : [a, b];
}

export function Arrange({ ids, view, first }: { ids: readonly string[]; view: PlanSide; first: Spot }) {
  const show = useShow();
  const [shape, setShape] = useState<Shape>('grid');
  const [columns, setColumns] = useState('4');
  const [spacing, setSpacing] = useState('1; 1');
  const [from, setFrom] = useState(first.join('; '));
  const [to, setTo] = useState(`${first[0] + 4}; ${first[1]}`);
  const [radius, setRadius] = useState('4');
  const [angles, setAngles] = useState('0; 180');
  const plan = useMemo((): Result<Plan> => {
    const start = readSpot(from);
    const end = readSpot(to);
    const steps = readSpot(spacing);
    const turn = readSpot(angles);
    const wide = wholeFrom(columns);
    const reach = metresFrom(radius);
    if (!start) return refuse('not-understood', 'Write two numbers of metres with a semicolon between, as in 1.5; 20.');
    const put = (spots: readonly Spot[]) =>
      putAt(
        show,
        view,
        ids.map((id, i) => [id, spots[i]!] as const),
      );
    if (shape === 'grid') {
      if (wide === undefined || wide < 1 || !steps)
        return refuse('not-understood', 'A grid needs columns, and two spacings as in 1; 1.5.');
      return put(grid(ids.length, wide, steps, start));
    }
    if (shape === 'line')
      return end ? put(line(ids.length, start, end)) : refuse('not-understood', 'A line needs its other end.');
    if (!turn || reach === undefined || reach <= 0)
      return refuse('not-understood', 'An arc needs a radius, and two angles as in 0; 180.');
    return put(arc(ids.length, start, reach, turn[0], turn[1]));
  }, [show, view, ids, shape, columns, spacing, from, to, radius, angles]);
  const axes = view === 'top' ? 'across; along' : 'along; up';
  return (
    <View className="gap-2">
      <Choice label="Shape" options={SHAPES} value={shape} onChange={setShape} />
      <Field label={`${shape === 'arc' ? 'Middle' : 'First'}, ${axes}, metres`} mono value={from} onChange={setFrom} />
      {shape === 'grid' && (
        <View className="flex-row gap-2">
          <View className="w-28">
            <Field label="Columns" mono value={columns} onChange={setColumns} />
          </View>
          <View className="flex-1">
            <Field label={`Spacing, ${axes}`} mono value={spacing} onChange={setSpacing} />
          </View>
        </View>
      )}
      {shape === 'line' && <Field label={`Last, ${axes}, metres`} mono value={to} onChange={setTo} />}
      {shape === 'arc' && (
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Field label="Radius, metres" mono value={radius} onChange={setRadius} />
          </View>
          <View className="flex-1">
            <Field label="Angles from; to" mono value={angles} onChange={setAngles} />
          </View>
        </View>
      )}
      <PlanPreview plan={plan} act={`Line up ${ids.length}`} most={2} />
    </View>
  );
}
