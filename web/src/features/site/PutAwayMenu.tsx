"use client";
import { Button, type MenuProps } from "antd";
import { useMessages } from "@/ui/Theme";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { say } from "@/messages/issues";
import { MenuButton } from "@/ui/MenuButton";
import { Done, post } from "@/ui/send";
import styles from "./SiteHead.module.css";
import { t } from "@/messages";
import { worded } from "@radicula/core/words";

type Where = "archived" | "deleted" | null;
const DONE: Readonly<Record<Exclude<Where, null>, string>> = worded(() => ({
  archived: t("site.archived"),
  deleted: t("site.deleted"),
}));
/** Time in which it can be undone with one tap, s; later it is put back from where it lies. */
const UNDO_S = 10;

/** Archives or deletes a job or a wiring, or puts it back. Each can be undone at once; nothing is erased. */
export function PutAwayMenu({
  kind,
  id,
  name,
  where,
  machine,
}: {
  readonly kind: "jobs" | "wirings";
  readonly id: string;
  readonly name: string;
  /** where it lies now */
  readonly where: Where;
  /** the way to all jobs of the same machine */
  readonly machine?: { readonly path: string; readonly label: string };
}) {
  const router = useRouter();
  const message = useMessages();
  const put = async (to: Where, from: Where) => {
    const done = await post(`/api/${kind}/${id}/away`, { where: to }, Done);
    if (!done.ok) {
      void message.error(done.issues.map((i) => say(i).text).join(" "));
      return;
    }
    router.refresh();
    void message.open({
      key: id,
      duration: UNDO_S,
      content: (
        <>
          {to === null ? t("site.putBack") : DONE[to]}: {name}{" "}
          <Button
            type="link"
            onClick={() => {
              message.destroy(id);
              void put(from, to);
            }}
          >
            {t("site.undo")}
          </Button>
        </>
      ),
    });
  };
  const item = (to: Where, label: string) => ({ key: String(to), label, onClick: () => void put(to, where) });
  const items: MenuProps["items"] = [
    ...(machine ? [{ key: "machine", label: <Link href={machine.path}>{machine.label}</Link> }] : []),
    ...(where === null ? [] : [item(null, t("site.putBack"))]),
    ...(where === "archived" ? [] : [item("archived", t("site.archive"))]),
    ...(where === "deleted" ? [] : [{ ...item("deleted", t("site.delete")), danger: true }]),
  ];
  return (
    <MenuButton
      items={items}
      button={(onClick) => (
        <button
          type="button"
          className={styles.more}
          aria-label={t("site.moreFor", { name })}
          aria-haspopup="menu"
          onClick={onClick}
        >
          ⋯
        </button>
      )}
    />
  );
}
