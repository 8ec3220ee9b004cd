"use client";
import Form from "next/form";
import Link from "next/link";
import type { ReactNode } from "react";
import styles from "./FindForm.module.css";
import { t } from "@/messages";

const LONGEST = 120;

/** What a list is searched for. Choices are taken at once, words with Enter. */
export function FindForm({
  path,
  find,
  says,
  label,
  isFiltered,
  children,
}: {
  readonly path: string;
  readonly find: string;
  readonly says: string;
  readonly label: string;
  readonly isFiltered: boolean;
  /** choices beside the words */
  readonly children?: ReactNode;
}) {
  return (
    <Form
      action={path}
      className={styles.find}
      role="search"
      onChange={(e) => {
        if (e.target instanceof HTMLSelectElement) e.currentTarget.requestSubmit();
      }}
    >
      <input name="find" defaultValue={find} placeholder={says} aria-label={label} maxLength={LONGEST} />
      {children}
      <button type="submit">{t("site.find")}</button>
      {isFiltered ? <Link href={path}>{t("site.showAll")}</Link> : null}
    </Form>
  );
}

/** A choice of the form, by what stands in the address. */
export function FindChoice({
  name,
  label,
  value,
  options,
}: {
  readonly name: string;
  readonly label: string;
  readonly value: string;
  readonly options: Readonly<Record<string, string>>;
}) {
  return (
    <select name={name} defaultValue={value} aria-label={label}>
      {Object.entries(options).map(([key, word]) => (
        <option key={key} value={key}>
          {word}
        </option>
      ))}
    </select>
  );
}
