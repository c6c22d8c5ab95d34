/** What leaves a port, from its rules and from what reaches it. */
export {
  OutputPort,
  type ArtNetPacket,
  type PortModel,
  type PortRules,
  type PortSource,
  type PortState,
  type SacnPacket,
} from './outputPort';
