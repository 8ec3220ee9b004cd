import styles from "./Proof.module.css";

/** One of a few, all in sight. */
export function ChooseOne<T extends string>({
  name,
  legend,
  among,
  words,
  chosen,
  onChoose,
}: {
  readonly name: string;
  readonly legend: string;
  readonly among: readonly T[];
  readonly words: Readonly<Record<T, string>>;
  readonly chosen: T | undefined;
  readonly onChoose: (one: T) => void;
}) {
  return (
    <fieldset className={styles.ways}>
      <legend>{legend}</legend>
      {among.map((one) => (
        <label key={one} data-chosen={one === chosen}>
          <input
            type="radio"
            name={name}
            className="visually-hidden"
            checked={one === chosen}
            onChange={() => onChoose(one)}
          />
          {words[one]}
        </label>
      ))}
    </fieldset>
  );
}
