/** This show and this computer: who works, the history, how it looks, which interface, how it sends. */
import { Link } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { SACN_LAST } from '@taxiarch/core/base/address';
import type { Settings } from '@taxiarch/core/whole/contract';
import { recordPlan } from '@taxiarch/core/show/edit';
import type { ShowInfo } from '@taxiarch/core/show/records';
import { call } from '@/data/api';
import { useHot, useSettings } from '@/data/live';
import { wholeFrom } from '@/data/numbers';
import { makeHot } from '@/data/output';
import { personName, staysTaken, usePreference } from '@/data/preferences';
import { openShipped, useShow } from '@/data/show';
import { RecordFoot } from '@/forms/RecordFoot';
import { rulesOf } from '@/forms/rules';
import { useRecordForm } from '@/forms/useRecordForm';
import {
  Button,
  Choice,
  Field,
  Notice,
  Screen,
  Section,
  Sentence,
  Slider,
  Text,
  count,
  pinTheme,
  useThemeChoice,
} from '@/ui';
import { History } from './History';

const THEMES = [
  { value: 'system', label: 'System' },
  { value: 'backstage', label: 'Backstage' },
  { value: 'daylight', label: 'Daylight' },
] as const;
const YES_NO = [
  { value: 'yes', label: 'Yes' },
  { value: 'no', label: 'No' },
] as const;

const yesNo = (yes: boolean) => (yes ? 'yes' : 'no');

const SHIPPED = [
  { show: 'night-ferry', name: 'Night Ferry', about: 'The demo show, in which all is well.' },
  {
    show: 'bad-night',
    name: 'Night Ferry, bad night',
    about: 'The same with ten faults in its plan, and more in its stand-ins, to be found and mended.',
  },
] as const;

function Shipped({ onTrouble }: { onTrouble: (why: string) => void }) {
  const [sure, setSure] = useState('');
  return (
    <Section title="Shows that ship with Taxiarch">
      {SHIPPED.map(({ show, name, about }) => (
        <View key={show} className="gap-2">
          <View className="flex-row items-center gap-3">
            <View className="flex-1">
              <Text>{name}</Text>
              <Text kind="small">{about}</Text>
            </View>
            {sure !== show && <Button label={`Open ${name}`} short="Open" onPress={() => setSure(show)} />}
          </View>
          {sure === show && (
            <>
              <Notice state="look at">It takes the place of the show that is open. Undo brings that back.</Notice>
              <View className="flex-row gap-2">
                <Button label="Leave it" grow onPress={() => setSure('')} />
                <Button
                  label="Open it"
                  look="main"
                  grow
                  onPress={() => {
                    setSure('');
                    void openShipped(show).catch((error: Error) => onTrouble(error.message));
                  }}
                />
              </View>
            </>
          )}
        </View>
      ))}
      <Link href="/practise" asChild>
        <Text tone="press" className="py-2">
          Practise: find faults against the clock
        </Text>
      </Link>
    </Section>
  );
}

function Sending({ settings, change }: { settings: Settings; change: (changes: Partial<Settings>) => void }) {
  const hot = useHot();
  const stays = usePreference(staysTaken);
  return (
    <Section title="Sending">
      <Text>
        {hot ? 'Taxiarch is hot: what is taken is sent.' : 'Taxiarch is safe: it sends no values, whatever is pressed.'}
      </Text>
      <Button label={hot ? 'Make safe' : 'Make hot'} look={hot ? 'plain' : 'hot'} onPress={() => void makeHot(!hot)} />
      <Slider
        label="Frames a second while values change"
        value={settings.outputRate}
        max={44}
        onChange={(rate) => change({ outputRate: Math.max(1, rate) })}
      />
      <Slider
        label="sACN priority of what is taken"
        value={settings.outputPriority}
        max={200}
        onChange={(priority) => change({ outputPriority: Math.max(1, priority) })}
      />
      <SyncUniverse settings={settings} change={change} />
      <Text kind="label">ArtSync after each round of what is taken</Text>
      <Choice
        label="ArtSync"
        options={YES_NO}
        value={yesNo(settings.outputArtSync)}
        onChange={(value) => change({ outputArtSync: value === 'yes' })}
      />
      <Text kind="label">Go on sending what I took here when this device goes away</Text>
      <Choice
        label="Stay taken"
        options={YES_NO}
        value={stays === 'yes' ? 'yes' : 'no'}
        onChange={(value) => staysTaken.write(value)}
      />
      <Text kind="label">Send Art-Net to the whole subnet (broadcast)</Text>
      <Choice
        label="Art-Net broadcast"
        options={YES_NO}
        value={yesNo(settings.artnetBroadcast)}
        onChange={(value) => change({ artnetBroadcast: value === 'yes' })}
      />
      <Text kind="label">Ask for Art-Net nodes every 2.8 s, also while safe</Text>
      <Choice
        label="Ask for nodes"
        options={YES_NO}
        value={yesNo(settings.poll)}
        onChange={(value) => change({ poll: value === 'yes' })}
      />
      <Slider
        label="An Art-Net stream is lost after, in seconds"
        value={Math.round(settings.artnetTimeout / 1000)}
        max={60}
        onChange={(seconds) => change({ artnetTimeout: Math.max(1, seconds) * 1000 })}
      />
    </Section>
  );
}

