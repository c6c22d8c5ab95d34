/** All causes that are known. A new one is a file beside this and a line here. */
import type { Cause } from '../cause';
import { addressDoubled } from './addressDoubled';
import { baseDiffers } from './baseDiffers';
import { broadcastBlocked } from './broadcastBlocked';
import { controlsNothing } from './controlsNothing';
import { deafToOne } from './deafToOne';
import { direction } from './direction';
import { discarded } from './discarded';
import { failSafe } from './failSafe';
import { firmware } from './firmware';
import { hereArtnet } from './hereArtnet';
import { hereDeaf } from './hereDeaf';
import { hereRagged } from './hereRagged';
import { hereSacn } from './hereSacn';
import { inputOff } from './inputOff';
import { inputPriority } from './inputPriority';
import { lampAddress } from './lampAddress';
import { lampDead } from './lampDead';
import { lampDeaf } from './lampDeaf';
import { lampElsewhere } from './lampElsewhere';
import { lampMode } from './lampMode';
import { lampShifted } from './lampShifted';
import { lineOff } from './lineOff';
import { loop } from './loop';
import { maskDiffers } from './maskDiffers';
import { mergeDiffers } from './mergeDiffers';
import { multicastBlocked } from './multicastBlocked';
import { netDiffers } from './netDiffers';
import { nodeMoved } from './nodeMoved';
import { nodeOff } from './nodeOff';
import { nodeUnplugged } from './nodeUnplugged';
import { otherInterface } from './otherInterface';
import { outputOff } from './outputOff';
import { pageElsewhere } from './pageElsewhere';
import { portCable } from './portCable';
import { portElsewhere } from './portElsewhere';
import { portOff } from './portOff';
import { portProtocol } from './portProtocol';
import { priorityDiffers } from './priorityDiffers';
import { protocolOff } from './protocolOff';
import { ragged } from './ragged';
import { sameCid } from './sameCid';
import { sendsMore } from './sendsMore';
import { shortPackets } from './shortPackets';
import { slow } from './slow';
import { startCode } from './startCode';
import { syncNobody } from './syncNobody';
import { thirdSource } from './thirdSource';
import { unicastElsewhere } from './unicastElsewhere';
import { unheardSource } from './unheardSource';
import { visualiserBase } from './visualiserBase';
import { visualiserEarly } from './visualiserEarly';
import { visualiserInterface } from './visualiserInterface';
import { visualiserOff } from './visualiserOff';

export const CAUSES: readonly Cause[] = [
  addressDoubled,
  baseDiffers,
  broadcastBlocked,
  controlsNothing,
  deafToOne,
  direction,
  discarded,
  failSafe,
  firmware,
  hereArtnet,
  hereDeaf,
  hereRagged,
  hereSacn,
  inputOff,
  inputPriority,
  lampAddress,
  lampDead,
  lampDeaf,
  lampElsewhere,
  lampMode,
  lampShifted,
  lineOff,
  loop,
  maskDiffers,
  mergeDiffers,
  multicastBlocked,
  netDiffers,
  nodeMoved,
  nodeOff,
  nodeUnplugged,
  otherInterface,
  outputOff,
  pageElsewhere,
  portCable,
  portElsewhere,
  portOff,
  portProtocol,
  priorityDiffers,
  protocolOff,
  ragged,
  sameCid,
  sendsMore,
  shortPackets,
  slow,
  startCode,
  syncNobody,
  thirdSource,
  unicastElsewhere,
  unheardSource,
  visualiserBase,
  visualiserEarly,
  visualiserInterface,
  visualiserOff,
];
