import postgres from "postgres";
import { env } from "@/env";

/** Told by the database itself with every entry, whichever server saved it: the job and its last number. */
const CHANNEL = "radicula_entries";
type Listener = (last: number) => void;

interface Live {
  readonly listeners: Map<string, Set<Listener>>;
  listening: Promise<unknown> | undefined;
}
/** One for the process, also across the server's separate bundles. */
const shared = globalThis as typeof globalThis & { radiculaLive?: Live };
const live = (): Live => (shared.radiculaLive ??= { listeners: new Map(), listening: undefined });

/** Calls `listener` whenever a job has new entries. @returns what ends it */
export function onEntries(job: string, listener: Listener): () => void {
  const { listeners } = live();
  const own = listeners.get(job) ?? new Set();
  listeners.set(job, own.add(listener));
  listen();
  return () => {
    own.delete(listener);
    if (own.size === 0) listeners.delete(job);
  };
}

/** Begins to listen on a connection of its own, which takes itself up again when it is lost. */
function listen(): void {
  const here = live();
  here.listening ??= postgres(env().DATABASE_URL, { max: 1, connect_timeout: 3, onnotice: () => undefined })
    .listen(CHANNEL, (text) => {
      const [job, last] = text.split(" ");
      here.listeners.get(job ?? "")?.forEach((l) => l(Number(last)));
    })
    // the page asks by itself now and then; the next one who listens tries again
    .catch(() => (here.listening = undefined));
}
