/** What server and clients say to each other. */
export * from './endpoint';
export * from './endpoints';
export * from './problem';
export * from './show';
export * from './live';
export * from './devices';
export * from './practice';
export * from './feed';
export * from './paths';
export * from './feedMessages';
export * from './openapi';
export * from './showFileSchema';
