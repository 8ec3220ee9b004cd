import styles from "./Chips.module.css";

/** Quick picks: any number of a short list, each a press. */
export function Chips<T extends string>({
  label,
  choices,
  words,
  value,
  onChange,
}: {
  readonly label: string;
  readonly choices: readonly T[];
  readonly words: Readonly<Record<T, string>>;
  readonly value: readonly T[];
  readonly onChange: (value: T[]) => void;
}) {
  return (
    <div className={styles.chips} role="group" aria-label={label}>
      {choices.map((c) => (
        <button
          key={c}
          type="button"
          aria-pressed={value.includes(c)}
          onClick={() => onChange(value.includes(c) ? value.filter((x) => x !== c) : [...value, c])}
        >
          {words[c]}
        </button>
      ))}
    </div>
  );
}
