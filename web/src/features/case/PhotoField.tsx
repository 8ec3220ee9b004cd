"use client";
import { useState } from "react";
import styles from "./PhotoField.module.css";
import { t } from "@/messages";
import { worded } from "@radicula/core/words";

/** Takes a photo, or one that is there already; what could not be kept is said, and nothing else is lost. */
export function PhotoField({
  onKeep,
  onKept,
}: {
  /** @returns the id it is kept under, or undefined where it could not be kept */
  readonly onKeep: (file: File) => Promise<string | undefined>;
  readonly onKept: (id: string | undefined) => void;
}) {
  const [state, setState] = useState<"none" | "sending" | "kept" | "failed">("none");
  const keep = async (file: File) => {
    setState("sending");
    const id = await onKeep(file);
    setState(id === undefined ? "failed" : "kept");
    onKept(id);
  };
  return (
    <label className={styles.photo}>
      {SAYS[state]}
      <input
        className="visually-hidden"
        type="file"
        accept="image/*"
        capture="environment"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) void keep(file);
        }}
      />
    </label>
  );
}
const SAYS = worded(() => ({
  none: t("job.addAPhoto"),
  sending: t("job.keepingThePhoto"),
  kept: t("job.photoKeptTakeAnotherInstead"),
  failed: t("job.thatPhotoCouldNotBeKept"),
}));
