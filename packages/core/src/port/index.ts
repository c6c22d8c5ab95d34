/** Ports of nodes: what reaches them, who has a say, and what leaves. */
export { OutputPort, type PortRules } from './outputPort';
