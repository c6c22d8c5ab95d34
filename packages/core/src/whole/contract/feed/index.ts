/** The feed: text and binary messages. Light, so that a page can begin with it. */
export * from './messages';
export * from './frames';
