"use client";
import { Modal } from "antd";
import type { ReactNode } from "react";
import { inSheet } from "@/ui/focus";

/** A sheet over the case. When it closes, the value box has the focus again. */
export function Sheet({
  open,
  title,
  width,
  onClose,
  children,
}: {
  readonly open: boolean;
  readonly title: string;
  readonly width: number;
  readonly onClose: () => void;
  readonly children: ReactNode;
}) {
  return (
    <Modal
      open={open}
      onCancel={onClose}
      title={title}
      footer={null}
      destroyOnHidden
      width={width}
      style={{ top: 20 }}
      focusable={{ focusTriggerAfterClose: false }}
      afterClose={() => {
        if (!inSheet())
          document
            .querySelector<HTMLInputElement>("[aria-label='Next reading'] form input")
            ?.focus({ preventScroll: true });
      }}
    >
      {children}
    </Modal>
  );
}
