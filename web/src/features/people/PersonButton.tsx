"use client";
import { Button, Modal } from "antd";
import dynamic from "next/dynamic";
import { useState } from "react";
import { useSigned } from "./Signed";
import { t } from "@/messages";

// what few visits need comes when it is asked for
const Switch = dynamic(() => import("./Switch").then((m) => m.Switch), { ssr: false });

/** Who is signed in; a tap changes the person, with everything on the page left as it is. */
export function PersonButton() {
  const { isOn, person, isSignedOut } = useSigned();
  const name = isSignedOut ? undefined : person?.name;
  const [isOpen, setOpen] = useState(false);
  if (!isOn) return null;
  return (
    <>
      <Button type={name ? "text" : "primary"} onClick={() => setOpen(true)} title={t("people.changeThePerson")}>
        {name ?? t("people.signIn")}
      </Button>
      <Modal
        open={isOpen}
        onCancel={() => setOpen(false)}
        footer={null}
        title={name ? t("people.signedIn2", { name }) : t("people.signIn")}
        width={420}
        destroyOnHidden
      >
        <Switch onDone={() => setOpen(false)} />
      </Modal>
    </>
  );
}
