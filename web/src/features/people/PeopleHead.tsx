"use client";
import Link from "next/link";
import { Logo } from "@/ui/Logo";
import { ThemeToggle } from "@/ui/ThemeToggle";
import styles from "./people.module.css";
import { PersonButton } from "./PersonButton";

export function PeopleHead() {
  return (
    <header className={styles.head}>
      <Link href="/">
        <Logo /> <b>radicula</b>
      </Link>
      <Link href="/">Jobs</Link>
      <Link href="/wirings">Wirings</Link>
      <PersonButton />
      <ThemeToggle />
    </header>
  );
}
