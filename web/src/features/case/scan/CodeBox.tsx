import { useMemo, useState, type KeyboardEvent, type RefObject } from "react";
import { complete, completions } from "./complete";
import styles from "./Scan.module.css";
import type { ScanPartProps } from "./useScanDraft";
import { t } from "@/messages";

/** Where codes are typed or pasted; those the wiring lists are offered. */
export function CodeBox({ draft, area }: ScanPartProps & { readonly area: RefObject<HTMLTextAreaElement | null> }) {
  const { wiring, text, setText, log } = draft;
  const [caret, setCaret] = useState(0);
  const offered = useMemo(() => completions(wiring, text, caret), [wiring, text, caret]);
  const take = (code: string) => {
    const made = complete(text, caret, code);
    setText(made.text);
    setCaret(made.caret);
    requestAnimationFrame(() => {
      area.current?.focus();
      area.current?.setSelectionRange(made.caret, made.caret);
    });
  };
  const onKey = (e: KeyboardEvent) => {
    if (e.key === "Enter" && (e.ctrlKey || e.metaKey)) {
      e.preventDefault();
      log();
    } else if (e.key === "Tab" && !e.shiftKey && offered[0]) {
      e.preventDefault();
      take(offered[0].code);
    }
  };
  return (
    <div className={styles.paste}>
      <textarea
        ref={area}
        autoFocus
        className="mono"
        aria-label={t("scan.codesTypedOrPasted")}
        rows={Math.min(8, Math.max(3, text.split("\n").length + 1))}
        value={text}
        spellCheck={false}
        placeholder={t("scan.p0642ActiveOrAWholeList")}
        onChange={(e) => {
          setText(e.target.value);
          setCaret(e.target.selectionStart);
        }}
        onSelect={(e) => setCaret(e.currentTarget.selectionStart)}
        onKeyDown={onKey}
      />
      <p className={styles.offered} aria-live="polite">
        {offered.map((c, i) => (
          <button key={c.code} type="button" tabIndex={-1} onClick={() => take(c.code)}>
            <b className="mono">{c.code}</b> {c.title}
            {i === 0 ? <kbd>{t("scan.tab")}</kbd> : null}
          </button>
        ))}
      </p>
    </div>
  );
}
