/** Messages of MVR-xchange (DIN SPEC 15801, packages of the communication format). */
import { printable } from '../../base/bytes';
import { ok, refuse, type Result } from '../../base/result';
import * as X from './constants';

/** A file that a station offers. */
export interface Commit {
  readonly fileId: string;
  /** Of the station that made it */
  readonly stationId: string;
  /** For whom it is meant; empty for all */
  readonly forIds: readonly string[];
  readonly comment: string;
  /** Empty if it was not said */
  readonly fileName: string;
  /** Bytes; 0 if it was not said */
  readonly size: number;
}

/** Who a station is. */
export interface StationName {
  readonly stationId: string;
  readonly name: string;
  /** The program that it is */
  readonly provider: string;
}

interface Answered {
  readonly ok: boolean;
  /** Why not, for people */
  readonly message: string;
}

export type Message =
  | ({ readonly type: 'join'; readonly commits: readonly Commit[] } & StationName)
  | ({ readonly type: 'joinRet'; readonly commits: readonly Commit[] } & StationName & Answered)
  | { readonly type: 'leave'; readonly stationId: string }
  | ({ readonly type: 'leaveRet' } & Answered)
  | ({ readonly type: 'commit' } & Commit)
  | ({ readonly type: 'commitRet' } & Answered)
  /** Empty file id: the newest */
  | { readonly type: 'request'; readonly fileId: string; readonly fromIds: readonly string[] }
  | ({ readonly type: 'requestRet' } & Answered)
  /** Another group, or the address of a host of the WebSocket mode; the other is empty */
  | { readonly type: 'newHost'; readonly group: string; readonly url: string }
  | ({ readonly type: 'newHostRet' } & Answered);

const TYPES = {
  join: 'MVR_JOIN',
  joinRet: 'MVR_JOIN_RET',
  leave: 'MVR_LEAVE',
  leaveRet: 'MVR_LEAVE_RET',
  commit: 'MVR_COMMIT',
  commitRet: 'MVR_COMMIT_RET',
  request: 'MVR_REQUEST',
  requestRet: 'MVR_REQUEST_RET',
  newHost: 'MVR_NEW_SESSION_HOST',
  newHostRet: 'MVR_NEW_SESSION_HOST_RET',
} as const;
const BY_TYPE = new Map(Object.entries(TYPES).map(([ours, theirs]) => [theirs as string, ours as Message['type']]));

const commitOut = (commit: Commit) => ({
  Type: TYPES.commit,
  ...X.VERSION,
  FileUUID: commit.fileId,
  StationUUID: commit.stationId,
  ForStationsUUID: commit.forIds,
  FileSize: commit.size,
  FileName: commit.fileName,
  Comment: commit.comment,
});
const answerOut = ({ ok: fine, message }: Answered) => ({ OK: fine, Message: message });
const joinOut = ({ stationId, name, provider, commits }: StationName & { readonly commits: readonly Commit[] }) => ({
  Provider: provider,
  StationName: name,
  StationUUID: stationId,
  ...X.VERSION,
  Commits: commits.map(commitOut),
});

function bodyOf(message: Message): object {
  switch (message.type) {
    case 'join':
      return joinOut(message);
    case 'joinRet':
      return { ...answerOut(message), ...joinOut(message) };
    case 'leave':
      return { FromStationUUID: message.stationId };
    case 'commit':
      return commitOut(message);
    case 'request':
      return { FileUUID: message.fileId, FromStationUUID: message.fromIds };
    case 'newHost':
      return { ServiceName: message.group, ServiceURL: message.url };
    default:
      return answerOut(message);
  }
}

export const writeMessage = (message: Message): string =>
  JSON.stringify({ Type: TYPES[message.type], ...bodyOf(message) });

type Json = Readonly<Record<string, unknown>>;

/** What can be shown of a text; empty for anything else. */
const plain = (value: unknown, longest: number): string => (typeof value === 'string' ? printable(value, longest) : '');

