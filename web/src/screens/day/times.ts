/** Times as the server writes them, in the zone of the place: read by their own digits, never in the reader's zone. */

/** "2027-05-15" of a time. */
export function dateOf(at: string): string {
  return at.slice(0, 10);
}

/** "16:30" of a time. */
export function clockOf(at: string): string {
  return at.slice(11, 16);
}

/** Minutes after midnight of its own day. */
export function minutesOf(at: string): number {
  return Number(at.slice(11, 13)) * 60 + Number(at.slice(14, 16));
}

/** Elapsed minutes between two times. */
export function between(from: string, to: string): number {
  return (Date.parse(to) - Date.parse(from)) / 60_000;
}

/** "Sat 15 May" of a date. */
export function dayWords(date: string): string {
  const at = new Date(`${date}T12:00:00Z`);
  return at.toLocaleDateString("en-GB", {
    weekday: "short",
    day: "numeric",
    month: "short",
    timeZone: "UTC",
  });
}

/** A local time so many minutes after the midnight of a date, as the server takes it. */
export function localTime(date: string, minutes: number): string {
  const at = new Date(`${date}T00:00:00Z`);
  at.setUTCMinutes(minutes);
  return at.toISOString().slice(0, 16);
}
