/** The record of proof on the show’s thread: drawn up, signed, given out as it was signed, and checked. */
import { createHash, randomUUID } from 'node:crypto';
import { PROOF_FORMATS, type ProofFormat } from '@taxiarch/core/whole/contract';
import { added } from '@taxiarch/core/show/edit';
import { writeProofTable } from '@taxiarch/core/files/format';
import { heardMachines, matchMachines } from '@taxiarch/core/network/node';
import {
  differencesOfProofs,
  labelsOf,
  placed,
  proofBlocks,
  proofContent,
  proofHtml,
  proofJson,
  type Paper,
  type ProofContent,
} from '@taxiarch/core/proving/proof';
import type { Proof, ProofPart } from '@taxiarch/core/show/records';
import { StoodNow } from '@taxiarch/core/proving/walk';
import type { FailureRow } from '@taxiarch/core/truth/whatif';
import type { Printing } from '../paper/printing';
import { ProblemError } from '../problemError';
import type { KeptFiles } from '../store/files';
import type { ShowStore } from '../store/store';
import type { Call, Handlers } from './api';
import { rollRows } from './asked';

type ProofHandlers = Pick<Handlers, 'draftProof' | 'signProof' | 'exportProof' | 'checkProof' | 'exportLabels'>;

const sha256 = (bytes: Uint8Array | string): string => createHash('sha256').update(bytes).digest('hex');

export function proofHandlers(
  store: ShowStore,
  files: KeptFiles,
  printing: Printing,
  tryFailures: () => Promise<readonly FailureRow[]>,
): ProofHandlers {
  const last = (): Proof | undefined =>
    store
      .records()
      .proof.reduce<Proof | undefined>((found, one) => (!found || one.rev > found.rev ? one : found), undefined);

  const contentNow = async (
    parts: readonly ProofPart[],
    { live, roll }: Pick<Call<unknown>, 'live' | 'roll'>,
  ): Promise<ProofContent> => {
    const failures = parts.includes('what if') ? await tryFailures() : [];
    const { records, patch } = store.rig();
    const rows = rollRows(store, roll);
    return proofContent({
      ...{ records, patch, seq: store.lastSeq, at: new Date().toISOString(), parts, rows, failures },
      stood: new StoodNow(records, live, rows),
      entries: live ? matchMachines(records, heardMachines(live)) : [],
    });
  };

  const made = async (content: ProofContent, format: ProofFormat, paper: Paper): Promise<Uint8Array> => {
    const json = proofJson(content);
    const sum = sha256(json);
    switch (format) {
      case 'json':
        return Buffer.from(json);
      case 'html':
        return Buffer.from(proofHtml(content, sum));
      case 'csv':
        return Buffer.from(writeProofTable(content));
      case 'pdf':
        return printing.pdf({
          ...{ kind: 'proof', blocks: proofBlocks(content, sum), title: `${content.show}: record of proof` },
          ...{ show: content.show, foot: content.signed ? `SHA-256 ${sum}` : 'Not signed', at: content.at, paper },
        });
    }
  };

  const nameOf = (content: Pick<ProofContent, 'show' | 'at'>, format: ProofFormat): string =>
    `${content.show} proof ${content.at.slice(0, 16).replace(/[T:]/g, '-')}.${format}`;

  return {
    draftProof: async ({ body: { format, parts, paper }, ...call }) => {
      const content = await contentNow(parts, call);
      return { name: nameOf(content, format), content: await made(content, format, paper) };
    },

    signProof: async ({ body: { name, role, words, parts, paper }, ...call }) => {
      const drawn = await contentNow(parts, call);
      const before = last();
      const old = before && files.get(before.sha256);
      const differs = old
        ? {
            ...{ sha256: before.sha256, at: before.at },
            lines: differencesOfProofs(JSON.parse(new TextDecoder().decode(old)) as ProofContent, drawn),
          }
        : null;
      const content: ProofContent = { ...drawn, differs, signed: { name, role, words } };
      const kept = await Promise.all(
        PROOF_FORMATS.map(async (ending) => ({ ending, sha256: files.keep(await made(content, ending, paper)) })),
      );
      const proof: Proof = {
        ...{ id: randomUUID(), rev: 0, at: content.at, signed: { name, role, words }, seq: content.seq },
        ...{ sha256: kept.find(({ ending }) => ending === 'json')!.sha256, parts, sentence: content.sentence },
        files: kept.filter(({ ending }) => ending !== 'json'),
      };
      await store.propose({ author: name, sentence: 'Signed a record of proof', changes: [added('proof', proof)] });
      return store.records().proof.find(({ id }) => id === proof.id)!;
    },

    exportProof: ({ params: { proof: id, format } }) => {
      const { records } = store.rig();
      const proof = records.proof.find((one) => one.id === id);
      const name = format === 'json' ? proof?.sha256 : proof?.files.find(({ ending }) => ending === format)?.sha256;
      const bytes = files.get(name ?? null);
      if (!proof || !bytes) throw new ProblemError('not-here', 'This record of proof is not here.');
      return { name: nameOf({ show: records.show[0]?.name ?? 'Show', at: proof.at }, format), content: bytes };
    },

    checkProof: ({ bytes }) => {
      if (bytes.length === 0) throw new ProblemError('not-understood', 'The file is empty.');
      const sum = sha256(bytes);
      const { proof: all } = store.records();
      const found = all.find((one) => one.sha256 === sum || one.files.some((file) => file.sha256 === sum));
      if (!found)
        return {
          sha256: sum,
          proof: null,
          says: `No record of proof of this show has this file: it is another show’s, or it was changed after it was signed.`,
        };
      const { signed, at, seq } = found;
      return {
        sha256: sum,
        proof: found,
        says: `This is, byte by byte, what ${signed.name} signed on ${at.slice(0, 16).replace('T', ' ')} UTC. It speaks of edit ${seq}; the show is at ${store.lastSeq} now.`,
      };
    },

    exportLabels: async ({ body: { what, ids, sheet, skip, base, cases } }) => {
      const { records, patch } = store.rig();
      const labels = labelsOf({ what, ids, cases }, records, patch);
      if (!labels.ok) throw new ProblemError('not-possible', labels.why);
      const content = await printing.pdf({ kind: 'labels', labels: placed(labels.value, sheet, skip), sheet, base });
      return { name: `${records.show[0]?.name ?? 'Show'} labels.pdf`, content };
    },
  };
}