const isUuid = (value: unknown): value is string =>
  typeof value === 'string' && /^\{?[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}\}?$/i.test(value.trim());
const uuid = (value: unknown): string => (isUuid(value) ? value.trim().replace(/[{}]/g, '').toLowerCase() : '');
/** A list, or a single one without its brackets */
const uuids = (value: unknown): string[] =>
  (Array.isArray(value) ? (value as unknown[]) : [value]).slice(0, X.MOST_STATIONS).map(uuid).filter(Boolean);

function commitIn(json: Json): Commit | undefined {
  const [fileId, stationId] = [uuid(json['FileUUID']), uuid(json['StationUUID'])];
  if (fileId === '' || stationId === '') return undefined;
  const size = json['FileSize'];
  return {
    fileId,
    stationId,
    forIds: uuids(json['ForStationsUUID']),
    comment: plain(json['Comment'], X.LONGEST_COMMENT),
    fileName: plain(json['FileName'], X.LONGEST_NAME),
    size: typeof size === 'number' && Number.isSafeInteger(size) && size > 0 ? size : 0,
  };
}

const joinIn = (json: Json) => {
  const commits = Array.isArray(json['Commits']) ? (json['Commits'] as unknown[]) : [];
  return {
    stationId: uuid(json['StationUUID']),
    name: plain(json['StationName'], X.LONGEST_NAME),
    provider: plain(json['Provider'], X.LONGEST_NAME),
    commits: commits
      .slice(-X.MOST_COMMITS)
      .map((one) => (typeof one === 'object' && one !== null ? commitIn(one as Json) : undefined))
      .filter((one) => one !== undefined),
  };
};
// Some stations say whether it worked as a word.
const answerIn = (json: Json): Answered => ({
  ok: json['OK'] === true || json['OK'] === 'true' || json['OK'] === 1,
  message: plain(json['Message'], X.LONGEST_COMMENT),
});

/** Reads a message; names and comments are cut to their bounds and freed of what cannot be shown. */
export function readMessage(text: string): Result<Message> {
  let json: Json;
  try {
    // Some end their texts as C does, or begin them with a byte order mark.
    const value: unknown = JSON.parse(text.replace(/^\ufeff|\0+$/g, ''));
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      return refuse('not-understood', 'The message is no JSON object.');
    json = value as Json;
  } catch {
    return refuse('not-understood', 'The message is no JSON.');
  }
  const type = typeof json['Type'] === 'string' ? BY_TYPE.get(json['Type']) : undefined;
  switch (type) {
    case undefined:
      return refuse('not-understood', `There is no message “${plain(json['Type'], 40)}”.`);
    case 'join':
    case 'joinRet': {
      const said = joinIn(json);
      if (said.stationId === '' && (type === 'join' || answerIn(json).ok))
        return refuse('not-understood', 'Whoever joins has to say its StationUUID.');
      return ok(type === 'join' ? { type, ...said } : { type, ...said, ...answerIn(json) });
    }
    case 'leave': {
      const stationId = uuid(json['FromStationUUID']);
      return stationId === ''
        ? refuse('not-understood', 'Whoever leaves has to say its FromStationUUID.')
        : ok({ type, stationId });
    }
    case 'commit': {
      const commit = commitIn(json);
      return commit
        ? ok({ type, ...commit })
        : refuse('not-understood', 'A commit has to say its FileUUID and its StationUUID.');
    }
    case 'request':
      return ok({ type, fileId: uuid(json['FileUUID']), fromIds: uuids(json['FromStationUUID']) });
    case 'newHost':
      return ok({
        type,
        group: plain(json['ServiceName'], X.LONGEST_NAME),
        url: plain(json['ServiceURL'], X.LONGEST_COMMENT),
      });
    default:
      return ok({ type, ...answerIn(json) });
  }
}
