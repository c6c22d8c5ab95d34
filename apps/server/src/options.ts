/** What the server is told on its command line. */
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { Citp } from '@taxiarch/core/protocol/citp';

export interface Options {
  readonly port: number;
  readonly host: string;
  readonly data: string;
  /** Begin a new folder with the demo show. */
  readonly demo: boolean;
  readonly sacnPort: number;
  readonly artnetPort: number;
  /** UDP ports of mDNS and of CITP */
  readonly mdnsPort: number;
  readonly citpPort: number;
  readonly client: string | undefined;
  /** TCP port of the stand-ins’ bench on this computer; undefined without stand-ins */
  readonly benchPort: number | undefined;
  /** For tests: threads are broken by lines on standard input. */
  readonly breakable: boolean;
  /** Why the server before this one ended; empty if it was not started again. */
  readonly restarted: string;
}

export class BadOption extends Error {}

function portNumber(text: string, name: string): number {
  const port = Number(text);
  if (!/^\d+$/.test(text) || port < 1 || port > 65535)
    throw new BadOption(`--${name} must be a port number from 1 to 65535, not “${text}”.`);
  return port;
}

export function readOptions(args: readonly string[]): Options {
  try {
    const { values } = parseArgs({
      args: [...args],
      options: {
        port: { type: 'string', default: '4630' },
        host: { type: 'string', default: '127.0.0.1' },
        data: { type: 'string', default: 'demo-data' },
        empty: { type: 'boolean', default: false },
        'sacn-port': { type: 'string', default: '5568' },
        'artnet-port': { type: 'string', default: '6454' },
        'mdns-port': { type: 'string', default: '5353' },
        'citp-port': { type: 'string', default: String(Citp.PORT) },
        client: { type: 'string' },
        'bench-port': { type: 'string' },
        breakable: { type: 'boolean', default: false },
        restarted: { type: 'string', default: '' },
      },
    });
    return {
      port: portNumber(values.port, 'port'),
      host: values.host,
      data: values.data,
      demo: !values.empty,
      sacnPort: portNumber(values['sacn-port'], 'sacn-port'),
      artnetPort: portNumber(values['artnet-port'], 'artnet-port'),
      mdnsPort: portNumber(values['mdns-port'], 'mdns-port'),
      citpPort: portNumber(values['citp-port'], 'citp-port'),
      client: values.client === undefined ? undefined : resolve(values.client),
      breakable: values.breakable,
      restarted: values.restarted,
      benchPort: values['bench-port'] === undefined ? undefined : portNumber(values['bench-port'], 'bench-port'),
    };
  } catch (error) {
    throw error instanceof BadOption ? error : new BadOption((error as Error).message);
  }
}
