/** The records of a show: each kind described once, in a file of its own. */
export { MOST_FAULTS, checkWith, isRightAtSight, type Row } from './kind';
export {
  DESCRIPTIONS,
  KINDS,
  checkRecord,
  emptyShow,
  type AnyRecord,
  type Kind,
  type RecordOf,
  type ShowRecords,
} from './kinds';
export { DELIVERIES, type Delivery } from './common';
export type { ShowInfo } from './showInfo';
export type { Place } from './place';
export {
  ANSWERS,
  FIXTURE_KINDS,
  PLAIN_TYPE,
  type FixtureChannel,
  type FixtureKind,
  type FixtureMode,
  type FixtureType,
  type Resolution,
  type ValueRange,
} from './fixtureType';
export type { Universe } from './universe';
export { PLAIN_LAMP, TAGS, type Lamp, type Tag } from './lamp';
export {
  PENNANT_CUTS,
  PENNANT_FILLS,
  PLAIN_LINE,
  type Pennant,
  type PennantCut,
  type PennantFill,
  type SendLine,
  type Sending,
} from './sending';
export type { AddressRange, Network } from './network';
export { PLAIN_SPEED, type Model } from './model';
export { MACHINE_KINDS, SENDING_KINDS, isOffNetwork, type MachineKind } from './machineKinds';
export {
  ADDRESS_WAYS,
  PLAIN_MACHINE,
  type AddressWay,
  type Machine,
  type MachineInterface,
  type PlugLine,
} from './machine';
export {
  LOSS_KINDS,
  MOST_PORTS,
  PLAIN_PORT,
  PORT_MERGES,
  PORT_USES,
  START_UPS,
  type LossKind,
  type LossOfSignal,
  type MachinePort,
  type PortMerge,
  type PortUse,
  type StartUp,
} from './port';
export type { PixelRun, Point } from './run';
export type { Snapshot } from './snapshot';
export { PLAIN_INPUT, PLAIN_ROUTE, type Route } from './route';
export type { Control, ControlTarget } from './control';
export { START_ORDERS, type Link } from './link';
export { SUBJECTS, subject, type Sighting, type Subject } from './sighting';
export type { Good, KeptState } from './good';
export {
  WALK_COVERS,
  WALK_ORDERS,
  WALK_PICTURES,
  type Walk,
  type WalkCovers,
  type WalkOrder,
  type WalkPicture,
} from './walk';
export { MARK_REASONS, MARK_RESULTS, PLAIN_MARK, type Mark, type MarkFact, type MarkReason } from './mark';
export { ARRIVAL_FORMS, PLAIN_ARRIVAL, type Arrival } from './arrival';
export { PROOF_PARTS, type Proof, type ProofPart } from './proof';
