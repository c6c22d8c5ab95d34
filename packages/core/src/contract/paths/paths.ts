/** Where each endpoint is: its method and its path, in which `{name}` stands for a part. Light, so that a page can begin with it. */
export const PATHS = {
  readShow: ['GET', '/api/show'],
  edit: ['POST', '/api/edits'],
  findings: ['GET', '/api/findings'],
  why: ['GET', '/api/why'],
  standing: ['GET', '/api/standing'],
  forecast: ['GET', '/api/forecast'],
  forecastPush: ['GET', '/api/forecast/push'],
  openShipped: ['POST', '/api/show/shipped'],
  history: ['GET', '/api/history'],
  undo: ['POST', '/api/undo'],
  redo: ['POST', '/api/redo'],
  beginImport: ['POST', '/api/import/{kind}'],
  readImport: ['GET', '/api/import/{id}'],
  cancelImport: ['DELETE', '/api/import/{id}'],
  writeImport: ['POST', '/api/import/{id}/write'],
  exportGdtf: ['GET', '/api/export/gdtf/{type}'],
  exportMvr: ['GET', '/api/export/mvr'],
  exportTable: ['GET', '/api/export/csv/{table}'],
  exportShow: ['GET', '/api/export/show'],
  readLive: ['GET', '/api/live'],
  readHappened: ['GET', '/api/happened'],
  readNodes: ['GET', '/api/nodes'],
  sweep: ['POST', '/api/sweep'],
  stopSweep: ['DELETE', '/api/sweep'],
  readInterfaces: ['GET', '/api/interfaces'],
  readSettings: ['GET', '/api/settings'],
  changeSettings: ['PATCH', '/api/settings'],
  dismissNotice: ['POST', '/api/notices/dismiss'],
  readOutput: ['GET', '/api/output'],
  makeHot: ['POST', '/api/output/hot'],
  take: ['POST', '/api/output/take'],
  giveBack: ['POST', '/api/output/give-back'],
  readRoutes: ['GET', '/api/routes'],
  runRoutes: ['POST', '/api/routes/run'],
  giveBackRoute: ['POST', '/api/routes/give-back'],
  learnFader: ['POST', '/api/routes/learn'],
  push: ['POST', '/api/nodes/push'],
  locate: ['POST', '/api/nodes/locate'],
  scan: ['POST', '/api/nodes/scan'],
  readStandIns: ['GET', '/api/stand-ins'],
  handleStandIn: ['POST', '/api/stand-ins/handle'],
  readPractice: ['GET', '/api/practice'],
  beginPractice: ['POST', '/api/practice/begin'],
  nameFault: ['POST', '/api/practice/name'],
  giveHint: ['POST', '/api/practice/hint'],
  lookedAt: ['POST', '/api/practice/looked'],
  endPractice: ['POST', '/api/practice/end'],
  readOpenApi: ['GET', '/api/openapi.json'],
} as const satisfies Readonly<Record<string, readonly [Method, string]>>;

export type Method = 'GET' | 'POST' | 'PATCH' | 'DELETE';
export type EndpointName = keyof typeof PATHS;

/** The path of an endpoint with its parts filled in and what is asked behind it. */
export function addressOf(
  name: EndpointName,
  params: Readonly<Record<string, unknown>> = {},
  query: Readonly<Record<string, unknown>> = {},
): string {
  const path = PATHS[name][1].replace(/\{(\w+)\}/g, (_, part: string) => encodeURIComponent(String(params[part])));
  const asked = Object.entries(query).flatMap(([key, value]) =>
    value === undefined ? [] : [`${key}=${encodeURIComponent(String(value))}`],
  );
  return asked.length === 0 ? path : `${path}?${asked.join('&')}`;
}
