/** What a slot is by RDM’s own numbers (ANSI E1.20-2010, tables C-1 and C-2), and the attribute that it is. */

/** Id of table C-2 for each attribute that has one */
const IDS: Readonly<Record<string, number>> = {
  Dimmer: 0x0001,
  Pan: 0x0101,
  Tilt: 0x0102,
  ColorAdd_R: 0x0205,
  ColorAdd_G: 0x0206,
  ColorAdd_B: 0x0207,
  ColorAdd_RY: 0x0208,
  ColorAdd_W: 0x0212,
  ColorSub_C: 0x0202,
  ColorSub_M: 0x0204,
  ColorSub_Y: 0x0203,
  Color1: 0x0201,
  CTO: 0x0209,
  Gobo1: 0x0301,
  Gobo1Pos: 0x0302,
  Prism1: 0x0303,
  Frost1: 0x0305,
  Focus1: 0x0402,
  Zoom: 0x0405,
  Iris: 0x0404,
  Shutter1: 0x0403,
  Shutter1Strobe: 0x0401,
  PositionMSpeed: 0x0501,
  Control1: 0x0502,
};
const ATTRIBUTES = new Map(Object.entries(IDS).map(([attribute, id]) => [id, attribute]));

/** A slot that the table has no number for (table C-2, SD_UNDEFINED) */
export const SLOT_UNDEFINED = 0xffff;
/** Slot types (table C-1): its own, or the fine byte of another */
export const SLOT_PRIMARY = 0x00;
export const SLOT_SECONDARY_FINE = 0x01;

export const slotIdOf = (attribute: string): number => IDS[attribute] ?? SLOT_UNDEFINED;
/** Undefined for an id that no attribute has. */
export const attributeOfSlot = (id: number): string | undefined => ATTRIBUTES.get(id);
