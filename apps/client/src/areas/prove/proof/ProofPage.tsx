/** The record of proof: what stands in it, drawn up, signed, given out, and checked; and labels. */
import { useRef, useState } from 'react';
import { View } from 'react-native';
import { PROOF_PARTS, type Proof, type ProofPart } from '@taxiarch/core/show/records';
import { PROOF_FORMATS } from '@taxiarch/core/whole/contract';
import { PAPERS, type Paper } from '@taxiarch/core/proving/proof';
import { paperSize, personName, usePreference } from '@/data/preferences';
import { checkFile, proofAddress, saveFile, signProof } from '@/data/proof';
import { useShow } from '@/data/show';
import {
  Button,
  Check,
  Choice,
  Field,
  Fold,
  Notice,
  Screen,
  Section,
  Sentence,
  StateWord,
  Text,
  useWide,
  PageShape,
  dayAndTime,
} from '@/ui';
import { Labels } from './Labels';

const PART_WORDS: Readonly<Record<ProofPart, string>> = {
  lamps: 'Lamps by place',
  failed: 'What failed, and what was done',
  'not known': 'What is not known',
  nodes: 'Nodes as they say that they are set',
  addresses: 'Addresses',
  ports: 'Ports',
  universes: 'Universes',
  pixels: 'Pixels',
  switches: 'Switches',
  'what if': 'What if: every single failure',
};

function SignedRow({ proof }: { proof: Proof }) {
  const { signed, at, sentence, sha256, seq } = proof;
  return (
    <View className="gap-1 border-b border-line py-2">
      <Text kind="strong">
        {signed.name}
        {signed.role !== '' && `, ${signed.role}`}: {dayAndTime(at)}
      </Text>
      <Text>{sentence}</Text>
      {signed.words !== '' && <Text kind="soft">{signed.words}</Text>}
      <Text kind="monoSmall" style={{ wordBreak: 'break-all' } as object}>
        Edit {seq}, SHA-256 {sha256}
      </Text>
      <View className="flex-row gap-4">
        {PROOF_FORMATS.map((format) => (
          <a
            key={format}
            href={proofAddress(proof.id, format)}
            style={{ minHeight: 44, display: 'flex', alignItems: 'center' }}
          >
            <Text tone="press">{format.toUpperCase()}</Text>
          </a>
        ))}
      </View>
    </View>
  );
}

function CheckFile() {
  const input = useRef<HTMLInputElement>(null);
  const [found, setFound] = useState<{ says: string; known: boolean }>();
  const [trouble, setTrouble] = useState('');
  const check = (file: File | undefined) => {
    if (!file) return;
    setTrouble('');
    checkFile(file).then(
      ({ says, proof }) => setFound({ says, known: proof !== null }),
      (error: Error) => setTrouble(error.message),
    );
  };
  return (
    <Section title="Is this file what was signed?">
      <input
        ref={input}
        type="file"
        aria-label="File to check"
        style={{ display: 'none' }}
        onChange={(event) => check(event.target.files?.[0])}
      />
      <Button label="Choose a file" onPress={() => input.current?.click()} />
      {trouble !== '' && <Text tone="fault">{trouble}</Text>}
      {found && (
        <View role="status" className="gap-1">
          <StateWord state={found.known ? 'fine' : 'must fix'} />
          <Text>{found.says}</Text>
        </View>
      )}
    </Section>
  );
}

function Sign({ parts, paper }: { parts: readonly ProofPart[]; paper: Paper }) {
  const [name, setName] = useState(personName.read());
  const [role, setRole] = useState('');
  const [words, setWords] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const sign = async () => {
    setTrouble('');
    setBusy(true);
    try {
      await signProof({ name: name.trim(), role: role.trim(), words: words.trim(), parts, paper });
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <Section title="Sign it">
      <Text kind="small">What is signed is kept as it is, and never changed; a later one says what differs.</Text>
      <Field label="Name" value={name} onChange={setName} />
      <Field label="Role" value={role} onChange={setRole} />
      <Field label="In words" multiline value={words} onChange={setWords} />
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      <Button
        label={busy ? 'Being made…' : 'Sign it'}
        look="main"
        disabled={busy || name.trim() === '' || parts.length === 0}
        onPress={() => void sign()}
      />
    </Section>
  );
}

export function ProofPage() {
  const wide = useWide();
  const { records, loaded } = useShow();
  const [parts, setParts] = useState<readonly ProofPart[]>(PROOF_PARTS);
  const [trouble, setTrouble] = useState('');
  const [making, setMaking] = useState('');
  const paper = usePreference(paperSize) as Paper;
  if (!loaded) return <PageShape />;
  const signed = [...records.proof].sort((a, b) => b.rev - a.rev);
  const [last] = signed;
  const save = async (format: (typeof PROOF_FORMATS)[number]) => {
    setTrouble('');
    setMaking(format);
    try {
      await saveFile('draftProof', { format, parts, paper });
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setMaking('');
  };
  return (
    <Screen
      across={wide}
      sentence={
        <Sentence>
          {last ? `${last.signed.name} signed on ${dayAndTime(last.at)}: ${last.sentence}` : 'Nothing was signed yet.'}
        </Sentence>
      }
    >
      <View className={wide ? 'flex-row gap-8' : 'gap-4'}>
        <View className={wide ? 'w-[460px] gap-4' : 'gap-4'}>
          <Section title="What stands in it">
            {PROOF_PARTS.map((part) => (
              <Check
                key={part}
                label={PART_WORDS[part]}
                on={parts.includes(part)}
                onChange={(on) => setParts(PROOF_PARTS.filter((one) => (one === part ? on : parts.includes(one))))}
              />
            ))}
          </Section>
          <Section title="Look at it first">
            <View className="flex-row flex-wrap gap-2">
              {PROOF_FORMATS.map((format) => (
                <Button
                  key={format}
                  label={`Draft as ${format.toUpperCase()}`}
                  short={making === format ? 'Being made…' : format.toUpperCase()}
                  disabled={making !== '' || parts.length === 0}
                  onPress={() => void save(format)}
                />
              ))}
            </View>
            <Choice
              label="Paper"
              options={PAPERS.map((value) => ({ value, label: value === 'Letter' ? 'US Letter' : value }))}
              value={paper}
              onChange={(value) => paperSize.write(value)}
            />
            {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
          </Section>
          <Sign parts={parts} paper={paper} />
        </View>
        <View className={wide ? 'flex-1 gap-4' : 'gap-4'}>
          {signed.length > 0 && (
            <Section title="Signed">
              {signed.map((proof) => (
                <SignedRow key={proof.id} proof={proof} />
              ))}
            </Section>
          )}
          <CheckFile />
          <Section title="Labels">
            <Fold title="Labels for nodes, cables and lamps" of="on sheets of labels">
              <Labels />
            </Fold>
          </Section>
        </View>
      </View>
    </Screen>
  );
}
