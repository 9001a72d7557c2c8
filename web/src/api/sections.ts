/** A report that comes in sections: what has not changed is kept, and stays the very same thing. */
import type { Changed, Report } from "./types";

type Section = { readonly mark: string; readonly value: unknown };

/** What is known of a report: its sections in order, and the whole of them. */
export type Told = { readonly sections: ReadonlyMap<string, Section>; readonly report: Report };

/** The marks of what is known, to be sent along with a question. */
export function marksOf(told: Told | null): Record<string, string> {
  const marks: Record<string, string> = {};
  for (const [name, { mark }] of told?.sections ?? []) marks[name] = mark;
  return marks;
}

/** What is known after an answer, which sends only what was not known when it was asked. */
export function laid(before: Told | null, answer: Changed): Told {
  const sections = new Map<string, Section>();
  const changed = new Set<string>();
  for (const [name, mark] of Object.entries(answer.marks)) {
    const known = before?.sections.get(name);
    const sent = name in answer.sections;
    if (!(sent || known)) throw new Error(`a section was not sent: ${name}`);
    sections.set(name, sent ? { mark, value: answer.sections[name] } : (known as Section));
    if (sent) changed.add(fieldOf(name));
  }
  for (const name of before?.sections.keys() ?? []) if (!sections.has(name)) changed.add(fieldOf(name));
  const report: Record<string, unknown> = {};
  for (const [name, { value }] of sections) {
    const field = fieldOf(name);
    if (before && !changed.has(field)) report[field] = before.report[field as keyof Report];
    else put(report, name, value);
  }
  return { sections, report: report as unknown as Report };
}

function fieldOf(name: string): string {
  return /^[^./]+/.exec(name)?.[0] ?? name;
}

/** Puts a section where its name says: a field, a field within it, or the parts of a list. */
function put(report: Record<string, unknown>, name: string, value: unknown) {
  const [path = name, part] = name.split("/");
  const [field = path, within] = path.split(".");
  const [holder, key] = within === undefined ? [report, field] : [inner(report, field), within];
  if (part === undefined) holder[key] = value;
  else holder[key] = [...((holder[key] as unknown[] | undefined) ?? []), ...(value as unknown[])];
}

function inner(report: Record<string, unknown>, field: string): Record<string, unknown> {
  report[field] ??= {};
  return report[field] as Record<string, unknown>;
}
