/** All ports of the show in one table; imported and exported as CSV. */
import { Link } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import { formatWire } from '@taxiarch/core/base/address';
import { readPortTable } from '@taxiarch/core/files/format';
import { MERGE_WORDS, lossText, wireNumber } from '@taxiarch/core/network/machine';
import { useShow } from '@/data/show';
import { useTableImport } from '@/forms/useTableImport';
import { Button, Screen, Section, Sentence, Text, count, printSheet } from '@/ui';

export function PortTable() {
  const { records, loaded } = useShow();
  const table = useTableImport('Table of ports', readPortTable);
  const universes = useMemo(() => new Map(records.universe.map((one) => [one.number, one])), [records.universe]);
  const machines = records.machine.filter(({ ports }) => ports.length > 0);
  const ports = machines.reduce((sum, one) => sum + one.ports.length, 0);
  return (
    <Screen
      sentence={
        <Sentence>
          {!loaded ? 'Reading the show…' : `${count(ports, 'port')} on ${count(machines.length, 'machine')}.`}
        </Sentence>
      }
      acts={
        <>
          <Button label="Print" onPress={() => printSheet('ports')} />
          <Button
            label="Export as CSV"
            short="Export"
            grow
            onPress={() => window.location.assign('/api/export/csv/ports')}
          />
          <Button label="Import from CSV" short="Import" grow onPress={table.choose} />
        </>
      }
    >
      {table.shown}
      <View id="ports" className="gap-4">
        {machines.map((machine) => (
          <Section key={machine.id} title={machine.name}>
            <Link href={`/wire/ports/${machine.id}`}>
              <Text tone="press">Set its ports</Text>
            </Link>
            {machine.ports.map((port) => (
              <View key={port.number} className="min-h-10 flex-row items-center gap-3 border-b border-line py-1">
                <Text kind="mono" className="w-6">
                  {port.number}
                </Text>
                <View className="flex-1">
                  <Text numberOfLines={1}>
                    {port.use === 'out' || port.use === 'in'
                      ? `${port.use} · universe ${port.universe}`
                      : port.use === 'fixed'
                        ? `fixed at ${port.fixed}`
                        : 'off'}
                    {port.label && ` · ${port.label}`}
                  </Text>
                  {port.use === 'out' && (
                    <Text kind="small" numberOfLines={1}>
                      {port.copyOf === null
                        ? `${MERGE_WORDS[port.merge]} · signal lost: ${lossText(port.loss)}${port.rdm ? ' · RDM' : ''}`
                        : `copy of port ${port.copyOf}`}
                    </Text>
                  )}
                </View>
                {(port.use === 'out' || port.use === 'in') && (
                  <Text kind="monoSmall">
                    {formatWire({ protocol: port.protocol, number: wireNumber(port, universes) })}
                  </Text>
                )}
              </View>
            ))}
          </Section>
        ))}
      </View>
    </Screen>
  );
}
