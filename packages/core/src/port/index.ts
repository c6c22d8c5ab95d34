/** Ports of nodes: what reaches them, who has a say, and what leaves. */
export { OutputPort, type PortModel, type PortRules, type PortSource, type PortState } from './outputPort';
