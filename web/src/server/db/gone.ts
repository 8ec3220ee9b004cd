/** PostgreSQL's disk_full, and what the system says. */
const FULL = /\b53100\b|ENOSPC|No space left on device/;

/** Whether an error says that a disk of the server is full. */
export function isDiskFull(error: unknown): boolean {
  for (let e: unknown = error; e instanceof Error; e = e.cause)
    if (FULL.test(`${"code" in e ? String(e.code) : ""} ${e.message}`)) return true;
  return false;
}

const GONE = /ECONN|CONNECT_TIMEOUT|CONNECTION_|57P0|EPIPE|ENOTFOUND/;

/** Whether an error says that the database cannot be reached; causes and parts of it are looked at too. */
export function isDatabaseGone(error: unknown): boolean {
  for (let e: unknown = error; e instanceof Error; e = e.cause) {
    if (GONE.test(`${"code" in e ? String(e.code) : ""} ${e.message}`)) return true;
    if (e instanceof AggregateError && e.errors.some(isDatabaseGone)) return true;
  }
  return false;
}
