/** Art-Net 4: packets to messages and back. */
import { type Result } from '../../base/result';
import * as A from './constants';
import { decodeAddress, type ArtAddress } from './address';
import { decodeDmx, type ArtDmx } from './dmx';
import { refuseArtNet, readOpCode, type ArtNetRejection } from './header';
import { decodeInput, type ArtInput } from './input';
import { decodeIpProg, decodeIpProgReply, type ArtIpProg, type ArtIpProgReply } from './ipProg';
import { decodePoll, type ArtPoll } from './poll';
import { decodePollReply, type ArtPollReply } from './pollReply';
import { decodeArtSync, type ArtSync } from './sync';

export type ArtNetMessage =
  ArtPoll | ArtPollReply | ArtDmx | ArtSync | ArtAddress | ArtInput | ArtIpProg | ArtIpProgReply;

/** Any bytes at all: one Art-Net message, or the name of the rule they break. Never throws. */
export function decodeArtNet(bytes: Uint8Array): Result<ArtNetMessage, ArtNetRejection> {
  const opCode = readOpCode(bytes);
  if (typeof opCode === 'string') return refuseArtNet(opCode);
  switch (opCode) {
    case A.OpPoll:
      return decodePoll(bytes);
    case A.OpPollReply:
      return decodePollReply(bytes);
    case A.OpDmx:
      return decodeDmx(bytes);
    case A.OpSync:
      return decodeArtSync(bytes);
    case A.OpAddress:
      return decodeAddress(bytes);
    case A.OpInput:
      return decodeInput(bytes);
    case A.OpIpProg:
      return decodeIpProg(bytes);
    case A.OpIpProgReply:
      return decodeIpProgReply(bytes);
    default:
      return refuseArtNet('unknown-opcode');
  }
}
