/** XML as a tree that can be changed and written again. Document types and entities are refused. */
import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';
import { ok, refuse, type Result } from '../../result';

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

  /** The text of a child; empty if there is none. */
  textOf(name: string): string {
    return this.child(name)?.text.trim() ?? '';
  }

  /** Sets the text of a child, which is made if it is missing. */
  setText(name: string, text: string): void {
    const there = this.child(name);
    if (there) there.text = text;
    else this.children.push(new XmlElement(name, {}, [], text));
  }

  at(attribute: string): string {
    return this.attributes[attribute] ?? '';
  }
}

const ATTRIBUTES = ':@';
const TEXT = '#text';
type Node = Record<string, unknown>;

const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  parseTagValue: false,
  parseAttributeValue: false,
  ignoreDeclaration: true,
  ignorePiTags: true,
  trimValues: false,
});
const builder = new XMLBuilder({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  suppressEmptyNode: true,
  format: true,
});

function toElement(node: Node): XmlElement | undefined {
  const name = Object.keys(node).find((key) => key !== ATTRIBUTES && key !== TEXT);
  if (name === undefined) return undefined;
  const inside = node[name] as Node[];
  const children = inside.flatMap((one) => toElement(one) ?? []);
  const text = inside.map((one) => (TEXT in one ? String(one[TEXT]) : '')).join('');
  return new XmlElement(
    name,
    (node[ATTRIBUTES] as Record<string, string> | undefined) ?? {},
    children,
    children.length > 0 ? text.trim() : text,
  );
}

function toNode({ name, attributes, children, text }: XmlElement): Node {
  const inside: Node[] = children.map(toNode);
  if (text !== '') inside.unshift({ [TEXT]: text });
  return { [name]: inside, ...(Object.keys(attributes).length > 0 && { [ATTRIBUTES]: attributes }) };
}

/** The root element of a document in UTF-8; `what` names the document in refusals. */
export function readXml(bytes: Uint8Array, what: string): Result<XmlElement> {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return refuse('not-understood', `${what} is not written in UTF-8.`);
  }
  if (/<!(DOCTYPE|ENTITY)/i.test(text))
    return refuse('not-understood', `${what} declares a document type or entities, which are not read.`);
  const valid = XMLValidator.validate(text);
  if (valid !== true) return refuse('not-understood', `${what} is no proper XML: line ${valid.err.line} is wrong.`);
  try {
    const root = (parser.parse(text) as Node[]).flatMap((node) => toElement(node) ?? [])[0];
    return root ? ok(root) : refuse('not-understood', `${what} is empty.`);
  } catch {
    return refuse('not-understood', `${what} is no proper XML.`);
  }
}

export const writeXml = (root: XmlElement): Uint8Array =>
  new TextEncoder().encode(`<?xml version="1.0" encoding="UTF-8"?>\n${builder.build([toNode(root)]).trim()}\n`);
