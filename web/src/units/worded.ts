const SLOT = /\{(\w+)(?:\|([^{}]*))?\}/g;

/**
 * Words with {slots} filled; `{n|stem|stems}` is the form that the number in slot `n` takes.
 * The words stand whole, as the core's do, so that another language is a table of them.
 */
export function worded(template: string, slots: Record<string, string | number>): string {
  return template.replace(SLOT, (whole, name: string, forms: string | undefined) => {
    const value = slots[name];
    if (value === undefined) return whole;
    return forms === undefined ? String(value) : (forms.split("|")[value === 1 ? 0 : 1] ?? whole);
  });
}
