/** A stand-in's front panel: a small HTTP server on its own address. */
import { createServer, type Server } from 'node:http';

export type PanelAct = (given: Record<string, unknown>) => unknown;

/** A page or picture of a panel, made anew at each asking. */
export type PanelPage = () => { readonly type: string; readonly body: string | Uint8Array };

/** Opens the panel: `GET /name` and `POST /name` run `acts.name`; what it returns is the reply. `GET` shows pages too. */
export function openPanel(
  address: string,
  port: number,
  acts: Readonly<Record<string, PanelAct>>,
  pages: Readonly<Record<string, PanelPage>> = {},
): Promise<Server> {
  const server = createServer((request, response) => {
    const name = (request.url ?? '').slice(1).split('?')[0]!;
    const act = acts[name];
    const page = request.method === 'GET' ? pages[name]?.() : undefined;
    if (page) return void response.writeHead(200, { 'content-type': page.type }).end(page.body);
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
