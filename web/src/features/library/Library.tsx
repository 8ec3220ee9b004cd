import Link from "next/link";
import type { WiringSummary } from "@/server/repo/wirings";
import { Logo } from "@/ui/Logo";
import { PersonButton } from "@/features/people/PersonButton";
import { ThemeToggle } from "@/ui/ThemeToggle";
import board from "../board/Board.module.css";
import styles from "./Library.module.css";
import { CopyButton, NewWiring } from "./NewWiring";

/** All wirings of the workshop: found by anything that stands in them, copied, opened. */
export function Library({ wirings, words }: { readonly wirings: readonly WiringSummary[]; readonly words: string }) {
  return (
    <div className={board.page}>
      <header className={board.head}>
        <Link href="/" className={styles.brand}>
          <Logo /> radicula
        </Link>
        <nav className={board.nav}>
          <Link href="/">Jobs</Link>
          <b aria-current="page">Wirings</b>
          <PersonButton />
          <ThemeToggle />
        </nav>
      </header>
      <main>
        <div className={board.title}>
          <h1>Wirings</h1>
          <NewWiring />
        </div>
        <form className={board.find} role="search">
          <input
            name="find"
            defaultValue={words}
            placeholder="Find a splice, part number, code, place"
            aria-label="Find"
            maxLength={120}
          />
          <button type="submit">Find</button>
          {words ? <Link href="/wirings">Show all</Link> : null}
        </form>
        {wirings.length === 0 ? (
          <p className={board.empty}>
            {words ? `Nothing here holds "${words}".` : "No wirings yet. Type one, or open a file."}
          </p>
        ) : (
          <ul className={board.list}>
            {wirings.map((w) => (
              <li key={w.id} className={styles.wiring}>
                <Link href={`/wiring/${w.id}`} className={styles.name}>
                  <b>{w.name}</b>
                  <span className="muted">{w.machineType || "machine type not named"}</span>
                </Link>
                <span className={styles.found}>
                  {w.found.map((f) => (
                    <span key={f}>{f}</span>
                  ))}
                </span>
                <span className="muted">
                  {w.rows === 1 ? "1 line" : `${w.rows} lines`} ·{" "}
                  {w.revision ? `revision ${w.revision}` : "no revision yet"} ·{" "}
                  {w.jobs === 1 ? "1 job" : `${w.jobs} jobs`}
                </span>
                <CopyButton id={w.id} />
              </li>
            ))}
          </ul>
        )}
      </main>
    </div>
  );
}
