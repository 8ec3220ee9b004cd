"use client";
import { Button } from "antd";
import dynamic from "next/dynamic";
import { useState } from "react";
import { useSigned } from "./Signed";
import { t } from "@/messages";

// what few visits need comes when it is asked for
const SwitchSheet = dynamic(() => import("./SwitchSheet").then((m) => m.SwitchSheet), { ssr: false });

/** Who is signed in; a tap changes the person, with everything on the page left as it is. */
export function PersonButton() {
  const { isOn, person, isSignedOut } = useSigned();
  const name = isSignedOut ? undefined : person?.name;
  const [isOpen, setOpen] = useState<boolean | undefined>(undefined);
  if (!isOn) return null;
  return (
    <>
      <Button type={name ? "text" : "primary"} onClick={() => setOpen(true)} title={t("people.changeThePerson")}>
        {name ?? t("people.signIn")}
      </Button>
      {isOpen === undefined ? null : <SwitchSheet isOpen={isOpen} name={name} onClose={() => setOpen(false)} />}
    </>
  );
}
