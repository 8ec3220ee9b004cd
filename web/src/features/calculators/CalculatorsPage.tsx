"use client";
import Link from "next/link";
import { Logo } from "@/ui/Logo";
import { PersonButton } from "@/features/people/PersonButton";
import { ThemeToggle } from "@/ui/ThemeToggle";
import { Calculators } from "./Calculators";
import styles from "./Calculators.module.css";

/** The sums of the trade on a page of their own. */
export function CalculatorsPage() {
  return (
    <div className={styles.page}>
      <header className={styles.head}>
        <Link href="/" aria-label="All jobs">
          <Logo /> radicula
        </Link>
        <h1>Calculators</h1>
        <PersonButton />
        <ThemeToggle />
      </header>
      <main>
        <Calculators />
      </main>
    </div>
  );
}