/** By which universe what is taken is let out together; written when it is left. */
function SyncUniverse({ settings, change }: { settings: Settings; change: (changes: Partial<Settings>) => void }) {
  const [text, setText] = useState(settings.outputSync > 0 ? String(settings.outputSync) : '');
  const universe = text.trim() === '' ? 0 : wholeFrom(text);
  const fits = universe !== undefined && universe <= SACN_LAST;
  return (
    <View className="flex-row items-end gap-2">
      <View className="flex-1">
        <Field
          label="Let out together by sACN universe"
          mono
          placeholder="none"
          value={text}
          onChange={setText}
          fault={fits ? undefined : `sACN universes run from 1 to ${SACN_LAST}.`}
        />
      </View>
      <Button
        label="Set the sync universe"
        short="Set"
        disabled={!fits || universe === settings.outputSync}
        onPress={() => fits && change({ outputSync: universe })}
      />
    </View>
  );
}

/** How lamps are asked over their DMX cables. */
function Lamps({ settings, change }: { settings: Settings; change: (changes: Partial<Settings>) => void }) {
  return (
    <Section title="Asking lamps">
      <Slider
        label="Most of a port’s time for it, per cent"
        value={settings.rdmShare}
        max={50}
        onChange={(share) => change({ rdmShare: Math.max(1, share) })}
      />
      <Slider
        label="Call the roll by itself every so many minutes; 0 for never"
        value={settings.rollEvery}
        max={240}
        onChange={(minutes) => change({ rollEvery: minutes })}
      />
    </Section>
  );
}

const NAMING = rulesOf('show', ['name', 'about']);

/** What the show is called and what it is. */
function Naming({ show }: { show: ShowInfo | undefined }) {
  const editing = useRecordForm<Pick<ShowInfo, 'name' | 'about'>, ShowInfo>(
    'show',
    show,
    (one) => ({
      name: one?.name ?? '',
      about: one?.about ?? '',
    }),
    NAMING,
  );
  const { base, form, text } = editing;
  const plan = useMemo(() => {
    const after: ShowInfo = {
      ...(base ?? { id: 'show', rev: 0, file: null }),
      about: form.about,
      name: form.name.trim(),
    };
    return recordPlan('show', base, after, { sentence: base ? 'Described the show' : `Named the show ${after.name}` });
  }, [base, form]);
  return (
    <>
      <Field label="Name of the show" {...text('name')} />
      <Field label="What it is" multiline {...text('about')} />
      {editing.typed && <RecordFoot of={editing} plan={plan} act="Keep name and description" />}
    </>
  );
}

export function ShowPage() {
  const { records, loaded } = useShow();
  const theme = useThemeChoice();
  const [typedName, setTypedName] = useState(personName.read);
  const { data: settings, mutate } = useSettings();
  const [trouble, setTrouble] = useState('');
  const change = (changes: Partial<Settings>) => {
    setTrouble('');
    void mutate(call('changeSettings', { body: changes }), { revalidate: false }).catch((error: Error) =>
      setTrouble(error.message),
    );
  };
  const show = records.show[0];
  return (
    <Screen
      sentence={
        <Sentence>
          {loaded
            ? `${show?.name ?? 'A show without a name'}: ${count(records.lamp.length, 'lamp')}, ${count(records.universe.length, 'universe')}, ${count(records.machine.length, 'machine')}.`
            : ''}
        </Sentence>
      }
    >
      <View className="max-w-[640px] gap-4">
        {loaded && <Naming show={show} />}
        {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
        <Section title="You, in the history and where you take">
          <Field
            label="Your name"
            value={typedName}
            onChange={(text) => {
              setTypedName(text);
              personName.write(text.trim());
            }}
          />
        </Section>
        <Section title="Theme">
          <Choice label="Theme" options={THEMES} value={theme} onChange={pinTheme} />
        </Section>
        <Shipped onTrouble={setTrouble} />
        <History onTrouble={setTrouble} />
        <Section title="Network interfaces">
          <Text>Which one Taxiarch uses is chosen under Wire.</Text>
          <Link href={'/wire/here'}>
            <Text tone="press">This computer’s interfaces</Text>
          </Link>
        </Section>
        {settings && <Sending settings={settings} change={change} />}
        {settings && <Lamps settings={settings} change={change} />}
      </View>
    </Screen>
  );
}
