/** What leaves a port, from its rules and from what reaches it. */
export { OutputPort, type PortModel, type PortRules, type PortSource, type SacnPacket } from './outputPort';
