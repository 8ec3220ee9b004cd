"use client";
/* eslint-disable @next/next/no-img-element -- these come from this server's database, already at their size */
import type { Issue } from "@radicula/core";
import { Button } from "antd";
import { useRef, useState } from "react";
import { say } from "@/messages/issues";
import type { PhotoInfo } from "@/server/repo/wirings";
import { postPhoto } from "@/ui/postPhoto";
import styles from "./Workbench.module.css";
import { t } from "@/messages";

/** Pictures of where a connector is. What the camera wrote beside the picture is not kept. */
export function Photos({
  wiringId,
  connector,
  photos,
  onPhotos,
}: {
  readonly wiringId: string;
  readonly connector: string;
  readonly photos: readonly PhotoInfo[];
  readonly onPhotos: (photos: readonly PhotoInfo[]) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const [refused, setRefused] = useState<readonly Issue[]>([]);
  const own = photos.filter((p) => p.connector === connector);
  const add = async (file: File) => {
    setBusy(true);
    setRefused([]);
    const kept = await postPhoto(wiringId, connector, file);
    if (kept.ok) onPhotos([...photos, { ...kept.body, connector }]);
    else setRefused(kept.issues);
    setBusy(false);
    if (input.current) input.current.value = "";
  };
  const remove = async (id: string) => {
    const response = await fetch(`/api/photos/${id}`, {
      method: "DELETE",
      headers: { "Content-Type": "application/json" },
    }).catch(() => undefined);
    if (response?.ok) onPhotos(photos.filter((p) => p.id !== id));
  };
  return (
    <section className={styles.photos} aria-label={t("wiring.photos")}>
      {own.map((p) => (
        <figure key={p.id}>
          <a href={`/api/photos/${p.id}`} target="_blank" rel="noreferrer">
            <img
              src={`/api/photos/${p.id}`}
              alt={t("wiring.whereIs", { connector })}
              width={p.width}
              height={p.height}
              loading="lazy"
            />
          </a>
          <Button size="small" type="text" onClick={() => void remove(p.id)}>
            {t("wiring.remove")}
          </Button>
        </figure>
      ))}
      <input
        ref={input}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        capture="environment"
        hidden
        data-testid="photo"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) void add(file);
        }}
      />
      <Button size="small" type="text" className={styles.run} loading={busy} onClick={() => input.current?.click()}>
        {t("wiring.addAPhoto")}
      </Button>
      {refused.map((i, n) => (
        <p key={n} role="alert" className={styles.refused}>
          {say(i).text}
        </p>
      ))}
    </section>
  );
}
