/** A stand-in's front panel: a small HTTP server on its own address. */
import { createServer, type Server } from 'node:http';

export type PanelAct = (given: Record<string, unknown>) => unknown;

/** Opens the panel: `GET /name` and `POST /name` run `acts.name`; what it returns is the reply. */
export function openPanel(address: string, port: number, acts: Readonly<Record<string, PanelAct>>): Promise<Server> {
  const server = createServer((request, response) => {
    const act = acts[(request.url ?? '').slice(1).split('?')[0]!];
    let text = '';
    request.setEncoding('utf8');
    request.on('data', (piece: string) => (text += piece));
    request.on('end', async () => {
      const reply = (status: number, body: unknown) =>
        response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
      if (!act) return reply(404, { why: 'This panel has no such knob.' });
      try {
        const given = text === '' ? {} : (JSON.parse(text) as Record<string, unknown>);
        reply(200, (await act(given)) ?? { done: true });
      } catch (error) {
        reply(400, { why: (error as Error).message });
      }
    });
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, address, () => resolve(server));
  });
}
