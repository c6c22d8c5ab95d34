/** Why it failed, by one tap; a note and a photograph before that, if wished. */
import { useRef, useState } from 'react';
import { View } from 'react-native';
import type { PatchedLamp } from '@taxiarch/core/rig/patch';
import type { MarkReason } from '@taxiarch/core/show/records';
import { channelName } from '@taxiarch/core/proving/walk';
import { Button, Field, Pick, Text } from '@/ui';
import { smaller } from './smaller';
import { REASONS } from './words';

interface Props {
  readonly patched: PatchedLamp;
  readonly channel: number;
  readonly onFail: (why: MarkReason, rest: { note: string; photo: Blob | null; did: number }) => void;
  readonly onLeave: () => void;
}

/** The phone’s camera where it has one; else a picture that is there. */
function Photograph({ photo, onPhoto }: { photo: Blob | null; onPhoto: (photo: Blob | null) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [trouble, setTrouble] = useState('');
  const take = async (file: File | undefined) => {
    if (!file) return;
    setTrouble('');
    try {
      onPhoto(await smaller(file));
    } catch {
      setTrouble('This file is no picture that can be read.');
    }
  };
  return (
    <View className="gap-1">
      <input
        ref={input}
        type="file"
        accept="image/*"
        capture="environment"
        aria-label="Photograph"
        style={{ display: 'none' }}
        onChange={(event) => void take(event.target.files?.[0])}
      />
      <Button
        label={photo ? 'Photograph taken; another' : 'Take a photograph'}
        short={photo ? 'Photo taken' : 'Photo'}
        onPress={() => input.current?.click()}
      />
      {trouble !== '' && <Text tone="fault">{trouble}</Text>}
    </View>
  );
}

export function FailedSheet({ patched, channel, onFail, onLeave }: Props) {
  const [note, setNote] = useState('');
  const [photo, setPhoto] = useState<Blob | null>(null);
  const { channels } = patched.mode;
  const others = channels.flatMap((one, i) =>
    i === channel - 1 ? [] : [{ value: String(i + 1), label: channelName(one) }],
  );
  const fail = (why: MarkReason, did = 0) => onFail(why, { note: note.trim(), photo, did });
  const reasons =
    channel === 0
      ? REASONS
      : ([
          ['dark', 'Nothing happens'],
          ['flickers', 'Flickers'],
          ['other', 'Other'],
        ] as const);
  return (
    <View className="gap-2 border-t border-line bg-surface px-4 py-3">
      <View className="w-full max-w-[880px] gap-2">
        <View className="flex-row items-center gap-2">
          <Text kind="strong" className="flex-1">
            What is wrong?
          </Text>
          <Photograph photo={photo} onPhoto={setPhoto} />
          <Button label="Leave it" onPress={onLeave} />
        </View>
        <Field label="Note" hideLabel placeholder="Note, if wished; then tap why" value={note} onChange={setNote} />
        {channel > 0 && others.length > 0 && (
          <Pick
            label="It does something else"
            options={[{ value: '0', label: 'It does the work of…' }, ...others]}
            value="0"
            onChange={(value) => value !== '0' && fail('does something else', Number(value))}
          />
        )}
        <View className="flex-row flex-wrap gap-2">
          {reasons.map(([why, label]) => (
            <Button key={why} label={label} onPress={() => fail(why)} />
          ))}
        </View>
      </View>
    </View>
  );
}
