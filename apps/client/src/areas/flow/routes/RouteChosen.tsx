/** Many universes routed in one act: where the first goes, how, and what would be written. */
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { formatUniverses } from '@taxiarch/core/base/address';
import { planManyRoutes } from '@taxiarch/core/network/flow';
import { DELIVERIES, type Delivery } from '@taxiarch/core/show/records';
import { newId } from '@/data/numbers';
import { wireFrom } from '@/data/routes';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Field, Pick, Section, Text } from '@/ui';

export function RouteChosen({ universes, onDone }: { universes: readonly number[]; onDone: () => void }) {
  const { records } = useShow();
  const [to, setTo] = useState('');
  const [delivery, setDelivery] = useState<Delivery>('usual');
  const [addresses, setAddresses] = useState('');
  const plan = useMemo(() => {
    const wire = wireFrom(to, records.universe);
    if (!wire.ok) return wire;
    const over = { delivery, addresses: delivery === 'unicast' ? addresses.split(/[\s,;]+/).filter(Boolean) : [] };
    return planManyRoutes(records, { universes, to: wire.value, over }, newId);
  }, [universes, to, delivery, addresses, records]);
  return (
    <Section title={universes.length === 0 ? 'Choose universes below' : `Route ${formatUniverses(universes)}`}>
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Field label="The first goes to" mono placeholder="sACN 101" value={to} onChange={setTo} />
        </View>
        <View className="flex-1">
          <Pick
            label="Delivery"
            options={DELIVERIES.map((value) => ({ value, label: value }))}
            value={delivery}
            onChange={(value) => setDelivery(value as Delivery)}
          />
        </View>
      </View>
      {delivery === 'unicast' && <Field label="To the addresses" mono value={addresses} onChange={setAddresses} />}
      {universes.length > 0 && to !== '' && <PlanPreview plan={plan} act="Plan the routes" onDone={onDone} />}
      <Text kind="small">The others follow it. Routes run when you switch them on.</Text>
    </Section>
  );
}
