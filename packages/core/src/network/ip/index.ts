/** Addresses of machines: subnets, plans of addresses, who can reach whom. */
export * from './here';
export * from './ipv4';
export * from './planned';
export * from './reach';
export * from './scheme';
export * from './sheet';
export * from './interfaceInfo';
