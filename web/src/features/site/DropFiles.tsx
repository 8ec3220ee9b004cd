"use client";
import { useEffect, useRef, useState } from "react";
import styles from "./SiteHead.module.css";

const hasFiles = (e: DragEvent) => e.dataTransfer?.types.includes("Files") ?? false;

/** Takes a file dropped anywhere on the page; while one hangs over it, the page says what will be done. */
export function DropFiles({ onFile, says }: { readonly onFile: (file: File) => void; readonly says: string }) {
  const [isOver, setOver] = useState(false);
  const take = useRef(onFile);
  useEffect(() => {
    take.current = onFile;
  });
  useEffect(() => {
    let depth = 0; // entering a child comes before leaving its parent
    const enter = (e: DragEvent) => {
      if (!hasFiles(e)) return;
      depth++;
      setOver(true);
    };
    const leave = (e: DragEvent) => {
      if (!hasFiles(e)) return;
      depth = Math.max(0, depth - 1);
      if (depth === 0) setOver(false);
    };
    const over = (e: DragEvent) => {
      if (hasFiles(e)) e.preventDefault();
    };
    const drop = (e: DragEvent) => {
      if (!hasFiles(e)) return;
      depth = 0;
      setOver(false);
      if (e.defaultPrevented) return; // a field of its own took it
      e.preventDefault();
      const file = e.dataTransfer?.files[0];
      if (file) take.current(file);
    };
    const handlers = { dragenter: enter, dragleave: leave, dragover: over, drop } as const;
    for (const [name, handler] of Object.entries(handlers)) window.addEventListener(name, handler as EventListener);
    return () => {
      for (const [name, handler] of Object.entries(handlers))
        window.removeEventListener(name, handler as EventListener);
    };
  }, []);
  return isOver ? (
    <div className={styles.drop} aria-hidden>
      {says}
    </div>
  ) : null;
}
