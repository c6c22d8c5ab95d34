/** A time line as it was played: lit lamps over time, the ship at a moment, and the worst first. */
import { useMemo, useState } from 'react';
import { View, useWindowDimensions } from 'react-native';
import type { WhatIfReport } from '@taxiarch/core/truth/whatif';
import { Fold, LineChart, Section, Slider, Text, useChartConfig, useColour, useWide } from '@/ui';
import { LampMap } from './LampMap';

const WIDE = 640;
const SIDES = 32;

function LitChart({ report, width }: { report: WhatIfReport; width: number }) {
  const colour = useColour();
  const config = useChartConfig();
  const { samples } = report;
  const lit = samples.map(({ lit: one, changed }) => one + changed);
  const dark = samples.map((one) => one.dark);
  const labels = samples.map(({ at }, i) => (i % Math.ceil(samples.length / 6) === 0 ? `${Math.round(at)} s` : ''));
  return (
    <View
      accessibilityLabel={`Lit lamps over time: at the end ${lit[lit.length - 1]} lit, ${dark[dark.length - 1]} dark`}
    >
      <LineChart
        data={{
          labels,
          datasets: [
            { data: lit, color: () => colour('fine'), strokeWidth: 3 },
            { data: dark, color: () => colour('fault'), strokeDashArray: [4, 4] },
          ],
        }}
        width={width}
        height={160}
        withDots={false}
        withInnerLines={false}
        withShadow={false}
        fromZero
        segments={3}
        chartConfig={config}
        style={{ paddingRight: 48, marginLeft: -8 }}
      />
      <Text kind="small">Whole line: lamps lit. Broken line: lamps dark.</Text>
    </View>
  );
}

export function Played({ report }: { report: WhatIfReport }) {
  const wide = useWide();
  const window = useWindowDimensions();
  const width = wide ? WIDE : window.width - SIDES;
  const steps = report.samples.length;
  const [step, setStep] = useState(Math.floor(steps / 2));
  const at = report.samples[Math.min(step, steps - 1)];
  const codes = useMemo(
    () => new Map(report.lamps.map(({ id, codes: all }) => [id, all[Math.min(step, steps - 1)]!])),
    [report, step, steps],
  );
  if (!at) return null;
  return (
    <>
      <LitChart report={report} width={width} />
      <Slider
        label="Moment"
        value={Math.min(step, steps - 1)}
        max={steps - 1}
        reads={`${at.at.toFixed(1)} s`}
        onChange={setStep}
      />
      <Text>
        {at.lit} live, {at.changed} from others, {at.held} held, {at.fading} fading, {at.dark} dark
        {at.perhaps > 0 && `, ${at.perhaps} perhaps dark`}.
      </Text>
      <LampMap codes={codes} width={width} label={`The ship from above at ${at.at.toFixed(1)} s`} />
      <Text kind="small">
        Dot: live. Triangle: from others. Ring: held. Half: fading. Cross: dark. Question: perhaps dark.
      </Text>
      <Section title="The worst first">
        {report.effects.length === 0 && <Text>No lamp changes.</Text>}
        {report.effects.map(({ what, says, lampIds }, i) => (
          <View key={`${what} ${i}`} className="border-b border-line py-2">
            <Text kind="strong">{what}</Text>
            <Text>{says}</Text>
            <Text kind="monoSmall" numberOfLines={1}>
              {lampIds.length} lamps
            </Text>
          </View>
        ))}
      </Section>
      {report.ports.length > 0 && (
        <Fold title={`${report.ports.length} ports in time`} of="what leaves each, and who has the say">
          {report.ports.map(({ machineId, port, name, universe, spans, owners }) => (
            <View key={`${machineId} ${port}`} className="border-b border-line py-2">
              <Text kind="strong">
                {name}, port {port}
                {universe > 0 && `: universe ${universe}`}
              </Text>
              <Text kind="small">{spans.map(({ from, state }) => `${from.toFixed(1)} s ${state}`).join(', ')}</Text>
              <Text kind="small">
                {owners
                  .map(
                    ({ from, names }) => `${from.toFixed(1)} s ${names.length === 0 ? 'nobody' : names.join(' and ')}`,
                  )
                  .join(', ')}
              </Text>
            </View>
          ))}
        </Fold>
      )}
      <Section title="Taken for granted">
        {report.assumes.map((one) => (
          <Text key={one} kind="small">
            {one}
          </Text>
        ))}
      </Section>
    </>
  );
}
