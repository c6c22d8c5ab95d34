/** Packets of a sender that shares no code with Taxiarch, written from the standards alone: ANSI E1.31-2018 and Art-Net 4. */

export interface SacnFields {
  readonly cid: Buffer;
  readonly name: string;
  readonly priority: number;
  readonly syncAddress: number;
  readonly sequence: number;
  /** E1.31-2018, 6.2.6: bit 7 preview, bit 6 terminated, bit 5 force synchronisation */
  readonly options: number;
  readonly universe: number;
  readonly startCode: number;
  readonly slots: Uint8Array;
}

const IDENTIFIER = Buffer.from('4153432d45312e3137000000', 'hex');

/** Flags 0x7 in the top four bits, the length of what follows from this field on below them (5.4). */
const flagged = (length: number): number => 0x7000 | length;

/** A data packet (E1.31-2018, table 4-1). */
export function sacnPacket(fields: SacnFields): Buffer {
  const { slots } = fields;
  const packet = Buffer.alloc(126 + slots.length);
  packet.writeUInt16BE(0x0010, 0);
  IDENTIFIER.copy(packet, 4);
  packet.writeUInt16BE(flagged(packet.length - 16), 16);
  packet.writeUInt32BE(4, 18);
  fields.cid.copy(packet, 22);
  packet.writeUInt16BE(flagged(packet.length - 38), 38);
  packet.writeUInt32BE(2, 40);
  packet.write(fields.name.slice(0, 63), 44, 'utf8');
  packet[108] = fields.priority;
  packet.writeUInt16BE(fields.syncAddress, 109);
  packet[111] = fields.sequence;
  packet[112] = fields.options;
  packet.writeUInt16BE(fields.universe, 113);
  packet.writeUInt16BE(flagged(packet.length - 115), 115);
  packet[117] = 2;
  packet[118] = 0xa1;
  packet.writeUInt16BE(1, 121);
  packet.writeUInt16BE(slots.length + 1, 123);
  packet[125] = fields.startCode;
  packet.set(slots, 126);
  return packet;
}

export interface ArtDmxFields {
  readonly sequence: number;
  readonly physical: number;
  readonly portAddress: number;
  readonly slots: Uint8Array;
}

/** An ArtDmx packet (Art-Net 4, ArtDmx). */
export function artDmxPacket({ sequence, physical, portAddress, slots }: ArtDmxFields): Buffer {
  const packet = Buffer.alloc(18 + slots.length);
  packet.write('Art-Net\0', 0, 'latin1');
  packet.writeUInt16LE(0x5000, 8);
  packet.writeUInt16BE(14, 10);
  packet[12] = sequence;
  packet[13] = physical;
  packet.writeUInt16LE(portAddress, 14);
  packet.writeUInt16BE(slots.length, 16);
  packet.set(slots, 18);
  return packet;
}

/** The multicast group of an sACN universe (E1.31-2018, 9.3.1). */
export const groupOf = (universe: number): string => `239.255.${universe >> 8}.${universe & 0xff}`;
