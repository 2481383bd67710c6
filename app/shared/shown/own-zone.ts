/** The zone of this computer's clock: for what no course tells a zone of. */
export function ownZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone;
}
