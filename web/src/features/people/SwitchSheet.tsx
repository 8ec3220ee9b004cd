"use client";
import { Modal } from "antd";
import { Switch } from "./Switch";
import { t } from "@/messages";

/** Changes the person over the page. @param name who is signed in now */
export function SwitchSheet({
  isOpen,
  name,
  onClose,
}: {
  readonly isOpen: boolean;
  readonly name: string | undefined;
  readonly onClose: () => void;
}) {
  return (
    <Modal
      open={isOpen}
      onCancel={onClose}
      footer={null}
      title={name ? t("people.signedIn2", { name }) : t("people.signIn")}
      width={420}
      destroyOnHidden
    >
      <Switch onDone={onClose} />
    </Modal>
  );
}
