/** XML (1.0) as a tree that can be changed and written again. Document types and entities are refused. */
import { SaxesParser } from 'saxes';
import { ok, refuse, type Result } from '../../../base/result';

/** Name of what stands in the tree for a comment; its text is the comment */
export const COMMENT = '#comment';

/** Deeper than any scene or fixture is built; beyond this a file is made to hurt. */
const MOST_DEPTH = 1000;

export class XmlElement {
  constructor(
    readonly name: string,
    readonly attributes: Record<string, string> = {},
    public children: XmlElement[] = [],
    public text = '',
  ) {}

  child(name: string): XmlElement | undefined {
    return this.children.find((one) => one.name === name);
  }

  /** Children of a name. */
  all(name: string): XmlElement[] {
    return this.children.filter((one) => one.name === name);
  }

  /** A child of a name, made as the last if there is none. */
  made(name: string): XmlElement {
    const there = this.child(name);
    if (there) return there;
    const made = new XmlElement(name);
    this.children.push(made);
    return made;
  }

  /** The text of a child; empty if there is none. */
  textOf(name: string): string {
    return this.child(name)?.text.trim() ?? '';
  }

  /** Sets the text of a child, which is made if it is missing. */
  setText(name: string, text: string): void {
    this.made(name).text = text;
  }

  at(attribute: string): string {
    return this.attributes[attribute] ?? '';
  }

  without(gone: ReadonlySet<XmlElement>): void {
    this.children = this.children.filter((one) => !gone.has(one));
  }
}

class Refused extends Error {}

function parse(text: string, what: string): XmlElement | undefined {
  const top = new XmlElement('');
  const open = [top];
  const parser = new SaxesParser({ fragment: false });
  const here = () => open[open.length - 1]!;
  parser.on('error', () => {
    throw new Refused(`${what} is no proper XML: line ${parser.line} is wrong.`);
  });
  parser.on('doctype', () => {
    throw new Refused(`${what} declares a document type or entities, which are not read.`);
  });
  parser.on('opentag', ({ name, attributes }) => {
    if (open.length > MOST_DEPTH) throw new Refused(`${what} is nested more than ${MOST_DEPTH} deep.`);
    const element = new XmlElement(name, attributes as Record<string, string>);
    here().children.push(element);
    open.push(element);
  });
  parser.on('text', (piece) => (here().text += piece));
  parser.on('cdata', (piece) => (here().text += piece));
  parser.on('comment', (said) => here().children.push(new XmlElement(COMMENT, {}, [], said)));
  parser.on('closetag', () => {
    const closed = open.pop()!;
    // White space between elements is how a file is laid out, not what it says.
    if (closed.children.length > 0) closed.text = closed.text.trim();
  });
  parser.write(text).close();
  return top.children.find(({ name }) => name !== COMMENT);
}

/** What the bytes of a document spell: UTF-8, or UTF-16 if it begins so; undefined if neither. */
function decode(bytes: Uint8Array): string | undefined {
  const encoding =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : 'utf-8';
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    return undefined;
  }
}

/** The root element of a document; `what` names the document in refusals. */
export function readXml(bytes: Uint8Array, what: string): Result<XmlElement> {
  const text = decode(bytes);
  if (text === undefined) return refuse('not-understood', `${what} is written neither in UTF-8 nor in UTF-16.`);
  if (/<!(DOCTYPE|ENTITY)/i.test(text))
    return refuse('not-understood', `${what} declares a document type or entities, which are not read.`);
  try {
    const root = parse(text.trimStart(), what);
    return root ? ok(root) : refuse('not-understood', `${what} is empty.`);
  } catch (error) {
    return refuse('not-understood', error instanceof Refused ? error.message : `${what} is no proper XML.`);
  }
}

const ESCAPES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  '\n': '&#10;',
  '\r': '&#13;',
  '\t': '&#9;',
};
const inText = (text: string): string => text.replace(/[&<>\r]/g, (one) => ESCAPES[one]!);
const inAttribute = (text: string): string => text.replace(/[&<>"\n\r\t]/g, (one) => ESCAPES[one]!);

function write(element: XmlElement, indent: string, lines: string[]): void {
  const { name, attributes, children, text } = element;
  if (name === COMMENT) {
    lines.push(`${indent}<!--${text}-->`);
    return;
  }
  const head = `${indent}<${name}${Object.entries(attributes)
    .map(([key, value]) => ` ${key}="${inAttribute(value)}"`)
    .join('')}`;
  if (children.length === 0) {
    lines.push(text === '' ? `${head}/>` : `${head}>${inText(text)}</${name}>`);
    return;
  }
  lines.push(`${head}>${inText(text)}`);
  for (const child of children) write(child, `${indent}  `, lines);
  lines.push(`${indent}</${name}>`);
}

export function writeXml(root: XmlElement): Uint8Array {
  const lines = ['<?xml version="1.0" encoding="UTF-8"?>'];
  write(root, '', lines);
  return new TextEncoder().encode(`${lines.join('\n')}\n`);
}
