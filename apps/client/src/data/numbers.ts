/** Reading what people type into small fields. */

/** A whole number that somebody typed; undefined if it is none. */
export const wholeFrom = (text: string): number | undefined =>
  /^-?\d{1,7}$/.test(text.trim()) ? Number(text.trim()) : undefined;

/** A number of metres, with a comma or a point; undefined if it is none. */
export const metresFrom = (text: string): number | undefined => {
  const number = Number(text.trim().replace(',', '.').replace('−', '-'));
  return text.trim() === '' || !Number.isFinite(number) ? undefined : number;
};

export const newId = (): string => crypto.randomUUID();
