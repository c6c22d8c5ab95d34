/**
 * What a record of proof says: plain lists, made once and then never again. Its bytes as JSON are what the checksum is
 * over; paper and tables are made from it, and say nothing more.
 */
import type { Known } from '../../truth/known';
import type { ProofPart } from '../../show/records';
import type { WalkState } from '../walk';

export const PROOF_FORMAT = 'taxiarch-record-of-proof';

export interface ProvenLamp {
  readonly number: number;
  readonly name: string;
  readonly address: string;
  readonly type: string;
  readonly mode: string;
  readonly state: WalkState;
  /** How that is known */
  readonly known: Known;
  readonly by: string;
  /** ISO 8601; empty if nobody looked */
  readonly at: string;
  readonly why: string;
  readonly note: string;
  /** SHA-256 of a photograph; empty for none */
  readonly photo: string;
  /** What changed since it was looked at */
  readonly changed: readonly string[];
  /** What it answered when it was asked; empty if it was not */
  readonly answers: string;
}

export interface ProofContent {
  readonly format: typeof PROOF_FORMAT;
  readonly version: 1;
  readonly show: string;
  /** Last edit that it speaks of */
  readonly seq: number;
  readonly at: string;
  readonly sentence: string;
  readonly parts: readonly ProofPart[];
  readonly places: readonly { readonly place: string; readonly lamps: readonly ProvenLamp[] }[];
  /** What failed at any time, and what became of it */
  readonly failed: readonly {
    readonly lamp: string;
    readonly place: string;
    readonly why: string;
    readonly note: string;
    readonly by: string;
    readonly at: string;
    readonly then: string;
  }[];
  readonly notKnown: readonly string[];
  readonly nodes: readonly {
    readonly name: string;
    readonly address: string;
    readonly state: string;
    readonly firmware: string;
    readonly differs: readonly string[];
    readonly ports: readonly { readonly port: number; readonly planned: string; readonly says: string }[];
  }[];
  readonly addresses: readonly { readonly machine: string; readonly interface: string; readonly address: string }[];
  readonly ports: readonly {
    readonly node: string;
    readonly port: number;
    readonly carries: string;
    readonly merge: string;
    readonly loss: string;
    readonly start: string;
  }[];
  readonly universes: readonly {
    readonly number: number;
    readonly name: string;
    readonly wire: string;
    readonly sentBy: readonly string[];
    readonly ports: readonly string[];
  }[];
  readonly pixels: readonly {
    readonly run: string;
    readonly pixels: number;
    readonly at: string;
    readonly by: string;
  }[];
  readonly switches: readonly { readonly lamp: string; readonly channel: number; readonly row: string }[];
  readonly whatIf: readonly { readonly what: string; readonly cost: string }[];
  /** Against the one that was signed before; null for the first */
  readonly differs: { readonly sha256: string; readonly at: string; readonly lines: readonly string[] } | null;
  readonly signed: { readonly name: string; readonly role: string; readonly words: string } | null;
}
